"""A route as it is asked for, found and kept, in project coordinates."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Ge, Le, Len

from stairpath.core.component_ref import NamedComponent
from stairpath.core.limits import Coordinate, Name, NameOrNone

Point = Annotated[list[Coordinate], Len(3, 3)]
Limit = Annotated[float, Ge(-1e6), Le(1e6)]
RoomIndex = Annotated[int, Ge(-10_000_000), Le(10_000_000)]
"""A room by its place in the federation's list."""


@dataclass(frozen=True)
class RoutePlace:
    """One end of a route: a room, or a point; and what one calls it."""

    room: RoomIndex | None = None
    point_m: Point | None = None
    label: NameOrNone = ""


@dataclass(frozen=True)
class RouteRequest:
    """What route is asked for; places narrower or lower than the limits are listed."""

    start: RoutePlace
    end: RoutePlace
    body: Name = "standing"
    step_free: bool = False
    width_limit_m: Limit = 0.90
    height_limit_m: Limit = 2.00


@dataclass(frozen=True)
class RoutePinch:
    """A narrow or low place of a route; ``along_m`` on plan from its start."""

    what: Literal["width", "height"]
    size_m: float
    at_m: Point
    along_m: float
    components: list[NamedComponent]


@dataclass(frozen=True)
class RouteBlocked:
    """Where a route ends, what separates it from its goal, and what would have to change."""

    kind: Literal["width", "height", "step", "slope", "solid", "gap"]
    nearest_m: Point
    components: list[NamedComponent]
    needs: str
    found_m: float | None
    needed_m: float | None


@dataclass(frozen=True)
class RouteAnswer:
    """A route, or why there is none; heights of ``points_m`` follow flights along their slope.

    ``version`` is that of the federation that it was found in.
    """

    found: bool
    version: int
    length_m: float | None
    rise_m: float | None
    descent_m: float | None
    risers: int | None
    time_s: float | None
    points_m: list[Point]
    narrowest: RoutePinch | None
    lowest: RoutePinch | None
    pinches: list[RoutePinch]
    blocked: RouteBlocked | None


@dataclass(frozen=True)
class AvoidedPlace:
    """A tight place, or a flight of stairs or a ramp, that a way keeps away from."""

    what: Literal["width", "height", "flight"]
    size_m: float | None
    at_m: Point
    components: list[NamedComponent]


@dataclass(frozen=True)
class OtherWay:
    """A way that is not the quickest, and what of the quickest it keeps away from."""

    avoids: AvoidedPlace
    answer: RouteAnswer
