"""Files that are attached to topics."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import IO

from stairpath.core.reading.intake import size_of
from stairpath.core.review.topic import TopicChange
from stairpath.store import blobs, topics
from stairpath.store.tables import TopicFile as TopicFile
from stairpath.store.tables import TopicNote
from stairpath.work.base import project_limits
from stairpath.work.base.errors import MissingError, WrongError
from stairpath.work.base.lookup import TOPIC_FILE, find
from stairpath.work.base.unit_of_work import Who, read_only, unit_of_work
from stairpath.work.topics.topics import there, touch

MOST_FILES = 100


def attach(who: Who, topic_id: str, name: str, content: IO[bytes]) -> TopicFile:
    """Attach a file to a topic; its history says so."""
    with unit_of_work(who) as act:
        topic = there(act, topic_id, hold=True)
        if len(topics.files(act.session, topic.id)) >= MOST_FILES:
            raise WrongError(f"A topic has at most {MOST_FILES} files; take one away first.")
        project_limits.room_for(act, act.project(topic.project_id), name, size_of(content))
        sha, size = blobs.keep_stream(act.session, topic.project_id, content, "application/octet-stream")
        row = TopicFile(topic_id=topic.id, name=name, sha256=sha, size=size, author=who.said)
        topics.add(act.session, row)
        topics.add(
            act.session, TopicNote(topic_id=topic.id, author=who.said, changed=[TopicChange("file", None, name)])
        )
        touch(act, topic)
        return row


def content(file_id: str) -> tuple[str, bytes]:
    """The name and the bytes of a file."""
    with read_only() as look:
        row = find(look, TOPIC_FILE, file_id)
        held = blobs.load(look.session, row.sha256) if row.sha256 else None
        if held is None:
            raise MissingError(f"{row.name} is a link to {row.url or 'nothing'}; open it there.")
        return row.name, held[0]


def take_away(who: Who, file_id: str) -> None:
    """Take a file away from its topic; it can be brought back."""
    with unit_of_work(who) as act:
        row = find(act, TOPIC_FILE, file_id, removed=True)
        topic = there(act, row.topic_id, hold=True)
        if row.removed_at is None:
            row.removed_at = datetime.now(UTC)
            change = TopicChange("file", row.name, None)
            topics.add(act.session, TopicNote(topic_id=topic.id, author=who.said, changed=[change]))
            touch(act, topic)


def bring_back(who: Who, file_id: str) -> None:
    """Bring back a file that was taken away."""
    with unit_of_work(who) as act:
        row = find(act, TOPIC_FILE, file_id, removed=True)
        row.removed_at = None
        touch(act, there(act, row.topic_id, hold=True))
