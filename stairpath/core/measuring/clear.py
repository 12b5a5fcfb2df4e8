"""How much room there is at a point of the floor: clear height above it, clear width through it."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.walking.solids import Solids

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]

_GIVEN_ABOVE_M = 0.05
"""A point may be given so much below the floor that it means."""
_OVER_M = 0.02
"""What lies no higher above the floor is part of it."""
LOW_M, HIGH_M = 0.05, 2.0
"""Between these heights above the floor something narrows the way."""
REACH_M = 10.0
"""As wide as this on one side is open."""
_REACHES_M = (1.5, 3.0, 6.0)
_COARSE_DEG, _FINE_DEG = 0.5, 0.01


class NoFloorError(LookupError):
    """There is nothing to stand on at a point; the message says so."""


@dataclass(frozen=True)
class Height:
    """The clear height over a point of the floor, where it ends and by which component."""

    height_m: float
    at: Array
    component: int


@dataclass(frozen=True)
class Width:
    """The narrowest straight line through a point of the floor, from one thing to another, on the level."""

    width_m: float
    ends: Array
    components: tuple[int, int]


@dataclass(frozen=True)
class Clear:
    """A point of the floor and its component, and how much room there is; None where it is open."""

    floor: Array
    component: int
    height: Height | None
    width: Width | None


def _crossed(triangles: Array, x: float, y: float) -> tuple[Ints, Array]:
    """Triangles (k,) that a vertical line meets, and at which heights (k,)."""
    low, high = triangles[..., :2].min(axis=1), triangles[..., :2].max(axis=1)
    near = np.flatnonzero((low[:, 0] <= x) & (high[:, 0] >= x) & (low[:, 1] <= y) & (high[:, 1] >= y))
    t = triangles[near]
    a, b, c = t[:, 0], t[:, 1], t[:, 2]
    whole = (b[:, 0] - a[:, 0]) * (c[:, 1] - a[:, 1]) - (b[:, 1] - a[:, 1]) * (c[:, 0] - a[:, 0])
    flat = np.abs(whole) > 1e-12
    near, a, b, c, whole = near[flat], a[flat], b[flat], c[flat], whole[flat]
    u = ((x - a[:, 0]) * (c[:, 1] - a[:, 1]) - (y - a[:, 1]) * (c[:, 0] - a[:, 0])) / whole
    v = ((b[:, 0] - a[:, 0]) * (y - a[:, 1]) - (b[:, 1] - a[:, 1]) * (x - a[:, 0])) / whole
    inside = (u >= -1e-9) & (v >= -1e-9) & (u + v <= 1 + 1e-9)
    height = a[:, 2] + u * (b[:, 2] - a[:, 2]) + v * (c[:, 2] - a[:, 2])
    return near[inside], height[inside]


def _edges_between(triangles: Array, low_m: float, high_m: float) -> tuple[Array, Ints]:
    """The sides on plan (n, 2, 2) of what of triangles lies between two heights, and which triangle each is of.

    A triangle that goes beyond the heights gives its line at each of them.
    """
    sides = [(triangles, 0, 1), (triangles, 1, 2), (triangles, 2, 0)]
    lines: list[Array] = []
    whose: list[Ints] = []
    number = np.arange(len(triangles))
    for t, i, j in sides:
        a, b = t[:, i], t[:, j]
        rise = b[:, 2] - a[:, 2]
        with np.errstate(divide="ignore", invalid="ignore"):
            to_low, to_high = (low_m - a[:, 2]) / rise, (high_m - a[:, 2]) / rise
        level = rise == 0
        within = (a[:, 2] >= low_m) & (a[:, 2] <= high_m)
        start = np.where(level, np.where(within, 0.0, 1.0), np.clip(np.minimum(to_low, to_high), 0, 1))
        end = np.where(level, np.where(within, 1.0, 0.0), np.clip(np.maximum(to_low, to_high), 0, 1))
        some = start < end
        step = (b - a)[some, :2]
        lines.append(np.stack([a[some, :2] + start[some, None] * step, a[some, :2] + end[some, None] * step], axis=1))
        whose.append(number[some])
    for height in (low_m, high_m):
        above = triangles[..., 2] > height
        lone = (above.sum(axis=1) == 1) | (above.sum(axis=1) == 2)
        t, up = triangles[lone], above[lone]
        at = np.argmax(up == (up.sum(axis=1) == 1)[:, None], axis=1)
        rows = np.arange(len(t))
        a, b, c = (t[rows, (at + k) % 3] for k in range(3))
        ends = [a[:, :2] + ((height - a[:, 2]) / (p[:, 2] - a[:, 2]))[:, None] * (p - a)[:, :2] for p in (b, c)]
        lines.append(np.stack(ends, axis=1))
        whose.append(number[lone])
    return np.concatenate(lines), np.concatenate(whose)


def _rays(lines: Array, angles: Array) -> tuple[Array, Ints]:
    """How far one sees from the origin along each angle (k,) before a line (n, 2, 2) on plan, and which ends it."""
    way = np.stack([np.cos(angles), np.sin(angles)], axis=1)
    a, d = lines[:, 0], lines[:, 1] - lines[:, 0]
    across = way[:, None, 0] * d[None, :, 1] - way[:, None, 1] * d[None, :, 0]
    with np.errstate(divide="ignore", invalid="ignore"):
        far = (a[None, :, 0] * d[None, :, 1] - a[None, :, 1] * d[None, :, 0]) / across
        share = (a[None, :, 0] * way[:, None, 1] - a[None, :, 1] * way[:, None, 0]) / across
    met = (np.abs(across) > 1e-12) & (far >= 0) & (share >= -1e-9) & (share <= 1 + 1e-9)
    far = np.where(met, far, np.inf)
    nearest = np.argmin(far, axis=1)
    return far[np.arange(len(angles)), nearest], nearest


def _narrowest(lines: Array, angles: Array) -> tuple[float, float, Ints]:
    """The angle of the narrowest line through the origin, how long it is, and the lines at its two ends."""
    there, one = _rays(lines, angles)
    back, other = _rays(lines, angles + np.pi)
    best = int(np.argmin(there + back))
    return float(angles[best]), float(there[best] + back[best]), np.array([one[best], other[best]])


def _width(solids: Solids, floor: Array, top_m: float) -> Width | None:
    t = solids.triangles
    low, high = floor[2] + LOW_M, floor[2] + min(HIGH_M, top_m - _OVER_M)
    gap = np.maximum(t[..., :2].min(axis=1) - floor[:2], floor[:2] - t[..., :2].max(axis=1)).max(axis=1)
    within = np.flatnonzero((gap <= REACH_M) & (t[..., 2].min(axis=1) < high) & (t[..., 2].max(axis=1) > low))
    # What is farther than the width that is found cannot make it less: a little is looked at before all.
    for reach in (*_REACHES_M, REACH_M):
        near = within[gap[within] <= reach]
        lines, whose = _edges_between(t[near] - [*floor[:2], 0.0], low, high)
        if not len(lines):
            continue
        angle, width, _ = _narrowest(lines, np.radians(np.arange(0, 180, _COARSE_DEG)))
        if width <= reach:
            break
    if not len(lines) or not np.isfinite(width):
        return None
    fine = angle + np.radians(np.arange(-_COARSE_DEG, _COARSE_DEG + _FINE_DEG, _FINE_DEG))
    angle, width, at = _narrowest(lines, fine)
    there, back = (float(_rays(lines, np.array([a]))[0][0]) for a in (angle, angle + np.pi))
    way = np.array([np.cos(angle), np.sin(angle), 0.0])
    owners = solids.component[near[whose[at]]]
    return Width(width, np.stack([floor + there * way, floor - back * way]), (int(owners[0]), int(owners[1])))


def clear_at(solids: Solids, point: Array) -> Clear:
    """How much room there is at the floor below a point (3,) along the building's axes.

    The floor is the highest face below the point that looks up. Doors count without their leaves. Raises NoFloorError.
    """
    t = solids.triangles
    which, height = _crossed(t, float(point[0]), float(point[1]))
    up = np.cross(t[which, 1] - t[which, 0], t[which, 2] - t[which, 0])[:, 2] > 0
    below = up & (height <= point[2] + _GIVEN_ABOVE_M)
    if not below.any():
        raise NoFloorError("There is no floor below that point; give one above a floor.")
    at = int(np.flatnonzero(below)[np.argmax(height[below])])
    level = float(height[at])
    floor = np.array([point[0], point[1], level])
    over = height > level + _OVER_M
    lowest: Height | None = None
    if over.any():
        k = int(np.flatnonzero(over)[np.argmin(height[over])])
        end = np.array([point[0], point[1], height[k]])
        lowest = Height(float(height[k]) - level, end, int(solids.component[which[k]]))
    width = _width(solids, floor, lowest.height_m if lowest else np.inf)
    return Clear(floor, int(solids.component[which[at]]), lowest, width)
