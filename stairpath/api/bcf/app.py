"""The addresses of the standard's web interface, with its own errors and filters."""

from __future__ import annotations

import json
from collections.abc import Callable, Mapping, Sequence
from typing import Annotated, Any, TypeVar

from fastapi import FastAPI, Query, Request
from fastapi.responses import JSONResponse, Response
from pydantic import BaseModel

from stairpath.api.bcf import schemas
from stairpath.api.bcf.authorization import comment_actions, of_topic, project_actions, topic_actions
from stairpath.api.bcf.beside import add_beside
from stairpath.api.bcf.translate import (
    comment_shape,
    parts,
    said_from,
    topic_shape,
    viewpoint_from,
    viewpoint_shape,
    visibility_shape,
)
from stairpath.api.http.caller import Asker
from stairpath.api.http.door import DOOR, asks, signed_in
from stairpath.api.http.errors import add_error_handlers
from stairpath.core.exchange.filters import NotAFilterError, filtered, ordered
from stairpath.core.exchange.pictures import media_of
from stairpath.core.people.roles import Action, Role
from stairpath.core.review.topic import Value
from stairpath.work.base import projects
from stairpath.work.base.errors import MissingError, WrongError
from stairpath.work.base.projects import Counted
from stairpath.work.base.unit_of_work import Who
from stairpath.work.exchange import bcf_api
from stairpath.work.people import access
from stairpath.work.topics import topics
from stairpath.work.topics.rules import rules
from stairpath.work.topics.topics import Listed, NewTopic

_TOPIC_FIELDS = (
    "creation_author", "modified_author", "assigned_to", "stage", "topic_status", "topic_type", "creation_date",
    "modified_date", "due_date", "labels", "priority", "title", "index",
)  # fmt: skip
_COMMENT_FIELDS = ("author", "date", "comment", "viewpoint_guid")

B = TypeVar("B", bound=BaseModel)
_Filter = Annotated[str | None, Query(alias="$filter", max_length=2000)]
_Order = Annotated[str | None, Query(alias="$orderby", max_length=400)]
_Top = Annotated[int | None, Query(alias="$top", ge=0, le=100_000)]
_Skip = Annotated[int, Query(alias="$skip", ge=0, le=10_000_000)]


def _asked(found: Sequence[B], fields: Sequence[str], where: str | None, order: str | None) -> list[B]:
    """Those that are meant, in the order that is wanted."""
    records: list[Mapping[str, Any]] = [{**each.model_dump(), "": each} for each in found]
    try:
        if where:
            test = filtered(where, fields)
            records = [record for record in records if test(record)]
        if order:
            records = [dict(record) for record in ordered(records, order, fields)]
    except NotAFilterError as error:
        raise WrongError(str(error)) from error
    return [record[""] for record in records]


def _project(found: Counted, role: Role) -> schemas.Project:
    may = schemas.ProjectAuthorization(project_actions=project_actions(role))
    return schemas.Project(project_id=found.project.id, name=found.project.name, authorization=may)


def _shaping(who: Who, project_id: str) -> Callable[[Listed], schemas.Topic]:
    """Topics of a project as the standard has them, with what who asks may do to each."""
    statuses = rules(project_id).statuses
    return lambda of: topic_shape(of, of_topic(who, of, statuses))


def as_message(answer: Response) -> Response:
    """An error in the standard's own form, which knows no other status for what is not valid than 400."""
    said = json.loads(bytes(answer.body))
    kept = {k: v for k, v in answer.headers.items() if k not in ("content-length", "content-type")}
    status = 400 if answer.status_code == 422 else answer.status_code
    return JSONResponse({"message": said["detail"]}, status, headers=kept)


def bcf_app() -> FastAPI:
    """The interface as an application of its own."""
    app = FastAPI(
        title="Topics of Stair Path",
        version="3.0",
        docs_url=None,
        redoc_url=None,
        openapi_url="/3.0/openapi.json",
        responses={code: {"model": schemas.Wrong} for code in (400, 401, 404, 409, 410)},
        dependencies=[DOOR],
    )
    add_error_handlers(app, as_message)
    _projects(app)
    # Before what has a GUID in the same place of its address.
    add_beside(app)
    _topics(app)
    _comments(app)
    _viewpoints(app)
    return app


