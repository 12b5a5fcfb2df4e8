"""The rows of topics."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from stairpath.store.rows import by_id, readable
from stairpath.store.tables import Topic, TopicFile, TopicLook, TopicNote, now


def topics(session: Session, project_id: str, removed: bool = False) -> list[Topic]:
    """The project's topics by number and variant; those that were deleted too if so wanted."""
    of_project = select(Topic).where(Topic.project_id == project_id)
    if not removed:
        of_project = of_project.where(Topic.removed_at.is_(None))
    return readable(session.scalars(of_project.order_by(Topic.number, Topic.variant)))


def topic_by_id(session: Session, topic_id: str, hold: bool = False) -> Topic | None:
    """A topic, deleted or not; held until the transaction ends if so wanted."""
    return by_id(session, Topic, topic_id, hold)


def topic_by_guid(session: Session, project_id: str, guid: str) -> Topic | None:
    """A project's topic by what exchange files call it, deleted or not."""
    return session.scalar(select(Topic).where(Topic.project_id == project_id, Topic.guid == guid))


def by_guids(session: Session, project_id: str, guids: Sequence[str]) -> dict[str, Topic]:
    """A project's topics by what exchange files call them, deleted or not; held until the transaction ends."""
    wanted = select(Topic).where(Topic.project_id == project_id, Topic.guid.in_(guids)).with_for_update()
    return {row.guid: row for row in session.scalars(wanted)}


def given(session: Session, project_id: str) -> set[tuple[int, str]]:
    """The numbers and variants that a project has given, to deleted topics too."""
    return set(session.execute(select(Topic.number, Topic.variant).where(Topic.project_id == project_id)).tuples())


def files(session: Session, topic_id: str) -> list[TopicFile]:
    """The files and links of a topic that were not taken away, oldest first."""
    of_topic = select(TopicFile).where(TopicFile.topic_id == topic_id, TopicFile.removed_at.is_(None))
    return list(session.scalars(of_topic.order_by(TopicFile.at, TopicFile.id)))


def files_of(session: Session, project_id: str) -> list[TopicFile]:
    """The files and links of a project's topics, by topic, oldest first."""
    wanted = select(TopicFile).join(Topic, Topic.id == TopicFile.topic_id)
    wanted = wanted.where(Topic.project_id == project_id, Topic.removed_at.is_(None), TopicFile.removed_at.is_(None))
    return list(session.scalars(wanted.order_by(Topic.number, Topic.variant, TopicFile.at, TopicFile.id)))


def last_number(session: Session, project_id: str) -> int:
    """The highest number that the project has given, to deleted topics too; 0 for none."""
    return session.scalar(select(func.max(Topic.number)).where(Topic.project_id == project_id)) or 0


def variants(session: Session, project_id: str, number: int) -> list[str]:
    """The variants that a number has, those of deleted topics too."""
    return list(session.scalars(select(Topic.variant).where(Topic.project_id == project_id, Topic.number == number)))


def notes(session: Session, topic_id: str) -> list[TopicNote]:
    """What was written of a topic and what was changed of it, oldest first."""
    of_topic = select(TopicNote).where(TopicNote.topic_id == topic_id, TopicNote.removed_at.is_(None))
    return readable(session.scalars(of_topic.order_by(TopicNote.at, TopicNote.id)))


def notes_of(session: Session, topic_ids: Sequence[str]) -> dict[str, list[TopicNote]]:
    """What was written and changed of each of some topics, oldest first; asked for at once."""
    found: dict[str, list[TopicNote]] = {each: [] for each in topic_ids}
    wanted = select(TopicNote).where(TopicNote.topic_id.in_(topic_ids), TopicNote.removed_at.is_(None))
    for note in readable(session.scalars(wanted.order_by(TopicNote.at, TopicNote.id))):
        found[note.topic_id].append(note)
    return found


def note_by_id(session: Session, note_id: str) -> TopicNote | None:
    """Something that was written of a topic, deleted or not."""
    return session.get(TopicNote, note_id)


def views_of_comments(session: Session, project_id: str) -> list[tuple[str, str]]:
    """The views with which comments of the project were written, each with its topic's id."""
    wanted = select(TopicNote.view, TopicNote.topic_id).join(Topic, Topic.id == TopicNote.topic_id)
    rows = session.execute(
        wanted.where(Topic.project_id == project_id, TopicNote.view.is_not(None), TopicNote.removed_at.is_(None))
    )
    return [(view, topic_id) for view, topic_id in rows if view]


def writers(session: Session, project_id: str) -> set[str]:
    """Who wrote of the project's topics or changed them."""
    wanted = select(TopicNote.author).join(Topic, Topic.id == TopicNote.topic_id).where(Topic.project_id == project_id)
    return set(session.scalars(wanted.distinct()))


def add(session: Session, row: Topic | TopicNote | TopicFile) -> None:
    """Keep a new one."""
    session.add(row)
    session.flush()


def looked(session: Session, project_id: str, who: str) -> dict[str, TopicLook]:
    """When somebody last looked at the project's topics, by their ids."""
    of_project = select(TopicLook).join(Topic).where(Topic.project_id == project_id, TopicLook.who == who)
    return {look.topic_id: look for look in session.scalars(of_project)}


def look_at(session: Session, topic_id: str, who: str) -> None:
    """Note that somebody looked at a topic just now."""
    session.merge(TopicLook(topic_id=topic_id, who=who, at=now()))
