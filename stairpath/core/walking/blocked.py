"""Why there is no way: where it ends, what separates it from the goal, and how much is missing."""

from __future__ import annotations

from dataclasses import dataclass, replace
from itertools import pairwise

import numpy as np
import numpy.typing as npt

from stairpath.core.walking.bodies import STEP_M, Body
from stairpath.core.walking.clearance import EVERYWHERE, NOBODY, Space
from stairpath.core.walking.grid import WAYS
from stairpath.core.walking.loops.least import Bars, Wants, least_violated
from stairpath.core.walking.pinches import HEAD_RADIUS_M
from stairpath.core.walking.tile import RISER_M
from stairpath.core.walking.walkmap import NOWHERE, WalkMap

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]

_ACROSS_M = 2.0
"""How thick what stands between two floors may be to be looked across."""
_SAMPLE_M = 0.02
_KNEE_M = 0.3
_CHEST = 5.0 / 6.0
"""What reaches between the knee and this part of the body's height is gone through, not stepped over or ducked under."""
_CLIMB_M = 1.2
"""Floors beside one another and no farther apart in height than this are parted by a step."""
_STEP_M = 0.6
"""The floor under a line over an obstacle is looked for so far up and down."""


@dataclass(frozen=True)
class Blocked:
    """Where a way ends and why.

    ``nearest`` (3,) is the reachable point before the obstacle, ``kind`` one of width, height, step, slope, solid and
    gap; ``found`` and ``needed`` are in metres, or rise over run for a slope, None where none applies.
    """

    nearest: Array
    kind: str
    found: float | None
    needed: float | None
    components: tuple[int, ...]

    @property
    def involved(self) -> tuple[int, ...]:
        """All components that stand in the way."""
        return self.components

    @property
    def needs(self) -> str:
        """One sentence on what would have to be otherwise."""
        found, needed = self.found or 0.0, self.needed or 0.0
        if self.kind == "width":
            return f"{found:.2f} m wide, {needed:.2f} m needed: {max(0.01, needed - found):.2f} m wider."
        if self.kind == "height":
            return f"{found:.2f} m high, {needed:.2f} m needed: {max(0.01, needed - found):.2f} m higher."
        if self.kind == "step":
            return f"A step of {found:.2f} m where {needed:.2f} m at most can be taken; a ramp or a lift is needed."
        if self.kind == "slope":
            return f"A slope of 1:{1 / max(found, 1e-6):.1f} where 1:{1 / max(needed, 1e-6):.0f} at most can be taken."
        if self.kind == "gap":
            return "There is no floor across; a bridge, a stair or a lift is needed."
        return f"{found:.2f} m of solid stand in the way; an opening {needed:.2f} m wide is needed."


def _between(way: Ints, region: npt.NDArray[np.int32]) -> Ints:
    """The part of a way from the last floor reached to the first on the other side, both included."""
    first = 0
    while first + 1 < len(way) and region[way[first + 1]] == region[way[0]]:
        first += 1
    for k in range(first + 1, len(way)):
        if region[way[k]] != NOWHERE:
            return way[first : k + 1]
    return way[first:]


@dataclass(frozen=True)
class _Crossing:
    """The straight line over an obstacle, sampled every 2 cm: floor points (n, 3) and the way's direction there."""

    points: Array
    way: Array

    @classmethod
    def over(cls, places: Array) -> _Crossing:
        points, ways = [], []
        for a, b in pairwise(places):
            length = float(np.hypot(*(b - a)[:2]))
            if length == 0.0:
                continue
            count = max(1, round(length / _SAMPLE_M))
            points.append(a + (b - a) * ((np.arange(count) + 0.5) / count)[:, None])
            ways.append(np.tile((b - a)[:2] / length, (count, 1)))
        return cls(np.concatenate(points or [places[:1]]), np.concatenate(ways or [np.array([[1.0, 0.0]])]))


def _solid(space: Space, body: Body, crossing: _Crossing) -> tuple[float, tuple[int, ...]] | None:
    """How thick what the line goes through is, and the components; None if it goes through nothing."""
    found: list[int] = []
    hits = []
    for k, (x, y, z) in enumerate(crossing.points.tolist()):
        low, high = z + max(_KNEE_M, body.step_up_m), z + _CHEST * body.height_m
        _, whose, _ = space.nearest(x, y, low, high, _SAMPLE_M, EVERYWHERE, 1.0)
        if whose != NOBODY:
            hits.append(k)
            found += [whose] if whose not in found else []
    if not hits:
        return None
    between = crossing.points[hits[-1], :2] - crossing.points[hits[0], :2]
    return max(0.01, float(np.hypot(*between)) - _SAMPLE_M), tuple(found)


