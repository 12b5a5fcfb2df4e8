"""Files of topics that come in: keeping what was sent, and the job that takes it in topic by topic."""

from __future__ import annotations

import json
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from contextlib import contextmanager
from dataclasses import asdict, dataclass, field, replace
from datetime import UTC, datetime
from itertools import islice
from time import monotonic
from typing import IO

from pydantic import TypeAdapter

from stairpath.core.exchange import topic as bcf_topic
from stairpath.core.exchange.bcf.markup import guid_of
from stairpath.core.exchange.bcf.reading import Opened, opened
from stairpath.core.exchange.import_request import TopicsIn
from stairpath.core.exchange.names import with_names
from stairpath.core.exchange.origin import Sight, shift_between
from stairpath.core.exchange.pictures import NotAPictureError
from stairpath.core.exchange.topic import CannotExchangeError
from stairpath.core.exchange.views import moved, seen, words_count
from stairpath.core.exchange.words import in_our_words
from stairpath.core.geometry.vectors import Vector
from stairpath.core.reading.intake import size_of
from stairpath.core.review.reference import NotAReferenceError, in_order, typed
from stairpath.core.review.topic import IMPORT, LONGEST_TEXT, TopicChange, changes
from stairpath.core.review.validate import is_valid
from stairpath.core.review.view import View
from stairpath.core.review.words import Words
from stairpath.core.sandbox import Progress
from stairpath.store import blobs, kept, projects
from stairpath.store.database import without_waiting
from stairpath.store.tables import Task, Topic, TopicFile, TopicNote, Viewpoint, new_id
from stairpath.work.base import project_limits
from stairpath.work.base.blob_file import blob_file
from stairpath.work.base.errors import UnfitError, WrongError
from stairpath.work.base.pictures import keep_picture
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import UnitOfWork, Who, read_only, unit_of_work
from stairpath.work.building.topic_location import ComponentBoxes, component_boxes, place_of
from stairpath.work.exchange import extension
from stairpath.work.exchange.extension import Extension, extension_of, keep_bitmaps
from stairpath.work.exchange.import_index import ImportIndex
from stairpath.work.exchange.merging import aware, merged_with, said_in
from stairpath.work.exchange.previewing import PREVIEW, Previewing, TopicsPreview
from stairpath.work.people.names import as_known
from stairpath.work.results.results import keep_results
from stairpath.work.topics.rules import remember_words, rules_of
from stairpath.work.views.thumbnails import coming_picture

REPORT = "report"
_MOST_PROBLEMS = 200
_MOST_SIGHTS = 400
_TELL_EVERY_S = 2.0
_AT_ONCE = 20
_NAME_LETTERS = 120


@dataclass
class TopicsReport:
    """What became of a file: how many topics are new, changed, or unchanged, and what could not be read.

    ``unknown`` are components that no model of the project has; ``shift_m`` is by how much the views seem to be off.
    """

    new: int = 0
    changed: int = 0
    same: int = 0
    unknown: list[str] = field(default_factory=list)
    shift_m: Vector | None = None
    problems: list[dict[str, str | None]] = field(default_factory=list)


def take_file(who: Who, project_id: str, name: str, content: IO[bytes], preview: bool = False) -> Task:
    """Keep a file of topics that was sent, and have it imported by a job, or have told first what it would bring."""
    try:
        with opened(content, name):
            pass
    except CannotExchangeError as error:
        raise WrongError(str(error)) from error
    with unit_of_work(who) as act:
        project = in_use(act, project_id)
        project_limits.room_for(act, project, name, size_of(content))
        project_limits.room_for_task(act, project)
        sha, _ = blobs.keep_stream(act.session, project.id, content, "application/zip")
        row = Task(
            project_id=project.id,
            name=name,
            author=who.said,
            asked_by=who.person_id,
            wish=TopicsIn(sha, name, preview=preview),
        )
        kept.add(act.session, row)
        act.run(row.id)
        act.tell(project.id, "tasks", what=row.id)
        return row


