"""Cuts as somebody sets them: a plane, a band between two, a box of six; and the half-spaces that they leave."""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Annotated, Literal

import numpy as np
import numpy.typing as npt
from annotated_types import Ge, Le

from stairpath.core.geometry.plane import NotAPlaneError, Plane, Vector, plane
from stairpath.core.limits import BY_KIND, Key, NameOrNone

LEAST_M = 0.001
"""A band or a box is at least so thick."""
MOST_PLANES = 24
"""So many planes cut a view at once: as many as are drawn."""
Thickness = Annotated[float, Ge(LEAST_M), Le(1e6)]


@dataclass(frozen=True)
class PlaneCut:
    """All on the side that the normal points to is taken away."""

    point_m: Vector
    normal: Vector
    kind: Literal["plane"] = "plane"


@dataclass(frozen=True)
class BandCut:
    """What lies between a plane and another so far below it, against its normal, is left."""

    point_m: Vector
    normal: Vector
    thick_m: Thickness
    kind: Literal["band"] = "band"


@dataclass(frozen=True)
class BoxCut:
    """What lies in an upright box is left; its second side runs along a bearing, clockwise from +Y."""

    centre_m: Vector
    size_m: tuple[Thickness, Thickness, Thickness]
    bearing_deg: Annotated[float, Ge(-360), Le(360)] = 0.0
    kind: Literal["box"] = "box"


Shape = Annotated[PlaneCut | BandCut | BoxCut, BY_KIND]


@dataclass(frozen=True)
class Cut:
    """A cut with a key of its own in its view; one that is off is kept and cuts nothing."""

    id: Key
    shape: Shape
    name: NameOrNone = ""
    off: bool = False


def _box_planes(box: BoxCut) -> list[Plane]:
    angle = math.radians(box.bearing_deg)
    east, north = (math.cos(angle), -math.sin(angle), 0.0), (math.sin(angle), math.cos(angle), 0.0)
    found = []
    for axis, size in zip((east, north, (0.0, 0.0, 1.0)), box.size_m, strict=True):
        if not size >= LEAST_M:
            raise NotAPlaneError("A cut box is at least 1 mm long, wide and high; make it larger.")
        for sign in (1.0, -1.0):
            way = (axis[0] * sign, axis[1] * sign, axis[2] * sign)
            x, y, z = (c + w * size / 2 for c, w in zip(box.centre_m, way, strict=True))
            found.append(plane((x, y, z), way))
    return found


def planes_of(shape: Shape) -> list[Plane]:
    """The planes of a cut; what lies on the side of a normal is taken away. Raises NotAPlaneError.

    >>> [p.normal for p in planes_of(BandCut((0.0, 0.0, 3.0), (0.0, 0.0, 1.0), 0.5))]
    [(0.0, 0.0, 1.0), (0.0, 0.0, -1.0)]
    """
    if isinstance(shape, BoxCut):
        return _box_planes(shape)
    first = plane(shape.point_m, shape.normal)
    if isinstance(shape, PlaneCut):
        return [first]
    if not shape.thick_m >= LEAST_M:
        raise NotAPlaneError("A band is at least 1 mm thick; make it thicker.")
    x, y, z = (p - n * shape.thick_m for p, n in zip(first.point_m, first.normal, strict=True))
    nx, ny, nz = first.normal
    return [first, plane((x, y, z), (-nx, -ny, -nz))]


def active_planes(cuts: Sequence[Cut]) -> list[tuple[Cut, Plane]]:
    """The planes of all cuts that are on, each with its cut."""
    return [(cut, each) for cut in cuts if not cut.off for each in planes_of(cut.shape)]


_PLANES = {"plane": 1, "band": 2, "box": 6}


def too_many_planes(cuts: Iterable[tuple[Literal["plane", "band", "box"], bool]]) -> str:
    """Why cuts, each by its kind and whether it is off, are too many at once; empty where they are not.

    >>> too_many_planes([("box", False)] * 4 + [("box", True)]), too_many_planes([("box", False)] * 5)[:23]
    ('', 'The cuts have 30 planes')
    """
    count = sum(_PLANES[kind] for kind, off in cuts if not off)
    if count <= MOST_PLANES:
        return ""
    return f"The cuts have {count} planes and at most {MOST_PLANES} cut at once. Switch one off or remove it."


class NothingToBoxError(ValueError):
    """There are no points to put a cut box around."""


def box_around(points: npt.NDArray[np.float64], bearing_deg: float, margin_m: float) -> BoxCut:
    """The cut box around points (n, 3) that is turned to a bearing, with a margin on all sides.

    >>> box_around(np.array([[0.0, 0.0, 0.0], [2.0, 4.0, 3.0]]), 0.0, 0.5).size_m
    (3.0, 5.0, 4.0)
    """
    if not len(points):
        raise NothingToBoxError("There is nothing to put a box around. Select or show something first.")
    angle = math.radians(bearing_deg)
    turn = np.array([[math.cos(angle), -math.sin(angle), 0], [math.sin(angle), math.cos(angle), 0], [0, 0, 1.0]])
    own = points @ turn.T
    low, high = own.min(axis=0) - margin_m, own.max(axis=0) + margin_m
    x, y, z = ((low + high) / 2 @ turn).tolist()
    length, width, height = np.maximum(high - low, LEAST_M).tolist()
    return BoxCut((x, y, z), (length, width, height), bearing_deg)
