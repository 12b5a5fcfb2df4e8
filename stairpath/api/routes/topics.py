"""Topics, what is written of them and attached to them, and files of them."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import fields
from pathlib import Path
from typing import Annotated, Any, Literal

from fastapi import APIRouter, Header, Query, Request
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import FileResponse, Response
from starlette.background import BackgroundTask

from stairpath.api import schemas
from stairpath.api.http.caller import TAGGED, Asker, Editor
from stairpath.api.http.door import asks
from stairpath.api.http.downloads import named
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.api.http.uploads import BODY, file_name, received
from stairpath.api.routes.tasks import task_shape
from stairpath.core.exchange import lists
from stairpath.core.files import scratch_file
from stairpath.core.people.roles import Action
from stairpath.core.register.table import CSV_ENCODING
from stairpath.core.review.rules import TopicRules
from stairpath.core.review.topic import TopicFields
from stairpath.work.base import deleting
from stairpath.work.base.lookup import TOPIC
from stairpath.work.base.project_limits import limits_of
from stairpath.work.exchange import exporting, importing
from stairpath.work.exchange.importing import TopicsReport
from stairpath.work.exchange.previewing import PREVIEW, TopicsPreview, preview_of
from stairpath.work.tasks import rechecks, tasks
from stairpath.work.topics import files, people, rules, topics
from stairpath.work.topics.topics import TopicNote

_FileName = Annotated[str, Header(description="The file's name, percent-encoded")]
_MOST_ATTACHED = 64 << 20

router = APIRouter(prefix="/api", tags=["topics"], responses=ERROR_RESPONSES)


def topic_shape(of: topics.Listed) -> schemas.Topic:
    """A topic as it is sent."""
    row = of.topic
    return schemas.Topic(
        id=row.id,
        guid=row.guid,
        reference=of.reference,
        number=row.number,
        variant=row.variant,
        disciplines=row.disciplines,
        said=row.said,
        views=row.views,
        related=row.related,
        links=row.links,
        level=row.level,
        room=row.room,
        at_m=row.at_m,
        author=row.author,
        created_at=row.created_at,
        changed_by=row.changed_by,
        changed_at=row.changed_at,
        question=row.question,
        overdue=of.overdue,
        new=of.new,
        pairs=topics.pairs_of(row),
    )


def _note(row: TopicNote) -> schemas.TopicNote:
    return schemas.TopicNote(
        id=row.id,
        author=row.author,
        at=row.at,
        text=row.text,
        view=row.view,
        changed=list(row.changed),
    )


def _rules(of: TopicRules) -> schemas.TopicRules:
    return schemas.TopicRules(
        reference=of.reference,
        statuses=[schemas.TopicStatus.model_validate(status) for status in of.statuses.all],
        kinds=list(of.kinds),
        priorities=list(of.priorities),
    )


@router.get("/projects/{project_id}/topic-rules")
@asks(Action.LOOK)
def get_topic_rules(project_id: str) -> schemas.TopicRules:
    """How the project's topics are called, which statuses they may have and which may follow which, and what is offered."""
    return _rules(rules.rules(project_id))


@router.put("/projects/{project_id}/topic-rules")
@asks(Action.SET_RULES)
def set_topic_rules(who: Asker, project_id: str, wish: schemas.TopicRules) -> schemas.TopicRules:
    """Set the project's rules for topics."""
    wanted = [rules.wanted(each.name, each.next, each.end, each.was) for each in wish.statuses]
    return _rules(rules.set_rules(who, project_id, wish.reference, wanted, wish.kinds, wish.priorities))


@router.get("/projects/{project_id}/people")
@asks(Action.LOOK)
def list_people(project_id: str) -> list[str]:
    """Who may be meant in the project: who was in it, and who was named in its topics and meetings."""
    return people.listed(project_id)


@router.get("/projects/{project_id}/topics")
@asks(Action.LOOK)
def list_topics(who: Asker, project_id: str) -> list[schemas.Topic]:
    """The project's topics by number."""
    return [topic_shape(each) for each in topics.listed(who, project_id)]


@router.post("/projects/{project_id}/topics", status_code=201)
@asks(Action.COMMENT)
def make_topic(who: Asker, project_id: str, wish: schemas.NewTopic) -> schemas.Topic:
    """Make a topic."""
    said = TopicFields(**{each.name: getattr(wish, each.name) for each in fields(TopicFields)})
    new = topics.NewTopic(said, wish.views, wish.disciplines, wish.variant_of, wish.finding)
    return topic_shape(topics.make(who, project_id, new))


