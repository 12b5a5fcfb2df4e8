"""Why somebody walking came to a stop: what is in the way, and how much room there is."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.walking.bodies import Body
from stairpath.core.walking.clearance import NOBODY, Space
from stairpath.core.walking.pinches import HEAD_RADIUS_M, WIDEST_M
from stairpath.core.walking.walkmap import WalkMap

Array = npt.NDArray[np.float64]

_REACH_M = 0.15
"""What is in the way is looked for so far beyond the body's own breadth."""
_AHEAD_M = 0.05
_DROP_M = 0.8
_LINE_M = 0.02
_SAMPLE_M = 0.04
_NEAR = 5
"""So many samples ahead the floor may end or drop."""
_SEAT_M = 0.6
_STEEPEST = 1.2
_SLACK_M = 1e-3
_SIN, _COS = float(np.sin(np.radians(70))), float(np.cos(np.radians(70)))


@dataclass(frozen=True)
class Stop:
    """What ended a step: ``kind`` is height, width, solid, step, drop, slope or edge.

    Sizes are in metres where there are any, for a slope rise over run.
    """

    kind: str
    component: int
    found_m: float | None = None
    needed_m: float | None = None


def spoken(stop: Stop, what: str) -> str:
    """A stop in one line: who is in the way, and how much room there is of how much that is needed.

    >>> spoken(Stop("width", 3, 0.72, 0.8), "Duct AD-114, air")
    'Duct AD-114, air: 0.72 m clear, 0.80 m needed'
    """
    found, needed = stop.found_m, stop.needed_m
    if stop.kind == "solid" and needed is not None:
        return f"{what} stands in the way, {needed:.2f} m needed"
    if found is None or needed is None:
        plain = {"step": ": a step", "drop": ": a drop", "slope": ": too steep", "edge": ": the floor ends here"}
        return what + plain.get(stop.kind, " stands in the way")
    if stop.kind in ("height", "width"):
        return f"{what}: {found:.2f} m clear, {needed:.2f} m needed"
    if stop.kind == "step":
        return f"{what}: a step of {found:.2f} m, {needed:.2f} m at most"
    if stop.kind == "drop":
        return f"{what}: {found:.2f} m down, {needed:.2f} m at most"
    if stop.kind == "slope":
        return f"{what}: a slope of 1:{1 / max(found, 1e-6):.1f}, 1:{1 / max(needed, 1e-6):.0f} at most"
    return what + (": the floor ends here" if stop.kind == "edge" else " stands in the way")


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
        return Stop("solid", whose, None, 2 * body.radius_m)
    left = np.array([[-towards[1], towards[0]]])
    depth = max(0.0, float((np.array(edge) - foot[:2]) @ towards))
    gate = np.array([[*(foot[:2] + towards * (depth + _AHEAD_M)), foot[2]]])
    widths, sides = space.widths(gate, left, np.zeros(1), body, WIDEST_M, 0.0)
    if np.isfinite(widths[0]) and 0.01 < widths[0] < 2 * body.radius_m + 0.02 and whose in sides[0]:
        return Stop("width", whose, float(widths[0]), 2 * body.radius_m)
    return Stop("solid", whose, None, 2 * body.radius_m)


def _tall(walk: WalkMap, space: Space, foot: Array, towards: Array) -> bool:
    """Whether something higher than a seat stands straight ahead."""
    low, high = foot[2] + _SEAT_M, foot[2] + max(_SEAT_M + _LINE_M, walk.body.shoulder_m)
    return _in_front(space, foot, towards, low, high, walk.body.radius_m + _REACH_M)


@dataclass(frozen=True)
class _Ground:
    """The floor straight ahead of a foot, every 4 cm: how high (n,) and whose (n,), the foot's own first."""

    heights: Array
    owners: npt.NDArray[np.int32]

    @classmethod
    def ahead(cls, walk: WalkMap, space: Space, floor: int, foot: Array, towards: Array) -> _Ground:
        reach = np.arange(_SAMPLE_M / 2.0, walk.body.radius_m + _REACH_M, _SAMPLE_M)
        points = np.column_stack([foot[:2] + reach[:, None] * towards, np.full(len(reach), foot[2])])
        heights, owners = space.trodden_by(points, _DROP_M, _DROP_M)
        return cls(np.append(foot[2], heights), np.append(walk.owner[floor], owners).astype(np.int32))

    def climb(self, body: Body) -> Stop | None:
        """The first edge that is higher than the body steps and no higher than a seat, or the first slope too steep."""
        rises = np.diff(self.heights)
        slopes = np.abs(rises) / _SAMPLE_M
        step = (rises > body.step_up_m + _SLACK_M) & (rises < _SEAT_M)
        steep = (slopes > body.steepest) & (slopes < _STEEPEST) & (np.abs(rises) > _SLACK_M)
        steep &= np.append(steep[1:], False)  # a threshold is no slope
        found = np.flatnonzero(step | steep)
        if not len(found):
            return None
        k = int(found[0])
        whose = int(self.owners[k + 1])
        if step[k]:
            return Stop("step", whose, float(rises[k]), body.step_up_m)
        return Stop("slope", whose, float(slopes[k]), body.slope)

    def end(self, body: Body) -> Stop | None:
        """Where the floor ends or drops; close before the foot, for its middle may come so near."""
        near = self.heights[: _NEAR + 1]
        if np.isnan(near[-1]):
            return Stop("edge", int(self.owners[0]))
        drop = -float(np.diff(near[~np.isnan(near)]).min())
        if drop > body.step_down_m + _SLACK_M:
            return Stop("drop", int(self.owners[0]), drop, body.step_down_m)
        return None


def why_stopped(walk: WalkMap, space: Space, floor: int, point: Array, towards: Array) -> Stop:
    """Why a body on a floor, at a point (2,), cannot go on in a direction (2,) on plan.

    Sizes are measured on the triangles: what hangs low from the floor, a gap from side to side.
    """
    towards = towards / max(float(np.hypot(*towards)), 1e-12)
    foot = np.array([point[0], point[1], float(walk.height_m[floor])])
    ground = _Ground.ahead(walk, space, floor, foot, towards)
    # A floor beyond what stands tall in the way is no step of the way.
    climb = None if _tall(walk, space, foot, towards) else ground.climb(walk.body)
    return (
        _overhead(walk, space, foot, towards)
        or climb
        or _beside(walk, space, foot, towards)
        or ground.end(walk.body)
        or Stop("solid", int(walk.taker[floor]), None, 2 * walk.body.radius_m)
    )
