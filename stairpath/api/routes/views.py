"""Viewpoints."""

from __future__ import annotations

import base64
import binascii
from collections.abc import Sequence

from fastapi import APIRouter

from stairpath.api import schemas
from stairpath.api.http.caller import TAGGED, Asker, Editor
from stairpath.api.http.door import asks
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.api.http.history import history_shape
from stairpath.core.exchange.pictures import NotAPictureError, checked, size_of
from stairpath.core.people.roles import Action
from stairpath.core.review.view import View
from stairpath.work.base import deleting
from stairpath.work.base.errors import TooLargeError, WrongError
from stairpath.work.base.lookup import VIEWPOINT
from stairpath.work.views import standing_views, viewpoints
from stairpath.work.views.kept_for import KeptFor
from stairpath.work.views.viewpoints import Viewpoint

router = APIRouter(prefix="/api", tags=["views"], responses=ERROR_RESPONSES)

_LARGEST_PICTURE = 16 << 20


def _shape(viewpoint: Viewpoint, new: bool = False, of: Sequence[KeptFor] = ()) -> schemas.Viewpoint:
    return schemas.Viewpoint(
        id=viewpoint.id,
        name=viewpoint.name,
        author=viewpoint.author,
        created_at=viewpoint.created_at,
        picture=viewpoint.picture,
        view=viewpoint.view,
        folder=viewpoint.folder,
        place=viewpoint.place,
        large=viewpoint.large,
        standing=viewpoint.standing is not None,
        changed_by=viewpoint.changed_by,
        changed_at=viewpoint.changed_at,
        new=new,
        of=[schemas.ViewOf.model_validate(each) for each in of],
    )


@router.get("/projects/{project_id}/viewpoints")
@asks(Action.LOOK)
def list_viewpoints(who: Asker, project_id: str) -> list[schemas.Viewpoint]:
    """The project's viewpoints, newest first."""
    return [_shape(each.viewpoint, each.new, each.of) for each in viewpoints.listed(who, project_id)]


@router.post("/projects/{project_id}/viewpoints/looked", status_code=204)
@asks(Action.LOOK)
def look_at_viewpoints(who: Asker, project_id: str) -> None:
    """Note that one went through the viewpoints; what others keep from now on is new."""
    viewpoints.look_at(who, project_id)


@router.post("/projects/{project_id}/viewpoints/standing", status_code=202)
@asks(Action.ARRANGE)
def make_standing_views(who: Asker, project_id: str) -> None:
    """Have the standing views made: each level with and without its architecture, each room, each side."""
    standing_views.ask(who, project_id)


def _picture(encoded: str) -> bytes:
    """The bytes of a picture that came as base64; its size is looked at before any of it is unpacked."""
    if len(encoded) > _LARGEST_PICTURE * 4 // 3 + 4:
        raise TooLargeError(
            "The viewpoint's picture is larger than 16 MB; make the window smaller and keep the view again."
        )
    try:
        data = base64.b64decode(encoded, validate=True)
    except (binascii.Error, ValueError) as error:
        raise WrongError("The viewpoint's picture is not base64; keep the view again.") from error
    try:
        form = checked(data, "viewpoint's picture")
    except NotAPictureError as error:
        raise (TooLargeError if size_of(data) else WrongError)(str(error)) from error
    if form != "png":
        raise WrongError("The viewpoint's picture is not a PNG. Keep the view again.")
    return data


@router.post("/projects/{project_id}/viewpoints", status_code=201)
@asks(Action.KEEP_VIEW)
def keep_viewpoint(who: Asker, project_id: str, wish: schemas.NewViewpoint) -> schemas.Viewpoint:
    """Keep a view with its picture."""
    picture = _picture(wish.picture_png)
    return _shape(viewpoints.keep(who, project_id, wish.name, picture, wish.view))


@router.get("/viewpoints/{viewpoint_id}", dependencies=[TAGGED])
@asks(Action.LOOK)
def get_viewpoint(viewpoint_id: str) -> schemas.Viewpoint:
    """One viewpoint, for a link to it."""
    return _shape(viewpoints.one(viewpoint_id))


