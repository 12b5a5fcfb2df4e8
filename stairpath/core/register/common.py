"""What several components have in common, and in what they differ."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from stairpath.core.visibility.attributes import GROUPING, What
from stairpath.core.visibility.traits import Column, Mask, Traits
from stairpath.core.visibility.wording import class_name


@dataclass(frozen=True)
class Common:
    """What some components have for something: the value of all of them as people say it, or None, and how many values there are."""

    what: What
    value: str | None
    values: int


def _values_in(column: Column, members: Mask) -> set[int]:
    of = column.value[members] if column.owner is None else column.value[members[column.owner]]
    return set(np.unique(of).tolist())


def in_common(traits: Traits, members: Mask) -> list[Common]:
    """What components (n,) have in common, in the order in which one asks."""
    found = []
    for what in GROUPING:
        column = traits.columns[what]
        values = _values_in(column, members)
        of_all = next((v for v in sorted(values) if column.with_values([v])[members].all()), None)
        value = None if of_all is None else column.values[of_all]
        found.append(Common(what, class_name(value) if value and what == "class" else value, len(values)))
    return found
