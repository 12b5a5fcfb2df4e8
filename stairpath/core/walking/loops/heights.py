"""What lies above a point of the floor, and what one treads on under it."""

from __future__ import annotations

import numba
import numpy as np

from stairpath.core.walking.loops.bins import BIN_HEIGHT_M, BIN_M, bins_between
from stairpath.core.walking.loops.polygons import cut


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
def lowest(x, y, low, high, radius, binned):
    """The lowest height at which a triangle reaches over a disc, between two heights; and which triangle."""
    triangles, zs, first_bin, layout, bins_start, bins_of = binned
    best = high
    found = -1
    one = np.empty((9, 3))
    i0, i1 = int((x - radius - first_bin[0]) / BIN_M), int((x + radius - first_bin[0]) / BIN_M)
    j0, j1 = int((y - radius - first_bin[1]) / BIN_M), int((y + radius - first_bin[1]) / BIN_M)
    k0, k1 = int((low - first_bin[2]) / BIN_HEIGHT_M), int((high - first_bin[2]) / BIN_HEIGHT_M)
    for b in bins_between(i0, i1, j0, j1, k0, k1, layout):
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
def lowest_over(points, low, high, radius, binned):
    heights, found = np.empty(len(points)), np.empty(len(points), dtype=np.int64)
    for p in range(len(points)):
        heights[p], found[p] = lowest(points[p, 0], points[p, 1], low[p], high[p], radius, binned)
    return heights, found


@numba.njit(cache=True, nogil=True)
def trodden(points, down, up, binned):
    """The highest upward face under each point, between so much below and above it; NaN for none; and which."""
    triangles, zs, first_bin, layout, bins_start, bins_of = binned
    height, found = np.full(len(points), np.nan), np.full(len(points), -1, dtype=np.int64)
    for p in range(len(points)):
        x, y, z = points[p]
        i, j = int((x - first_bin[0]) / BIN_M), int((y - first_bin[1]) / BIN_M)
        k0, k1 = int((z - down - first_bin[2]) / BIN_HEIGHT_M), int((z + up - first_bin[2]) / BIN_HEIGHT_M)
        for b in bins_between(i, i, j, j, k0, k1, layout):
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
