"""Where the camera stands: framing, standard directions, lenses, square-on and level views."""

from __future__ import annotations

import base64
import binascii
import math

import numpy as np
from fastapi import APIRouter
from pydantic import ValidationError

from stairpath.api import schemas
from stairpath.api.http.door import asks
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.core.camera import directions, lens, square
from stairpath.core.camera.directions import Direction
from stairpath.core.camera.framing import Borders, NothingToFrameError, frame_beside, free_slopes
from stairpath.core.camera.inside import Room, opening, stand_in
from stairpath.core.camera.pose import Pose
from stairpath.core.camera.sighting import ANGLE_DEG
from stairpath.core.people.roles import Action
from stairpath.work.base.errors import UnfitError, WrongError
from stairpath.work.looking.camera import Subject, room_within, subject_points
from stairpath.work.looking.sighting import sighting

router = APIRouter(prefix="/api", tags=["camera"], responses=ERROR_RESPONSES)

_LEAST_REACH_M = 1e-6
_FROM_ABOVE_DEG = 25.0


def _subject(wish: schemas.FrameRequest) -> Subject:
    """What is to be seen; where several things are named the first of points, room, components, level and set counts."""
    if wish.points is not None:
        return Subject(points=tuple(map(tuple, wish.points)))
    if wish.room is not None:
        return Subject(room=wish.room)
    if wish.components is not None:
        return Subject(components=[(ref.model, ref.global_id) for ref in wish.components])
    if wish.level is not None:
        return Subject(level=wish.level)
    if wish.among is None:
        return Subject()
    try:
        return Subject(among=base64.b64decode(wish.among, validate=True))
    except (binascii.Error, ValueError) as error:
        raise WrongError("The set of components is not base64; reload the page.") from error


@router.post("/projects/{project_id}/frame")
@asks(Action.LOOK)
def fit(project_id: str, wish: schemas.FrameRequest) -> schemas.Framed:
    """The pose that fits components, a room, a level, or the building, into the frame, and what lies elsewhere.

    A room is looked at from within so that its floor, doors and walls are recognised; from outside only from above where
    cuts have taken its lid off, and square on, where a parallel view is opened before it.
    """
    opened_at = wish.open_at_m
    if wish.points is None and wish.room is not None and opened_at is None:
        room, lid_off = room_within(project_id, wish.room, wish.cuts)
        if not (lid_off and wish.tilt_deg >= _FROM_ABOVE_DEG):
            opened_at = opening(room, wish.bearing_deg, wish.tilt_deg) if wish.projection == "parallel" else None
            if opened_at is None:
                return _within(room, wish)
    ways = _ways(wish)
    slopes = [free_slopes(wish.aspect, wish.projection, wish.angle_deg, borders) for borders in ways]
    found = subject_points(project_id, _subject(wish), wish.bearing_deg, wish.tilt_deg, slopes, wish.cuts)
    try:
        pose = frame_beside(
            found.points, wish.bearing_deg, wish.tilt_deg, wish.aspect, wish.projection, wish.angle_deg, ways
        )
    except NothingToFrameError as error:
        raise UnfitError("There is nothing to fit; show or add something first.") from error
    through_m = 0.0
    if opened_at is not None and wish.projection == "parallel":
        pose, through_m = square.opened_at(pose, np.array(opened_at))
    shown = _shape(pose).model_copy(update={"through_m": through_m})
    return schemas.Framed(**shown.model_dump(), elsewhere=found.elsewhere)


@router.post("/projects/{project_id}/sighting")
@asks(Action.LOOK)
def sight(project_id: str, wish: schemas.SightingRequest) -> schemas.Sighting:
    """From where components that meet are both seen with what is around them, freely where that is possible."""
    x, y, z = wish.at_m
    found = sighting(project_id, wish.components, (x, y, z))
    return schemas.Sighting(
        bearing_deg=found.bearing_deg,
        tilt_deg=found.tilt_deg,
        angle_deg=ANGLE_DEG,
        around=found.around,
        boxed=found.boxed,
    )


def _ways(wish: schemas.FrameRequest) -> list[Borders]:
    """What stays free of the frame, for each way to keep clear of what lies over it."""
    ways = [Borders.around(wish.margin, c.left, c.right, c.bottom, c.top) for c in wish.covered]
    try:
        for borders in ways:
            borders.check()
    except ValueError as error:
        raise WrongError("What lies over the view leaves nothing of it; make the key plan smaller.") from error
    return ways


