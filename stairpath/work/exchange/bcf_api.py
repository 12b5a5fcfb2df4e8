"""Topics as other programs work with them over the standard's web interface: everything by its GUID."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime

from stairpath.core.exchange import topic as bcf_topic
from stairpath.core.exchange.bcf.markup import guid_of
from stairpath.core.exchange.pictures import NotAPictureError
from stairpath.core.exchange.views import Held, exchanged, seen
from stairpath.core.review.entries import Entries
from stairpath.core.review.topic import TopicChange, Value
from stairpath.core.review.validate import is_valid
from stairpath.store import blobs, kept, models, topics
from stairpath.store.tables import Model, Topic, TopicFile, TopicNote, Viewpoint
from stairpath.work.base import deleting
from stairpath.work.base.errors import MissingError, WrongError
from stairpath.work.base.lookup import TOPIC, VIEWPOINT
from stairpath.work.base.pictures import keep_picture
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import UnitOfWork, Who, read_only, unit_of_work
from stairpath.work.building.topic_location import component_boxes
from stairpath.work.exchange.extension import keep_bitmaps
from stairpath.work.topics import topics as ours
from stairpath.work.topics.files import MOST_FILES
from stairpath.work.topics.rules import rules as project_rules
from stairpath.work.topics.topics import Listed, NewTopic, TopicWish, listed_as, touch
from stairpath.work.views.thumbnails import coming_picture


def _row(act: UnitOfWork, project_id: str, guid: str) -> Topic:
    in_use(act, project_id)
    found = topics.topic_by_guid(act.session, project_id, guid_of(guid))
    if found is None or found.removed_at is not None:
        raise MissingError(f"There is no topic {guid} in this project; it may have been deleted.")
    return found


def topic(project_id: str, guid: str) -> Listed:
    """A topic by its GUID."""
    with read_only() as look:
        return listed_as(look, _row(look, project_id, guid))


def make(who: Who, project_id: str, wish: NewTopic, guid: str | None) -> Listed:
    """Make a topic, under a GUID of somebody else's if there is one."""
    if guid is not None:
        with read_only() as look:
            if topics.topic_by_guid(look.session, project_id, guid_of(guid)) is not None:
                raise WrongError(f"There is a topic {guid} already; change that one.")
    _offered(who, project_id, wish.said.kind, wish.said.priority)
    return ours.make(who, project_id, wish, guid_of(guid) if guid else None)


def _offered(who: Who, project_id: str, kind: str, priority: str) -> None:
    """Refuse a type or a priority that the project's extensions do not list; where they list none, any is taken."""
    known = [each.topic.said for each in ours.listed(who, project_id)]
    rules = project_rules(project_id)
    for said, name, offered, used in (
        (kind, "topic_type", rules.kinds, {each.kind for each in known}),
        (priority, "priority", rules.priorities, {each.priority for each in known}),
    ):
        if said and offered and said not in {*offered, *used}:
            listed = ", ".join(dict.fromkeys([*offered, *sorted(used - {""})]))
            raise WrongError(f"This project has no {name} {said}. Its extensions list {listed}.")


def change(who: Who, project_id: str, guid: str, wish: Mapping[str, Value], links: Sequence[str]) -> Listed:
    """Change what is said of a topic, and what it links to."""
    row = topic(project_id, guid).topic
    _offered(who, project_id, str(wish.get("kind") or ""), str(wish.get("priority") or ""))
    return ours.change(who, row.id, TopicWish(wish, links=Entries(tuple(links), tuple(set(row.links) - set(links)))))


def delete(who: Who, project_id: str, guid: str) -> None:
    """Delete a topic; it can be brought back."""
    deleting.delete(who, TOPIC, topic(project_id, guid).topic.id)


def relate(who: Who, project_id: str, guid: str, related: Sequence[str]) -> Listed:
    """Say which topics a topic has to do with."""
    row = topic(project_id, guid).topic
    wanted = tuple(guid_of(each) for each in related)
    gone = tuple(each for each in row.related if each not in wanted)
    return ours.change(who, row.id, TopicWish({}, related=Entries(wanted, gone)))


@dataclass(frozen=True)
class Comment:
    """A comment, the GUID of its viewpoint, and that of its topic."""

    note: TopicNote
    viewpoint: str | None
    topic: str


def comments(project_id: str, guid: str) -> list[Comment]:
    """What was written of a topic, oldest first."""
    with read_only() as look:
        row = _row(look, project_id, guid)
        written = [note for note in topics.notes(look.session, row.id) if note.text or note.view]
        views = {note.view: kept.viewpoint_by_id(look.session, note.view) for note in written if note.view}
        return [
            Comment(note, view.guid if note.view and (view := views.get(note.view)) else None, row.guid)
            for note in written
        ]


