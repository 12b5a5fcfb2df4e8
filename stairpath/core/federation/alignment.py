"""Bringing each model into the federation's project coordinates.

Evidence, strongest first: what a person said; map conversion and projected CRS in the file; at
least two grid axes of the same names crossing; site and building placement as they stand.
"""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import combinations
from typing import Literal

import numpy as np
import numpy.typing as npt

from stairpath.core.federation.outline import Outline
from stairpath.core.problems import Problem
from stairpath.core.reading.model import GridAxis, Storey

Array = npt.NDArray[np.float64]
Evidence = Literal["map", "grid", "placement", "hand"]

GRID_TOLERANCE_M = 0.010
GRID_REFUSED_M = 0.5
FAR_AWAY_M = 1000.0
LOWEST_M, HIGHEST_M = -1000.0, 9000.0
"""Buildings stand between these heights above the sea; a file that is all beyond them has bad heights."""


@dataclass(frozen=True)
class Alignment:
    """A turn about z and a shift: project = turn(own) + shift."""

    by: Evidence
    rotation_deg: float
    shift_m: tuple[float, float, float]
    reason: str = ""

    @property
    def matrix(self) -> Array:
        """4 x 4, own coordinates to project coordinates, in metres."""
        c, s = math.cos(math.radians(self.rotation_deg)), math.sin(math.radians(self.rotation_deg))
        out = np.eye(4)
        out[:2, :2] = [[c, -s], [s, c]]
        out[:3, 3] = self.shift_m
        return out

    def apply(self, points: Array) -> Array:
        """Own points (..., 3) in project coordinates."""
        matrix = self.matrix
        return points @ matrix[:3, :3].T + matrix[:3, 3]


@dataclass(frozen=True)
class Placement:
    """How a person wants a model aligned: by one kind of evidence, or by hand with a turn and a shift."""

    by: Evidence
    rotation_deg: float = 0.0
    shift_m: tuple[float, float, float] = (0.0, 0.0, 0.0)
    who: str = ""


def by_points(own: Array, there: Array) -> tuple[float, tuple[float, float, float]]:
    """The turn in degrees and the shift that bring two points (2, 3) of a model to their places (2, 3).

    The first point meets its place exactly; the second lies in the direction of its own. Raises ValueError
    where either pair is closer than 1 mm on plan.

    >>> by_points(np.array([[0, 0, 0], [1, 0, 0]]), np.array([[5, 5, 2], [5, 9, 2]]))
    (90.0, (5.0, 5.0, 2.0))
    """
    (ux, uy), (vx, vy) = ((pair[1] - pair[0])[:2] for pair in (np.asarray(own, float), np.asarray(there, float)))
    if math.hypot(ux, uy) < 1e-3 or math.hypot(vx, vy) < 1e-3:
        raise ValueError("The two points coincide on plan. Choose two that are apart.")
    turn = (math.degrees(math.atan2(vy, vx) - math.atan2(uy, ux)) + 180.0) % 360.0 - 180.0
    shift = np.asarray(there, float)[0] - Alignment("hand", turn, (0.0, 0.0, 0.0)).apply(np.asarray(own, float)[0])
    return turn, (float(shift[0]), float(shift[1]), float(shift[2]))


def crossings(axes: Sequence[GridAxis]) -> dict[tuple[str, str], Array]:
    """Where axes cross on plan, by their two tags in order."""
    found: dict[tuple[str, str], Array] = {}
    for first, second in combinations(axes, 2):
        p, q = np.array(first.start_m), np.array(second.start_m)
        u, v = np.array(first.end_m) - p, np.array(second.end_m) - q
        area = u[0] * v[1] - u[1] * v[0]
        if abs(area) <= 1e-6 * np.hypot(*u) * np.hypot(*v):
            continue
        t = ((q - p)[0] * v[1] - (q - p)[1] * v[0]) / area
        tags = (first.tag, second.tag) if first.tag <= second.tag else (second.tag, first.tag)
        found.setdefault(tags, p + t * u)
    return found


def _axis_turn(own: Sequence[GridAxis], other: Sequence[GridAxis], tags: tuple[str, str]) -> float:
    """Turn from one crossing alone: the mean turn of its two axes, from start to end."""
    turns = []
    for tag in tags:
        a = next(axis for axis in own if axis.tag == tag)
        b = next(axis for axis in other if axis.tag == tag)
        angle_a = math.atan2(a.end_m[1] - a.start_m[1], a.end_m[0] - a.start_m[0])
        angle_b = math.atan2(b.end_m[1] - b.start_m[1], b.end_m[0] - b.start_m[0])
        turns.append(angle_b - angle_a)
    return math.atan2(sum(map(math.sin, turns)), sum(map(math.cos, turns)))


@dataclass(frozen=True)
class GridFit:
    """A turn and shift on plan, how far off it leaves the worst crossing, and how many fitted."""

    rotation_deg: float
    shift_m: tuple[float, float]
    worst_m: float
    count: int