class _Taking:
    """One file that is taken in."""

    def __init__(self, project_id: str, who: Who, wish: TopicsIn, boxes: ComponentBoxes) -> None:
        self.project_id, self.who, self.wish, self.boxes = project_id, who, wish, boxes
        self.known = boxes.known()
        self.report = TopicsReport()
        self.sights: list[Sight] = []
        self._untold, self._told_at = False, 0.0

    def tell(self, act: UnitOfWork, last: bool = False) -> None:
        """Tell who has the project open that topics came in, now and then and at the end."""
        now = monotonic()
        if self._untold and (last or now - self._told_at > _TELL_EVERY_S):
            act.tell(self.project_id, "topics", "viewpoints")
            self._untold, self._told_at = False, now

    def trouble(self, code: str, text: str, topic: str | None) -> None:
        if len(self.report.problems) < _MOST_PROBLEMS:
            self.report.problems.append({"code": code, "text": text, "topic": topic})

    def take_all(self, these: Sequence[bcf_topic.Topic]) -> None:
        """Take in some topics, kept all or none."""
        with unit_of_work(self.who) as act:
            # Taken in again it would change nothing, and the last step of the task waits for all of them.
            without_waiting(act.session)
            # Held, so that no two get the same number.
            if not projects.hold(act.session, self.project_id):
                raise UnfitError("The project is in the bin. Restore it, then import the file again.")
            self.here, self.meant = ImportIndex(act, self.project_id, these), as_known(act, self.project_id)
            for topic in these:
                self._untold |= self._take(act, topic)
            self.here.keep()
            self.tell(act)

    def _take(self, act: UnitOfWork, topic: bcf_topic.Topic) -> bool:
        """Take in one topic; whether it is new or changed."""
        topic, beside = with_names(topic, self.meant), extension_of(topic)
        if beside is not None:
            # It tells from what the file changed a name, which is that of the same person.
            beside = replace(beside, said=replace(beside.said, assigned_to=self.meant(beside.said.assigned_to)))
        row = self.here.topics.get(guid_of(topic.guid))
        views = self._views(act, topic, beside)
        if row is None:
            row = self._made(act, topic, beside, views)
            self.report.new += 1
            told = True
        else:
            told = self._merged(act, row, topic, beside, views)
            self.report.changed += told
            self.report.same += not told
        told |= self._comments(row, topic, views)
        told |= self._files(act, row, topic)
        if told:
            row.news_by, row.news_at = _by(topic), datetime.now(UTC)
        return told

    def _views(self, act: UnitOfWork, topic: bcf_topic.Topic, beside: Extension | None) -> dict[str, Viewpoint]:
        found: dict[str, Viewpoint] = {}
        for number, view in enumerate(topic.viewpoints, 1):
            self._look(view)
            guid = guid_of(view.guid)
            row = self.here.views.get(guid)
            if row is None:
                document = self._document(act, view, beside, topic)
                if document is None:
                    continue
                called = beside.names.get(guid) if beside else None
                name = called or (f"{topic.title} {number}" if len(topic.viewpoints) > 1 else topic.title)
                drawn = self._picture(act, view, topic)
                picture, large = drawn if drawn else (coming_picture(act, self.project_id), None)
                row = Viewpoint(
                    id=new_id(), project_id=self.project_id, guid=guid, name=name[:_NAME_LETTERS], author=topic.created_by or "unknown",
                    created_at=aware(topic.created_at), picture=picture, large=large, undrawn=drawn is None,
                    changed_by=self.who.said, view=document,
                )  # fmt: skip
                self.here.add_view(row)
                if row.undrawn:
                    act.draw_pictures(self.project_id)
            elif any(self.wish.shift_m):
                # It came in before, about another origin.
                row.view = self._document(act, view, beside, topic) or row.view
            row.removed_at = None
            found[view.guid.lower()] = row
        return found

    def _picture(
        self, act: UnitOfWork, view: bcf_topic.Viewpoint, topic: bcf_topic.Topic
    ) -> tuple[str, str | None] | None:
        """The hashes of the picture of a view; None where there is none, or none that can be: it is drawn then."""
        if view.snapshot is not None:
            try:
                return keep_picture(act, self.project_id, view.snapshot)
            except NotAPictureError as error:
                self.trouble("picture", f"Topic {topic.title}, picture of a view: {error}", topic.guid)
        return None

    def _document(
        self, act: UnitOfWork, view: bcf_topic.Viewpoint, beside: Extension | None, topic: bcf_topic.Topic
    ) -> View | None:
        whole = beside.views.get(guid_of(view.guid)) if beside else None
        document = whole if whole and not any(self.wish.shift_m) else seen(view, self.known, self.wish.shift_m)
        if document is not None and not is_valid(document):
            # What is beside the format may be another program's; the format's own part may do.
            document = seen(view, self.known, self.wish.shift_m)
            whole = None
            if document is None or not is_valid(document):
                self.trouble("unsound", f"A view of {topic.title} has figures or texts that cannot be.", topic.guid)
                return None
        if document is None:
            self.trouble("no_camera", f"A view of {topic.title} does not say from where it is seen.", topic.guid)
            return None
        # Words of markups that came back whole are not pictures as well.
        first = words_count(document) if document is whole else 0
        bitmaps = moved(view, self.wish.shift_m).bitmaps[first:]
        if not bitmaps and not document.pictures:
            return document
        return replace(
            document,
            pictures=keep_bitmaps(
                act, self.project_id, bitmaps, lambda text: self.trouble("picture", text, topic.guid)
            ),
        )

    def _look(self, view: bcf_topic.Viewpoint) -> None:
        """Note what tells whether the file is about another origin, and which components nobody has."""
        view = moved(view, self.wish.shift_m)
        named = {each.global_id for each in (*view.selected, *view.exceptions) if each.global_id}
        self.report.unknown.extend(g for g in sorted(named) if self.known.model_of(g) is None)
        centre = self.known.centre_of([each.global_id for each in view.selected])
        if view.camera and centre and len(self.sights) < _MOST_SIGHTS:
            self.sights.append(Sight(view.camera.eye_m, view.camera.direction, centre))

    def _number(self, beside: Extension | None, said: str) -> tuple[int, str]:
        """The number that the topic had, where it is free, else the next."""
        try:
            wanted = typed((beside.reference if beside else "") or said)
            if self.here.is_free(wanted.number, wanted.variant):
                return wanted.number, wanted.variant
        except NotAReferenceError:
            pass
        return self.here.next_number, ""

    def _made(
        self, act: UnitOfWork, topic: bcf_topic.Topic, beside: Extension | None, views: Mapping[str, Viewpoint]
    ) -> Topic:
        number, variant = self._number(beside, topic.reference)
        said = said_in(topic, rules_of(act.project(self.project_id)).statuses)
        place = place_of(self.boxes, [row.view for row in views.values()])
        row = Topic(
            id=new_id(), project_id=self.project_id, guid=guid_of(topic.guid), number=number, variant=variant, said=said,
            disciplines=list(_quoted(beside, topic.reference) or place.disciplines),
            author=topic.created_by or "unknown", created_at=aware(topic.created_at),
            changed_by=_by(topic), changed_at=aware(topic.modified_at or topic.created_at),
            views=[view.id for view in views.values()], related=[guid_of(each) for each in topic.related],
            links=list(topic.links), exchanged=said, level=place.level, room=place.room,
            at_m=list(place.at_m) if place.at_m else None, picked_pair=list(place.pair or ()),
        )  # fmt: skip
        self.here.add_topic(row)
        self._record(row, f"Imported from {self.wish.file_name}.")
        return row

    def _record(self, row: Topic, said: str) -> None:
        """Say in a topic's history what the import did; nobody wrote that, so no file has it as a comment."""
        told = TopicChange(IMPORT, "", said)
        self.here.add(TopicNote(topic_id=row.id, author=self.who.said, changed=[told]))

    def _merged(
        self,
        act: UnitOfWork,
        row: Topic,
        topic: bcf_topic.Topic,
        beside: Extension | None,
        views: Mapping[str, Viewpoint],
    ) -> bool:
        """Bring what a file says into a topic that is here, field by field; whether anything changed."""
        theirs, before = said_in(topic, rules_of(act.project(self.project_id)).statuses), row.said
        came = merged_with(row, topic, theirs, beside)
        told = changes(before, came.said)
        again = row.removed_at is not None
        more = [view.id for view in views.values() if view.id not in row.views]
        related = [g for g in map(guid_of, topic.related) if g not in row.related]
        links = [link for link in topic.links if link not in row.links]
        # What was said of it once is not said again when the same file comes in again.
        differs = bool(came.contradicted) and theirs != row.exchanged
        if differs:
            self._record(row, _spoken(came.contradicted, self.wish.file_name, topic, row))
        if told:
            author = topic.modified_by or self.who.said
            self.here.add(TopicNote(topic_id=row.id, author=author, changed=told))
        if again:
            self._record(row, f"Was deleted and restored by the import of {self.wish.file_name}.")
        row.said, row.exchanged, row.removed_at = came.said, theirs, None
        row.views, row.related, row.links = [*row.views, *more], [*row.related, *related], [*row.links, *links]
        changed = bool(told or again or more or related or links or differs)
        if changed:
            row.changed_by, row.changed_at = self.who.said, datetime.now(UTC)
        return changed

    def _comments(self, row: Topic, topic: bcf_topic.Topic, views: Mapping[str, Viewpoint]) -> bool:
        here = {note.guid: note for note in self.here.notes(row)}
        told = False
        for each in topic.comments:
            guid = guid_of(each.guid)
            there = here.get(guid)
            text = each.text.strip()[:LONGEST_TEXT]
            if there is None:
                if not text and not each.viewpoint:
                    continue
                view = views.get(each.viewpoint.lower()) if each.viewpoint else None
                note = TopicNote(
                    topic_id=row.id, guid=guid, author=each.author or "unknown", at=aware(each.at), text=text,
                    view=view.id if view else None, changed=[],
                )  # fmt: skip
                self.here.add(note)
                told = True
            elif there.text != text and text:
                was = TopicChange("comment", there.text, text)
                author = each.modified_by or each.author
                self.here.add(TopicNote(topic_id=row.id, author=author, changed=[was]))
                there.text = text
                told = True
        return told

    def _files(self, act: UnitOfWork, row: Topic, topic: bcf_topic.Topic) -> bool:
        here = {each.guid for each in self.here.files(row)}
        told = False
        for each in topic.documents:
            guid = guid_of(each.guid)
            if each.name == extension.NAME or guid in here or (each.data is None and not each.url):
                continue
            data, kind = each.data, "application/octet-stream"
            sha = None if data is None else blobs.keep(act.session, self.project_id, data, kind)
            held = TopicFile(
                topic_id=row.id, guid=guid, name=each.name, description=each.description, url=each.url, sha256=sha,
                size=len(data or b""), author=topic.created_by or "unknown",
            )  # fmt: skip
            self.here.add(held)
            told = True
        return told


