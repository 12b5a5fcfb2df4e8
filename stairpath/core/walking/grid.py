"""The cells of a walk map on plan."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.walking.loops.steps import Raster

Array = npt.NDArray[np.float64]

CELL_M = 0.1
WAYS = ((1, 0), (1, 1), (0, 1), (-1, 1), (-1, 0), (-1, -1), (0, -1), (1, -1))
"""The eight neighbours of a cell, counter-clockwise from +X."""


@dataclass(frozen=True)
class Grid:
    """Square cells along +X and +Y; cell ``(ix, iy)`` is number ``iy * nx + ix``.

    The first one is ``first`` cells from the axes' origin, so that a place has the same cell in every grid.

    >>> Grid(0.1, (10, 0), 5, 5).cell_at(1.23, 0.11)
    7
    """

    cell_m: float
    first: tuple[int, int]
    nx: int
    ny: int

    def __post_init__(self) -> None:
        if not 0.02 <= self.cell_m <= 0.5:
            raise ValueError(f"A cell of {self.cell_m:g} m does not do; give 0.02 to 0.5 m.")

    @property
    def cells(self) -> int:
        """How many cells there are."""
        return self.nx * self.ny

    @property
    def corner_m(self) -> tuple[float, float]:
        """Where the first cell begins."""
        return self.first[0] * self.cell_m, self.first[1] * self.cell_m

    @property
    def raster(self) -> Raster:
        """The same for compiled loops."""
        return Raster(self.cell_m, *self.corner_m, self.nx, self.ny)

    def cell_at(self, x_m: float, y_m: float) -> int:
        """The number of the cell that a point lies in, or -1 outside."""
        ix = math.floor(x_m / self.cell_m) - self.first[0]
        iy = math.floor(y_m / self.cell_m) - self.first[1]
        return iy * self.nx + ix if 0 <= ix < self.nx and 0 <= iy < self.ny else -1

    def centres(self, cells: npt.NDArray[np.int64]) -> Array:
        """Middles (n, 2) of cells, metres."""
        return np.column_stack(
            [
                (self.first[0] + cells % self.nx + 0.5) * self.cell_m,
                (self.first[1] + cells // self.nx + 0.5) * self.cell_m,
            ]
        )