def _projects(app: FastAPI) -> None:
    @app.get("/versions")
    @asks(Action.ANYTHING_OPEN)
    def versions() -> schemas.Versions:
        return schemas.Versions(
            versions=[schemas.Version(version_id="3.0", detailed_version="3.0", api_base_url="/bcf/3.0")]
        )

    @app.get("/3.0/projects")
    @asks(Action.OWN_ACCOUNT)
    def list_projects(request: Request) -> list[schemas.Project]:
        roles = access.mine(signed_in(request))
        return [
            _project(each, "own" if roles is None else roles[each.project.id]) for each in projects.listed(only=roles)
        ]

    @app.get("/3.0/projects/{project_id}")
    @asks(Action.LOOK)
    def get_project(who: Asker, project_id: str) -> schemas.Project:
        found = next(iter(projects.listed(only=[project_id])), None)
        if found is None:
            raise MissingError("There is no such project; list them to see which there are.")
        return _project(found, who.role)

    @app.get("/3.0/projects/{project_id}/extensions")
    @asks(Action.LOOK)
    def get_extensions(who: Asker, project_id: str) -> schemas.Extensions:
        rows = [each.topic for each in topics.listed(who, project_id)]
        said = [row.said for row in rows]
        ours = rules(project_id)

        def all_of(values: Sequence[str]) -> list[str]:
            return sorted({value for value in values if value})

        def ours_first(offered: Sequence[str], used: Sequence[str]) -> list[str]:
            return list(dict.fromkeys([*offered, *all_of(used)]))

        return schemas.Extensions(
            topic_type=ours_first(ours.kinds, [s.kind for s in said]),
            topic_status=ours_first([s.name for s in ours.statuses.all], [s.status for s in said]),
            topic_label=all_of([label for s in said for label in s.labels]),
            snippet_type=[],
            priority=ours_first(ours.priorities, [s.priority for s in said]),
            users=all_of([s.assigned_to for s in said] + [row.author for row in rows]),
            stage=all_of([s.stage for s in said]),
            project_actions=project_actions(who.role),
            topic_actions=topic_actions(who.role),
            comment_actions=comment_actions(who.role),
        )


def _topics(app: FastAPI) -> None:
    of_project, one = "/3.0/projects/{project_id}/topics", "/3.0/projects/{project_id}/topics/{guid}"

    @app.get(of_project)
    @asks(Action.LOOK)
    def list_topics(
        who: Asker, project_id: str, where: _Filter = None, order: _Order = None, top: _Top = None, skip: _Skip = 0
    ) -> list[schemas.Topic]:
        shape = _shaping(who, project_id)
        found = _asked([shape(each) for each in topics.listed(who, project_id)], _TOPIC_FIELDS, where, order)
        return found[skip : None if top is None else skip + top]

    @app.post(of_project, status_code=201)
    @asks(Action.COMMENT)
    def make_topic(who: Asker, project_id: str, wish: schemas.TopicRequest) -> schemas.Topic:
        return _shaping(who, project_id)(
            bcf_api.make(who, project_id, NewTopic(said_from(wish), links=wish.reference_links), wish.guid)
        )

    @app.get(one)
    @asks(Action.LOOK)
    def get_topic(who: Asker, project_id: str, guid: str) -> schemas.Topic:
        return _shaping(who, project_id)(bcf_api.topic(project_id, guid))

    @app.put(one)
    @asks(Action.CHANGE_TOPIC)
    def put_topic(who: Asker, project_id: str, guid: str, wish: schemas.TopicRequest) -> schemas.Topic:
        said = said_from(wish)
        fields: dict[str, Value] = {name: value for name, value in vars(said).items() if name != "status" or value}
        return _shaping(who, project_id)(bcf_api.change(who, project_id, guid, fields, wish.reference_links))

    @app.delete(one, response_class=Response)
    @asks(Action.DELETE_TOPIC)
    def delete_topic(who: Asker, project_id: str, guid: str) -> Response:
        bcf_api.delete(who, project_id, guid)
        return Response()

    @app.get(f"{one}/related_topics")
    @asks(Action.LOOK)
    def get_related(project_id: str, guid: str) -> list[schemas.RelatedTopic]:
        return [schemas.RelatedTopic(related_topic_guid=each) for each in bcf_api.topic(project_id, guid).topic.related]

    @app.put(f"{one}/related_topics")
    @asks(Action.CHANGE_TOPIC)
    def put_related(
        who: Asker, project_id: str, guid: str, wish: list[schemas.RelatedTopic]
    ) -> list[schemas.RelatedTopic]:
        row = bcf_api.relate(who, project_id, guid, [each.related_topic_guid for each in wish])
        return [schemas.RelatedTopic(related_topic_guid=each) for each in row.topic.related]


