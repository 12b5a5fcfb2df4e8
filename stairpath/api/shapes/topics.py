"""Topics."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

_Id = Annotated[str, Field(max_length=40)]
_Word = Annotated[str, Field(max_length=200)]
_Text = Annotated[str, Field(max_length=40_000)]
_Labels = Annotated[list[_Word], Field(max_length=200)]
_Ids = Annotated[list[_Id], Field(max_length=500)]


class TopicSaid(BaseModel):
    """What is said of a topic."""

    model_config = ConfigDict(from_attributes=True)
    title: _Word
    description: _Text = ""
    kind: _Word = ""
    status: _Word = ""
    priority: _Word = ""
    assigned_to: _Word = ""
    due: date | None = None
    labels: _Labels = []
    stage: _Word = ""


class NewTopic(TopicSaid):
    """A topic to be made: its views, the disciplines of its components, and of which topic it is a variant."""

    views: _Ids = []
    disciplines: Annotated[list[_Word], Field(max_length=2000)] = []
    variant_of: _Id = ""


class TopicWish(BaseModel):
    """What is to be changed of a topic; what is left out stays."""

    title: _Word | None = None
    description: _Text | None = None
    kind: _Word | None = None
    status: _Word | None = None
    priority: _Word | None = None
    assigned_to: _Word | None = None
    due: date | None = None
    labels: _Labels | None = None
    stage: _Word | None = None
    views: _Ids | None = None
    related: _Ids | None = None
    """Topics that have to do with it, by their GUIDs."""


class Topic(BaseModel):
    """A topic; ``new`` where another changed it since one looked at it."""

    id: str
    guid: str
    reference: str
    number: int
    variant: str
    disciplines: list[str]
    said: TopicSaid
    views: list[str]
    related: list[str]
    links: list[str]
    level: str
    room: str
    at_m: list[float] | None
    """Where it is, as its components tell; the point in project coordinates."""
    author: str
    created_at: datetime
    changed_by: str
    changed_at: datetime
    overdue: bool
    new: bool = False


class TopicChange(BaseModel):
    """A field of a topic that was changed, and from what to what."""

    model_config = ConfigDict(from_attributes=True)
    field: str
    old: str | list[str] | date | None
    new: str | list[str] | date | None


class TopicNote(BaseModel):
    """A comment, with a view or without, or what was changed."""

    id: str
    author: str
    at: datetime
    text: str
    view: str | None
    changed: list[TopicChange]


class TopicFile(BaseModel):
    """A file that is attached to a topic, or a link to one that is elsewhere."""

    model_config = ConfigDict(from_attributes=True)
    id: str
    name: str
    description: str
    url: str
    size: int
    author: str
    at: datetime


class TopicTold(BaseModel):
    """A topic with everything that was written and changed, oldest first, and what is attached."""

    topic: Topic
    notes: list[TopicNote]
    files: list[TopicFile]


class NewComment(BaseModel):
    text: _Text
    view: _Id | None = None


class TopicStatus(BaseModel):
    """A status, and which may follow it."""

    model_config = ConfigDict(from_attributes=True)
    name: str
    then: list[str]
    end: bool
