"""Folders of viewpoints."""

from __future__ import annotations

from fastapi import APIRouter

from stairpath.api import schemas
from stairpath.api.http.caller import Asker, Editor
from stairpath.api.http.door import asks
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.core.people.roles import Action
from stairpath.work.base import deleting
from stairpath.work.base.lookup import FOLDER
from stairpath.work.views import folders

router = APIRouter(prefix="/api", tags=["views"], responses=ERROR_RESPONSES)


@router.get("/projects/{project_id}/folders")
@asks(Action.LOOK)
def list_folders(project_id: str) -> list[schemas.Folder]:
    """The project's folders, in their order."""
    return [schemas.Folder.model_validate(row) for row in folders.listed(project_id)]


@router.post("/projects/{project_id}/folders", status_code=201)
@asks(Action.ARRANGE)
def make_folder(who: Asker, project_id: str, wish: schemas.NewFolder) -> schemas.Folder:
    """Make a folder."""
    return schemas.Folder.model_validate(folders.make(who, project_id, wish.name, wish.within))


@router.put("/folders/{folder_id}/name")
@asks(Action.ARRANGE)
def rename_folder(who: Editor, folder_id: str, wish: schemas.NewName) -> schemas.Folder:
    """Give a folder another name."""
    return schemas.Folder.model_validate(folders.rename(who, folder_id, wish.name))


@router.put("/folders/{folder_id}/place", status_code=204)
@asks(Action.ARRANGE)
def order_folder(who: Editor, folder_id: str, wish: schemas.Before) -> None:
    """Put a folder before another one, or last."""
    folders.put_before(who, folder_id, wish.before)


@router.put("/folders/{folder_id}/within")
@asks(Action.ARRANGE)
def put_folder_into(who: Editor, folder_id: str, wish: schemas.Within) -> schemas.Folder:
    """Put a folder into another one, or out of any."""
    return schemas.Folder.model_validate(folders.put_into(who, folder_id, wish.within))


@router.delete("/folders/{folder_id}", status_code=204)
@asks(Action.ARRANGE)
def delete_folder(who: Editor, folder_id: str) -> None:
    """Delete a folder; it can be restored, with what is in it."""
    deleting.delete(who, FOLDER, folder_id)


@router.post("/folders/{folder_id}/restore")
@asks(Action.ARRANGE)
def restore_folder(who: Editor, folder_id: str) -> schemas.Folder:
    """Bring back a deleted folder."""
    return schemas.Folder.model_validate(deleting.restore(who, FOLDER, folder_id))


@router.post("/projects/{project_id}/viewpoints/move", status_code=204)
@asks(Action.ARRANGE)
def move_viewpoints(who: Asker, project_id: str, wish: schemas.MovedViews) -> None:
    """Move viewpoints into a folder, before one of it or last, or out of any."""
    folders.move(who, project_id, wish.views, wish.folder, wish.before)
