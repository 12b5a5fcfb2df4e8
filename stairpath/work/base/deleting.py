"""Deleting a thing so that it can be restored: it stays, with the time at which it was deleted."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any

from stairpath.store.rows import Row
from stairpath.work.base.lookup import Kind, find
from stairpath.work.base.unit_of_work import UnitOfWork, Who, unit_of_work


def delete(who: Who, kind: Kind[Row], row_id: str) -> None:
    """Delete a thing of a project. Raises what ``find`` raises, also for one that is deleted already."""
    with unit_of_work(who) as act:
        _set_removed(act, kind, find(act, kind, row_id, hold=True), datetime.now(UTC))


def restore(who: Who, kind: Kind[Row], row_id: str) -> Row:
    """Restore a thing that was deleted; one that was not stays as it is."""
    with unit_of_work(who) as act:
        return restored(act, kind, row_id)


def restored(act: UnitOfWork, kind: Kind[Row], row_id: str) -> Row:
    """Restore a thing within a unit of work."""
    row = find(act, kind, row_id, hold=True, removed=True)
    _set_removed(act, kind, row, None)
    return row


def _set_removed(act: UnitOfWork, kind: Kind[Row], row: Any, at: datetime | None) -> None:
    row.removed_at = at
    act.tell(row.project_id, kind.event, what=row.id)
