"""Projects and their model files."""

from __future__ import annotations

from datetime import datetime

from pydantic import BaseModel

from stairpath.api.shapes.words import Author, Name, Status, Vector


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


class NewProject(BaseModel):
    name: Name
    author: Author


class Problem(BaseModel):
    code: str
    text: str
    components: list[str]


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
    aligned_by: str | None
    aligned_reason: str | None
    rotation_deg: float | None
    shift_m: Vector | None
    problems: list[Problem]


class DisciplineWish(BaseModel):
    code: str | None
