"""Projects: the start page, the federation to draw, and what changed."""

from __future__ import annotations

import hashlib
from typing import Annotated

import numpy as np
from fastapi import APIRouter, Header, HTTPException, Request
from fastapi.concurrency import run_in_threadpool
from fastapi.responses import Response, StreamingResponse

from stairpath.api import schemas
from stairpath.api.http.caller import Asker
from stairpath.api.http.door import asks, signed_in
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.core.cache import Cache
from stairpath.core.federation.disciplines import DISCIPLINES
from stairpath.core.federation.levels import begins_m
from stairpath.core.geometry.origin import placed_about
from stairpath.core.people.roles import Action, Role, may
from stairpath.work.base import projects
from stairpath.work.base.projects import Counted
from stairpath.work.building import head
from stairpath.work.building.head import Chunk, Drawn, Head
from stairpath.work.people import access

router = APIRouter(prefix="/api/projects", tags=["projects"], responses=ERROR_RESPONSES)


def _card(found: Counted, role: Role = "own") -> schemas.ProjectCard:
    project = found.project
    return schemas.ProjectCard(
        id=project.id,
        name=project.name,
        created_at=project.created_at,
        created_by=project.created_by,
        picture=project.picture,
        models=found.models,
        components=found.components,
        reading=found.reading,
        role=role,
    )


@router.get("")
@asks(Action.OWN_ACCOUNT)
def list_projects(request: Request, bin: bool = False) -> list[schemas.ProjectCard]:
    """The projects that one is in, newest first; with ``bin`` those in the bin that one may restore."""
    roles = access.mine(signed_in(request))
    if roles is None:
        return [_card(found) for found in projects.listed(bin)]
    meant = [key for key, role in roles.items() if not bin or may(role, Action.OWN_PROJECT)]
    return [_card(found, roles[found.project.id]) for found in projects.listed(bin, meant)]


@router.post("", status_code=201)
@asks(Action.MAKE_PROJECTS)
def make_project(who: Asker, wish: schemas.NewProject) -> schemas.ProjectCard:
    """Make a project; its models are added to it one file at a time.

    One that is made for files is listed once the first of them was taken in.
    """
    return _card(projects.make(who, wish.name, wish.for_files))


@router.put("/{project_id}/name")
@asks(Action.OWN_PROJECT)
def rename_project(who: Asker, project_id: str, wish: schemas.NewName) -> schemas.ProjectCard:
    """Give a project another name."""
    return _card(projects.rename(who, project_id, wish.name))


@router.post("/{project_id}/visits")
@asks(Action.LOOK)
def visit_project(who: Asker, project_id: str) -> schemas.Visit:
    """Note that one is in a project now, and hear when one was there last."""
    return schemas.Visit(before=projects.visit(who, project_id))


@router.delete("/{project_id}", status_code=204)
@asks(Action.OWN_PROJECT)
def throw_project_away(who: Asker, project_id: str) -> None:
    """Move a project to the bin; it can be brought back."""
    projects.throw_away(who, project_id)


@router.post("/{project_id}/restore")
@asks(Action.OWN_PROJECT)
def bring_project_back(who: Asker, project_id: str) -> schemas.ProjectCard:
    """Take a project out of the bin."""
    return _card(projects.bring_back(who, project_id))


def _rows_of(matrix: list[list[float]], centre: list[float], origin: tuple[float, float, float]) -> list[float]:
    """Row-major 3 x 4: a chunk's own zero to the project's origin, worked out in double precision."""
    placed = placed_about(matrix, origin)
    placed[:3, 3] += placed[:3, :3] @ np.array(centre)
    rows: list[float] = placed[:3].ravel().tolist()
    return rows


def _chunk(chunk: Chunk, drawn: Drawn, origin: tuple[float, float, float]) -> schemas.ChunkPlace:
    return schemas.ChunkPlace(
        sha256=chunk.sha256,
        matrix=_rows_of(drawn.placed.matrix, chunk.centre_m, origin),
        bounds_m=chunk.bounds_m,
        triangles=chunk.triangles,
        size=chunk.size,
    )


