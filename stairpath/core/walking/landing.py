"""Coming to stand: in a room, on another storey, at a point, behind a wall."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
import shapely
from scipy.ndimage import distance_transform_edt

from stairpath.core.federation.federate import Federation
from stairpath.core.geometry.plan import lies_in
from stairpath.core.walking.place import NoPlaceError, Room, in_room, on_main_level, room_of
from stairpath.core.walking.tile import FITS_BIT
from stairpath.core.walking.walkmap import WalkMap

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]

_RAYS = 72
_THROUGH_A_DOOR = 0.25
_NEAR_M, _FAR_M = 4.0, 60.0
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

    def bearing_deg(self, walk: WalkMap) -> float | None:
        """The direction to look in as a bearing of the project (clockwise from +Y), if there is one."""
        return None if self.look_deg is None else (90.0 - self.look_deg + walk.axes.bearing_deg) % 360.0


def _longest_line(walk: WalkMap, floor: int, room: shapely.Geometry) -> float:
    """The direction in which one sees farthest over the room's floor on which one could stand.

    A line that goes on out of the room leads through a door: the eye along it faces the closed door, so it
    counts for little, and so do those beside it.
    """
    place = walk.place(floor)
    cell_m = walk.grid.cell_m
    inside = room.buffer(cell_m)

    def clear(angle: float, reach_m: float) -> tuple[int, bool]:
        """How many cells of the room in a direction one could stand on, and whether one can go on out of it."""
        reach = np.arange(cell_m, reach_m, cell_m)
        points = place[:2] + reach[:, None] * [np.cos(angle), np.sin(angle)]
        floors = walk.follow(points, floor)
        there = (walk.at[floors] & FITS_BIT > 0) & (np.hypot(*(walk.places(floors)[:, :2] - points).T) < cell_m)
        within = lies_in(inside, points)
        ends = ~(there & within)
        if not ends.any():
            return (len(ends), False) if reach_m >= _FAR_M else clear(angle, 4.0 * reach_m)
        last = int(np.argmax(ends))
        return last, bool(there[last])

    angles = np.arange(_RAYS) * (2 * np.pi / _RAYS)
    lengths, out = (np.array(column) for column in zip(*(clear(angle, _NEAR_M) for angle in angles), strict=True))
    leads_out = out | np.roll(out, 1) | np.roll(out, -1)
    return float(np.degrees(angles[np.argmax(np.where(leads_out, _THROUGH_A_DOOR * lengths, lengths))]))


def in_the_room(walk: WalkMap, room: Room) -> Landing:
    """The point of a room's free floor that is farthest from obstacles, looking along its longest clear line.

    Raises NoPlaceError where the body fits nowhere in the room.
    """
    place = in_room(walk, room)
    if not place.fits:
        raise NoPlaceError(f"There is no room for {walk.body.name} in {room.name}; take a smaller body.")
    fitting = place.floors[on_main_level(walk, place.floors)]
    cell = walk.cell[fitting].astype(np.int64)
    i, j = cell % walk.grid.nx, cell // walk.grid.nx
    raster = np.zeros((j.max() - j.min() + 3, i.max() - i.min() + 3), dtype=bool)
    raster[j - j.min() + 1, i - i.min() + 1] = True
    away = distance_transform_edt(raster)[j - j.min() + 1, i - i.min() + 1]
    floor = int(fitting[np.argmax(away)])
    return Landing(floor, _longest_line(walk, floor, room.area))


def in_every_room(walk: WalkMap, federation: Federation) -> dict[int, Landing]:
    """Where the body comes to stand in each room, by its place in ``federation.rooms``; rooms without room are left out."""
    found: dict[int, Landing] = {}
    for index in range(len(federation.rooms)):
        with suppress(NoPlaceError):
            found[index] = in_the_room(walk, room_of(federation, walk.axes, index))
    return found


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
    raise NoPlaceError(f"There is no floor within {_BEHIND_M:g} m behind it. Select another wall.")
