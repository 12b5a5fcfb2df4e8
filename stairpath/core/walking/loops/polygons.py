"""Parts of triangles on plan, and how far they are from a point."""

from __future__ import annotations

from typing import NamedTuple

import numba
import numpy as np
import numpy.typing as npt


class Obstacle(NamedTuple):
    """What stands in the way: between two heights, on the right side of half-planes (n, 3).

    Each half-plane (a, b, c) leaves out what does not lie on ``a x + b y >= c``. What ends below ``low`` plus its
    distance times ``climb`` is stepped onto, not bumped into.
    """

    low: float
    high: float
    climb: float
    halves: npt.NDArray[np.float64]


class Scratch(NamedTuple):
    """Room to cut a triangle in, twice (9, 3), and for the point (2,) of it that is nearest."""

    one: npt.NDArray[np.float64]
    other: npt.NDArray[np.float64]
    at: npt.NDArray[np.float64]


@numba.njit(cache=True, nogil=True)
def cut(polygon, count, axis_x, axis_y, axis_z, limit, out):
    """The part of a convex polygon where a direction's product is at least a limit; how many corners it has."""
    kept = 0
    for k in range(count):
        m = (k + 1) % count
        here = axis_x * polygon[k, 0] + axis_y * polygon[k, 1] + axis_z * polygon[k, 2] - limit
        there = axis_x * polygon[m, 0] + axis_y * polygon[m, 1] + axis_z * polygon[m, 2] - limit
        if here >= 0.0:
            out[kept, 0], out[kept, 1], out[kept, 2] = polygon[k, 0], polygon[k, 1], polygon[k, 2]
            kept += 1
        if (here >= 0.0) != (there >= 0.0):
            share = here / (here - there)
            out[kept, 0] = polygon[k, 0] + share * (polygon[m, 0] - polygon[k, 0])
            out[kept, 1] = polygon[k, 1] + share * (polygon[m, 1] - polygon[k, 1])
            out[kept, 2] = polygon[k, 2] + share * (polygon[m, 2] - polygon[k, 2])
            kept += 1
    return kept


@numba.njit(cache=True, nogil=True)
def apart(polygon, count, x, y, foot):
    """Distance squared on plan from a point to a convex polygon, and the point of it that is nearest in ``foot``."""
    best = 1e30
    left, right = False, False
    for k in range(count):
        m = (k + 1) % count
        ax, ay = polygon[k, 0], polygon[k, 1]
        ux, uy = polygon[m, 0] - ax, polygon[m, 1] - ay
        size = ux * ux + uy * uy
        share = 0.0 if size == 0.0 else min(1.0, max(0.0, ((x - ax) * ux + (y - ay) * uy) / size))
        px, py = ax + share * ux, ay + share * uy
        gap = (px - x) * (px - x) + (py - y) * (py - y)
        if gap < best:
            best = gap
            foot[0], foot[1] = px, py
        side = ux * (y - ay) - uy * (x - ax)
        left |= side > 1e-12
        right |= side < -1e-12
    if left != right:  # strictly inside
        foot[0], foot[1] = x, y
        return 0.0
    return best


@numba.njit(cache=True, nogil=True)
def gap_to(t, x, y, best, obstacle, binned, scratch):
    """How far squared a triangle is on plan if that is nearer than ``best`` and it stands in the way, else ``best``."""
    low, high, climb, halves = obstacle
    one, other, at = scratch
    zs = binned.reaches
    count = cut(binned.triangles[t], 3, 0.0, 0.0, 1.0, low, one)
    count = cut(one, count, 0.0, 0.0, -1.0, -high, other)
    for h in range(len(halves)):
        count = cut(other, count, halves[h, 0], halves[h, 1], 0.0, halves[h, 2], one)
        other, one = one, other
    if count == 0:
        return best
    gap = apart(other, count, x, y, at)
    if gap >= best or zs[t, 1] <= low + climb * np.sqrt(gap):
        return best
    return gap
