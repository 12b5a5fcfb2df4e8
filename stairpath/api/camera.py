"""Where the camera stands: framing, standard directions, lenses, square-on and level views."""

from __future__ import annotations

import base64
import binascii
import math
from collections import OrderedDict
from threading import Lock

import numpy as np
import numpy.typing as npt
from fastapi import APIRouter, HTTPException
from pydantic import ValidationError
from sqlalchemy import func, select
from sqlalchemy.orm import Session

from stairpath.api import shapes
from stairpath.api.lookups import Database, TheProject
from stairpath.core.camera import directions, lens, square
from stairpath.core.camera.framing import NothingToFrameError, frame
from stairpath.core.camera.pose import Pose
from stairpath.core.camera.subject import points_of
from stairpath.core.reading.model import Geometry
from stairpath.core.reading.pack import unpack
from stairpath.store import blobs
from stairpath.store.federations import live_models
from stairpath.store.tables import Component, Json, Model

router = APIRouter(prefix="/api", tags=["camera"])

_KEPT_GEOMETRIES = 64
_LEAST_REACH_M = 1e-6
_geometries: OrderedDict[str, Geometry] = OrderedDict()
_lock = Lock()


def _geometry(database: Session, sha: str) -> Geometry | None:
    """A model's geometry, the last few kept in memory."""
    with _lock:
        if sha in _geometries:
            _geometries.move_to_end(sha)
            return _geometries[sha]
    kept = blobs.load(database, sha)
    if kept is None:
        return None
    geometry = unpack(kept[0])
    with _lock:
        _geometries[sha] = geometry
        while len(_geometries) > _KEPT_GEOMETRIES:
            _geometries.popitem(last=False)
    return geometry


def _points(
    database: Session, model: Model, origin: npt.NDArray[np.float64], only: set[int] | None
) -> npt.NDArray[np.float64]:
    geometry = _geometry(database, model.geometry or "")
    if geometry is None or model.placed is None:
        return np.zeros((0, 3))
    matrix = np.array(model.placed["matrix"])
    matrix[:3, 3] -= origin
    return points_of(geometry, matrix, only)


def _named(database: Session, wish: list[shapes.ComponentRef]) -> dict[str, set[int]]:
    """Ordinals by model of components that are named."""
    asked: dict[str, list[str]] = {}
    for ref in wish:
        asked.setdefault(ref.model, []).append(ref.global_id)
    return {
        model_id: set(
            database.scalars(
                select(Component.ordinal).where(Component.model_id == model_id, Component.global_id.in_(global_ids))
            )
        )
        for model_id, global_ids in asked.items()
    }


def _on_level(database: Session, models: list[Model], level: int) -> dict[str, set[int]]:
    return {
        m.id: set(
            database.scalars(select(Component.ordinal).where(Component.model_id == m.id, Component.level == level))
        )
        for m in models
        if m.stands
    }


def _among(database: Session, models: list[Model], encoded: str) -> dict[str, set[int]]:
    """Ordinals by model of the components whose bit is set, in the order of the federation's dense numbers."""
    try:
        given = np.frombuffer(base64.b64decode(encoded, validate=True), dtype=np.uint8)
    except binascii.Error as error:
        raise HTTPException(422, "The set of components is not base64; reload the page.") from error
    bits = np.unpackbits(given, bitorder="little").astype(bool)
    found: dict[str, set[int]] = {}
    first = 0
    for model in models:
        if model.placed is None:
            continue
        count = database.scalar(select(func.count()).where(Component.model_id == model.id)) or 0
        found[model.id] = set(np.flatnonzero(bits[first : first + count]).tolist())
        first += count
    if not first <= len(bits) < first + 8:
        raise HTTPException(409, "The building has just changed; try again.")
    return found


def _room_corners(federation: Json, index: int, origin: npt.NDArray[np.float64]) -> npt.NDArray[np.float64]:
    rooms = federation.get("rooms", [])
    if not 0 <= index < len(rooms):
        raise HTTPException(404, "There is no such room; the building may have changed, reload the page.")
    corners: npt.NDArray[np.float64] = np.array(rooms[index]["corners_m"]).reshape(-1, 3) - origin
    return corners