def fit_grids(own: Sequence[GridAxis], other: Sequence[GridAxis]) -> GridFit | None:
    """The turn and shift that bring one grid's crossings onto another's, by least squares.

    Two-dimensional Kabsch without scaling or mirroring. None if no two axes of the same
    names cross in both.
    """
    mine, theirs = crossings(own), crossings(other)
    common = sorted(mine.keys() & theirs.keys())
    if not common:
        return None
    a = np.array([mine[tags] for tags in common])
    b = np.array([theirs[tags] for tags in common])
    centre_a, centre_b = a.mean(axis=0), b.mean(axis=0)
    x, y = a - centre_a, b - centre_b
    if len(common) == 1 or np.abs(x).max() < 1e-3:
        turn = _axis_turn(own, other, common[0])
    else:
        turn = math.atan2(
            float((x[:, 0] * y[:, 1] - x[:, 1] * y[:, 0]).sum()), float((x[:, 0] * y[:, 0] + x[:, 1] * y[:, 1]).sum())
        )
    c, s = math.cos(turn), math.sin(turn)
    rotation = np.array([[c, -s], [s, c]])
    shift = centre_b - rotation @ centre_a
    worst = float(np.linalg.norm(a @ rotation.T + shift - b, axis=1).max())
    return GridFit(math.degrees(turn), (float(shift[0]), float(shift[1])), worst, len(common))


def storey_key(name: str) -> str:
    """A storey's name as it is compared: case, spaces and signs do not count."""
    return "".join(ch for ch in name.casefold() if ch.isalnum())


def height_shift(own: Sequence[Storey], levels: dict[str, float]) -> float:
    """How far up a model must go so that most of its storeys meet those of the same names.

    The most common difference, to the millimetre, among storeys of the same names; where
    none is most common, the smallest.
    """
    differences = Counter(
        round(levels[key] - storey.elevation_m, 3) for storey in own if (key := storey_key(storey.name)) in levels
    )
    if not differences:
        return 0.0
    top = max(differences.values())
    return min((d for d, count in differences.items() if count == top), key=abs)


@dataclass
class Aligned:
    """Alignments in the order of the models, what was found on the way, and which stand far from the rest."""

    alignments: list[Alignment]
    problems: list[list[Problem]]
    elsewhere: list[bool]


def _by_map(model: Outline, crs: str) -> Alignment | None:
    conversion = model.map_conversion
    if conversion is None or conversion.crs != crs:
        return None
    reason = f"map conversion to {conversion.crs}"
    return Alignment(
        "map",
        conversion.rotation_deg,
        (conversion.eastings_m, conversion.northings_m, conversion.height_m),
        f"{reason}; {conversion.reading}" if conversion.reading else reason,
    )


def _as_it_stands(reason: str = "site and building placement as they stand") -> Alignment:
    return Alignment("placement", 0.0, (0.0, 0.0, 0.0), reason)


def _said_by_hand(model: Outline, placement: Placement) -> tuple[Alignment | None, list[Problem]]:
    """What a person said of a model; None where the evidence that was chosen is to be looked for with the others."""
    by = f" (by {placement.who})" if placement.who else ""
    if placement.by == "hand":
        return Alignment("hand", placement.rotation_deg, placement.shift_m, f"turn and shift set by hand{by}"), []
    if placement.by == "placement":
        return _as_it_stands(f"site and building placement as they stand, chosen by hand{by}"), []
    if placement.by == "map" and model.map_conversion is not None:
        found = _by_map(model, model.map_conversion.crs)
        return (None if found is None else replace(found, reason=f"{found.reason}, chosen by hand{by}")), []
    if placement.by == "map":
        return None, [Problem("no-such-evidence", "It was to be aligned by its map conversion, but its file has none.")]
    return None, []


def _aligned_axes(model: Outline, alignment: Alignment) -> list[GridAxis]:
    out = []
    for axis in model.grid_axes:
        ends = alignment.apply(np.array([[*axis.start_m, 0.0], [*axis.end_m, 0.0]]))
        out.append(
            GridAxis(
                axis.grid, axis.tag, (float(ends[0, 0]), float(ends[0, 1])), (float(ends[1, 0]), float(ends[1, 1]))
            )
        )
    return out


def _by_grid(
    model: Outline, reference: Outline, to: Alignment, levels: dict[str, float]
) -> tuple[Alignment | None, list[Problem]]:
    fit = fit_grids(model.grid_axes, _aligned_axes(reference, to))
    if fit is None:
        return None, []
    if fit.worst_m > GRID_REFUSED_M:
        text = (
            f"Its grid does not fit that of {reference.name}: the worst crossing is {fit.worst_m:.2f} m off, "
            "so its placement was used as it stands."
        )
        return None, [Problem("grid-refused", text)]
    problems = []
    if fit.worst_m > GRID_TOLERANCE_M:
        problems.append(
            Problem("grid-differs", f"Its grid is up to {fit.worst_m * 1000:.0f} mm off that of {reference.name}.")
        )
    shift_z = height_shift(model.storeys, levels)
    reason = f"{fit.count} grid crossings shared with {reference.name}"
    return Alignment("grid", fit.rotation_deg, (*fit.shift_m, shift_z), reason), problems


