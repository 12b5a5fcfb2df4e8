"""The history of what people edit: noted by itself each time that one of their rows is changed, by a person, an import or a job.

A session that knows who works (``session.info["author"]``) writes one entry for each row that a flush changes. The
number of the last entry of a thing is its version.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from datetime import date, datetime, time
from typing import Any

from sqlalchemy import event, func, inspect, select
from sqlalchemy.orm import Session

from stairpath.core.review.history import ChangedField
from stairpath.core.review.topic import TopicFields, changes
from stairpath.store.rows import readable
from stairpath.store.tables import (
    Base,
    ChangeMade,
    ComponentSet,
    Folder,
    Meeting,
    MeetingPoint,
    Topic,
    Viewpoint,
)

EDITED: dict[type[Base], tuple[str, ...]] = {
    Topic: ("said", "views", "related", "links", "question", "removed_at"),
    Viewpoint: ("name", "view", "folder", "removed_at"),
    Folder: ("name", "within", "removed_at"),
    ComponentSet: ("name", "conditions", "steps", "sums", "columns", "removed_at"),
    Meeting: (
        "title", "held_on", "ended_at", "present", "absent", "from_time", "to_time", "next_on", "next_time", "topics",
        "removed_at",
    ),
    MeetingPoint: ("text", "decision", "who", "until", "removed_at"),
}  # fmt: skip
"""What people edit of which tables. The order of viewpoints and folders in lists is not in it."""


def _text(value: object) -> str:
    """A value as text; empty for what is none."""
    if isinstance(value, bool):
        return "yes" if value else ""
    if isinstance(value, datetime):
        return value.isoformat(timespec="seconds")
    if isinstance(value, time):
        return value.isoformat("minutes")
    return str(value) if isinstance(value, str | date) else ""


def _changed(name: str, old: Any, new: Any) -> Iterator[ChangedField]:
    if name == "removed_at":
        if (old is None) != (new is None):
            yield ChangedField("deleted", "" if old is None else "yes", "" if new is None else "yes")
    elif isinstance(new, TopicFields):
        for each in changes(old, new):
            yield from _changed(each.field, each.old, each.new)
    elif isinstance(new, list | tuple) and all(isinstance(each, str) for each in (*new, *(old or ()))):
        gone, come = ("\n".join(each for each in a if each not in b) for a, b in ((old or (), new), (new, old or ())))
        yield ChangedField(name, gone, come)
    else:
        yield ChangedField(name, _text(old), _text(new))


def changed_fields(row: Any, names: Sequence[str]) -> Iterator[ChangedField]:
    """What was changed of some columns of a row that is not flushed yet, and from what to what."""
    for name in names:
        past = inspect(row).attrs[name].history
        if past.added and past.deleted and past.added[0] != past.deleted[0]:
            yield from _changed(name, past.deleted[0], past.added[0])


def _entry(session: Session, row: Any) -> ChangeMade | None:
    """The entry for a row that was changed; None where nothing of it is edited by people or all is as it was."""
    fields = list(changed_fields(row, EDITED.get(type(row), ())))
    if not fields:
        return None
    whole = session.get(Meeting, row.meeting_id) if isinstance(row, MeetingPoint) else None
    of = row if whole is None else whole
    return ChangeMade(
        project_id=of.project_id, thing_id=row.id, whole_id=None if whole is None else whole.id,
        kind=type(row).__tablename__, author=session.info["author"], fields=fields,
    )  # fmt: skip


@event.listens_for(Session, "before_flush")
def _note(session: Session, *_: object) -> None:
    if "author" in session.info:
        with session.no_autoflush:
            session.add_all(list(filter(None, (_entry(session, row) for row in session.dirty))))


def version(session: Session, thing_id: str) -> int:
    """The version of a thing that people edit: a number that grows with each change; 0 for one that was never changed."""
    return session.scalar(select(func.max(ChangeMade.number)).where(ChangeMade.thing_id == thing_id)) or 0


def since(session: Session, thing_id: str, number: int) -> list[ChangeMade]:
    """What was changed of a thing after a version, oldest first."""
    wanted = select(ChangeMade).where(ChangeMade.thing_id == thing_id, ChangeMade.number > number)
    return readable(session.scalars(wanted.order_by(ChangeMade.number)))


def history(session: Session, thing_id: str) -> list[ChangeMade]:
    """What was changed of a thing and of its parts, the last first."""
    wanted = select(ChangeMade).where((ChangeMade.thing_id == thing_id) | (ChangeMade.whole_id == thing_id))
    return readable(session.scalars(wanted.order_by(ChangeMade.number.desc())))
