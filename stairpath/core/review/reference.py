"""What a topic is called in a meeting: the disciplines concerned, a number of the project's, and a variant.

``AIR-STR 014 b`` is the second topic of the fourteenth problem. The number alone tells topics of a project apart, so that
a topic may turn out to concern another discipline and is still the same one.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

MOST_DISCIPLINES = 4
_CODE = re.compile(r"[A-Z][A-Z0-9]{1,4}")
_TYPED = re.compile(r"^(?P<codes>(?:[A-Za-z][A-Za-z0-9]{1,4}[\s\-/+]+)*)(?P<number>\d{1,6})\s*(?P<variant>[A-Za-z]?)$")


class NotAReferenceError(ValueError):
    """A reference, or a rule for one, that cannot be; the message says what to write."""


@dataclass(frozen=True)
class ReferenceRule:
    """How a project's references are written: whether disciplines lead, what joins them, and how many digits follow."""

    disciplines: bool = True
    most_disciplines: int = 2
    joined_by: str = "-"
    digits: int = 3

    def __post_init__(self) -> None:
        if not 1 <= self.digits <= 6:
            raise NotAReferenceError("A reference has one to six digits; choose how many.")
        if not 1 <= self.most_disciplines <= MOST_DISCIPLINES:
            raise NotAReferenceError(f"A reference names one to {MOST_DISCIPLINES} disciplines; choose how many.")
        if self.joined_by not in ("-", "/", "+"):
            raise NotAReferenceError("Disciplines are joined by -, / or +; choose one.")


@dataclass(frozen=True)
class Reference:
    """The disciplines concerned by their codes, the number of the problem, and which of its topics: none, b, c and so on."""

    disciplines: tuple[str, ...]
    number: int
    variant: str = ""

    def __post_init__(self) -> None:
        if self.number < 1:
            raise NotAReferenceError("References are numbered from 1 on.")
        if self.variant and not ("b" <= self.variant <= "z" and len(self.variant) == 1):
            raise NotAReferenceError("A variant is a letter from b on; the first topic of a problem has none.")


def written(reference: Reference, rule: ReferenceRule = ReferenceRule()) -> str:
    """A reference as the project's rule has it.

    >>> written(Reference(("AIR", "STR"), 14, "b"))
    'AIR-STR 014 b'
    """
    led = rule.joined_by.join(reference.disciplines[: rule.most_disciplines]) if rule.disciplines else ""
    return " ".join(part for part in (led, f"{reference.number:0{rule.digits}d}", reference.variant) if part)


def typed(text: str) -> Reference:
    """A reference as it is typed or heard, whatever is between its parts; disciplines may be left out.

    >>> typed("air str 14b") == typed("AIR-STR 014 b") == Reference(("AIR", "STR"), 14, "b")
    True
    """
    found = _TYPED.match(text.strip())
    if not found:
        raise NotAReferenceError(f"{text.strip() or 'Nothing'} is no reference; type its number, such as 14 b.")
    codes = tuple(code.upper() for code in re.split(r"[\s\-/+]+", found["codes"]) if code)
    variant = found["variant"].lower()
    return Reference(codes, int(found["number"]), "" if variant == "a" else variant)


def concerned(codes: Iterable[str], order: Sequence[str]) -> tuple[str, ...]:
    """The disciplines of some components, each once: those of most components first, else in the building's order."""
    counts: dict[str, int] = {}
    for code in codes:
        if _CODE.fullmatch(code):
            counts[code] = counts.get(code, 0) + 1
    place = {code: k for k, code in enumerate(order)}
    return tuple(sorted(counts, key=lambda code: (-counts[code], place.get(code, len(place)), code))[:MOST_DISCIPLINES])


def in_order(codes: Iterable[str]) -> tuple[str, ...]:
    """The codes of disciplines as they were given, each once, without what is none.

    >>> in_order(["STR", "AIR", "STR", "?"])
    ('STR', 'AIR')
    """
    return tuple(dict.fromkeys(code for code in codes if _CODE.fullmatch(code)))[:MOST_DISCIPLINES]


def next_variant(taken: Iterable[str]) -> str:
    """The variant of one more topic of a problem whose topics have these; NotAReferenceError after z."""
    last = max(taken, default=None)
    if last is None:
        return ""
    if last == "z":
        raise NotAReferenceError("A number has at most 26 variants. Give this topic a number of its own.")
    return "b" if last == "" else chr(ord(last) + 1)
