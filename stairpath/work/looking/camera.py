"""Where the camera stands to see something of a project."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.camera.extreme import telling_points
from stairpath.core.camera.framing import Slopes
from stairpath.core.camera.inside import Room, doors_beside, opened_from_above
from stairpath.core.cutting.cuts import Cut, active_planes
from stairpath.core.geometry.origin import about, placed_about
from stairpath.core.geometry.plane import NotAPlaneError, Plane
from stairpath.store import components, federations
from stairpath.store.documents import Building
from stairpath.store.tables import Model
from stairpath.work.base.errors import MissingError, UnfitError, WrongError
from stairpath.work.base.project_rows import rows_of
from stairpath.work.base.unit_of_work import UnitOfWork, read_only
from stairpath.work.building.placed import count_of, placed_of

Array = npt.NDArray[np.float64]
Mask = npt.NDArray[np.bool_]


@dataclass(frozen=True)
class Subject:
    """What is to be seen: components by model and GlobalId, a room or a level by its place in the lists, those
    whose bit is set, points about the origin, or, with nothing named, everything that stands in the building.
    """

    components: list[tuple[str, str]] | None = None
    room: int | None = None
    level: int | None = None
    among: bytes | None = None
    points: tuple[tuple[float, ...], ...] | None = None


@dataclass(frozen=True)
class Framed:
    """Points (n, 3) about the project's origin that are to be inside, and the models that lie elsewhere."""

    points: Array
    elsewhere: list[str]


def _room_corners(building: Building, index: int) -> Array:
    if not 0 <= index < len(building.rooms):
        raise MissingError("There is no such room; the building may have changed, reload the page.")
    return about(np.array(building.rooms[index].corners_m).reshape(-1, 3), building.origin_m)


def _doors(act: UnitOfWork, models: Sequence[Model], origin_m: Array) -> Array:
    """The boxes (n, 2, 3) of all doors that stand in the building, about its origin."""
    found = [np.zeros((0, 2, 3))]
    for model in models:
        if model.stands and model.placed is not None:
            own = about(federations.places(act.session, model)["bounds_m"], origin_m)
            found.append(own[components.of_class(act.session, model.id, "IfcDoor")])
    boxes = np.concatenate(found)
    return boxes[~np.isnan(boxes).any(axis=(1, 2))]


def room_within(project_id: str, index: int, cuts: Sequence[Cut]) -> tuple[Room, bool]:
    """A room by its place in the federation's list, about the project's origin, and whether cuts have taken its lid off."""
    with read_only() as act:
        rows = rows_of(act, project_id)
        building = rows.building
        if not 0 <= index < len(building.rooms):
            raise MissingError("There is no such room; the building may have changed, reload the page.")
        room = building.rooms[index]
        model = next((m for m in rows.models if m.id == building.models[room.model]), None)
        drawn = [r for r in model.frame.rooms if r.global_id == room.global_id] if model and model.frame else []
        if model is None or model.placed is None or not drawn:
            raise UnfitError("The building is being put together again. Try again in a moment.")
        floor = np.array(drawn[0].floor, dtype=np.float64).reshape(-1, 3, 2)
        matrix = placed_about(model.placed.matrix, building.origin_m)
        doors = _doors(act, rows.models, np.array(building.origin_m))
    placed = floor @ matrix[:2, :2].T + matrix[:2, 3]
    rise = matrix[2, 3]
    low, high = drawn[0].low_m + rise, drawn[0].high_m + rise
    found = Room(placed, low, high, doors_beside(doors, low))
    return found, opened_from_above(found, _planes(cuts, np.array(building.origin_m)))


def _planes(cuts: Sequence[Cut], origin: Array) -> list[Plane]:
    """The planes of cuts that are on, about the project's origin."""
    try:
        return [each.moved(-origin) for _, each in active_planes(cuts)]
    except NotAPlaneError as error:
        raise WrongError(str(error)) from error


def _mask(model: Model, ordinals: list[int]) -> Mask:
    wanted = np.zeros(count_of(model), dtype=bool)
    wanted[[k for k in ordinals if k < len(wanted)]] = True
    return wanted


def _among(there: list[Model], given: bytes) -> dict[str, Mask]:
    """Components by model whose bit is set, in the order of the federation's dense numbers."""
    bits = np.unpackbits(np.frombuffer(given, dtype=np.uint8), bitorder="little").astype(bool)
    found: dict[str, Mask] = {}
    first = 0
    for model in there:
        found[model.id] = bits[first : first + count_of(model)]
        first += count_of(model)
    if not first <= len(bits) < first + 8:
        raise UnfitError("The building has just changed; try again.")
    return found


def _wanted(act: UnitOfWork, there: list[Model], subject: Subject) -> dict[str, Mask]:
    if subject.components is not None:
        asked: dict[str, list[str]] = {}
        for model_id, global_id in subject.components:
            asked.setdefault(model_id, []).append(global_id)
        return {m.id: _mask(m, components.ordinals(act.session, m.id, asked[m.id])) for m in there if m.id in asked}
    if subject.among is not None:
        return _among(there, subject.among)
    stand = [m for m in there if m.stands]
    columns = {m.id: federations.places(act.session, m) for m in stand}
    near = {key: ~column["apart"] for key, column in columns.items()}
    if subject.level is not None:
        return {key: near[key] & (column["level"] == subject.level) for key, column in columns.items()}
    # Where nothing that stands is near, all that stands is the building.
    return near if any(mask.any() for mask in near.values()) else {key: ~mask for key, mask in near.items()}


def subject_points(
    project_id: str,
    subject: Subject,
    bearing_deg: float,
    tilt_deg: float,
    slopes: Sequence[Slopes],
    cuts: Sequence[Cut] = (),
) -> Framed:
    """The points that decide how a subject is framed, seen along a bearing and tilt; see ``telling_points``.

    What cuts take away does not count.
    """
    with read_only() as act:
        rows = rows_of(act, project_id)
        origin = np.array(rows.building.origin_m)
        if subject.points is not None:
            return Framed(np.array(subject.points, dtype=np.float64).reshape(-1, 3), [])
        if subject.room is not None:
            return Framed(_room_corners(rows.building, subject.room), [])
        there = [m for m in rows.models if m.placed is not None]
        try:
            wanted = _wanted(act, there, subject)
            found = [placed_of(act, m, origin, wanted[m.id]) for m in there if m.id in wanted]
        except federations.ChangedError:
            raise UnfitError("The building is being put together again. Try again in a moment.") from None
        planes = _planes(cuts, origin)
        points = telling_points([p for p in found if p is not None], bearing_deg, tilt_deg, slopes, planes)
        whole = subject == Subject()
        far = [m.name for m in there if m.placed is not None and m.placed.elsewhere and m.stands]
        return Framed(points, far if whole and len(far) < len(there) else [])
