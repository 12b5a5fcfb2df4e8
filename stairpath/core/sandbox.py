"""Work on somebody's file in a child process, with limits on time and memory.

A crash, a hang or a hunger for memory then takes one piece of work and no more. A child that has
done its work well is kept for the next piece, so that what is compiled or loaded is there already.
"""

from __future__ import annotations

import contextlib
import ctypes
import multiprocessing
import os
import pickle
import resource
import signal
import sys
import threading
import time
import traceback
import warnings
from collections.abc import Callable
from dataclasses import dataclass
from multiprocessing import forkserver
from multiprocessing.connection import Connection
from multiprocessing.process import BaseProcess
from typing import Any, ParamSpec, TypeVar

T = TypeVar("T")
P = ParamSpec("P")
Progress = Callable[[float, str], None]

_REPORT_EVERY_S = 0.1
_LISTEN_S = 0.2
_MOST_PIECES = 64
"""So many pieces of work a child does before it is let go, so that nothing builds up in it."""
_PAUSES_S = (0.5, 2.0)
"""Between the tries of work whose process was killed from outside."""
KILLED_TRIES = len(_PAUSES_S) + 1
_PR_SET_PDEATHSIG = 1

# A child runs its parent's program module again under another name, which Python warns about
# when it is loaded already; that is just what the preloading below is for.
warnings.filterwarnings("ignore", message=".*found in sys.modules after import of package", category=RuntimeWarning)


class SandboxError(Exception):
    """The work did not come to its end; ``at`` is where it was last, if that is known."""

    def __init__(self, text: str, at: str = "") -> None:
        super().__init__(text)
        self.at = at


class UnfinishedError(SandboxError):
    """Something went wrong with the work or its process; nobody wished it ended."""


class CrashedError(UnfinishedError):
    """The process died by itself; ``signal_name`` says by what."""

    def __init__(self, text: str, at: str = "", signal_name: str = "") -> None:
        super().__init__(text, at)
        self.signal_name = signal_name


class TooLongError(UnfinishedError):
    """It ran over its time, or was silent for too long."""

    def __init__(self, text: str, at: str = "", seconds: float = 0.0) -> None:
        super().__init__(text, at)
        self.seconds = seconds


class TooMuchMemoryError(UnfinishedError):
    """It needed more memory than it may take; ``limit_mb`` says how much that is."""

    def __init__(self, text: str, at: str = "", limit_mb: int = 0) -> None:
        super().__init__(text, at)
        self.limit_mb = limit_mb


class RaisedError(UnfinishedError):
    """It raised something that cannot be handed on as it is; ``trace`` says where."""

    def __init__(self, text: str, trace: str = "") -> None:
        super().__init__(text)
        self.trace = trace


class CancelledError(SandboxError):
    """Somebody did not want it any more."""


@dataclass(frozen=True)
class Limits:
    """What a piece of work may take: in all, without any progress, and of memory (0 for no limit)."""

    total_s: float = 3600.0
    silence_s: float = 180.0
    memory_mb: int = 6144


_prctl = ctypes.CDLL(None, use_errno=True).prctl


def die_with_parent(by: signal.Signals = signal.SIGKILL) -> None:
    """Have the kernel send this process a signal when the one that forked it ends, however that is."""
    _prctl(_PR_SET_PDEATHSIG, by, 0, 0, 0)


def _let_the_server_end() -> None:
    """Close what a child inherits that keeps the server of children alive after the caller has ended."""
    alive = getattr(getattr(forkserver, "_forkserver", None), "_forkserver_alive_fd", None)
    if isinstance(alive, int):
        os.close(alive)


def _limit_memory(megabytes: int) -> None:
    _, hard = resource.getrlimit(resource.RLIMIT_DATA)
    soft = hard if megabytes <= 0 else megabytes << 20
    resource.setrlimit(resource.RLIMIT_DATA, (soft, hard))


def _handed_on(error: Exception) -> Exception:
    """The error itself where it survives a pipe, else what it says."""
    try:
        back = pickle.loads(pickle.dumps(error))
        if type(back) is type(error):
            return error
    except Exception:  # whatever an error does that is pickled, there is something to say
        pass
    return RaisedError(f"{type(error).__name__}: {error}", traceback.format_exc())


def _child(pipe: Connection) -> None:
    os.setpgid(0, 0)  # helpers that it starts end together with it
    die_with_parent()
    _let_the_server_end()
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # the terminal's Ctrl+C is for the parent
    while True:
        try:
            work, args, memory_mb, environment = pipe.recv()
        except EOFError:
            return
        os.environ.clear()
        os.environ.update(environment)  # as it is for who asks now, not as it was when the server of children began
        _limit_memory(memory_mb)
        last = 0.0

        def report(share: float, at: str) -> None:
            nonlocal last
            now = time.monotonic()
            if now - last >= _REPORT_EVERY_S:
                last = now
                pipe.send(("progress", share, at))

        try:
            answer: tuple[Any, ...] = ("done", work(*args, report))
        except MemoryError:
            answer = ("memory",)
        except Exception as error:
            answer = ("raised", _handed_on(error))
        try:
            pipe.send(answer)
        except MemoryError:
            pipe.send(("memory",))
        except BrokenPipeError:
            return


