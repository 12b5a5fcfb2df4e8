"""Words that all shapes share."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from stairpath.core.limits import Author as Author
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


class ErrorMessage(BaseModel):
    """An error in one sentence that says what is wrong and what to do."""

    detail: str
