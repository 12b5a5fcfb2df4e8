"""How the server is, and its projects as its owners see them."""

from __future__ import annotations

from fastapi import APIRouter

from stairpath.api import schemas
from stairpath.api.http.caller import Asker
from stairpath.api.http.door import asks
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.core.people.roles import Action
from stairpath.core.project_limits import ProjectLimits
from stairpath.work.base import project_limits
from stairpath.work.server import projects, state

router = APIRouter(prefix="/api", tags=["server"], responses=ERROR_RESPONSES)


@router.get("/server")
@asks(Action.RUN_SERVER)
def get_server() -> schemas.ServerState:
    """How the server is: versions, storage, jobs, what failed and why, and the last backup."""
    return schemas.ServerState.model_validate(state.look())


@router.get("/server/projects")
@asks(Action.RUN_SERVER)
def list_all_projects() -> list[schemas.ServerProject]:
    """All projects of the server without what is in them, those in the bin last."""
    return [schemas.ServerProject.model_validate(each) for each in projects.listed()]


@router.put("/server/projects/{project_id}/limits")
@asks(Action.RUN_SERVER)
def set_limits(who: Asker, project_id: str, wish: schemas.LimitsWish) -> schemas.ServerProject:
    """Say what a project may hold; null for what the server lets each project hold."""
    limits = None if wish.limits is None else ProjectLimits(**wish.limits.model_dump())
    return schemas.ServerProject.model_validate(projects.set_limits(who, project_id, limits))


@router.post("/server/projects/{project_id}/owners")
@asks(Action.RUN_SERVER)
def give_owner(who: Asker, project_id: str, wish: schemas.PersonKey) -> schemas.ServerProject:
    """Make somebody an owner of a project, as where nobody is left who owns it."""
    return schemas.ServerProject.model_validate(projects.give_owner(who, project_id, wish.key))


@router.get("/projects/{project_id}/limits")
@asks(Action.LOOK)
def get_limits(project_id: str) -> schemas.LimitsShown:
    """What a project may hold, and what it holds."""
    limits, used = project_limits.shown(project_id)
    return schemas.LimitsShown(
        limits=schemas.ProjectLimits.model_validate(limits), storage_bytes=used.storage_bytes, components=used.components,
        tasks=used.tasks,
    )  # fmt: skip
