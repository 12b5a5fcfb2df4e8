"""Triangles by helpers: forked processes that walk the kernel, so that one bad component takes a helper and no more.

Entities are dealt out in batches. Where a helper dies or falls silent, its batch is walked again one by one by a
new helper; the component at which that one dies too is left out and named, and the rest goes on.
"""

from __future__ import annotations

import faulthandler
import os
import signal
import time
from collections import deque
from collections.abc import Callable, Sequence
from contextlib import suppress
from dataclasses import dataclass, field
from multiprocessing.connection import Connection, Pipe, wait
from typing import Any

from stairpath.core.reading.model import Geometry
from stairpath.core.reading.pack import pack, unpack
from stairpath.core.sandbox import Progress, die_with_parent

WORTH_A_PROCESS = 2000
"""Shapes for which another process pays for itself."""
LEAST_BATCH = 64
BATCHES = 12
"""Batches for each helper of a large file."""
MOST_LEFT_OUT = 200
"""Components that may be left out; beyond, what is left of their batches is not tried one by one any more."""
LEAST_SILENCE_S = 20.0
_REPORT_EVERY_S = 0.1
_LISTEN_S = 0.25


@dataclass(frozen=True)
class Walked:
    """Triangles, and the owners of which some were left out because their coordinates cannot be."""

    geometry: Geometry
    unsound: frozenset[int] = frozenset()


@dataclass(frozen=True)
class LeftOut:
    """An entity that took its helper down, by its place in the list, and how."""

    index: int
    why: str


Walk = Callable[[Sequence[Any], Progress], Walked]


def cores() -> int:
    """Processors that this process may use."""
    return len(os.sched_getaffinity(0))


