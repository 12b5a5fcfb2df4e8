"""Two issues of a model side by side, and two alternatives."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import BaseModel

from stairpath.api.schemas.common import Vector
from stairpath.core.comparing.compare import FieldChange
from stairpath.core.component_ref import ComponentRef


class EarlierIssue(BaseModel):
    """An issue of a model that a newer one took the place of."""

    id: str
    file_name: str
    added_by: str
    added_at: datetime
    components: int


class Differing(BaseModel):
    """A component that differs, and what one calls it."""

    ref: ComponentRef
    label: str
    ifc_class: str


class MovedComponent(Differing):
    """How far the middle of a component went along the project's axes, and how far it was turned."""

    by_m: Vector
    turned_deg: float


class ChangedComponent(Differing):
    """A component of which other things are said than before."""

    fields: list[FieldChange]


class Changes(BaseModel):
    """What was added, removed, moved, reshaped and changed; a component may be in several of the last three.

    Those that were removed are named as they were in the old one.
    """

    matched_by: Literal["global_id", "place"]
    same: int
    added: list[Differing]
    removed: list[Differing]
    moved: list[MovedComponent]
    reshaped: list[Differing]
    changed: list[ChangedComponent]


class GoneComponent(Differing):
    """A component of an older issue, and the box around it as it stood, about the project's origin."""

    low_m: Vector
    high_m: Vector


class GoneBodies(BaseModel):
    """Components as they stood: base64 of the triangles' and edges' corners as floats, metres about the project's origin.

    ``left_out`` counts those that are too many to be drawn.
    """

    components: list[GoneComponent]
    triangles: str
    edges: str
    left_out: int


class Gone(BaseModel):
    """What was removed, and where what was moved or reshaped stood."""

    removed: GoneBodies
    moved: GoneBodies
