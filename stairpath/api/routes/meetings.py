"""Meetings, and their minutes."""

from __future__ import annotations

from typing import Literal

from fastapi import APIRouter, Request
from fastapi.responses import Response

from stairpath.api import schemas
from stairpath.api.http.caller import TAGGED, Asker, Editor
from stairpath.api.http.door import asks
from stairpath.api.http.downloads import named
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.api.http.history import history_shape
from stairpath.core.exchange.printed import html, pdf
from stairpath.core.people.roles import Action
from stairpath.work.base import deleting
from stairpath.work.base.lookup import MEETING
from stairpath.work.topics import meetings
from stairpath.work.topics.meetings import MeetingRequest

router = APIRouter(prefix="/api", tags=["meetings"], responses=ERROR_RESPONSES)


@router.get("/projects/{project_id}/meetings")
@asks(Action.LOOK)
def list_meetings(project_id: str) -> list[schemas.Meeting]:
    """The project's meetings, the last one first."""
    return [schemas.Meeting.model_validate(row) for row in meetings.listed(project_id)]


@router.post("/projects/{project_id}/meetings", status_code=201)
@asks(Action.HOLD_MEETINGS)
def begin_meeting(who: Asker, project_id: str, wish: schemas.NewMeeting) -> schemas.Meeting:
    """Begin a meeting."""
    return schemas.Meeting.model_validate(meetings.begin(who, project_id, wish.title, wish.held_on, wish.chosen))


@router.get("/meetings/{meeting_id}", dependencies=[TAGGED])
@asks(Action.LOOK)
def get_meeting(meeting_id: str) -> schemas.MeetingTold:
    """A meeting with what was noted in it."""
    told = meetings.one(meeting_id)
    return schemas.MeetingTold(
        meeting=schemas.Meeting.model_validate(told.meeting),
        points=[schemas.MeetingPoint.model_validate(each) for each in told.points],
    )


@router.patch("/meetings/{meeting_id}")
@asks(Action.HOLD_MEETINGS)
def change_meeting(who: Editor, meeting_id: str, wish: MeetingRequest) -> schemas.Meeting:
    """Change a meeting: who is there, what is dealt with in which order, whether it has ended."""
    return schemas.Meeting.model_validate(meetings.change(who, meeting_id, wish))


@router.get("/meetings/{meeting_id}/history")
@asks(Action.LOOK)
def get_meeting_history(meeting_id: str) -> list[schemas.ChangeMade]:
    """What was changed of a meeting and of its notes, the last first."""
    return history_shape(MEETING, meeting_id)


@router.delete("/meetings/{meeting_id}", status_code=204)
@asks(Action.HOLD_MEETINGS)
def delete_meeting(who: Editor, meeting_id: str) -> None:
    """Delete a meeting; it can be brought back."""
    deleting.delete(who, MEETING, meeting_id)


@router.post("/meetings/{meeting_id}/restore", status_code=204)
@asks(Action.HOLD_MEETINGS)
def restore_meeting(who: Editor, meeting_id: str) -> None:
    """Bring back a deleted meeting."""
    deleting.restore(who, MEETING, meeting_id)


@router.post("/meetings/{meeting_id}/points", status_code=201)
@asks(Action.HOLD_MEETINGS)
def note_point(who: Editor, meeting_id: str, wish: schemas.NewPoint) -> schemas.MeetingPoint:
    """Note something against a topic."""
    point = meetings.point(wish.text, wish.decision, wish.who, wish.until)
    return schemas.MeetingPoint.model_validate(meetings.note(who, meeting_id, wish.topic, point, wish.view))


@router.patch("/meeting-points/{point_id}")
@asks(Action.HOLD_MEETINGS)
def correct_point(who: Editor, point_id: str, wish: schemas.PointRequest) -> schemas.MeetingPoint:
    """Correct something that was noted."""
    given = wish.model_dump(exclude_unset=True)
    # Only a day may be taken away.
    said = {name: value for name, value in given.items() if value is not None or name == "until"}
    return schemas.MeetingPoint.model_validate(meetings.correct(who, point_id, said))


@router.delete("/meeting-points/{point_id}", status_code=204)
@asks(Action.HOLD_MEETINGS)
def take_point_away(who: Editor, point_id: str) -> None:
    """Take away something that was noted; it can be brought back."""
    meetings.take_away(who, point_id)


@router.post("/meeting-points/{point_id}/restore", status_code=204)
@asks(Action.HOLD_MEETINGS)
def bring_point_back(who: Editor, point_id: str) -> None:
    """Bring back something that was noted and taken away."""
    meetings.take_away(who, point_id, back=True)


_KINDS = {"pdf": "application/pdf", "html": "text/html; charset=utf-8"}


@router.get(
    "/meetings/{meeting_id}/minutes",
    response_class=Response,
    responses={200: {"content": {"application/pdf": {}, "text/html": {}}, "description": "The minutes."}},
)
@asks(Action.LOOK)
def get_minutes(
    request: Request, meeting_id: str, form: Literal["pdf", "html"] = "pdf", paper: Literal["A4", "Letter"] = "A4"
) -> Response:
    """The minutes of a meeting, as a document or as a page."""
    held = meetings.minutes(meeting_id, str(request.base_url).rstrip("/"))
    data = pdf(held, paper) if form == "pdf" else html(held, paper).encode()
    lets = {"Content-Security-Policy": "default-src 'none'; img-src data:; font-src data:; style-src 'unsafe-inline'"}
    return Response(data, media_type=_KINDS[form], headers=named(f"{held.title}.{form}", "inline") | lets)