def _comments(app: FastAPI) -> None:
    all_of = "/3.0/projects/{project_id}/topics/{guid}/comments"

    @app.get(all_of)
    @asks(Action.LOOK)
    def list_comments(
        who: Asker,
        project_id: str,
        guid: str,
        where: _Filter = None,
        order: _Order = None,
        top: _Top = None,
        skip: _Skip = 0,
    ) -> list[schemas.Comment]:
        found = _asked(
            [comment_shape(c, who) for c in bcf_api.comments(project_id, guid)], _COMMENT_FIELDS, where, order
        )
        return found[skip : None if top is None else skip + top]

    @app.post(all_of, status_code=201)
    @asks(Action.COMMENT)
    def write_comment(who: Asker, project_id: str, guid: str, wish: schemas.CommentRequest) -> schemas.Comment:
        return comment_shape(bcf_api.write(who, project_id, guid, wish.comment, wish.viewpoint_guid), who)

    @app.get(f"{all_of}/{{comment_guid}}")
    @asks(Action.LOOK)
    def get_comment(who: Asker, project_id: str, guid: str, comment_guid: str) -> schemas.Comment:
        return comment_shape(bcf_api.comment(project_id, guid, comment_guid), who)

    @app.put(f"{all_of}/{{comment_guid}}")
    @asks(Action.CHANGE_COMMENT)
    def put_comment(
        who: Asker, project_id: str, guid: str, comment_guid: str, wish: schemas.CommentRequest
    ) -> schemas.Comment:
        bcf_api.rewrite(who, project_id, guid, comment_guid, wish.comment)
        return comment_shape(bcf_api.comment(project_id, guid, comment_guid), who)

    @app.delete(f"{all_of}/{{comment_guid}}", response_class=Response)
    @asks(Action.CHANGE_COMMENT)
    def delete_comment(who: Asker, project_id: str, guid: str, comment_guid: str) -> Response:
        bcf_api.rewrite(who, project_id, guid, comment_guid, None)
        return Response()


def _viewpoints(app: FastAPI) -> None:
    all_of = "/3.0/projects/{project_id}/topics/{guid}/viewpoints"
    one = f"{all_of}/{{view_guid}}"

    @app.get(all_of)
    @asks(Action.LOOK)
    def list_viewpoints(project_id: str, guid: str) -> list[schemas.Viewpoint]:
        return [viewpoint_shape(view) for view in bcf_api.viewpoints(project_id, guid)]

    @app.post(all_of, status_code=201)
    @asks(Action.COMMENT)
    def add_viewpoint(who: Asker, project_id: str, guid: str, wish: schemas.ViewpointRequest) -> schemas.Viewpoint:
        view = viewpoint_from(wish)
        bcf_api.add_viewpoint(who, project_id, guid, view)
        return viewpoint_shape(bcf_api.viewpoints(project_id, guid, view.guid)[0])

    @app.get(one)
    @asks(Action.LOOK)
    def get_viewpoint(project_id: str, guid: str, view_guid: str) -> schemas.Viewpoint:
        return viewpoint_shape(bcf_api.viewpoints(project_id, guid, view_guid)[0])

    @app.delete(one, response_class=Response)
    @asks(Action.CHANGE_VIEW)
    def delete_viewpoint(who: Asker, project_id: str, guid: str, view_guid: str) -> Response:
        bcf_api.delete_viewpoint(who, project_id, guid, view_guid)
        return Response()

    @app.get(f"{one}/snapshot", response_class=Response)
    @asks(Action.LOOK)
    def get_snapshot(project_id: str, guid: str, view_guid: str) -> Response:
        picture = bcf_api.snapshot(project_id, guid, view_guid)
        if picture is None:
            raise MissingError("The viewpoint has no snapshot.")
        return Response(picture, media_type=media_of(picture))

    @app.get(f"{one}/selection")
    @asks(Action.LOOK)
    def get_selection(project_id: str, guid: str, view_guid: str) -> schemas.Selection:
        return schemas.Selection(selection=parts(bcf_api.parts_of(project_id, guid, view_guid).selected))

    @app.get(f"{one}/coloring")
    @asks(Action.LOOK)
    def get_coloring(project_id: str, guid: str, view_guid: str) -> schemas.Colourings:
        view = bcf_api.parts_of(project_id, guid, view_guid)
        return schemas.Colourings(
            coloring=[schemas.Colouring(color=each.colour, components=parts(each.components)) for each in view.colours]
        )

    @app.get(f"{one}/visibility")
    @asks(Action.LOOK)
    def get_visibility(project_id: str, guid: str, view_guid: str) -> schemas.Visibilities:
        return schemas.Visibilities(visibility=visibility_shape(bcf_api.parts_of(project_id, guid, view_guid)))
