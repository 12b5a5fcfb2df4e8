"""Model files with something wrong in them: what disks, exports and people do to files, by a seed."""

from __future__ import annotations

import random
import re
from collections.abc import Callable

_NUMBER = re.compile(rb"-?\d+\.\d*(?:E[+-]?\d+)?")
_REFERENCE = re.compile(rb"#\d+")
_ODD = (b"1.E30", b"-1.E308", b"1.E400", b"0.", b"-1.", b"1.E-300", b"1.E9")


def _lines(content: bytes) -> tuple[list[bytes], int, int]:
    """All lines, and the first and last of the data."""
    lines = content.split(b"\n")
    first = next(k for k, line in enumerate(lines) if line.strip() == b"DATA;") + 1
    last = max(k for k, line in enumerate(lines) if line.strip() == b"ENDSEC;")
    return lines, first, last


def _in_a_line(change: Callable[[bytes, random.Random], bytes]) -> Callable[[bytes, random.Random], bytes]:
    def mutate(content: bytes, dice: random.Random) -> bytes:
        lines, first, last = _lines(content)
        for _ in range(dice.choice((1, 1, 2, 5, 20))):
            at = dice.randrange(first, last)
            lines[at] = change(lines[at], dice)
        return b"\n".join(lines)

    return mutate


def _one_of(pattern: re.Pattern[bytes], line: bytes, by: Callable[[bytes], bytes], dice: random.Random) -> bytes:
    found = list(pattern.finditer(line))[1 if pattern is _REFERENCE else 0 :]
    if not found:
        return line
    chosen = dice.choice(found)
    return line[: chosen.start()] + by(chosen[0]) + line[chosen.end() :]


def _number(line: bytes, dice: random.Random) -> bytes:
    return _one_of(_NUMBER, line, lambda _: dice.choice(_ODD), dice)


def _reference(line: bytes, dice: random.Random) -> bytes:
    return _one_of(_REFERENCE, line, lambda old: b"#%d" % max(1, int(old[1:]) + dice.choice((-40, -3, -1, 1, 7))), dice)


def _missing(line: bytes, dice: random.Random) -> bytes:
    return _one_of(_REFERENCE, line, lambda _: dice.choice((b"$", b"*", b"#999999", b"()")), dice)


def _itself(line: bytes, dice: random.Random) -> bytes:
    own = _REFERENCE.match(line)
    return _one_of(_REFERENCE, line, lambda _: own[0] if own else b"$", dice)


def _byte(line: bytes, dice: random.Random) -> bytes:
    if not line:
        return line
    at = dice.randrange(len(line))
    return line[:at] + bytes([dice.randrange(256)]) + line[at + 1 :]


def _cut(line: bytes, dice: random.Random) -> bytes:
    return line[: dice.randrange(len(line) + 1)]


def _gone(line: bytes, dice: random.Random) -> bytes:
    return b""


def _renamed(line: bytes, dice: random.Random) -> bytes:
    return re.sub(rb"=\s*IFC\w+", b"=" + dice.choice((b"IFCWALL", b"IFCSPACE", b"IFCPERSON", b"IFCNOSUCH")), line)


def _shuffled(content: bytes, dice: random.Random) -> bytes:
    lines, first, last = _lines(content)
    part = lines[first:last]
    dice.shuffle(part)
    return b"\n".join([*lines[:first], *part, *lines[last:]])


def _doubled(content: bytes, dice: random.Random) -> bytes:
    lines, first, last = _lines(content)
    at = dice.randrange(first, last)
    return b"\n".join([*lines[:at], *lines[at : at + 9], *lines[at:]])


KINDS: tuple[Callable[[bytes, random.Random], bytes], ...] = (
    *map(_in_a_line, (_number, _number, _reference, _missing, _itself, _byte, _cut, _gone, _renamed)),
    _shuffled,
    _doubled,
)


def mutated(content: bytes, number: int, seed: int) -> bytes:
    """The mutation of a number; the same for the same seed."""
    dice = random.Random(f"{seed}/{number}")
    return KINDS[number % len(KINDS)](content, dice)