def _quoted(beside: Extension | None, said: str) -> tuple[str, ...]:
    """The disciplines that a topic's reference already names, in its order: people quote it."""
    if beside and beside.disciplines:
        return in_order(beside.disciplines)
    try:
        return in_order(typed(said).disciplines)
    except NotAReferenceError:
        return ()


def _by(topic: bcf_topic.Topic) -> str:
    """Whose hand was the last on a topic, as its file says."""
    return topic.modified_by or topic.created_by or "unknown"


def _spoken(contradicted: Sequence[TopicChange], file_name: str, topic: bcf_topic.Topic, row: Topic) -> str:
    """Both values of what was changed on both sides, with their times."""
    there = f"{topic.modified_by or topic.created_by}, {(topic.modified_at or topic.created_at):%d %b %Y %H:%M}"
    here = f"{row.changed_by}, {row.changed_at:%d %b %Y %H:%M}"
    said = "; ".join(
        f"{c.field}: {c.old or 'nothing'} here ({here}), {c.new or 'nothing'} there ({there})" for c in contradicted
    )
    return f"{file_name} has other values; the ones here were kept. {said}"


def take_in(task_id: str, asked: int, report: Progress) -> None:
    """Import a file of topics, or tell what it would bring; in a child process."""
    with read_only() as look:
        row = kept.task_by_id(look.session, task_id)
        project = projects.project_by_id(look.session, row.project_id) if row is not None else None
        if row is None or project is None or not isinstance(row.wish, TopicsIn):
            raise UnfitError("The project is gone; open it again.")
        wish, who, version = row.wish, Who(row.author, person_id=row.asked_by), project.version
        words = rules_of(project).words.joined(wish.words)
        previewing = Previewing(look, project, words) if wish.preview else None
        boxes = None if wish.preview else component_boxes(look, project.id)
    if previewing is not None:
        told = asdict(_preview(wish, previewing, report))
        keep_results(task_id, asked, version, {PREVIEW: _json(told)}, "Not imported yet.")
    if boxes is None:
        return
    remember_words(who, project.id, wish.words)
    made = _import(wish, words, _Taking(project.id, who, wish, boxes), report)
    parts = Counter({"new": made.new, "changed": made.changed, "unchanged": made.same})
    said = ", ".join(f"{count} {what}" for what, count in parts.items() if count) or "nothing in it"
    keep_results(task_id, asked, version, {REPORT: _json(asdict(made))}, said)


