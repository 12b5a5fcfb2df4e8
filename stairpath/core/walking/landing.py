"""Coming to stand: in a room, on another storey, at a point, behind a wall."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
from scipy.ndimage import distance_transform_edt

from stairpath.core.walking.place import NoPlaceError, Room, in_room
from stairpath.core.walking.walkmap import WalkMap

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]

_RAYS = 72
_FAR_M = 60.0
_STOREY_M = 1.0
"""A floor is on a storey if it is so near to the storey's height."""
_OFF = 10.0
"""So many metres aside a floor may be that is one metre nearer to the storey's height."""
_SMALL_M2 = 2.0
_BEHIND_M = 6.0
_CLIMB_M = 1.2


@dataclass(frozen=True)
class Landing:
    """A floor to stand on, and the direction (degrees counter-clockwise from +X of the map) to look in, if any."""

    floor: int
    look_deg: float | None = None


def _longest_line(walk: WalkMap, floor: int) -> float:
    """The direction in which one sees farthest over floor on which one could stand."""
    place = walk.place(floor)
    best, best_m = 0.0, -1.0
    reach = np.arange(walk.grid.cell_m, _FAR_M, walk.grid.cell_m)
    for angle in np.arange(_RAYS) * (2 * np.pi / _RAYS):
        points = place[:2] + reach[:, None] * [np.cos(angle), np.sin(angle)]
        floors = walk.follow(points, floor)
        there = walk.fits[floors] & (np.hypot(*(walk.places(floors)[:, :2] - points).T) < walk.grid.cell_m)
        length = int(np.argmin(there)) if not there.all() else len(there)
        if length > best_m:
            best, best_m = float(np.degrees(angle)), length
    return best


def in_the_room(walk: WalkMap, room: Room) -> Landing:
    """The point of a room's free floor that is farthest from obstacles, looking along its longest clear line.

    Raises NoPlaceError where the body fits nowhere in the room.
    """
    place = in_room(walk, room)
    if not place.fits:
        raise NoPlaceError(f"There is no room for {walk.body.name} in {room.name}; take a smaller body.")
    fitting = place.floors
    cell = walk.cell[fitting].astype(np.int64)
    i, j = cell % walk.grid.nx, cell // walk.grid.nx
    raster = np.zeros((j.max() - j.min() + 3, i.max() - i.min() + 3), dtype=bool)
    raster[j - j.min() + 1, i - i.min() + 1] = True
    away = distance_transform_edt(raster)[j - j.min() + 1, i - i.min() + 1]
    floor = int(fitting[np.argmax(away)])
    return Landing(floor, _longest_line(walk, floor))


def on_storey(walk: WalkMap, point: Array, elevation_m: float) -> Landing:
    """The same place on plan on another storey, or the free floor there that is nearest to it."""
    off = np.abs(walk.height_m - elevation_m)
    floors = np.flatnonzero(walk.fits & (off <= _STOREY_M))
    if not len(floors):
        raise NoPlaceError(f"There is no free floor for {walk.body.name} there; take another storey or a smaller body.")
    # Pieces of floor too small to go anywhere, such as tops of furniture, come last.
    region = walk.region[floors]
    sizes = np.bincount(walk.region[walk.region >= 0])[region]
    away = np.hypot(*(walk.places(floors)[:, :2] - point[:2]).T) + _OFF * off[floors]
    away += np.where(sizes * walk.grid.cell_m**2 < _SMALL_M2, _FAR_M, 0.0)
    return Landing(int(floors[np.argmin(away)]))


def behind(walk: WalkMap, point: Array, towards: Array, feet_m: float) -> Landing:
    """The nearest floor behind a picked point (3,) of a wall, going on in a direction (2,) on plan."""
    towards = towards / max(float(np.hypot(*towards)), 1e-12)
    grid = walk.grid
    for away in np.arange(grid.cell_m, _BEHIND_M, grid.cell_m / 2.0):
        x, y = point[:2] + towards * away
        floor = walk.under(float(x), float(y), feet_m, fitting=True)
        if floor >= 0 and abs(float(walk.height_m[floor]) - feet_m) <= _CLIMB_M:
            return Landing(floor)
    raise NoPlaceError(f"There is no floor within {_BEHIND_M:g} m behind it; pick another wall.")
