"""The eye of a view, and what is drawn over what it sees."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field

from stairpath.core.geometry.vectors import Vector
from stairpath.core.limits import Aspect
from stairpath.core.review.eye import Eye
from stairpath.core.review.markups import LONGEST_TEXT, MOST_POINTS, Kind, Markup, Screen, Style
from stairpath.core.review.view import Markups


class MarkupPlaced(BaseModel):
    """A markup as it is drawn in a frame: where in it, through which point, and by which eye."""

    id: Annotated[str, Field(min_length=1, max_length=40)]
    kind: Kind
    drawn: Annotated[list[Screen], Field(min_length=1, max_length=MOST_POINTS)]
    through_m: Vector
    eye: Eye
    aspect: Aspect
    style: Style = Style()
    text: Annotated[str, Field(max_length=LONGEST_TEXT)] = ""


class MarkupMoved(BaseModel):
    """A markup that is dragged from one place of a frame to another, or one of its points."""

    markup: Markup
    eye: Eye
    aspect: Aspect
    start: Screen
    end: Screen
    point: Annotated[int, Field(ge=0, le=4000)] | None = None


class MarkupsRequest(BaseModel):
    markups: Markups


class Stroke(BaseModel):
    """A line of a markup; one that is closed may be filled."""

    points_m: list[list[float]]
    closed: bool


class MarkupDrawn(BaseModel):
    """What a markup comes to, and from where it can be read.

    It is read from within ``cone_deg`` about its ``normal``, while what is seen at its plane is at least ``least_m`` and
    at most ``most_m`` high.
    """

    id: str
    strokes: list[Stroke]
    at_m: list[float]
    text_at_m: list[float]
    text_m: float
    normal: list[float]
    cone_deg: float
    least_m: float
    most_m: float
