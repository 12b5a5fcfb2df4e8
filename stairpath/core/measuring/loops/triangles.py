"""How far two triangles are apart, and where. Numbers one by one: small arrays would be made anew for each pair."""

from __future__ import annotations

import numba
import numpy as np

_FLAT = 1e-24


@numba.njit(cache=True, nogil=True)
def _within(value):
    return min(1.0, max(0.0, value))


@numba.njit(cache=True, nogil=True)
def onto_triangle(px, py, pz, t, at):
    """Distance squared from a point to a triangle (3, 3); its nearest point goes into ``at``.

    Ericson, Real-Time Collision Detection (2005), 5.1.5: by the region of the triangle's plane that the point is over.
    """
    ax, ay, az = t[0, 0], t[0, 1], t[0, 2]
    bx, by, bz = t[1, 0] - ax, t[1, 1] - ay, t[1, 2] - az
    cx, cy, cz = t[2, 0] - ax, t[2, 1] - ay, t[2, 2] - az
    x, y, z = px - ax, py - ay, pz - az
    d1, d2 = bx * x + by * y + bz * z, cx * x + cy * y + cz * z
    bb, bc, cc = bx * bx + by * by + bz * bz, bx * cx + by * cy + bz * cz, cx * cx + cy * cy + cz * cz
    d3, d4 = d1 - bb, d2 - bc
    d5, d6 = d1 - bc, d2 - cc
    vc, vb, va = d1 * d4 - d3 * d2, d5 * d2 - d1 * d6, d3 * d6 - d5 * d4
    u, v = 0.0, 0.0
    if d1 <= 0.0 and d2 <= 0.0:
        pass
    elif d3 >= 0.0 and d4 <= d3:
        u = 1.0
    elif vc <= 0.0 and d1 >= 0.0 and d3 <= 0.0 and d1 > d3:
        u = d1 / (d1 - d3)
    elif d6 >= 0.0 and d5 <= d6:
        v = 1.0
    elif vb <= 0.0 and d2 >= 0.0 and d6 <= 0.0 and d2 > d6:
        v = d2 / (d2 - d6)
    elif va <= 0.0 and d4 >= d3 and d5 >= d6 and (d4 - d3) + (d5 - d6) > 0.0:
        v = (d4 - d3) / ((d4 - d3) + (d5 - d6))
        u = 1.0 - v
    elif va + vb + vc > 0.0:
        u, v = vb / (va + vb + vc), vc / (va + vb + vc)
    at[0], at[1], at[2] = ax + u * bx + v * cx, ay + u * by + v * cy, az + u * bz + v * cz
    return (px - at[0]) ** 2 + (py - at[1]) ** 2 + (pz - at[2]) ** 2


@numba.njit(cache=True, nogil=True)
def between_edges(a, i, j, b, k, m, at, there):
    """Distance squared between an edge of each of two triangles, by their corners' numbers.

    The nearest points go into ``at`` and ``there``. Ericson, 5.1.9.
    """
    px, py, pz = a[i, 0], a[i, 1], a[i, 2]
    rx, ry, rz = b[k, 0], b[k, 1], b[k, 2]
    dx, dy, dz = a[j, 0] - px, a[j, 1] - py, a[j, 2] - pz
    ex, ey, ez = b[m, 0] - rx, b[m, 1] - ry, b[m, 2] - rz
    wx, wy, wz = px - rx, py - ry, pz - rz
    one, other = dx * dx + dy * dy + dz * dz, ex * ex + ey * ey + ez * ez
    f, c, both = ex * wx + ey * wy + ez * wz, dx * wx + dy * wy + dz * wz, dx * ex + dy * ey + dz * ez
    u, v = 0.0, 0.0
    if one <= _FLAT:
        v = _within(f / other) if other > _FLAT else 0.0
    elif other <= _FLAT:
        u = _within(-c / one)
    else:
        slope = one * other - both * both
        if slope > 1e-14 * one * other:
            u = _within((both * f - c * other) / slope)
        v = (both * u + f) / other
        if v < 0.0:
            v, u = 0.0, _within(-c / one)
        elif v > 1.0:
            v, u = 1.0, _within((both - c) / one)
    at[0], at[1], at[2] = px + u * dx, py + u * dy, pz + u * dz
    there[0], there[1], there[2] = rx + v * ex, ry + v * ey, rz + v * ez
    return (at[0] - there[0]) ** 2 + (at[1] - there[1]) ** 2 + (at[2] - there[2]) ** 2


