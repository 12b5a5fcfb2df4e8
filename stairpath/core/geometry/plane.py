"""Planes that cut: where they lie, which side is looked at, and coordinates in them."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]
Vector = tuple[float, float, float]

_LEAST = 1e-9
_UPRIGHT = 1e-9
"""Less than this of the plane's normal on the level counts as none: the plane is level."""


class NotAPlaneError(ValueError):
    """What is given makes no plane; the message says what to give."""


@dataclass(frozen=True)
class Plane:
    """A plane through a point; its normal, of length one, points to the side that is taken away and looked from."""

    point_m: Vector
    normal: Vector

    @cached_property
    def axes(self) -> Array:
        """Across, up and towards the viewer, as rows (3, 3): right-handed.

        Up in the plane is as near to the building's up as it can be; in a level plane it is +Y.

        >>> Plane((0.0, 0.0, 0.0), (0.0, -1.0, 0.0)).axes.tolist()
        [[1.0, 0.0, 0.0], [0.0, 0.0, 1.0], [0.0, -1.0, 0.0]]
        """
        normal = np.array(self.normal)
        if math.hypot(normal[0], normal[1]) < _UPRIGHT:
            across = np.array([math.copysign(1.0, normal[2]), 0.0, 0.0])
        else:
            across = np.array([-normal[1], normal[0], 0.0]) / math.hypot(normal[0], normal[1])
        return np.array([across, np.cross(normal, across), normal]) + 0.0

    @cached_property
    def into(self) -> Array:
        """The matrix (4, 4) that brings project coordinates to those of the plane, its third the height above it."""
        matrix = np.eye(4)
        matrix[:3, :3] = self.axes
        matrix[:3, 3] = -self.axes @ np.array(self.point_m)
        return matrix

    def moved(self, by: Array) -> Plane:
        """The plane shifted."""
        x, y, z = (p + b for p, b in zip(self.point_m, by.tolist(), strict=True))
        return Plane((x, y, z), self.normal)

    def about(self, point: Array) -> Plane:
        """The same plane, its own coordinates counted from the foot of a point (3,)."""
        x, y, z = (np.asarray(point) - float(self.heights(point)) * np.array(self.normal)).tolist()
        return Plane((x, y, z), self.normal)

    def heights(self, points: Array) -> Array:
        """How far points (..., 3) lie above the plane, below zero for those beneath."""
        out: Array = (np.asarray(points) - self.point_m) @ np.array(self.normal)
        return out

    def placed(self, flat: Array) -> Array:
        """Points (..., 2) of the plane in project coordinates."""
        out: Array = np.asarray(flat) @ self.axes[:2] + self.point_m
        return out

    def meets(self, bounds_m: Array) -> npt.NDArray[np.bool_]:
        """Which boxes (n, 2, 3) the plane goes through; boxes of NaN are met by none."""
        with np.errstate(invalid="ignore"):
            middle, half = bounds_m.mean(axis=1), (bounds_m[:, 1] - bounds_m[:, 0]) / 2
            hit: npt.NDArray[np.bool_] = np.abs(self.heights(middle)) <= half @ np.abs(self.normal) + _LEAST
        return hit


def plane(point: Vector, normal: Vector) -> Plane:
    """A plane through a point with a normal of any length; raises NotAPlaneError."""
    if not np.isfinite([*point, *normal]).all():
        raise NotAPlaneError("A plane is given by finite numbers; give a point and a normal.")
    length = math.hypot(*normal)
    if length < _LEAST:
        raise NotAPlaneError("The plane's normal has no length; give three numbers that are not all zero.")
    x, y, z = (float(v) / length + 0.0 for v in normal)
    return Plane((float(point[0]), float(point[1]), float(point[2])), (x, y, z))


def level_plane(height_m: float) -> Plane:
    """The level plane at a height, seen from above."""
    return Plane((0.0, 0.0, float(height_m)), (0.0, 0.0, 1.0))


def upright_plane(start: tuple[float, float], bearing_deg: float) -> Plane:
    """The upright plane through a point on plan that is looked at along a bearing, clockwise from +Y.

    >>> upright_plane((0.0, 5.0), 0.0).normal
    (0.0, -1.0, 0.0)
    """
    angle = math.radians(bearing_deg)
    return plane((start[0], start[1], 0.0), (-math.sin(angle), -math.cos(angle), 0.0))


def through_points(a: Vector, b: Vector, c: Vector) -> Plane:
    """The plane through three points; its normal looks up, or where it is upright, as the points go round.

    Raises NotAPlaneError where they lie on one line.
    """
    one, two = np.subtract(b, a), np.subtract(c, a)
    normal = np.cross(one, two)
    if np.linalg.norm(normal) < 1e-6 * max(1e-6, float(np.linalg.norm(one) * np.linalg.norm(two))):
        raise NotAPlaneError("The three points are on one line. Choose a point off that line.")
    if normal[2] < 0:
        normal = -normal
    return plane(a, (float(normal[0]), float(normal[1]), float(normal[2])))
