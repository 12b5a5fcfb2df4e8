"""What measures come to: their figures, the dimensions to draw, and the components that they are of."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Literal, Protocol

import numpy as np
import numpy.typing as npt

from stairpath.core.component_ref import ComponentRef
from stairpath.core.measuring.body import Body
from stairpath.core.measuring.centrelines import between_lines, centre_lines
from stairpath.core.measuring.distance import Distance, between, between_points
from stairpath.core.measuring.facets import Facets
from stairpath.core.measuring.loops.nearest import nearest_to
from stairpath.core.measuring.measures import (
    BetweenMeasure,
    ClearMeasure,
    EdgeSide,
    FaceMeasure,
    FaceSide,
    PointsMeasure,
    RoomMeasure,
    SidesMeasure,
    VolumeMeasure,
    What,
)
from stairpath.core.measuring.overlap import Overlap, overlap
from stairpath.core.measuring.volume import volume_m3

Array = npt.NDArray[np.float64]
Index = npt.NDArray[np.int64]
Quantity = Literal["length", "area", "volume", "angle", "share"]
FigureName = Literal[
    "distance", "plan", "up", "east", "north", "project_x", "project_y", "fall", "sum", "leg", "ends_distance",
    "ends_plan", "ends_up", "angle", "square", "area", "perimeter", "volume", "clear_height", "clear_width",
    "hidden_height", "hidden_width", "depth", "shared_volume",
]  # fmt: skip
_ENDS: tuple[tuple[FigureName, FigureName], ...] = (
    ("ends_distance", "distance"), ("ends_plan", "plan"), ("ends_up", "up"),
)  # fmt: skip
Role = Literal["from", "to", "of", "above", "beside", "floor", "above_hidden", "beside_hidden"]
"""A component's part in a measure."""

SETTLE_M = 0.01
"""A point of the stage lies so near the face that it is of."""
_PARALLEL_DEG = 0.05
_SAME_NORTH_DEG = 1e-6


class NotMeasuredError(ValueError):
    """A measure that comes to nothing; the message says why and what to do."""


@dataclass(frozen=True)
class MeasureFigure:
    """One figure of a measure: metres, square and cubic metres, degrees, or a share of one."""

    name: FigureName
    quantity: Quantity
    value: float


@dataclass(frozen=True, eq=False)
class Dimension:
    """A line (n, 3) to draw on the stage, and the figure that it bears; without one it is thin."""

    line: Array
    figure: int | None = None


@dataclass(frozen=True, eq=False)
class Found:
    """A measure's figures, the main one first; ``of`` says what each component has to do with it."""

    figures: tuple[MeasureFigure, ...]
    dimensions: tuple[Dimension, ...]
    of: tuple[tuple[Role, ComponentRef], ...] = ()
    note: str = ""


@dataclass(frozen=True, eq=False)
class Room:
    """The floor of a room: its area, and its outlines (n, 3), whose first and last points are the same."""

    area_m2: float
    outlines: Sequence[Array]


@dataclass(frozen=True, eq=False)
class Gap:
    """A clear height or width: how much, between which points (2, 3), and what is at its ends."""

    length_m: float
    ends: Array
    of: tuple[tuple[Role, ComponentRef], ...] = field(default=())


@dataclass(frozen=True, eq=False)
class Spot:
    """The room there is at a point of the floor: how high and how wide, None for open, and the floor.

    What is hidden is not counted; ``hidden_height`` and ``hidden_width`` are with it, where that leaves less.
    """

    floor: ComponentRef
    height: Gap | None
    width: Gap | None
    hidden_height: Gap | None = None
    hidden_width: Gap | None = None


class Building(Protocol):
    """What measures are taken of; points are about its origin."""

    north_deg: float
    """The bearing of the building's north from +Y, clockwise."""

    def body(self, ref: ComponentRef) -> Body:
        """A component's body; raises NoBodyError or NotMeasuredError."""

    def room(self, ref: ComponentRef) -> Room:
        """A room's floor; raises NotMeasuredError."""

    def clear(self, at: Array) -> Spot:
        """The room there is at a point of the floor; raises NotMeasuredError."""