def _judge(walk: WalkMap, space: Space, part: Ints, step_free: bool) -> Blocked:
    """What a body cannot do on the part of a way between two floors."""
    body = walk.body
    places = walk.places(part)
    nearest = places[0]
    crossing = _Crossing.over(places)
    solid = _solid(space, body, crossing)
    if solid is not None:
        return Blocked(nearest, "solid", solid[0], 2 * body.radius_m, solid[1])
    columns, rows = walk.cell[part] % walk.grid.nx, walk.cell[part] // walk.grid.nx
    if max(np.abs(np.diff(columns)).max(), np.abs(np.diff(rows)).max()) > 1:
        return Blocked(nearest, "gap", None, None, ())
    limit = RISER_M if step_free else body.step_up_m
    step = _highest_step(space, crossing)
    if step > limit + 5e-3:
        beyond = part[np.abs(walk.height_m[part] - walk.height_m[part[0]]) > limit]
        return Blocked(nearest, "step", step, limit, _owners(walk, beyond if len(beyond) else part))
    lowest = body.height_m
    above: tuple[int, ...] = ()
    for x, y, z in crossing.points.tolist():
        height, whose = space.lowest(x, y, z + body.height_m / 4.0, z + body.height_m, HEAD_RADIUS_M)
        if whose != NOBODY and height - z < lowest:
            lowest, above = height - z, (whose,)
    if above:
        return Blocked(nearest, "height", lowest, body.height_m, above)
    slope, ramp = _steepness(space, places, body)
    if slope is not None:
        return Blocked(nearest, "slope", slope, body.slope, (ramp,))
    left = np.column_stack([-crossing.way[:, 1], crossing.way[:, 0]])
    widths, sides = space.widths(crossing.points, left, np.zeros(len(left)), body, 2 * body.radius_m, 0.0)
    k = int(np.argmin(widths))
    if np.isfinite(widths[k]):
        return Blocked(nearest, "width", float(widths[k]), 2 * body.radius_m, tuple(dict.fromkeys(sides[k].tolist())))
    rise = float(np.abs(np.diff(places[:, 2])).max())
    return Blocked(nearest, "step", max(step, rise), limit, _owners(walk, part))


def _highest_step(space: Space, crossing: _Crossing) -> float:
    """The highest edge along the line, in metres."""
    heights = space.trodden(crossing.points, _STEP_M, _STEP_M)
    rises = np.abs(np.diff(heights[~np.isnan(heights)]))
    return float(rises.max()) if len(rises) else 0.0


def _room_but_for_steps(walk: WalkMap, space: Space) -> npt.NDArray[np.uint8]:
    """The room beside each floor in cm if the body took steps: what is too narrow apart from what is too steep."""
    room = walk.room_cm.copy()
    if not walk.body.climbs:
        climber = replace(walk.body, step_up_m=STEP_M, step_down_m=STEP_M)
        tight = np.flatnonzero(~walk.fits & (walk.clear_cm >= round(climber.height_m * 100)))
        middles = np.column_stack([walk.grid.centres(walk.cell[tight].astype(np.int64)), walk.height_m[tight]])
        wide, _, _ = space.beside(
            middles, np.full(len(tight), np.inf), walk.grid.cell_m, climber, climber.radius_m + 0.01
        )
        room[tight] = np.floor(wide * 100 + 1e-6).astype(np.uint8)
    return room


def _owners(walk: WalkMap, floors: Ints) -> tuple[int, ...]:
    return tuple(int(c) for c in dict.fromkeys(walk.owner[floors].tolist()) if c != NOBODY)


def _steepness(space: Space, places: Array, body: Body) -> tuple[float | None, int]:
    """The slope of the floor half way if it is a slope and too steep, else None; and whose it is."""
    middle = places[len(places) // 2]
    probe = middle + np.array([[0, 0, 0], [0.02, 0, 0], [0, 0.02, 0]])
    heights, whose = space.trodden_by(probe, 0.1, 0.1)
    if np.isnan(heights).any():
        return None, NOBODY
    slope = float(np.hypot(heights[1] - heights[0], heights[2] - heights[0]) / 0.02)
    return (slope if body.steepest < slope < 1.2 else None), int(whose[0])


def blocked(walk: WalkMap, space: Space, source: Ints, goal: Ints, step_free: bool = False) -> Blocked:
    """Why no way leads from one of some floors to one of others.

    Between all that can be reached and the goal the crossing with the least in its way is looked for: who asks
    wants to know the smallest change that would do.
    """
    region = walk.region_step_free if step_free else walk.region
    parts = region[source]
    here = parts[parts != NOWHERE]
    if not len(here):
        return _judge_place(walk, space, int(source[0]))
    reached = region == here[0]
    beyond = region[goal]
    beyond = beyond[beyond != NOWHERE]
    # The search begins where there is less to search: in the smaller of both parts. Who is shut in wants to know
    # first what is in the way to the rest of the building.
    sizes = np.bincount(region[region != NOWHERE])
    main = int(sizes.argmax())
    shut_in = here[0] != main
    from_source = shut_in or (len(beyond) > 0 and sizes[here[0]] < sizes[beyond[0]])
    begin, end = goal, reached
    if from_source:
        begin, end = source[parts == here[0]], np.isin(region, [*beyond[:1], main] if shut_in else beyond[:1])
        end[goal] = True
    way: Ints = least_violated(
        np.asarray(begin[:2000]),
        end,
        walk.grid.raster,
        np.array(WAYS),
        Bars(
            walk.start, walk.cell, walk.height_m, walk.clear_cm, _room_but_for_steps(walk, space),
            walk.steps_for(step_free),
        ),
        Wants(_ACROSS_M, _CLIMB_M, round(walk.body.radius_m * 100), round(walk.body.height_m * 100)),
    )  # fmt: skip
    way = way[::-1] if from_source else way
    if not len(way):
        floors = np.flatnonzero(reached)
        target = walk.place(int(goal[0]))
        nearest = floors[np.argmin(np.linalg.norm(walk.places(floors) - target, axis=1))]
        return Blocked(walk.place(int(nearest)), "gap", None, None, ())
    return _judge(walk, space, _between(way, region), step_free)


def _judge_place(walk: WalkMap, space: Space, floor: int) -> Blocked:
    """Why a body does not fit where it is to stand."""
    place = walk.place(floor)
    x, y, z = (float(v) for v in place)
    body = walk.body
    height, whose = space.lowest(x, y, z + 0.1, z + body.height_m, HEAD_RADIUS_M)
    if whose != NOBODY:
        return Blocked(place, "height", height - z, body.height_m, (whose,))
    taker = int(walk.taker[floor])
    room = float(walk.room_cm[floor]) / 100.0
    return Blocked(place, "width", 2 * room, 2 * body.radius_m, (taker,) if taker != NOBODY else ())
