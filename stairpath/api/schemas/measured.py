"""What measures come to, and what of a component the cursor catches."""

from __future__ import annotations

from dataclasses import dataclass

from pydantic import BaseModel

from stairpath.api.schemas.common import Vector
from stairpath.core.component_ref import ComponentRef, NamedComponent
from stairpath.core.measuring.figures import MeasureFigure, Role
from stairpath.core.review.view import Measures
from stairpath.core.visibility.rules import Rules


class Dimension(BaseModel):
    """A line to draw, about the federation's origin, and which figure it bears; without one it is thin."""

    line: list[Vector]
    figure: int | None


@dataclass(frozen=True)
class PartMeasured(NamedComponent):
    """A component and its part in a measure."""

    role: Role


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
    rules: Rules = ()


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
