"""Whether points are seen from an eye past triangles."""

from __future__ import annotations

import numba

_SAME = 1e-4
_FLAT = 1e-12


@numba.njit(cache=True, nogil=True)
def _blocks(e, wx, wy, wz, t, low, high, boxed):
    """Whether a triangle (3, 3) is met on a way from an eye, before its end. T. Möller and B. Trumbore (1997)."""
    ax, ay, az = t[1, 0] - t[0, 0], t[1, 1] - t[0, 1], t[1, 2] - t[0, 2]
    bx, by, bz = t[2, 0] - t[0, 0], t[2, 1] - t[0, 1], t[2, 2] - t[0, 2]
    px, py, pz = wy * bz - wz * by, wz * bx - wx * bz, wx * by - wy * bx
    size = ax * px + ay * py + az * pz
    if abs(size) < _FLAT:
        return False
    fx, fy, fz = e[0] - t[0, 0], e[1] - t[0, 1], e[2] - t[0, 2]
    u = (fx * px + fy * py + fz * pz) / size
    if u < 0.0 or u > 1.0:
        return False
    qx, qy, qz = fy * az - fz * ay, fz * ax - fx * az, fx * ay - fy * ax
    v = (wx * qx + wy * qy + wz * qz) / size
    if v < 0.0 or u + v > 1.0:
        return False
    way = (bx * qx + by * qy + bz * qz) / size
    if way <= _SAME or way >= 1.0 - _SAME:
        return False
    if not boxed:
        return True
    x, y, z = e[0] + way * wx, e[1] + way * wy, e[2] + way * wz
    return low[0] <= x <= high[0] and low[1] <= y <= high[1] and low[2] <= z <= high[2]


@numba.njit(cache=True, nogil=True)
def seen(eye, points, triangles, low, high, boxed):
    """How many of some points (k, 3) are seen from an eye past triangles (n, 3, 3); where boxed, past those in a box alone."""
    count = 0
    for k in range(len(points)):
        wx, wy, wz = points[k, 0] - eye[0], points[k, 1] - eye[1], points[k, 2] - eye[2]
        free = True
        for n in range(len(triangles)):
            if _blocks(eye, wx, wy, wz, triangles[n], low, high, boxed):
                free = False
                break
        if free:
            count += 1
    return count
