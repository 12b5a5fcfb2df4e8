"""Cuts: planes, bands and boxes, and what they go through."""

from __future__ import annotations

from typing import Annotated

from pydantic import AfterValidator, BaseModel, Field

from stairpath.api.schemas.common import Vector
from stairpath.core.component_ref import ComponentRef
from stairpath.core.cutting.cuts import too_many_planes
from stairpath.core.review import view as core


def _few_planes(cuts: core.Cuts) -> core.Cuts:
    if wrong := too_many_planes([(cut.shape.kind, cut.off) for cut in cuts]):
        raise ValueError(wrong)
    return cuts


Cuts = Annotated[core.Cuts, AfterValidator(_few_planes)]


class BoxRequest(BaseModel):
    """What to put a cut box around, and how much to leave on all sides; the first that is named counts."""

    components: Annotated[list[ComponentRef], Field(max_length=10_000)] | None = None
    room: Annotated[int, Field(ge=0, le=1_000_000)] | None = None
    level: Annotated[int, Field(ge=-1, le=100_000)] | None = None
    margin_m: Annotated[float, Field(ge=0, le=1e4)] = 0.3


class OpenComponent(BaseModel):
    """A component that is not closed where it is cut, and so has no face; by how wide a gap."""

    model: str
    global_id: str
    label: str
    gap_m: float


class CutFace(BaseModel):
    """What one plane of a cut goes through, about the federation's origin.

    ``triangles`` is base64 of nine little-endian 32-bit floats each, ``lines`` of six; ``of`` and ``line_of`` are
    base64 of the dense number of each one's component, 32 bit.
    """

    cut: str
    point_m: Vector
    normal: Vector
    triangles: str
    of: str
    lines: str
    line_of: str
    area_m2: float
    components: int
    open: list[OpenComponent]


class CutFaces(BaseModel):
    """The faces of all planes that cut, for one version of the federation."""

    version: int
    faces: list[CutFace]
