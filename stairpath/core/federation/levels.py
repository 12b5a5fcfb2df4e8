"""The building's levels, from the storeys of all its models."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

from stairpath.core.federation.alignment import Alignment, storey_key
from stairpath.core.federation.outline import Outline
from stairpath.core.problems import Problem

SAME_LEVEL_M = 0.5
TOLERANCE_M = 0.005


@dataclass(frozen=True)
class Level:
    """A level of the building in project coordinates."""

    name: str
    elevation_m: float


BELOW_FLOOR_M = 0.25
"""A height so little below a level's floor belongs to the level: screeds and ramps lie lower than their storey says."""


TOP_STOREY_M = 4.0
"""How high the topmost storey is taken to be, since no storey above it says so."""


def begins_m(elevation_m: float) -> float:
    """The height from which on something belongs to the level of an elevation."""
    return elevation_m - BELOW_FLOOR_M


def level_at(levels: Sequence[Level], height_m: float) -> int:
    """The level that a height belongs to: the highest that begins at it or below, else the lowest."""
    return max((k for k, level in enumerate(levels) if begins_m(level.elevation_m) <= height_m), default=0)


@dataclass
class Levels:
    """Levels from the lowest up; which level each model's storeys are; what does not fit."""

    levels: list[Level]
    index_of: list[dict[str, int]]
    problems: list[list[Problem]]


@dataclass
class _Group:
    name: str
    members: list[tuple[int, str, str, float]]

    @property
    def elevation_m(self) -> float:
        """The height most members agree on, to the millimetre; the earliest model decides a tie."""
        counts = Counter(round(member[3], 3) for member in self.members)
        top = max(counts.values())
        return next(round(m[3], 3) for m in self.members if counts[round(m[3], 3)] == top)


def build_levels(models: Sequence[Outline], alignments: Sequence[Alignment]) -> Levels:
    """Storeys of the same name are one level; of other names too, within half a metre.

    A storey that stands more than 5 mm from where most models have its level is reported
    with the difference.
    """
    groups: list[_Group] = []
    for index, (model, alignment) in enumerate(zip(models, alignments, strict=True)):
        taken: set[int] = set()
        for storey in model.storeys:
            height = storey.elevation_m + alignment.shift_m[2]
            key = storey_key(storey.name)
            at = next((i for i, g in enumerate(groups) if storey_key(g.name) == key and i not in taken), None)
            if at is None:
                near = [
                    (abs(g.elevation_m - height), i)
                    for i, g in enumerate(groups)
                    if i not in taken and abs(g.elevation_m - height) <= SAME_LEVEL_M
                ]
                at = min(near)[1] if near else None
            if at is None:
                groups.append(_Group(storey.name, []))
                at = len(groups) - 1
            taken.add(at)
            groups[at].members.append((index, storey.global_id, storey.name, height))
    groups.sort(key=lambda group: group.elevation_m)
    index_of: list[dict[str, int]] = [{} for _ in models]
    problems: list[list[Problem]] = [[] for _ in models]
    for level, group in enumerate(groups):
        for model_index, global_id, name, height in group.members:
            index_of[model_index][global_id] = level
            off = height - group.elevation_m
            if abs(off) > TOLERANCE_M:
                side = "below" if off < 0 else "above"
                problems[model_index].append(
                    Problem("level-height", f"Its {name} is {abs(off) * 1000:.0f} mm {side} the others'.")
                )
    return Levels([Level(g.name, g.elevation_m) for g in groups], index_of, problems)
