"""Checks for interference and sheets: what is asked for, how far it is, and findings."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from stairpath.api.schemas.common import Name, NamedComponent, Vector
from stairpath.api.schemas.cuts import BandCut, PlaneCut
from stairpath.api.schemas.views import Rules, Selector

_Metres = Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)]


class Group(BaseModel):
    """One side of a check: what is selected, else what rules show; and what it is called."""

    select: Selector | None = None
    rules: Rules = []
    called: Annotated[str, Field(max_length=200)] = ""


class Check(BaseModel):
    """What to look for between two groups; ``leave_out`` are the rules for pairs that belong together."""

    kind: Literal["check"]
    a: Group
    b: Group
    clearance_m: _Metres = 0.0
    touch_m: _Metres = 0.001
    together_m: _Metres = 1.0
    leave_out: Annotated[list[Literal["hosted", "assembly", "fitting"]], Field(max_length=3)] = [
        "hosted",
        "assembly",
        "fitting",
    ]
    swings: bool = False


class TopicsIn(BaseModel):
    """A file of topics that was sent, and by how much its views are moved."""

    kind: Literal["topics"]
    file: Annotated[str, Field(max_length=64)] = ""
    file_name: Annotated[str, Field(max_length=200)] = ""
    shift_m: Vector = [0.0, 0.0, 0.0]


class TopicsProblem(BaseModel):
    code: str
    text: str
    topic: str | None


class TopicsReport(BaseModel):
    """What became of a file of topics: how many are new, changed or unchanged, and what could not be read.

    ``unknown`` are components that no model of the project has yet; ``shift_m`` is by how much its views seem to be off.
    """

    new: int
    changed: int
    same: int
    unknown: list[str]
    shift_m: list[float] | None
    problems: list[TopicsProblem]


class SheetRequest(BaseModel):
    """A cut of what rules show, drawn at a scale, so deep, on a sheet of that name or the smallest that holds it."""

    kind: Literal["sheet"]
    shape: Annotated[PlaneCut | BandCut, Field(discriminator="kind")]
    rules: Rules = []
    scale: Annotated[float, Field(ge=0.1, le=100_000)] = 50.0
    depth_m: Annotated[float, Field(ge=0, le=1000)] = 3.0
    paper: Annotated[str, Field(max_length=20)] | None = None


_Wish = Annotated[Check | SheetRequest, Field(discriminator="kind")]
_AnyWish = Annotated[Check | SheetRequest | TopicsIn, Field(discriminator="kind")]


class NewTask(BaseModel):
    """A check or a sheet to be made by a job."""

    name: Name
    wish: _Wish


class TaskAgain(BaseModel):
    """Once more, of the building as it is now; or asked otherwise."""

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
