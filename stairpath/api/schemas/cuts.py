"""Cuts: planes, bands and boxes, and what they go through."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field

from stairpath.api.schemas.common import ComponentRef, Name, Vector
from stairpath.core.cutting.cuts import too_many_planes


class PlaneCut(BaseModel):
    """All on the side that the normal points to is taken away."""

    kind: Literal["plane"]
    point_m: Vector
    normal: Vector


class BandCut(BaseModel):
    """What lies between a plane and another so far below it, against its normal, is left."""

    kind: Literal["band"]
    point_m: Vector
    normal: Vector
    thick_m: Annotated[float, Field(ge=0.001, le=1e6)]


class BoxCut(BaseModel):
    """What lies in an upright box is left; its second side runs along a bearing, clockwise from +Y."""

    kind: Literal["box"]
    centre_m: Vector
    size_m: Annotated[list[Annotated[float, Field(ge=0.001, le=1e6)]], Field(min_length=3, max_length=3)]
    bearing_deg: Annotated[float, Field(ge=-360, le=360)] = 0


class Cut(BaseModel):
    """A cut with a key of its own in its view; one that is off is kept and cuts nothing."""

    model_config = ConfigDict(from_attributes=True)
    id: Annotated[str, Field(max_length=64)]
    shape: Annotated[PlaneCut | BandCut | BoxCut, Field(discriminator="kind")]
    name: Name | Literal[""] = ""
    off: bool = False


def _few_planes(cuts: list[Cut]) -> list[Cut]:
    if wrong := too_many_planes([(cut.shape.kind, cut.off) for cut in cuts]):
        raise ValueError(wrong)
    return cuts


Cuts = Annotated[list[Cut], Field(max_length=24), AfterValidator(_few_planes)]


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
