"""What stands beside topics in the standard's web interface: documents, models, pictures in space, and what was done."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from datetime import date

from fastapi import FastAPI
from fastapi.responses import Response

from stairpath.api.bcf import schemas
from stairpath.api.bcf.translate import bitmap_guid
from stairpath.api.http.caller import Asker
from stairpath.api.http.door import asks
from stairpath.core.exchange.bcf.markup import guid_of
from stairpath.core.exchange.pictures import MEDIA
from stairpath.core.people.roles import Action
from stairpath.core.review.topic import TopicChange
from stairpath.work.base.errors import MissingError
from stairpath.work.exchange import bcf_api
from stairpath.work.exchange.bcf_api import Happened
from stairpath.work.topics.files import TopicFile

_TYPES = {
    "title": "title_updated", "description": "description_updated", "status": "status_updated", "kind": "type_updated",
    "priority": "priority_updated", "assigned_to": "assigned_to_updated", "due": "due_date_updated",
    "stage": "stage_updated",
}  # fmt: skip
_OF_PROJECT, _OF_TOPIC = "/3.0/projects/{project_id}", "/3.0/projects/{project_id}/topics/{guid}"


def add_beside(app: FastAPI) -> None:
    """The addresses of what stands beside topics."""
    _bitmaps(app)
    _documents(app)
    _events(app)


def _bitmaps(app: FastAPI) -> None:
    @app.get(f"{_OF_TOPIC}/viewpoints/{{view_guid}}/bitmaps/{{bitmap}}", response_class=Response)
    @asks(Action.LOOK)
    def get_bitmap(project_id: str, guid: str, view_guid: str, bitmap: str) -> Response:
        view = bcf_api.parts_of(project_id, guid, view_guid)
        for place, each in enumerate(view.bitmaps):
            if bitmap_guid(view.guid, place) == guid_of(bitmap):
                return Response(each.data, media_type=MEDIA[each.format])
        raise MissingError(f"The viewpoint has no bitmap {bitmap}; read it again to see which it has.")


def _reference(file: TopicFile) -> schemas.DocumentReference:
    document = None if file.url else file.guid
    return schemas.DocumentReference(
        guid=guid_of(f"{file.guid} reference"), document_guid=document, url=file.url or None,
        description=file.description or None,
    )  # fmt: skip


def _documents(app: FastAPI) -> None:
    @app.get(f"{_OF_PROJECT}/documents")
    @asks(Action.LOOK)
    def list_documents(project_id: str) -> list[schemas.Document]:
        return [schemas.Document(guid=each.guid, filename=each.name) for each in bcf_api.documents(project_id)]

    @app.get(f"{_OF_PROJECT}/documents/{{document}}", response_class=Response)
    @asks(Action.LOOK)
    def get_document(project_id: str, document: str) -> Response:
        headers = {"X-Content-Type-Options": "nosniff"}
        data = bcf_api.document(project_id, document)
        return Response(data, media_type="application/octet-stream", headers=headers)

    @app.get(f"{_OF_TOPIC}/document_references")
    @asks(Action.LOOK)
    def list_references(project_id: str, guid: str) -> list[schemas.DocumentReference]:
        return [_reference(each) for each in bcf_api.attached(project_id, guid)]

    @app.post(f"{_OF_TOPIC}/document_references", status_code=201)
    @asks(Action.COMMENT)
    def add_reference(
        who: Asker, project_id: str, guid: str, wish: schemas.DocumentReferenceRequest
    ) -> schemas.DocumentReference:
        said = wish.description or ""
        return _reference(bcf_api.refer(who, project_id, guid, wish.document_guid, wish.url or "", said))

    @app.get(f"{_OF_TOPIC}/files")
    @asks(Action.LOOK)
    def list_files(project_id: str, guid: str) -> list[schemas.File]:
        bcf_api.topic(project_id, guid)
        return [
            schemas.File(filename=each.file_name, date=each.added_at, reference=each.file_name)
            for each in bcf_api.model_files(project_id)
        ]


def _events(app: FastAPI) -> None:
    @app.get(f"{_OF_PROJECT}/topics/events")
    @asks(Action.LOOK)
    def list_events(project_id: str) -> list[schemas.Event]:
        return list(_told(bcf_api.happened(project_id)))

    @app.get(f"{_OF_TOPIC}/events")
    @asks(Action.LOOK)
    def list_topic_events(project_id: str, guid: str) -> list[schemas.Event]:
        return list(_told(bcf_api.happened(project_id, guid)))

    @app.get(f"{_OF_TOPIC}/comments/events")
    @asks(Action.LOOK)
    def list_comment_events(project_id: str, guid: str) -> list[schemas.Event]:
        return [
            schemas.Event(
                topic_guid=each.topic.guid, comment_guid=each.note.guid, date=each.note.at, author=each.note.author,
                actions=[schemas.Action(type="comment_created", value=each.note.text)],
            )
            for each in bcf_api.happened(project_id, guid)
            if each.note is not None and each.note.text
        ]  # fmt: skip


def _told(happened: Sequence[Happened]) -> Iterator[schemas.Event]:
    for topic, note in ((each.topic, each.note) for each in happened):
        if note is None:
            made = schemas.Action(type="topic_created")
            yield schemas.Event(topic_guid=topic.guid, date=topic.created_at, author=topic.author, actions=[made])
        elif actions := [action for change in note.changed for action in _actions(change)]:
            yield schemas.Event(topic_guid=topic.guid, date=note.at, author=note.author, actions=actions)


def _actions(change: TopicChange) -> Iterator[schemas.Action]:
    if change.field == "labels":
        old, new = (set(side) if isinstance(side, (tuple, list)) else set() for side in (change.old, change.new))
        yield from (schemas.Action(type="label_added", value=each) for each in sorted(new - old))
        yield from (schemas.Action(type="label_removed", value=each) for each in sorted(old - new))
    elif change.field in _TYPES:
        value = change.new.isoformat() if isinstance(change.new, date) else change.new
        yield schemas.Action(type=_TYPES[change.field], value=str(value) if value is not None else None)
