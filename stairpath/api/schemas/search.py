"""What is found, by a few letters and by conditions; sets."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, Field

from stairpath.api.schemas.common import Name
from stairpath.core.visibility.condition import Condition, Conditions


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
