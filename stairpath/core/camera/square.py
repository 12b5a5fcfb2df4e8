"""Looking straight at something: a picked face, a grid line, an elevation."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from stairpath.core.camera.pose import Pose
from stairpath.core.geometry.vectors import Array, Vector, round_bearing, vector

_FLAT_TILT_DEG = 89.9
OPENED_M = 0.1
"""So far before the plane at which it is opened the eye of a parallel view stands."""
_LEAST_REACH_M = 1.0


def onto_face(normal: Vector, bearing_deg: float = 0.0) -> tuple[float, float]:
    """Bearing and tilt that look square onto a face, against its outward normal.

    A floor or a ceiling has no bearing of its own; ``bearing_deg``, the present one, is kept.

    >>> onto_face((0.0, -1.0, 0.0))
    (0.0, 0.0)
    """
    x, y, z = normal
    length = math.sqrt(x * x + y * y + z * z)
    if length < 1e-12:
        raise ValueError("This face has no direction. Select another one.")
    tilt = math.degrees(math.asin(max(-1.0, min(1.0, z / length))))
    if abs(tilt) > _FLAT_TILT_DEG:
        return round_bearing(bearing_deg), math.copysign(90.0, tilt)
    return round_bearing(math.degrees(math.atan2(-x, -y))) + 0.0, tilt + 0.0


def along_axis(start: tuple[float, float], end: tuple[float, float], bearing_deg: float = 0.0) -> float:
    """Bearing that looks square onto the upright plane of a grid line, from the side one is on.

    ``bearing_deg`` is the present bearing; of the two sides the one that needs less turning is taken.
    """
    x, y = end[0] - start[0], end[1] - start[1]
    if math.hypot(x, y) < 1e-9:
        raise ValueError("This grid line has no length. Select another one.")
    square = math.degrees(math.atan2(x, y)) + 90.0
    turned = (bearing_deg - square + 180.0) % 360.0 - 180.0
    return round_bearing(square if abs(turned) <= 90.0 else square + 180.0)


def opened_at(pose: Pose, point: Array) -> tuple[Pose, float]:
    """A parallel view that looks through all that lies before a point (3,), and how deep that is before its eye.

    A parallel view is the same from anywhere along its line of sight, so the eye comes to stand right before the
    plane at which it is opened: what asks for the eye's storey or room is answered by what is seen.
    """
    eye, target = np.array(pose.eye_m), np.array(pose.target_m)
    reach = float(np.linalg.norm(target - eye))
    forward = (target - eye) / reach
    opened = eye + forward * (float((point - eye) @ forward) - OPENED_M)
    ahead = max(_LEAST_REACH_M, float((target - opened) @ forward))
    return replace(pose, eye_m=vector(opened), target_m=vector(opened + forward * ahead)), OPENED_M