def processes_for(shapes: int) -> int:
    """How many processes are worth starting for so many shapes."""
    return max(1, min(cores(), shapes // WORTH_A_PROCESS))


def _source(entity: Any) -> int:
    """The STEP id of what an entity's shape is made from, the same for entities that repeat one."""
    with suppress(Exception):  # what is wrong with a representation is the kernel's to say
        for representation in entity.Representation.Representations:
            for item in representation.Items:
                if item.is_a("IfcMappedItem"):
                    return int(item.MappingSource.id())
    return int(entity.id())


def deal(entities: Sequence[Any], largest: int) -> list[list[int]]:
    """Deal entities out to batches of at most so many, by their places; those that repeat a shape stay together.

    A shape that is repeated more often than that has a batch to itself.
    """
    together: dict[int, list[int]] = {}
    for index, entity in enumerate(entities):
        together.setdefault(_source(entity), []).append(index)
    batches: list[list[int]] = [[]]
    for group in together.values():
        if batches[-1] and len(batches[-1]) + len(group) > largest:
            batches.append([])
        batches[-1].extend(group)
    return [batch for batch in batches if batch]


def _help(pipe: Connection, walk: Walk, entities: Sequence[Any]) -> None:
    """Walk whatever batches are asked for until the pipe is closed."""
    while True:
        try:
            batch, careful = pipe.recv()
        except EOFError:
            return
        last = 0.0

        def report(done: float, at: str) -> None:
            nonlocal last
            if time.monotonic() - last >= _REPORT_EVERY_S:
                last = time.monotonic()
                pipe.send(("at", done, at))

        try:
            if careful:
                for k, index in enumerate(batch):
                    pipe.send(("begin", k, ""))
                    made = walk([entities[index]], lambda share, at: None)
                    pipe.send(("made", pack(made.geometry), made.unsound))
            else:
                made = walk([entities[index] for index in batch], report)
                pipe.send(("made", pack(made.geometry), made.unsound))
        except MemoryError:
            pipe.send(("raised", "it needs more memory than a file may take", ""))
            return
        except Exception as error:  # whatever the kernel's wrapper raises is about this component alone
            pipe.send(("raised", f"{type(error).__name__}: {error}", ""))
            return
        pipe.send(("done", 1.0, ""))


@dataclass
class _Helper:
    """A forked process at a batch, and what was heard from it."""

    pid: int
    pipe: Connection
    batch: list[int] = field(default_factory=list)
    careful: bool = False
    at: int = 0
    done: float = 0.0
    near: str = ""
    heard: float = field(default_factory=time.monotonic)
    raised: str = ""

    def ask(self, batch: list[int], careful: bool) -> None:
        self.batch, self.careful, self.at, self.done, self.heard = batch, careful, -1, 0.0, time.monotonic()
        self.pipe.send((batch, careful))

    def end(self) -> str:
        """End the process, whatever it is at; returns how it died if it did by itself."""
        self.pipe.close()
        pid, status = os.waitpid(self.pid, os.WNOHANG)
        if pid == 0:
            # The pipe of a process that is dying closes a moment before the process can be waited for.
            deadline = time.monotonic() + 0.2
            while pid == 0 and time.monotonic() < deadline:
                time.sleep(0.01)
                pid, status = os.waitpid(self.pid, os.WNOHANG)
        if pid == 0:
            os.kill(self.pid, signal.SIGKILL)
            os.waitpid(self.pid, 0)
            return ""
        return signal.Signals(os.WTERMSIG(status)).name if os.WIFSIGNALED(status) else ""


def _fork(walk: Walk, entities: Sequence[Any], others: Sequence[_Helper]) -> _Helper:
    here, there = Pipe()
    # Forked, so that the file that was parsed already is there without being parsed again.
    pid = os.fork()
    if pid == 0:
        try:
            die_with_parent()
            faulthandler.disable()  # what crashes here is expected to, and is told in a sentence
            here.close()
            for other in others:
                other.pipe.close()
            _help(there, walk, entities)
        finally:
            os._exit(0)
    there.close()
    return _Helper(pid, here)


class Sharing:
    """A file's entities on their way through the kernel."""

    def __init__(
        self, entities: Sequence[Any], walk: Walk, on_progress: Progress, count: int, longest_silence_s: float
    ) -> None:
        self.entities, self.walk, self.on_progress = entities, walk, on_progress
        self.count, self.longest_silence_s = count, longest_silence_s
        size = max(LEAST_BATCH, len(entities) // (BATCHES * count))
        self.waiting: deque[tuple[list[int], bool]] = deque((batch, False) for batch in deal(entities, size))
        self.made: list[tuple[int, Geometry]] = []
        self.unsound: set[int] = set()
        self.left_out: list[LeftOut] = []
        self.finished = 0
        self.helpers: list[_Helper] = []
        self.begun = time.monotonic()

    def silence_s(self) -> float:
        """How long a helper may be silent: half of what the file took until now, within bounds."""
        share = 0.5 * (time.monotonic() - self.begun)
        return min(max(share, LEAST_SILENCE_S), max(self.longest_silence_s, 0.1))

    def _leave(self, index: int, why: str) -> None:
        self.left_out.append(LeftOut(index, why))
        self.finished += 1

    def _lost(self, helper: _Helper, why: str) -> None:
        """A helper is gone: its batch is walked one by one, or the entity that it was at is left out."""
        self.helpers.remove(helper)
        died = helper.end()
        if not helper.batch:
            return
        if not helper.careful:
            if len(self.left_out) < MOST_LEFT_OUT:
                self.waiting.append((helper.batch, True))
                return
            for index in helper.batch:
                self._leave(index, "not tried any more, after so many others of this file")
            return
        at = max(helper.at, 0)
        # SIGKILL is what the system sends where memory runs out.
        killed = {"": why, "SIGKILL": "its process was killed, most likely for lack of memory"}
        self._leave(helper.batch[at], killed.get(died, f"it crashes the geometry kernel ({died})"))
        rest = helper.batch[at + 1 :]
        if rest and len(self.left_out) < MOST_LEFT_OUT:
            self.waiting.append((rest, True))
        else:
            for index in rest:
                self._leave(index, "not tried any more, after so many others of this file")

    def _hear(self, helper: _Helper) -> None:
        try:
            while helper.pipe.poll():
                kind, first, second = helper.pipe.recv()
                helper.heard = time.monotonic()
                if kind == "at":
                    helper.done, helper.near = first, second
                elif kind == "begin":
                    helper.at = first
                elif kind == "raised":
                    self._lost(helper, first)
                    return
                elif kind == "made":
                    of = helper.batch[max(helper.at, 0)] if helper.careful else helper.batch[0]
                    self.made.append((of, unpack(first)))
                    self.unsound |= second
                    self.finished += 1 if helper.careful else len(helper.batch)
                    helper.done = 0.0
                else:
                    helper.batch, helper.done = [], 0.0
        except (EOFError, ConnectionResetError):
            self._lost(helper, "it crashes the geometry kernel")

    def _busy(self) -> list[_Helper]:
        return [helper for helper in self.helpers if helper.batch]

    def _ask_all(self) -> None:
        for helper in [h for h in self.helpers if not h.batch]:
            if self.waiting:
                helper.ask(*self.waiting.popleft())
        while self.waiting and len(self.helpers) < self.count:
            helper = _fork(self.walk, self.entities, self.helpers)
            self.helpers.append(helper)
            helper.ask(*self.waiting.popleft())

    def run(self) -> None:
        """Walk everything."""
        try:
            while True:
                self._ask_all()
                busy = self._busy()
                if not busy:
                    return
                wait([helper.pipe for helper in busy], timeout=_LISTEN_S)
                for helper in busy:
                    self._hear(helper)
                now = time.monotonic()
                for helper in self._busy():
                    if now - helper.heard > self.silence_s():
                        self._lost(helper, f"it was not done after {now - helper.heard:.0f} s")
                under_way = sum(h.done * len(h.batch) for h in self._busy() if not h.careful)
                near = next((h.near for h in self._busy() if h.near), "")
                self.on_progress((self.finished + under_way) / max(len(self.entities), 1), near)
        finally:
            for helper in list(self.helpers):
                helper.end()
            self.helpers.clear()


def walk_in_shares(
    entities: Sequence[Any], walk: Walk, on_progress: Progress, count: int, longest_silence_s: float = 180.0
) -> tuple[Walked, list[LeftOut]]:
    """``walk`` all entities in ``count`` helpers; what was made of them, and which ones could not be."""
    sharing = Sharing(entities, walk, on_progress, count, longest_silence_s)
    sharing.run()
    in_order = [geometry for _, geometry in sorted(sharing.made, key=lambda each: each[0])]
    return Walked(Geometry.joined(in_order), frozenset(sharing.unsound)), sharing.left_out
