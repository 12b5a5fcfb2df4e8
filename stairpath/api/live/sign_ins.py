"""Open connections of who is signed in: each is ended soon after its sign-in is, or after its role changed."""

from __future__ import annotations

import asyncio
from collections import Counter, defaultdict
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress

import structlog
from fastapi.concurrency import run_in_threadpool
from starlette.requests import HTTPConnection

from stairpath.api.http.door import let_in_at, secret_of, signed_in, token_of
from stairpath.core.people.roles import Role
from stairpath.settings import settings
from stairpath.work.base.database import UNREACHABLE
from stairpath.work.base.errors import TooOftenError
from stairpath.work.people import access
from stairpath.work.server import state

log = structlog.get_logger()

LOOK_S = 1.0
_ROOM_AGAIN_S = 10
ENDED = 4401
"""The code with which a socket is closed whose sign-in has ended."""


class OpenSignIns:
    """Asks once a second, for all open connections of this process together, what their sign-ins still may."""

    def __init__(self) -> None:
        self._ends: dict[tuple[str, str, Role], set[Callable[[], None]]] = defaultdict(set)
        self._held: Counter[str] = Counter()
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

    def check_room(self, connection: HTTPConnection) -> None:
        """Raises TooOftenError for who has as many connections open at this process as one person may."""
        signed = signed_in(connection)
        if signed is not None and self._held[signed.id] >= settings().person_connections:
            raise TooOftenError(
                "You have as many pages open as one person may at once. Close some of them.",
                _ROOM_AGAIN_S,
            )

    @contextmanager
    def over(self, connection: HTTPConnection, project_id: str, end: Callable[[], None]) -> Iterator[None]:
        """While this lasts, ``end`` is called once the sign-in of a connection has ended, or its role in the project is another."""
        key = (token_of(connection) or secret_of(connection), project_id, let_in_at(connection).role)
        self._ends[key].add(end)
        signed = signed_in(connection)
        whose = signed.id if signed else ""
        self._held[whose] += 1
        try:
            yield
        finally:
            self._held[whose] -= 1
            if not self._held[whose]:
                del self._held[whose]
            self._ends[key].discard(end)
            if not self._ends[key]:
                del self._ends[key]

    async def _look(self) -> None:
        while True:
            await asyncio.sleep(LOOK_S)
            state.look_at_clock()
            if not self._ends:
                continue
            keys = list(self._ends)
            try:
                now = await run_in_threadpool(access.still, {(secret, project) for secret, project, _ in keys})
            except UNREACHABLE:
                continue  # it is asked again; who cannot be asked about is not sent away
            except Exception:  # one look that fails is no reason never to look again
                log.exception("sign-ins could not be looked at")
                continue
            for key in keys:
                secret, project, role = key
                if now[secret, project] != role:
                    for end in tuple(self._ends.get(key, ())):
                        end()
