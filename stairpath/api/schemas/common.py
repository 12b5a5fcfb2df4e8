"""Words that all shapes share."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from stairpath.core.limits import Coordinate as Coordinate
from stairpath.core.limits import Name as Name

Vector = Annotated[list[Coordinate], Field(min_length=3, max_length=3)]
Bearing = Annotated[float, Field(ge=-36_000, le=36_000, allow_inf_nan=False)]
Count = Annotated[int, Field(ge=-10_000_000, le=10_000_000)]
Status = Literal["waiting", "reading", "read", "failed", "cancelled"]


class NewName(BaseModel):
    name: Name


class Visit(BaseModel):
    """When somebody was in a project last; null for who was never there."""

    before: datetime | None


class Deleted(BaseModel):
    """A thing in the bin: its kind, its name, when it was deleted, the name of what it is a part of, if of any, and who made it."""

    model_config = ConfigDict(from_attributes=True)
    kind: Literal["topic", "topic_file", "viewpoint", "folder", "meeting", "meeting_point", "set", "route", "task"]
    id: str
    name: str
    removed_at: datetime
    of: str
    by: str


class ChangedField(BaseModel):
    """A field that was changed, by the name that people know, and from what to what; of a list what was taken away and
    added, in lines.
    """

    name: str
    old: str
    new: str


class ChangeMade(BaseModel):
    """What somebody changed of a viewpoint, of a meeting, or of one of its notes; ``number`` is the version it led to."""

    number: int
    kind: str
    thing_id: str
    at: datetime
    author: str
    fields: list[ChangedField]


class ErrorMessage(BaseModel):
    """An error in one sentence that says what is wrong and what to do."""

    detail: str
