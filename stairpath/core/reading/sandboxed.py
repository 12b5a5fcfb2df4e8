"""Reading in a process of its own, so that a crash or a hang takes one file and no more."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import TypeVar

from stairpath.core.problems import CannotReadError
from stairpath.core.reading.model import ModelReading
from stairpath.core.reading.read import read_model
from stairpath.core.reading.shares import cores
from stairpath.core.sandbox import (
    CrashedError,
    Limits,
    Progress,
    RaisedError,
    TooLongError,
    TooMuchMemoryError,
    UnfinishedError,
    run_sandboxed,
)

T = TypeVar("T")
Source = bytes | Path
Read = Callable[[str, Source, Progress], T]


def why_not(name: str, error: UnfinishedError) -> str:
    """Why a file could not be read, in one sentence that says what to do."""
    near = f", last at component {error.at}" if error.at else ""
    match error:
        case TooMuchMemoryError():
            return (
                f"{name} needs more than the {error.limit_mb} MB of memory that reading a file may take{near}; "
                "split it, or ask for a higher limit."
            )
        case TooLongError():
            return (
                f"{name} took longer than allowed ({error.seconds:.0f} s{near}); "
                "export it again without that component, or raise the time limit."
            )
        case CrashedError(signal_name="SIGKILL"):
            return (
                f"The process that read {name} was killed{near}, most likely because the machine ran out of memory; "
                "read it again, or split it."
            )
        case CrashedError():
            return (
                f"{name} crashed its reader{f' ({error.signal_name})' if error.signal_name else ''}{near}; "
                "the other files are not affected. Export it again from the design program."
            )
        case RaisedError():
            return f"{name} could not be read ({error}); export it again from the design program."
    return f"{name} could not be read: {error}"


def read_sandboxed(
    name: str,
    source: Source,
    limits: Limits | None = None,
    on_progress: Progress | None = None,
    cancelled: Callable[[], bool] | None = None,
    *,
    read: Read[T],
) -> T:
    """Read one file with ``read`` in a child process.

    Raises CannotReadError where the file cannot be read, crashed its reader, or ran over its time or
    memory; CancelledError once ``cancelled()`` says so.
    """
    try:
        return run_sandboxed(read, name, source, limits=limits, on_progress=on_progress, cancelled=cancelled)
    except UnfinishedError as error:
        raise CannotReadError(why_not(name, error)) from error


def read_many(
    files: Sequence[tuple[str, Source]],
    limits: Limits | None = None,
    on_done: Callable[[str], None] | None = None,
) -> list[ModelReading | CannotReadError]:
    """Read files side by side on all cores; one result a file, in the order given.

    A process each, with one thread in the geometry kernel: its own threads were measured to
    take twice the processor time for no gain.
    """
    workers = min(len(files), cores()) or 1

    def one(file: tuple[str, Source]) -> ModelReading | CannotReadError:
        try:
            return read_sandboxed(*file, limits=limits, read=read_model)
        except CannotReadError as error:
            return error
        finally:
            if on_done:
                on_done(file[0])

    with ThreadPoolExecutor(workers) as pool:
        return list(pool.map(one, files))