@router.get("/topics/{topic_id}", dependencies=[TAGGED])
@asks(Action.LOOK)
def get_topic(topic_id: str) -> schemas.TopicTold:
    """A topic with everything that was written and changed."""
    told = topics.one(topic_id)
    return schemas.TopicTold(
        topic=topic_shape(told.topic),
        notes=[_note(note) for note in told.notes],
        files=[schemas.TopicFile.model_validate(each) for each in told.files],
    )


@router.patch("/topics/{topic_id}")
@asks(Action.CHANGE_TOPIC)
def change_topic(who: Editor, topic_id: str, wish: schemas.TopicRequest) -> schemas.Topic:
    """Change what is said of a topic, or its views."""
    return topic_shape(topics.change(who, topic_id, _wish(wish)))


@router.post("/projects/{project_id}/topics/changes")
@asks(Action.CHANGE_TOPICS)
def change_topics(who: Asker, project_id: str, wish: schemas.TopicsRequest) -> list[schemas.Topic]:
    """Change several topics of a project at once, all of them or none."""
    wishes = [(each.topic, _wish(each.change)) for each in wish.changes]
    return [topic_shape(each) for each in topics.change_many(who, project_id, wishes)]


def _wish(wish: schemas.TopicRequest) -> topics.TopicWish:
    given = wish.model_dump(exclude_unset=True, exclude={"labels", "views", "related"})
    # Only a date may be taken away; anything else is emptied.
    said = {name: value for name, value in given.items() if value is not None or name == "due"}
    return topics.TopicWish(said, wish.labels, wish.views, wish.related)


@router.post("/topics/{topic_id}/looked", status_code=204)
@asks(Action.LOOK)
def look_at_topic(who: Asker, topic_id: str) -> None:
    """Note that one has seen a topic as it is."""
    topics.look_at(who, topic_id)


@router.post("/topics/{topic_id}/comments", status_code=201)
@asks(Action.COMMENT)
def write_comment(who: Editor, topic_id: str, wish: schemas.NewComment) -> schemas.TopicNote:
    """Write of a topic."""
    return _note(topics.write(who, topic_id, wish.text, wish.view))


@router.delete("/topics/{topic_id}", status_code=204)
@asks(Action.DELETE_TOPIC)
def delete_topic(who: Editor, topic_id: str) -> None:
    """Delete a topic; it can be brought back."""
    deleting.delete(who, TOPIC, topic_id)


@router.post("/topics/{topic_id}/restore")
@asks(Action.DELETE_TOPIC)
def restore_topic(who: Editor, topic_id: str) -> schemas.Topic:
    """Bring back a deleted topic."""
    return topic_shape(topics.bring_back(who, topic_id))


@router.post("/projects/{project_id}/topics/files", status_code=201, openapi_extra=BODY)
@asks(Action.EXCHANGE)
async def take_topics_in(
    who: Asker, project_id: str, request: Request, x_file_name: _FileName, preview: bool = False
) -> schemas.Task:
    """Import a file of topics (BCF), sent as the request's body, or have told first what it would bring; a job does it."""
    name = file_name(x_file_name, "topics.bcf")
    most = await run_in_threadpool(limits_of, project_id)
    async with received(request, name, most.intake.file_bytes) as kept:
        row = await run_in_threadpool(importing.take_file, who, project_id, name, kept, preview)
    return task_shape(row)


@router.get("/tasks/{task_id}/report")
@asks(Action.LOOK)
def get_report(task_id: str) -> TopicsReport:
    """What became of a file of topics when it was taken in last."""
    data, _, _ = tasks.result(task_id, importing.REPORT)
    return importing.report_of(data)


@router.get("/tasks/{task_id}/preview")
@asks(Action.LOOK)
def get_preview(task_id: str) -> TopicsPreview:
    """What a file of topics would bring, as it was looked through last."""
    data, _, _ = tasks.result(task_id, PREVIEW)
    return preview_of(data)


