"""Events for open pages: one connection to the database, fanned out to every stream of this process."""

from __future__ import annotations

import asyncio
import json
from collections import defaultdict
from collections.abc import AsyncIterator, Callable
from contextlib import AbstractContextManager, suppress

import structlog

from stairpath.work.base.database import UNREACHABLE, Event, listen

log = structlog.get_logger()

_BEAT_S = 15.0
_MOST_WAITING = 64
_LONGEST_PAUSE_S = 5.0


class _Page:
    """What an open page has not been told yet; one that reads too slowly is told to begin anew."""

    def __init__(self) -> None:
        self.waiting: dict[tuple[str, str], Event] = {}
        self.anew = True
        self.ended = False
        self.woken = asyncio.Event()

    def end(self) -> None:
        """Send nothing more."""
        self.ended = True
        self.woken.set()

    def tell(self, event: Event) -> None:
        if len(self.waiting) >= _MOST_WAITING:
            self.begin_anew()
            return
        self.waiting[(event.kind, event.id)] = event  # a newer one of the same thing takes its place
        self.woken.set()

    def begin_anew(self) -> None:
        self.waiting.clear()
        self.anew = True
        self.woken.set()

    def take(self) -> list[str]:
        """What to send now."""
        self.woken.clear()
        out = ["event: begun\ndata: {}\n\n"] if self.anew else []
        self.anew = False
        for event in self.waiting.values():
            said = json.dumps({"kind": event.kind, "id": event.id, "version": event.version})
            out.append(f"event: changed\ndata: {said}\n\n")
        self.waiting.clear()
        return out


class Hub:
    """Listens once and tells every page that has the project open."""

    def __init__(self) -> None:
        self._pages: dict[str, set[_Page]] = defaultdict(set)
        self._task: asyncio.Task[None] | None = None

    async def open(self) -> None:
        """Begin to listen."""
        self._task = asyncio.create_task(self._listen(), name="events")

    async def close(self) -> None:
        """Listen no more."""
        if self._task is not None:
            self._task.cancel()
            with suppress(asyncio.CancelledError):
                await self._task

    async def _listen(self) -> None:
        pause = 0.2
        while True:
            try:
                async for event in listen():
                    pause = 0.2
                    if event is None:
                        self._all_anew()
                    else:
                        for page in self._pages.get(event.project, ()):
                            page.tell(event)
            except UNREACHABLE as error:
                log.warning("events are not heard, the database is away", reason=repr(error))
            except Exception:  # one event that cannot be read is no reason to hear none any more
                log.exception("an event could not be told")
            await asyncio.sleep(pause)
            pause = min(2 * pause, _LONGEST_PAUSE_S)

    def _all_anew(self) -> None:
        for pages in self._pages.values():
            for page in pages:
                page.begin_anew()

    async def stream(
        self, project_id: str, over: Callable[[Callable[[], None]], AbstractContextManager[None]]
    ) -> AsyncIterator[str]:
        """Server-sent events of a project until the page goes, or what is over it ends it, which is said."""
        page = _Page()
        self._pages[project_id].add(page)
        try:
            with over(page.end):
                while not page.ended:
                    for said in page.take():
                        yield said
                    try:
                        await asyncio.wait_for(page.woken.wait(), _BEAT_S)
                    except TimeoutError:
                        yield ": beat\n\n"
                yield "event: ended\ndata: {}\n\n"
        finally:
            self._pages[project_id].discard(page)
            if not self._pages[project_id]:
                del self._pages[project_id]