def _named(found: Distance, north_deg: float) -> dict[str, MeasureFigure]:
    """The figures of a distance by their names."""
    east, north, up = found.along_building_m(north_deg)
    x, y, _ = found.along_m
    figures = [
        MeasureFigure("distance", "length", found.distance_m),
        MeasureFigure("plan", "length", found.horizontal_m),
        MeasureFigure("up", "length", up),
        MeasureFigure("east", "length", east),
        MeasureFigure("north", "length", north),
    ]
    if abs(math.remainder(north_deg, 360.0)) > _SAME_NORTH_DEG:
        figures += [MeasureFigure("project_x", "length", x), MeasureFigure("project_y", "length", y)]
    if found.horizontal_m > 1e-9:
        figures.append(MeasureFigure("fall", "share", up / found.horizontal_m))
    return {figure.name: figure for figure in figures}


def _corner(name: str, a: Array, b: Array, north_deg: float) -> list[Array]:
    """The points between two along which one figure is taken: that of the figure from the first to the second."""
    angle = math.radians(north_deg)
    east, north = np.array([math.cos(angle), -math.sin(angle), 0.0]), np.array([math.sin(angle), math.cos(angle), 0.0])
    if name == "up":
        return [np.array([b[0], b[1], a[2]]), b]
    if name == "plan":
        return [a, np.array([b[0], b[1], a[2]])]
    way = east if name == "east" else north
    return [a, a + float((b - a) @ way) * way]


def _leg(found: Distance, main: str, north_deg: float) -> tuple[Array, list[Array]]:
    """The line that the main figure of a distance is along, and the thin lines from it to the two points."""
    a, b = np.array(found.from_m), np.array(found.to_m)
    if main == "distance":
        return np.stack([a, b]), []
    start, end = _corner(main, a, b, north_deg)
    rest = [np.stack(pair) for pair in ((a, start), (end, b)) if np.linalg.norm(pair[1] - pair[0]) > 1e-9]
    return np.stack([start, end]), rest


def _points(what: PointsMeasure, building: Building) -> Found:
    north = building.north_deg
    legs = [between_points(np.array(a), np.array(b)) for a, b in pairwise(what.points_m)]
    if not legs:
        raise NotMeasuredError("A distance needs two points; click another one.")
    named = [_named(leg, north) for leg in legs]
    if len(legs) == 1:
        rest = [figure for name, figure in named[0].items() if name != what.main]
        line, thin = _leg(legs[0], what.main, north)
        return Found((named[0][what.main], *rest), (Dimension(line, 0), *(Dimension(each) for each in thin)))
    figures = [MeasureFigure("sum", "length", sum(abs(each[what.main].value) for each in named))]
    dimensions = []
    for leg, each in zip(legs, named, strict=True):
        line, thin = _leg(leg, what.main, north)
        dimensions += [Dimension(line, len(figures)), *(Dimension(t) for t in thin)]
        figures.append(MeasureFigure("leg", "length", each[what.main].value))
    whole = _named(between_points(np.array(what.points_m[0]), np.array(what.points_m[-1])), north)
    figures += [MeasureFigure(ends, whole[name].quantity, whole[name].value) for ends, name in _ENDS]
    return Found(tuple(figures), tuple(dimensions))


def _overlapping(deep: Overlap, of: tuple[tuple[Role, ComponentRef], ...]) -> Found:
    """How deep two bodies overlap, with the shortest shift that parts them through the middle of what they share."""
    middle, half = np.array(deep.at_m), np.array(deep.shift_m) / 2
    figures = [MeasureFigure("depth", "length", deep.depth_m)]
    if deep.volume_m3 is not None:
        figures.append(MeasureFigure("shared_volume", "volume", deep.volume_m3))
    line = np.stack([middle - half, middle + half])
    return Found(
        tuple(figures), (Dimension(line, 0),), of, "They overlap; the depth is the shortest move that parts them."
    )


