"""How far the triangles near a point are, beside it, above it and under it."""

from __future__ import annotations

import numba
import numpy as np

BIN_M = 0.5
BIN_HEIGHT_M = 1.0
TOGETHER_M = 0.45
"""What is around points this near one another is looked for once."""


@numba.njit(cache=True, nogil=True)
def binned(reaches, low, count):
    nx, ny, nz = count
    start = np.zeros(nx * ny * nz + 1, dtype=np.int64)
    of = np.zeros(0, dtype=np.int64)
    place = np.zeros(0, dtype=np.int64)
    for fill in range(2):
        if fill:
            start[1:] = np.cumsum(start[:-1])
            start[0] = 0
            of = np.empty(start[-1], dtype=np.int64)
            place = start[:-1].copy()
        for t in range(len(reaches)):
            i0, i1 = int((reaches[t, 2] - low[0]) / BIN_M), int((reaches[t, 3] - low[0]) / BIN_M)
            j0, j1 = int((reaches[t, 4] - low[1]) / BIN_M), int((reaches[t, 5] - low[1]) / BIN_M)
            k0, k1 = int((reaches[t, 0] - low[2]) / BIN_HEIGHT_M), int((reaches[t, 1] - low[2]) / BIN_HEIGHT_M)
            for k in range(k0, k1 + 1):
                for j in range(j0, j1 + 1):
                    for i in range(i0, i1 + 1):
                        b = (k * ny + j) * nx + i
                        if fill:
                            of[place[b]] = t
                            place[b] += 1
                        else:
                            start[b] += 1
    return start, of


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
def gap_to(t, x, y, low, high, best, climb, halves, triangles, zs, one, other, at):
    """How far squared a triangle is on plan if that is nearer than ``best`` and it stands in the way, else ``best``."""
    count = cut(triangles[t], 3, 0.0, 0.0, 1.0, low, one)
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


@numba.njit(cache=True, nogil=True)
def nearest(
    x, y, low, high, reach, grade, climb, halves, triangles, zs, first_bin, bin_count, bins_start, bins_of, foot
):
    """The nearest triangle between two heights within reach on plan: how far, which, and where (in ``foot``).

    Each of ``halves`` (n, 3) with (a, b, c) leaves out what does not lie on ``a x + b y >= c``. An upward
    face no steeper than ``grade`` is not in the way; its edges are faces of their own.
    """
    best = reach * reach
    found = -1
    one, other = np.empty((9, 3)), np.empty((9, 3))
    at = np.empty(2)
    nx, ny, nz = bin_count
    gx, gy = (x - first_bin[0]) / BIN_M, (y - first_bin[1]) / BIN_M
    steps = int(reach / BIN_M) + 1
    k0 = max(0, int((low - first_bin[2]) / BIN_HEIGHT_M))
    k1 = min(nz - 1, int((high - first_bin[2]) / BIN_HEIGHT_M))
    # Rings of bins around the point: what is near soon rules out what is farther.
    for ring in range(steps + 1):
        for j in range(int(gy) - ring, int(gy) + ring + 1):
            if j < 0 or j >= ny:
                continue
            wy = max(0.0, j - gy, gy - j - 1.0) * BIN_M
            edge = j == int(gy) - ring or j == int(gy) + ring
            for i in range(int(gx) - ring, int(gx) + ring + 1, 1 if edge or ring == 0 else 2 * ring):
                if i < 0 or i >= nx:
                    continue
                wx = max(0.0, i - gx, gx - i - 1.0) * BIN_M
                if wx * wx + wy * wy >= best:
                    continue
                for k in range(k0, k1 + 1):
                    b = (k * ny + j) * nx + i
                    for m in range(bins_start[b], bins_start[b + 1]):
                        t = bins_of[m]
                        if zs[t, 1] <= low or zs[t, 0] >= high or zs[t, 6] <= grade:
                            continue
                        dx = max(0.0, zs[t, 2] - x, x - zs[t, 3])
                        dy = max(0.0, zs[t, 4] - y, y - zs[t, 5])
                        if dx * dx + dy * dy >= best:
                            continue
                        gap = gap_to(t, x, y, low, high, best, climb, halves, triangles, zs, one, other, at)
                        if gap < best:
                            best, found = gap, t
                            foot[0], foot[1] = at[0], at[1]
    return np.sqrt(best), found


