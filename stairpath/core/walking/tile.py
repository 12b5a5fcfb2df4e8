"""A walk map by tiles: each is made of the triangles around it, and so only those that changed are made again."""

from __future__ import annotations

import hashlib
import io
from collections.abc import Iterable, Mapping
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from os import cpu_count

import numpy as np
import numpy.typing as npt

from stairpath.core.walking.bodies import Body
from stairpath.core.walking.clearance import Space
from stairpath.core.walking.floors import Floors, floors_of
from stairpath.core.walking.grid import CELL_M, WAYS, Grid
from stairpath.core.walking.loops import steps

Array = npt.NDArray[np.float64]
Place = tuple[int, int]

TILE_M = 12.8
BESIDE_M = 0.45
"""Room is known up to so much beyond the body's own."""
RISER_M = 0.02
"""An edge higher than this is a riser, whoever walks."""
NO_STEP = 255
RISER_BIT = 64
OPEN_CM = 65535
"""Clear height under the sky."""
FITS_BIT = 128
VERSION = 1
"""Counts what a tile is made by; tiles of another count are made again."""
_HALO = 2
_MOST_FLOORS = 63


@dataclass(frozen=True)
class Tile:
    """Where one body can walk on a square of cells; columns run over the floors of its cells.

    ``floors`` (cells,) says how many floors each cell has, ``height_mm`` (n,) how high they lie,
    ``clear_cm`` (n,) what is free above, ``room_cm`` (n,) what is free beside. ``at`` (n,) is the place
    in the cell with the most room, counted over three rows of three, with ``FITS_BIT`` where the
    body fits. ``steps`` (n, 8) has, for each of ``WAYS``, which floor of that cell is
    entered, with ``RISER_BIT`` over a riser, or ``NO_STEP``. ``owner`` and ``taker`` (n,) say whose floor it
    is and who takes the room beside, as places in ``components``, -1 for nobody.
    """

    place: Place
    floors: npt.NDArray[np.uint8]
    height_mm: npt.NDArray[np.int32]
    clear_cm: npt.NDArray[np.uint16]
    room_cm: npt.NDArray[np.uint8]
    at: npt.NDArray[np.uint8]
    steps: npt.NDArray[np.uint8]
    owner: npt.NDArray[np.int32]
    taker: npt.NDArray[np.int32]
    components: npt.NDArray[np.int64]


def side(cell_m: float) -> int:
    """Cells along a tile's edge."""
    return round(TILE_M / cell_m)


def tile_grid(place: Place, cell_m: float, halo: int = 0) -> Grid:
    """The cells of a tile, with so many around it."""
    n = side(cell_m)
    return Grid(cell_m, (place[0] * n - halo, place[1] * n - halo), n + 2 * halo, n + 2 * halo)


def places(space: Space) -> list[Place]:
    """The tiles over everything solid, row by row."""
    if not len(space):
        return []
    low, high = np.floor(space.low / TILE_M).astype(int), np.floor(space.high / TILE_M).astype(int)
    return [(int(x), int(y)) for y in range(low[1], high[1] + 1) for x in range(low[0], high[0] + 1)]


def _reach_m(body: Body) -> float:
    return body.radius_m + BESIDE_M


def margin_m(bodies: Iterable[Body], cell_m: float) -> float:
    """From how far around a tile triangles say what it is."""
    return max(_reach_m(body) for body in bodies) + (_HALO + 1) * cell_m


def print_of(space: Space, place: Place, body: Body, cell_m: float, names: Array | None = None) -> str:
    """A tile's fingerprint: it is the same as long as nothing that the tile is made of changed.

    ``names`` (components,) tells components apart whatever their order; to 1 mm.
    """
    near = space.around(place, TILE_M, margin_m([body], cell_m))
    digest = hashlib.blake2b(digest_size=16)
    digest.update(repr((VERSION, body, cell_m, place)).encode())
    digest.update(np.round(space.solids.triangles[near] * 1000.0).astype(np.int64).tobytes())
    whose = space.solids.component[near]
    digest.update((whose if names is None else names[whose]).tobytes())
    return digest.hexdigest()


def _tile(floors: Floors, body: Body, space: Space, place: Place, cell_m: float) -> Tile:
    points = np.column_stack([floors.grid.centres(floors.cell), floors.height_m])
    room, taker, at = space.beside(points, floors.above_m, cell_m, body, _reach_m(body))
    fits = (room >= body.radius_m) & (floors.slope <= body.steepest)
    grid = floors.grid
    joined = steps.steps(
        floors.cell, floors.start, floors.height_m, floors.slope, fits, grid.nx, grid.ny, cell_m,
        body.step_up_m, body.step_down_m, np.array(WAYS), RISER_M,
    )  # fmt: skip
    column, row = floors.cell % grid.nx - _HALO, floors.cell // grid.nx - _HALO
    n = side(cell_m)
    own = (column >= 0) & (column < n) & (row >= 0) & (row < n)
    components, local = np.unique(
        np.concatenate([floors.component[own], taker[own]]).astype(np.int64), return_inverse=True
    )
    if len(components) and components[0] < 0:
        components, local = components[1:], local - 1
    count = int(own.sum())
    return Tile(
        place,
        np.bincount(row[own] * n + column[own], minlength=n * n).astype(np.uint8),
        np.round(floors.height_m[own] * 1000.0).astype(np.int32),
        np.minimum(np.floor(floors.above_m[own] * 100.0 + 1e-6), OPEN_CM).astype(np.uint16),
        np.minimum(np.floor(room[own] * 100.0 + 1e-6), 255).astype(np.uint8),
        at[own] | np.where(fits[own], FITS_BIT, 0).astype(np.uint8),
        joined[own],
        local[:count].astype(np.int32),
        local[count:].astype(np.int32),
        components,
    )


def tiles_at(space: Space, place: Place, bodies: Iterable[Body], cell_m: float = CELL_M) -> list[Tile]:
    """The tile at a place for each body."""
    bodies = list(bodies)
    near = space.around(place, TILE_M, margin_m(bodies, cell_m))
    floors = floors_of(space.solids.only(near), tile_grid(place, cell_m, _HALO))
    return [_tile(floors, body, space, place, cell_m) for body in bodies]


def all_tiles(space: Space, bodies: Iterable[Body], cell_m: float = CELL_M) -> Mapping[str, list[Tile]]:
    """Every tile of a building for each body, by the body's name; over all processors."""
    bodies = list(bodies)
    with ThreadPoolExecutor(cpu_count()) as threads:
        made = list(threads.map(lambda place: tiles_at(space, place, bodies, cell_m), places(space)))
    return {body.name: [tiles[k] for tiles in made] for k, body in enumerate(bodies)}


_COLUMNS = ("floors", "height_mm", "clear_cm", "room_cm", "at", "steps", "owner", "taker", "components")


def pack(tile: Tile) -> bytes:
    """A tile as a compressed .npz."""
    out = io.BytesIO()
    np.savez_compressed(out, place=np.array(tile.place), **{name: getattr(tile, name) for name in _COLUMNS})
    return out.getvalue()


def unpack(data: bytes) -> Tile:
    """The tile that ``pack`` made."""
    with np.load(io.BytesIO(data)) as kept:
        x, y = (int(k) for k in kept["place"])
        return Tile((x, y), *(kept[name] for name in _COLUMNS))
