"""The building to draw: its head, and where what is per component and per chunk is fetched."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from stairpath.store import blobs
from stairpath.store.documents import Building, Placed
from stairpath.store.tables import Chunk, Model, Project
from stairpath.work.deed import looking
from stairpath.work.remembered import Rows, rows_of


@dataclass(frozen=True)
class Drawn:
    """A model on the stage; ``first`` is the dense number of its first component."""

    model: Model
    placed: Placed
    first: int
    count: int
    columns: str
    chunks: list[Chunk]


@dataclass(frozen=True, eq=False)
class Head:
    """A project's building as it is drawn."""

    project: Project
    building: Building
    models: list[Drawn]


@lru_cache(maxsize=32)
def _head(rows: Rows) -> Head:
    drawn: list[Drawn] = []
    first = 0
    for model in rows.models:
        placed, frame = model.placed, model.frame
        if placed is None or frame is None or placed.columns is None or frame.columns is None:
            continue
        drawn.append(Drawn(model, placed, first, frame.components, frame.columns, rows.chunks[model.id]))
        first += frame.components
    return Head(rows.project, rows.building, drawn)


def head(project_id: str) -> Head:
    """What the stage draws; models that are being put in their place are left out until they are.

    The same object is given for as long as nothing of it changed.
    """
    with looking() as look:
        return _head(rows_of(look, project_id))


def kept_bytes(sha256: str) -> tuple[bytes, str] | None:
    """What is kept under a hash, and its media type."""
    with looking() as look:
        return blobs.load(look.session, sha256)
