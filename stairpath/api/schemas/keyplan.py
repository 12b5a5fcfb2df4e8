"""The key plan of a storey."""

from __future__ import annotations

from pydantic import BaseModel

Line = list[list[float]]
"""Points on plan, metres about the project's origin."""


class PlanSwing(BaseModel):
    """A door's leaf standing open, and the arc it turns through."""

    leaf: Line
    arc: Line


class PlanFlight(BaseModel):
    """The edges of a flight's treads, and the way up it."""

    edges: list[Line]
    way_up: Line


class PlanRoom(BaseModel):
    """A room by its place in the federation's list, its outlines and where its name goes."""

    index: int
    number: str
    name: str
    outlines: list[Line]
    label: list[float]


class PlanAxis(BaseModel):
    """A grid axis."""

    tag: str
    ends: Line


class KeyPlan(BaseModel):
    """The key plan of a level: cut walls and columns, thin lines, swings, flights, rooms and grid."""

    storey: str
    elevation_m: float
    cut_m: float
    solid: list[Line]
    thin: list[Line]
    swings: list[PlanSwing]
    flights: list[PlanFlight]
    rooms: list[PlanRoom]
    axes: list[PlanAxis]
