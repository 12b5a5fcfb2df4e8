"""The building to draw: its head, and where what is per component and per chunk is fetched."""

from __future__ import annotations

from dataclasses import dataclass

from stairpath.store import blobs, models
from stairpath.store.documents import Building, Placed
from stairpath.store.projects import building_of
from stairpath.store.tables import Chunk, Model, Project
from stairpath.work.deed import looking
from stairpath.work.projects import in_use


@dataclass(frozen=True)
class Drawn:
    """A model on the stage; ``first`` is the dense number of its first component."""

    model: Model
    placed: Placed
    first: int
    count: int
    columns: str
    chunks: list[Chunk]


@dataclass(frozen=True)
class Head:
    """A project's building as it is drawn."""

    project: Project
    building: Building
    models: list[Drawn]


def head(project_id: str) -> Head:
    """What the stage draws; models that are being put in their place are left out until they are."""
    with looking() as look:
        project = in_use(look, project_id)
        drawn: list[Drawn] = []
        first = 0
        for model in models.live_models(look.session, project.id):
            placed, frame = model.placed, model.frame
            if placed is None or frame is None or placed.columns is None or frame.columns is None:
                continue
            chunks = models.chunks_of(look.session, model.id)
            drawn.append(Drawn(model, placed, first, frame.components, frame.columns, chunks))
            first += frame.components
        return Head(project, building_of(project), drawn)


def kept_bytes(sha256: str) -> tuple[bytes, str] | None:
    """What is kept under a hash, and its media type."""
    with looking() as look:
        return blobs.load(look.session, sha256)
