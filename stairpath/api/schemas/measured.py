"""What measures come to, and what of a component the cursor catches."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel

from stairpath.api.schemas.common import ComponentRef, NamedComponent, Vector
from stairpath.api.schemas.measures import Measures
from stairpath.api.schemas.views import Rules


class MeasureFigure(BaseModel):
    """One figure: metres, square and cubic metres, degrees, or a share of one."""

    name: Literal[
        "distance", "plan", "up", "east", "north", "project_x", "project_y", "fall", "sum", "leg", "ends_distance",
        "ends_plan", "ends_up", "angle", "square", "area", "perimeter", "volume", "clear_height", "clear_width",
        "hidden_height", "hidden_width",
    ]  # fmt: skip
    quantity: Literal["length", "area", "volume", "angle", "share"]
    value: float


class Dimension(BaseModel):
    """A line to draw, about the federation's origin, and which figure it bears; without one it is thin."""

    line: list[Vector]
    figure: int | None


class PartMeasured(NamedComponent):
    """A component and what it has to do with a measure."""

    role: Literal["from", "to", "of", "above", "beside", "floor", "above_hidden", "beside_hidden"]


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


class MeasureRequest(BaseModel):
    """Measures to be taken; for the room at a point what the rules hide is not there."""

    measures: Measures
    rules: Rules = []


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
