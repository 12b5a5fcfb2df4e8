"""A cut through a building: the region of every component that a plane goes through."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import shapely

from stairpath.core.cutting.closing import GAP_M
from stairpath.core.cutting.outlines import section
from stairpath.core.cutting.regions import Regions, regions
from stairpath.core.federation.placed import Placed
from stairpath.core.geometry.plane import Plane


@dataclass(frozen=True)
class Cut:
    """A plane, and for each placed model what it goes through."""

    plane: Plane
    parts: tuple[Regions, ...]

    @property
    def area_m2(self) -> float:
        """All regions together; where components overlap, each counts."""
        return float(sum(part.areas_m2.sum() for part in self.parts))


def cut(parts: Sequence[Placed], plane: Plane, tolerance_m: float = GAP_M) -> Cut:
    """Cut what is meant of placed models. Lengths in metres, regions in the plane's own coordinates.

    >>> from stairpath.core.geometry.plane import level_plane
    >>> cut([], level_plane(1.2)).area_m2
    0.0
    """
    return Cut(
        plane,
        tuple(
            regions(section(p.geometry, plane.into @ p.to, p.wanted & plane.meets(p.bounds_m)), tolerance_m)
            for p in parts
        ),
    )


def rings_of(region: shapely.Geometry) -> list[tuple[bool, np.ndarray[tuple[int, int], np.dtype[np.float64]]]]:
    """A region's rings as points (n, 2) that are not repeated at the end, and whether each is a hole.

    Outer rings run counter-clockwise, holes clockwise.
    """
    out = []
    for part in shapely.get_parts(shapely.orient_polygons(region)):
        if part.geom_type != "Polygon":
            continue
        for hole, ring in [(False, part.exterior), *((True, r) for r in part.interiors)]:
            out.append((hole, shapely.get_coordinates(ring)[:-1]))
    return out
