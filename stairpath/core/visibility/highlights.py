"""The colours in which what is picked and what is under the cursor are drawn, and whether they stand out."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from coloraide import Color

OFFERED = ("#e08a1e", "#0b5b8c", "#b4065f", "#8c2faf", "#82eafc", "#87f91f")
"""The product's own two, and others; all but the first stand out from a building in every form of vision."""
PICKED, HOVERED = OFFERED[:2]
FAR_ENOUGH = 10.0
"""CIEDE2000 from which on two colours are told apart at a glance, beside each other and in a hurry."""

_VISIONS = ("", "protan", "deutan", "tritan")
"""Common vision, and the three that lack a kind of cone."""
_SAID = {
    "": "",
    "protan": " for people who do not see red",
    "deutan": " for people who do not see green",
    "tritan": " for people who do not see blue",
}


@dataclass(frozen=True)
class Check:
    """How far a colour is from the one that is most like it, and for whom they are most alike."""

    colour: str
    nearest: str
    difference: float
    vision: str

    @property
    def stands_out(self) -> bool:
        """Whether it is told apart from all others."""
        return self.difference >= FAR_ENOUGH

    @property
    def says(self) -> str:
        """The check in a sentence."""
        if self.stands_out:
            return "Stands out from every colour here."
        return f"Looks much like another colour here{_SAID[self.vision]}:"


@lru_cache(4096)
def _as_seen(colour: str, vision: str) -> Color:
    from coloraide import Color

    plain = Color(colour)
    return plain.filter(vision) if vision else plain


@lru_cache(16384)
def difference(one: str, other: str, vision: str = "") -> float:
    """CIEDE2000 (CIE 142-2001) of two colours, as they look where a kind of cone is lacking (Brettel et al. 1997)."""
    return float(_as_seen(one, vision).delta_e(_as_seen(other, vision), method="2000"))


def check(colour: str, others: Sequence[str]) -> Check:
    """The one of other colours (at least one) that a colour is most like, in every common form of vision."""
    found = min(
        (difference(colour, other, vision), _VISIONS.index(vision), other) for other in others for vision in _VISIONS
    )
    return Check(colour, found[2], found[0], _VISIONS[found[1]])
