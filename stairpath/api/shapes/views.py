"""Views that are kept."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, Field

from stairpath.api.shapes.camera import Pose
from stairpath.api.shapes.words import Author, ComponentRef, Name, State, Vector

Components = Annotated[list[ComponentRef], Field(max_length=200_000)]


class CellState(BaseModel):
    """A cell of the storey board that is not simply shown; level by name, None for No level."""

    level: str | None
    discipline: str
    state: State


class View(BaseModel):
    """Everything a viewpoint restores."""

    pose: Pose
    origin_m: Vector
    cells: Annotated[list[CellState], Field(max_length=10_000)] = []
    shown: Components = []
    """Components shown although their cell is not."""
    hidden: Components = []
    faded: Components = []
    picked: Components = []
    alternatives: Annotated[dict[str, str], Field(max_length=1000)] = {}
    """For each proposal, the model's name that stands in the view."""


class Home(BaseModel):
    """The view that everybody comes home to, and who set it."""

    view: View
    author: Author


class Viewpoint(BaseModel):
    id: str
    name: str
    author: str
    created_at: datetime
    picture: str
    view: View


class NewViewpoint(BaseModel):
    name: Name
    author: Author
    picture_png: str
    """The picture as base64 PNG."""
    view: View
