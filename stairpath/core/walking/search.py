"""The quickest way over a walk map."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from os import cpu_count

import numpy as np
import numpy.typing as npt

from stairpath.core.walking.grid import WAYS
from stairpath.core.walking.loops import ways
from stairpath.core.walking.walkmap import WalkMap

Ints = npt.NDArray[np.int64]
Bools = npt.NDArray[np.bool_]

_WAYS = np.array(WAYS)
_MARKS = 6
_ANYWHERE = -1
_EAGER = 1.01
"""What is left is taken to be so much longer than it is at least: far fewer floors are looked at, and the way that is
found is at most about as much longer."""


def walkable_building(walk: WalkMap, step_free: bool = False, barred: Bools | None = None) -> ways.Ground:
    """What the loops need of a map."""
    grid = walk.grid
    spots = (np.array([[k % 3, k // 3] for k in range(16)]) - 1.0) * (grid.cell_m / 3.0)
    return ways.Ground(
        walk.body.speed_m_s, _WAYS, spots, walk.at, grid.cell_m, *grid.corner_m, grid.nx,
        walk.start, walk.cell, walk.height_m, walk.steps_for(step_free, barred),
    )  # fmt: skip


def marks_of(walk: WalkMap) -> npt.NDArray[np.float32]:
    """How long it takes from a few floors at the ends of the building to every other (n, k), for finding ways fast.

    How much longer one floor takes than another from the same mark is a lower bound for the time
    between the two. Marks lie in the largest part of the building, each as far as can be from those before.
    """
    region = walk.region
    if not (region >= 0).any():
        return np.zeros((len(walk), 0), dtype=np.float32)
    main = np.flatnonzero(region == np.bincount(region[region >= 0]).argmax())
    ground = walkable_building(walk)
    sources: list[int] = []
    nearest = ways.times_from(int(main[0]), ground)
    for k in range(_MARKS):
        sources.append(int(main[np.argmax(nearest[main])]))
        if k < _MARKS - 1:
            mark = ways.times_from(sources[-1], ground)
            nearest = mark if k == 0 else np.minimum(nearest, mark)
    none = np.zeros((len(walk), 0), dtype=np.float32)

    def times(source: int) -> npt.NDArray[np.float32]:
        found, _ = ways.search(source, _ANYWHERE, ground, none)
        return np.where(np.isinf(found), 0.0, found * _EAGER).astype(np.float32)

    with ThreadPoolExecutor(cpu_count()) as threads:
        marks = list(threads.map(times, sources))
    return np.ascontiguousarray(np.column_stack(marks))


def fastest(
    walk: WalkMap,
    source: int,
    goal: int,
    step_free: bool = False,
    marks: npt.NDArray[np.float32] | None = None,
    barred: Bools | None = None,
) -> Ints:
    """The floors at which the quickest way from one floor to another turns, both ends included; none if there is none.

    Quickest by the way on plan at the body's speed and the height gained and lost. Back and forth are the
    same way: what height costs more upwards than downwards is the same on every way between two floors.
    No way leads over ``barred`` floors (n,). The search goes in straight lines of any direction (A. Nash, S. Koenig, C. Tovey, Lazy Theta*, 2010).
    """
    if source == goal:
        return np.array([source])
    turned = source > goal
    if turned:
        source, goal = goal, source
    ground = walkable_building(walk, step_free, barred)
    marks = np.zeros((len(walk), 0), dtype=np.float32) if marks is None else marks
    _, came = ways.search(source, goal, ground, marks)
    way: Ints = ways.traced(source, goal, came)
    if len(way):
        way = ways.tightened(way, ground)
    return way[::-1] if turned else way
