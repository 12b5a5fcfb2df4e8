"""Projects and their model files."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from stairpath.api.schemas.common import Bearing, Name, Status, Vector
from stairpath.core.people.roles import Role
from stairpath.core.problems import Problem

Evidence = Literal["map", "grid", "placement", "hand"]
ProjectPoint = Annotated[
    list[Annotated[float, Field(ge=-1e8, le=1e8, allow_inf_nan=False)]], Field(min_length=3, max_length=3)
]


class ProjectCard(BaseModel):
    """A project on the start page."""

    id: str
    name: str
    created_at: datetime
    created_by: str
    picture: str | None
    models: int
    components: int
    reading: int
    """Models that wait or are being read."""
    role: Role
    """What one may in it."""


class NewProject(BaseModel):
    """A project to make; one that is made for files is listed once the first of them was taken in."""

    name: Name
    for_files: bool = False


class ModelCard(BaseModel):
    """A model as the Models desk shows it."""

    id: str
    name: str
    file_name: str
    file_size: int
    status: Status
    share: float
    message: str
    added_by: str
    added_at: datetime
    schema_name: str | None
    length_unit: str | None
    components: int
    triangles: int
    discipline: str | None
    discipline_set: bool
    alternative_what: str | None
    alternative_option: str | None
    stands: bool
    elsewhere: bool
    aligned_by: Evidence | None
    aligned_reason: str | None
    aligned_set: Evidence | None
    """How somebody wants it aligned, None where the evidence decides."""
    has_map: bool
    rotation_deg: float | None
    shift_m: Vector | None
    problems: list[Problem]


class DisciplineRequest(BaseModel):
    """A discipline by its code; None for what the file says."""

    code: Annotated[str, Field(max_length=8)] | None


class AlignmentRequest(BaseModel):
    """How a model is to be aligned; None for the evidence. Turn and shift count only by hand."""

    by: Evidence | None = None
    rotation_deg: Bearing = 0.0
    shift_m: ProjectPoint = [0, 0, 0]


class PointsRequest(BaseModel):
    """Two points of a model as they stand now, and their places; about the project's origin."""

    first_m: Vector
    first_place_m: Vector
    second_m: Vector
    second_place_m: Vector
