"""Meetings: beginning one with its agenda and folder, noting against topics, ending it, and its minutes."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import UTC, date, datetime, time

from stairpath.core.dates import spoken
from stairpath.core.exchange.printed import Item, Minutes
from stairpath.core.limits import Id, Word
from stairpath.core.review.entries import Entries
from stairpath.core.review.meeting import Known, NotAMeetingError, Point, agenda
from stairpath.core.review.meeting import held_on as day_held
from stairpath.core.review.order import moved
from stairpath.core.review.topic import Value, changed, changes, overdue
from stairpath.core.texts import trimmed
from stairpath.store import blobs, kept, meetings, topics
from stairpath.store.tables import Folder, Meeting, MeetingPoint, Topic, TopicNote
from stairpath.work.base.errors import UnfitError, WrongError
from stairpath.work.base.lookup import MEETING, MEETING_POINT, TOPIC, VIEWPOINT, all_within, find
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import UnitOfWork, Who, read_only, unit_of_work
from stairpath.work.topics.rules import rules_of
from stairpath.work.topics.topics import called, touch

_MOST_TOPICS, _MOST_PRESENT = 2000, 300


@dataclass(frozen=True)
class Told:
    """A meeting with what was noted in it."""

    meeting: Meeting
    points: Sequence[MeetingPoint]


def listed(project_id: str) -> list[Meeting]:
    """The project's meetings, the last one first."""
    with read_only() as look:
        return meetings.meetings(look.session, in_use(look, project_id).id)


def _left_open(act: UnitOfWork, last: Meeting | None) -> set[str]:
    """The topics with a point of a meeting that somebody was to see to."""
    points = meetings.points(act.session, last.id) if last else []
    return {point.topic_id for point in points if point.who or point.until}


def _day(day: date) -> date:
    try:
        return day_held(day)
    except NotAMeetingError as error:
        raise WrongError(str(error)) from error


def begin(who: Who, project_id: str, title: str, held_on: date | None, chosen: Sequence[str] = ()) -> Meeting:
    """Begin a meeting: its agenda is worked out, and a folder for its views is opened."""
    with unit_of_work(who) as act:
        project = in_use(act, project_id, hold=True)
        day = _day(held_on) if held_on else datetime.now(UTC).date()
        before = meetings.meetings(act.session, project.id)
        last = before[0] if before else None
        since = last.started_at if last else project.created_at
        rows = topics.topics(act.session, project.id)
        statuses = rules_of(project).statuses
        ends = {status.name for status in statuses.all if status.end}
        known = [
            Known(row.id, row.said.status in ends, overdue(row.said, day, statuses), row.created_at > since)
            for row in rows
        ]
        found = agenda(known, _left_open(act, last), chosen)[:_MOST_TOPICS]
        name = trimmed(title) or f"Meeting of {spoken(day)}"
        folders = kept.folders(act.session, project.id)
        folder = next((each for each in folders if each.name == name), None)
        if folder is None:
            place = max((each.place for each in folders), default=-1) + 1
            folder = Folder(project_id=project.id, name=name, author=who.said, place=place)
            kept.add(act.session, folder)
            act.tell(project.id, "viewpoints", what=folder.id)
        row = Meeting(
            project_id=project.id, title=name, held_on=day, author=who.said, present=[who.said],
            topics=[each.id for each in found], whys=[each.why for each in found], folder=folder.id,
        )  # fmt: skip
        meetings.add(act.session, row)
        act.tell(project.id, "meetings", what=row.id)
        return row


def one(meeting_id: str) -> Told:
    """A meeting with what was noted in it."""
    with read_only() as look:
        meeting = find(look, MEETING, meeting_id)
        return Told(meeting, meetings.points(look.session, meeting.id))


@dataclass(frozen=True)
class Placing:
    """A topic that is put before another of the agenda, or at its end."""

    topic: Id
    before: Id | None = None


@dataclass(frozen=True)
class Hours:
    """From when to when a meeting was held, as far as it is known."""

    from_time: time | None = None
    to_time: time | None = None


@dataclass(frozen=True)
class Next:
    """When the next meeting is, as far as it is known."""

    on: date | None = None
    at: time | None = None


