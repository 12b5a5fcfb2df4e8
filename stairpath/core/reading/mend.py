"""Opening a file of which a few statements are no STEP: they are left out and counted, and the rest is read."""

from __future__ import annotations

import re
import time
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import ifcopenshell

MOST_LEFT_OUT = 50
LONGEST_S = 120.0

_BEYOND = re.compile(rb"(?<=[(,])(-?\d+\.\d*[Ee])\+?(\d{3,})(?=[,)])")
_STATEMENT = re.compile(rb"^#(\d+)[ \t]*=", re.MULTILINE)
_LARGEST_EXPONENT = 300


class NoStepError(Exception):
    """The file cannot be parsed, not even without a few of its statements."""


@dataclass(frozen=True)
class Opened:
    """A parsed file, and the statements of it that were left out, by number."""

    ifc: Any
    left_out: tuple[int, ...]


def _within_range(text: bytes) -> bytes:
    """Numbers beyond what a machine's number holds as ones that are too large for any building."""

    def largest(found: re.Match[bytes]) -> bytes:
        return found[1] + (b"300" if int(found[2]) > _LARGEST_EXPONENT else found[2])

    return _BEYOND.sub(largest, text)


def _parsed(text: bytes) -> Any:
    """The file, whole or up to the statement that is none."""
    return ifcopenshell.file.from_string(text.decode("utf-8", errors="replace"))


def _is_whole(ifc: Any) -> bool:
    return bool(ifc.good().value() == ifcopenshell.ifcopenshell_wrapper.file_open_status.SUCCESS)


def _first_unknown(text: bytes, ifc: Any) -> re.Match[bytes] | None:
    """The first statement that the parser did not come past."""
    known = {entity.id() for entity in ifc}
    return next((found for found in _STATEMENT.finditer(text) if int(found[1]) not in known), None)


def open_step(source: bytes | Path) -> Opened:
    """Parse a file; statements that are none are left out, up to 50. Raises NoStepError."""
    if isinstance(source, Path):
        try:
            return Opened(ifcopenshell.open(str(source)), ())
        except Exception:  # any of a dozen kinds; what is wrong is found below
            source = source.read_bytes()
    begun = time.monotonic()
    text = _within_range(source)
    left_out: list[int] = []
    while True:
        try:
            ifc = _parsed(text)
        except Exception as error:
            raise NoStepError(str(error)) from error
        if _is_whole(ifc):
            return Opened(ifc, tuple(left_out))
        bad = _first_unknown(text, ifc)
        if bad is None or len(left_out) >= MOST_LEFT_OUT or time.monotonic() - begun > LONGEST_S:
            raise NoStepError(f"{len(left_out) + 1} statements are no STEP")
        left_out.append(int(bad[1]))
        following = _STATEMENT.search(text, bad.end())
        end = following.start() if following else text.find(b"ENDSEC", bad.end())
        text = text[: bad.start()] + (text[end:] if end > 0 else b"")
