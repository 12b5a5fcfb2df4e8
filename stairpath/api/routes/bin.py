"""What was deleted of a project and can be restored."""

from __future__ import annotations

from fastapi import APIRouter

from stairpath.api import schemas
from stairpath.api.http.door import asks
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.core.people.roles import Action
from stairpath.work.base import bin

router = APIRouter(prefix="/api", tags=["projects"], responses=ERROR_RESPONSES)


@router.get("/projects/{project_id}/bin")
@asks(Action.LOOK)
def list_bin(project_id: str) -> list[schemas.Deleted]:
    """What was deleted within the last 30 days, the last one first; each kind of thing has its own restore."""
    return [schemas.Deleted.model_validate(each) for each in bin.deleted_things(project_id)]
