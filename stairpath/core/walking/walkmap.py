"""The walk map: where a body can stand, and where it gets from there in one step."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import connected_components

from stairpath.core.geometry.axes import Axes
from stairpath.core.walking.bodies import Body
from stairpath.core.walking.clearance import Space
from stairpath.core.walking.grid import CELL_M, WAYS, Grid
from stairpath.core.walking.loops.steps import follow, links, without
from stairpath.core.walking.solids import Solids
from stairpath.core.walking.tile import FITS_BIT, NO_STEP, RISER_BIT, Tile, all_tiles, side

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]

NOWHERE = -1
MIDDLE = 4


@dataclass(frozen=True)
class WalkMap:
    """Where one body can walk; the tiles of a building as one.

    The floors of cell ``c`` are ``start[c]`` up to ``start[c + 1]``, the lowest first; the other columns
    are those of a Tile, with ``owner`` and ``taker`` as components of the federation.
    """

    body: Body
    axes: Axes
    grid: Grid
    start: npt.NDArray[np.int32]
    cell: npt.NDArray[np.int32]
    height_m: npt.NDArray[np.float32]
    clear_cm: npt.NDArray[np.uint16]
    room_cm: npt.NDArray[np.uint8]
    at: npt.NDArray[np.uint8]
    steps: npt.NDArray[np.uint8]
    owner: npt.NDArray[np.int32]
    taker: npt.NDArray[np.int32]

    def __len__(self) -> int:
        return len(self.height_m)

    @property
    def fits(self) -> npt.NDArray[np.bool_]:
        """On which floors (n,) the body can stand."""
        return (self.at & FITS_BIT) > 0

    @property
    def free(self) -> npt.NDArray[np.bool_]:
        """On which floors (n,) the body can stand in the middle of the cell: what counts as area."""
        middle: npt.NDArray[np.bool_] = self.at == FITS_BIT + MIDDLE
        return middle

    def places(self, floors: Ints) -> Array:
        """Where one stands on floors: (n, 3) metres along the building's axes."""
        spot = self.at[floors] & 15
        aside = np.column_stack([spot % 3, spot // 3]) - 1.0
        middle = self.grid.centres(self.cell[floors].astype(np.int64))
        return np.column_stack([middle + aside * (self.grid.cell_m / 3.0), self.height_m[floors]])

    def place(self, floor: int) -> Array:
        """Where one stands on a floor: (3,)."""
        place: Array = self.places(np.array([floor]))[0]
        return place

    def under(self, x_m: float, y_m: float, height_m: float, fitting: bool = False) -> int:
        """The floor of the cell at a point whose height is nearest to a height, or NOWHERE."""
        cell = self.grid.cell_at(x_m, y_m)
        if cell < 0:
            return NOWHERE
        own = np.arange(self.start[cell], self.start[cell + 1])
        if fitting:
            own = own[self.at[own] & FITS_BIT > 0]
        return int(own[np.argmin(np.abs(self.height_m[own] - height_m))]) if len(own) else NOWHERE

    def follow(self, points: Array, floor: int) -> Ints:
        """The floors (n,) under points (n, >=2) of a way that begins on a floor."""
        found: Ints = follow(points, floor, self.grid.raster, self.start, self.height_m, self.at)
        return found

    @cached_property
    def level_steps(self) -> npt.NDArray[np.uint8]:
        """The steps (n, 8) of who takes no riser, and keeps a cell's breadth away from them."""
        at_riser = ((self.steps != NO_STEP) & (self.steps & RISER_BIT > 0)).any(axis=1)
        level: npt.NDArray[np.uint8] = without(
            self.steps, at_riser, self.start, self.cell, self.grid.nx, np.array(WAYS)
        )
        return level

    def steps_for(self, step_free: bool, barred: npt.NDArray[np.bool_] | None = None) -> npt.NDArray[np.uint8]:
        """The steps (n, 8) that may be taken; none to or from ``barred`` floors (n,)."""
        steps = self.level_steps if step_free else self.steps
        if barred is None:
            return steps
        open_to: npt.NDArray[np.uint8] = without(steps, barred, self.start, self.cell, self.grid.nx, np.array(WAYS))
        return open_to

    def near(self, point: Array, away_m: float, height_m: float) -> npt.NDArray[np.bool_]:
        """Which floors (n,) lie so near to a point (3,) on plan, and so near to its height."""
        middle = self.grid.centres(self.cell.astype(np.int64))
        off = np.hypot(middle[:, 0] - point[0], middle[:, 1] - point[1])
        near: npt.NDArray[np.bool_] = (off <= away_m) & (np.abs(self.height_m - point[2]) <= height_m)
        return near

    def _regions(self, step_free: bool) -> npt.NDArray[np.int32]:
        source, to = links(self.steps_for(step_free), self.start, self.cell, self.grid.nx, np.array(WAYS))
        joined = coo_matrix((np.ones(len(to), dtype=bool), (source, to)), (len(self),) * 2)
        _, label = connected_components(joined, directed=False)
        there = self.fits
        if step_free:
            there = there & (self.level_steps != NO_STEP).any(axis=1)
        return np.where(there, label, NOWHERE).astype(np.int32)

    @cached_property
    def region(self) -> npt.NDArray[np.int32]:
        """Which part of the building each floor (n,) belongs to: no step joins two; NOWHERE where nobody fits."""
        return self._regions(False)

    @cached_property
    def region_step_free(self) -> npt.NDArray[np.int32]:
        """The same for who takes no riser."""
        return self._regions(True)

    @property
    def bytes(self) -> int:
        """What the map takes in memory."""
        columns = (self.start, self.cell, self.height_m, self.clear_cm, self.room_cm, self.at, self.steps)
        return sum(column.nbytes for column in (*columns, self.owner, self.taker))


def join(
    tiles: Iterable[Tile], body: Body, axes: Axes, cell_m: float = CELL_M, number: Callable[[Tile], Ints] | None = None
) -> WalkMap:
    """The tiles of a building as one map; ``number`` gives the federation's numbers of a tile's components."""
    tiles = list(tiles)
    n = side(cell_m)
    if not tiles:
        none = np.zeros(0, dtype=np.int32)
        empty = np.zeros(0, dtype=np.uint8)
        return WalkMap(
            body, axes, Grid(cell_m, (0, 0), 1, 1), np.zeros(2, np.int32), none, np.zeros(0, np.float32),
            np.zeros(0, np.uint16), empty, empty, np.zeros((0, 8), np.uint8), none, none,
        )  # fmt: skip
    where = np.array([tile.place for tile in tiles])
    low, high = where.min(axis=0), where.max(axis=0) + 1
    grid = Grid(cell_m, (int(low[0]) * n, int(low[1]) * n), *(int(k) * n for k in high - low))
    own = np.arange(n * n)
    cells, owners, takers = [], [], []
    for tile in tiles:
        x, y = ((tile.place[k] - int(low[k])) * n for k in (0, 1))
        cells.append(np.repeat((y + own // n) * grid.nx + x + own % n, tile.floors))
        numbers = np.append(tile.components if number is None else number(tile), NOWHERE).astype(np.int32)
        owners.append(numbers[tile.owner])
        takers.append(numbers[tile.taker])
    cell = np.concatenate(cells)
    order = np.argsort(cell, kind="stable")
    start = np.concatenate([[0], np.cumsum(np.bincount(cell, minlength=grid.cells))]).astype(np.int32)

    def column(name: str) -> npt.NDArray[np.int32]:
        joined: npt.NDArray[np.int32] = np.concatenate([getattr(tile, name) for tile in tiles])[order]
        return joined

    return WalkMap(
        body,
        axes,
        grid,
        start,
        cell[order].astype(np.int32),
        (column("height_mm") / 1000.0).astype(np.float32),
        column("clear_cm").astype(np.uint16),
        column("room_cm").astype(np.uint8),
        column("at").astype(np.uint8),
        column("steps").astype(np.uint8),
        np.concatenate(owners)[order],
        np.concatenate(takers)[order],
    )


def build(solids: Solids, body: Body, cell_m: float = CELL_M) -> tuple[WalkMap, Space]:
    """The walk map of a building for one body, and the space to measure in."""
    space = Space(solids)
    return join(all_tiles(space, [body], cell_m)[body.name], body, solids.axes, cell_m), space
