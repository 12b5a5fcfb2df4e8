"""The building to draw: its head, and where what is per component and per chunk is fetched."""

from __future__ import annotations

from dataclasses import dataclass

from stairpath.core.cache import Cache
from stairpath.store import blobs
from stairpath.store.documents import Building, Placed
from stairpath.store.federations import PLACES_TYPE as PLACES_TYPE
from stairpath.store.federations import PLAN_TYPE as PLAN_TYPE
from stairpath.store.readings import COLUMNS_TYPE as COLUMNS_TYPE
from stairpath.store.tables import Chunk as Chunk
from stairpath.store.tables import Model, Project
from stairpath.store.walks import TILE_TYPE as TILE_TYPE
from stairpath.work.base.project_rows import Rows, rows_of
from stairpath.work.base.unit_of_work import read_only


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


def _head_of(rows: Rows) -> Head:
    drawn: list[Drawn] = []
    first = 0
    for model in rows.models:
        placed, frame = model.placed, model.frame
        if placed is None or frame is None or placed.columns is None or frame.columns is None:
            continue
        drawn.append(Drawn(model, placed, first, frame.components, frame.columns, rows.chunks[model.id]))
        first += frame.components
    return Head(rows.project, rows.building, drawn)


_heads: Cache[Rows, Head] = Cache(
    32, owner_of=lambda rows: rows.project.id, size_of=lambda head: 4096 * (1 + len(head.models))
)


def head(project_id: str) -> Head:
    """What the stage draws; models that are being put in their place are left out until they are.

    The same object is given for as long as nothing of it changed.
    """
    with read_only() as look:
        rows = rows_of(look, project_id)
        return _heads.get(rows, lambda: _head_of(rows))


def kept_bytes(project_id: str, sha256: str) -> tuple[bytes, str] | None:
    """What a project was given under a hash, and its media type; None for what it has not."""
    with read_only() as look:
        return blobs.load_in(look.session, project_id, sha256)
