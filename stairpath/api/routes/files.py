"""Chunks, columns, pictures, key plans and walk tiles of a project by their hash, for ever the same."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Header, HTTPException, Path
from fastapi.responses import Response

from stairpath.api import schemas
from stairpath.api.http.door import asks
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.core.people.roles import Action
from stairpath.work.building import head
from stairpath.work.building.head import COLUMNS_TYPE, PLACES_TYPE, PLAN_TYPE, TILE_TYPE

router = APIRouter(prefix="/api/projects/{project_id}", tags=["files"], responses=ERROR_RESPONSES)

_SHOWN = {"model/gltf-binary", "image/png"}
Hash = Annotated[str, Path(pattern="^[0-9a-f]{64}$", description="SHA-256 in hexadecimal")]
Known = Annotated[str, Header(alias="If-None-Match")]


def _binary(*types: str) -> dict[int | str, dict[str, object]]:
    shape = {"schema": {"type": "string", "format": "binary"}}
    return {
        200: {"content": {kind: shape for kind in types}, "description": "The bytes."},
        304: {"description": "It is as the asker knows it; what a hash names never changes."},
    }


def _kept(project_id: str, sha256: str, types: set[str], known: str, gzipped: bool = False) -> Response:
    # The browser keeps it for this sign-in alone: the next has another cookie.
    headers = {"Cache-Control": "private, max-age=31536000, immutable", "Vary": "Cookie", "ETag": f'"{sha256}"'}
    if sha256 in known:
        return Response(status_code=304, headers=headers)
    found = head.kept_bytes(project_id, sha256)
    if found is None or found[1] not in types:
        raise HTTPException(404, "There is no such file; reload the page.")
    if gzipped:
        headers["Content-Encoding"] = "gzip"
    return Response(found[0], media_type=found[1], headers=headers)


@router.get("/blobs/{sha256}", response_class=Response, responses=_binary(*sorted(_SHOWN)))
@asks(Action.LOOK)
def get_blob(project_id: str, sha256: Hash, known: Known = "") -> Response:
    """A chunk (GLB) or a picture (PNG)."""
    return _kept(project_id, sha256, _SHOWN, known)


@router.get("/columns/{sha256}", response_class=Response, responses=_binary(COLUMNS_TYPE, PLACES_TYPE))
@asks(Action.LOOK)
def get_columns(project_id: str, sha256: Hash, known: Known = "") -> Response:
    """What is per component of a model, as columns: names, or places; the layout is that of ``core/columns``."""
    return _kept(project_id, sha256, {COLUMNS_TYPE, PLACES_TYPE}, known, gzipped=True)


@router.get(
    "/keyplans/{sha256}",
    response_class=Response,
    responses={200: {"model": schemas.KeyPlan}, 304: _binary()[304]},
)
@asks(Action.LOOK)
def get_key_plan(project_id: str, sha256: Hash, known: Known = "") -> Response:
    """The key plan of a level, as the core drew it."""
    return _kept(project_id, sha256, {PLAN_TYPE}, known)


@router.get("/walk-tiles/{sha256}", response_class=Response, responses=_binary(TILE_TYPE))
@asks(Action.LOOK)
def get_walk_tile(project_id: str, sha256: Hash, known: Known = "") -> Response:
    """A tile of a walk map; little-endian, as the core packs it."""
    return _kept(project_id, sha256, {TILE_TYPE}, known, gzipped=True)
