"""Looking at a file before it is read: is it IFC, is it whole, is it within the limits."""

from __future__ import annotations

import contextlib
import io
import os
import shutil
import struct
import tempfile
import zipfile
import zlib
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path, PurePosixPath
from typing import IO

from stairpath.core.problems import CannotReadError

_HEAD = b"ISO-10303-21"
_TAIL = b"END-ISO-10303-21"
_PIECE = 1 << 20
_IN_MEMORY = 4 << 20
# The end of a zip's table of contents: APPNOTE 4.3.16.
_END_MARK = b"PK\5\6"
_END = struct.Struct("<4s4H2LH")
_END_REACH = _END.size + (1 << 16)
_LARGEST_DIRECTORY = 1 << 20
SCHEMAS = ("IFC2X3", "IFC4", "IFC4X3")


@dataclass(frozen=True)
class Limits:
    """How large a file may be as it arrives, and once unpacked; and how many files an archive may hold."""

    file_bytes: int = 512 << 20
    unpacked_bytes: int = 2048 << 20
    members: int = 1000


def megabytes(count: int) -> str:
    """A size as people say it."""
    return f"{count / (1 << 20):.0f} MB" if count >= 1 << 20 else f"{max(1, count // 1024)} kB"


def size_of(stream: IO[bytes]) -> int:
    """How many bytes a file holds that can be read anywhere."""
    return stream.seek(0, os.SEEK_END)


def check_whole(name: str, stream: IO[bytes], size: int) -> None:
    """Refuse what is empty, not IFC, or cut short; raises CannotReadError."""
    if size == 0:
        raise CannotReadError(f"{name} is empty; export it again from the design program.")
    stream.seek(0)
    head = stream.read(4096)
    if _HEAD not in head.lstrip(b"\xef\xbb\xbf \t\r\n")[:64]:
        raise CannotReadError(
            f"{name} is not an IFC file (it does not begin with ISO-10303-21); choose a .ifc or .ifczip file."
        )
    stream.seek(max(0, size - 4096))
    if _TAIL not in stream.read(4096):
        raise CannotReadError(f"{name} is cut short (its end is missing); copy or export it again.")
    stream.seek(0)


def _directory(name: str, stream: IO[bytes], limits: Limits) -> zipfile.ZipFile:
    """Open an archive whose table of contents is no larger than an archive of models has."""
    stream.seek(0, io.SEEK_END)
    tail = min(stream.tell(), _END_REACH)
    stream.seek(-tail, io.SEEK_END)
    last = stream.read(tail)
    at = last.rfind(_END_MARK)
    if at >= 0 and len(last) >= at + _END.size:
        *_, entries, size, _, _ = _END.unpack_from(last, at)
        if entries > limits.members or size > _LARGEST_DIRECTORY:
            raise CannotReadError(
                f"{name} holds more than {limits.members} files; send its models as separate files or in a smaller archive."
            )
    stream.seek(0)
    try:
        return zipfile.ZipFile(stream)
    except (zipfile.BadZipFile, OSError, ValueError, NotImplementedError, struct.error) as error:
        raise CannotReadError(
            f"{name} is not a readable zip archive; pack it again or send the .ifc itself."
        ) from error


def _too_much(name: str, limits: Limits) -> CannotReadError:
    return CannotReadError(
        f"{name} unpacks to more than {megabytes(limits.unpacked_bytes)}; send its models as separate files."
    )


def _unpack(name: str, stream: IO[bytes], limits: Limits, kept: contextlib.ExitStack) -> list[tuple[str, IO[bytes]]]:
    """Every model of an archive in a file of its own, piece by piece."""
    archive = _directory(name, stream, limits)
    members = [info for info in archive.infolist() if info.filename.lower().endswith(".ifc")]
    if not members:
        raise CannotReadError(f"{name} holds no .ifc file; pack the model file itself.")
    if sum(info.file_size for info in members) > limits.unpacked_bytes:
        raise _too_much(name, limits)
    found: list[tuple[str, IO[bytes]]] = []
    total = 0
    for info in members:
        out = kept.enter_context(tempfile.SpooledTemporaryFile(max_size=_IN_MEMORY))  # noqa: SIM115
        try:
            with archive.open(info) as member:
                while piece := member.read(_PIECE):
                    total += len(piece)
                    if total > limits.unpacked_bytes:  # the table of contents does not say the truth
                        raise _too_much(name, limits)
                    out.write(piece)
        except (zipfile.BadZipFile, zlib.error, RuntimeError, NotImplementedError, EOFError, OSError) as error:
            raise CannotReadError(f"{name} cannot be unpacked ({error}); pack it again without a password.") from error
        size = out.tell()
        check_whole(f"{PurePosixPath(info.filename).name} in {name}", out, size)
        found.append((PurePosixPath(info.filename).name, out))
    return found


@contextlib.contextmanager
def take_in(name: str, stream: IO[bytes], limits: Limits | None = None) -> Iterator[list[tuple[str, IO[bytes]]]]:
    """Check a file as it arrived; gives the IFC files in it as (name, content) while the block lasts.

    A ``.ifc`` gives itself, an ``.ifczip`` everything it holds, never more than a piece of it in memory.
    Raises CannotReadError with one sentence that says what is wrong and what to do.
    """
    limits = limits or Limits()
    stream.seek(0, io.SEEK_END)
    size = stream.tell()
    if size > limits.file_bytes:
        raise CannotReadError(
            f"{name} is {megabytes(size)}, more than the {megabytes(limits.file_bytes)} that this server takes; "
            "split it or ask for a higher limit."
        )
    with contextlib.ExitStack() as kept:
        if size and name.lower().endswith((".ifczip", ".zip")):
            yield _unpack(name, stream, limits, kept)
        else:
            check_whole(name, stream, size)
            yield [(name, stream)]


def take_in_path(path: Path, into: Path, limits: Limits | None = None) -> list[tuple[str, Path]]:
    """The same for a file on disk; what an archive holds is written into a folder."""
    try:
        with path.open("rb") as stream, take_in(path.name, stream, limits) as files:
            found: list[tuple[str, Path]] = []
            for inner, content in files:
                if content is stream:
                    found.append((inner, path))
                    continue
                there = into / f"{len(list(into.iterdir()))}.ifc"
                with there.open("wb") as out:
                    content.seek(0)
                    shutil.copyfileobj(content, out)
                found.append((inner, there))
            return found
    except FileNotFoundError as error:
        raise CannotReadError(f"{path} does not exist; check the name.") from error
    except (IsADirectoryError, PermissionError) as error:
        raise CannotReadError(
            f"{path} cannot be opened ({error.strerror}); give the path of a readable file."
        ) from error
