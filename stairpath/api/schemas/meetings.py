"""Meetings."""

from __future__ import annotations

from datetime import date, datetime, time
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

_Id = Annotated[str, Field(max_length=40)]
_Ids = Annotated[list[_Id], Field(max_length=2000)]
_Word = Annotated[str, Field(max_length=200)]


class NewMeeting(BaseModel):
    """A meeting that begins: what it is called, when it is held, and topics that are to be dealt with besides."""

    title: _Word = ""
    held_on: date | None = None
    chosen: _Ids = []


class Meeting(BaseModel):
    """A meeting; ``whys`` say why each of its topics is on the agenda."""

    model_config = ConfigDict(from_attributes=True)
    id: str
    title: str
    held_on: date
    author: str
    started_at: datetime
    ended_at: datetime | None
    present: list[str]
    absent: list[str]
    from_time: time | None
    to_time: time | None
    next_on: date | None
    next_time: time | None
    topics: list[str]
    whys: list[Literal["left open", "overdue", "new", "chosen"]]
    folder: str | None


class PointRequest(BaseModel):
    """What is to be corrected of a note; what is left out stays."""

    text: Annotated[str, Field(max_length=8000)] | None = None
    decision: bool | None = None
    who: _Word | None = None
    until: date | None = None


class NewPoint(BaseModel):
    """Something to be noted against a topic."""

    topic: _Id
    text: Annotated[str, Field(max_length=8000)]
    decision: bool = False
    who: _Word = ""
    until: date | None = None
    view: _Id | None = None


class MeetingPoint(BaseModel):
    """Something that was noted of a topic: what was decided or said, who does it, and until when."""

    model_config = ConfigDict(from_attributes=True)
    id: str
    topic_id: str
    text: str
    decision: bool
    who: str
    until: date | None
    view: str | None
    author: str
    at: datetime


class MeetingTold(BaseModel):
    """A meeting with what was noted in it."""

    meeting: Meeting
    points: list[MeetingPoint]