@router.put("/viewpoints/{viewpoint_id}/name")
@asks(Action.CHANGE_VIEW)
def rename_viewpoint(who: Editor, viewpoint_id: str, wish: schemas.NewName) -> schemas.Viewpoint:
    """Give a viewpoint another name."""
    return _shape(viewpoints.rename(who, viewpoint_id, wish.name))


@router.delete("/viewpoints/{viewpoint_id}", status_code=204)
@asks(Action.CHANGE_VIEW)
def delete_viewpoint(who: Editor, viewpoint_id: str) -> None:
    """Delete a viewpoint; it can be restored."""
    deleting.delete(who, VIEWPOINT, viewpoint_id)


@router.post("/viewpoints/{viewpoint_id}/restore")
@asks(Action.CHANGE_VIEW)
def restore_viewpoint(who: Editor, viewpoint_id: str) -> schemas.Viewpoint:
    """Bring back a deleted viewpoint."""
    return _shape(deleting.restore(who, VIEWPOINT, viewpoint_id))


@router.post("/viewpoints/{viewpoint_id}/changes")
@asks(Action.LOOK)
def tell_changes(viewpoint_id: str, wish: View) -> list[str]:
    """What keeping a view over a viewpoint would change, in sentences."""
    return viewpoints.changes(viewpoint_id, wish)


@router.put("/viewpoints/{viewpoint_id}/view")
@asks(Action.CHANGE_VIEW)
def keep_over_viewpoint(who: Editor, viewpoint_id: str, wish: schemas.ViewToKeep) -> schemas.Viewpoint:
    """Keep a view over one that was kept; it can be taken back."""
    return _shape(viewpoints.keep_over(who, viewpoint_id, _picture(wish.picture_png), wish.view))


@router.get("/viewpoints/{viewpoint_id}/history")
@asks(Action.LOOK)
def get_viewpoint_history(viewpoint_id: str) -> list[schemas.ChangeMade]:
    """What was changed of a viewpoint, the last first."""
    return history_shape(VIEWPOINT, viewpoint_id)


@router.get("/viewpoints/{viewpoint_id}/earlier")
@asks(Action.LOOK)
def list_earlier_views(viewpoint_id: str) -> list[schemas.EarlierView]:
    """What a viewpoint was before other views were kept over it, the last first."""
    return [schemas.EarlierView.model_validate(each) for each in viewpoints.earlier(viewpoint_id)]


@router.post("/viewpoints/{viewpoint_id}/earlier/{earlier_id}")
@asks(Action.CHANGE_VIEW)
def become_earlier_view(who: Editor, viewpoint_id: str, earlier_id: str) -> schemas.Viewpoint:
    """Make a viewpoint what it was earlier; what it is now is kept as well."""
    return _shape(viewpoints.become_earlier(who, viewpoint_id, earlier_id))


@router.post("/viewpoints/{viewpoint_id}/take-back")
@asks(Action.CHANGE_VIEW)
def take_viewpoint_back(who: Editor, viewpoint_id: str) -> schemas.Viewpoint:
    """Bring back what a viewpoint was before the last view was kept over it."""
    return _shape(viewpoints.take_back(who, viewpoint_id))


@router.put("/viewpoints/{viewpoint_id}/picture")
@asks(Action.CHANGE_VIEW)
def reframe_viewpoint(who: Editor, viewpoint_id: str, wish: schemas.Reframed) -> schemas.Viewpoint:
    """Give a viewpoint another picture of what it sees, widened or trimmed."""
    return _shape(viewpoints.reframe(who, viewpoint_id, _picture(wish.picture_png), wish.frame))


@router.get("/viewpoints/{viewpoint_id}/missing")
@asks(Action.LOOK)
def tell_missing(viewpoint_id: str) -> list[str]:
    """What a viewpoint names that the building no longer has, in sentences."""
    return viewpoints.missing(viewpoint_id)
