"""Files of topics that go out."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, datetime, time
from pathlib import Path

from stairpath.core.exchange import topic as bcf_topic
from stairpath.core.exchange.bcf.markup import guid_of
from stairpath.core.exchange.bcf.versions import Version
from stairpath.core.exchange.bcf.writing import writing
from stairpath.core.exchange.lists import Line
from stairpath.core.exchange.views import exchanged
from stairpath.core.review.topic import TopicFields, overdue
from stairpath.store import blobs, kept, models, topics
from stairpath.store.tables import Topic, TopicNote, Viewpoint
from stairpath.work.base.errors import WrongError
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import UnitOfWork, read_only
from stairpath.work.building.topic_location import ComponentBoxes, component_boxes
from stairpath.work.exchange.extension import Extension, document_of
from stairpath.work.topics.rules import rules_of
from stairpath.work.topics.topics import called


def _chosen(look: UnitOfWork, project_id: str, ids: Sequence[str]) -> list[Topic]:
    """Topics of a project by number: those of some ids, or all where none are given."""
    wanted = set(ids)
    return [row for row in topics.topics(look.session, project_id) if not wanted or row.id in wanted]


def write_topics(project_id: str, version: Version, path: Path, ids: Sequence[str] = ()) -> str:
    """Write topics of a project to a file, all of them or some; the name of the project."""
    with read_only() as look:
        project = in_use(look, project_id)
        rows = _chosen(look, project.id, ids)
        if len(rows) < len(set(ids)):
            raise WrongError("One of the topics is not there any more. Choose again.")
        boxes, rules = component_boxes(look, project.id), rules_of(project)
        files = tuple(bcf_topic.ModelFile(model.file_name) for model in models.live_models(look.session, project.id))
        with writing(path, version, project.name, project.id, rules) as into:
            for row in rows:
                into.put(_topic(look, row, called(row, rules), boxes, files))
    return project.name


def write_views(project_id: str, version: Version, path: Path, ids: Sequence[str]) -> str:
    """Write viewpoints of a project to a file, each as a topic of its own; the name of the project."""
    with read_only() as look:
        project = in_use(look, project_id)
        rows = {row.id: row for row in kept.viewpoints(look.session, project.id)}
        if not ids or any(key not in rows for key in ids):
            raise WrongError("One of the viewpoints was deleted. Choose again.")
        boxes = component_boxes(look, project.id)
        files = tuple(bcf_topic.ModelFile(model.file_name) for model in models.live_models(look.session, project.id))
        rules = rules_of(project)
        with writing(path, version, project.name, project.id, rules) as into:
            for key in dict.fromkeys(ids):
                row = rows[key]
                guid, said = guid_of(f"{row.guid} viewpoint"), TopicFields(row.name, status=rules.statuses.first)
                extension = Extension(said, views={row.guid: row.view}, names={row.guid: row.name})
                into.put(
                    bcf_topic.Topic(
                        guid=guid, title=row.name, created_by=row.author, created_at=row.created_at, status=rules.statuses.first,
                        documents=(document_of(guid, extension),), files=files, viewpoints=(_viewpoint(look, row, boxes),),
                    )
                )  # fmt: skip
    return project.name


def _viewpoint(look: UnitOfWork, row: Viewpoint, boxes: ComponentBoxes) -> bcf_topic.Viewpoint:
    picture = None if row.undrawn else blobs.data_of(look.session, row.large or row.picture)
    return exchanged(
        row.view, row.guid, boxes.traits, picture, lambda sha: blobs.data_in(look.session, row.project_id, sha)
    )


def _topic(
    look: UnitOfWork, row: Topic, reference: str, boxes: ComponentBoxes, models: tuple[bcf_topic.ModelFile, ...]
) -> bcf_topic.Topic:
    found = [kept.viewpoint_by_id(look.session, view) for view in row.views]
    notes = [note for note in topics.notes(look.session, row.id) if note.text or note.view]
    listed = {view.id: view for view in found if view is not None and view.removed_at is None}
    for note in notes:
        if note.view and note.view not in listed:
            view = kept.viewpoint_by_id(look.session, note.view)
            if view is not None:
                listed[view.id] = view
    said = row.said
    extension = Extension(
        said, reference, tuple(row.disciplines), {v.guid: v.view for v in listed.values()},
        {v.guid: v.name for v in listed.values()},
    )  # fmt: skip
    documents = [
        bcf_topic.Document(
            each.guid,
            each.name,
            each.description,
            blobs.data_of(look.session, each.sha256) if each.sha256 else None,
            each.url,
        )
        for each in topics.files(look.session, row.id)
    ]
    documents.append(document_of(row.guid, extension))
    return bcf_topic.Topic(
        guid=row.guid, title=said.title, created_by=row.author, created_at=row.created_at,
        description=said.description, kind=said.kind, status=said.status, priority=said.priority,
        assigned_to=said.assigned_to, stage=said.stage,
        due=datetime.combine(said.due, time(), UTC) if said.due else None, labels=said.labels, index=row.number,
        reference=reference, modified_by=row.changed_by, modified_at=row.changed_at, links=tuple(row.links),
        related=tuple(row.related), documents=tuple(documents), files=models,
        comments=tuple(
            bcf_topic.Comment(note.guid, note.author, note.at, note.text, listed[note.view].guid if note.view in listed else None)
            for note in notes
        ),
        viewpoints=tuple(_viewpoint(look, view, boxes) for view in listed.values()),
    )  # fmt: skip


def _comments(notes: Sequence[TopicNote]) -> tuple[str, ...]:
    return tuple(f"{note.at.date().isoformat()}, {note.author}: {note.text}" for note in notes if note.text)


def lines_of(project_id: str, address: str, ids: Sequence[str] = (), pictures: bool = True) -> tuple[str, list[Line]]:
    """The project's name, and its topics as lines of a list, all of them or some."""
    with read_only() as look:
        project = in_use(look, project_id)
        rows = _chosen(look, project.id, ids)
        notes, rules = topics.notes_of(look.session, [row.id for row in rows]), rules_of(project)
        found = []
        for row in rows:
            said = row.said
            view = kept.viewpoint_by_id(look.session, row.views[0]) if row.views and pictures else None
            found.append(
                Line(
                    called(row, rules), said.title, said.description, said.status, said.kind, said.priority, said.assigned_to, said.due,
                    overdue(said, datetime.now(UTC).date(), rules.statuses), row.level, row.room, said.labels, row.author,
                    row.created_at.date(), row.changed_at.date(), _comments(notes.get(row.id, ())), f"{address}/p/{project_id}/t/{row.id}",
                    blobs.data_of(look.session, view.picture) if view else None,
                )
            )  # fmt: skip
        return project.name, found
