"""Where a component is, in words: its level and room, how high above their floor, how far from the nearest grid lines."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.federation.grid import Axis

Array = npt.NDArray[np.float64]

_ALIKE_DEG = 20.0
"""Grid lines that run within this of each other are told apart by which is nearer, others are both told."""
_ON_M = 0.005


@dataclass(frozen=True)
class GridDistance:
    """How far the middle of a component is from a grid line, on plan."""

    tag: str
    distance_m: float


def _distance(axis: Axis, at: Array) -> float:
    start, end = np.array(axis.start), np.array(axis.end)
    along = (end - start) / max(float(np.linalg.norm(end - start)), 1e-12)
    off = at - start
    return abs(float(along[0] * off[1] - along[1] * off[0]))


def _bearing(axis: Axis) -> float:
    return math.degrees(math.atan2(axis.end[1] - axis.start[1], axis.end[0] - axis.start[0])) % 180.0


def nearest_lines(axes: Sequence[Axis], at_m: Array) -> list[GridDistance]:
    """The nearest grid line (2,) of each direction that the grid has, nearest first; lines count as endless."""
    found: list[tuple[float, GridDistance]] = []
    for near in sorted((GridDistance(axis.tag, _distance(axis, at_m)) for axis in axes), key=lambda g: g.distance_m):
        bearing = _bearing(next(axis for axis in axes if axis.tag == near.tag))
        turned = [abs((bearing - known + 90.0) % 180.0 - 90.0) for known, _ in found]
        if all(turn > _ALIKE_DEG for turn in turned):
            found.append((bearing, near))
    return [near for _, near in found]


def in_words(level: str | None, room: str | None, over_floor_m: float | None, lines: Sequence[GridDistance]) -> str:
    """A place as one says it, as far as it is known.

    >>> in_words("Level 01", "1.07 Dry laboratory", 2.43, [GridDistance("C", 0.6), GridDistance("3", 0.0)])
    'Level 01, room 1.07 Dry laboratory, 2.43 m above its floor, 0.60 m from grid C and on grid 3'
    >>> in_words(None, None, None, [])
    'on no level'
    """
    parts = [level or "on no level"]
    if room:
        parts.append(f"room {room}")
    if over_floor_m is not None:
        floor = "its floor" if room else "the level"
        if over_floor_m < -_ON_M:
            parts.append(f"{-over_floor_m:.2f} m below {floor}")
        else:
            parts.append(f"{over_floor_m:.2f} m above {floor}" if over_floor_m > _ON_M else f"on {floor}")
    near = [f"on grid {g.tag}" if g.distance_m < _ON_M else f"{g.distance_m:.2f} m from grid {g.tag}" for g in lines]
    if near:
        parts.append(" and ".join(near))
    return ", ".join(parts)
