"""Which pairs belong together, so that they are no interference: rules that can be seen, and switched off."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from typing import Literal, get_args

from stairpath.core.reading.model import ModelReading

Code = Literal["hosted", "assembly", "fitting"]
CODES: tuple[Code, ...] = get_args(Code)

WORDS: dict[Code, str] = {
    "hosted": "one is hosted in the other",
    "assembly": "both are parts of one assembly",
    "fitting": "a fitting and what it joins, of one system",
}


class NoSuchRuleError(ValueError):
    """There is no rule of that name for leaving pairs out."""


@dataclass(frozen=True)
class Kin:
    """What a component belongs to: its model's key, its class, systems, host and whole, those by GlobalId."""

    model: str
    global_id: str
    ifc_class: str
    systems: tuple[str, ...] = ()
    hosted_in: str = ""
    part_of: str = ""


def codes_of(text: str) -> frozenset[Code]:
    """Rules by their names with commas between; ``none`` for none. Raises NoSuchRuleError.

    >>> sorted(codes_of("hosted, fitting"))
    ['fitting', 'hosted']
    """
    names = [name.strip() for name in text.split(",") if name.strip()]
    if names == ["none"]:
        return frozenset()
    unknown = [name for name in names if name not in CODES]
    if unknown or not names:
        raise NoSuchRuleError(
            f"{unknown[0] if unknown else 'Nothing'} leaves no pairs out; give some of {', '.join(CODES)}, or none."
        )
    return frozenset(code for code in CODES if code in names)


def _is_fitting(kin: Kin) -> bool:
    return kin.ifc_class.endswith("Fitting")


def _joined(one: Kin, other: Kin) -> bool:
    return (_is_fitting(one) or _is_fitting(other)) and not set(one.systems).isdisjoint(other.systems)


def why_left_out(one: Kin, other: Kin, codes: Collection[Code] = CODES) -> str | None:
    """Why a pair belongs together, in words; None where it does not.

    >>> door = Kin("ARC", "d", "IfcDoor", hosted_in="w")
    >>> why_left_out(door, Kin("ARC", "w", "IfcWall"))
    'one is hosted in the other'
    """
    same = one.model == other.model
    if "hosted" in codes and same and (one.hosted_in == other.global_id or other.hosted_in == one.global_id):
        return WORDS["hosted"]
    if "assembly" in codes and same:
        wholes = {k.part_of for k in (one, other) if k.part_of}
        if wholes & {one.global_id, other.global_id} or (one.part_of and one.part_of == other.part_of):
            return WORDS["assembly"]
    if "fitting" in codes and _joined(one, other):
        return WORDS["fitting"]
    return None


def touching(touch_m: float) -> str:
    """Why a pair is left out that only touches."""
    return f"they only touch, within {touch_m * 1000:g} mm"


def kin_of(readings: Sequence[ModelReading]) -> list[Kin]:
    """What each component of all readings belongs to, in order."""
    return [
        Kin(reading.name, c.global_id, c.ifc_class, c.systems, c.hosted_in, c.part_of)
        for reading in readings
        for c in reading.components
    ]
