"""Checks for interference and sheets, which jobs make."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Path
from fastapi.responses import Response

from stairpath.api import schemas
from stairpath.api.http.caller import Asker
from stairpath.api.http.door import asks
from stairpath.api.http.downloads import How, named
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.core.cutting.sheet.formats import FORMATS
from stairpath.core.people.roles import Action
from stairpath.work.base import deleting
from stairpath.work.base.lookup import TASK
from stairpath.work.tasks import tasks
from stairpath.work.tasks.checks import FINDINGS
from stairpath.work.tasks.tasks import Task

router = APIRouter(prefix="/api", tags=["tasks"], responses=ERROR_RESPONSES)


def task_shape(row: Task) -> schemas.Task:
    """A task as it is sent."""
    plain = {
        name: getattr(row, name)
        for name in ("id", "name", "author", "created_at", "status", "share", "message", "made", "made_for", "made_at")
    }
    return schemas.Task(**plain, wish=row.wish)


@router.get("/projects/{project_id}/tasks")
@asks(Action.LOOK)
def list_tasks(project_id: str) -> list[schemas.Task]:
    """The project's checks and sheets, newest first."""
    return [task_shape(row) for row in tasks.listed(project_id)]


@router.post("/projects/{project_id}/tasks", status_code=201)
@asks(Action.RUN_TASKS)
def ask_task(who: Asker, project_id: str, wish: schemas.NewTask) -> schemas.Task:
    """Ask for a check or a sheet; a job makes it."""
    return task_shape(tasks.ask(who, project_id, wish.name, wish.wish))


@router.post("/tasks/{task_id}/again")
@asks(Action.RUN_TASKS)
def ask_task_again(who: Asker, task_id: str, wish: schemas.TaskAgain) -> schemas.Task:
    """Ask for it again, of the present building, or with another request."""
    return task_shape(tasks.ask_again(who, task_id, wish.wish))


@router.post("/tasks/{task_id}/stop", status_code=204)
@asks(Action.RUN_TASKS)
def stop_task(who: Asker, task_id: str) -> None:
    """Have it stopped; what it came to before stays."""
    tasks.stop(who, task_id)


@router.put("/tasks/{task_id}/name", status_code=204)
@asks(Action.RUN_TASKS)
def rename_task(who: Asker, task_id: str, wish: schemas.NewName) -> None:
    """Call it otherwise."""
    tasks.rename(who, task_id, wish.name)


@router.delete("/tasks/{task_id}", status_code=204)
@asks(Action.RUN_TASKS)
def delete_task(who: Asker, task_id: str) -> None:
    """Delete it; it can be restored."""
    tasks.delete(who, task_id)


@router.post("/tasks/{task_id}/restore", status_code=204)
@asks(Action.RUN_TASKS)
def restore_task(who: Asker, task_id: str) -> None:
    """Bring back one that was deleted."""
    deleting.restore(who, TASK, task_id)


@router.get("/tasks/{task_id}/findings")
@asks(Action.LOOK)
def get_findings(task_id: str) -> schemas.Findings:
    """What a check came to when it was run last."""
    data, _, _ = tasks.result(task_id, FINDINGS)
    return schemas.Findings.model_validate_json(data)


_Form = Annotated[str, Path(pattern=f"^({'|'.join(FORMATS)})$")]


@router.get(
    "/tasks/{task_id}/sheet/{form}",
    response_class=Response,
    responses={
        200: {"content": {form.media_type: {} for form in FORMATS.values()}, "description": "The sheet in that form."}
    },
)
@asks(Action.LOOK)
def get_sheet(task_id: str, form: _Form, save: bool = False) -> Response:
    """A sheet as it was drawn last; to be looked at, or to be saved."""
    data, kind, name = tasks.result(task_id, form)
    how: How = "attachment" if save else "inline"
    return Response(data, media_type=kind, headers=named(f"{name}.{FORMATS[form].ends or form}", how))
