"""Reading in a process of its own, so that a crash or a hang takes one file and no more."""

from __future__ import annotations

import multiprocessing
import os
import signal
import sys
import time
import warnings
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from multiprocessing.connection import Connection
from typing import Any, TypeVar

from stairpath.core.problems import CannotReadError
from stairpath.core.reading.model import ModelReading
from stairpath.core.reading.read import read_model
from stairpath.core.reading.shares import Progress, cores, crashed, near

T = TypeVar("T")
Read = Callable[[str, bytes, Progress], T]

_REPORT_EVERY_S = 0.1

# A child runs its parent's program module again under another name, which Python warns about
# when it is loaded already; that is just what the preloading below is for.
warnings.filterwarnings("ignore", message=".*found in sys.modules after import of package", category=RuntimeWarning)


class ReadingCancelledError(Exception):
    """The reading was cancelled by the user."""


@dataclass(frozen=True)
class Patience:
    """How long a file may take in all, and how long without any progress."""

    total_s: float = 3600.0
    silence_s: float = 180.0


def _child(pipe: Connection, read: Read[Any], name: str, content: bytes) -> None:
    os.setpgid(0, 0)  # helpers that it starts end together with it
    last = 0.0

    def report(share: float, global_id: str) -> None:
        nonlocal last
        now = time.monotonic()
        if now - last >= _REPORT_EVERY_S:
            last = now
            pipe.send(("progress", share, global_id))

    try:
        pipe.send(("done", read(name, content, report)))
    except CannotReadError as error:
        pipe.send(("failed", str(error)))


def _context(read: Read[Any]) -> multiprocessing.context.ForkServerContext:
    # The server that children are forked from loads, once, what the reading needs and what the
    # program that runs here is made of; each child would import that again otherwise.
    context = multiprocessing.get_context("forkserver")
    program = getattr(sys.modules["__main__"], "__spec__", None)
    context.set_forkserver_preload([read.__module__, *([program.name] if program else [])])
    return context


def read_apart(
    name: str,
    content: bytes,
    patience: Patience | None = None,
    on_progress: Progress | None = None,
    cancelled: Callable[[], bool] | None = None,
    *,
    read: Read[T],
) -> T:
    """Read one file with ``read`` in a child process.

    Raises CannotReadError where the file cannot be read, where the geometry kernel crashed or
    where it ran over its time; ReadingCancelledError once ``cancelled()`` says so.
    """
    patience = patience or Patience()
    context = _context(read)
    here, there = context.Pipe(duplex=False)
    child = context.Process(target=_child, args=(there, read, name, content), daemon=True)
    child.start()
    there.close()
    started = heard = time.monotonic()
    at = ""
    try:
        while True:
            if here.poll(0.2):
                try:
                    message = here.recv()
                except EOFError:
                    child.join(5)
                    raise crashed(name, at) from None
                heard = time.monotonic()
                if message[0] == "done":
                    result: T = message[1]
                    return result
                if message[0] == "failed":
                    raise CannotReadError(message[1])
                at = message[2] or at
                if on_progress:
                    on_progress(message[1], message[2])
            if cancelled and cancelled():
                raise ReadingCancelledError(name)
            now = time.monotonic()
            if now - heard > patience.silence_s or now - started > patience.total_s:
                raise CannotReadError(
                    f"{name} took longer than allowed ({now - started:.0f} s{near(at)}); "
                    "export it again without that component, or raise the time limit."
                )
    finally:
        here.close()
        _end(child)


def _end(child: multiprocessing.process.BaseProcess) -> None:
    """End a child and the helpers it started."""
    if child.is_alive() and child.pid is not None:
        try:
            os.killpg(child.pid, signal.SIGKILL)
        except ProcessLookupError:  # it has not come as far as leading its group
            child.kill()
    child.join(5)


def read_many(
    files: Sequence[tuple[str, bytes]],
    patience: Patience | None = None,
    on_done: Callable[[str], None] | None = None,
) -> list[ModelReading | CannotReadError]:
    """Read files side by side on all cores; one result a file, in the order given.

    A process each, with one thread in the geometry kernel: its own threads were measured to
    take twice the processor time for no gain.
    """
    workers = min(len(files), cores()) or 1

    def one(file: tuple[str, bytes]) -> ModelReading | CannotReadError:
        try:
            return read_apart(*file, patience=patience, read=read_model)
        except CannotReadError as error:
            return error
        finally:
            if on_done:
                on_done(file[0])

    with ThreadPoolExecutor(workers) as pool:
        return list(pool.map(one, files))
