"""What is found, by a few letters and by conditions; sets."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from stairpath.api.schemas.common import Name
from stairpath.api.schemas.views import Condition

Conditions = Annotated[list[Condition], Field(max_length=50)]


class ComponentFound(BaseModel):
    """A component that was found, and the text of it that was meant."""

    model: str
    global_id: str
    label: str
    name: str
    ifc_class: str
    level: str
    room: str
    discipline: str
    field: str
    text: str


class ComponentsFound(BaseModel):
    """How many components were found, and the likeliest of them first."""

    version: int
    count: int
    found: list[ComponentFound]


class ConditionsRequest(BaseModel):
    """Conditions, all of which must hold."""

    conditions: Conditions


class ConditionsMet(BaseModel):
    """Which components of a version of the federation meet conditions: a byte for each in base64, and how many."""

    version: int
    count: int
    met: str


class Highlight(BaseModel):
    """A colour for what is picked: which colour of the building or its background it is most like, and how much.

    ``difference`` is CIEDE2000, in the form of vision in which it is least.
    """

    colour: str
    nearest: str
    difference: float
    stands_out: bool
    says: str


class ScaleStep(BaseModel):
    """Figures from ``low`` up to ``high``, which belongs to the next step; to the last one both ends do."""

    model_config = ConfigDict(from_attributes=True)
    low: float
    high: float
    count: int


class Scale(BaseModel):
    """The figures of something in a unit, by steps that rise, and how many components have none."""

    model_config = ConfigDict(from_attributes=True)
    what: str
    unit: str
    steps: list[ScaleStep]
    without: int


class Askable(BaseModel):
    """A property or quantity that components have: the units it comes in, some of its values, how many have it."""

    kind: Literal["property", "quantity"]
    group: str
    name: str
    units: list[str]
    values: list[str]
    components: int


class SetRequest(BaseModel):
    """A set's name, its conditions, and how it is listed: grouped by what, with which sums, and what beside each."""

    name: Name
    conditions: Conditions
    steps: Annotated[list[Annotated[str, Field(max_length=400)]], Field(max_length=3)] = []
    sums: Annotated[list[Annotated[str, Field(max_length=400)]], Field(max_length=12)] = []
    columns: Annotated[list[Annotated[str, Field(max_length=400)]], Field(max_length=8)] = []


class ComponentSet(BaseModel):
    """A set: components that meet conditions, as they are in words."""

    id: str
    name: str
    author: str
    created_at: datetime
    conditions: list[Condition]
    says: str
    steps: list[str]
    sums: list[str]
    columns: list[str]
