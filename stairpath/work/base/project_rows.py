"""What is read of a project again and again, kept in memory for as long as its rows are the same."""

from __future__ import annotations

from dataclasses import dataclass

from stairpath.core.cache import Cache
from stairpath.store import models, projects
from stairpath.store.documents import Building
from stairpath.store.projects import building_of
from stairpath.store.tables import Chunk, Model, Project
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import UnitOfWork

_ROW_BYTES = 4096
"""About what a row with its documents takes."""


@dataclass(frozen=True, eq=False)
class Rows:
    """A project in use with its models and their drawn pieces, as they are; for reading only."""

    project: Project
    building: Building
    models: list[Model]
    chunks: dict[str, list[Chunk]]


def _size_of(rows: Rows) -> int:
    return _ROW_BYTES * (1 + len(rows.models) + sum(len(chunks) for chunks in rows.chunks.values()))


_kept: Cache[tuple[str, str], Rows] = Cache(64, owner_of=lambda key: key[0], size_of=_size_of)


def rows_of(act: UnitOfWork, project_id: str) -> Rows:
    """The rows of a project; read anew where any of them was written since."""
    # The state is read first: what is kept may be newer than it says, and is then read again, but never older.
    state = projects.state_of(act.session, project_id)
    return _kept.get((project_id, state), lambda: _read(act, project_id))


def _read(act: UnitOfWork, project_id: str) -> Rows:
    project = in_use(act, project_id)
    there = models.live_models(act.session, project_id)
    rows = Rows(project, building_of(project), there, models.chunks_of(act.session, [m.id for m in there]))
    # Taken out of the session: what it gives up when something is refused later would be of no use to others.
    for row in (project, *there, *(chunk for chunks in rows.chunks.values() for chunk in chunks)):
        act.session.expunge(row)
    return rows
