"""Looking straight at something: a picked face, a grid line, an elevation."""

from __future__ import annotations

import math

from stairpath.core.camera.pose import Vector, round_bearing

_FLAT_TILT_DEG = 89.9


def onto_face(normal: Vector, bearing_deg: float = 0.0) -> tuple[float, float]:
    """Bearing and tilt that look square onto a face, against its outward normal.

    A floor or a ceiling has no bearing of its own; ``bearing_deg``, the present one, is kept.

    >>> onto_face((0.0, -1.0, 0.0))
    (0.0, 0.0)
    """
    x, y, z = normal
    length = math.sqrt(x * x + y * y + z * z)
    if length < 1e-12:
        raise ValueError("A face without a direction cannot be looked at; pick another.")
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
        raise ValueError("A grid line without length cannot be looked at; pick another.")
    square = math.degrees(math.atan2(x, y)) + 90.0
    turned = (bearing_deg - square + 180.0) % 360.0 - 180.0
    return round_bearing(square if abs(turned) <= 90.0 else square + 180.0)
