"""Putting a cut on a sheet: what is cut, what lies behind, grid, levels, rooms, and what says what it is."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
import numpy.typing as npt
import shapely

from stairpath.core.cutting.behind import behind
from stairpath.core.cutting.cut import cut, rings_of
from stairpath.core.cutting.faces import triangles_of
from stairpath.core.cutting.keyplan import drawn_rooms
from stairpath.core.cutting.sheet.papers import Paper, paper_for, paper_named
from stairpath.core.cutting.sheet.pens import AXIS, FINE, FRAME, HEAVY, LEVEL, THIN, Pen, hatch_of, hatching
from stairpath.core.federation.disciplines import CODES
from stairpath.core.federation.federate import Federation
from stairpath.core.federation.grid import axes_of
from stairpath.core.federation.levels import level_at
from stairpath.core.federation.placed import all_placed
from stairpath.core.geometry.plane import Plane
from stairpath.core.geometry.vectors import round_bearing
from stairpath.core.palette import INK

Array = npt.NDArray[np.float64]
Mask = npt.NDArray[np.bool_]

DEPTH_M = 3.0
_ROUND_MM = 12.0
"""So much of the drawing's own edge is for bubbles and level marks."""
BUBBLE_MM, TAG_MM = 4.0, 3.5
"""The radius of the bubble of a grid line, and the height of its tag."""
_TITLE_MM = (180.0, 36.0)
_LETTER_MM, _LARGE_MM = 2.5, 5.0
"""Heights of lettering (ISO 3098)."""
_NO_DISCIPLINE = "GEN"
SHEET = "SHEET"
"""The layer of what belongs to the sheet and not to the building: frame, title block, scale bar, arrow to north."""


@dataclass(frozen=True)
class Line:
    """A line (n, 2) on the sheet, millimetres from its lower left corner; what it is of is its layer."""

    points: Array
    pen: Pen
    layer: str
    closed: bool = False


@dataclass(frozen=True)
class Area:
    """What is cut of a component: rings (each (n, 2)), outer ones counter-clockwise, holes clockwise; ground and hatch.

    The hatch is by angle in degrees and spacing in millimetres, as ``hatch_of`` gives it; its strokes are lines beside.
    """

    rings: tuple[tuple[bool, Array], ...]
    layer: str
    ground: str = "#efebe2"
    hatch: tuple[tuple[float, float], ...] = ()


@dataclass(frozen=True)
class Text:
    """Words at a place, by their middle unless they start there; the height is that of capitals."""

    at: tuple[float, float]
    words: str
    height_mm: float = _LETTER_MM
    starts: bool = False
    bold: bool = False
    layer: str = SHEET


@dataclass(frozen=True)
class Bubble:
    """The tag of a grid line in its circle."""

    at: tuple[float, float]
    tag: str

    @property
    def circle(self) -> Circle:
        """Its circle."""
        return Circle(self.at, BUBBLE_MM, THIN, "GRID")

    @property
    def text(self) -> Text:
        """Its letters."""
        return Text(self.at, self.tag, TAG_MM, bold=True, layer="GRID")


@dataclass(frozen=True)
class Circle:
    """A circle about a place."""

    at: tuple[float, float]
    radius_mm: float
    pen: Pen
    layer: str


class OnPaper:
    """From a plane's own coordinates to the sheet's, and back to those of the building.

    Of a level plane the building's are the project's x and y, of an upright one the way along it and the height.
    """

    def __init__(self, plane: Plane, turn_deg: float, scale: float) -> None:
        angle = math.radians(turn_deg)
        self.turn_deg = turn_deg
        self.turn = np.array([[math.cos(angle), -math.sin(angle)], [math.sin(angle), math.cos(angle)]])
        self.per_m = 1000.0 / scale
        self.at = np.zeros(2)
        self.origin_m: Array = plane.axes[:2] @ np.array(plane.point_m)

    def __call__(self, flat: Array) -> Array:
        """Points (..., 2) of the plane on the sheet."""
        out: Array = np.asarray(flat) @ self.turn.T * self.per_m + self.at
        return out

    def building(self, paper_mm: Array) -> Array:
        """Points (..., 2) of the sheet in the building, metres."""
        out: Array = (np.asarray(paper_mm) - self.at) / self.per_m @ self.turn + self.origin_m
        return out


