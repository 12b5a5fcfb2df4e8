"""Where a route begins or ends: a room, or a point of a floor."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
import shapely

from stairpath.core.federation.federate import Federation
from stairpath.core.federation.rooms import room_area, room_named, room_points
from stairpath.core.geometry.axes import Axes
from stairpath.core.geometry.plan import lies_in
from stairpath.core.walking.walkmap import NOWHERE, WalkMap

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]

ABOVE_FLOOR_M = 2.5
"""A point may be given so high above the floor that it means: an eye's height, or a hand's on a wall."""
BELOW_FLOOR_M = 0.5
SAME_LEVEL_M = 0.05
ASIDE_M = 0.5
"""Where the body does not fit at a point itself, the nearest place within this is meant."""


class NoPlaceError(LookupError):
    """There is no floor where somebody is to stand."""


@dataclass(frozen=True)
class Room:
    """A room on plan, along the building's axes, from its floor to its ceiling."""

    name: str
    area: shapely.Geometry
    low_m: float
    high_m: float


@dataclass(frozen=True)
class Place:
    """Where to begin or end: the floors meant, best first; ``fits`` says whether the body can stand on them.

    ``point`` (3,) along the building's axes is the very point, where one was given.
    """

    name: str
    floors: Ints
    fits: bool
    point: Array | None = None

    def on(self, walk: WalkMap, floor: int) -> Array:
        """Where one stands on a floor of the place (3,): the very point if it is there."""
        place = walk.place(floor)
        if self.point is not None and walk.grid.cell_at(self.point[0], self.point[1]) == walk.cell[floor]:
            place[:2] = self.point[:2]
        return place


def room_of(federation: Federation, axes: Axes, index: int) -> Room:
    """A room of the building, by its place in ``federation.rooms``."""
    known = federation.rooms[index]
    heights = room_points(federation, index)[:, 2]
    area = shapely.transform(
        shapely.union_all(room_area(federation, index)),
        lambda plan: axes.to_own(np.column_stack([plan, np.zeros(len(plan))]))[:, :2],
    )
    return Room(f"{known.number} {known.name}".strip(), area, heights.min(), heights.max())


def floors_in(walk: WalkMap, room: Room) -> Ints:
    """The floors of a room's cells, a hand's breadth below its own to its ceiling."""
    if room.area.is_empty:
        return np.zeros(0, dtype=np.int64)
    grid = walk.grid
    x0, y0, x1, y1 = room.area.bounds
    i0, i1 = (int(np.floor(x / grid.cell_m)) - grid.first[0] for x in (x0, x1))
    j0, j1 = (int(np.floor(y / grid.cell_m)) - grid.first[1] for y in (y0, y1))
    i, j = np.meshgrid(np.arange(max(0, i0), min(grid.nx - 1, i1) + 1), np.arange(max(0, j0), min(grid.ny - 1, j1) + 1))
    cells = (j * grid.nx + i).reshape(-1)
    middle = grid.centres(cells)
    cells = cells[lies_in(room.area, middle)]
    counts = walk.start[cells + 1] - walk.start[cells]
    first = np.repeat(walk.start[cells] - np.concatenate([[0], np.cumsum(counts)[:-1]]), counts)
    floors = (first + np.arange(int(counts.sum()))).astype(np.int64)
    heights = walk.height_m[floors]
    inside: Ints = floors[(heights > room.low_m - BELOW_FLOOR_M) & (heights < room.high_m)]
    return inside


def on_main_level(walk: WalkMap, floors: Ints) -> npt.NDArray[np.bool_]:
    """Which of some floors lie as high as most of them: not the treads of a stair that stands there."""
    if not len(floors):
        return np.zeros(0, dtype=bool)
    steps = np.round(walk.height_m[floors] / SAME_LEVEL_M).astype(np.int64)
    heights, counts = np.unique(steps, return_counts=True)
    near: npt.NDArray[np.bool_] = np.abs(steps - heights[counts.argmax()]) <= 1
    return near