def _json(told: dict[str, object]) -> tuple[bytes, str]:
    return json.dumps(told, ensure_ascii=False).encode(), "application/json"


def _some_of(held: Opened, report: Progress) -> Iterator[list[bcf_topic.Topic]]:
    """The topics of a file, some at a time."""
    done, all_of = 0, held.topics()
    while some := list(islice(all_of, _AT_ONCE)):
        yield some
        done += len(some)
        report(done / max(1, held.count), f"topic {done} of {held.count}")


@contextmanager
def _sent(wish: TopicsIn) -> Iterator[Opened]:
    """The file that was sent; UnfitError with its sentence where it is none, or cannot be read on."""
    try:
        with blob_file(wish.file) as sent, opened(sent, wish.file_name) as held:
            yield held
    except CannotExchangeError as error:
        raise UnfitError(str(error)) from error


def _preview(wish: TopicsIn, previewing: Previewing, report: Progress) -> TopicsPreview:
    """What a file would bring."""
    with _sent(wish) as held:
        for some in _some_of(held, report):
            with read_only() as look:
                previewing.look_through(look, some)
        previewing.found.problems = [problem.text for problem in held.problems][:_MOST_PROBLEMS]
    return previewing.told()


def _import(wish: TopicsIn, words: Words, taking: _Taking, report: Progress) -> TopicsReport:
    """Import a file, and tell what became of it."""
    with _sent(wish) as held:
        for some in _some_of(held, report):
            taking.take_all([in_our_words(topic, words) for topic in some])
        for problem in held.problems:
            taking.trouble(problem.code, problem.text, problem.topic)
    with unit_of_work(taking.who) as act:
        taking.tell(act, last=True)
    made = taking.report
    made.unknown = list(dict.fromkeys(made.unknown))
    made.shift_m = shift_between(taking.sights)
    return made


def report_of(data: bytes) -> TopicsReport:
    """A report as it was kept."""
    return TypeAdapter(TopicsReport).validate_json(data)
