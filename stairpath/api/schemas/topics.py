"""Topics."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import date, datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from stairpath.core.review.entries import Entries
from stairpath.core.review.question import Question
from stairpath.core.review.recheck import Measured, OfFinding
from stairpath.core.review.reference import ReferenceRule
from stairpath.core.review.topic import TopicChange, TopicFields

_Id = Annotated[str, Field(max_length=40)]
_Word = Annotated[str, Field(max_length=200)]
_Text = Annotated[str, Field(max_length=40_000)]
_Ids = Annotated[list[_Id], Field(max_length=500)]


@dataclass(frozen=True)
class NewTopic(TopicFields):
    """A topic to be made: its views, the disciplines of its components, of which topic it is a variant, and of which finding."""

    views: _Ids = field(default_factory=list)
    disciplines: Annotated[list[_Word], Field(max_length=2000)] = field(default_factory=list)
    variant_of: _Id = ""
    finding: OfFinding | None = None


class Proposal(BaseModel):
    """What another run of a check tells of a topic: its finding is gone, came back, or measures otherwise."""

    topic: str
    reference: str
    title: str
    status: str
    what: Literal["gone", "back", "other"]
    was: Measured
    now: Measured | None


class TopicRequest(BaseModel):
    """What is to be changed of a topic; what is left out stays."""

    title: _Word | None = None
    description: _Text | None = None
    kind: _Word | None = None
    status: _Word | None = None
    priority: _Word | None = None
    assigned_to: _Word | None = None
    due: date | None = None
    labels: Entries | None = None
    stage: _Word | None = None
    views: Entries | None = None
    related: Entries | None = None
    """Topics that have to do with it, by their GUIDs."""


class OneTopicChange(BaseModel):
    """What is to be changed of one of several topics."""

    topic: _Id
    change: TopicRequest


class TopicsRequest(BaseModel):
    """Changes to several topics of a project."""

    changes: Annotated[list[OneTopicChange], Field(min_length=1, max_length=5000)]


class NewQuestion(BaseModel):
    """A question to a designer: a name, or an address for mail."""

    to: _Word = ""
    text: _Text


class NewAnswer(BaseModel):
    """The answer to a question, by whom and when; today where nothing else is said."""

    text: _Text
    by: _Word = ""
    on: date | None = None


class Topic(BaseModel):
    """A topic; ``new`` where another changed it since one looked at it."""

    id: str
    guid: str
    reference: str
    number: int
    variant: str
    disciplines: list[str]
    said: TopicFields
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
    question: Question | None = None
    overdue: bool
    new: bool = False
    pairs: list[tuple[str, str]] = []
    """The pairs of components, by their GlobalIds, of the findings that it was made of, and the two that its view has picked."""


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
    name: _Word
    next: Annotated[list[_Word], Field(max_length=100)]
    end: bool
    was: _Word = ""
    """What it is called now, where it is to be called otherwise; nothing for one that is new."""


class TopicRules(BaseModel):
    """What a project has set for its topics; kinds and priorities are offered, the most pressing priority first."""

    reference: ReferenceRule
    statuses: Annotated[list[TopicStatus], Field(max_length=100)]
    kinds: Annotated[list[_Word], Field(max_length=200)]
    priorities: Annotated[list[_Word], Field(max_length=200)]
