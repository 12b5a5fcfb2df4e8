"""The key plan of a storey: what a level cut shows, drawn as a small plan is drawn."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
import numpy.typing as npt
import shapely

from stairpath.core.cutting.outlines import cut_level
from stairpath.core.cutting.treads import Flight, flights
from stairpath.core.federation.doors import Swing, swings_of
from stairpath.core.federation.federate import FederatedModel, Federation
from stairpath.core.federation.grid import Axis, axes_of
from stairpath.core.federation.rooms import room_area

Array = npt.NDArray[np.float64]
Json = dict[str, Any]

CUT_HEIGHT_M = 1.2
_BELOW_M = 1.5
"""How far below its storey a flight is still drawn, as seen through the opening."""

_SOLID = ("IfcWall", "IfcColumn", "IfcFooting", "IfcPile")
_THIN = ("IfcWindow", "IfcPlate", "IfcMember", "IfcCurtainWall", "IfcRailing", "IfcDoor")
CUT = (*_SOLID, *_THIN)
"""Classes whose outlines a key plan shows."""
_TRODDEN = ("IfcStair", "IfcRamp")


@dataclass(frozen=True)
class DrawnRoom:
    """A room by its place in the federation: its outlines, and where its name goes."""

    index: int
    number: str
    name: str
    outlines: list[Array]
    label: tuple[float, float]


@dataclass(frozen=True)
class KeyPlan:
    """A storey's key plan in project coordinates, metres."""

    storey: str
    elevation_m: float
    cut_m: float
    solid: list[Array]
    thin: list[Array]
    swings: list[Swing]
    flights: list[Flight]
    rooms: list[DrawnRoom]
    axes: list[Axis]


def _crossed(model: FederatedModel, height_m: float) -> npt.NDArray[np.bool_]:
    with np.errstate(invalid="ignore"):
        hit: npt.NDArray[np.bool_] = (model.bounds_m[:, 0, 2] < height_m) & (model.bounds_m[:, 1, 2] > height_m)
    return hit & ~model.apart


def _label_place(area: shapely.Polygon) -> tuple[float, float]:
    """Where a room's name has most space: its middle, or the roomiest place if the middle is cramped."""
    roomiest = shapely.maximum_inscribed_circle(area, tolerance=0.05)
    middle = area.centroid
    cramped = not area.contains(middle) or middle.distance(area.boundary) < 0.85 * roomiest.length
    place = shapely.get_coordinates(roomiest if cramped else middle)[0]
    return float(place[0]), float(place[1])


def drawn_rooms(federation: Federation, level: int) -> list[DrawnRoom]:
    """The rooms of a level: their outlines, and where their names go."""
    drawn: list[DrawnRoom] = []
    for index, room in enumerate(federation.rooms):
        model = federation.models[room.model]
        if room.level != level or not model.stands or model.elsewhere:
            continue
        polygons = room_area(federation, index)
        if not polygons:
            continue
        largest = max(polygons, key=lambda p: p.area)
        rings = [np.array(ring.coords) for p in polygons for ring in (p.exterior, *p.interiors)]
        drawn.append(DrawnRoom(index, room.number, room.name, rings, _label_place(largest)))
    return drawn


def draw_key_plan(federation: Federation, level: int, height_m: float = CUT_HEIGHT_M) -> KeyPlan:
    """The key plan of a level, cut at a height above it; alternatives that do not stand are left out."""
    elevation = federation.levels[level].elevation_m
    cut = elevation + height_m
    solid: list[Array] = []
    thin: list[Array] = []
    swung: list[Swing] = []
    trodden: list[Flight] = []
    for model in federation.models:
        if not model.stands:
            continue
        geometry, to, crossed = model.outline.geometry, model.alignment.matrix, _crossed(model, cut)
        outlines = cut_level(geometry, to, cut, crossed & model.outline.of_class(CUT))
        filled = model.outline.of_class(_SOLID)[outlines.owner]
        for line, fill in zip(outlines.lines(), filled, strict=True):
            (solid if fill else thin).append(line)
        doors = crossed & model.outline.of_class(("IfcDoor",))
        swung += [swing for own in swings_of(model.outline, to, doors).values() for swing in own]
        trodden += flights(geometry, to, model.outline.of_class(_TRODDEN), elevation - _BELOW_M, cut)
    return KeyPlan(
        federation.levels[level].name, elevation, cut, solid, thin, swung,
        [f for f in trodden if len(f.way_up) > 1], drawn_rooms(federation, level), axes_of(federation),
    )  # fmt: skip


def _places(points: Array, origin: Array) -> list[list[float]]:
    out: list[list[float]] = np.round(points - origin, 3).tolist()
    return out


def document(plan: KeyPlan, origin_m: tuple[float, float, float]) -> Json:
    """The plan as JSON for drawing, in metres about the project's origin, to the millimetre."""
    origin = np.array(origin_m[:2])

    def places(points: Array) -> list[list[float]]:
        return _places(np.asarray(points, dtype=np.float64), origin)

    return {
        "storey": plan.storey,
        "elevation_m": plan.elevation_m,
        "cut_m": plan.cut_m,
        "solid": [places(line) for line in plan.solid],
        "thin": [places(line) for line in plan.thin],
        "swings": [
            {"leaf": places(np.array([s.hinge, s.open])), "arc": places(s.arc)} for s in plan.swings
        ],
        "flights": [
            {"edges": [places(edge) for edge in f.edges], "way_up": places(f.way_up)} for f in plan.flights
        ],
        "rooms": [
            {
                "index": r.index,
                "number": r.number,
                "name": r.name,
                "outlines": [places(ring) for ring in r.outlines],
                "label": places(np.array([r.label]))[0],
            }
            for r in plan.rooms
        ],
        "axes": [{"tag": a.tag, "ends": places(np.array([a.start, a.end]))} for a in plan.axes],
    }  # fmt: skip
