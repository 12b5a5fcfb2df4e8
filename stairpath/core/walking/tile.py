"""A walk map by tiles: each is made of the triangles around it, and so only those that changed are made again."""

from __future__ import annotations

import gzip
import hashlib
import json
import struct
from collections.abc import Iterable, Mapping, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from os import cpu_count
from typing import Any

import numpy as np
import numpy.typing as npt

from stairpath.core.walking.bodies import Body
from stairpath.core.walking.clearance import Space
from stairpath.core.walking.floors import Floors, floors_of
from stairpath.core.walking.grid import CELL_M, WAYS, Grid
from stairpath.core.walking.loops import steps

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]
Place = tuple[int, int]

TILE_M = 12.8
BESIDE_M = 0.45
"""Room is known up to so much beyond the body's own."""
RISER_M = 0.02
"""An edge higher than this is a riser for every body."""
NO_STEP = 255
RISER_BIT = 64
OPEN_CM = 65535
"""Clear height under the sky."""
FITS_BIT = 128
VERSION = 2
"""Counts what a tile is made by; tiles of another count are made again."""
_HALO = 2


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


def tile_m(cell_m: float) -> float:
    """How long a tile's edge is: TILE_M, to a whole cell."""
    return side(cell_m) * cell_m


def tile_grid(place: Place, cell_m: float, halo: int = 0) -> Grid:
    """The cells of a tile, with so many around it."""
    n = side(cell_m)
    return Grid(cell_m, (place[0] * n - halo, place[1] * n - halo), n + 2 * halo, n + 2 * halo)


def places(space: Space, cell_m: float = CELL_M) -> list[Place]:
    """The tiles over everything solid, row by row."""
    if not len(space):
        return []
    low, high = (np.floor(ends / tile_m(cell_m)).astype(int) for ends in space.reaches_on_plan())
    first = low.min(axis=0)
    # Each triangle's rectangle of tiles is marked at its corners and summed up.
    marks = np.zeros(high.max(axis=0) - first + 2, dtype=np.int64)
    (x0, y0), (x1, y1) = (low - first).T, (high - first + 1).T
    for x, y, sign in ((x0, y0, 1), (x1, y0, -1), (x0, y1, -1), (x1, y1, 1)):
        np.add.at(marks, (x, y), sign)
    y, x = np.nonzero(marks.cumsum(axis=0).cumsum(axis=1).T > 0)
    return [(int(i), int(j)) for i, j in zip(x + first[0], y + first[1], strict=True)]


def _reach_m(body: Body) -> float:
    return body.radius_m + BESIDE_M


def margin_m(bodies: Iterable[Body], cell_m: float) -> float:
    """From how far around a tile triangles say what it is, to half a metre."""
    reach = max(_reach_m(body) for body in bodies) + (_HALO + 1) * cell_m
    return float(np.ceil(2.0 * reach) / 2.0)


def ground_print(space: Space, place: Place, margin: float, names: Ints, cell_m: float = CELL_M) -> bytes:
    """A fingerprint of all triangles over a tile and so far around it, to 1 mm.

    ``names`` (components,) tells components apart whatever their order.
    """
    near = space.around(place, tile_m(cell_m), margin)
    digest = hashlib.blake2b(digest_size=16)
    digest.update(np.round(space.solids.triangles[near] * 1000.0).astype(np.int64).tobytes())
    digest.update(names[space.solids.component[near]].tobytes())
    return digest.digest()


def tile_print(ground: bytes, body: Body, cell_m: float) -> str:
    """A tile's fingerprint: the same as long as nothing that the tile is made of changed."""
    return hashlib.blake2b(ground + repr((VERSION, body, cell_m)).encode(), digest_size=16).hexdigest()


def _tile(floors: Floors, body: Body, space: Space, place: Place, cell_m: float) -> Tile:
    points = np.column_stack([floors.grid.centres(floors.cell), floors.height_m])
    room, taker, at = space.beside(points, floors.above_m, cell_m, body, _reach_m(body))
    fits = (room >= body.radius_m) & (floors.slope <= body.steepest)
    grid = floors.grid
    joined = steps.steps(
        floors.cell,
        steps.Surface(floors.start, floors.height_m, floors.slope, fits),
        grid.raster,
        steps.Stride(body.step_up_m, body.step_down_m, RISER_M),
        np.array(WAYS),
    )
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
    near = space.around(place, tile_m(cell_m), margin_m(bodies, cell_m))
    floors = floors_of(space.solids.only(near), tile_grid(place, cell_m, _HALO))
    return [_tile(floors, body, space, place, cell_m) for body in bodies]


def all_tiles(space: Space, bodies: Iterable[Body], cell_m: float = CELL_M) -> Mapping[str, list[Tile]]:
    """Every tile of a building for each body, by the body's name; over all processors."""
    bodies = list(bodies)
    with ThreadPoolExecutor(cpu_count()) as threads:
        made = list(threads.map(lambda place: tiles_at(space, place, bodies, cell_m), places(space, cell_m)))
    return {body.name: [tiles[k] for tiles in made] for k, body in enumerate(bodies)}


_MAGIC = b"WALK"
_HEAD = struct.Struct("<4sHHiiIII")
"""Magic, version, cells along the edge, place (x, y), floors, components, bytes of the components' names."""
_LAYOUT = (
    ("height_mm", np.int32, 1),
    ("owner", np.int32, 1),
    ("taker", np.int32, 1),
    ("clear_cm", np.uint16, 1),
    ("steps", np.uint8, 8),
    ("room_cm", np.uint8, 1),
    ("at", np.uint8, 1),
)


def pack(tile: Tile, names: Sequence[Sequence[str]]) -> bytes:
    """A tile as gzipped bytes: the head, the columns of ``_LAYOUT``, ``floors``, and the components' names as JSON.

    Little-endian, columns one after another without gaps; ``names`` says for each of the tile's components how it
    is known for ever.
    """
    known = json.dumps([list(name) for name in names], separators=(",", ":")).encode()
    n = int(np.sqrt(len(tile.floors)))
    head = _HEAD.pack(_MAGIC, VERSION, n, *tile.place, len(tile.height_mm), len(names), len(known))
    columns = [np.ascontiguousarray(getattr(tile, name), dtype=kind).tobytes() for name, kind, _ in _LAYOUT]
    return gzip.compress(b"".join([head, *columns, tile.floors.tobytes(), known]), 6, mtime=0)


def unpack(data: bytes) -> tuple[Tile, list[tuple[str, ...]]]:
    """The tile that ``pack`` made, its components counted from 0, and their names."""
    raw = gzip.decompress(data)
    _, _, n, x, y, count, _, size = _HEAD.unpack_from(raw)
    at = _HEAD.size
    columns: dict[str, Any] = {}
    for name, kind, width in _LAYOUT:
        column = np.frombuffer(raw, dtype=kind, count=count * width, offset=at)
        at += column.nbytes
        columns[name] = column.reshape(count, width) if width > 1 else column
    floors = np.frombuffer(raw, dtype=np.uint8, count=n * n, offset=at)
    names = [tuple(name) for name in json.loads(raw[at + n * n : at + n * n + size])]
    return Tile((x, y), floors, components=np.arange(len(names)), **columns), names