@dataclass(frozen=True)
class MeetingRequest:
    """What is to be changed of a meeting; what is None stays."""

    title: Word | None = None
    held_on: date | None = None
    present: Entries | None = None
    absent: Entries | None = None
    hours: Hours | None = None
    next: Next | None = None
    topics: Entries | None = None
    place: Placing | None = None
    ended: bool | None = None


def change(who: Who, meeting_id: str, wish: MeetingRequest) -> Meeting:
    """Change a meeting: its title and date, who is there, what is dealt with in which order, and whether it has ended."""
    with unit_of_work(who) as act:
        row = find(act, MEETING, meeting_id, hold=True)
        if wish.title is not None:
            if not trimmed(wish.title):
                raise WrongError("A meeting needs a title; type one.")
            row.title = trimmed(wish.title)
        if wish.held_on is not None:
            row.held_on = _day(wish.held_on)
        if wish.present is not None:
            row.present = _people(wish.present, row.present)
            # Who came after all was not absent.
            row.absent = [name for name in row.absent if name not in row.present]
        if wish.absent is not None:
            row.absent = _people(wish.absent, row.absent)
            row.present = [name for name in row.present if name not in row.absent]
        if wish.hours is not None:
            row.from_time, row.to_time = wish.hours.from_time, wish.hours.to_time
        if wish.next is not None:
            row.next_on, row.next_time = wish.next.on and _day(wish.next.on), wish.next.at
        if wish.topics is not None:
            added = replace(wish.topics, add=tuple(all_within(act, TOPIC, wish.topics.add, row.project_id)))
            _put_agenda(row, added.applied(row.topics))
        if wish.place is not None:
            (topic,) = all_within(act, TOPIC, [wish.place.topic], row.project_id)
            _put_agenda(row, moved(row.topics, [topic], wish.place.before))
        if wish.ended is not None:
            row.ended_at = datetime.now(UTC) if wish.ended else None
        act.tell(row.project_id, "meetings", what=row.id)
        return row


def _people(wish: Entries, before: Sequence[str]) -> list[str]:
    names = list(dict.fromkeys(filter(None, map(trimmed, wish.applied(before)))))
    if len(names) > _MOST_PRESENT:
        raise WrongError(f"A meeting has at most {_MOST_PRESENT} people; name the others in a note.")
    return names


def _put_agenda(row: Meeting, order: Sequence[str]) -> None:
    if len(order) > _MOST_TOPICS:
        raise WrongError(f"An agenda has at most {_MOST_TOPICS:,} topics; begin another meeting for the rest.")
    why = dict(zip(row.topics, row.whys, strict=True))
    row.topics, row.whys = list(order), [why.get(each, "chosen") for each in order]


def _not_ended(meeting: Meeting) -> None:
    if meeting.ended_at is not None:
        raise UnfitError(f"{meeting.title} has ended. Reopen it to note more.")


def note(who: Who, meeting_id: str, topic_id: str, point: Point, view: str | None = None) -> MeetingPoint:
    """Note something against a topic; who does what until when counts for the topic too, and its history says so."""
    with unit_of_work(who) as act:
        meeting = find(act, MEETING, meeting_id, hold=True)
        _not_ended(meeting)
        topic = find(act, TOPIC, topic_id, within=meeting.project_id, hold=True)
        if view is not None:
            find(act, VIEWPOINT, view, within=meeting.project_id)
        row = MeetingPoint(
            meeting_id=meeting.id, topic_id=topic.id, text=trimmed(point.text), decision=point.decision,
            who=point.who.strip(), until=point.until, view=view, author=who.said,
        )  # fmt: skip
        meetings.add(act.session, row)
        if topic.id not in meeting.topics:
            meeting.topics, meeting.whys = [*meeting.topics, topic.id], [*meeting.whys, "chosen"]
        _said_to(act, topic, f"{meeting.title}{', decided' if row.decision else ''}", row)
        act.tell(meeting.project_id, "meetings", what=meeting.id)
        return row


