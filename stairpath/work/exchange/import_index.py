"""What a project has of what some topics of a file name: asked for at once, and kept at once at the end."""

from __future__ import annotations

from collections.abc import Sequence

from stairpath.core.exchange.bcf.markup import guid_of
from stairpath.core.exchange.topic import Topic as FromFile
from stairpath.store import kept, topics
from stairpath.store.tables import Topic, TopicFile, TopicNote, Viewpoint
from stairpath.work.base.unit_of_work import UnitOfWork


class ImportIndex:
    """Topics and viewpoints of a project by their GUIDs, the numbers that it has given, and what is to be kept."""

    def __init__(self, act: UnitOfWork, project_id: str, these: Sequence[FromFile]) -> None:
        self._session = act.session
        views = [guid_of(view.guid) for topic in these for view in topic.viewpoints]
        self.topics = topics.by_guids(act.session, project_id, [guid_of(topic.guid) for topic in these])
        self.views = kept.viewpoints_by_guids(act.session, project_id, views)
        self._given = topics.given(act.session, project_id)
        self._last = max((number for number, _ in self._given), default=0)
        self._new_views: list[Viewpoint] = []
        self._new_topics: dict[str, Topic] = {}
        self._beside: list[TopicNote | TopicFile] = []

    def add_view(self, row: Viewpoint) -> None:
        """Keep a viewpoint; it has its id already."""
        self._new_views.append(row)
        self.views[row.guid] = row

    def add_topic(self, row: Topic) -> None:
        """Keep a topic; it has its id already."""
        self._new_topics[row.id] = row
        self.topics[row.guid] = row
        self._given.add((row.number, row.variant))
        self._last = max(self._last, row.number)

    def add(self, row: TopicNote | TopicFile) -> None:
        """Keep what was written of a topic, or what is attached to it."""
        self._beside.append(row)

    def is_free(self, number: int, variant: str) -> bool:
        """Whether a number and variant were never given, not to a deleted topic either."""
        return (number, variant) not in self._given

    @property
    def next_number(self) -> int:
        """The number of the next topic."""
        return self._last + 1

    def notes(self, topic: Topic) -> list[TopicNote]:
        """What was written of a topic so far; a new one has nothing."""
        held = [] if topic.id in self._new_topics else topics.notes(self._session, topic.id)
        return [*held, *(row for row in self._beside if isinstance(row, TopicNote) and row.topic_id == topic.id)]

    def files(self, topic: Topic) -> list[TopicFile]:
        """What is attached to a topic so far; a new one has nothing."""
        return [] if topic.id in self._new_topics else topics.files(self._session, topic.id)

    def keep(self) -> None:
        """Keep all of it: first what others name."""
        for rows in (self._new_views, list(self._new_topics.values()), self._beside):
            self._session.add_all(rows)
            self._session.flush()