@dataclass
class Sheet:
    """A drawing on paper, millimetres from its lower left corner; areas lie below lines, lines below words."""

    paper: Paper
    scale: float
    title: str
    on: OnPaper
    """From the building to the paper and back."""
    window_mm: tuple[Array, Array]
    """The lower left and the upper right corner (2,) of what is drawn of the building, with bubbles and level marks."""
    areas: list[Area] = field(default_factory=list)
    lines: list[Line] = field(default_factory=list)
    circles: list[Circle] = field(default_factory=list)
    texts: list[Text] = field(default_factory=list)
    bubbles: list[Bubble] = field(default_factory=list)

    @property
    def all_circles(self) -> list[Circle]:
        """Circles, those of bubbles among them."""
        return [*self.circles, *(bubble.circle for bubble in self.bubbles)]

    @property
    def all_texts(self) -> list[Text]:
        """Words, those of bubbles among them."""
        return [*self.texts, *(bubble.text for bubble in self.bubbles)]


def _layer(kind: str, discipline: str) -> str:
    return f"{discipline}-{kind}"


def _bubble(sheet: Sheet, at: Array, tag: str) -> None:
    x, y = (float(v) for v in at)
    sheet.bubbles.append(Bubble((x, y), tag))


_REACHES_M = 0.1
"""A grid line that ends this near to the plane of a cut comes to it."""
_ALONG = math.sin(math.radians(1))
"""A grid line that leans less than this out of the plane of a cut runs along it and comes through it nowhere."""


def _grid(sheet: Sheet, federation: Federation, plane: Plane, on: OnPaper, low: Array, high: Array) -> None:
    """Grid lines with their tags: along a level cut as they run, on an upright one where they come through."""
    level = abs(plane.normal[2]) > 0.999
    z = plane.point_m[2]
    for axis in axes_of(federation):
        ends = np.array([(*axis.start, z), (*axis.end, z)]) @ plane.axes.T + plane.into[:3, 3]
        if level:
            a, b = on(ends[:, :2])
            way = (b - a) / max(1e-9, float(np.linalg.norm(b - a)))
            clip = shapely.intersection(
                shapely.LineString([a - way * 1e4, b + way * 1e4]),
                shapely.box(*(low - _ROUND_MM / 2), *(high + _ROUND_MM / 2)),
            )
            if clip.geom_type != "LineString" or clip.is_empty:
                continue
            a, b = shapely.get_coordinates(clip)
            if np.dot(b - a, way) < 0:
                a, b = b, a
            sheet.lines.append(Line(np.array([a, b]), AXIS, "GRID"))
            _bubble(sheet, b + way * BUBBLE_MM, axis.tag)
        elif min(ends[:, 2]) < _REACHES_M and max(ends[:, 2]) > -_REACHES_M:
            length = float(np.linalg.norm(ends[1] - ends[0]))
            if abs(ends[0, 2] - ends[1, 2]) < length * _ALONG:
                continue
            share = ends[0, 2] / (ends[0, 2] - ends[1, 2])
            u = ends[0, 0] + share * (ends[1, 0] - ends[0, 0])
            x = float(on(np.array([[u, 0.0]]))[0, 0])
            if low[0] - _ROUND_MM / 2 <= x <= high[0] + _ROUND_MM / 2:
                top = np.array([x, high[1] + _ROUND_MM / 2])
                sheet.lines.append(Line(np.array([[x, low[1] - 2], top]), AXIS, "GRID"))
                _bubble(sheet, top + np.array([0, BUBBLE_MM]), axis.tag)


def _levels(sheet: Sheet, federation: Federation, plane: Plane, on: OnPaper, low: Array, high: Array) -> None:
    """Level marks beside an upright cut: a dashed line, a triangle, name and height."""
    for level in federation.levels:
        v = (level.elevation_m - plane.point_m[2]) * float(plane.axes[1, 2])
        y = float(on(np.array([[0.0, v]]))[0, 1])
        if not low[1] - 1 <= y <= high[1] + 1:
            continue
        x = high[0] + 2
        sheet.lines.append(Line(np.array([[low[0] - 4, y], [x + 22, y]]), LEVEL, "LEVELS"))
        mark = np.array([[x, y], [x + 1.5, y + 2.6], [x - 1.5, y + 2.6]])
        sheet.lines.append(Line(mark, THIN, "LEVELS", closed=True))
        sheet.texts.append(
            Text((x + 3, y + 1.9), f"{level.name} {level.elevation_m:+.3f}", starts=True, layer="LEVELS")
        )


