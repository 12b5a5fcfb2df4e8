"""The eye of a view, and what it sees where."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Annotated

from annotated_types import Ge, Le

from stairpath.core.camera.pose import Pose, Projection, sight_axes
from stairpath.core.geometry.vectors import Array, Vector
from stairpath.core.limits import WORLD_M, LensDeg

LEAST_HEIGHT_M = 1e-6
"""A parallel view is at least so high."""


@dataclass(frozen=True)
class Eye:
    """Where the eye is, where it looks, and through which lens; ``height_m`` is that of a parallel view."""

    eye_m: Vector
    target_m: Vector
    up: Vector
    projection: Projection
    angle_deg: LensDeg
    height_m: Annotated[float, Ge(LEAST_HEIGHT_M), Le(WORLD_M)]


def pose_of(eye: Eye, aspect: float) -> Pose:
    """An eye that looks through a frame of so many times its height in width."""
    return Pose(eye.eye_m, eye.target_m, eye.up, eye.projection, eye.angle_deg, eye.height_m, aspect)


def axes_of(eye: Eye) -> tuple[Array, Array, Array]:
    """Unit vectors right, up and forward of an eye; NoSightError where it looks at itself, or along what is up."""
    return sight_axes(eye.eye_m, eye.target_m, eye.up)


def height_at(eye: Eye, depth_m: float, aspect: float) -> float:
    """How high what is seen is at a depth, in metres; the angle is across the width."""
    if eye.projection == "parallel":
        return eye.height_m
    return 2 * depth_m * math.tan(math.radians(eye.angle_deg) / 2) / aspect


def vertical_deg(eye: Eye, aspect: float) -> float:
    """The angle of view from top to bottom."""
    return math.degrees(2 * math.atan(math.tan(math.radians(eye.angle_deg) / 2) / aspect))


def across_deg(vertical: float, aspect: float) -> float:
    """The angle across the width for one from top to bottom.

    >>> round(across_deg(60.0, 1.0), 9)
    60.0
    """
    return math.degrees(2 * math.atan(math.tan(math.radians(vertical) / 2) * aspect))
