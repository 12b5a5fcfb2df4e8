"""What is asked of a list in the words of the standard: `topic_status eq 'open' and due_date lt 2026-12-01`."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping, Sequence
from datetime import UTC, datetime

Value = str | float | datetime | bool | None
Record = Mapping[str, object]
Test = Callable[[Record], bool]

_TOKEN = re.compile(
    r"\s*(?:(?P<text>'(?:[^']|'')*')|(?P<sign>[(),])|(?P<time>\d{4}-\d\d-\d\d(?:T[\d:.]+(?:Z|[+-]\d\d:\d\d)?)?)"
    r"|(?P<number>-?\d+(?:\.\d+)?)|(?P<word>[A-Za-z_]\w*))"
)
_COMPARE = ("eq", "ne", "gt", "ge", "lt", "le")
LONGEST = 2000


class NotAFilterError(ValueError):
    """A filter or an order that cannot be read; the message says what to write."""


def _time(text: str) -> datetime:
    at = datetime.fromisoformat(text.replace("Z", "+00:00"))
    return at if at.tzinfo else at.replace(tzinfo=UTC)


class _Reader:
    def __init__(self, text: str, fields: Sequence[str]) -> None:
        if len(text) > LONGEST:
            raise NotAFilterError(f"A filter has at most {LONGEST:,} letters; ask for less.")
        self._tokens: list[tuple[str, str]] = []
        at, text = 0, text.rstrip()
        while at < len(text):
            match = _TOKEN.match(text, at)
            if match is None or match.lastgroup is None:
                raise NotAFilterError(
                    f"{text[at:].strip()[:40]} cannot be read in a filter; put texts in single quotes."
                )
            self._tokens.append((match.lastgroup, match[match.lastgroup]))
            at = match.end()
        self._at, self._fields, self._deep = 0, fields, 0

    def _next(self) -> tuple[str, str]:
        if self._at >= len(self._tokens):
            raise NotAFilterError("The filter ends before it says what is meant; finish it.")
        self._at += 1
        return self._tokens[self._at - 1]

    def _is(self, text: str) -> bool:
        if self._at < len(self._tokens) and self._tokens[self._at][1].lower() == text:
            self._at += 1
            return True
        return False

    def whole(self) -> Test:
        test = self._either()
        if self._at < len(self._tokens):
            raise NotAFilterError(f"{self._tokens[self._at][1]} is one too many in the filter; join parts by and, or.")
        return test

    def _either(self) -> Test:
        parts = [self._both()]
        while self._is("or"):
            parts.append(self._both())
        return parts[0] if len(parts) == 1 else lambda record: any(part(record) for part in parts)

    def _both(self) -> Test:
        parts = [self._one()]
        while self._is("and"):
            parts.append(self._one())
        return parts[0] if len(parts) == 1 else lambda record: all(part(record) for part in parts)

    def _one(self) -> Test:
        self._deep += 1
        if self._deep > 50:
            raise NotAFilterError("The filter has too many parts within one another; ask for less.")
        try:
            if self._is("not"):
                inner = self._one()
                return lambda record: not inner(record)
            if self._is("("):
                inside = self._either()
                if not self._is(")"):
                    raise NotAFilterError("A bracket in the filter is not closed; close it.")
                return inside
            return self._comparison()
        finally:
            self._deep -= 1

    def _field(self, word: str) -> str:
        if word not in self._fields:
            raise NotAFilterError(f"There is no {word} to filter by; use {', '.join(self._fields)}.")
        return word

    def _comparison(self) -> Test:
        kind, word = self._next()
        if kind == "word" and word.lower() == "contains" and self._is("("):
            name = self._field(self._next()[1])
            if not self._is(","):
                raise NotAFilterError("contains has a field and a text with a comma between; write both.")
            part = str(self._value()).casefold()
            if not self._is(")"):
                raise NotAFilterError("A bracket in the filter is not closed; close it.")
            return lambda record: _holds(record.get(name), part)
        name = self._field(word)
        how = self._next()[1].lower()
        if how not in _COMPARE:
            raise NotAFilterError(f"{how} compares nothing; use {', '.join(_COMPARE)}.")
        value = self._value()
        return lambda record: _compared(record.get(name), how, value)

    def _value(self) -> Value:
        kind, text = self._next()
        if kind == "text":
            return text[1:-1].replace("''", "'")
        if kind == "number":
            return float(text)
        if kind == "time":
            try:
                return _time(text)
            except ValueError:
                raise NotAFilterError(f"{text} is no date; write one such as 2026-12-01T00:00:00Z.") from None
        if text.lower() in ("null", "true", "false"):
            return {"null": None, "true": True, "false": False}[text.lower()]
        raise NotAFilterError(f"{text} is no value; put a text in single quotes.")


def _holds(held: object, part: str) -> bool:
    if isinstance(held, (list, tuple)):
        return any(str(each).casefold() == part for each in held)
    return part in str(held or "").casefold()


def _compared(held: object, how: str, value: Value) -> bool:
    if isinstance(held, (list, tuple)):
        found = value in held
        return found if how == "eq" else how == "ne" and not found
    if isinstance(value, datetime):
        held = _time(held) if isinstance(held, str) and held else held
    elif isinstance(held, datetime) and isinstance(value, str):
        return False
    if how in ("eq", "ne"):
        same = (held or None) == (value if value != "" else None)
        return same == (how == "eq")
    if held is None or value is None or (type(held) is not type(value) and not isinstance(held, (int, float))):
        return False
    try:
        below, same = held < value, held == value  # type: ignore[operator]
    except TypeError:
        return False
    return {"gt": not below and not same, "ge": not below, "lt": below, "le": below or same}[how]


def filtered(text: str, fields: Sequence[str]) -> Test:
    """Which records are meant. Raises NotAFilterError with a sentence.

    >>> meant = filtered("topic_status eq 'open' and not contains(title, 'stair')", ["topic_status", "title"])
    >>> meant({"topic_status": "open", "title": "Duct"}), meant({"topic_status": "open", "title": "Stairs"})
    (True, False)
    """
    return _Reader(text, fields).whole()


def ordered(records: Sequence[Record], text: str, fields: Sequence[str]) -> list[Record]:
    """Records by fields with commas between, each up, or down with ``desc``; those without a value stand last."""
    found = list(records)
    for part in reversed([each.split() for each in text.split(",") if each.strip()]):
        name, way = part[0], (part[1].lower() if len(part) > 1 else "asc")
        if name not in fields or way not in ("asc", "desc") or len(part) > 2:
            raise NotAFilterError(f"{' '.join(part)} orders nothing; write a field, and desc for downwards.")
        there = [r for r in found if r.get(name) not in (None, "")]
        there.sort(key=lambda record: str(record[name]).casefold(), reverse=way == "desc")
        found = there + [r for r in found if r.get(name) in (None, "")]
    return found