def _rooms(sheet: Sheet, federation: Federation, plane: Plane, on: OnPaper) -> None:
    """Names of the rooms that a level cut goes through."""
    for room in drawn_rooms(federation, level_at(federation.levels, plane.point_m[2])):
        at = np.array([*room.label, plane.point_m[2]]) @ plane.axes.T + plane.into[:3, 3]
        x, y = on(at[None, :2])[0].tolist()
        sheet.texts += [
            Text((x, y + 2), room.name, bold=True, layer="ROOMS"), Text((x, y - 2), room.number, layer="ROOMS"),
        ]  # fmt: skip


def _scale_bar(sheet: Sheet, at: Array) -> None:
    """Ten steps of whole metres, every other one filled."""
    step_m = next(s for s in (0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100) if s * 1000 / sheet.scale >= 8)
    step = step_m * 1000 / sheet.scale
    x, y = at
    for k in range(5):
        ring = np.array(
            [[x + k * step, y], [x + (k + 1) * step, y], [x + (k + 1) * step, y + 1.5], [x + k * step, y + 1.5]]
        )
        sheet.lines.append(Line(ring, THIN, SHEET, closed=True))
        if k % 2 == 0:
            sheet.areas.append(Area(((False, ring),), SHEET, INK))
    for k in (0, 1, 5):
        sheet.texts.append(Text((x + k * step, y + 4), f"{k * step_m:g}{' m' if k == 5 else ''}"))


def _north(sheet: Sheet, at: Array, bearing_deg: float) -> None:
    """An arrow to true north, where that is known, else to the building's own."""
    angle = math.radians(bearing_deg)
    up, side = np.array([math.sin(angle), math.cos(angle)]), np.array([math.cos(angle), -math.sin(angle)])
    centre = np.asarray(at)
    sheet.circles.append(Circle((float(centre[0]), float(centre[1])), 6.0, THIN, SHEET))
    ring = np.array([centre + up * 6, centre - up * 4 + side * 3, centre - up * 2.4, centre - up * 4 - side * 3])
    sheet.areas.append(Area(((False, ring),), SHEET, INK))
    x, y = (centre + up * 9).tolist()
    sheet.texts.append(Text((x, y), "N", 3.5, bold=True))


def _frame(sheet: Sheet, project: str, facts: Sequence[tuple[str, str]]) -> None:
    """The frame with its centring marks (ISO 5457), and the title block in its lower right corner."""
    paper = sheet.paper
    x0, y0 = paper.filing_mm, paper.edge_mm
    x1, y1 = paper.width_mm - paper.edge_mm, paper.height_mm - paper.edge_mm
    sheet.lines.append(Line(np.array([[x0, y0], [x1, y0], [x1, y1], [x0, y1]]), FRAME, SHEET, closed=True))
    cx, cy = (x0 + x1) / 2, (y0 + y1) / 2
    for a, b in (((cx, y0 - 5), (cx, y0 + 5)), ((cx, y1 - 5), (cx, y1 + 5)), ((x0 - 5, cy), (x0 + 5, cy)),
                 ((x1 - 5, cy), (x1 + 5, cy))):  # fmt: skip
        sheet.lines.append(Line(np.array([a, b]), FRAME, SHEET))
    width, height = min(_TITLE_MM[0], x1 - x0), _TITLE_MM[1]
    left, top = x1 - width, y0 + height
    sheet.areas.append(Area(((False, np.array([[left, y0], [x1, y0], [x1, top], [left, top]])),), SHEET, "#ffffff"))
    sheet.lines.append(Line(np.array([[x1, top], [left, top], [left, y0]]), FRAME, SHEET))
    sheet.lines.append(Line(np.array([[left, y0 + 14], [x1, y0 + 14]]), THIN, SHEET))
    sheet.texts.append(Text((left + 4, top - 9), sheet.title, _LARGE_MM, starts=True, bold=True))
    sheet.texts.append(Text((left + 4, top - 17), project, 3.5, starts=True))
    step = (width - 4) / max(1, len(facts))
    for k, (name, value) in enumerate(facts):
        x = left + 4 + k * step
        sheet.texts.append(Text((x, y0 + 10), name, _LETTER_MM, starts=True))
        sheet.texts.append(Text((x, y0 + 4.5), value, 3.5, starts=True, bold=True))


