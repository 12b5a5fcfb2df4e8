"""The quickest way over a walk map."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from stairpath.core.walking.grid import WAYS
from stairpath.core.walking.loops import ways
from stairpath.core.walking.walkmap import WalkMap

Ints = npt.NDArray[np.int64]

_WAYS = np.array(WAYS)
_MARKS = 4


def marks_of(walk: WalkMap) -> npt.NDArray[np.float32]:
    """How long it takes from a few floors at the ends of the building to every other (k, n), for finding ways fast.

    How much longer one floor takes than another from the same mark is a lower bound for the time
    between the two. Marks lie in the largest part of the building, each as far as can be from those before.
    """
    region = walk.region
    if not (region >= 0).any():
        return np.zeros((0, len(walk)), dtype=np.float32)
    main = np.flatnonzero(region == np.bincount(region[region >= 0]).argmax())
    grid = walk.grid
    shape = (walk.body.speed_m_s, grid.cell_m, grid.nx, _WAYS, walk.start, walk.cell, walk.height_m, walk.steps)
    nearest = ways.times_from(int(main[0]), *shape)
    marks: list[npt.NDArray[np.float32]] = []
    for _ in range(_MARKS):
        mark = ways.times_from(int(main[np.argmax(nearest[main])]), *shape)
        nearest = mark if not marks else np.minimum(nearest, mark)
        mark[np.isinf(mark)] = 0.0
        marks.append(mark)
    return np.stack(marks)


_PULLS = 4
"""Pulling from alternate ends draws the way tighter; it seldom changes after the third time."""


def fastest(
    walk: WalkMap, source: int, goal: int, step_free: bool = False, marks: npt.NDArray[np.float32] | None = None
) -> Ints:
    """The floors at which the quickest way from one floor to another turns, both ends included; none if there is none.

    Quickest by the way on plan at the body's speed and the height gained and lost. Back and forth are the
    same way: what height costs more upwards than downwards is the same on every way between two floors.
    """
    if source == goal:
        return np.array([source])
    turned = source > goal
    if turned:
        source, goal = goal, source
    grid = walk.grid
    speed = walk.body.speed_m_s
    columns = (walk.start, walk.cell, walk.height_m, walk.steps_for(step_free))
    marks = np.zeros((0, len(walk)), dtype=np.float32) if marks is None else marks
    way: Ints = ways.fastest(source, goal, speed, grid.cell_m, grid.nx, _WAYS, *columns, marks)
    if len(way):
        shape = (speed, grid.cell_m, *grid.corner_m, grid.nx, *columns)
        for pull in range(_PULLS):
            if pull:
                way = ways.filled(way, walk.places(way), *shape)
            way = way[::-1]
            way = way[ways.pulled(way, walk.places(way), *shape)]
        spots = (np.array([[k % 3, k // 3] for k in range(16)]) - 1.0) * (grid.cell_m / 3.0)
        way = ways.tightened(way, spots, _WAYS, *shape[:5], walk.start, walk.cell, walk.height_m, walk.at, columns[3])
    return way[::-1] if turned != (_PULLS % 2 == 1) else way
