"""Viewpoints."""

from __future__ import annotations

import base64
import binascii
import io
from datetime import UTC, datetime

from fastapi import APIRouter, HTTPException
from PIL import Image, UnidentifiedImageError
from sqlalchemy import select
from sqlalchemy.orm import Session

from stairpath.api import shapes
from stairpath.api.lookups import Database, TheProject
from stairpath.store import blobs
from stairpath.store.database import tell
from stairpath.store.tables import Viewpoint

router = APIRouter(prefix="/api", tags=["views"])

_LARGEST_PICTURE = 8 << 20


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
