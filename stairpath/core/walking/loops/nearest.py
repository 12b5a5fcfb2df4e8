"""How far the triangles beside a point are, and how wide the way between them is."""

from __future__ import annotations

from typing import NamedTuple

import numba
import numpy as np

from stairpath.core.walking.loops.bins import BIN_HEIGHT_M, BIN_M, gather, meets, slot
from stairpath.core.walking.loops.polygons import Obstacle, Scratch, gap_to


class RoomFor(NamedTuple):
    """What a body needs beside it: from ``lift`` up to the shoulder, and a head's breadth up to its height.

    Obstacles count up to ``reach``; floors no steeper than ``grade`` do not, nor does what is so low that one comes
    onto it by ``climb``. A cell's nine places are ``spread`` apart.
    """

    lift: float
    shoulder: float
    height: float
    reach: float
    climb: float
    grade: float
    radius: float
    spread: float


TOGETHER_M = 0.45
"""What is around points this near one another is looked for once."""


@numba.njit(cache=True, nogil=True)
def nearest(x, y, reach, grade, obstacle, binned, foot):
    """The nearest triangle between two heights within reach on plan: how far, which, and where (in ``foot``).

    An upward face no steeper than ``grade`` is not in the way; its edges are faces of their own.
    """
    low, high, _, halves = obstacle
    _, zs, first_bin, layout, bins_start, bins_of = binned
    best = reach * reach
    found = -1
    at = np.empty(2)
    scratch = Scratch(np.empty((9, 3)), np.empty((9, 3)), at)
    gx, gy = (x - first_bin[0]) / BIN_M, (y - first_bin[1]) / BIN_M
    steps = int(reach / BIN_M) + 1
    k0 = max(0, int((low - first_bin[2]) / BIN_HEIGHT_M))
    k1 = min(layout.nz - 1, int((high - first_bin[2]) / BIN_HEIGHT_M))
    # Rings of bins around the point: what is near soon rules out what is farther.
    for ring in range(steps + 1):
        for j in range(int(gy) - ring, int(gy) + ring + 1):
            if j < 0 or j >= layout.ny:
                continue
            wy = max(0.0, j - gy, gy - j - 1.0) * BIN_M
            edge = j == int(gy) - ring or j == int(gy) + ring
            for i in range(int(gx) - ring, int(gx) + ring + 1, 1 if edge or ring == 0 else 2 * ring):
                if i < 0 or i >= layout.nx:
                    continue
                wx = max(0.0, i - gx, gx - i - 1.0) * BIN_M
                if wx * wx + wy * wy >= best or not meets(halves, first_bin, i, j):
                    continue
                for k in range(k0, k1 + 1):
                    b = slot(layout, i, j, k)
                    if b < 0:
                        continue
                    for m in range(bins_start[b], bins_start[b + 1]):
                        t = bins_of[m]
                        if zs[t, 1] <= low or zs[t, 0] >= high or zs[t, 6] <= grade:
                            continue
                        dx = max(0.0, zs[t, 2] - x, x - zs[t, 3])
                        dy = max(0.0, zs[t, 4] - y, y - zs[t, 5])
                        if dx * dx + dy * dy >= best:
                            continue
                        gap = gap_to(t, x, y, best, obstacle, binned, scratch)
                        if gap < best:
                            best, found = gap, t
                            foot[0], foot[1] = at[0], at[1]
    return np.sqrt(best), found


@numba.njit(cache=True, nogil=True)
def nearest_of(near, hint, x, y, reach, enough, obstacle, binned, scratch):
    """The nearest of some triangles that stand in the way, and how far; the search ends below ``enough``.

    The triangle ``hint`` is tried first: what is nearest next door rules out most others.
    """
    low, high, zs = obstacle.low, obstacle.high, binned.reaches
    best, found = reach * reach, -1
    for n in range(-1 if hint >= 0 else 0, len(near)):
        t = hint if n < 0 else near[n]
        if zs[t, 1] <= low or zs[t, 0] >= high:
            continue
        dx = max(0.0, zs[t, 2] - x, x - zs[t, 3])
        dy = max(0.0, zs[t, 4] - y, y - zs[t, 5])
        if dx * dx + dy * dy >= best:
            continue
        gap = gap_to(t, x, y, best, obstacle, binned, scratch)
        if gap < best:
            best, found = gap, t
            if gap < enough * enough:
                break
    return np.sqrt(best), found


