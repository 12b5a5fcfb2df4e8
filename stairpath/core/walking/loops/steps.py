"""Which floors a step joins."""

from __future__ import annotations

from typing import NamedTuple

import numba
import numpy as np
import numpy.typing as npt


class Raster(NamedTuple):
    """Cells of a size from a corner on, so many along x and y."""

    cell_m: float
    x0: float
    y0: float
    nx: int
    ny: int


class Surface(NamedTuple):
    """Floors (n,): where those of each cell begin, how high they lie, how steep they are, and where a body fits."""

    start: npt.NDArray[np.int64]
    heights: npt.NDArray[np.float64]
    slopes: npt.NDArray[np.float64]
    fits: npt.NDArray[np.bool_]


class Stride(NamedTuple):
    """How far up and down a body steps, and from what height on an edge is a riser."""

    up: float
    down: float
    riser: float


@numba.njit(cache=True, nogil=True)
def onto(here, cell, away, surface, stride):
    """The floor of a cell that a step from another leads onto, ``away`` metres on plan; -1 for none."""
    start, heights, slopes, fits = surface
    best, best_gap = -1, 1e9
    for m in range(start[cell], start[cell + 1]):
        if not fits[m]:
            continue
        rise = heights[m] - heights[here]
        slant = min(max(slopes[here], slopes[m]) * away + 1e-3, 0.3)
        # Along a slope the rise that the slope itself makes is no step.
        if rise > stride.up + slant or -rise > stride.down + slant:
            continue
        if abs(rise) < best_gap:
            best, best_gap = m, abs(rise)
    return best


@numba.njit(cache=True, nogil=True)
def steps(cells, surface, raster, stride, ways):
    """Which floor of the neighbour along each way is entered; a step that cannot be taken back is none."""
    start, heights, slopes, fits = surface
    nx, ny, cell_m = raster.nx, raster.ny, raster.cell_m
    out = np.full((len(cells), 8), 255, dtype=np.uint8)
    for here in range(len(cells)):
        if not fits[here]:
            continue
        i, j = cells[here] % nx, cells[here] // nx
        for w in range(8):
            x, y = i + ways[w, 0], j + ways[w, 1]
            if 0 <= x < nx and 0 <= y < ny:
                away = cell_m * np.sqrt(ways[w, 0] ** 2 + ways[w, 1] ** 2)
                to = onto(here, y * nx + x, away, surface, stride)
                if to < 0 or to - start[y * nx + x] >= 63:
                    continue
                if onto(to, cells[here], away, surface, stride) != here:
                    continue
                slant = max(slopes[here], slopes[to]) * away + 1e-3
                out[here, w] = to - start[y * nx + x]
                if abs(heights[to] - heights[here]) > stride.riser + slant:
                    out[here, w] += 64
    return out


@numba.njit(cache=True, nogil=True)
def links(steps, start, cell, nx, ways):
    """Both ends of the steps towards the first four ways; every step can be taken back."""
    count = 0
    for here in range(len(steps)):
        for w in range(4):
            count += steps[here, w] != 255
    source, to = np.empty(count, dtype=np.int32), np.empty(count, dtype=np.int32)
    k = 0
    for here in range(len(steps)):
        for w in range(4):
            if steps[here, w] != 255:
                source[k] = here
                to[k] = start[cell[here] + ways[w, 1] * nx + ways[w, 0]] + (steps[here, w] & 63)
                k += 1
    return source, to


@numba.njit(cache=True, nogil=True)
def follow(points, floor, raster, start, heights, at):
    """The floor of each point's cell that is nearest in height to the one before; that one again if there is none."""
    cell_m, x0, y0, nx, ny = raster
    out = np.empty(len(points), dtype=np.int64)
    for p in range(len(points)):
        i, j = int(np.floor((points[p, 0] - x0) / cell_m)), int(np.floor((points[p, 1] - y0) / cell_m))
        best, gap = floor, 1e9
        if 0 <= i < nx and 0 <= j < ny:
            for m in range(start[j * nx + i], start[j * nx + i + 1]):
                away = abs(heights[m] - heights[floor]) + (0.0 if at[m] & 128 else 0.1)
                if away < gap and away < 1.0:
                    best, gap = m, away
        out[p] = best
        floor = best
    return out


@numba.njit(cache=True, nogil=True)
def without(steps, barred, start, cell, nx, ways):
    """The steps that neither leave nor enter a barred floor."""
    out = np.full_like(steps, 255)
    for here in range(len(steps)):
        if barred[here]:
            continue
        for w in range(8):
            if steps[here, w] != 255:
                to = start[cell[here] + ways[w, 1] * nx + ways[w, 0]] + (steps[here, w] & 63)
                if not barred[to]:
                    out[here, w] = steps[here, w]
    return out
