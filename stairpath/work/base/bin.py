"""The bin of a project: what was deleted of it within the last days, of whatever kind, to be restored."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Any

from stairpath.store import rows
from stairpath.work.base.lookup import FOLDER, MEETING, MEETING_POINT, ROUTE, SET, TASK, TOPIC, TOPIC_FILE, VIEWPOINT
from stairpath.work.base.lookup import Kind as KindOfThing
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import read_only

KEPT_DAYS = 30
"""For how many days people find in the bin what was deleted."""

IN_BIN: dict[str, KindOfThing[Any]] = {
    "topic": TOPIC,
    "topic_file": TOPIC_FILE,
    "viewpoint": VIEWPOINT,
    "folder": FOLDER,
    "meeting": MEETING,
    "meeting_point": MEETING_POINT,
    "set": SET,
    "route": ROUTE,
    "task": TASK,
}
"""What the bin lists. Models are not in it: the list of models has those that were removed."""


@dataclass(frozen=True)
class Deleted:
    """A thing that was deleted: its kind, its name, when it was deleted, and the name of what it is a part of."""

    kind: str
    id: str
    name: str
    removed_at: datetime
    of: str
    by: str
    """Who made it; empty where nobody is noted."""


def deleted_things(project_id: str) -> list[Deleted]:
    """What was deleted of a project within ``KEPT_DAYS``, the last one first.

    A part of what was deleted itself is not listed: it comes back with that.
    """
    since = datetime.now(UTC) - timedelta(days=KEPT_DAYS)
    with read_only() as look:
        project = in_use(look, project_id)
        found = []
        for name, kind in IN_BIN.items():
            part = None if kind.whole is None else (kind.whole[0].table, kind.whole[1])
            for row, whole in rows.removed(look.session, kind.table, project.id, since, part):
                of = kind.whole[0].title(whole) if kind.whole is not None else ""
                found.append(Deleted(name, row.id, kind.title(row), row.removed_at, of, getattr(row, "author", "")))
    return sorted(found, key=lambda each: each.removed_at, reverse=True)
