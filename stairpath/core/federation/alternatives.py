"""Alternatives: proposals of which at most one stands in the building at a time."""

from __future__ import annotations

import re
from collections.abc import Collection, Sequence
from dataclasses import dataclass

_PATTERN = re.compile(r"^(?P<what>.+?)[-_ ]ALT[-_ ]?(?P<option>[A-Z0-9]+)$", re.IGNORECASE)


@dataclass(frozen=True)
class Alternative:
    """What a proposal is for, and which proposal it is."""

    what: str
    option: str


def by_file_name(name: str) -> Alternative | None:
    """``QH-ARC-S1-ALT-B`` is proposal B for QH-ARC-S1; None for an ordinary model."""
    match = _PATTERN.match(name)
    return Alternative(match["what"], match["option"].upper()) if match else None


def standing(names: Sequence[str], chosen: Collection[str] = ()) -> list[bool]:
    """Which models stand: every ordinary one, and of each proposal the chosen option, else the first."""
    found = {name: alternative for name in names if (alternative := by_file_name(name))}
    stands: dict[str, str] = {}
    for name in sorted(found, key=lambda name: (name not in chosen, found[name].option)):
        stands.setdefault(found[name].what, name)
    return [name not in found or stands[found[name].what] == name for name in names]
