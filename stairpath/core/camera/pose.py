"""Where the eye is, where it looks, and through which lens."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

import numpy as np

from stairpath.core.geometry.vectors import Array, Vector

Projection = Literal["perspective", "parallel"]

FILM_WIDTH_MM = 36.0
INSIDE_ANGLE_DEG = 60.0
OUTSIDE_ANGLE_DEG = 30.0
SMALLEST_ANGLE_DEG = 1.0
LARGEST_ANGLE_DEG = 120.0


def focal_mm(angle_deg: float) -> float:
    """Focal length on a 36 mm wide frame for an angle of view across the width.

    >>> round(focal_mm(54.43), 1)
    35.0
    """
    return FILM_WIDTH_MM / (2.0 * math.tan(math.radians(angle_deg) / 2.0))


def angle_deg(focal_length_mm: float) -> float:
    """Angle of view across the width for a focal length on a 36 mm wide frame."""
    return math.degrees(2.0 * math.atan(FILM_WIDTH_MM / (2.0 * focal_length_mm)))


def check_angle(angle: float) -> None:
    """Raise ValueError with a sentence for an angle of view that no lens has."""
    if not SMALLEST_ANGLE_DEG <= angle <= LARGEST_ANGLE_DEG:
        raise ValueError(
            f"The angle of view must be between {SMALLEST_ANGLE_DEG:.0f} and {LARGEST_ANGLE_DEG:.0f} degrees."
        )


@dataclass(frozen=True)
class Pose:
    """A view. ``height_m`` is the height of a parallel view; it is kept in perspective too,
    as the height of what is seen at the target.
    """

    eye_m: Vector
    target_m: Vector
    up: Vector
    projection: Projection
    angle_deg: float
    height_m: float
    aspect: float


class NoSightError(ValueError):
    """An eye that looks nowhere; the message says what to do."""


def sight_axes(eye_m: Vector, target_m: Vector, up: Vector) -> tuple[Array, Array, Array]:
    """Unit vectors right, up and forward of an eye; NoSightError where it looks at itself, or along what is up."""
    forward = np.subtract(target_m, eye_m, dtype=np.float64)
    right = np.cross(forward, up)
    reach, side = float(np.linalg.norm(forward)), float(np.linalg.norm(right))
    if not (reach > 1e-9 and side > 1e-9 * reach):
        raise NoSightError("The eye looks at itself, or along what is up; look at something first.")
    forward, right = forward / reach, right / side
    return right, np.cross(right, forward), forward


def axes(bearing_deg: float, tilt_deg: float) -> tuple[Array, Array, Array]:
    """Unit vectors right, up and forward of a level camera.

    Bearing is the direction looked along, clockwise from +Y; tilt above zero looks down from
    above, 90 is plan (up is then the bearing).
    """
    b, t = math.radians(bearing_deg), math.radians(tilt_deg)
    right = np.array([math.cos(b), -math.sin(b), 0.0])
    forward = np.array([math.sin(b) * math.cos(t), math.cos(b) * math.cos(t), -math.sin(t)])
    return right, np.cross(right, forward), forward
