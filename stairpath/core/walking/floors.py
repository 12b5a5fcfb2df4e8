"""Where there is floor: on every cell, the heights on which a foot can stand."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.walking.grid import Grid
from stairpath.core.walking.loops import crossings
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


def floors_of(solids: Solids, grid: Grid) -> Floors:
    """Every floor under the sky or a ceiling, on each cell of a grid.

    A floor is an upward face no steeper than 45 degrees at the cell's middle, with 0.6 m above it, that
    lies in no closed body. A joint narrower than a cell between level floors is bridged.
    """
    corner = (grid.corner_m[0] + _NUDGE[0], grid.corner_m[1] + _NUDGE[1])
    raster = grid.raster._replace(x0=corner[0], y0=corner[1])
    crossed = crossings.Crossed(*crossings.crossings(np.ascontiguousarray(solids.triangles), solids.component, raster))
    start, heights, slopes, _, whose = crossed
    keep, above = crossings.standing(crossed, STEEPEST, LEAST_ROOM_M, SAME_FLOOR_M, _TOUCHING_M)
    cell = np.repeat(np.arange(grid.cells), np.diff(start))[keep]
    height, slope, component, free = heights[keep], slopes[keep], whose[keep], above[keep]
    begin = np.concatenate([[0], np.cumsum(np.bincount(cell, minlength=grid.cells))]).astype(np.int64)
    more, source = crossings.bridges(begin, height, grid.nx, grid.ny, _LEVEL_M)
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
