"""Looking at a file before it is read: is it IFC, is it whole, is it within the limits."""

from __future__ import annotations

import io
import zipfile
import zlib
from dataclasses import dataclass
from pathlib import Path, PurePosixPath
from typing import IO

from stairpath.core.problems import CannotReadError

_HEAD = b"ISO-10303-21"
_TAIL = b"END-ISO-10303-21"
_PIECE = 1 << 20
SCHEMAS = ("IFC2X3", "IFC4", "IFC4X3")


@dataclass(frozen=True)
class Limits:
    """How large a file may be as it arrives, and once unpacked."""

    file_bytes: int = 512 << 20
    unpacked_bytes: int = 2048 << 20


def megabytes(count: int) -> str:
    """A size as people say it."""
    return f"{count / (1 << 20):.0f} MB" if count >= 1 << 20 else f"{max(1, count // 1024)} kB"


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


def _unpack(name: str, stream: IO[bytes], limits: Limits) -> list[tuple[str, bytes]]:
    try:
        archive = zipfile.ZipFile(stream)
    except zipfile.BadZipFile as error:
        raise CannotReadError(
            f"{name} is not a readable zip archive; pack it again or send the .ifc itself."
        ) from error
    members = [info for info in archive.infolist() if info.filename.lower().endswith(".ifc")]
    if not members:
        raise CannotReadError(f"{name} holds no .ifc file; pack the model file itself.")
    found: list[tuple[str, bytes]] = []
    total = 0
    for info in members:
        out = io.BytesIO()
        try:
            with archive.open(info) as member:
                while piece := member.read(_PIECE):
                    total += len(piece)
                    if total > limits.unpacked_bytes:
                        raise CannotReadError(
                            f"{name} unpacks to more than {megabytes(limits.unpacked_bytes)}; "
                            "send its models as separate files."
                        )
                    out.write(piece)
        except (zipfile.BadZipFile, zlib.error, RuntimeError, NotImplementedError, EOFError, OSError) as error:
            raise CannotReadError(f"{name} cannot be unpacked ({error}); pack it again without a password.") from error
        found.append((PurePosixPath(info.filename).name, out.getvalue()))
    return found


def take_in(name: str, stream: IO[bytes], limits: Limits | None = None) -> list[tuple[str, bytes]]:
    """Check a file as it arrived; returns the IFC files in it as (name, content).

    A ``.ifc`` gives itself, an ``.ifczip`` everything it holds. Raises CannotReadError with
    one sentence that says what is wrong and what to do.
    """
    limits = limits or Limits()
    stream.seek(0, io.SEEK_END)
    size = stream.tell()
    if size > limits.file_bytes:
        raise CannotReadError(
            f"{name} is {megabytes(size)}, more than the {megabytes(limits.file_bytes)} that this server takes; "
            "split it or ask for a higher limit."
        )
    stream.seek(0)
    lower = name.lower()
    if size and lower.endswith((".ifczip", ".zip")):
        files = _unpack(name, stream, limits)
        for inner, content in files:
            check_whole(f"{inner} in {name}", io.BytesIO(content), len(content))
        return files
    check_whole(name, stream, size)
    return [(name, stream.read())]


def take_in_path(path: Path, limits: Limits | None = None) -> list[tuple[str, bytes]]:
    """The same for a file on disk."""
    try:
        with path.open("rb") as stream:
            return take_in(path.name, stream, limits)
    except FileNotFoundError as error:
        raise CannotReadError(f"{path} does not exist; check the name.") from error
    except (IsADirectoryError, PermissionError) as error:
        raise CannotReadError(
            f"{path} cannot be opened ({error.strerror}); give the path of a readable file."
        ) from error