@numba.njit(cache=True, nogil=True)
def bins_between(i0, i1, j0, j1, k0, k1, nx, ny, nz):
    for k in range(max(0, k0), min(nz - 1, k1) + 1):
        for j in range(max(0, j0), min(ny - 1, j1) + 1):
            for i in range(max(0, i0), min(nx - 1, i1) + 1):
                yield (k * ny + j) * nx + i


@numba.njit(cache=True, nogil=True)
def lowest(x, y, low, high, radius, triangles, zs, first_bin, bin_count, bins_start, bins_of):
    """The lowest height at which a triangle reaches over a disc, between two heights; and which triangle."""
    best = high
    found = -1
    one = np.empty((9, 3))
    nx, ny, nz = bin_count
    i0, i1 = int((x - radius - first_bin[0]) / BIN_M), int((x + radius - first_bin[0]) / BIN_M)
    j0, j1 = int((y - radius - first_bin[1]) / BIN_M), int((y + radius - first_bin[1]) / BIN_M)
    k0, k1 = int((low - first_bin[2]) / BIN_HEIGHT_M), int((high - first_bin[2]) / BIN_HEIGHT_M)
    for b in bins_between(i0, i1, j0, j1, k0, k1, nx, ny, nz):
        for k in range(bins_start[b], bins_start[b + 1]):
            t = bins_of[k]
            if zs[t, 0] >= best or zs[t, 1] <= low:
                continue
            dx = max(0.0, zs[t, 2] - x, x - zs[t, 3])
            dy = max(0.0, zs[t, 4] - y, y - zs[t, 5])
            if dx * dx + dy * dy >= radius * radius:
                continue
            count = cut(triangles[t], 3, 0.0, 0.0, 1.0, low, one)
            for m in range(count):
                n = (m + 1) % count
                # The part of an edge within the disc; its lower end counts.
                ax, ay, az = one[m, 0] - x, one[m, 1] - y, one[m, 2]
                ux, uy, uz = one[n, 0] - one[m, 0], one[n, 1] - one[m, 1], one[n, 2] - one[m, 2]
                size = ux * ux + uy * uy
                away = ax * ax + ay * ay - radius * radius
                if size < 1e-18:
                    if away < 0.0 and min(az, az + uz) < best:
                        best, found = min(az, az + uz), t
                    continue
                along = ax * ux + ay * uy
                root = along * along - size * away
                if root <= 0.0:
                    continue
                first = max(0.0, (-along - np.sqrt(root)) / size)
                last = min(1.0, (-along + np.sqrt(root)) / size)
                if first < last:
                    lower = az + (first if uz > 0.0 else last) * uz
                    if lower < best:
                        best, found = lower, t
            # Inside the disc a sloping face is lowest at its rim, a level one anywhere.
            height = lowest_within(triangles[t], x, y, radius)
            if low < height < best:
                best, found = height, t
    return best, found


@numba.njit(cache=True, nogil=True)
def lowest_over(points, low, high, radius, triangles, zs, first_bin, bin_count, bins_start, bins_of):
    heights, found = np.empty(len(points)), np.empty(len(points), dtype=np.int64)
    for p in range(len(points)):
        heights[p], found[p] = lowest(
            points[p, 0], points[p, 1], low[p], high[p], radius,
            triangles, zs, first_bin, bin_count, bins_start, bins_of,
        )  # fmt: skip
    return heights, found


@numba.njit(cache=True, nogil=True)
def lowest_within(triangle, x, y, radius):
    """Height of a face at the disc's point down its slope, or above all if that is not on it."""
    a, b, c = triangle[0], triangle[1], triangle[2]
    ux, uy, uz = b[0] - a[0], b[1] - a[1], b[2] - a[2]
    vx, vy, vz = c[0] - a[0], c[1] - a[1], c[2] - a[2]
    det = ux * vy - uy * vx
    if abs(det) < 1e-12:
        return 1e30
    gx = (uz * vy - vz * uy) / det
    gy = (vz * ux - uz * vx) / det
    steep = np.sqrt(gx * gx + gy * gy)
    px = x - a[0] - (gx / steep * radius if steep > 1e-9 else 0.0)
    py = y - a[1] - (gy / steep * radius if steep > 1e-9 else 0.0)
    s, r = (px * vy - py * vx) / det, (ux * py - uy * px) / det
    if s < 0.0 or r < 0.0 or s + r > 1.0:
        return 1e30
    return a[2] + s * uz + r * vz


