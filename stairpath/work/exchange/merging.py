"""What a topic of a file says, and what it comes to beside the one that is here."""

from __future__ import annotations

from datetime import UTC, datetime

from stairpath.core.exchange import topic as bcf_topic
from stairpath.core.review.statuses import Statuses
from stairpath.core.review.topic import (
    LONGEST_TEXT,
    LONGEST_TITLE,
    MOST_LABELS,
    Merged,
    TopicFields,
    changes,
    merged,
)
from stairpath.store.tables import Topic
from stairpath.work.exchange.extension import Extension

WORD_LETTERS = 200


def said_in(topic: bcf_topic.Topic, statuses: Statuses) -> TopicFields:
    """What a file says of a topic, no longer than topics are here."""
    labels = tuple(dict.fromkeys(label.strip()[:WORD_LETTERS] for label in topic.labels if label.strip()))[:MOST_LABELS]
    status = topic.status.strip()[:WORD_LETTERS]
    known = next((s.name for s in statuses.all if s.name.casefold() == status.casefold()), status)
    return TopicFields(
        title=" ".join(topic.title.split())[:LONGEST_TITLE],
        description=topic.description.strip()[:LONGEST_TEXT],
        kind=topic.kind.strip()[:WORD_LETTERS],
        status=known or statuses.first,
        priority=topic.priority.strip()[:WORD_LETTERS],
        assigned_to=topic.assigned_to.strip()[:WORD_LETTERS],
        due=topic.due.date() if topic.due else None,
        labels=labels,
        stage=topic.stage.strip()[:WORD_LETTERS],
    )


def aware(at: datetime) -> datetime:
    """A time with its zone; one that says none is of UTC."""
    return at if at.tzinfo else at.replace(tzinfo=UTC)


def merged_with(row: Topic, topic: bcf_topic.Topic, theirs: TopicFields, beside: Extension | None) -> Merged:
    """What a topic that is here and one of a file come to, field by field.

    What both were when they were exchanged last tells which side changed; where nobody knows, a file that is newer counts.
    """
    base = beside.said if beside else row.exchanged
    if base is not None:
        return merged(base, row.said, theirs)
    if _since(row, topic):
        return Merged(theirs, ())
    return Merged(row.said, tuple(changes(row.said, theirs)))


def _since(row: Topic, topic: bcf_topic.Topic) -> bool:
    """Whether a file has a topic as it stood here or later, so that what it says otherwise was changed there.

    Other programs do not always move the time of a change with the change.
    """
    here = row.changed_at.replace(microsecond=0)
    return aware(topic.modified_at or topic.created_at) >= here
