"""Measures: what is measured, and what it comes to."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from stairpath.api.shapes.words import ComponentRef, Name, NamedComponent, Vector

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


class MeasureFigure(BaseModel):
    """One figure: metres, square and cubic metres, degrees, or a share of one."""

    name: Literal[
        "distance", "plan", "up", "east", "north", "project_x", "project_y", "fall", "sum", "leg", "ends_distance",
        "ends_plan", "ends_up", "angle", "square", "area", "perimeter", "volume", "clear_height", "clear_width",
    ]  # fmt: skip
    quantity: Literal["length", "area", "volume", "angle", "share"]
    value: float


class Dimension(BaseModel):
    """A line to draw, about the federation's origin, and which figure it bears; without one it is thin."""

    line: list[Vector]
    figure: int | None


class PartMeasured(NamedComponent):
    """A component and what it has to do with a measure."""

    role: Literal["from", "to", "of", "above", "beside", "floor"]


class MeasureFound(BaseModel):
    """What a measure came to, its main figure first; or why it came to nothing."""

    id: str
    figures: list[MeasureFigure]
    dimensions: list[Dimension]
    of: list[PartMeasured]
    note: str
    trouble: str


class MeasuresFound(BaseModel):
    """What measures came to in one version of the federation."""

    version: int
    found: list[MeasureFound]


class MeasureWish(BaseModel):
    """Measures to be taken."""

    measures: Measures


class PointOn(BaseModel):
    """A point of a component as it was clicked on the stage, in project coordinates."""

    of: ComponentRef
    point_m: Vector


class PointSettled(BaseModel):
    """The exact point that was meant."""

    point_m: Vector


class Catches(BaseModel):
    """What of a component the cursor catches, about the federation's origin.

    Each is base64 of little-endian 64-bit floats: points of three, edges and centre lines of six.
    """

    corners: str
    edges: str
    middles: str
    centres: str
    lines: str
