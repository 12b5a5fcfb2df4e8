"""Where there is floor: on every cell, the heights on which a foot can stand."""

from __future__ import annotations

from dataclasses import dataclass

import numba
import numpy as np
import numpy.typing as npt

from stairpath.core.walking.grid import Grid
from stairpath.core.walking.solids import Solids

Ints = npt.NDArray[np.int64]

STEEPEST = 1.0
"""Rise over run of a surface above which nobody stands on it."""
LEAST_ROOM_M = 0.6
"""What has less above it is no floor for anybody."""
SAME_FLOOR_M = 0.05
"""Surfaces closer above one another than this are one floor, and the upper one is it."""
_TOUCHING_M = 0.01
_NUDGE = (1.37e-5, 2.11e-5)
"""Middles of cells are moved by so many metres, so that none lies on an edge of a building in order."""
_LEVEL_M = 0.02


@dataclass(frozen=True)
class Floors:
    """The floors of every cell of a grid, the lowest first.

    The floors of cell ``c`` are ``start[c]`` up to ``start[c + 1]`` of ``height_m`` (n,), of
    ``slope`` (n,), rise over run of the surface, of ``component`` (n,), whose it is, and of
    ``above_m`` (n,), what is free above the cell's middle, infinite under the sky; ``cell`` (n,)
    is the way back.
    """

    grid: Grid
    start: Ints
    cell: Ints
    height_m: npt.NDArray[np.float64]
    slope: npt.NDArray[np.float64]
    component: npt.NDArray[np.int32]
    above_m: npt.NDArray[np.float64]

    def __len__(self) -> int:
        return len(self.height_m)


@numba.njit(cache=True, nogil=True)  # type: ignore[untyped-decorator]
def _crossings(triangles, component, x0, y0, cell_m, nx, ny):  # type: ignore[no-untyped-def]
    """Where the vertical through each cell's middle goes through a triangle, sorted by cell, then by height."""
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


@numba.njit(cache=True, nogil=True)  # type: ignore[untyped-decorator]
def _standing(start, heights, slopes, ups, whose, steepest, least_room, same, touching):  # type: ignore[no-untyped-def]
    """Which crossings are floors: upward faces that lie in no closed body and have room above them."""
    keep = np.zeros(len(heights), dtype=np.bool_)
    above = np.full(len(heights), np.inf)
    for cell in range(len(start) - 1):
        first, last = start[cell], start[cell + 1]
        last_kept = -1
        for k in range(first, last):
            if ups[k] < 0 or slopes[k] > steepest:
                continue
            top = heights[k] + touching
            for m in range(k + 1, last):
                if heights[m] > top and ups[m] < 0:
                    above[k] = heights[m] - heights[k]
                    break
            if above[k] < least_room:
                continue
            # A body counts here if the vertical leaves it as often as it enters it.
            buried = False
            for m in range(first, last):
                if heights[m] > top:
                    break
                if ups[m] > 0:
                    continue
                net, here = 0, 0
                for n in range(first, last):
                    if whose[n] == whose[m]:
                        net += ups[n]
                        if heights[n] <= top:
                            here += ups[n]
                if net == 0 and here < 0:
                    buried = True
                    break
            if buried:
                continue
            if last_kept >= 0 and heights[k] - heights[last_kept] < same:
                keep[last_kept] = False
            keep[k] = True
            last_kept = k
    return keep, above


@numba.njit(cache=True, nogil=True)  # type: ignore[untyped-decorator]
def _bridges(start, heights, nx, ny, level):  # type: ignore[no-untyped-def]
    """Floors between two that are level with one another, over a joint narrower than a cell: cell and where from."""
    cells, froms = [], []
    ways = ((1, 0), (0, 1), (1, 1), (1, -1))
    for j in range(1, ny - 1):
        for i in range(1, nx - 1):
            cell = j * nx + i
            for di, dj in ways:
                one, other = cell - dj * nx - di, cell + dj * nx + di
                for k in range(start[one], start[one + 1]):
                    for m in range(start[other], start[other + 1]):
                        if abs(heights[k] - heights[m]) > level:
                            continue
                        there = False
                        for n in range(start[cell], start[cell + 1]):
                            if abs(heights[n] - heights[k]) < 0.3:
                                there = True
                        for n in range(len(cells) - 1, -1, -1):
                            if cells[n] != cell:
                                break
                            if abs(heights[froms[n]] - heights[k]) < 0.3:
                                there = True
                        if not there:
                            cells.append(cell)
                            froms.append(k)
    return np.array(cells, dtype=np.int64), np.array(froms, dtype=np.int64)


def floors_of(solids: Solids, grid: Grid) -> Floors:
    """Every floor under the sky or a ceiling, on each cell of a grid.

    A floor is an upward face no steeper than 45 degrees at the cell's middle, with 0.6 m above it, that
    lies in no closed body. A joint narrower than a cell between level floors is bridged.
    """
    corner = (grid.corner_m[0] + _NUDGE[0], grid.corner_m[1] + _NUDGE[1])
    start, heights, slopes, ups, whose = _crossings(
        np.ascontiguousarray(solids.triangles), solids.component, *corner, grid.cell_m, grid.nx, grid.ny
    )
    keep, above = _standing(start, heights, slopes, ups, whose, STEEPEST, LEAST_ROOM_M, SAME_FLOOR_M, _TOUCHING_M)
    cell = np.repeat(np.arange(grid.cells), np.diff(start))[keep]
    height, slope, component, free = heights[keep], slopes[keep], whose[keep], above[keep]
    begin = np.concatenate([[0], np.cumsum(np.bincount(cell, minlength=grid.cells))]).astype(np.int64)
    more, source = _bridges(begin, height, grid.nx, grid.ny, _LEVEL_M)
    if len(more):
        cell = np.concatenate([cell, more])
        height = np.concatenate([height, height[source]])
        order = np.lexsort((height, cell))
        slope = np.concatenate([slope, slope[source]])[order]
        component = np.concatenate([component, component[source]])[order]
        free = np.concatenate([free, free[source]])[order]
        cell, height = cell[order], height[order]
        begin = np.concatenate([[0], np.cumsum(np.bincount(cell, minlength=grid.cells))]).astype(np.int64)
    return Floors(grid, begin, cell.astype(np.int64), height, slope, component, free)