def _settled(
    models: Sequence[Outline], placements: Mapping[str, Placement], problems: list[list[Problem]]
) -> list[Alignment | None]:
    """Alignments that ask for no other model: what a person said, the map, and the first model without either."""
    found: list[Alignment | None] = [None] * len(models)
    said = [placements.get(model.name) for model in models]
    for index, (model, placement) in enumerate(zip(models, said, strict=True)):
        if placement is not None:
            found[index], noted = _said_by_hand(model, placement)
            problems[index].extend(noted)
    free = [p is None or (p.by == "map" and found[i] is None) for i, p in enumerate(said)]
    crs = next((m.map_conversion.crs for m, f in zip(models, free, strict=True) if f and m.map_conversion), None)
    if crs is not None:
        for index, model in enumerate(models):
            if not free[index]:
                continue
            found[index] = _by_map(model, crs)
            if found[index] is None and model.map_conversion is not None:
                text = f"Its map coordinates are in {model.map_conversion.crs}, the federation's in {crs}; they were not used."
                problems[index].append(Problem("other-crs", text))
    elif models and not any(alignment is not None for alignment in found):
        found[0] = _as_it_stands("first model of the federation")
    return found


def align(models: Sequence[Outline], placements: Mapping[str, Placement] | None = None) -> Aligned:
    """Align every model; the project's coordinates are the map's if any model has them.

    Without any map conversion they are those of the first model. ``placements`` says, by a model's name, what a
    person wants in place of the evidence.
    """
    placements = placements or {}
    problems: list[list[Problem]] = [[] for _ in models]
    found = _settled(models, placements, problems)
    levels: dict[str, float] = {}

    def note_levels(index: int, alignment: Alignment) -> None:
        for storey in models[index].storeys:
            levels.setdefault(storey_key(storey.name), storey.elevation_m + alignment.shift_m[2])

    for index, alignment in enumerate(found):
        if alignment is not None:
            note_levels(index, alignment)

    progress = True
    while progress:
        progress = False
        for index, model in enumerate(models):
            if found[index] is not None or not model.grid_axes:
                continue
            for reference, to in [(models[i], a) for i, a in enumerate(found) if a is not None]:
                alignment, noted = _by_grid(model, reference, to, levels)
                if alignment is not None:
                    found[index] = alignment
                    problems[index].extend(noted)
                    note_levels(index, alignment)
                    progress = True
                    break
                if noted and not any(p.code == "grid-refused" for p in problems[index]):
                    problems[index].extend(noted)
    done = [alignment or _as_it_stands() for alignment in found]
    for index, (model, alignment) in enumerate(zip(models, done, strict=True)):
        wish = placements.get(model.name)
        if wish is not None and wish.by == "grid" and alignment.by != "grid":
            text = "It was to be aligned by its grid, but no two of its axes cross as in another model."
            problems[index].append(Problem("no-such-evidence", text))
    return Aligned(done, problems, _note_far_away(models, done, problems))


def _gap_m(one: Array, other: Array) -> float:
    """The distance between two boxes (2, 3), 0 where they meet."""
    return float(np.linalg.norm(np.maximum(0.0, np.maximum(one[0] - other[1], other[0] - one[1]))))


def _box(alignment: Alignment, own: Array) -> Array:
    corners = alignment.apply(
        np.array([[own[i, 0], own[j, 1], own[k, 2]] for i in (0, 1) for j in (0, 1) for k in (0, 1)])
    )
    return np.stack([corners.min(axis=0), corners.max(axis=0)])


def _note_far_away(models: Sequence[Outline], alignments: list[Alignment], problems: list[list[Problem]]) -> list[bool]:
    """Which models stand far from the building, with a problem each that says how far.

    The building is where those with map coordinates or a place set by hand stand, else where most components are, of
    those at heights at which buildings stand.
    """
    boxes = {i: _box(alignments[i], own) for i, m in enumerate(models) if (own := m.bounds_own_m) is not None}
    elsewhere = [False] * len(models)
    if len(boxes) < 2:
        return elsewhere
    near = {i: [j for j in boxes if _gap_m(boxes[i], boxes[j]) <= FAR_AWAY_M] for i in boxes}
    known = [i for i in boxes if alignments[i].by == "map"] or list(boxes)

    def weight(i: int) -> tuple[bool, int, int]:
        # However many components a damaged file has, nobody builds so deep or so high.
        low, high = boxes[i][:, 2]
        stands = bool(low >= LOWEST_M and high <= HIGHEST_M)
        return stands, sum(len(models[j].global_ids) for j in near[i]), -i

    bulk = near[max(known, key=weight)]
    for index in boxes.keys() - set(bulk):
        elsewhere[index] = True
        distance = min(_gap_m(boxes[index], boxes[j]) for j in bulk)
        problems[index].append(
            Problem(
                "far-away",
                f"It stands {distance:,.0f} m from the other models; give it the grid or the map conversion of the "
                "others, correct its site placement, or align it by hand.",
            )
        )
    return elsewhere
