"""The rows of meetings."""

from __future__ import annotations

from sqlalchemy import select
from sqlalchemy.orm import Session

from stairpath.store.tables import Meeting, MeetingPoint


def meetings(session: Session, project_id: str) -> list[Meeting]:
    """The project's meetings that were not deleted, the last one first."""
    of_project = select(Meeting).where(Meeting.project_id == project_id, Meeting.removed_at.is_(None))
    return list(session.scalars(of_project.order_by(Meeting.started_at.desc())))


def meeting_by_id(session: Session, meeting_id: str, hold: bool = False) -> Meeting | None:
    """A meeting, deleted or not; held until the transaction ends if so wanted."""
    return session.get(Meeting, meeting_id, with_for_update=hold or None, populate_existing=hold)


def points(session: Session, meeting_id: str) -> list[MeetingPoint]:
    """What was noted in a meeting and not taken away, in its order."""
    of_meeting = select(MeetingPoint).where(MeetingPoint.meeting_id == meeting_id, MeetingPoint.removed_at.is_(None))
    return list(session.scalars(of_meeting.order_by(MeetingPoint.at, MeetingPoint.id)))


def views_of_points(session: Session, project_id: str) -> list[tuple[str, str, str]]:
    """The views that were noted in meetings of the project, each with its meeting's id and title."""
    wanted = select(MeetingPoint.view, Meeting.id, Meeting.title).join(Meeting, Meeting.id == MeetingPoint.meeting_id)
    rows = session.execute(
        wanted.where(
            Meeting.project_id == project_id, Meeting.removed_at.is_(None),
            MeetingPoint.view.is_not(None), MeetingPoint.removed_at.is_(None),
        )
    )  # fmt: skip
    return [(view, meeting_id, title) for view, meeting_id, title in rows if view]


def named(session: Session, project_id: str) -> set[str]:
    """Who was named in meetings of the project that were not deleted: present, absent, or to do something."""
    lists = select(Meeting.present, Meeting.absent).where(
        Meeting.project_id == project_id, Meeting.removed_at.is_(None)
    )
    points_ = select(MeetingPoint.who).join(Meeting, Meeting.id == MeetingPoint.meeting_id)
    points_ = points_.where(Meeting.project_id == project_id, Meeting.removed_at.is_(None))
    people = {name for row in session.execute(lists) for each in row for name in each}
    return people | set(session.scalars(points_.where(MeetingPoint.removed_at.is_(None))))


def add(session: Session, row: Meeting | MeetingPoint) -> None:
    """Keep a new one."""
    session.add(row)
    session.flush()
