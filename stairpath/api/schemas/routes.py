"""Routes."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from stairpath.api.schemas.common import Author, Count, Name, NamedComponent, Vector


class RoutePlace(BaseModel):
    """A room, by its place in the federation's rooms, or a point; and what one calls it."""

    room: Count | None = None
    point_m: Vector | None = None
    label: Annotated[str, Field(max_length=120)] = ""


Limit = Annotated[float, Field(ge=-1e6, le=1e6, allow_inf_nan=False)]


class RouteRequest(BaseModel):
    """What route is asked for."""

    start: RoutePlace
    end: RoutePlace
    body: Name = "standing"
    step_free: bool = False
    width_limit_m: Limit = 0.90
    height_limit_m: Limit = 2.00


class RoutePinch(BaseModel):
    """A narrow or low place of a route; ``along_m`` on plan from its start."""

    what: Literal["width", "height"]
    size_m: float
    at_m: Vector
    along_m: float
    components: list[NamedComponent]


class RouteBlocked(BaseModel):
    """Where a route ends, what separates it from its goal, and what would have to be otherwise."""

    kind: Literal["width", "height", "step", "slope", "solid", "gap"]
    nearest_m: Vector
    components: list[NamedComponent]
    needs: str
    found_m: float | None
    needed_m: float | None


class RouteAnswer(BaseModel):
    """A route, or why there is none; heights of ``points_m`` follow flights along their slope."""

    found: bool
    version: int
    """The federation's version that it was found in."""
    length_m: float | None
    rise_m: float | None
    descent_m: float | None
    risers: int | None
    time_s: float | None
    points_m: list[Vector]
    narrowest: RoutePinch | None
    lowest: RoutePinch | None
    pinches: list[RoutePinch]
    blocked: RouteBlocked | None


class AvoidedPlace(BaseModel):
    """A tight place, or a flight of stairs or a ramp, that a way keeps away from."""

    what: Literal["width", "height", "flight"]
    size_m: float | None
    at_m: Vector
    components: list[NamedComponent]


class OtherWay(BaseModel):
    """A way that is not the quickest, and what of the quickest it keeps away from."""

    avoids: AvoidedPlace
    answer: RouteAnswer


class NewRoute(BaseModel):
    name: Name
    author: Author
    wish: RouteRequest


class SavedRoute(BaseModel):
    """A kept route with its answer when it was kept."""

    id: str
    name: str
    author: str
    created_at: datetime
    wish: RouteRequest
    answer: RouteAnswer
