"""What a file of topics would bring, told before it is imported."""

from __future__ import annotations

from collections import Counter
from collections.abc import Collection, Sequence
from dataclasses import dataclass, field

from pydantic import TypeAdapter

from stairpath.core.exchange import topic as bcf_topic
from stairpath.core.exchange.bcf.markup import guid_of
from stairpath.core.exchange.words import in_our_words, words_in
from stairpath.core.review.rules import TopicRules
from stairpath.core.review.topic import TopicChange, changes
from stairpath.core.review.words import WordField, Words
from stairpath.store.tables import Project, Topic
from stairpath.work.base.unit_of_work import UnitOfWork
from stairpath.work.exchange.extension import extension_of
from stairpath.work.exchange.import_index import ImportIndex
from stairpath.work.exchange.merging import merged_with, said_in
from stairpath.work.topics import people
from stairpath.work.topics.rules import rules_of
from stairpath.work.topics.topics import called

PREVIEW = "preview"
_MOST_DIFFERENCES = 300
_MOST_WORDS = 200


@dataclass(frozen=True)
class UnknownWord:
    """A word of the file that the project does not know, how many topics have it, and what it becomes; nothing where
    it stays as it is.
    """

    field: WordField
    word: str
    count: int
    becomes: str = ""


@dataclass(frozen=True)
class Difference:
    """A field in which a topic that is here differs from the file; what is here is kept where it was changed here too."""

    topic: str
    reference: str
    title: str
    field: str
    here: str
    there: str
    kept: bool


@dataclass
class TopicsPreview:
    """What a file of topics would bring: how many are new, changed and unchanged, the words that the project does not know,
    and what differs field by field; ``left_out`` counts differences that are not listed.
    """

    new: int = 0
    changed: int = 0
    same: int = 0
    deleted: int = 0
    comments: int = 0
    viewpoints: int = 0
    unknown: list[UnknownWord] = field(default_factory=list)
    differences: list[Difference] = field(default_factory=list)
    left_out: int = 0
    problems: list[str] = field(default_factory=list)


class Previewing:
    """Looks through a file of topics; nothing is changed."""

    def __init__(self, look: UnitOfWork, project: Project, words: Words) -> None:
        self._project_id, self._words = project.id, words
        self._rules = rules_of(project)
        self._known = _known_words(self._rules, people.known(look, project.id))
        self._unknown: Counter[tuple[WordField, str]] = Counter()
        self.found = TopicsPreview()

    def look_through(self, look: UnitOfWork, these: Sequence[bcf_topic.Topic]) -> None:
        """Note what some topics of the file would bring."""
        here = ImportIndex(look, self._project_id, these)
        for raw in these:
            for name, word in words_in(raw):
                if word.casefold() not in self._known[name]:
                    self._unknown[name, word] += 1
            self._compare(here, in_our_words(raw, self._words))

    def _compare(self, here: ImportIndex, topic: bcf_topic.Topic) -> None:
        found, row = self.found, here.topics.get(guid_of(topic.guid))
        found.viewpoints += sum(guid_of(view.guid) not in here.views for view in topic.viewpoints)
        if row is None:
            found.new += 1
            found.comments += len(topic.comments)
            return
        written = {note.guid for note in here.notes(row)}
        comments = sum(guid_of(each.guid) not in written for each in topic.comments)
        found.comments += comments
        found.deleted += row.removed_at is not None
        theirs = said_in(topic, self._rules.statuses)
        came = merged_with(row, topic, theirs, extension_of(topic))
        told = changes(row.said, came.said)
        kept = [] if theirs == row.exchanged else came.contradicted
        if told or kept or comments or row.removed_at is not None:
            found.changed += 1
        else:
            found.same += 1
        for each, stays in [*((each, False) for each in told), *((each, True) for each in kept)]:
            self._differ(row, each, stays)

    def _differ(self, row: Topic, change: TopicChange, kept: bool) -> None:
        if len(self.found.differences) >= _MOST_DIFFERENCES:
            self.found.left_out += 1
            return
        here, there = (", ".join(v) if isinstance(v, (tuple, list)) else str(v or "") for v in (change.old, change.new))
        self.found.differences.append(
            Difference(row.id, called(row, self._rules), row.said.title, change.field, here, there, kept)
        )

    def told(self) -> TopicsPreview:
        """All that was found, the words that most topics have first."""
        order = ("status", "kind", "priority", "people")
        common = sorted(self._unknown.items(), key=lambda each: (order.index(each[0][0]), -each[1], each[0][1]))
        self.found.unknown = [
            UnknownWord(name, word, count, self._words.becomes(name, word))
            for (name, word), count in common[:_MOST_WORDS]
        ]
        return self.found


def _known_words(rules: TopicRules, names: Collection[str]) -> dict[str, set[str]]:
    """What the project knows by field, in small letters."""
    known = {
        "status": [each.name for each in rules.statuses.all], "kind": rules.kinds, "priority": rules.priorities,
        "people": names,
    }  # fmt: skip
    return {name: {word.casefold() for word in words} for name, words in known.items()}


def preview_of(data: bytes) -> TopicsPreview:
    """A preview as it was kept."""
    return TypeAdapter(TopicsPreview).validate_json(data)
