"""What a file draws its components in: map conversion, north, storeys and grid axes."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import partial
from typing import Any, TypeVar

import ifcopenshell.util.placement
import numpy as np

from stairpath.core.problems import Problem
from stairpath.core.reading.georeference import map_conversion
from stairpath.core.reading.model import GridAxis, MapConversion, Storey
from stairpath.core.reading.relations import clean
from stairpath.core.reading.validate import ON_EARTH_M, finite

T = TypeVar("T")


def placement_m(entity: Any, scale: float) -> np.ndarray[tuple[int, int], np.dtype[np.float64]]:
    """An object's placement as a 4 x 4 matrix in metres; identity where it has none."""
    placement = getattr(entity, "ObjectPlacement", None)
    matrix = np.eye(4) if placement is None else np.array(ifcopenshell.util.placement.get_local_placement(placement))
    matrix[:3, 3] *= scale
    return matrix


def _storey(entity: Any, scale: float) -> Storey:
    height: float | None = None
    if entity.ObjectPlacement is not None:
        height = finite(float(placement_m(entity, scale)[2, 3]))
    if height is None or abs(height) > ON_EARTH_M:
        height = (finite(entity.Elevation) or 0.0) * scale
        height = height if abs(height) <= ON_EARTH_M else 0.0
    return Storey(clean(entity.GlobalId), clean(entity.Name or entity.LongName or "unnamed"), height)


def true_north(ifc: Any) -> tuple[float, float] | None:
    """The direction of true north on plan in the file's own axes, if it says."""
    for context in ifc.by_type("IfcGeometricRepresentationContext", include_subtypes=False):
        if context.TrueNorth is not None:
            x, y = context.TrueNorth.DirectionRatios[:2]
            size = math.hypot(x, y)
            return (x / size, y / size) if size and math.isfinite(size) else None
    return None


def _axis(
    grid: Any, matrix: np.ndarray[tuple[int, int], np.dtype[np.float64]], axis: Any, scale: float
) -> GridAxis | None:
    """A straight axis with a tag, on plan; None for one that is not."""
    curve = axis.AxisCurve
    if not axis.AxisTag or not curve.is_a("IfcPolyline") or len(curve.Points) < 2:
        return None
    ends = []
    for point in (curve.Points[0], curve.Points[-1]):
        own = np.array([*point.Coordinates, 0.0, 0.0])[:3] * scale
        at = matrix @ np.array([own[0], own[1], own[2], 1.0])
        ends.append((float(at[0]), float(at[1])))
    if not (np.abs(ends) <= ON_EARTH_M).all():
        return None
    if not axis.SameSense:
        ends.reverse()
    return GridAxis(clean(grid.Name or ""), clean(axis.AxisTag), ends[0], ends[1])


@dataclass(frozen=True)
class Drawing:
    """What a file draws its components in; storeys from the lowest up, axes on plan, in metres."""

    storeys: tuple[Storey, ...]
    grid_axes: tuple[GridAxis, ...]
    map_conversion: MapConversion | None
    true_north: tuple[float, float] | None


def drawing(ifc: Any, scale: float) -> tuple[Drawing, list[Problem]]:
    """Storeys, grid axes, map conversion and north; what cannot be read is left out and counted."""
    lost = 0

    def tried(read: Callable[[], T]) -> T | None:
        nonlocal lost
        try:
            return read()
        except Exception:  # a placement in a circle, an attribute of another type
            lost += 1
            return None

    storeys = [tried(partial(_storey, entity, scale)) for entity in ifc.by_type("IfcBuildingStorey")]
    axes: list[GridAxis | None] = []
    for grid in ifc.by_type("IfcGrid"):
        matrix = tried(partial(placement_m, grid, scale))
        if matrix is None:
            continue
        for axis in (*(grid.UAxes or ()), *(grid.VAxes or ()), *(grid.WAxes or ())):
            axes.append(tried(partial(_axis, grid, matrix, axis, scale)))
    conversion, problems = map_conversion(ifc, scale)
    north = tried(lambda: true_north(ifc))
    if lost:
        which = "One storey or grid axis" if lost == 1 else f"{lost} storeys and grid axes"
        problems.append(Problem("broken-frame", f"{which} could not be read; they are missing."))
    found = sorted((s for s in storeys if s is not None), key=lambda storey: storey.elevation_m)
    return Drawing(tuple(found), tuple(a for a in axes if a is not None), conversion, north), problems
