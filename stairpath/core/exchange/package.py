"""A zip file from somewhere, read without trusting it: nothing is unpacked to disk, nothing larger than is sensible."""

from __future__ import annotations

import posixpath
import zipfile
import zlib
from pathlib import Path
from types import TracebackType
from typing import IO

from stairpath.core.exchange.topic import CannotExchangeError

MOST_ENTRIES = 400_000
MOST_BYTES = 8 << 30
"""So much may all of a file unpack to."""
MOST_PART_BYTES = 256 << 20
MOST_TEXT_BYTES = 64 << 20
_MOST_RATIO, _RATIO_FROM_BYTES = 400, 8 << 20
_DECLARED = tuple(
    mark.encode(code) for mark in ("<!DOCTYPE", "<!ENTITY") for code in ("ascii", "utf-16-le", "utf-16-be")
)


class NotReadableError(ValueError):
    """A part of a file that cannot be read; the message is one sentence."""


class Package:
    """The parts of a zip file by their names."""

    def __init__(self, source: Path | IO[bytes], name: str) -> None:
        try:
            self._zip = zipfile.ZipFile(source)
        except FileNotFoundError as error:
            raise CannotExchangeError(f"There is no file {name}; check its name.") from error
        except (zipfile.BadZipFile, OSError, ValueError, NotImplementedError) as error:
            raise CannotExchangeError(f"{name} is no file of topics, or was cut short; ask for it again.") from error
        listed = self._zip.infolist()
        if len(listed) > MOST_ENTRIES:
            self.close()
            raise CannotExchangeError(f"{name} has more than {MOST_ENTRIES:,} parts; split it.")
        if sum(info.file_size for info in listed) > MOST_BYTES:
            self.close()
            raise CannotExchangeError(f"{name} unpacks to more than {MOST_BYTES >> 30} GiB; split it.")
        self.outside: list[str] = []
        """Names of parts that would lie outside of the file; they are left out."""
        self._parts: dict[str, zipfile.ZipInfo] = {}
        self._folded: dict[str, str] = {}
        for info in listed:
            plain = info.filename.replace("\\", "/")
            part = posixpath.normpath(plain)
            if part.startswith(("/", "../")) or part == ".." or ":" in part.split("/")[0]:
                self.outside.append(info.filename)
            elif not plain.endswith("/"):
                self._parts[part] = info
                self._folded.setdefault(part.casefold(), part)

    def __enter__(self) -> Package:
        return self

    def __exit__(self, kind: type[BaseException] | None, error: BaseException | None, at: TracebackType | None) -> None:
        self.close()

    def close(self) -> None:
        """Close the file."""
        self._zip.close()

    def names(self) -> list[str]:
        """The names of all parts, with / between folders."""
        return list(self._parts)

    def within(self, folder: str, reference: str) -> str | None:
        """The part that is meant by a reference from a folder, with its case or without; None where there is none."""
        name = posixpath.normpath(posixpath.join(folder, reference.replace("\\", "/")))
        return name if name in self._parts else self._folded.get(name.casefold())

    def part(self, name: str, most: int = MOST_PART_BYTES) -> bytes:
        """What a part holds.

        Raises NotReadableError with a sentence where it is damaged or larger than makes sense.
        """
        info = self._parts[name]
        large = info.file_size > _RATIO_FROM_BYTES and info.file_size > _MOST_RATIO * max(info.compress_size, 1)
        if info.file_size > most or large:
            raise NotReadableError(f"{name} unpacks to {info.file_size >> 20} MiB and was left out; make it smaller.")
        if info.flag_bits & 1:
            raise NotReadableError(f"{name} is locked by a password and was left out; send it without.")
        try:
            with self._zip.open(info) as stream:
                data = stream.read(most + 1)
        except (zipfile.BadZipFile, zlib.error, OSError, EOFError, NotImplementedError, RuntimeError) as error:
            raise NotReadableError(f"{name} is damaged and was left out; ask for the file again.") from error
        if len(data) > most:
            raise NotReadableError(f"{name} is larger than it says and was left out; ask for the file again.")
        return data

    def text(self, name: str) -> bytes:
        """What a part of XML holds; NotReadableError for one that declares entities, since none of the format does."""
        data = self.part(name, MOST_TEXT_BYTES)
        if any(mark in data for mark in _DECLARED):
            raise NotReadableError(f"{name} declares entities, which could do harm, and was left out.")
        return data