def comment(project_id: str, guid: str, comment_guid: str) -> Comment:
    """One comment."""
    found = next((each for each in comments(project_id, guid) if each.note.guid == guid_of(comment_guid)), None)
    if found is None:
        raise MissingError(f"There is no comment {comment_guid}; it may have been deleted.")
    return found


def write(who: Who, project_id: str, guid: str, text: str, viewpoint: str | None) -> Comment:
    """Write of a topic."""
    with read_only() as look:
        row = _row(look, project_id, guid)
        view = kept.viewpoint_by_guid(look.session, project_id, guid_of(viewpoint)) if viewpoint else None
        if viewpoint and view is None:
            raise WrongError(f"There is no viewpoint {viewpoint}; send it first.")
    made = ours.write(who, row.id, text, view.id if view else None)
    return Comment(made, view.guid if view else None, row.guid)


def rewrite(who: Who, project_id: str, guid: str, comment_guid: str, text: str | None) -> None:
    """Change the words of a comment, or delete it; its topic's history says so."""
    found = comment(project_id, guid, comment_guid)
    with unit_of_work(who) as act:
        row = ours.there(act, found.note.topic_id, hold=True)
        note = topics.note_by_id(act.session, found.note.id)
        if note is None:
            raise MissingError(f"There is no comment {comment_guid}; it may have been deleted.")
        was = TopicChange("comment", note.text, text)
        topics.add(act.session, TopicNote(topic_id=row.id, author=act.who.said, changed=[was]))
        if text is None:
            note.removed_at = datetime.now(UTC)
        elif text.strip():
            note.text = text.strip()
        else:
            raise WrongError("There is nothing in the comment; type it.")
        touch(act, row)


def _kept(look: UnitOfWork, project_id: str, guid: str, only: str | None = None) -> list[Viewpoint]:
    """The viewpoints of a topic as they are kept, or one of them."""
    rows = [kept.viewpoint_by_id(look.session, view) for view in _row(look, project_id, guid).views]
    found = [v for v in rows if v is not None and v.removed_at is None and (only is None or v.guid == guid_of(only))]
    if only is not None and not found:
        raise MissingError(f"There is no viewpoint {only}; it may have been deleted.")
    return found


def _held(look: UnitOfWork, project_id: str) -> Held:
    return lambda sha: blobs.data_in(look.session, project_id, sha)


def viewpoints(project_id: str, guid: str, only: str | None = None) -> list[bcf_topic.Viewpoint]:
    """The viewpoints of a topic as the standard has them, or one of them."""
    with read_only() as look:
        rows = _kept(look, project_id, guid, only)
        traits = component_boxes(look, project_id).traits
        return [
            exchanged(
                view.view,
                view.guid,
                traits,
                blobs.data_of(look.session, view.large or view.picture),
                _held(look, project_id),
            )
            for view in rows
        ]


def parts_of(project_id: str, guid: str, only: str) -> bcf_topic.Viewpoint:
    """One viewpoint of a topic for its components, without its picture."""
    with read_only() as look:
        view = _kept(look, project_id, guid, only)[0]
        return exchanged(view.view, view.guid, component_boxes(look, project_id).traits, None, _held(look, project_id))


def snapshot(project_id: str, guid: str, only: str) -> bytes | None:
    """The picture of a viewpoint of a topic."""
    with read_only() as look:
        view = _kept(look, project_id, guid, only)[0]
        return blobs.data_of(look.session, view.large or view.picture)


def _refuse(why: str) -> None:
    raise WrongError(why)


def add_viewpoint(who: Who, project_id: str, guid: str, view: bcf_topic.Viewpoint) -> None:
    """Add a viewpoint to a topic."""
    with unit_of_work(who) as act:
        row = _row(act, project_id, guid)
        if kept.viewpoint_by_guid(act.session, project_id, guid_of(view.guid)) is not None:
            raise WrongError(f"There is a viewpoint {view.guid} already; viewpoints are not changed, send another.")
        document = seen(view, component_boxes(act, project_id).known())
        if document is None:
            raise WrongError("The viewpoint does not say from where it is seen; send its camera.")
        if not is_valid(document):
            raise WrongError("The viewpoint has invalid numbers or texts. Correct them.")
        document = replace(document, pictures=keep_bitmaps(act, project_id, view.bitmaps, _refuse))
        sent = view.snapshot
        try:
            picture, large = (
                (coming_picture(act, project_id), None) if sent is None else keep_picture(act, project_id, sent)
            )
        except NotAPictureError as error:
            raise WrongError(str(error)) from error
        made = Viewpoint(
            project_id=project_id, guid=guid_of(view.guid), name=row.said.title[:120], author=who.said,
            changed_by=who.said, picture=picture, large=large, undrawn=sent is None, view=document,
        )  # fmt: skip
        kept.add(act.session, made)
        if made.undrawn:
            act.draw_pictures(project_id)
        act.tell(project_id, "viewpoints", what=made.id)
    ours.change(who, row.id, TopicWish({}, views=Entries((made.id,))))


