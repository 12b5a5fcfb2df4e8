"""The eye of a view, and what is drawn over what it sees."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from stairpath.api.schemas.common import Vector
from stairpath.core.review.eye import LEAST_HEIGHT_M

Aspect = Annotated[float, Field(ge=0.1, le=10)]
_Key = Annotated[str, Field(min_length=1, max_length=40)]
_Share = Annotated[float, Field(ge=-4, le=4, allow_inf_nan=False)]
Screen = Annotated[list[_Share], Field(min_length=2, max_length=2)]
"""A place in the frame: from -1 to 1, right and up."""
Kind = Literal["cloud", "arrow", "text", "callout", "rectangle", "ellipse", "polyline", "line", "freehand"]


class Eye(BaseModel):
    """Where the eye is, where it looks, and through which lens, in project coordinates."""

    eye_m: Vector
    target_m: Vector
    up: Vector
    projection: Literal["perspective", "parallel"]
    angle_deg: Annotated[float, Field(ge=1, le=120)]
    height_m: Annotated[float, Field(ge=LEAST_HEIGHT_M, le=1e9)]


class MarkupStyle(BaseModel):
    """How a markup is drawn: its colour, how thick, whether filled, and how high its letters are in the frame."""

    colour: Literal["ink", "pick", "here", "plum"] = "pick"
    width_px: Annotated[float, Field(ge=0.5, le=20)] = 2.5
    fill: bool = False
    text_share: Annotated[float, Field(ge=0.005, le=0.3)] = 0.028


class Markup(MarkupStyle):
    """What was drawn over a view, in the plane through a point square to the eye that drew it."""

    id: _Key
    kind: Kind
    points_m: Annotated[list[Vector], Field(min_length=1, max_length=4000)]
    eye: Eye
    aspect: Aspect
    text: Annotated[str, Field(max_length=2000)] = ""
    by: Annotated[str, Field(max_length=80)] = ""
    at: Annotated[str, Field(max_length=40)] = ""


Markups = Annotated[list[Markup], Field(max_length=500)]


class MarkupPlaced(MarkupStyle):
    """A markup as it is drawn in a frame: where in it, through which point, and by which eye."""

    id: _Key
    kind: Kind
    drawn: Annotated[list[Screen], Field(min_length=1, max_length=4000)]
    through_m: Vector
    eye: Eye
    aspect: Aspect
    text: Annotated[str, Field(max_length=2000)] = ""


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
