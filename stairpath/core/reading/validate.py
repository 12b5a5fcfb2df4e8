"""Coordinates that cannot be: not finite, or so far from the rest that no building has them."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import numpy.typing as npt

from stairpath.core.reading.model import Geometry, Shape

FARTHEST_M = 100_000.0
"""From the bulk of its model; what is farther is left out of bounds, meshes and maps."""

ON_EARTH_M = 1e8
"""No coordinate of a map and no height is larger."""
_NO_MEASURE = 1e290

Array = npt.NDArray[np.float64]
Mask = npt.NDArray[np.bool_]


def finite(value: object) -> float | None:
    """A number as a float if it is one that means something, else None."""
    if isinstance(value, bool) or not isinstance(value, (int, float)):
        return None
    return float(value) if math.isfinite(value) and abs(value) < _NO_MEASURE else None


def sound_triangles(vertices: Array, triangles: npt.NDArray[np.int32]) -> tuple[Array, npt.NDArray[np.bool_]]:
    """Vertices (n, 3) with those that cannot be moved to the others' middle, and the triangles (m,) without them."""
    good: Mask = np.asarray(np.isfinite(vertices).all(axis=1))
    if good.any():
        middle = np.median(vertices[good], axis=0)
        # Beyond twice the limit from the middle of its own shape it is beyond the limit from any bulk.
        off = np.abs(np.where(good[:, None], vertices, middle) - middle)
        good = np.asarray(good & (off <= 2.0 * FARTHEST_M).all(axis=1))
    else:
        middle = np.zeros(3)
    if good.all():
        return vertices, np.ones(len(triangles), dtype=bool)
    return np.where(good[:, None], vertices, middle), np.asarray(good[triangles].all(axis=1))


def _boxes(geometry: Geometry) -> Array:
    """Bounds (k, 2, 3) of every placed shape."""
    return np.array(
        [
            [points.min(axis=0), points.max(axis=0)]
            for points in (geometry.points_of(placed) for placed in range(len(geometry.owner)))
        ]
    ).reshape(-1, 2, 3)


def _near_only(geometry: Geometry, placed: int, middle: Array) -> Shape:
    """The triangles of a placed shape that are near enough."""
    shape = geometry.shapes[geometry.shape[placed]]
    near: Mask = np.asarray((np.abs(geometry.points_of(placed) - middle) <= FARTHEST_M).all(axis=1))
    keep = near[shape.triangles].all(axis=1)
    centre = shape.vertices[near].mean(axis=0) if near.any() else np.zeros(3)
    vertices = np.where(near[:, None], shape.vertices, centre).astype(np.float32)
    return Shape(vertices, shape.triangles[keep], shape.paints[keep])


def without_far(geometry: Geometry) -> tuple[Geometry, frozenset[int]]:
    """A geometry without what lies farther than 100 km from the bulk of its model, and whose that was.

    The bulk is the median of the middles of all placed shapes.
    """
    if not len(geometry.owner):
        return geometry, frozenset()
    boxes = _boxes(geometry)
    middle = np.median(boxes.mean(axis=1), axis=0)
    far = np.flatnonzero((np.abs(boxes - middle) > FARTHEST_M).any(axis=(1, 2)))
    if not len(far):
        return geometry, frozenset()
    shapes, number = list(geometry.shapes), geometry.shape.copy()
    keep = np.ones(len(number), dtype=bool)
    for placed in far:
        cut = _near_only(geometry, int(placed), middle)
        keep[placed] = len(cut.triangles) > 0
        number[placed] = len(shapes)
        shapes.append(cut)
    unsound = frozenset(geometry.owner[far].tolist())
    return (
        replace(
            geometry, shapes=tuple(shapes), owner=geometry.owner[keep], shape=number[keep], matrix=geometry.matrix[keep]
        ),
        unsound,
    )
