"""The walk map, who walks, stops and landings."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from stairpath.api.schemas.common import Name, Vector
from stairpath.core.component_ref import NamedComponent

Size = Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)]


class WalkingBody(BaseModel):
    """Who walks: an upright cylinder; ``own`` are the project's own."""

    name: Name
    radius_m: Size
    height_m: Size
    step_up_m: Size
    step_down_m: Size
    slope: Size
    speed_m_s: Size = 1.4
    own: bool = False


class WalkRule(BaseModel):
    """What one walks through, and whether doors are locked; and bodies of the project's own."""

    passable: list[Annotated[str, Field(max_length=80)]] = Field(max_length=300)
    doors_locked: bool = False
    cell_cm: Literal[5, 10] = 10
    bodies: list[WalkingBody] = Field(default=[], max_length=8)


class WalkRuleNow(WalkRule):
    """The rule as it is, and the classes that the project's models have."""

    classes: list[str]


class WalkTilePlace(BaseModel):
    """A tile of the walk map to fetch by its hash."""

    x: int
    y: int
    sha256: str
    size: int


class Stand(BaseModel):
    """Where somebody standing comes to stand in a room, and the bearing of the longest clear line from there."""

    room: int
    at_m: Vector
    bearing_deg: float


class Walking(BaseModel):
    """The walk map: its axes about the project's origin, who walks, and one body's tiles.

    ``current`` says whether it is that of the building as it stands; while it is not it is made anew, ``making`` says
    how much of that is done, and there are no ``stands``. ``trouble`` says why it could not be made.
    """

    current: bool
    making: float | None
    trouble: str
    cell_m: float
    tile_m: float
    origin_m: Vector
    bearing_deg: float
    bodies: list[WalkingBody]
    stands: list[Stand]
    tiles: list[WalkTilePlace]


class StopRequest(BaseModel):
    """Where a body came to stand (the floor), and the direction in which it cannot go on."""

    body: Name
    at_m: Vector
    towards_m: Vector


class Stop(BaseModel):
    """Why it stopped, and in one line; sizes in metres where there are any, for a slope rise over run."""

    kind: Literal["height", "width", "solid", "step", "drop", "slope", "edge"]
    sentence: str
    component: NamedComponent | None
    found_m: float | None
    needed_m: float | None


class Landing(BaseModel):
    """A point of the floor, the bearing to look along from it if there is one, and the storey."""

    at_m: Vector
    bearing_deg: float | None
    level: int