def draw(
    federation: Federation, plane: Plane, materials: Sequence[str], wanted: Mask | None = None, scale: float = 50.0,
    depth_m: float = DEPTH_M, paper: str | None = None, title: str = "", project: str = "", dated: str = "",
) -> Sheet:  # fmt: skip
    """The cut of a federation by a plane, drawn to scale on the smallest sheet that holds it, or on the one named.

    ``materials`` and ``wanted`` run over all components. Raises NoPaperError.
    """
    parts = all_placed(federation, wanted)
    found = cut(parts, plane)
    codes = np.concatenate([m.discipline_of for m in federation.models])
    first = np.cumsum([0, *(len(p.bounds_m) for p in parts)])
    level = abs(plane.normal[2]) > 0.999
    turn = federation.building_north_deg if level else 0.0
    polygons = [
        (f + o, g) for r, f in zip(found.parts, first, strict=False) for o, g in zip(r.owner, r.polygons, strict=True)
    ]
    faces = [triangles_of(np.array([g], dtype=object)) for _, g in polygons]
    back = behind(parts, plane, depth_m, np.concatenate(faces) if faces else np.zeros((0, 3, 2)))
    on = OnPaper(plane, turn, scale)
    everything = [on(shapely.get_coordinates(g)) for _, g in polygons] + [on(back.lines.reshape(-1, 2))]
    corners = np.concatenate(everything) if everything else np.zeros((0, 2))
    if not len(corners):
        corners = np.zeros((1, 2))
    low, high = corners.min(axis=0), corners.max(axis=0)
    around = _ROUND_MM + 2 * BUBBLE_MM
    aside = 0.0 if level else 30.0
    width, height = high - low + [2 * around + aside, 2 * around + _TITLE_MM[1]]
    sheet_of = paper_named(paper, width, height, scale) if paper else paper_for(width, height)
    inside = sheet_of.inside_mm
    corner = np.array([sheet_of.filing_mm, sheet_of.edge_mm + _TITLE_MM[1]])
    free = np.array([inside[0] - aside, inside[1] - _TITLE_MM[1]])
    on.at = corner + (free - (high - low)) / 2 - low
    low, high = low + on.at, high + on.at
    sheet = Sheet(sheet_of, scale, title, on, (low - around, high + np.array([around + aside, around])))

    def layer(kind: str, component: int) -> str:
        code = int(codes[component])
        return _layer(kind, CODES[code] if code >= 0 else _NO_DISCIPLINE)

    for line, of in zip(on(back.lines), back.of.tolist(), strict=True):
        sheet.lines.append(Line(line, THIN, layer("BEHIND", of)))
    for component, region in polygons:
        rings = tuple((hole, on(ring)) for hole, ring in rings_of(region))
        hatch = hatch_of(materials[component])
        sheet.areas.append(Area(rings, layer("CUT", component), hatch=hatch))
        on_paper = shapely.transform(region, on)
        sheet.lines += [Line(stroke, FINE, layer("HATCH", component)) for stroke in hatching(on_paper, hatch)]
        sheet.lines += [Line(ring, HEAVY, layer("CUT", component), closed=True) for _, ring in rings]
    _grid(sheet, federation, plane, on, low, high)
    if level:
        _rooms(sheet, federation, plane, on)
        north = federation.true_north_deg if federation.true_north_deg is not None else federation.building_north_deg
        _north(sheet, np.array([corner[0] + 14, corner[1] - _TITLE_MM[1] + 26]), north - turn)
    else:
        _levels(sheet, federation, plane, on, low, high)
    _scale_bar(sheet, np.array([corner[0] + 8, corner[1] - _TITLE_MM[1] + 6]))
    looked = round_bearing(math.degrees(math.atan2(-plane.normal[0], -plane.normal[1])) - federation.building_north_deg)
    facts = [("Scale", f"1:{scale:g}"), ("Sheet", sheet.paper.name)]
    facts.append(("Cut at", f"{plane.point_m[2]:+.3f} m") if level else ("Looking", f"{looked:03.0f}\N{DEGREE SIGN}"))
    _frame(sheet, project, [*facts, *([("Date", dated)] if dated else [])])
    return sheet
