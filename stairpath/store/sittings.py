"""The rows of meetings."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session

from stairpath.store.tables import Sitting, SittingPoint


def sittings(session: Session, project_id: str) -> list[Sitting]:
    """The project's meetings that were not deleted, the last one first."""
    of_project = select(Sitting).where(Sitting.project_id == project_id, Sitting.removed_at.is_(None))
    return list(session.scalars(of_project.order_by(Sitting.started_at.desc())))


def sitting_by_id(session: Session, sitting_id: str, hold: bool = False) -> Sitting | None:
    """A meeting, deleted or not; held until the transaction ends if so wanted."""
    return session.get(Sitting, sitting_id, with_for_update=hold or None, populate_existing=hold)


def points(session: Session, sitting_id: str) -> list[SittingPoint]:
    """What was noted in a meeting and not taken away, in its order."""
    of_sitting = select(SittingPoint).where(SittingPoint.sitting_id == sitting_id, SittingPoint.removed_at.is_(None))
    return list(session.scalars(of_sitting.order_by(SittingPoint.at, SittingPoint.id)))


def add(session: Session, row: Sitting | SittingPoint) -> None:
    """Keep a new one."""
    session.add(row)
    session.flush()
