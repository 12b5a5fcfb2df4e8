"""Poses, and what is asked of the camera."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from stairpath.api.schemas.common import Bearing, Coordinate, Count, Vector
from stairpath.api.schemas.cuts import Cuts
from stairpath.core.component_ref import ComponentRef
from stairpath.core.cutting.cuts import BoxCut


class Pose(BaseModel):
    """A camera about the project's origin."""

    eye_m: Vector
    target_m: Vector
    up: Vector
    projection: Literal["perspective", "parallel"]
    angle_deg: Annotated[float, Field(ge=1, le=120)]
    height_m: Annotated[float, Field(gt=0, le=1e9)]
    through_m: Annotated[float, Field(ge=0, le=1e3)] = 0
    """What is nearer than this along the line of sight is looked through; zero for nothing."""


class Framed(Pose):
    """The pose that fits something, and the models that lie too far away to be fitted with the building."""

    elsewhere: list[str] = []


Share = Annotated[float, Field(ge=0, le=0.8)]


class Covered(BaseModel):
    """The shares of the frame's width and height at its sides that something lies over."""

    left: Share = 0
    right: Share = 0
    bottom: Share = 0
    top: Share = 0


class FrameRequest(BaseModel):
    """What to fit, seen from where; nothing named means everything that stands.

    ``room`` and ``level`` are places in the federation's lists; ``among`` is a base64 bit
    set over the dense numbers of components, the first of each byte's bits the lowest.
    """

    bearing_deg: Bearing
    tilt_deg: Annotated[float, Field(ge=-90, le=90)]
    aspect: Annotated[float, Field(ge=0.1, le=10)]
    projection: Literal["perspective", "parallel"] = "perspective"
    angle_deg: Annotated[float, Field(ge=1, le=120)] = 30
    margin: Annotated[float, Field(ge=0, lt=0.5)] = 0.05
    covered: Annotated[list[Covered], Field(min_length=1, max_length=4)] = [Covered()]
    """Of several ways to keep clear of what lies over the view, the one that shows most is taken."""
    open_at_m: Vector | None = None
    """A parallel view looks through all that lies before this point."""
    components: Annotated[list[ComponentRef], Field(max_length=10_000)] | None = None
    room: Count | None = None
    level: Annotated[int, Field(ge=-1, le=100_000)] | None = None
    among: Annotated[str, Field(max_length=1 << 20)] | None = None
    points: Annotated[list[Vector], Field(min_length=1, max_length=1000)] | None = None
    cuts: Cuts = ()
    """What these take away is not counted."""


class SightingRequest(BaseModel):
    """Components that meet at a place, in project coordinates, to be looked at."""

    components: Annotated[list[ComponentRef], Field(min_length=1, max_length=50)]
    at_m: Vector


class Sighting(BaseModel):
    """From where they are seen: the box is what is around the place, to be fitted, and cut by where ``boxed``."""

    bearing_deg: float
    tilt_deg: float
    angle_deg: float
    around: BoxCut
    boxed: bool


class Look(BaseModel):
    """A direction of view: bearing looked along, clockwise from +Y, and tilt, above zero looking down."""

    bearing_deg: float
    tilt_deg: float


class FaceRequest(BaseModel):
    """A face to look square onto, and the present bearing."""

    normal: Vector
    bearing_deg: Bearing = 0.0


class AxisRequest(BaseModel):
    """A grid line to look square onto, by two points of it on plan, and the present bearing."""

    ends_m: Annotated[
        list[Annotated[list[Coordinate], Field(min_length=2, max_length=2)]], Field(min_length=2, max_length=2)
    ]
    bearing_deg: Bearing = 0.0


class LensRequest(BaseModel):
    """A lens as it was typed, for a view: the eye stays, or the subject keeps its size."""

    pose: Pose
    aspect: Annotated[float, Field(ge=0.1, le=10)]
    text: Annotated[str, Field(max_length=40)]
    keep: Literal["eye", "subject"] = "eye"


class ProjectionRequest(BaseModel):
    """Another projection for a view; what is at the pivot keeps its size and place."""

    pose: Pose
    aspect: Annotated[float, Field(ge=0.1, le=10)]
    to: Literal["perspective", "parallel"]
    pivot_m: Vector | None = None


class LevelRequest(BaseModel):
    """A view to make level."""

    pose: Pose
    aspect: Annotated[float, Field(ge=0.1, le=10)]


class ScaleRequest(BaseModel):
    """A true scale for a parallel view on a screen of so many pixels, each so many millimetres high."""

    pose: Pose
    aspect: Annotated[float, Field(ge=0.1, le=10)]
    scale: Annotated[float, Field(gt=0, le=1e6)]
    height_px: Annotated[float, Field(gt=0, le=1e5)]
    pixel_mm: Annotated[float, Field(gt=0, le=100)]