@numba.njit(cache=True, nogil=True)
def pierces(a, i, j, t, margin, at):
    """Whether the edge from corner ``i`` to ``j`` of one triangle goes through another; the point goes into ``at``.

    With a margin above zero what only touches, by an end or at a side, does not count. Moller and Trumbore (1997), on a
    segment.
    """
    px, py, pz = a[i, 0], a[i, 1], a[i, 2]
    dx, dy, dz = a[j, 0] - px, a[j, 1] - py, a[j, 2] - pz
    bx, by, bz = t[1, 0] - t[0, 0], t[1, 1] - t[0, 1], t[1, 2] - t[0, 2]
    cx, cy, cz = t[2, 0] - t[0, 0], t[2, 1] - t[0, 1], t[2, 2] - t[0, 2]
    hx, hy, hz = dy * cz - dz * cy, dz * cx - dx * cz, dx * cy - dy * cx
    det = bx * hx + by * hy + bz * hz
    size = (bx * bx + by * by + bz * bz) * (cx * cx + cy * cy + cz * cz) * (dx * dx + dy * dy + dz * dz)
    if det * det <= 1e-24 * size or size == 0.0:
        return False
    wx, wy, wz = px - t[0, 0], py - t[0, 1], pz - t[0, 2]
    u = (wx * hx + wy * hy + wz * hz) / det
    if u < margin or u > 1.0 - margin:
        return False
    gx, gy, gz = wy * bz - wz * by, wz * bx - wx * bz, wx * by - wy * bx
    v = (dx * gx + dy * gy + dz * gz) / det
    if v < margin or u + v > 1.0 - margin:
        return False
    share = (cx * gx + cy * gy + cz * gz) / det
    if share < margin or share > 1.0 - margin:
        return False
    at[0], at[1], at[2] = px + share * dx, py + share * dy, pz + share * dz
    return True


@numba.njit(cache=True, nogil=True)
def _copy(source, target):
    target[0], target[1], target[2] = source[0], source[1], source[2]


@numba.njit(cache=True, nogil=True)
def boxes_of_triangles_apart(a, b):
    """The distance squared between the boxes around two triangles (3, 3)."""
    total = 0.0
    for k in range(3):
        low_a, high_a = min(a[0, k], a[1, k], a[2, k]), max(a[0, k], a[1, k], a[2, k])
        low_b, high_b = min(b[0, k], b[1, k], b[2, k]), max(b[0, k], b[1, k], b[2, k])
        gap = max(0.0, low_a - high_b, low_b - high_a)
        total += gap * gap
    return total


@numba.njit(cache=True, nogil=True)
def between(a, b, at, there, one, other):
    """Distance squared between two triangles (3, 3); their nearest points go into ``at`` and ``there``.

    ``one`` and ``other`` are room for points on the way.
    """
    best = np.inf
    for i in range(3):
        for k in range(3):
            gap = between_edges(a, i, (i + 1) % 3, b, k, (k + 1) % 3, one, other)
            if gap < best:
                best = gap
                _copy(one, at)
                _copy(other, there)
    for i in range(3):
        gap = onto_triangle(a[i, 0], a[i, 1], a[i, 2], b, one)
        if gap < best:
            best = gap
            _copy(a[i], at)
            _copy(one, there)
        gap = onto_triangle(b[i, 0], b[i, 1], b[i, 2], a, one)
        if gap < best:
            best = gap
            _copy(one, at)
            _copy(b[i], there)
    if best > 0.0 and boxes_of_triangles_apart(a, b) == 0.0:
        for i in range(3):
            if pierces(a, i, (i + 1) % 3, b, 0.0, one) or pierces(b, i, (i + 1) % 3, a, 0.0, one):
                _copy(one, at)
                _copy(one, there)
                return 0.0
    return best
