"""Walk maps and routes as documents: coordinates of the project, components by what their reader knows them by."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numpy as np
import numpy.typing as npt

from stairpath.core.federation.federate import Federation
from stairpath.core.federation.levels import begins_m
from stairpath.core.geometry.axes import Axes
from stairpath.core.walking.blocked import Blocked
from stairpath.core.walking.pinches import Pinch
from stairpath.core.walking.route import Avoided, Other, Route
from stairpath.core.walking.walkmap import WalkMap

Array = npt.NDArray[np.float64]
Document = dict[str, Any]
Name = Callable[[int], Any]

_LEVEL_M = 0.02
"""Floors whose heights differ by no more are one."""
_LEAST_M2 = 0.25


def global_ids(federation: Federation) -> list[str]:
    """The GlobalId of every component, counted over all models."""
    return [global_id for model in federation.models for global_id in model.outline.global_ids]


def _point(axes: Axes, point: Array) -> list[float]:
    return [round(float(v), 4) for v in axes.to_project(point)]


def _pinch(axes: Axes, pinch: Pinch, name: Name) -> Document:
    return {
        "what": pinch.what,
        "size_m": round(pinch.size_m, 3),
        f"{pinch.what}_m": round(pinch.size_m, 3),
        "at_m": _point(axes, np.array(pinch.at)),
        "along_m": round(pinch.along_m, 3),
        "components": [name(c) for c in pinch.components],
    }


def route_document(found: Route | Blocked, axes: Axes, name: Name) -> Document:
    """A route, or why there is none; ``name`` says how a component is called there."""
    if isinstance(found, Blocked):
        return {
            "found": False, "length_m": None, "rise_m": None, "descent_m": None, "risers": None, "time_s": None,
            "points_m": [], "narrowest": None, "lowest": None, "pinches": [],
            "blocked": {
                "nearest_m": _point(axes, found.nearest),
                "components": [name(c) for c in found.components],
                "needs": found.needs,
                "kind": found.kind,
                "found_m": None if found.found is None else round(found.found, 3),
                "needed_m": None if found.needed is None else round(found.needed, 3),
            },
        }  # fmt: skip
    return {
        "found": True,
        "length_m": round(found.length_m, 3),
        "rise_m": round(found.rise_m, 3),
        "descent_m": round(found.descent_m, 3),
        "risers": found.risers,
        "time_s": round(found.time_s, 1),
        "points_m": np.round(axes.to_project(found.points), 4).tolist(),
        "narrowest": None if found.narrowest is None else _pinch(axes, found.narrowest, name),
        "lowest": None if found.lowest is None else _pinch(axes, found.lowest, name),
        "pinches": [_pinch(axes, pinch, name) for pinch in found.pinches],
        "blocked": None,
    }


def _avoided(axes: Axes, place: Avoided, name: Name) -> Document:
    return {
        "what": place.what,
        "size_m": None if place.size_m is None else round(place.size_m, 3),
        "at_m": _point(axes, np.array(place.at)),
        "components": [name(c) for c in place.components],
    }


def other_document(other: Other, axes: Axes, name: Name) -> Document:
    """Another way, and the tight place that it keeps away from."""
    return {"avoids": _avoided(axes, other.avoids, name), "answer": route_document(other.route, axes, name)}


def _floors(heights: Array, area_m2: float) -> list[Document]:
    """Heights of free cells as floors, from the lowest up; what is smaller than a quarter of a square metre is none."""
    ordered = np.sort(heights)
    groups = np.split(ordered, np.flatnonzero(np.diff(ordered) > _LEVEL_M) + 1) if len(ordered) else []
    return [
        {"level_m": round(float(np.median(group)), 3), "free_area_m2": round(len(group) * area_m2, 2)}
        for group in groups
        if len(group) * area_m2 >= _LEAST_M2
    ]


def walkmap_document(walk: WalkMap, federation: Federation, seconds: float) -> Document:
    """What is free to walk on each storey; a floor belongs to the highest storey that begins at it or below."""
    free = np.flatnonzero(walk.free)
    region = walk.region[free]
    sizes = np.bincount(region) if len(region) else np.zeros(0)
    area = walk.grid.cell_m**2
    free = free[sizes[region] * area >= _LEAST_M2] if len(region) else free
    heights = walk.height_m[free].astype(np.float64)
    starts = np.array([begins_m(level.elevation_m) for level in federation.levels])
    storey = np.maximum(np.searchsorted(starts, heights, side="right") - 1, 0)
    return {
        "cell_m": walk.grid.cell_m,
        "body": walk.body.name,
        "storeys": [
            {"name": level.name, "floors": _floors(heights[storey == k], area)}
            for k, level in enumerate(federation.levels)
        ],
        "bytes": walk.bytes,
        "seconds": round(seconds, 3),
    }
