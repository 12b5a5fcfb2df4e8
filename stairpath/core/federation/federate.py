"""Making one building out of models."""

from __future__ import annotations

import math
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np
import numpy.typing as npt

from stairpath.core.federation import alternatives, disciplines
from stairpath.core.federation.alignment import Alignment, Placement, align
from stairpath.core.federation.levels import Level, build_levels
from stairpath.core.federation.outliers import apart
from stairpath.core.federation.outline import Outline, around
from stairpath.core.geometry.plan import area_of, lies_in
from stairpath.core.problems import Problem

Array = npt.NDArray[np.float64]
NO_LEVEL = -1
NO_ROOM = -1
_TOUCH_M = 0.05
"""What is no farther from a room's floor or ceiling touches it."""
_BEYOND_M = 0.3
"""The floor of a room reaches under its walls so far, and not into the next room."""


class NoSuchStoreyError(LookupError):
    """The building has no storey of that name."""


@dataclass(frozen=True)
class RoomOnLevel:
    """A room of the building and the level it lies on."""

    model: int
    global_id: str
    number: str
    name: str
    level: int


@dataclass(frozen=True)
class FederatedModel:
    """A model in its place; columns run over its components."""

    outline: Outline
    alignment: Alignment
    discipline: str | None
    alternative: alternatives.Alternative | None
    stands: bool
    level: npt.NDArray[np.int32]
    discipline_of: npt.NDArray[np.int32]
    room: npt.NDArray[np.int32]
    bounds_m: Array
    problems: tuple[Problem, ...]
    apart: npt.NDArray[np.bool_]
    """Which components stand so far from the building that they are no part of it."""
    elsewhere: bool = False
    """Whether the whole model does."""


@dataclass(frozen=True)
class Federation:
    """One building: its models, levels and rooms in project coordinates."""

    models: tuple[FederatedModel, ...]
    levels: tuple[Level, ...]
    rooms: tuple[RoomOnLevel, ...]
    origin_m: tuple[float, float, float]
    bounds_m: Array | None
    building_north_deg: float
    true_north_deg: float | None


def _origin(bounds: Array | None) -> tuple[float, float, float]:
    """Whole metres near the middle of the building on plan; heights are kept."""
    if bounds is None:
        return (0.0, 0.0, 0.0)
    middle = np.round(bounds.mean(axis=0))
    return (float(middle[0]), float(middle[1]), 0.0)


def bearing_deg(x: float, y: float) -> float:
    """Bearing of a direction on plan, clockwise from +Y, from 0 up to 360."""
    return math.degrees(math.atan2(x, y)) % 360.0


def building_north(models: Sequence[Outline], alignments: Sequence[Alignment]) -> float:
    """Bearing of the building's own north: the grid direction nearest to +Y, else the placement's y.

    Returned between -45 and +45 degrees from +Y (clockwise positive).
    """
    for model, alignment in zip(models, alignments, strict=True):
        for axis in model.grid_axes:
            x, y = axis.end_m[0] - axis.start_m[0], axis.end_m[1] - axis.start_m[1]
            turned = bearing_deg(x, y) - alignment.rotation_deg
            return (turned + 45.0) % 90.0 - 45.0
    if alignments:
        return (-alignments[0].rotation_deg + 45.0) % 90.0 - 45.0
    return 0.0


def true_north(models: Sequence[Outline], alignments: Sequence[Alignment]) -> float | None:
    """Bearing of true north in project coordinates, by the first model that says."""
    for model, alignment in zip(models, alignments, strict=True):
        if model.true_north is not None:
            turned = bearing_deg(*model.true_north) - alignment.rotation_deg
            return (turned + 180.0) % 360.0 - 180.0
    return None


def _rooms_of(bounds: Array, models: Sequence[Outline], alignments: Sequence[Alignment]) -> npt.NDArray[np.int32]:
    """The room, counted over all models, to which each component belongs by its bounds (n, 2, 3); -1 for none.

    That is the room in which its middle lies; else the one whose floor or ceiling it is: that lies under or over the
    room, touches it, and reaches no farther than the room does.
    """
    middles = bounds.mean(axis=1)
    inside = np.full(len(bounds), NO_ROOM, dtype=np.int32)
    bounding = inside.copy()
    number = 0
    known = ~np.isnan(middles).any(axis=1)
    for model, alignment in zip(models, alignments, strict=True):
        for space in model.rooms:
            low, high = space.low_m + alignment.shift_m[2], space.high_m + alignment.shift_m[2]
            within = (middles[:, 2] > low - _TOUCH_M) & (middles[:, 2] < high + _TOUCH_M)
            under, over = np.abs(bounds[:, 1, 2] - low) < _TOUCH_M, np.abs(bounds[:, 0, 2] - high) < _TOUCH_M
            candidates = np.flatnonzero(known & (inside == NO_ROOM) & (within | under | over))
            if len(candidates):
                floor = np.concatenate([space.floor, np.zeros((*space.floor.shape[:2], 1))], axis=-1)
                corners = alignment.apply(floor)[..., :2]
                hit = candidates[lies_in(area_of(corners), middles[candidates])]
                inside[hit[within[hit]]] = number
                ends = corners.reshape(-1, 2)
                reach = np.array([ends.min(axis=0) - _BEYOND_M, ends.max(axis=0) + _BEYOND_M])
                inner = ((bounds[hit, 0, :2] > reach[0]) & (bounds[hit, 1, :2] < reach[1])).all(axis=1)
                # What lies between two rooms is the floor of the upper one.
                bounding[hit[inner & (under[hit] | (over[hit] & (bounding[hit] == NO_ROOM)))]] = number
            number += 1
    return np.where(inside == NO_ROOM, bounding, inside)