@numba.njit(cache=True, nogil=True)
def gather(low, high, grade, seen, stamp, near, zs, first_bin, bin_count, bins_start, bins_of):
    """Which triangles come into a box, into ``near``; how many."""
    count = 0
    nx, ny, nz = bin_count
    i0, i1 = int((low[0] - first_bin[0]) / BIN_M), int((high[0] - first_bin[0]) / BIN_M)
    j0, j1 = int((low[1] - first_bin[1]) / BIN_M), int((high[1] - first_bin[1]) / BIN_M)
    k0, k1 = int((low[2] - first_bin[2]) / BIN_HEIGHT_M), int((high[2] - first_bin[2]) / BIN_HEIGHT_M)
    for b in bins_between(i0, i1, j0, j1, k0, k1, nx, ny, nz):
        for m in range(bins_start[b], bins_start[b + 1]):
            t = bins_of[m]
            if seen[t] == stamp:
                continue
            seen[t] = stamp
            if zs[t, 1] <= low[2] or zs[t, 0] >= high[2] or zs[t, 6] <= grade:
                continue
            if zs[t, 3] < low[0] or zs[t, 2] > high[0] or zs[t, 5] < low[1] or zs[t, 4] > high[1]:
                continue
            near[count] = t
            count += 1
    return count


@numba.njit(cache=True, nogil=True)
def nearest_of(near, hint, x, y, low, high, reach, enough, climb, halves, triangles, zs, one, other, at):
    """The nearest of some triangles between two heights, and how far; the search ends below ``enough``.

    What ends below ``low`` plus its distance times ``climb`` is stepped onto, not bumped into. The
    triangle ``hint`` is tried first: what is nearest next door rules out most others.
    """
    best, found = reach * reach, -1
    for n in range(-1 if hint >= 0 else 0, len(near)):
        t = hint if n < 0 else near[n]
        if zs[t, 1] <= low or zs[t, 0] >= high:
            continue
        dx = max(0.0, zs[t, 2] - x, x - zs[t, 3])
        dy = max(0.0, zs[t, 4] - y, y - zs[t, 5])
        if dx * dx + dy * dy >= best:
            continue
        gap = gap_to(t, x, y, low, high, best, climb, halves, triangles, zs, one, other, at)
        if gap < best:
            best, found = gap, t
            if gap < enough * enough:
                break
    return np.sqrt(best), found


