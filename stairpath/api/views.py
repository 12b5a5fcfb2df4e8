"""Framing and viewpoints."""

from __future__ import annotations

import base64
import binascii
import io
from collections import OrderedDict
from datetime import UTC, datetime
from threading import Lock

import numpy as np
import numpy.typing as npt
from fastapi import APIRouter, HTTPException
from PIL import Image, UnidentifiedImageError
from sqlalchemy import select
from sqlalchemy.orm import Session

from stairpath.api import shapes
from stairpath.api.lookups import Database, TheProject
from stairpath.core.camera.framing import NothingToFrameError, frame
from stairpath.core.reading.model import Geometry
from stairpath.core.reading.pack import unpack
from stairpath.store import blobs
from stairpath.store.database import tell
from stairpath.store.federations import live_models
from stairpath.store.tables import Component, Model, Viewpoint

router = APIRouter(prefix="/api", tags=["views"])

_LARGEST_PICTURE = 8 << 20
_KEPT_GEOMETRIES = 64
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
) -> list[npt.NDArray[np.float64]]:
    geometry = _geometry(database, model.geometry or "")
    if geometry is None or model.placed is None:
        return []
    matrix = np.array(model.placed["matrix"])
    matrix[:3, 3] -= origin
    return [
        geometry.points_of(i, matrix)
        for i, owner in enumerate(geometry.owner)
        if owner >= 0 and (only is None or int(owner) in only)
    ]


def _wanted(database: Session, models: list[Model], wish: shapes.FrameWish) -> dict[str, set[int] | None]:
    """Which ordinals of which model to frame; None for all of them."""
    if wish.components is None:
        return {m.id: None for m in models if m.stands}
    asked: dict[str, list[str]] = {}
    for ref in wish.components:
        asked.setdefault(ref.model, []).append(ref.global_id)
    return {
        model_id: set(
            database.scalars(
                select(Component.ordinal).where(Component.model_id == model_id, Component.global_id.in_(global_ids))
            )
        )
        for model_id, global_ids in asked.items()
    }


@router.post("/projects/{project_id}/frame")
def fit(database: Database, project: TheProject, wish: shapes.FrameWish) -> shapes.Pose:
    """The pose that fits components, or all, into the frame."""
    origin = np.array((project.federation or {}).get("origin_m", [0, 0, 0]), dtype=np.float64)
    models = live_models(database, project.id)
    wanted = _wanted(database, models, wish)
    points = [p for m in models if m.id in wanted for p in _points(database, m, origin, wanted[m.id])]
    try:
        pose = frame(
            np.concatenate(points) if points else np.zeros((0, 3)),
            wish.bearing_deg, wish.tilt_deg, wish.aspect, wish.projection, wish.angle_deg, wish.margin,
        )  # fmt: skip
    except NothingToFrameError as error:
        raise HTTPException(409, "There is nothing to fit; show or add something first.") from error
    return shapes.Pose(
        eye_m=list(pose.eye_m), target_m=list(pose.target_m), up=list(pose.up), projection=pose.projection,
        angle_deg=pose.angle_deg, height_m=pose.height_m,
    )  # fmt: skip


def _shape(viewpoint: Viewpoint) -> shapes.Viewpoint:
    return shapes.Viewpoint(
        id=viewpoint.id,
        name=viewpoint.name,
        author=viewpoint.author,
        created_at=viewpoint.created_at,
        picture=viewpoint.picture,
        view=shapes.View.model_validate(viewpoint.view),
    )


@router.get("/projects/{project_id}/viewpoints")
def list_viewpoints(database: Database, project: TheProject) -> list[shapes.Viewpoint]:
    """The project's viewpoints, newest first."""
    rows = database.scalars(
        select(Viewpoint)
        .where(Viewpoint.project_id == project.id, Viewpoint.removed_at.is_(None))
        .order_by(Viewpoint.created_at.desc())
    )
    return [_shape(row) for row in rows]


def _picture(encoded: str) -> bytes:
    try:
        data = base64.b64decode(encoded, validate=True)
    except binascii.Error as error:
        raise HTTPException(422, "The viewpoint's picture is not base64; keep the view again.") from error
    if len(data) > _LARGEST_PICTURE:
        raise HTTPException(
            413, "The viewpoint's picture is larger than 8 MB; make the window smaller and keep the view again."
        )
    try:
        with Image.open(io.BytesIO(data)) as image:
            image.verify()
            kind = image.format
    except (UnidentifiedImageError, OSError, SyntaxError, ValueError) as error:
        raise HTTPException(422, "The viewpoint's picture is not a PNG; keep the view again.") from error
    if kind != "PNG":
        raise HTTPException(422, "The viewpoint's picture is not a PNG; keep the view again.")
    return data


@router.post("/projects/{project_id}/viewpoints", status_code=201)
def keep_viewpoint(database: Database, project: TheProject, wish: shapes.NewViewpoint) -> shapes.Viewpoint:
    """Keep a view with its picture."""
    viewpoint = Viewpoint(
        project_id=project.id,
        name=wish.name.strip() or "Untitled",
        author=wish.author,
        picture=blobs.keep(database, _picture(wish.picture_png), "image/png"),
        view=wish.view.model_dump(mode="json"),
    )
    database.add(viewpoint)
    database.flush()
    tell(database, project.id)
    return _shape(viewpoint)


def _viewpoint(database: Session, viewpoint_id: str) -> Viewpoint:
    found = database.get(Viewpoint, viewpoint_id)
    if found is None:
        raise HTTPException(404, "There is no such viewpoint; it may have been made in another project.")
    return found


@router.get("/viewpoints/{viewpoint_id}")
def get_viewpoint(database: Database, viewpoint_id: str) -> shapes.Viewpoint:
    """One viewpoint, for a link to it."""
    found = _viewpoint(database, viewpoint_id)
    if found.removed_at is not None:
        raise HTTPException(410, f"The viewpoint {found.name} was deleted; ask {found.author} for another link.")
    return _shape(found)


@router.put("/viewpoints/{viewpoint_id}/name")
def rename_viewpoint(database: Database, viewpoint_id: str, wish: shapes.NewName) -> shapes.Viewpoint:
    """Give a viewpoint another name."""
    found = _viewpoint(database, viewpoint_id)
    if not wish.name.strip():
        raise HTTPException(422, "A viewpoint needs a name; type one.")
    found.name = wish.name.strip()
    tell(database, found.project_id)
    return _shape(found)


@router.delete("/viewpoints/{viewpoint_id}", status_code=204)
def delete_viewpoint(database: Database, viewpoint_id: str) -> None:
    """Delete a viewpoint; it can be restored."""
    found = _viewpoint(database, viewpoint_id)
    found.removed_at = datetime.now(UTC)
    tell(database, found.project_id)


@router.post("/viewpoints/{viewpoint_id}/restore")
def restore_viewpoint(database: Database, viewpoint_id: str) -> shapes.Viewpoint:
    """Bring back a deleted viewpoint."""
    found = _viewpoint(database, viewpoint_id)
    found.removed_at = None
    tell(database, found.project_id)
    return _shape(found)
