"""Measures as they are kept in a view: what is measured, not how much it is."""

from __future__ import annotations

from dataclasses import dataclass, fields, replace
from typing import Annotated, Any, Literal, TypeVar

from annotated_types import Len

from stairpath.core.component_ref import ComponentRef
from stairpath.core.geometry.vectors import Vector
from stairpath.core.limits import BY_KIND, Key, NameOrNone

Main = Literal["distance", "plan", "up", "east", "north"]
"""Which figure of a distance is the main one: straight, on plan, or along an axis of the building."""


@dataclass(frozen=True)
class FaceSide:
    """The face of a component at a point of it."""

    of: ComponentRef
    point_m: Vector
    kind: Literal["face"] = "face"


@dataclass(frozen=True)
class EdgeSide:
    """A straight edge, from one end to the other, and a point of it."""

    ends_m: tuple[Vector, Vector]
    point_m: Vector
    kind: Literal["edge"] = "edge"


Side = Annotated[FaceSide | EdgeSide, BY_KIND]


@dataclass(frozen=True)
class PointsMeasure:
    """From point to point, two or more of them."""

    points_m: Annotated[tuple[Vector, ...], Len(2, 200)]
    main: Main = "distance"
    kind: Literal["points"] = "points"


@dataclass(frozen=True)
class BetweenMeasure:
    """Between two components: where they are nearest, or from centre line to centre line."""

    a: ComponentRef
    b: ComponentRef
    how: Literal["nearest", "centre_lines"] = "nearest"
    kind: Literal["between"] = "between"


@dataclass(frozen=True)
class SidesMeasure:
    """Between two faces or edges: the angle, and how far apart they are if they are parallel."""

    a: Side
    b: Side
    kind: Literal["sides"] = "sides"


@dataclass(frozen=True)
class FaceMeasure:
    """The area and perimeter of a face."""

    face: FaceSide
    kind: Literal["face"] = "face"


@dataclass(frozen=True)
class RoomMeasure:
    """The floor area and perimeter of a room."""

    room: ComponentRef
    kind: Literal["room"] = "room"


@dataclass(frozen=True)
class VolumeMeasure:
    """The volume of components."""

    of: Annotated[tuple[ComponentRef, ...], Len(1, 10_000)]
    kind: Literal["volume"] = "volume"


@dataclass(frozen=True)
class ClearMeasure:
    """How much room there is at a point of the floor."""

    at_m: Vector
    kind: Literal["clear"] = "clear"


What = Annotated[
    PointsMeasure | BetweenMeasure | SidesMeasure | FaceMeasure | RoomMeasure | VolumeMeasure | ClearMeasure, BY_KIND
]


@dataclass(frozen=True)
class Measure:
    """A measure with a key of its own in its view, and what somebody calls it."""

    id: Key
    what: What
    name: NameOrNone = ""


W = TypeVar("W", bound="What | FaceSide | EdgeSide")


def moved(what: W, by: Vector) -> W:
    """The same measure with every point of it shifted: those are its fields that end on ``_m``.

    >>> moved(ClearMeasure((1.0, 2.0, 3.0)), (0.0, 0.0, 1.0)).at_m
    (1.0, 2.0, 4.0)
    """
    changes: dict[str, Any] = {}
    for each in fields(what):
        value = getattr(what, each.name)
        if each.name in ("points_m", "ends_m"):
            changes[each.name] = tuple(_shifted(point, by) for point in value)
        elif each.name.endswith("_m"):
            changes[each.name] = _shifted(value, by)
        elif isinstance(value, FaceSide | EdgeSide):
            changes[each.name] = moved(value, by)
    return replace(what, **changes)


def _shifted(point: Vector, by: Vector) -> Vector:
    x, y, z = (c + d for c, d in zip(point, by, strict=True))
    return (x, y, z)
