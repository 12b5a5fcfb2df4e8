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
_STATEMENT = re.compile(rb"^[ \t]*#(\d+)[ \t]*=", re.MULTILINE)
_ONE = re.compile(rb"\s*#\d+\s*=\s*[A-Z][A-Z0-9_]*\s*\((?:[^'\";]|'[^']*')*\)\s*;")
_STRING = re.compile(rb"'[^']*'")
"""Two quotes within a string are read as the end of one and the start of the next, so that there is one way to read it."""
_NUMBER = re.compile(rb"\d+")
_SCHEMA = re.compile(rb"IFC(?:2X3|4X3(?:_[A-Z0-9]+)?|4)(?![A-Z0-9])")
_HEAD_BYTES = 1 << 16
_MARK = b"\xef\xbb\xbf"
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


def _statement(text: bytes) -> bytes | None:
    """The statement that a text begins with, if it has the form of one."""
    found = _ONE.match(text)
    if found is None:
        return None
    bare = _STRING.sub(b"", found[0])
    return found[0] if bare.count(b"(") == bare.count(b")") else None


def _rebuilt(text: bytes) -> tuple[bytes, list[int]]:
    """A file with a head of its own and the statements that have the form of one, each number once; and what is left out.

    Bits that flipped in the head say nothing of the building; one that flipped in a number or at a statement's end costs
    that statement.
    """
    found = list(_STATEMENT.finditer(text))
    if not found:
        return text, []
    schema = _SCHEMA.search(text[: min(found[0].start(), _HEAD_BYTES)])
    head = b"ISO-10303-21;\nHEADER;\nFILE_DESCRIPTION((''),'2;1');\nFILE_NAME('','',(''),(''),'','','');\n"
    kept = [head, b"FILE_SCHEMA(('%s'));\nENDSEC;\nDATA;\n" % (schema[0] if schema else b"IFC4")]
    end = text.rfind(b"ENDSEC", found[-1].end())
    ends = [*(each.start() for each in found[1:]), end if end > 0 else len(text)]
    left_out: list[int] = []
    seen: set[int] = set()
    for each, to in zip(found, ends, strict=True):
        number, span = int(each[1]), text[each.start() : to]
        statement = _statement(span)
        if statement is None or number in seen:
            left_out.append(number)
            continue
        seen.add(number)
        kept.append(statement)
        if rest := span[len(statement) :].strip():
            after = _NUMBER.search(rest)
            left_out.append(int(after[0]) if after else number)
    return b"\n".join([*kept, b"\nENDSEC;\nEND-ISO-10303-21;\n"]), left_out


def open_step(source: bytes | Path) -> Opened:
    """Parse a file; statements that are none are left out, up to 50. Raises NoStepError."""
    if isinstance(source, Path):
        try:
            return Opened(ifcopenshell.open(str(source)), ())
        except Exception:  # any of a dozen kinds; what is wrong is found below
            source = source.read_bytes()
    begun = time.monotonic()
    text = _within_range(source.removeprefix(_MARK))
    left_out: list[int] = []
    rebuilt = False
    while True:
        try:
            ifc = _parsed(text)
        except Exception as error:
            if rebuilt:
                raise NoStepError(str(error)) from error
            ifc = None
        if ifc is not None and _is_whole(ifc):
            return Opened(ifc, tuple(left_out))
        if not rebuilt:
            rebuilt = True
            text, left_out = _rebuilt(text)
            if len(left_out) > MOST_LEFT_OUT:
                raise NoStepError(f"{len(left_out)} statements are no STEP")
            continue
        bad = _first_unknown(text, ifc)
        if bad is None or len(left_out) >= MOST_LEFT_OUT or time.monotonic() - begun > LONGEST_S:
            raise NoStepError(f"{len(left_out) + 1} statements are no STEP")
        left_out.append(int(bad[1]))
        following = _STATEMENT.search(text, bad.end())
        end = following.start() if following else text.find(b"ENDSEC", bad.end())
        text = text[: bad.start()] + (text[end:] if end > 0 else b"")
