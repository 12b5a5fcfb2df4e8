"""Where to stand in a room, and which way to look from there."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
import shapely

from stairpath.core.cutting.keyplan import room_area
from stairpath.core.cutting.outlines import cut_level
from stairpath.core.federation.federate import Federation

Array = npt.NDArray[np.float64]

BODY_M = (0.15, 1.75)
"""Between these heights over the floor a thing stands in the way."""
CUT_AT_M = 1.2
_STRUCTURE = ("IfcWall", "IfcColumn", "IfcCurtainWall", "IfcPlate", "IfcMember")
_LEFT_OUT = ("IfcSlab", "IfcCovering", "IfcRoof", "IfcDoor", "IfcWindow", "IfcRailing")
FREE_WITHIN_M = 0.2
"""How near to the freest point of a room one comes to stand."""
_RAYS = 72
_FAR_M = 500.0


@dataclass(frozen=True)
class Stand:
    """A place on a room's floor, and the bearing of the longest clear line from it."""

    at: tuple[float, float]
    bearing_deg: float


def stand_in(room: shapely.Polygon, obstacles: Sequence[shapely.Polygon]) -> Stand | None:
    """The point of a room's free floor that is farthest from obstacles and walls.

    None where nothing is free.
    """
    free = room.difference(shapely.union_all(obstacles)) if len(obstacles) else room
    parts = [part for part in getattr(free, "geoms", [free]) if part.geom_type == "Polygon" and part.area > 0]
    if not parts:
        return None
    circles = [(shapely.maximum_inscribed_circle(part, tolerance=FREE_WITHIN_M), part) for part in parts]
    circle, part = max(circles, key=lambda found: found[0].length)
    x, y = shapely.get_coordinates(circle)[0]
    bearings = np.arange(_RAYS) * (360.0 / _RAYS)
    turn = np.radians(bearings)
    ends = np.column_stack([x + _FAR_M * np.sin(turn), y + _FAR_M * np.cos(turn)])
    rays = shapely.linestrings(np.stack([np.tile([x, y], (_RAYS, 1)), ends], axis=1))
    reach = shapely.distance(shapely.points(x, y), shapely.intersection(rays, part.boundary))
    return Stand((float(x), float(y)), float(bearings[int(np.argmax(reach))]))


def _obstacles(federation: Federation, level: int) -> list[shapely.Polygon]:
    """What stands in the way on a level, on plan: structure as it is cut, other things by their hulls."""
    floor = federation.levels[level].elevation_m
    low, high = floor + BODY_M[0], floor + BODY_M[1]
    found: list[shapely.Polygon] = []
    for model in federation.models:
        if not model.stands:
            continue
        geometry, to = model.outline.geometry, model.alignment.matrix
        with np.errstate(invalid="ignore"):
            near = (model.bounds_m[:, 0, 2] < high) & (model.bounds_m[:, 1, 2] > low)
        structure = model.outline.of_class(_STRUCTURE)
        outlines = cut_level(geometry, to, floor + CUT_AT_M, near & structure)
        found += [shapely.Polygon(outlines[int(i)]) for i in np.flatnonzero(outlines.areas() > 0)]
        others = near & ~structure & ~model.outline.of_class(_LEFT_OUT)
        for placed in geometry.placed_of(others):
            points = geometry.points_of(int(placed), to)
            if points[:, 2].min() < high and points[:, 2].max() > low:
                hull = shapely.convex_hull(shapely.multipoints(points[:, :2]))
                if hull.geom_type == "Polygon":
                    found.append(hull)
    return found


def stands(federation: Federation) -> dict[int, Stand]:
    """Where to stand in each room of the building that has free floor, by its place in ``federation.rooms``."""
    out: dict[int, Stand] = {}
    for level in range(len(federation.levels)):
        rooms = [(i, room_area(federation, i)) for i, room in enumerate(federation.rooms) if room.level == level]
        if not rooms:
            continue
        obstacles = _obstacles(federation, level)
        tree = shapely.STRtree(obstacles)
        for index, area in rooms:
            for polygon in sorted(area, key=lambda p: -p.area)[:1]:
                stand = stand_in(polygon, [obstacles[k] for k in tree.query(polygon)])
                if stand is not None:
                    out[index] = stand
    return out
