"""The shortest distance between bodies and points, with the two points, and its parts along the axes."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.measuring.body import Body
from stairpath.core.measuring.loops.nearest import nearest, nearest_to, turns_around

Array = npt.NDArray[np.float64]
Vector = tuple[float, float, float]

_SAME_M = 1e-9


@dataclass(frozen=True)
class Distance:
    """How far one thing is from another, from which point to which; nothing where they share space or touch."""

    distance_m: float
    from_m: Vector
    to_m: Vector

    @property
    def along_m(self) -> Vector:
        """The way from one point to the other along the axes of the coordinates."""
        x, y, z = (b - a for a, b in zip(self.from_m, self.to_m, strict=True))
        return (x, y, z)

    @property
    def horizontal_m(self) -> float:
        """The way on plan."""
        return math.hypot(self.along_m[0], self.along_m[1])

    @property
    def rise_m(self) -> float:
        """The way up, below zero down."""
        return self.along_m[2]

    def turned(self) -> Distance:
        """The same distance the other way round."""
        return Distance(self.distance_m, self.to_m, self.from_m)

    def moved(self, by: Vector) -> Distance:
        """The same distance, shifted."""
        start, end = ((p[0] + by[0], p[1] + by[1], p[2] + by[2]) for p in (self.from_m, self.to_m))
        return Distance(self.distance_m, start, end)

    def along_building_m(self, north_deg: float) -> Vector:
        """The way along the building's own axes; ``north_deg`` is the bearing of its north from +Y, clockwise.

        >>> tuple(round(v, 6) for v in Distance(5, (0, 0, 0), (3, 4, 0)).along_building_m(90.0))
        (-4.0, 3.0, 0)
        """
        angle = math.radians(north_deg)
        x, y, z = self.along_m
        return (x * math.cos(angle) - y * math.sin(angle), x * math.sin(angle) + y * math.cos(angle), z)


def _vector(point: Array) -> Vector:
    x, y, z = (float(v) for v in point)
    return (x, y, z)


def holds(outer: Body, point: Array) -> bool:
    """Whether a point (3,) lies within a body: its triangles go round it. Of an open body, most of them do."""
    low, high = outer.bounds_m
    if (point < low).any() or (point > high).any():
        return False
    return bool(abs(turns_around(point, outer.corners)) > 0.5)


def _within(inner: Body, outer: Body) -> Array | None:
    """A point of a part of one body that lies within the other, or None where none does.

    Of a part that is clear of the other body's faces all points do or none.
    """
    for shell in inner.shells:
        point: Array = inner.points[inner.triangles[shell[0], 0]]
        if holds(outer, point):
            return point
    return None


def between(one: Body, other: Body, limit_m: float = math.inf) -> Distance | None:
    """The shortest distance between two bodies, nothing where one lies in the other; None beyond the limit."""
    squared, points = nearest(
        one.corners, one.tree, other.corners, other.tree, 0.0, limit_m * limit_m if math.isfinite(limit_m) else np.inf
    )
    if squared > _SAME_M**2:
        for inner, outer in ((one, other), (other, one)):
            point = _within(inner, outer)
            if point is not None:
                return Distance(0.0, _vector(point), _vector(point))
    if squared >= limit_m * limit_m:
        return None
    return Distance(math.sqrt(squared), _vector(points[0]), _vector(points[1]))


def from_point(point: Array, other: Body) -> Distance:
    """The shortest distance from a point (3,) to a body, nothing where it lies within."""
    point = np.asarray(point, dtype=np.float64)
    if holds(other, point):
        return Distance(0.0, _vector(point), _vector(point))
    squared, _, found = nearest_to(point, other.corners, other.tree, np.inf)
    return Distance(math.sqrt(squared), _vector(point), _vector(found))


def between_points(one: Array, other: Array) -> Distance:
    """The straight distance between two points (3,)."""
    a, b = np.asarray(one, dtype=np.float64), np.asarray(other, dtype=np.float64)
    return Distance(float(np.linalg.norm(b - a)), _vector(a), _vector(b))