def _model(drawn: Drawn, origin: tuple[float, float, float]) -> schemas.FederatedModel:
    alternative = drawn.placed.alternative
    return schemas.FederatedModel(
        id=drawn.model.id,
        name=drawn.model.name,
        first=drawn.first,
        count=drawn.count,
        stands=drawn.model.stands,
        elsewhere=drawn.placed.elsewhere,
        alternative_what=alternative.what if alternative else None,
        alternative_option=alternative.option if alternative else None,
        named=drawn.columns,
        placed=drawn.placed.columns or "",
        colours=list(drawn.placed.colours),
        chunks=[_chunk(chunk, drawn, origin) for chunk in drawn.chunks],
    )


def _federation(head: Head) -> schemas.Federation:
    project, kept = head.project, head.building
    return schemas.Federation(
        id=project.id,
        name=project.name,
        version=project.version,
        trouble=project.trouble,
        origin_m=list(kept.origin_m),
        bounds_m=kept.bounds_m,
        building_north_deg=kept.building_north_deg,
        true_north_deg=kept.true_north_deg,
        disciplines=list(DISCIPLINES),
        levels=[
            schemas.Level(name=x.name, elevation_m=x.elevation_m, begins_m=begins_m(x.elevation_m), plan=x.plan)
            for x in kept.levels
        ],
        rooms=[
            schemas.RoomLabel(
                model=kept.models[r.model], global_id=r.global_id, number=r.number, name=r.name, level=r.level
            )
            for r in kept.rooms
        ],
        models=[_model(drawn, kept.origin_m) for drawn in head.models],
        home=project.home,
    )


_heads: Cache[Head, tuple[bytes, str]] = Cache(
    64, owner_of=lambda head: head.project.id, size_of=lambda written: len(written[0])
)


def _written(head: Head) -> tuple[bytes, str]:
    """A head as it is sent, and its tag."""
    body = _federation(head).model_dump_json().encode()
    return body, f'"{hashlib.sha256(body).hexdigest()[:32]}"'


@router.get(
    "/{project_id}/federation",
    response_class=Response,
    responses={200: {"model": schemas.Federation}, 304: {"description": "It is as the asker knows it."}},
)
@asks(Action.LOOK)
def get_federation(project_id: str, if_none_match: Annotated[str, Header()] = "") -> Response:
    """The head of what the stage draws: levels, rooms, models, and where chunks and columns are fetched."""
    found = head.head(project_id)
    body, tag = _heads.get(found, lambda: _written(found))
    headers = {"ETag": tag, "Cache-Control": "private, no-cache"}
    if tag in if_none_match.replace("W/", ""):
        return Response(status_code=304, headers=headers)
    return Response(body, media_type="application/json", headers=headers)


@router.post("/{project_id}/federation", status_code=202)
@asks(Action.CHANGE_MODELS)
def put_together(who: Asker, project_id: str) -> None:
    """Have the building put together anew, as after it could not be; a job does it."""
    projects.put_together(who, project_id)


@router.put("/{project_id}/home", status_code=204)
@asks(Action.ARRANGE)
def set_home(who: Asker, project_id: str, home: schemas.NewHome) -> None:
    """Say which view everybody comes home to."""
    projects.set_home(who, project_id, home.view)


@router.delete("/{project_id}/home", status_code=204)
@asks(Action.ARRANGE)
def forget_home(who: Asker, project_id: str) -> None:
    """Let the front view be home again."""
    projects.set_home(who, project_id, None)


@router.get(
    "/{project_id}/events",
    response_class=StreamingResponse,
    responses={200: {"content": {"text/event-stream": {}}, "description": "Server-sent events"}},
)
@asks(Action.LOOK)
async def follow(project_id: str, request: Request) -> StreamingResponse:
    """Server-sent events: ``begun`` when one may have been missed, ``changed`` with ``{kind, id, version}``, and ``ended`` where
    who hears them is signed in no more.
    """
    if not await run_in_threadpool(projects.is_there, project_id):
        raise HTTPException(404, access.NO_PROJECT)
    request.app.state.sign_ins.check_room(request)
    return StreamingResponse(
        request.app.state.hub.stream(project_id, lambda end: request.app.state.sign_ins.over(request, project_id, end)),
        media_type="text/event-stream",
        headers={"Cache-Control": "no-store", "X-Accel-Buffering": "no"},
    )
