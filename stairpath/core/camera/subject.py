"""What a view is to frame: everything, a component, a room or a storey, as the points to be inside."""

from __future__ import annotations

from collections.abc import Collection

import numpy as np
import numpy.typing as npt

from stairpath.core.federation.federate import FederatedModel, Federation, level_named
from stairpath.core.federation.rooms import NoSuchSubjectError, room_named, room_points
from stairpath.core.reading.model import Geometry

Array = npt.NDArray[np.float64]


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
