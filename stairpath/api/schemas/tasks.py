"""Checks for interference and sheets: what is asked for, how far it is, and findings."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from stairpath.api.schemas.common import Name, Vector
from stairpath.core.component_ref import NamedComponent
from stairpath.core.exchange.import_request import TopicsIn
from stairpath.core.measuring.check import Check
from stairpath.core.review.sheet_request import SheetRequest

_Wish = Annotated[Check | SheetRequest, Field(discriminator="kind")]
_AnyWish = Annotated[Check | SheetRequest | TopicsIn, Field(discriminator="kind")]


class NewTask(BaseModel):
    """A check or a sheet to be made by a job."""

    name: Name
    wish: _Wish


class TaskAgain(BaseModel):
    """Again, of the building as it is now; or with another request."""

    wish: _AnyWish | None = None


class Task(BaseModel):
    """A check or a sheet: what was asked for and how far it is.

    ``made_for`` is the version of the federation that the results are of, null before there were any.
    """

    model_config = ConfigDict(from_attributes=True)
    id: str
    name: str
    author: str
    created_at: datetime
    wish: _AnyWish
    status: Literal["waiting", "running", "done", "stopped", "failed"]
    share: float
    message: str
    made: int
    made_for: int | None
    made_at: datetime | None


class FoundPair(BaseModel):
    """Two components by their places in the list, that overlap or are too near; in project coordinates."""

    a: int
    b: int
    kind: Literal["overlap", "clearance"]
    depth_m: float
    volume_m3: float | None
    distance_m: float
    at_m: Vector


class Finding(BaseModel):
    """Pairs that share components and lie near one another; the worst of them, where, and of what."""

    at_m: Vector
    components: list[int]
    worst: FoundPair
    pairs: list[FoundPair]


class Findings(BaseModel):
    """What a check came to, the deepest first; ``left_out`` counts pairs by why they are no finding.

    ``count`` is how many findings there are, of which the first are listed; ``anew`` how many pairs were measured.
    """

    checked: int
    anew: int
    count: int
    left_out: dict[str, int]
    components: list[NamedComponent]
    findings: list[Finding]