def correct(who: Who, point_id: str, wish: Mapping[str, object]) -> MeetingPoint:
    """Correct something that was noted, also after the meeting; its topic is told what the note says now."""
    with unit_of_work(who) as act:
        row = find(act, MEETING_POINT, point_id, hold=True)
        meeting = find(act, MEETING, row.meeting_id)
        before = Point(row.text, row.decision, row.who, row.until)
        try:
            after = replace(before, **wish)  # type: ignore[arg-type]
        except NotAMeetingError as error:
            raise WrongError(str(error)) from error
        if after == before:
            return row
        row.text, row.decision, row.who, row.until = trimmed(after.text), after.decision, after.who.strip(), after.until
        topic = find(act, TOPIC, row.topic_id, hold=True, removed=True)
        _said_to(act, topic, f"{meeting.title}, corrected{', decided' if row.decision else ''}", row)
        act.tell(meeting.project_id, "meetings", what=meeting.id)
        return row


def _said_to(act: UnitOfWork, topic: Topic, where: str, row: MeetingPoint) -> None:
    """Write into a topic what a meeting noted of it."""
    until = f" until {spoken(row.until)}" if row.until else ""
    does = f" ({row.who or 'nobody yet'}{until})" if row.who or row.until else ""
    text = f"{where}: {row.text}{does}"
    topics.add(act.session, TopicNote(topic_id=topic.id, author=act.who.said, text=text, view=row.view, changed=[]))
    wish: dict[str, Value] = {}
    if row.who:
        wish["assigned_to"] = row.who
    if row.until:
        wish["due"] = row.until
    after = changed(topic.said, wish, rules_of(act.project(topic.project_id)).statuses)
    told = changes(topic.said, after)
    if told:
        topic.said = after
        topics.add(act.session, TopicNote(topic_id=topic.id, author=act.who.said, changed=told))
    touch(act, topic)


def take_away(who: Who, point_id: str, back: bool = False) -> None:
    """Take away something that was noted, or bring it back; what it did to its topic stays."""
    with unit_of_work(who) as act:
        row = find(act, MEETING_POINT, point_id, hold=True, removed=True)
        meeting = find(act, MEETING, row.meeting_id, hold=True)
        row.removed_at = None if back else datetime.now(UTC)
        act.tell(meeting.project_id, "meetings", what=meeting.id)


def minutes(meeting_id: str, address: str) -> Minutes:
    """The minutes of a meeting: its topics that were dealt with, in their order; ``address`` is where the project is read."""
    with read_only() as look:
        meeting = find(look, MEETING, meeting_id)
        project = look.project(meeting.project_id)
        rules = rules_of(project)
        noted = meetings.points(look.session, meeting.id)
        items, undone = [], []
        for topic_id in meeting.topics:
            topic = topics.topic_by_id(look.session, topic_id)
            those = [each for each in noted if each.topic_id == topic_id]
            if topic is None:
                continue
            if not those:
                undone.append((called(topic, rules), topic.said.title))
                continue
            views = [each.view for each in those if each.view] or topic.views
            view = kept.viewpoint_by_id(look.session, views[0]) if views else None
            drawn = view if view is not None and not view.undrawn else None
            picture = blobs.data_of(look.session, drawn.large or drawn.picture) if drawn else None
            where = ", ".join(part for part in (topic.level, topic.room) if part)
            items.append(
                Item(
                    called(topic, rules), topic.said.title, topic.said.status, where,
                    picture,
                    tuple(Point(each.text, each.decision, each.who, each.until) for each in those),
                    f"{address}/p/{meeting.project_id}/t/{topic.id}",
                )
            )  # fmt: skip
        return Minutes(
            project.name, meeting.title, meeting.held_on, tuple(meeting.present), tuple(items),
            meeting.author, f"{address}/p/{meeting.project_id}", tuple(meeting.absent), tuple(undone),
            meeting.from_time, meeting.to_time, meeting.next_on, meeting.next_time,
        )  # fmt: skip


def point(text: str, decision: bool, who: str, until: date | None) -> Point:
    """Something to be noted; WrongError with a sentence where it cannot be."""
    try:
        return Point(text, decision, who, until)
    except NotAMeetingError as error:
        raise WrongError(str(error)) from error