def _between(what: BetweenMeasure, building: Building) -> Found:
    one, other = building.body(what.a), building.body(what.b)
    of: tuple[tuple[Role, ComponentRef], ...] = (("from", what.a), ("to", what.b))
    note = ""
    if what.how == "centre_lines":
        pairs = [
            between_points(*between_lines(a.ends, b.ends))
            for a in centre_lines(Facets(one))
            for b in centre_lines(Facets(other))
        ]
        if not pairs:
            raise NotMeasuredError(
                "One of them is neither round nor drawn out along a line, and has no centre line; "
                "take where they are nearest."
            )
        found = min(pairs, key=lambda pair: pair.distance_m)
    else:
        apart = between(one, other)
        if apart is None:
            raise AssertionError("without a limit there is always a distance")
        deep = overlap(one, other) if apart.distance_m == 0 else None
        if deep is not None:
            return _overlapping(deep, of)
        found, note = apart, "They touch." if apart.distance_m == 0 else ""
    figures = tuple(_named(found, building.north_deg).values())
    return Found(figures, (Dimension(np.array([found.from_m, found.to_m]), 0),), of, note)


@dataclass(frozen=True, eq=False)
class _Side:
    """A face's normal or an edge's direction, and a point of it."""

    flat: bool
    way: Array
    point: Array


def _face_at(side: FaceSide, building: Building) -> tuple[Facets, int, Array]:
    """The faces of a component, the triangle that a point is nearest to, and the point exactly on it."""
    body = building.body(side.of)
    squared, triangle, point = nearest_to(np.array(side.point_m), body.corners, body.tree, np.inf)
    if squared > SETTLE_M**2:
        raise NotMeasuredError("The face is no longer where it was measured. Measure it again.")
    return Facets(body), int(triangle), point


def _side(side: FaceSide | EdgeSide, building: Building) -> _Side:
    if side.kind == "edge":
        a, b = np.array(side.ends_m)
        length = float(np.linalg.norm(b - a))
        if length < 1e-9:
            raise NotMeasuredError("The edge has no length; click another one.")
        return _Side(False, (b - a) / length, np.array(side.point_m))
    facets, triangle, point = _face_at(side, building)
    return _Side(True, facets.normal_of(np.flatnonzero(facets.flat == facets.flat[triangle])), point)


def _foot(one: _Side, other: _Side) -> Array:
    """The foot of the perpendicular from the first side's point on a second one that is parallel."""
    gap = one.point - other.point
    along = float(gap @ other.way) * other.way
    foot: Array = one.point - along if other.flat else other.point + along
    return foot


def _sides(what: SidesMeasure, building: Building) -> Found:
    one, other = _side(what.a, building), _side(what.b, building)
    cosine = min(1.0, abs(float(one.way @ other.way)))
    sine = min(1.0, float(np.linalg.norm(np.cross(one.way, other.way))))
    between_deg = math.degrees(math.atan2(sine, cosine))
    angle_deg = between_deg if one.flat == other.flat else 90.0 - between_deg
    angle = MeasureFigure("angle", "angle", angle_deg)
    sides: tuple[tuple[Role, FaceSide | EdgeSide], ...] = (("from", what.a), ("to", what.b))
    of = tuple((word, side.of) for word, side in sides if side.kind == "face")
    if angle_deg > _PARALLEL_DEG:
        return Found((angle,), (Dimension(np.stack([one.point, other.point]), 0),), of, "They are not parallel.")
    # From a point of an edge to a plane, else of either to the other.
    foot, start = (_foot(one, other), one.point) if other.flat or not one.flat else (_foot(other, one), other.point)
    square = MeasureFigure("square", "length", float(np.linalg.norm(foot - start)))
    return Found((square, angle), (Dimension(np.stack([start, foot]), 0),), of)


def _rings(points: Array, edges: Index) -> list[Array]:
    """Edges (n, 2) as they follow one another, as lines (k, 3)."""
    ahead: dict[int, list[int]] = {}
    for a, b in edges.tolist():
        ahead.setdefault(a, []).append(b)
        ahead.setdefault(b, []).append(a)
    lines: list[Array] = []
    for start in list(ahead):
        while ahead[start]:
            line = [start]
            while ahead[line[-1]]:
                follow = ahead[line[-1]].pop()
                ahead[follow].remove(line[-1])
                line.append(follow)
            lines.append(points[line])
    return lines


