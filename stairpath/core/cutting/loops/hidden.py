"""Which parts of lines are seen past the triangles above them."""

from __future__ import annotations

import numba
import numpy as np

NEARER_M = 1e-3
"""A triangle hides what lies so much farther away: the faces that an edge is of do not hide it."""
_LEAST = 1e-9
_MOST_HIDDEN = 4096


@numba.njit(cache=True, nogil=True)
def bins_of(triangles, low, size, nx, ny):
    """Triangles (n, 3, 3) by the squares of the plan that their boxes touch: where each begins, and which they are."""
    start = np.zeros(nx * ny + 1, dtype=np.int64)
    reach = np.empty((len(triangles), 4), dtype=np.int64)
    for t in range(len(triangles)):
        c = triangles[t]
        reach[t, 0] = int((min(c[0, 0], c[1, 0], c[2, 0]) - low[0]) / size)
        reach[t, 1] = int((max(c[0, 0], c[1, 0], c[2, 0]) - low[0]) / size)
        reach[t, 2] = int((min(c[0, 1], c[1, 1], c[2, 1]) - low[1]) / size)
        reach[t, 3] = int((max(c[0, 1], c[1, 1], c[2, 1]) - low[1]) / size)
        for j in range(reach[t, 2], reach[t, 3] + 1):
            for i in range(reach[t, 0], reach[t, 1] + 1):
                start[j * nx + i + 1] += 1
    for b in range(nx * ny):
        start[b + 1] += start[b]
    at = start[:-1].copy()
    of = np.empty(start[nx * ny], dtype=np.int64)
    for t in range(len(triangles)):
        for j in range(reach[t, 2], reach[t, 3] + 1):
            for i in range(reach[t, 0], reach[t, 1] + 1):
                of[at[j * nx + i]] = t
                at[j * nx + i] += 1
    return start, of


@numba.njit(cache=True, nogil=True)
def _behind(line, t, out):
    """The share of a line (2, 3), from and to in ``out``, that a triangle (3, 3) hides; whether it hides any."""
    px, py = line[0, 0], line[0, 1]
    dx, dy = line[1, 0] - px, line[1, 1] - py
    turn = (t[1, 0] - t[0, 0]) * (t[2, 1] - t[0, 1]) - (t[1, 1] - t[0, 1]) * (t[2, 0] - t[0, 0])
    if abs(turn) < 1e-12:
        return False
    sign = 1.0 if turn > 0.0 else -1.0
    begin, end = 0.0, 1.0
    for k in range(3):
        ax, ay = t[k, 0], t[k, 1]
        ex, ey = t[(k + 1) % 3, 0] - ax, t[(k + 1) % 3, 1] - ay
        at = sign * (ex * (py - ay) - ey * (px - ax))
        slope = sign * (ex * dy - ey * dx)
        if abs(slope) < 1e-15:
            if at < 0.0:
                return False
            continue
        share = -at / slope
        if slope > 0.0:
            begin = max(begin, share)
        else:
            end = min(end, share)
        if end - begin < _LEAST:
            return False
    # The triangle's plane over the line, less the line's own height.
    ux, uy, uz = t[1, 0] - t[0, 0], t[1, 1] - t[0, 1], t[1, 2] - t[0, 2]
    vx, vy, vz = t[2, 0] - t[0, 0], t[2, 1] - t[0, 1], t[2, 2] - t[0, 2]
    nx, ny, nz = uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx
    dz = line[1, 2] - line[0, 2]
    over0 = t[0, 2] - (nx * (px - t[0, 0]) + ny * (py - t[0, 1])) / nz - line[0, 2] - NEARER_M
    slope = -(nx * dx + ny * dy) / nz - dz
    f0, f1 = over0 + slope * begin, over0 + slope * end
    if f0 <= 0.0 and f1 <= 0.0:
        return False
    if f0 < 0.0:
        begin = -over0 / slope
    elif f1 < 0.0:
        end = -over0 / slope
    out[0], out[1] = begin, end
    return end - begin > _LEAST


@numba.njit(cache=True, nogil=True)
def seen(lines, triangles, low, size, nx, ny, start, of):
    """The parts (k, 2, 3) of lines (n, 2, 3) that no triangle hides from above, and of which line each is."""
    parts = np.empty((max(16, 2 * len(lines)), 2, 3))
    whose = np.empty(len(parts), dtype=np.int64)
    count = 0
    stamp = np.full(len(triangles), -1, dtype=np.int64)
    hidden = np.empty((_MOST_HIDDEN, 2))
    out = np.empty(2)
    for n in range(len(lines)):
        line = lines[n]
        i0 = max(0, min(nx - 1, int((min(line[0, 0], line[1, 0]) - low[0]) / size)))
        i1 = max(0, min(nx - 1, int((max(line[0, 0], line[1, 0]) - low[0]) / size)))
        j0 = max(0, min(ny - 1, int((min(line[0, 1], line[1, 1]) - low[1]) / size)))
        j1 = max(0, min(ny - 1, int((max(line[0, 1], line[1, 1]) - low[1]) / size)))
        bottom = min(line[0, 2], line[1, 2])
        many = 0
        for j in range(j0, j1 + 1):
            for i in range(i0, i1 + 1):
                for m in range(start[j * nx + i], start[j * nx + i + 1]):
                    k = of[m]
                    if stamp[k] == n or many == _MOST_HIDDEN:
                        continue
                    stamp[k] = n
                    t = triangles[k]
                    if max(t[0, 2], t[1, 2], t[2, 2]) <= bottom + NEARER_M:
                        continue
                    if _behind(line, t, out):
                        hidden[many, 0], hidden[many, 1] = out[0], out[1]
                        many += 1
        order = np.argsort(hidden[:many, 0])
        reached = 0.0
        for m in range(many + 1):
            begin = hidden[order[m], 0] if m < many else 1.0
            if begin - reached > 1e-6:
                if count == len(parts):
                    grown = np.empty((2 * len(parts), 2, 3))
                    grown[:count] = parts[:count]
                    parts = grown
                    more = np.empty(len(grown), dtype=np.int64)
                    more[:count] = whose[:count]
                    whose = more
                for axis in range(3):
                    step = line[1, axis] - line[0, axis]
                    parts[count, 0, axis] = line[0, axis] + reached * step
                    parts[count, 1, axis] = line[0, axis] + begin * step
                whose[count] = n
                count += 1
            if m < many:
                reached = max(reached, hidden[order[m], 1])
            if reached >= 1.0:
                break
    return parts[:count], whose[:count]