def delete_viewpoint(who: Who, project_id: str, guid: str, view_guid: str) -> None:
    """Take a viewpoint from a topic; one that no other topic has is deleted, and can be brought back."""
    with read_only() as look:
        row = _row(look, project_id, guid)
        view = _kept(look, project_id, guid, view_guid)[0]
        others = [each for each in topics.topics(look.session, project_id) if each.id != row.id]
        shared = any(view.id in each.views for each in others)
    ours.change(who, row.id, TopicWish({}, views=Entries(drop=(view.id,))))
    if not shared:
        deleting.delete(who, VIEWPOINT, view.id)


def _documents_of(act: UnitOfWork, project_id: str) -> list[TopicFile]:
    """The files that are attached to the project's topics, each content once."""
    return list({file.sha256: file for file in topics.files_of(act.session, project_id) if file.sha256}.values())


def documents(project_id: str) -> list[TopicFile]:
    """The documents of a project: what is attached to its topics."""
    with read_only() as look:
        return _documents_of(look, in_use(look, project_id).id)


def document(project_id: str, guid: str) -> bytes:
    """The bytes of a document."""
    with read_only() as look:
        in_use(look, project_id)
        found = next((each for each in _documents_of(look, project_id) if each.guid == guid_of(guid)), None)
        held = blobs.load(look.session, found.sha256) if found and found.sha256 else None
        if held is None:
            raise MissingError(f"There is no document {guid} in this project; list them to see which there are.")
        return held[0]


def attached(project_id: str, guid: str) -> list[TopicFile]:
    """What is attached to a topic."""
    with read_only() as look:
        return topics.files(look.session, _row(look, project_id, guid).id)


def refer(who: Who, project_id: str, guid: str, document_guid: str | None, url: str, description: str) -> TopicFile:
    """Attach a document of the project to a topic, or a link to one that is elsewhere."""
    with unit_of_work(who) as act:
        row = _row(act, project_id, guid)
        if bool(document_guid) == bool(url):
            raise WrongError("A document is named either by its GUID or by its address; send one of them.")
        if len(topics.files(act.session, row.id)) >= MOST_FILES:
            raise WrongError(f"A topic has at most {MOST_FILES} files; take one away first.")
        if document_guid:
            wanted = guid_of(document_guid)
            found = next((each for each in _documents_of(act, project_id) if each.guid == wanted), None)
            if found is None:
                raise WrongError(f"There is no document {document_guid} in this project; attach it to a topic first.")
            made = TopicFile(topic_id=row.id, name=found.name, sha256=found.sha256, size=found.size)
        else:
            if not url.lower().startswith(ours.WEB):
                raise WrongError("The address of a document begins with http:// or https://; send such a one.")
            made = TopicFile(topic_id=row.id, name=url.rsplit("/", 1)[-1][:200] or url[:200], url=url, size=0)
        made.author, made.description = who.said, description
        topics.add(act.session, made)
        change = TopicChange("file", None, made.name)
        topics.add(act.session, TopicNote(topic_id=row.id, author=who.said, changed=[change]))
        touch(act, row)
        return made


def model_files(project_id: str) -> list[Model]:
    """The models of a project."""
    with read_only() as look:
        return models.live_models(look.session, in_use(look, project_id).id)


@dataclass(frozen=True)
class Happened:
    """Something that was done to a topic; without a note it was made."""

    topic: Topic
    note: TopicNote | None


def happened(project_id: str, guid: str | None = None) -> list[Happened]:
    """What was done to the topics of a project, or to one of them, oldest first for each."""
    with read_only() as look:
        project = in_use(look, project_id)
        rows = topics.topics(look.session, project.id) if guid is None else [_row(look, project_id, guid)]
        notes = topics.notes_of(look.session, [row.id for row in rows])
        return [Happened(row, note) for row in rows for note in (None, *notes[row.id])]
