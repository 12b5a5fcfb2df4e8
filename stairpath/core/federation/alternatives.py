"""Alternatives: proposals of which at most one stands in the building at a time."""

from __future__ import annotations

import re
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


def standing(names: list[str]) -> list[bool]:
    """Which models stand at first: every ordinary one, and the first option of each proposal."""
    first: dict[str, str] = {}
    for name in names:
        found = by_file_name(name)
        if found and found.option < first.get(found.what, "\uffff"):
            first[found.what] = found.option
    return [(a := by_file_name(name)) is None or first[a.what] == a.option for name in names]
