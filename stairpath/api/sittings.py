"""Meetings, and their minutes."""

from __future__ import annotations

from typing import Literal

from fastapi import APIRouter, Request
from fastapi.responses import Response

from stairpath.api import shapes
from stairpath.api.lookups import Asker
from stairpath.api.refused import REFUSALS
from stairpath.api.saved import named
from stairpath.core.exchange.printed import html, pdf
from stairpath.work import sittings

router = APIRouter(prefix="/api", tags=["sittings"], responses=REFUSALS)


@router.get("/projects/{project_id}/sittings")
def list_sittings(project_id: str) -> list[shapes.Sitting]:
    """The project's meetings, the last one first."""
    return [shapes.Sitting.model_validate(row) for row in sittings.listed(project_id)]


@router.post("/projects/{project_id}/sittings", status_code=201)
def begin_sitting(who: Asker, project_id: str, wish: shapes.NewSitting) -> shapes.Sitting:
    """Begin a meeting."""
    return shapes.Sitting.model_validate(sittings.begin(who, project_id, wish.title, wish.held_on, wish.chosen))


@router.get("/sittings/{sitting_id}")
def get_sitting(sitting_id: str) -> shapes.SittingTold:
    """A meeting with what was noted in it."""
    told = sittings.one(sitting_id)
    return shapes.SittingTold(
        sitting=shapes.Sitting.model_validate(told.sitting),
        points=[shapes.SittingPoint.model_validate(each) for each in told.points],
    )


@router.patch("/sittings/{sitting_id}")
def change_sitting(who: Asker, sitting_id: str, wish: shapes.SittingWish) -> shapes.Sitting:
    """Change a meeting: who is there, what is dealt with in which order, whether it has ended."""
    return shapes.Sitting.model_validate(sittings.change(who, sitting_id, sittings.Wish(**wish.model_dump())))


@router.delete("/sittings/{sitting_id}", status_code=204)
def delete_sitting(who: Asker, sitting_id: str) -> None:
    """Delete a meeting; it can be brought back."""
    sittings.delete(who, sitting_id)


@router.post("/sittings/{sitting_id}/restore", status_code=204)
def restore_sitting(who: Asker, sitting_id: str) -> None:
    """Bring back a deleted meeting."""
    sittings.delete(who, sitting_id, back=True)


@router.post("/sittings/{sitting_id}/points", status_code=201)
def note_point(who: Asker, sitting_id: str, wish: shapes.NewPoint) -> shapes.SittingPoint:
    """Note something against a topic."""
    point = sittings.point(wish.text, wish.decision, wish.who, wish.until)
    return shapes.SittingPoint.model_validate(sittings.note(who, sitting_id, wish.topic, point, wish.view))


@router.delete("/sitting-points/{point_id}", status_code=204)
def take_point_away(who: Asker, point_id: str) -> None:
    """Take away something that was noted; it can be brought back."""
    sittings.take_away(who, point_id)


@router.post("/sitting-points/{point_id}/restore", status_code=204)
def bring_point_back(who: Asker, point_id: str) -> None:
    """Bring back something that was noted and taken away."""
    sittings.take_away(who, point_id, back=True)


_KINDS = {"pdf": "application/pdf", "html": "text/html; charset=utf-8"}


@router.get(
    "/sittings/{sitting_id}/minutes",
    response_class=Response,
    responses={200: {"content": {"application/pdf": {}, "text/html": {}}, "description": "The minutes."}},
)
def get_minutes(
    request: Request, sitting_id: str, form: Literal["pdf", "html"] = "pdf", paper: Literal["A4", "Letter"] = "A4"
) -> Response:
    """The minutes of a meeting, as a document or as a page."""
    held = sittings.minutes(sitting_id, str(request.base_url).rstrip("/"))
    data = pdf(held, paper) if form == "pdf" else html(held, paper).encode()
    lets = {"Content-Security-Policy": "default-src 'none'; img-src data:; font-src data:; style-src 'unsafe-inline'"}
    return Response(data, media_type=_KINDS[form], headers=named(f"{held.title}.{form}", "inline") | lets)