class _Child:
    """A child process and the pipe to it."""

    def __init__(self, preload: list[str]) -> None:
        # The server that children are forked from loads, once, what the work needs and what the
        # program that runs here is made of; each child would import that again otherwise.
        context = multiprocessing.get_context("forkserver")
        context.set_forkserver_preload(preload)
        self.pipe, there = context.Pipe()
        self.process: BaseProcess = context.Process(target=_child, args=(there,), daemon=True)
        self.process.start()
        there.close()
        self.pieces = 0

    def end(self) -> None:
        """End it and the helpers it started."""
        self.pipe.close()
        if self.process.is_alive() and self.process.pid is not None:
            try:
                os.killpg(self.process.pid, signal.SIGKILL)
            except ProcessLookupError:  # it has not come as far as leading its group
                self.process.kill()
        self.process.join(5)

    def signal_name(self) -> str:
        """By which signal it died, if it did."""
        self.process.join(5)
        code = self.process.exitcode or 0
        return signal.Signals(-code).name if code < 0 else ""


_idle: list[_Child] = []
_lock = threading.Lock()


def _take(work: Callable[..., Any]) -> _Child:
    with _lock:
        while _idle:
            child = _idle.pop()
            if child.process.is_alive():
                return child
            child.end()
    program = getattr(sys.modules["__main__"], "__spec__", None)
    return _Child([work.__module__, *([program.name] if program else [])])


def _put_back(child: _Child) -> None:
    child.pieces += 1
    with _lock:
        if child.pieces < _MOST_PIECES and len(_idle) < len(os.sched_getaffinity(0)):
            _idle.append(child)
            return
    child.end()


def end_idle_children() -> None:
    """End the children that wait for work."""
    with _lock:
        while _idle:
            _idle.pop().end()


def _heard(child: _Child, at: str) -> Any:
    try:
        return child.pipe.recv()
    except (EOFError, ConnectionResetError):
        name = child.signal_name()
        raise CrashedError(f"The process died{f' of {name}' if name else ''}.", at, name) from None


def run_sandboxed(
    work: Callable[..., T],
    *args: Any,
    limits: Limits | None = None,
    on_progress: Progress | None = None,
    cancelled: Callable[[], bool] | None = None,
) -> T:
    """What ``work(*args, report)`` gives, done in a child process; ``report`` takes a share and a place.

    Work is safe to run twice: where its process is killed from outside (SIGKILL, as the system does when memory runs
    out) it is begun again, up to KILLED_TRIES times in all.

    Raises what the work raised where that survives a pipe, else RaisedError; CrashedError, TooLongError,
    TooMuchMemoryError; CancelledError once ``cancelled()`` says so.
    """
    for pause_s in (*_PAUSES_S, None):
        try:
            return _run_once(work, *args, limits=limits or Limits(), on_progress=on_progress, cancelled=cancelled)
        except CrashedError as error:
            if error.signal_name != signal.SIGKILL.name or pause_s is None:
                raise
            time.sleep(pause_s)
    raise AssertionError("the last try returns or raises")


def _run_once(
    work: Callable[..., T],
    *args: Any,
    limits: Limits,
    on_progress: Progress | None,
    cancelled: Callable[[], bool] | None,
) -> T:
    child = _take(work)
    well = False
    at = ""
    started = heard = time.monotonic()
    try:
        with contextlib.suppress(BrokenPipeError):  # it died just now; what is heard says so
            child.pipe.send((work, args, limits.memory_mb, dict(os.environ)))
        while True:
            if child.pipe.poll(_LISTEN_S):
                kind, *said = _heard(child, at)
                heard = time.monotonic()
                if kind == "done":
                    well = True
                    result: T = said[0]
                    return result
                if kind == "raised":
                    well = True
                    raise said[0]
                if kind == "memory":
                    text = f"It needs more than the {limits.memory_mb} MB of memory that it may take."
                    raise TooMuchMemoryError(text, at, limits.memory_mb)
                at = said[1] or at
                if on_progress:
                    on_progress(said[0], said[1])
            if cancelled and cancelled():
                raise CancelledError("It was cancelled.", at)
            now = time.monotonic()
            if now - heard > limits.silence_s or now - started > limits.total_s:
                seconds = now - started
                raise TooLongError(f"It took longer than allowed ({seconds:.0f} s).", at, seconds)
    finally:
        if well:
            _put_back(child)
        else:
            child.end()
