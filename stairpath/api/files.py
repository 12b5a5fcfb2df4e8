"""Chunks, pictures and key plans by their hash, for ever the same."""

from __future__ import annotations

import re

from fastapi import APIRouter, HTTPException
from fastapi.responses import Response

from stairpath.api import shapes
from stairpath.api.lookups import Database
from stairpath.store import blobs
from stairpath.store.federations import PLAN_TYPE
from stairpath.store.walks import TILE_TYPE

router = APIRouter(prefix="/api", tags=["files"])

_SHOWN = {"model/gltf-binary", "image/png"}


def _kept(database: Database, sha256: str, types: set[str]) -> Response:
    if not re.fullmatch(r"[0-9a-f]{64}", sha256):
        raise HTTPException(422, "A file is asked for by its SHA-256 in hexadecimal.")
    found = blobs.load(database, sha256)
    if found is None or found[1] not in types:
        raise HTTPException(404, "There is no such file; reload the page.")
    return Response(found[0], media_type=found[1], headers={"Cache-Control": "public, max-age=31536000, immutable"})


@router.get("/blobs/{sha256}", response_class=Response)
def get_blob(database: Database, sha256: str) -> Response:
    """A chunk (GLB) or a picture (PNG)."""
    return _kept(database, sha256, _SHOWN)


@router.get("/keyplans/{sha256}", response_class=Response, responses={200: {"model": shapes.KeyPlan}})
def get_key_plan(database: Database, sha256: str) -> Response:
    """The key plan of a level, as the core drew it."""
    return _kept(database, sha256, {PLAN_TYPE})


@router.get("/walk-tiles/{sha256}", response_class=Response)
def get_walk_tile(database: Database, sha256: str) -> Response:
    """A tile of a walk map; little-endian, as the core packs it."""
    found = _kept(database, sha256, {TILE_TYPE})
    found.headers["Content-Encoding"] = "gzip"
    return found
