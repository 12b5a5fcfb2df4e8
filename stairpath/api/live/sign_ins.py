"""Open connections of who is signed in: each is ended soon after its sign-in is."""

from __future__ import annotations

import asyncio
from collections import defaultdict
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress

import structlog
from fastapi.concurrency import run_in_threadpool
from starlette.requests import HTTPConnection

from stairpath.api.http.signed_in import secret_of
from stairpath.work.base.database import UNREACHABLE
from stairpath.work.people import sign_ins

log = structlog.get_logger()

LOOK_S = 1.0
ENDED = 4401
"""The code with which a socket is closed whose sign-in has ended."""


class OpenSignIns:
    """Asks once a second, for all open connections of this process together, which of their sign-ins still hold."""

    def __init__(self) -> None:
        self._ends: dict[str, set[Callable[[], None]]] = defaultdict(set)
        self._task: asyncio.Task[None] | None = None

    async def open(self) -> None:
        """Begin to look."""
        self._task = asyncio.create_task(self._look(), name="sign-ins")

    async def close(self) -> None:
        """Look no more."""
        if self._task is not None:
            self._task.cancel()
            with suppress(asyncio.CancelledError):
                await self._task

    @contextmanager
    def over(self, connection: HTTPConnection, end: Callable[[], None]) -> Iterator[None]:
        """While this lasts, ``end`` is called once the sign-in of a connection does not hold any more."""
        secret = secret_of(connection)
        self._ends[secret].add(end)
        try:
            yield
        finally:
            self._ends[secret].discard(end)
            if not self._ends[secret]:
                del self._ends[secret]

    async def _look(self) -> None:
        while True:
            await asyncio.sleep(LOOK_S)
            if not self._ends:
                continue
            try:
                hold = await run_in_threadpool(sign_ins.that_hold, list(self._ends))
            except UNREACHABLE:
                continue  # it is asked again; who cannot be asked about is not sent away
            except Exception:  # one look that fails is no reason never to look again
                log.exception("sign-ins could not be looked at")
                continue
            for secret in set(self._ends) - hold:
                for end in tuple(self._ends.get(secret, ())):
                    end()