def _within(room: Room, wish: schemas.FrameRequest) -> schemas.Framed:
    ways = _ways(wish)
    try:
        pose = stand_in(room, wish.bearing_deg, wish.aspect, ways)
    except ValueError as error:
        raise UnfitError(str(error)) from error
    return schemas.Framed(**_shape(pose).model_dump(), elsewhere=[])


def _shape(pose: Pose) -> schemas.Pose:
    try:
        return schemas.Pose(
            eye_m=list(pose.eye_m), target_m=list(pose.target_m), up=list(pose.up), projection=pose.projection,
            angle_deg=pose.angle_deg, height_m=pose.height_m,
        )  # fmt: skip
    except ValidationError as error:
        raise WrongError("The view would stand farther away than can be drawn; fit something first.") from error


def _pose(shape: schemas.Pose, aspect: float) -> Pose:
    eye, target, up = ((v[0], v[1], v[2]) for v in (shape.eye_m, shape.target_m, shape.up))
    if math.dist(eye, target) < _LEAST_REACH_M:
        raise WrongError("The view looks nowhere; fit something first.")
    look = np.subtract(target, eye) / math.dist(eye, target)
    if np.linalg.norm(np.cross(look, up)) < _LEAST_REACH_M:
        raise WrongError("The view has no way up; fit something first.")
    return Pose(eye, target, up, shape.projection, shape.angle_deg, shape.height_m, aspect)


@router.get("/camera/directions")
@asks(Action.OWN_ACCOUNT)
def list_directions() -> list[Direction]:
    """The 26 standard directions about a front that is looked at along bearing zero."""
    return list(directions.standard())


@router.post("/camera/face")
@asks(Action.OWN_ACCOUNT)
def look_at_face(wish: schemas.FaceRequest) -> schemas.Look:
    """The direction that looks square onto a face."""
    try:
        bearing, tilt = square.onto_face((wish.normal[0], wish.normal[1], wish.normal[2]), wish.bearing_deg)
    except ValueError as error:
        raise WrongError(str(error)) from error
    return schemas.Look(bearing_deg=bearing, tilt_deg=tilt)


@router.post("/camera/axis")
@asks(Action.OWN_ACCOUNT)
def look_at_axis(wish: schemas.AxisRequest) -> schemas.Look:
    """The level direction that looks square onto a grid line."""
    (x0, y0), (x1, y1) = wish.ends_m
    try:
        bearing = square.along_axis((x0, y0), (x1, y1), wish.bearing_deg)
    except ValueError as error:
        raise WrongError(str(error)) from error
    return schemas.Look(bearing_deg=bearing, tilt_deg=0.0)


@router.post("/camera/lens")
@asks(Action.OWN_ACCOUNT)
def change_lens(wish: schemas.LensRequest) -> schemas.Pose:
    """The view through a lens that was typed as an angle or a focal length."""
    try:
        return _shape(lens.with_angle(_pose(wish.pose, wish.aspect), lens.typed_angle(wish.text), wish.keep))
    except ValueError as error:
        raise WrongError(str(error)) from error


@router.post("/camera/projection")
@asks(Action.OWN_ACCOUNT)
def change_projection(wish: schemas.ProjectionRequest) -> schemas.Pose:
    """The view in perspective or parallel, what is at the pivot keeping its size."""
    pivot = (wish.pivot_m[0], wish.pivot_m[1], wish.pivot_m[2]) if wish.pivot_m else None
    return _shape(lens.with_projection(_pose(wish.pose, wish.aspect), wish.to, pivot))


@router.post("/camera/level")
@asks(Action.OWN_ACCOUNT)
def make_level(wish: schemas.LevelRequest) -> schemas.Pose:
    """The view with its line of sight level, so that verticals are vertical."""
    return _shape(lens.levelled(_pose(wish.pose, wish.aspect)))


@router.post("/camera/scale")
@asks(Action.OWN_ACCOUNT)
def draw_to_scale(wish: schemas.ScaleRequest) -> schemas.Pose:
    """The parallel view drawn at a true scale on the screen."""
    pose = lens.with_projection(_pose(wish.pose, wish.aspect), "parallel")
    try:
        height = lens.height_for_scale(wish.scale, wish.height_px, wish.pixel_mm)
    except ValueError as error:
        raise WrongError(str(error)) from error
    return _shape(Pose(pose.eye_m, pose.target_m, pose.up, "parallel", pose.angle_deg, height, pose.aspect))
