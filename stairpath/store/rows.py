"""Any row by its id, and rows of which everything can be read."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime
from functools import cache
from typing import Any, TypeVar

from sqlalchemy import select
from sqlalchemy.orm import Session

from stairpath.store.documents import Document
from stairpath.store.tables import Base

Row = TypeVar("Row", bound=Base)


@cache
def _documents(table: type[Base]) -> tuple[str, ...]:
    """The columns of a table that must hold a document."""
    return tuple(c.name for c in table.__table__.columns if isinstance(c.type, Document) and not c.nullable)


def is_readable(row: Base) -> bool:
    """Whether every document of a row could be read."""
    return all(getattr(row, name) is not None for name in _documents(type(row)))


def readable(rows: Iterable[Row]) -> list[Row]:
    """Rows without those of which a document cannot be read, so that one of them never takes a list with it."""
    return [row for row in rows if is_readable(row)]


def by_id(session: Session, table: type[Row], row_id: str, hold: bool = False) -> Row | None:
    """A row, deleted or not; held until the transaction ends if so wanted. None for one that cannot be read."""
    found = session.get(table, row_id, with_for_update=hold or None, populate_existing=hold)
    return found if found is not None and is_readable(found) else None


def removed(
    session: Session, table: Any, project_id: str, since: datetime, part_of: tuple[Any, str] | None = None
) -> list[tuple[Any, Any]]:
    """Rows of a project that were deleted since a time, each with the row that it is a part of, which is not deleted.

    ``part_of`` names the table of that row and the column with its id; without it a row is a part of nothing (None).
    """
    if part_of is None:
        wanted = select(table).where(table.project_id == project_id, table.removed_at >= since)
        return [(row, None) for row in readable(session.scalars(wanted))]
    whole, key = part_of
    both = (
        select(table, whole)
        .join(whole, getattr(table, key) == whole.id)
        .where(whole.project_id == project_id, whole.removed_at.is_(None), table.removed_at >= since)
    )
    return [(row, of) for row, of in session.execute(both) if is_readable(row) and is_readable(of)]
