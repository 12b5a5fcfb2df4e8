"""The rules by which things are removed for good, as a worker applies them once an hour."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta

from stairpath.store import emptying, record
from stairpath.work.base.bin import KEPT_DAYS
from stairpath.work.base.unit_of_work import WORKER, unit_of_work

UNUSED_DAYS = 7
"""So long bytes stay that nothing refers to any more."""


@dataclass(frozen=True)
class Emptied:
    """How many things, projects, hashes and bytes were removed for good."""

    things: int = 0
    projects: int = 0
    blobs: int = 0
    bytes: int = 0


def empty(now: datetime | None = None) -> Emptied:
    """Remove what lay in the bin for ``KEPT_DAYS``, and bytes that nothing has referred to for ``UNUSED_DAYS``.

    Of several workers one does it. What of it concerns a project stands in its record; that a whole project was removed
    stands in the server's.
    """
    at = now or datetime.now(UTC)
    with unit_of_work(WORKER) as act:
        if not emptying.hold_alone(act.session):
            return Emptied()
        old = at - timedelta(days=KEPT_DAYS)
        projects = emptying.empty_bin_of_projects(act.session, old)
        for project_id, name in projects:
            record.note(act.session, record.SERVER, "removed for good", "project", project_id, name)
        things = emptying.empty_bins(act.session, old)
        for project_id, count in things.items():
            title = "1 thing that was" if count == 1 else f"{count} things that were"
            record.note(
                act.session, project_id, "removed for good", "bin", title=f"{title} in the bin for {KEPT_DAYS} days"
            )
    with unit_of_work(WORKER) as act:
        if not emptying.hold_alone(act.session):
            return Emptied()
        emptying.note_unused(act.session, at)
        blobs, size = emptying.remove_unused(act.session, at - timedelta(days=UNUSED_DAYS))
    return Emptied(sum(things.values()), len(projects), blobs, size)
