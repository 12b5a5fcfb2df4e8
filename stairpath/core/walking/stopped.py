"""Why somebody walking came to a stop: what is in the way, and how much room there is."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.walking.clearance import NOBODY, Space
from stairpath.core.walking.pinches import HEAD_RADIUS_M, WIDEST_M
from stairpath.core.walking.walkmap import WalkMap

Array = npt.NDArray[np.float64]

_REACH_M = 0.15
"""What is in the way is looked for so far beyond the body's own breadth."""
_AHEAD_M = 0.05
_DROP_M = 0.8
_LINE_M = 0.02
_SIN, _COS = float(np.sin(np.radians(70))), float(np.cos(np.radians(70)))


@dataclass(frozen=True)
class Stop:
    """What ended a step: ``kind`` is height, width, solid, step, drop or edge; sizes in metres where there are any."""

    kind: str
    component: int
    found_m: float | None = None
    needed_m: float | None = None


def _ahead(at: Array, towards: Array) -> Array:
    """What lies ahead of a point, up to 70 degrees to either side, as half-planes (2, 3)."""
    along = np.array([-towards[1], towards[0]])
    sides = np.stack([towards * _SIN + along * _COS, towards * _SIN - along * _COS])
    return np.column_stack([sides, sides @ at])


def _overhead(walk: WalkMap, space: Space, foot: Array, towards: Array) -> Stop | None:
    """What hangs too low ahead, unless it comes down so far that it is met by the body, not the head."""
    body = walk.body
    for ahead in np.arange(0.0, body.radius_m + _REACH_M, _AHEAD_M):
        x, y = foot[:2] + towards * ahead
        low = foot[2] + body.height_m / 2.0
        height, whose = space.lowest(float(x), float(y), low, foot[2] + body.height_m, HEAD_RADIUS_M)
        if whose != NOBODY and height > low + 1e-6:
            return Stop("height", whose, height - foot[2], body.height_m)
        if whose != NOBODY:
            return None
    return None


def _in_front(space: Space, foot: Array, towards: Array, low: float, high: float, reach: float) -> bool:
    """Whether something stands straight ahead, and not only to the sides."""
    for ahead in np.arange(0.0, reach, _LINE_M):
        x, y = foot[:2] + towards * ahead
        if space.nearest(float(x), float(y), low, high, _LINE_M, slope=1.0)[1] != NOBODY:
            return True
    return False


def _beside(walk: WalkMap, space: Space, foot: Array, towards: Array) -> Stop | None:
    """What the body meets ahead, with the width that it leaves if it is one side of a gap."""
    body = walk.body
    low, high = foot[2] + body.step_up_m + 1e-3, foot[2] + body.shoulder_m
    reach = body.radius_m + _REACH_M
    _, whose, edge = space.nearest(
        float(foot[0]), float(foot[1]), low, high, reach, _ahead(foot[:2], towards), body.steepest, body.ahead
    )
    if whose == NOBODY:
        return None
    if _in_front(space, foot, towards, low, high, reach):
        return Stop("solid", whose)
    left = np.array([[-towards[1], towards[0]]])
    depth = max(0.0, float((np.array(edge) - foot[:2]) @ towards))
    gate = np.array([[*(foot[:2] + towards * (depth + _AHEAD_M)), foot[2]]])
    widths, sides = space.widths(gate, left, np.zeros(1), body, WIDEST_M, 0.0)
    if np.isfinite(widths[0]) and 0.01 < widths[0] < 2 * body.radius_m + 0.02 and whose in sides[0]:
        return Stop("width", whose, float(widths[0]), 2 * body.radius_m)
    return Stop("solid", whose)


def why_stopped(walk: WalkMap, space: Space, floor: int, point: Array, towards: Array) -> Stop:
    """Why a body on a floor, at a point (2,), cannot go on in a direction (2,) on plan.

    Sizes are measured on the triangles: what hangs low from the floor, a gap from side to side.
    """
    towards = towards / max(float(np.hypot(*towards)), 1e-12)
    foot = np.array([point[0], point[1], float(walk.height_m[floor])])
    stop = _overhead(walk, space, foot, towards) or _beside(walk, space, foot, towards)
    if stop is not None:
        return stop
    ahead = np.array([[*(foot[:2] + towards * k), foot[2]] for k in (0.02, 0.06, 0.1, 0.14, 0.18)])
    heights = space.trodden(ahead, _DROP_M, _DROP_M) - foot[2]
    owner = int(walk.owner[floor])
    known = heights[~np.isnan(heights)]
    if not len(known) or np.isnan(heights[-1]):
        return Stop("edge", owner)
    if known.max() > walk.body.step_up_m:
        return Stop("step", owner, float(known.max()), walk.body.step_up_m)
    if known.min() < -walk.body.step_down_m:
        return Stop("drop", owner, float(-known.min()), walk.body.step_down_m)
    return Stop("solid", int(walk.taker[floor]))