@numba.njit(cache=True, nogil=True)
def sides(
    points,
    order,
    lift,
    shoulder,
    height,
    reach,
    climb,
    grade,
    radius,
    spread,
    triangles,
    zs,
    first_bin,
    bin_count,
    bins_start,
    bins_of,
):
    """Room beside each point, what takes it, and which of nine places of its cell has most.

    ``order`` puts points that are near one another together: what is around them is gathered once.
    """
    count = len(points)
    room, taker = np.empty(count), np.full(count, -1, dtype=np.int64)
    at = np.full(count, 4, dtype=np.uint8)
    hopeless = max(0.0, radius - 1.5 * spread)
    everywhere = np.zeros((0, 3))
    seen, gathered = np.full(len(zs), -1, dtype=np.int64), np.empty(len(zs), dtype=np.int64)
    one, other, foot = np.empty((9, 3)), np.empty((9, 3)), np.empty(2)
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
        near = gathered[
            : gather(low, high, grade, seen, first, gathered, zs, first_bin, bin_count, bins_start, bins_of)
        ]
        hint, head = -1, -1
        for p in order[first:last]:
            x, y, z = points[p]
            if shoulder < height:
                _, found = nearest_of(
                    near, head, x, y, z + shoulder, z + height, 1.5 * spread, 1.0, 0.0, everywhere,
                    triangles, zs, one, other, foot,
                )  # fmt: skip
                if found >= 0:
                    room[p], taker[p], head = 0.0, found, found
                    continue
            gap, found = nearest_of(
                near, hint, x, y, z + lift, z + shoulder, reach, hopeless, climb, everywhere,
                triangles, zs, one, other, foot,
            )  # fmt: skip
            room[p], taker[p] = gap, found
            hint = found if found >= 0 else hint
            if gap >= radius or gap < hopeless:
                continue
            # The cell's middle is just too close to something; a little aside there may be room.
            for spot in range(9):
                sx, sy = x + (spot % 3 - 1) * spread, y + (spot // 3 - 1) * spread
                gap, found = nearest_of(
                    near, hint, sx, sy, z + lift, z + shoulder, reach, hopeless, climb, everywhere,
                    triangles, zs, one, other, foot,
                )  # fmt: skip
                if gap > room[p]:
                    room[p], at[p] = gap, spot
        first = last
    return room, taker, at


@numba.njit(cache=True, nogil=True)
def trodden(points, down, up, triangles, zs, first_bin, bin_count, bins_start, bins_of):
    """The highest upward face under each point, between so much below and above it; NaN for none; and which."""
    height, found = np.full(len(points), np.nan), np.full(len(points), -1, dtype=np.int64)
    nx, ny, nz = bin_count
    for p in range(len(points)):
        x, y, z = points[p]
        i, j = int((x - first_bin[0]) / BIN_M), int((y - first_bin[1]) / BIN_M)
        k0, k1 = int((z - down - first_bin[2]) / BIN_HEIGHT_M), int((z + up - first_bin[2]) / BIN_HEIGHT_M)
        for b in bins_between(i, i, j, j, k0, k1, nx, ny, nz):
            for m in range(bins_start[b], bins_start[b + 1]):
                t = bins_of[m]
                if zs[t, 0] > z + up or zs[t, 1] < z - down:
                    continue
                a, bb, c = triangles[t, 0], triangles[t, 1], triangles[t, 2]
                ux, uy, uz = bb[0] - a[0], bb[1] - a[1], bb[2] - a[2]
                vx, vy, vz = c[0] - a[0], c[1] - a[1], c[2] - a[2]
                det = ux * vy - uy * vx
                if det < 1e-12:
                    continue
                px, py = x - a[0], y - a[1]
                s, r = (px * vy - py * vx) / det, (ux * py - uy * px) / det
                if s < -1e-9 or r < -1e-9 or s + r > 1.0 + 1e-9:
                    continue
                h = a[2] + s * uz + r * vz
                if z - down <= h <= z + up and not h <= height[p]:
                    height[p], found[p] = h, t
    return height, found


@numba.njit(cache=True, nogil=True)
def quarter(halves, x, y, ux, uy):
    """The quarter of the plan around a direction from a point, as half-planes, into ``halves`` (2, 3)."""
    for k in range(2):
        turn = 1.0 if k == 0 else -1.0
        halves[k, 0], halves[k, 1] = ux - turn * uy, uy + turn * ux
        halves[k, 2] = halves[k, 0] * x + halves[k, 1] * y


@numba.njit(cache=True, nogil=True)
def widths(
    points,
    left,
    room,
    lift,
    shoulder,
    widest,
    limit,
    grade,
    climb,
    triangles,
    zs,
    first_bin,
    bin_count,
    bins_start,
    bins_of,
):
    """Clear width across a way at points of the floor, infinite if wider than any before and than a limit.

    The nearest thing in the quarter to one side, and from it the nearest in the quarter to the other. Nothing is
    nearer than ``room``.
    """
    width = np.full(len(points), np.inf)
    one, other = np.full(len(points), -1, dtype=np.int64), np.full(len(points), -1, dtype=np.int64)
    halves, opposite = np.empty((2, 3)), np.empty((2, 3))
    foot, across, edge = np.empty(2), np.empty(2), np.empty(2)
    where = (triangles, zs, first_bin, bin_count, bins_start, bins_of)
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
        here, a = nearest(x, y, low, high, reach, grade, climb, halves, *where, foot)
        there, b = nearest(x, y, low, high, reach, grade, climb, opposite, *where, across)
        if a < 0 or b < 0:
            continue
        if here <= there:
            size, c = nearest(foot[0], foot[1], low, high, reach, grade, climb, opposite, *where, edge)
            b = c
        else:
            size, c = nearest(across[0], across[1], low, high, reach, grade, climb, halves, *where, edge)
            a = c
        if c >= 0:
            width[p], one[p], other[p] = size, a, b
            narrowest = min(narrowest, size)
    return width, one, other
