"""Checks for interference and sheets, which jobs make."""

from __future__ import annotations

from typing import Literal

from fastapi import APIRouter
from fastapi.responses import Response
from pydantic import BaseModel, TypeAdapter

from stairpath.api import shapes
from stairpath.api.documents import shape_of
from stairpath.api.lookups import Asker
from stairpath.api.refused import REFUSALS
from stairpath.api.saved import How, named
from stairpath.core.cutting.sheet.wish import SheetWish
from stairpath.core.exchange.wish import TopicsIn
from stairpath.core.measuring.check import Check
from stairpath.store.tables import Errand
from stairpath.work import errands
from stairpath.work.checking import FINDINGS

router = APIRouter(prefix="/api", tags=["errands"], responses=REFUSALS)

_WISH: TypeAdapter[errands.Wish] = TypeAdapter(errands.Wish)
_NEW: TypeAdapter[Check | SheetWish] = TypeAdapter(Check | SheetWish)
_SHAPES: dict[type, type[BaseModel]] = {Check: shapes.Check, SheetWish: shapes.SheetWish, TopicsIn: shapes.TopicsIn}


def _wish(sent: shapes.Check | shapes.SheetWish | shapes.TopicsIn) -> errands.Wish:
    return _WISH.validate_python(sent.model_dump())


def errand_shape(row: Errand) -> shapes.Errand:
    """An errand as it is sent."""
    plain = {
        name: getattr(row, name)
        for name in ("id", "name", "author", "created_at", "status", "share", "message", "made", "made_for", "made_at")
    }
    return shapes.Errand(**plain, wish=shape_of(_SHAPES[type(row.wish)], row.wish))


@router.get("/projects/{project_id}/errands")
def list_errands(project_id: str) -> list[shapes.Errand]:
    """The project's checks and sheets, newest first."""
    return [errand_shape(row) for row in errands.listed(project_id)]


@router.post("/projects/{project_id}/errands", status_code=201)
def ask_errand(who: Asker, project_id: str, wish: shapes.NewErrand) -> shapes.Errand:
    """Ask for a check or a sheet; a job makes it."""
    return errand_shape(errands.ask(who, project_id, wish.name, _NEW.validate_python(wish.wish.model_dump())))


@router.post("/errands/{errand_id}/again")
def ask_errand_again(who: Asker, errand_id: str, wish: shapes.ErrandAgain) -> shapes.Errand:
    """Ask for it once more, of the building as it is now; or with another wish."""
    return errand_shape(errands.ask_again(who, errand_id, None if wish.wish is None else _wish(wish.wish)))


@router.post("/errands/{errand_id}/stop", status_code=204)
def stop_errand(who: Asker, errand_id: str) -> None:
    """Have it stopped; what it came to before stays."""
    errands.stop(who, errand_id)


@router.put("/errands/{errand_id}/name", status_code=204)
def rename_errand(who: Asker, errand_id: str, wish: shapes.NewName) -> None:
    """Call it otherwise."""
    errands.rename(who, errand_id, wish.name)


@router.delete("/errands/{errand_id}", status_code=204)
def delete_errand(who: Asker, errand_id: str) -> None:
    """Delete it; it can be restored."""
    errands.delete(who, errand_id)


@router.post("/errands/{errand_id}/restore", status_code=204)
def restore_errand(who: Asker, errand_id: str) -> None:
    """Bring back one that was deleted."""
    errands.bring_back(who, errand_id)


@router.get("/errands/{errand_id}/findings")
def get_findings(errand_id: str) -> shapes.Findings:
    """What a check came to when it was run last."""
    data, _, _ = errands.result(errand_id, FINDINGS)
    return shapes.Findings.model_validate_json(data)


_SHEETS = ("image/svg+xml", "image/vnd.dxf", "application/pdf")


@router.get(
    "/errands/{errand_id}/sheet/{form}",
    response_class=Response,
    responses={200: {"content": {kind: {} for kind in _SHEETS}, "description": "The sheet in that form."}},
)
def get_sheet(errand_id: str, form: Literal["svg", "dxf", "pdf"], save: bool = False) -> Response:
    """A sheet as it was drawn last; to be looked at, or to be saved."""
    data, kind, name = errands.result(errand_id, form)
    how: How = "attachment" if save else "inline"
    return Response(data, media_type=kind, headers=named(f"{name}.{form}", how))
