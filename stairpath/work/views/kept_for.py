"""What viewpoints were kept for: topics, comments on them, and meetings."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from stairpath.store import meetings, topics
from stairpath.store.tables import Project
from stairpath.work.base.unit_of_work import UnitOfWork
from stairpath.work.topics.rules import rules_of
from stairpath.work.topics.topics import called


@dataclass(frozen=True)
class KeptFor:
    """What a viewpoint was kept for: a topic or a comment on it, by its reference, or a meeting, by its title."""

    kind: Literal["topic", "meeting"]
    id: str
    name: str


def kept_for(look: UnitOfWork, project: Project) -> dict[str, list[KeptFor]]:
    """What the project's viewpoints were kept for, by their ids; each topic and meeting once."""
    found: dict[str, dict[str, KeptFor]] = {}
    rules = rules_of(project)
    by_id = {topic.id: topic for topic in topics.topics(look.session, project.id)}
    pairs = [(view, topic.id) for topic in by_id.values() for view in topic.views]
    for view, topic_id in [*pairs, *topics.views_of_comments(look.session, project.id)]:
        if topic_id in by_id:
            name = called(by_id[topic_id], rules)
            found.setdefault(view, {})[topic_id] = KeptFor("topic", topic_id, name)
    for view, meeting_id, title in meetings.views_of_points(look.session, project.id):
        found.setdefault(view, {})[meeting_id] = KeptFor("meeting", meeting_id, title)
    return {view: list(each.values()) for view, each in found.items()}
