"""Topics: making them, changing them, writing of them, deleting them and bringing them back."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime

from stairpath.core.federation.disciplines import CODES
from stairpath.core.people.roles import Action
from stairpath.core.review.entries import Entries
from stairpath.core.review.given import given_to
from stairpath.core.review.recheck import OfFinding, Pair, pair
from stairpath.core.review.reference import NotAReferenceError, Reference, concerned, next_variant, written
from stairpath.core.review.rules import TopicRules
from stairpath.core.review.statuses import NotAStatusError
from stairpath.core.review.topic import (
    LONGEST_TEXT,
    NotATopicError,
    TopicFields,
    Value,
    changed,
    changes,
    overdue,
    tidy,
)
from stairpath.core.texts import trimmed
from stairpath.store import kept, projects, topics
from stairpath.store.tables import Topic, TopicFile
from stairpath.store.tables import TopicNote as TopicNote
from stairpath.work.base.deleting import restored
from stairpath.work.base.errors import UnfitError, WrongError
from stairpath.work.base.lookup import TASK, TOPIC, VIEWPOINT, all_within, find
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import UnitOfWork, Who, read_only, unit_of_work
from stairpath.work.building.topic_location import component_boxes, place_of
from stairpath.work.topics.rules import rules_of

WEB = ("http://", "https://")
_WRONG = (NotATopicError, NotAStatusError, NotAReferenceError)


@dataclass(frozen=True)
class Listed:
    """A topic as a list shows it: what it is called, whether it should have been settled, and whether it changed by another's hand
    since one looked at it.
    """

    topic: Topic
    reference: str
    overdue: bool
    new: bool = False


def called(topic: Topic, rules: TopicRules) -> str:
    """What a topic is called, as the project's rule has it."""
    return written(Reference(tuple(topic.disciplines), topic.number, topic.variant), rules.reference)


def listed_as(act: UnitOfWork, topic: Topic, new: bool = False) -> Listed:
    """A topic as a list shows it."""
    rules = rules_of(act.project(topic.project_id))
    return Listed(topic, called(topic, rules), overdue(topic.said, datetime.now(UTC).date(), rules.statuses), new)


def listed(who: Who, project_id: str) -> list[Listed]:
    """The project's topics by number; to who comes for the first time nothing is new."""
    with read_only() as look:
        project = in_use(look, project_id)
        seen = topics.looked(look.session, project.id, who.said)
        visit = projects.visit(look.session, project.id, who.said)

        def new(topic: Topic) -> bool:
            last = seen.get(topic.id)
            since = last.at if last else visit.first_at if visit else None
            return topic.news_by != who.said and since is not None and since < topic.news_at

        return [listed_as(look, topic, new(topic)) for topic in topics.topics(look.session, project.id)]


def any_yet(project_id: str) -> bool:
    """Whether a project has or had a topic."""
    with read_only() as look:
        return bool(topics.topics(look.session, in_use(look, project_id).id, removed=True))


def there(act: UnitOfWork, topic_id: str, hold: bool = False) -> Topic:
    """A topic of a project in use that was not deleted, held until the transaction ends if so wanted."""
    return find(act, TOPIC, topic_id, hold=hold)


def _related(act: UnitOfWork, topic: Topic, guids: Sequence[str]) -> list[str]:
    """Other topics of the same project by their GUIDs, each once, and those that a file named before they were here."""
    known = {row.guid for row in topics.topics(act.session, topic.project_id)} | set(topic.related)
    wanted = [guid for guid in dict.fromkeys(guids) if guid != topic.guid]
    if not known.issuperset(wanted):
        raise WrongError("One of the related topics is not in this project. Choose another.")
    return wanted


def _links(addresses: Sequence[str]) -> list[str]:
    """What a topic links to, each once: addresses of the web, and nothing that runs when it is clicked."""
    wrong = next((each for each in addresses if not each.lower().startswith(WEB)), None)
    if wrong is not None:
        raise WrongError(f"{wrong[:80]} is no address of the web. A link begins with http:// or https://.")
    return list(dict.fromkeys(addresses))


@dataclass(frozen=True)
class NewTopic:
    """What a topic begins with: what is said, its views, the disciplines of its components, of which one it is a variant, and of
    which finding it is made.
    """

    said: TopicFields
    views: Sequence[str] = ()
    disciplines: Sequence[str] = ()
    variant_of: str = ""
    finding: OfFinding | None = None
    links: Sequence[str] = ()


def make(who: Who, project_id: str, wish: NewTopic, guid: str | None = None) -> Listed:
    """Make a topic with the next number of the project, or the next variant of another topic's number."""
    with unit_of_work(who) as act:
        # Held, so that no two get the same number.
        project = in_use(act, project_id, hold=True)
        try:
            said = tidy(wish.said, rules_of(project).statuses)
            number, variant = topics.last_number(act.session, project.id) + 1, ""
            if wish.variant_of:
                number = find(act, TOPIC, wish.variant_of, within=project.id).number
                variant = next_variant(topics.variants(act.session, project.id, number))
        except _WRONG as error:
            raise WrongError(str(error)) from error
        if wish.finding is not None:
            find(act, TASK, wish.finding.check, within=project.id)
        row = Topic(
            project_id=project.id, number=number, variant=variant, said=said, author=who.said, changed_by=who.said,
            news_by=who.said, disciplines=list(concerned(wish.disciplines, CODES)), finding=wish.finding,
            views=all_within(act, VIEWPOINT, wish.views, project.id), links=_links(wish.links),
        )  # fmt: skip
        _locate(act, row)
        if guid is not None:
            row.guid = guid
        topics.add(act.session, row)
        act.tell(project.id, "topics", what=row.id)
        return listed_as(act, row)