def _long(line: Array) -> float:
    return float(np.linalg.norm(np.diff(line, axis=0), axis=1).sum())


def _face(what: FaceMeasure, building: Building) -> Found:
    facets, triangle, _ = _face_at(what.face, building)
    face = facets.face_of(triangle)
    rings = _rings(facets.body.points, facets.border(face))
    figures = (
        MeasureFigure("area", "area", float(facets.areas_m2[face].sum())),
        MeasureFigure("perimeter", "length", sum(map(_long, rings))),
    )
    return Found(figures, _outlined(rings), (("of", what.face.of),))


def _outlined(rings: Sequence[Array]) -> tuple[Dimension, ...]:
    """Outlines, the longest bearing the first figure."""
    by_length = sorted(rings, key=_long, reverse=True)
    return tuple(Dimension(ring, 0 if k == 0 else None) for k, ring in enumerate(by_length))


def _room(what: RoomMeasure, building: Building) -> Found:
    room = building.room(what.room)
    figures = (
        MeasureFigure("area", "area", room.area_m2),
        MeasureFigure("perimeter", "length", sum(map(_long, room.outlines))),
    )
    return Found(figures, _outlined(room.outlines), (("of", what.room),))


def _volume(what: VolumeMeasure, building: Building) -> Found:
    if not what.of:
        raise NotMeasuredError("Nothing with a volume is selected. Select components first.")
    total, gaps = 0.0, 0
    for ref in what.of:
        body = building.body(ref)
        total += volume_m3(body.corners)
        gaps += bool(len(Facets(body).border(np.arange(len(body.triangles)))))
    note = (
        ""
        if not gaps
        else "It is not closed; its volume is only near."
        if len(what.of) == 1
        else f"{gaps} of {len(what.of)} are not closed; the volume is only near."
    )
    return Found((MeasureFigure("volume", "volume", total),), (), tuple(("of", ref) for ref in what.of[:50]), note)


def _clear(what: ClearMeasure, building: Building) -> Found:
    spot = building.clear(np.array(what.at_m))
    figures: list[MeasureFigure] = []
    dimensions: list[Dimension] = []
    of: list[tuple[Role, ComponentRef]] = [("floor", spot.floor)]
    notes = []
    clear: tuple[tuple[FigureName, Gap | None, str], ...] = (
        ("clear_height", spot.height, "Above it is open."),
        ("clear_width", spot.width, "To the sides it is open."),
    )
    for name, gap, told in clear:
        if gap is None:
            notes.append(told)
            continue
        dimensions.append(Dimension(gap.ends, len(figures)))
        figures.append(MeasureFigure(name, "length", gap.length_m))
        of += gap.of
    # What one has hidden is there all the same: a height that is quoted is not more than there is unsaid.
    hidden: tuple[tuple[FigureName, Gap | None], ...] = (
        ("hidden_height", spot.hidden_height), ("hidden_width", spot.hidden_width),
    )  # fmt: skip
    for name, gap in hidden:
        if gap is not None:
            figures.append(MeasureFigure(name, "length", gap.length_m))
            of += gap.of
    if not figures:
        raise NotMeasuredError("There is nothing above that point and nothing beside it; it is open.")
    return Found(tuple(figures), tuple(dimensions), tuple(of), " ".join(notes))


def figures_of(what: What, building: Building) -> Found:
    """What a measure comes to in a building; raises NotMeasuredError or NoBodyError, each in one sentence.

    Points are about the building's origin.
    """
    taken: dict[str, Callable[..., Found]] = {
        "points": _points,
        "between": _between,
        "sides": _sides,
        "face": _face,
        "room": _room,
        "volume": _volume,
        "clear": _clear,
    }
    return taken[what.kind](what, building)


def settled(body: Body, point: Array) -> Array:
    """The point (3,) of a body's faces nearest to one that was clicked; as it was if it is of none of them."""
    squared, _, found = nearest_to(np.asarray(point, dtype=np.float64), body.corners, body.tree, np.inf)
    exact: Array = found if squared <= SETTLE_M**2 else point
    return exact
