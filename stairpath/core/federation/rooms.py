"""The rooms of a building: found by what they are called, their floors and their corners."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt
import shapely

from stairpath.core.federation.federate import Federation

Array = npt.NDArray[np.float64]


class NoSuchSubjectError(LookupError):
    """The building holds nothing of that name."""


def room_named(federation: Federation, name: str) -> int:
    """The index in ``federation.rooms`` of a room, by number, name, or both; NoSuchSubjectError if there is none."""
    wanted = name.casefold().strip()
    for spoken in (lambda r: r.number, lambda r: r.name, lambda r: f"{r.number} {r.name}"):
        found = [i for i, room in enumerate(federation.rooms) if spoken(room).casefold() == wanted]
        if len(found) > 1:
            numbers = ", ".join(federation.rooms[i].number for i in found)
            raise NoSuchSubjectError(f"There are several rooms {name}; give the number of one: {numbers}.")
        if found:
            return found[0]
    raise NoSuchSubjectError(f"There is no room {name}; give its number or its name.")


def room_points(federation: Federation, index: int) -> Array:
    """Corner points (n, 3) of a room's floor and of its ceiling."""
    room = federation.rooms[index]
    model = federation.models[room.model]
    drawn = next(r for r in model.outline.rooms if r.global_id == room.global_id)
    flat = drawn.floor.reshape(-1, 2)
    return model.alignment.apply(
        np.concatenate([np.column_stack([flat, np.full(len(flat), z)]) for z in (drawn.low_m, drawn.high_m)])
    )


def room_area(federation: Federation, index: int) -> list[shapely.Polygon]:
    """A room's floor on plan, by its place in ``federation.rooms``; most rooms are one polygon."""
    known = federation.rooms[index]
    model = federation.models[known.model]
    room = next(r for r in model.outline.rooms if r.global_id == known.global_id)
    flat = np.concatenate([room.floor, np.zeros((*room.floor.shape[:2], 1))], axis=-1)
    area = shapely.union_all(shapely.polygons(model.alignment.apply(flat)[..., :2]), grid_size=1e-4)
    return [p for p in getattr(area, "geoms", [area]) if p.geom_type == "Polygon" and p.area > 0]