@router.get("/tasks/{task_id}/proposals")
@asks(Action.LOOK)
def get_proposals(task_id: str) -> list[schemas.Proposal]:
    """What the last run of a check tells of the topics of its findings; nobody's status is changed by it."""
    return [
        schemas.Proposal(
            topic=each.topic.topic.id,
            reference=each.topic.reference,
            title=each.topic.topic.said.title,
            status=each.topic.topic.said.status,
            what=each.proposal.what,
            was=each.proposal.was,
            now=each.proposal.now,
        )
        for each in rechecks.proposed(task_id)
    ]


_FILE: dict[int | str, dict[str, Any]] = {200: {"content": {"application/zip": {}}, "description": "A file (BCF)."}}


@router.get("/projects/{project_id}/topics/file", response_class=Response, responses=_FILE)
@asks(Action.LOOK)
def save_topics(
    project_id: str,
    version: Literal["2.1", "3.0"] = "3.0",
    topic: Annotated[list[str] | None, Query(max_length=5000)] = None,
) -> Response:
    """Topics as a file of the open format, all of them or some."""
    return _exchanged(lambda path: exporting.write_topics(project_id, version, path, topic or ()))


@router.get("/projects/{project_id}/viewpoints/file", response_class=Response, responses=_FILE)
@asks(Action.LOOK)
def save_viewpoints(
    project_id: str, view: Annotated[list[str], Query(max_length=5000)], version: Literal["2.1", "3.0"] = "3.0"
) -> Response:
    """Viewpoints as a file of the open format, each as a topic of its own."""
    return _exchanged(lambda path: exporting.write_views(project_id, version, path, view))


def _exchanged(write: Callable[[Path], str]) -> Response:
    """A file that is written to a path, and named after the project that writing it tells."""
    path = scratch_file(".bcf")
    try:
        project = write(path)
    except BaseException:
        path.unlink(missing_ok=True)
        raise
    return FileResponse(
        path,
        media_type="application/zip",
        headers=named(f"{project}.bcf"),
        background=BackgroundTask(path.unlink, missing_ok=True),
    )


@router.post("/topics/{topic_id}/files", status_code=201, openapi_extra=BODY)
@asks(Action.COMMENT)
async def attach_file(who: Asker, topic_id: str, request: Request, x_file_name: _FileName) -> schemas.TopicFile:
    """Attach a file, sent as the request's body, to a topic."""
    name = file_name(x_file_name, "file")
    async with received(request, name, _MOST_ATTACHED) as kept:
        row = await run_in_threadpool(files.attach, who, topic_id, name, kept)
    return schemas.TopicFile.model_validate(row)


@router.get(
    "/topic-files/{file_id}",
    response_class=Response,
    responses={200: {"content": {"application/octet-stream": {}}, "description": "The file."}},
)
@asks(Action.LOOK)
def get_file(file_id: str) -> Response:
    """A file that is attached to a topic, to be saved; never to be run by the browser."""
    name, data = files.content(file_id)
    headers = named(name) | {"X-Content-Type-Options": "nosniff"}
    return Response(data, media_type="application/octet-stream", headers=headers)


@router.delete("/topic-files/{file_id}", status_code=204)
@asks(Action.DELETE_FILE)
def take_file_away(who: Asker, file_id: str) -> None:
    """Take a file away from its topic; it can be brought back."""
    files.take_away(who, file_id)


@router.post("/topic-files/{file_id}/restore", status_code=204)
@asks(Action.DELETE_FILE)
def bring_file_back(who: Asker, file_id: str) -> None:
    """Bring back a file that was taken away."""
    files.bring_back(who, file_id)


_LISTS = {"csv": "text/csv; charset=utf-8", "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"}


@router.get(
    "/projects/{project_id}/topics/list",
    response_class=Response,
    responses={200: {"content": {kind: {} for kind in _LISTS.values()}, "description": "The topics as a list."}},
)
@asks(Action.LOOK)
def save_list(
    request: Request,
    project_id: str,
    form: Literal["csv", "xlsx"] = "xlsx",
    topic: Annotated[list[str] | None, Query(max_length=5000)] = None,
) -> Response:
    """Topics as a list for a spreadsheet, all of them or some; with their pictures, where the form has room for them."""
    address = str(request.base_url).rstrip("/")
    name, lines = exporting.lines_of(project_id, address, topic or (), pictures=form == "xlsx")
    data = lists.xlsx_of(lines) if form == "xlsx" else lists.csv_of(lines).encode(CSV_ENCODING)
    return Response(data, media_type=_LISTS[form], headers=named(f"{name} topics.{form}"))
