"""What is read of a project again and again, kept in memory for as long as its rows are the same."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from dataclasses import dataclass
from threading import Lock
from typing import Generic, TypeVar

from cachetools import LRUCache

from stairpath.store import models, projects
from stairpath.store.documents import Building
from stairpath.store.projects import building_of
from stairpath.store.tables import Chunk, Model, Project
from stairpath.work.deed import Deed
from stairpath.work.projects import in_use

_KEPT = 32

Key = TypeVar("Key", bound=Hashable)
Made = TypeVar("Made")


class Remembered(Generic[Key, Made]):
    """The last few things that were made, each by what it was made of; several threads may ask at once."""

    def __init__(self, most: int) -> None:
        self._kept: LRUCache[Key, Made] = LRUCache(most)
        self._lock = Lock()

    def get(self, key: Key, make: Callable[[], Made]) -> Made:
        """What was made of a key, made now if it is not kept; what ``make`` raises is raised, and nothing is kept."""
        with self._lock:
            known = self._kept.get(key)
        if known is None:
            known = make()
            with self._lock:
                self._kept[key] = known
        return known


@dataclass(frozen=True, eq=False)
class Rows:
    """A project in use with its models and their drawn pieces, as they are; for reading only."""

    project: Project
    building: Building
    models: list[Model]
    chunks: dict[str, list[Chunk]]


_kept: LRUCache[str, tuple[str, Rows]] = LRUCache(_KEPT)
_lock = Lock()


def rows_of(act: Deed, project_id: str) -> Rows:
    """The rows of a project; read anew where any of them was written since."""
    state = projects.state_of(act.session, project_id)
    with _lock:
        known = _kept.get(project_id)
    if known is not None and known[0] == state:
        return known[1]
    # Read after the state: what is kept may be newer than it says, and is then read once more, but never older.
    project = in_use(act, project_id)
    there = models.live_models(act.session, project_id)
    rows = Rows(project, building_of(project), there, models.chunks_of(act.session, [m.id for m in there]))
    # Taken out of the session: what it gives up when something is refused later would be of no use to others.
    for row in (project, *there, *(chunk for chunks in rows.chunks.values() for chunk in chunks)):
        act.session.expunge(row)
    with _lock:
        _kept[project_id] = (state, rows)
    return rows
