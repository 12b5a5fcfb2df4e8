"""Measures of a view: what is measured."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from stairpath.api.schemas.common import ComponentRef, Name, Vector

_Ends = Annotated[list[Vector], Field(min_length=2, max_length=2)]


class FaceSide(BaseModel):
    """The face of a component at a point of it."""

    kind: Literal["face"] = "face"
    of: ComponentRef
    point_m: Vector


class EdgeSide(BaseModel):
    """A straight edge, from one end to the other, and a point of it."""

    kind: Literal["edge"]
    ends_m: _Ends
    point_m: Vector


Side = Annotated[FaceSide | EdgeSide, Field(discriminator="kind")]


class PointsMeasure(BaseModel):
    """From point to point; ``main`` is the figure that counts."""

    kind: Literal["points"]
    points_m: Annotated[list[Vector], Field(min_length=2, max_length=200)]
    main: Literal["distance", "plan", "up", "east", "north"] = "distance"


class BetweenMeasure(BaseModel):
    """Between two components: where they are nearest, or from centre line to centre line."""

    kind: Literal["between"]
    a: ComponentRef
    b: ComponentRef
    how: Literal["nearest", "centre_lines"] = "nearest"


class SidesMeasure(BaseModel):
    """Between two faces or edges: the angle, and how far apart they are if they are parallel."""

    kind: Literal["sides"]
    a: Side
    b: Side


class FaceMeasure(BaseModel):
    """The area and perimeter of a face."""

    kind: Literal["face"]
    face: FaceSide


class RoomMeasure(BaseModel):
    """The floor area and perimeter of a room."""

    kind: Literal["room"]
    room: ComponentRef


class VolumeMeasure(BaseModel):
    """The volume of components."""

    kind: Literal["volume"]
    of: Annotated[list[ComponentRef], Field(min_length=1, max_length=10_000)]


class ClearMeasure(BaseModel):
    """How much room there is at a point of the floor."""

    kind: Literal["clear"]
    at_m: Vector


class Measure(BaseModel):
    """A measure with a key of its own in its view, and what somebody calls it."""

    model_config = ConfigDict(from_attributes=True)
    id: Annotated[str, Field(max_length=64)]
    what: Annotated[
        PointsMeasure | BetweenMeasure | SidesMeasure | FaceMeasure | RoomMeasure | VolumeMeasure | ClearMeasure,
        Field(discriminator="kind"),
    ]
    name: Name | Literal[""] = ""


Measures = Annotated[list[Measure], Field(max_length=200)]