def _with_apart(models: list[FederatedModel]) -> list[FederatedModel]:
    """The models with those components marked, and named as a problem, that stand far from the building."""
    here = [m for m in models if not m.elsewhere]
    if not here:
        return models
    marked = apart(np.concatenate([m.bounds_m for m in here]))
    if not marked.any():
        return models
    parts = iter(np.split(marked, np.cumsum([len(m.bounds_m) for m in here])[:-1]))
    out: list[FederatedModel] = []
    for model in models:
        own = np.ones(len(model.bounds_m), dtype=bool) if model.elsewhere else next(parts)
        if model.elsewhere or not own.any():
            out.append(replace(model, apart=own))
            continue
        names = tuple(model.outline.global_ids[k] for k in np.flatnonzero(own))
        which = "One component stands or reaches" if len(names) == 1 else f"{len(names)} components stand or reach"
        text = f"{which} over 1 km from the building; left out of fits, plans and walking."
        out.append(replace(model, apart=own, problems=(*model.problems, Problem("apart", text, names))))
    return out


def federate(
    models: Sequence[Outline],
    discipline_rules: dict[str, str] | None = None,
    chosen: Collection[str] = (),
    placements: Mapping[str, Placement] | None = None,
) -> Federation:
    """Align models, build levels, and place every component.

    ``discipline_rules`` overrules a model's discipline by its name, ``placements`` its alignment; ``chosen``
    names the alternatives that a user wants to stand.
    """
    aligned = align(models, placements)
    levels = build_levels(models, aligned.alignments)
    stands = alternatives.standing([m.name for m in models], chosen)
    out: list[FederatedModel] = []
    rooms: list[RoomOnLevel] = []
    for index, model in enumerate(models):
        alignment = aligned.alignments[index]
        bounds = model.geometry.bounds(len(model.global_ids), alignment.matrix)
        code = (discipline_rules or {}).get(model.name) or disciplines.by_file_name(model.name)
        codes = [
            code or disciplines.by_class_and_system(cls, type_cls, systems)
            for cls, type_cls, systems in zip(model.classes, model.type_classes, model.systems, strict=True)
        ]
        storey_level = levels.index_of[index]
        out.append(
            FederatedModel(
                outline=model,
                alignment=alignment,
                discipline=code,
                alternative=alternatives.by_file_name(model.name),
                stands=stands[index],
                level=np.array([storey_level.get(s or "", NO_LEVEL) for s in model.component_storeys], dtype=np.int32),
                discipline_of=np.array([disciplines.CODES.index(c) for c in codes], dtype=np.int32),
                room=_rooms_of(bounds, models, aligned.alignments),
                bounds_m=bounds,
                problems=(*model.problems, *aligned.problems[index], *levels.problems[index]),
                apart=np.full(len(codes), aligned.elsewhere[index]),
                elsewhere=aligned.elsewhere[index],
            )
        )
        rooms.extend(
            RoomOnLevel(index, r.global_id, r.number, r.name, storey_level.get(r.storey or "", NO_LEVEL))
            for r in model.rooms
        )
    out = _with_apart(out)
    near = [m.bounds_m[~m.apart] for m in out]
    return Federation(
        models=tuple(out),
        levels=tuple(levels.levels),
        rooms=tuple(rooms),
        origin_m=_origin(around(np.concatenate(near)) if near else None),
        bounds_m=around(np.concatenate([m.bounds_m for m in out])) if out else None,
        building_north_deg=building_north(models, aligned.alignments),
        true_north_deg=true_north(models, aligned.alignments),
    )


def level_named(federation: Federation, name: str) -> int:
    """The level of a name, with or without the word level; raises NoSuchStoreyError with those there are."""

    def plain(text: str) -> str:
        return text.casefold().removeprefix("level").strip()

    for index, level in enumerate(federation.levels):
        if plain(level.name) == plain(name):
            return index
    there = ", ".join(level.name for level in federation.levels) or "none"
    raise NoSuchStoreyError(f"There is no storey {name}; the building has {there}.")