@router.post("/projects/{project_id}/frame")
def fit(database: Database, project: TheProject, wish: shapes.FrameWish) -> shapes.Pose:
    """The pose that fits components, a room, a level, or all, into the frame."""
    federation = project.federation or {}
    origin = np.array(federation.get("origin_m", [0, 0, 0]), dtype=np.float64)
    if wish.room is not None:
        points = _room_corners(federation, wish.room, origin)
    else:
        models = live_models(database, project.id)
        wanted: dict[str, set[int]] | dict[str, None]
        if wish.components is not None:
            wanted = _named(database, wish.components)
        elif wish.level is not None:
            wanted = _on_level(database, models, wish.level)
        elif wish.among is not None:
            wanted = _among(database, models, wish.among)
        else:
            wanted = {m.id: None for m in models if m.stands}
        found = [_points(database, m, origin, wanted[m.id]) for m in models if m.id in wanted]
        points = np.concatenate(found) if found else np.zeros((0, 3))
    try:
        pose = frame(points, wish.bearing_deg, wish.tilt_deg, wish.aspect, wish.projection, wish.angle_deg, wish.margin)
    except NothingToFrameError as error:
        raise HTTPException(409, "There is nothing to fit; show or add something first.") from error
    return _shape(pose)


def _shape(pose: Pose) -> shapes.Pose:
    try:
        return shapes.Pose(
            eye_m=list(pose.eye_m), target_m=list(pose.target_m), up=list(pose.up), projection=pose.projection,
            angle_deg=pose.angle_deg, height_m=pose.height_m,
        )  # fmt: skip
    except ValidationError as error:
        raise HTTPException(422, "The view would stand farther away than can be drawn; fit something first.") from error


def _pose(shape: shapes.Pose, aspect: float) -> Pose:
    eye, target, up = ((v[0], v[1], v[2]) for v in (shape.eye_m, shape.target_m, shape.up))
    if math.dist(eye, target) < _LEAST_REACH_M:
        raise HTTPException(422, "The view looks nowhere; fit something first.")
    look = np.subtract(target, eye) / math.dist(eye, target)
    if np.linalg.norm(np.cross(look, up)) < _LEAST_REACH_M:
        raise HTTPException(422, "The view has no way up; fit something first.")
    return Pose(eye, target, up, shape.projection, shape.angle_deg, shape.height_m, aspect)


@router.get("/camera/directions")
def list_directions() -> list[shapes.Direction]:
    """The 26 standard directions about a front that is looked at along bearing zero."""
    return [
        shapes.Direction(name=d.name, bearing_deg=d.bearing_deg, tilt_deg=d.tilt_deg) for d in directions.standard()
    ]


@router.post("/camera/face")
def look_at_face(wish: shapes.FaceWish) -> shapes.Look:
    """The direction that looks square onto a face."""
    try:
        bearing, tilt = square.onto_face((wish.normal[0], wish.normal[1], wish.normal[2]), wish.bearing_deg)
    except ValueError as error:
        raise HTTPException(422, str(error)) from error
    return shapes.Look(bearing_deg=bearing, tilt_deg=tilt)


@router.post("/camera/axis")
def look_at_axis(wish: shapes.AxisWish) -> shapes.Look:
    """The level direction that looks square onto a grid line."""
    (x0, y0), (x1, y1) = wish.ends_m
    try:
        bearing = square.along_axis((x0, y0), (x1, y1), wish.bearing_deg)
    except ValueError as error:
        raise HTTPException(422, str(error)) from error
    return shapes.Look(bearing_deg=bearing, tilt_deg=0.0)


@router.post("/camera/lens")
def change_lens(wish: shapes.LensWish) -> shapes.Pose:
    """The view through a lens that was typed as an angle or a focal length."""
    try:
        return _shape(lens.with_angle(_pose(wish.pose, wish.aspect), lens.typed_angle(wish.text), wish.keep))
    except ValueError as error:
        raise HTTPException(422, str(error)) from error


@router.post("/camera/projection")
def change_projection(wish: shapes.ProjectionWish) -> shapes.Pose:
    """The view in perspective or parallel, what is at the pivot keeping its size."""
    pivot = (wish.pivot_m[0], wish.pivot_m[1], wish.pivot_m[2]) if wish.pivot_m else None
    return _shape(lens.with_projection(_pose(wish.pose, wish.aspect), wish.to, pivot))


@router.post("/camera/level")
def make_level(wish: shapes.LevelWish) -> shapes.Pose:
    """The view with its line of sight level, so that verticals are vertical."""
    return _shape(lens.levelled(_pose(wish.pose, wish.aspect)))


@router.post("/camera/scale")
def draw_to_scale(wish: shapes.ScaleWish) -> shapes.Pose:
    """The parallel view drawn at a true scale on the screen."""
    pose = lens.with_projection(_pose(wish.pose, wish.aspect), "parallel")
    try:
        height = lens.height_for_scale(wish.scale, wish.height_px, wish.pixel_mm)
    except ValueError as error:
        raise HTTPException(422, str(error)) from error
    return _shape(Pose(pose.eye_m, pose.target_m, pose.up, "parallel", pose.angle_deg, height, pose.aspect))