@numba.njit(cache=True, nogil=True)
def sides(points, order, room_for, binned):
    """Room beside each point, what takes it, and which of nine places of its cell has most.

    ``order`` puts points that are near one another together: what is around them is gathered once.
    """
    lift, shoulder, height, reach, climb, grade, radius, spread = room_for
    zs = binned.reaches
    count = len(points)
    room, taker = np.empty(count), np.full(count, -1, dtype=np.int64)
    at = np.full(count, 4, dtype=np.uint8)
    hopeless = max(0.0, radius - 1.5 * spread)
    corner = 2.1214 * spread  # a head may be anywhere in its cell
    everywhere = np.zeros((0, 3))
    seen, gathered = np.full(len(zs), -1, dtype=np.int64), np.empty(len(zs), dtype=np.int64)
    scratch = Scratch(np.empty((9, 3)), np.empty((9, 3)), np.empty(2))
    low, high = np.empty(3), np.empty(3)
    first = 0
    while first < count:
        low[:], high[:] = points[order[first]], points[order[first]]
        last = first
        while last < count:
            x, y, z = points[order[last]]
            if abs(x - points[order[first], 0]) > TOGETHER_M or abs(y - points[order[first], 1]) > TOGETHER_M:
                break
            if abs(z - points[order[first], 2]) > TOGETHER_M:
                break
            low[0], low[1], low[2] = min(low[0], x), min(low[1], y), min(low[2], z)
            high[0], high[1], high[2] = max(high[0], x), max(high[1], y), max(high[2], z)
            last += 1
        low -= reach + spread
        high += reach + spread
        low[2] += reach + spread + lift
        high[2] += height - reach - spread
        near = gathered[: gather(low, high, grade, seen, first, gathered, binned)]
        hint, head = -1, -1
        for p in order[first:last]:
            x, y, z = points[p]
            if shoulder < height:
                above = Obstacle(z + shoulder, z + height, 0.0, everywhere)
                _, found = nearest_of(near, head, x, y, corner, 1.0, above, binned, scratch)
                if found >= 0:
                    room[p], taker[p], head = 0.0, found, found
                    continue
            around = Obstacle(z + lift, z + shoulder, climb, everywhere)
            gap, found = nearest_of(near, hint, x, y, reach, hopeless, around, binned, scratch)
            room[p], taker[p] = gap, found
            hint = found if found >= 0 else hint
            if gap >= radius or gap < hopeless:
                continue
            # The cell's middle is just too close to something; a little aside there may be room.
            for spot in range(9):
                sx, sy = x + (spot % 3 - 1) * spread, y + (spot // 3 - 1) * spread
                gap, found = nearest_of(near, hint, sx, sy, reach, hopeless, around, binned, scratch)
                if gap > room[p]:
                    room[p], at[p] = gap, spot
        first = last
    return room, taker, at


@numba.njit(cache=True, nogil=True)
def quarter(halves, x, y, ux, uy):
    """The quarter of the plan around a direction from a point, as half-planes, into ``halves`` (2, 3)."""
    for k in range(2):
        turn = 1.0 if k == 0 else -1.0
        halves[k, 0], halves[k, 1] = ux - turn * uy, uy + turn * ux
        halves[k, 2] = halves[k, 0] * x + halves[k, 1] * y


@numba.njit(cache=True, nogil=True)
def widths(points, left, room, room_for, widest, limit, binned):
    """Clear width across a way at points of the floor, infinite if wider than any before and than a limit.

    The nearest thing in the quarter to one side, and from it the nearest in the quarter to the other. Nothing is
    nearer than ``room``.
    """
    lift, shoulder, climb, grade = room_for.lift, room_for.shoulder, room_for.climb, room_for.grade
    width = np.full(len(points), np.inf)
    one, other = np.full(len(points), -1, dtype=np.int64), np.full(len(points), -1, dtype=np.int64)
    halves, opposite = np.empty((2, 3)), np.empty((2, 3))
    foot, across, edge = np.empty(2), np.empty(2), np.empty(2)
    narrowest = widest
    for p in range(len(points)):
        x, y, z = points[p]
        reach = max(narrowest, limit) + 0.003
        low, high = z + lift, z + shoulder
        # Things in opposite quarters are farther apart than the root of two times the nearer one is away.
        if room[p] > reach * 0.7072:
            continue
        quarter(halves, x, y, left[p, 0], left[p, 1])
        quarter(opposite, x, y, -left[p, 0], -left[p, 1])
        ahead, behind = Obstacle(low, high, climb, halves), Obstacle(low, high, climb, opposite)
        here, a = nearest(x, y, reach, grade, ahead, binned, foot)
        there, b = nearest(x, y, reach, grade, behind, binned, across)
        if a < 0 or b < 0:
            continue
        if here <= there:
            size, c = nearest(foot[0], foot[1], reach, grade, behind, binned, edge)
            b = c
        else:
            size, c = nearest(across[0], across[1], reach, grade, ahead, binned, edge)
            a = c
        if c >= 0:
            width[p], one[p], other[p] = size, a, b
            narrowest = min(narrowest, size)
    return width, one, other
