"""A large file's triangles on all cores: forked helpers each make a share of the shapes."""

from __future__ import annotations

import os
import signal
import time
from collections.abc import Callable, Sequence
from multiprocessing.connection import Connection, Pipe, wait
from typing import Any

from stairpath.core.problems import CannotReadError
from stairpath.core.reading.model import Geometry
from stairpath.core.reading.pack import pack, unpack

WORTH_A_PROCESS = 2000
"""Shapes for which another process pays for itself."""
_REPORT_EVERY_S = 0.1

Progress = Callable[[float, str], None]
Walk = Callable[[Sequence[Any], Progress], Geometry]


def cores() -> int:
    """Processors that this process may use."""
    return len(os.sched_getaffinity(0))


def crashed(name: str, at: str) -> CannotReadError:
    """What to say when the geometry kernel took its process down, last seen at a component."""
    return CannotReadError(
        f"{name} crashed the geometry kernel{near(at)}; the other files are not affected. "
        "Export it again without that component."
    )


def near(global_id: str) -> str:
    """Where it happened, if that is known."""
    return f", last at component {global_id}" if global_id else ""


def processes_for(shapes: int) -> int:
    """How many processes are worth starting for so many shapes."""
    return max(1, min(cores(), shapes // WORTH_A_PROCESS))


def _source(entity: Any) -> int:
    """The STEP id of what an entity's shape is made from, the same for entities that repeat one."""
    for representation in entity.Representation.Representations:
        for item in representation.Items:
            if item.is_a("IfcMappedItem"):
                return int(item.MappingSource.id())
    return int(entity.id())


def deal(entities: Sequence[Any], count: int) -> list[list[Any]]:
    """Deal entities out to so many shares; those that repeat a shape stay together."""
    together: dict[int, list[Any]] = {}
    for entity in entities:
        together.setdefault(_source(entity), []).append(entity)
    shares: list[list[Any]] = [[] for _ in range(count)]
    for group in together.values():
        min(shares, key=len).extend(group)
    return shares


def _help(pipe: Connection, walk: Walk, share: Sequence[Any]) -> None:
    last = 0.0

    def report(done: float, global_id: str) -> None:
        nonlocal last
        if time.monotonic() - last >= _REPORT_EVERY_S:
            last = time.monotonic()
            pipe.send((done, global_id, None))

    pipe.send((1.0, "", pack(walk(share, report))))


class _Helper:
    """A forked process at its share, and what was heard from it."""

    def __init__(self, walk: Walk, share: Sequence[Any]) -> None:
        self.pipe, there = Pipe(duplex=False)
        # Forked, so that the file that was parsed already is there without being parsed again.
        self.pid = os.fork()
        if self.pid == 0:
            try:
                _help(there, walk, share)
            finally:
                os._exit(0)
        there.close()
        self.done, self.at = 0.0, ""
        self.made: Geometry | None = None

    def end(self) -> None:
        """End the process, whatever it is at."""
        self.pipe.close()
        os.kill(self.pid, signal.SIGKILL)  # one that has ended waits for us, so its number is its own
        os.waitpid(self.pid, 0)

    def hear(self) -> bool:
        """Take what waits in the pipe; false once the helper died without having finished."""
        try:
            while self.made is None and self.pipe.poll():
                self.done, at, packed = self.pipe.recv()
                self.at = at or self.at
                self.made = unpack(packed) if packed is not None else None
        except EOFError:
            return False
        return True


def walk_in_shares(name: str, entities: Sequence[Any], walk: Walk, on_progress: Progress, count: int) -> Geometry:
    """``walk`` all entities with ``count`` processes, this one being the first.

    Raises CannotReadError when a helper dies, which is the geometry kernel crashing.
    """
    first, *rest = deal(entities, count)
    helpers = [_Helper(walk, share) for share in rest]
    own = 0.0

    def hear_all(at: str) -> None:
        for helper in helpers:
            if not helper.hear():
                raise crashed(name, helper.at)
            at = at or helper.at
        on_progress((own + sum(h.done for h in helpers)) / count, at)

    def report(done: float, global_id: str) -> None:
        nonlocal own
        own = done
        hear_all(global_id)

    try:
        made = [walk(first, report)]
        own = 1.0
        while waiting := [h for h in helpers if h.made is None]:
            wait([h.pipe for h in waiting], timeout=1.0)
            hear_all("")
        return Geometry.joined([*made, *(h.made for h in helpers if h.made is not None)])
    finally:
        for helper in helpers:
            helper.end()