def _freest_first(walk: WalkMap, floors: Ints) -> Ints:
    """Floors on the main level first, of those the ones with the most room, of those the nearest to the middle."""
    if not len(floors):
        return floors
    places = walk.places(floors)
    away = np.hypot(*(places[:, :2] - places[:, :2].mean(axis=0)).T)
    return floors[np.lexsort((away, -walk.room_cm[floors].astype(int), ~on_main_level(walk, floors)))]


def in_room(walk: WalkMap, room: Room) -> Place:
    """A room as a place: where the body fits, else its whole floor; NoPlaceError if it has none."""
    floors = floors_in(walk, room)
    low = np.abs(walk.height_m[floors] - room.low_m) < BELOW_FLOOR_M
    floors = floors[low] if low.any() else floors
    if not len(floors):
        raise NoPlaceError(f"{room.name} has no floor; take another room, or add the model with its slab.")
    fitting = floors[walk.fits[floors]]
    if len(fitting):
        # Tops of furniture are floors to stand on, but not what a room's name means.
        region = walk.region[fitting]
        sizes = np.bincount(region)[region]
        return Place(room.name, _freest_first(walk, fitting[sizes >= min(sizes.max(), 30)]), True)
    return Place(room.name, _freest_first(walk, floors), False)


def at_point(walk: WalkMap, point: Array, name: str) -> Place:
    """A point (3,) along the building's axes as a place: the floor below it where the body fits, or near it."""
    grid = walk.grid
    reach = int(np.ceil(ASIDE_M / grid.cell_m))
    here: list[int] = []
    for j in range(-reach, reach + 1):
        for i in range(-reach, reach + 1):
            cell = grid.cell_at(point[0] + i * grid.cell_m, point[1] + j * grid.cell_m)
            if cell >= 0:
                here.extend(range(walk.start[cell], walk.start[cell + 1]))
    floors = np.array(here, dtype=np.int64)
    below = point[2] - walk.height_m[floors].astype(float)
    floors = floors[(below > -BELOW_FLOOR_M) & (below < ABOVE_FLOOR_M)]
    if not len(floors):
        raise NoPlaceError(f"There is no floor at {name}; give a point on a floor, or up to 2.5 m above one.")
    away = np.linalg.norm(walk.places(floors) - point, axis=1) + 0.5 * np.abs(walk.height_m[floors] - point[2])
    order = floors[np.argsort(away, kind="stable")]
    fitting = order[walk.fits[order]]
    return Place(name, fitting, True, point) if len(fitting) else Place(name, order, False, point)


def place_named(federation: Federation, walk: WalkMap, text: str) -> Place:
    """``room:NAME`` by name or number, or ``x,y,z`` in project coordinates.

    Raises NoSuchSubjectError for a room that is not there, NoPlaceError where there is no floor, and
    ValueError for anything else.
    """
    kind, _, name = text.partition(":")
    if kind == "room" and name:
        return in_room(walk, room_of(federation, walk.axes, room_named(federation, name)))
    try:
        point = np.array([float(part) for part in text.split(",")])
    except ValueError:
        point = np.zeros(0)
    if point.shape != (3,) or not np.isfinite(point).all():
        raise ValueError(f"{text} is not a place; give room:NAME, or x,y,z in metres.")
    return at_point(walk, walk.axes.to_own(point), text)


def joined(walk: WalkMap, one: Place, other: Place, step_free: bool = False) -> tuple[int, int] | None:
    """The best floor of each place such that both are in one part of the building; None if no part has both."""
    region = walk.region_step_free if step_free else walk.region
    here, there = region[one.floors], region[other.floors]
    shared = np.isin(here, there) & (here != NOWHERE)
    if not shared.any():
        return None
    part = here[np.argmax(shared)]
    return int(one.floors[np.argmax(here == part)]), int(other.floors[np.argmax(there == part)])
