"""Schedules."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from stairpath.core.register.schedule import ScheduleSum
from stairpath.core.visibility.condition import Conditions
from stairpath.core.visibility.rules import Rules

_Step = Annotated[str, Field(max_length=200)]


class ScheduleRequest(BaseModel):
    """What to group by, in up to three steps, which quantities to sum, and what to say beside each component.

    All of what meets conditions.

    With ``shown_by`` what those rules hide is left out.
    """

    steps: Annotated[list[_Step], Field(min_length=1, max_length=3)]
    sums: Annotated[list[_Step], Field(max_length=12)] = []
    columns: Annotated[list[_Step], Field(max_length=8)] = []
    conditions: Conditions = ()
    shown_by: Rules | None = None


class ScheduleGroup(BaseModel):
    """Components that are alike in each step, how many, and their sums in the order they were wished for.

    ``says`` is the key as it is read.
    """

    key: list[str]
    says: list[str]
    count: int
    sums: list[ScheduleSum]


class ColumnOfTexts(BaseModel):
    """A text for each component of the federation; ``value`` is base64 of little-endian 32-bit places in ``texts``."""

    kind: Literal["texts"] = "texts"
    what: str
    texts: list[str]
    value: str


class ColumnOfFigures(BaseModel):
    """A figure for each component of the federation, base64 of little-endian doubles, not a number where it has none.

    ``worked`` is base64 of bytes, 1 where the figure was worked out from the triangles.
    """

    kind: Literal["figures"] = "figures"
    what: str
    unit: str
    figures: str
    worked: str


class Schedule(BaseModel):
    """Groups in reading order. ``group_of`` is the place of the group that each component of the federation is in.

    It is base64 of little-endian 32-bit integers, -1 for what is in none. ``columns`` are of what is summed, then of
    what else was wished for.
    """

    version: int
    groups: list[ScheduleGroup]
    group_of: str
    columns: list[Annotated[ColumnOfTexts | ColumnOfFigures, Field(discriminator="kind")]]
