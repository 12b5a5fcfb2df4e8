"""What a view is to frame: everything, a component, a room or a storey, as the points to be inside."""

from __future__ import annotations

from collections.abc import Collection

import numpy as np
import numpy.typing as npt

from stairpath.core.federation.federate import FederatedModel, Federation, level_named
from stairpath.core.reading.model import Geometry

Array = npt.NDArray[np.float64]


class NoSuchSubjectError(LookupError):
    """The building holds nothing of that name."""


def points_of(geometry: Geometry, to: Array, owners: Collection[int] | None = None) -> Array:
    """Corner points (n, 3) of components, moved by the matrix ``to``; of all components for None."""
    wanted = None if owners is None else set(owners)
    found = [
        geometry.points_of(placed, to)
        for placed, owner in enumerate(geometry.owner)
        if (owner >= 0 if wanted is None else int(owner) in wanted)
    ]
    return np.concatenate(found) if found else np.zeros((0, 3))


def _standing(federation: Federation) -> list[FederatedModel]:
    return [model for model in federation.models if model.stands]


def _component(federation: Federation, global_id: str) -> Array:
    for model in federation.models:
        if global_id in model.outline.global_ids:
            owner = model.outline.global_ids.index(global_id)
            return points_of(model.outline.geometry, model.alignment.matrix, {owner})
    raise NoSuchSubjectError(f"There is no component {global_id}; give its GlobalId.")


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


def storey_points(federation: Federation, level: int) -> Array:
    """Corner points (n, 3) of all components on a level."""
    found = [
        points_of(m.outline.geometry, m.alignment.matrix, np.flatnonzero((m.level == level) & ~m.apart).tolist())
        for m in _standing(federation)
    ]
    return np.concatenate(found) if found else np.zeros((0, 3))


def all_points(federation: Federation) -> Array:
    """Corner points (n, 3) of everything that stands in the building; what stands far from it is left out."""
    found = [
        points_of(m.outline.geometry, m.alignment.matrix, np.flatnonzero(~m.apart).tolist())
        for m in _standing(federation)
    ]
    return np.concatenate(found) if found else np.zeros((0, 3))


def elsewhere(federation: Federation) -> list[str]:
    """The names of standing models that stand so far from the building that a fit of all leaves them out."""
    return [m.outline.name for m in _standing(federation) if m.elsewhere]


def subject(federation: Federation, wish: str) -> Array:
    """Points (n, 3) for ``all``, ``room:NAME``, ``storey:NAME`` or a GlobalId.

    Raises NoSuchSubjectError or NoSuchStoreyError with a sentence.
    """
    kind, _, name = wish.partition(":")
    if wish == "all":
        return all_points(federation)
    if kind == "room" and name:
        return room_points(federation, room_named(federation, name))
    if kind == "storey" and name:
        return storey_points(federation, level_named(federation, name))
    return _component(federation, wish)
