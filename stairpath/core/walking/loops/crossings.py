"""Where verticals through the middles of cells go through triangles, and which of the crossings are floors."""

from __future__ import annotations

from typing import NamedTuple

import numba
import numpy as np
import numpy.typing as npt


class Crossed(NamedTuple):
    """What verticals go through: where those of each cell begin, how high, how steep, upwards or not, and whose."""

    start: npt.NDArray[np.int64]
    heights: npt.NDArray[np.float64]
    slopes: npt.NDArray[np.float64]
    ups: npt.NDArray[np.int8]
    whose: npt.NDArray[np.int32]


@numba.njit(cache=True, nogil=True)
def crossings(triangles, component, raster):
    """Where the vertical through each cell's middle goes through a triangle, sorted by cell, then by height."""
    cell_m, x0, y0, nx, ny = raster
    count = np.zeros(nx * ny + 1, dtype=np.int64)
    heights = np.zeros(0)
    slopes = np.zeros(0)
    ups = np.zeros(0, dtype=np.int8)
    whose = np.zeros(0, dtype=np.int32)
    place = np.zeros(0, dtype=np.int64)
    for fill in range(2):
        if fill:
            count[1:] = np.cumsum(count[:-1])
            count[0] = 0
            total = count[-1]
            heights, slopes = np.empty(total), np.empty(total)
            ups, whose = np.empty(total, dtype=np.int8), np.empty(total, dtype=np.int32)
            place = count[:-1].copy()
        for t in range(len(triangles)):
            a, b, c = triangles[t, 0], triangles[t, 1], triangles[t, 2]
            ux, uy, uz = b[0] - a[0], b[1] - a[1], b[2] - a[2]
            vx, vy, vz = c[0] - a[0], c[1] - a[1], c[2] - a[2]
            px, py, pz = uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx
            size = np.sqrt(px * px + py * py + pz * pz)
            if size == 0.0 or abs(pz) < 1e-3 * size:
                continue
            low_x, high_x = min(a[0], b[0], c[0]), max(a[0], b[0], c[0])
            low_y, high_y = min(a[1], b[1], c[1]), max(a[1], b[1], c[1])
            i0 = max(0, int(np.ceil((low_x - x0) / cell_m - 0.5)))
            i1 = min(nx - 1, int(np.floor((high_x - x0) / cell_m - 0.5)))
            j0 = max(0, int(np.ceil((low_y - y0) / cell_m - 0.5)))
            j1 = min(ny - 1, int(np.floor((high_y - y0) / cell_m - 0.5)))
            for j in range(j0, j1 + 1):
                y = y0 + (j + 0.5) * cell_m - a[1]
                for i in range(i0, i1 + 1):
                    x = x0 + (i + 0.5) * cell_m - a[0]
                    s = (x * vy - y * vx) / pz
                    r = (ux * y - uy * x) / pz
                    if s < 0.0 or r < 0.0 or s + r > 1.0:
                        continue
                    at = j * nx + i
                    if fill:
                        k = place[at]
                        place[at] += 1
                        heights[k] = a[2] + s * uz + r * vz
                        slopes[k] = np.sqrt(px * px + py * py) / abs(pz)
                        ups[k] = 1 if pz > 0 else -1
                        whose[k] = component[t]
                    else:
                        count[at] += 1
    for at in range(nx * ny):
        for k in range(count[at] + 1, count[at + 1]):
            h, s, u, w = heights[k], slopes[k], ups[k], whose[k]
            m = k
            while m > count[at] and heights[m - 1] > h:
                heights[m], slopes[m], ups[m], whose[m] = heights[m - 1], slopes[m - 1], ups[m - 1], whose[m - 1]
                m -= 1
            heights[m], slopes[m], ups[m], whose[m] = h, s, u, w
    return count, heights, slopes, ups, whose


@numba.njit(cache=True, nogil=True)
def standing(crossed, steepest, least_room, same, touching):
    """Which crossings are floors: upward faces that lie in no closed body and have room above them."""
    start, heights, slopes, ups, whose = crossed
    keep = np.zeros(len(heights), dtype=np.bool_)
    above = np.full(len(heights), np.inf)
    owners, net, depth = np.empty(256, dtype=np.int32), np.empty(256, dtype=np.int64), np.empty(256, dtype=np.int64)
    for cell in range(len(start) - 1):
        first, last = start[cell], start[cell + 1]
        # A component counts as a body here if the vertical leaves it as often as it enters it.
        bodies = 0
        for m in range(first, last):
            n = 0
            while n < bodies and owners[n] != whose[m]:
                n += 1
            if n == bodies:
                if bodies == len(owners):
                    break
                owners[n], net[n], depth[n] = whose[m], 0, 0
                bodies += 1
            net[n] += ups[m]
        last_kept = -1
        passed = first
        for k in range(first, last):
            if ups[k] < 0 or slopes[k] > steepest:
                continue
            top = heights[k] + touching
            while passed < last and heights[passed] <= top:
                for n in range(bodies):
                    if owners[n] == whose[passed]:
                        depth[n] += ups[passed]
                        break
                passed += 1
            for m in range(k + 1, last):
                if heights[m] > top and ups[m] < 0:
                    above[k] = heights[m] - heights[k]
                    break
            if above[k] < least_room:
                continue
            buried = False
            for n in range(bodies):
                buried |= net[n] == 0 and depth[n] < 0
            if buried:
                continue
            if last_kept >= 0 and heights[k] - heights[last_kept] < same:
                keep[last_kept] = False
            keep[k] = True
            last_kept = k
    return keep, above


@numba.njit(cache=True, nogil=True)
def bridges(start, heights, nx, ny, level):
    """Floors between two that are level with one another, over a joint narrower than a cell: cell and where from."""
    cells, froms = [], []
    ways = ((1, 0), (0, 1), (1, 1), (1, -1))
    for j in range(1, ny - 1):
        for i in range(1, nx - 1):
            cell = j * nx + i
            for di, dj in ways:
                one, other = cell - dj * nx - di, cell + dj * nx + di
                for k in range(start[one], start[one + 1]):
                    there = False
                    for n in range(start[cell], start[cell + 1]):
                        there |= abs(heights[n] - heights[k]) < 0.3
                    for n in range(len(cells) - 1, -1, -1):
                        if there or cells[n] != cell:
                            break
                        there |= abs(heights[froms[n]] - heights[k]) < 0.3
                    if there:
                        continue
                    for m in range(start[other], start[other + 1]):
                        if abs(heights[k] - heights[m]) <= level:
                            cells.append(cell)
                            froms.append(k)
                            break
    return np.array(cells, dtype=np.int64), np.array(froms, dtype=np.int64)