def _locate(act: UnitOfWork, topic: Topic) -> None:
    """Work out where a topic is by what its views have picked, and whom it concerns where nobody said."""
    found = [kept.viewpoint_by_id(act.session, view) for view in topic.views]
    try:
        place = place_of(component_boxes(act, topic.project_id), [view.view for view in found if view is not None])
    except UnfitError:
        return  # a model is being read again; it stays where it was
    topic.level, topic.room, topic.at_m = place.level, place.room, list(place.at_m) if place.at_m else None
    topic.picked_pair = list(place.pair or ())
    topic.disciplines = topic.disciplines or list(place.disciplines)


def pairs_of(topic: Topic) -> list[Pair]:
    """The pairs of components that a topic is about: those of its finding, and the two that its view has picked."""
    pairs = list(topic.finding.pairs) if topic.finding else []
    if topic.picked_pair:
        pairs.append(pair(*topic.picked_pair))
    return list(dict.fromkeys(pairs))


@dataclass(frozen=True)
class Told:
    """A topic with everything that was written and changed of it, oldest first, and what is attached."""

    topic: Listed
    notes: Sequence[TopicNote]
    files: Sequence[TopicFile]


def one(topic_id: str) -> Told:
    """One topic, for a link to it."""
    with read_only() as look:
        topic = there(look, topic_id)
        return Told(listed_as(look, topic), topics.notes(look.session, topic.id), topics.files(look.session, topic.id))


def look_at(who: Who, topic_id: str) -> None:
    """Note that somebody has seen a topic as it is."""
    with unit_of_work(who) as act:
        topics.look_at(act.session, there(act, topic_id).id, who.said)


def touch(act: UnitOfWork, topic: Topic) -> None:
    """Note who changed a topic just now, and tell everyone."""
    topic.changed_by = topic.news_by = act.who.said
    topic.changed_at = topic.news_at = datetime.now(UTC)
    act.tell(topic.project_id, "topics", what=topic.id)


@dataclass(frozen=True)
class TopicWish:
    """What is to be changed of a topic: what is said of it, and its lists."""

    said: Mapping[str, Value]
    labels: Entries | None = None
    views: Entries | None = None
    related: Entries | None = None
    links: Entries | None = None


def change(who: Who, topic_id: str, wish: TopicWish) -> Listed:
    """Change what is said of a topic, its views or what it has to do with and links to; what is said is kept in its history."""
    with unit_of_work(who) as act:
        topic = there(act, topic_id, hold=True)
        try:
            return _change(act, topic, wish)
        except _WRONG as error:
            raise WrongError(str(error)) from error


def change_many(who: Who, project_id: str, wishes: Sequence[tuple[str, TopicWish]]) -> list[Listed]:
    """Change several topics of a project, all of them or none; the sentence of a refusal names the topic."""
    with unit_of_work(who) as act:
        rules = rules_of(in_use(act, project_id))
        found = []
        # Held in one order, so that two who change the same ones do not wait for each other for ever.
        for topic_id, wish in sorted(wishes, key=lambda each: each[0]):
            topic = find(act, TOPIC, topic_id, within=project_id, hold=True)
            who.check(Action.CHANGE_TOPIC, who.ties(topic.author, given_to(topic.said, topic.question)))
            try:
                found.append(_change(act, topic, wish))
            except _WRONG as error:
                raise WrongError(f"{called(topic, rules)}: {error} None of the topics was changed.") from error
        return found


def _change(act: UnitOfWork, topic: Topic, wish: TopicWish) -> Listed:
    """Change a topic that is held; raises what is said by the rules of topics."""
    said, views, related, links = wish.said, wish.views, wish.related, wish.links
    if wish.labels is not None:
        said = {**said, "labels": tuple(wish.labels.applied(topic.said.labels))}
    after = changed(topic.said, said, rules_of(act.project(topic.project_id)).statuses)
    told = changes(topic.said, after)
    if told:
        topic.said = after
        topics.add(act.session, TopicNote(topic_id=topic.id, author=act.who.said, changed=told))
    if views is not None:
        added = replace(views, add=tuple(all_within(act, VIEWPOINT, views.add, topic.project_id)))
        topic.views = added.applied(topic.views)
        _locate(act, topic)
    if related is not None:
        topic.related = _related(act, topic, related.applied(topic.related))
    if links is not None:
        topic.links = _links(links.applied(topic.links))
    if told or views is not None or related is not None or links is not None:
        touch(act, topic)
    return listed_as(act, topic)


def write(who: Who, topic_id: str, text: str, view: str | None = None) -> TopicNote:
    """Write of a topic, with a view or without."""
    with unit_of_work(who) as act:
        topic = there(act, topic_id, hold=True)
        if not trimmed(text):
            raise WrongError("There is nothing in the comment; type it.")
        if len(text) > LONGEST_TEXT:
            raise WrongError(f"A comment has at most {LONGEST_TEXT:,} letters; write the rest as another one.")
        if view is not None:
            all_within(act, VIEWPOINT, [view], topic.project_id)
        row = TopicNote(topic_id=topic.id, author=who.said, text=trimmed(text), view=view, changed=[])
        topics.add(act.session, row)
        touch(act, topic)
        return row


def bring_back(who: Who, topic_id: str) -> Listed:
    """Bring back a topic that was deleted."""
    with unit_of_work(who) as act:
        return listed_as(act, restored(act, TOPIC, topic_id))
