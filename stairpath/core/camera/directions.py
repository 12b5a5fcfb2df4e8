"""The 26 standard directions: six sides, and the edges and corners between them."""

from __future__ import annotations

import math
from dataclasses import dataclass

from stairpath.core.geometry.vectors import round_bearing

EDGE_TILT_DEG = 45.0
CORNER_TILT_DEG = math.degrees(math.atan(math.sqrt(0.5)))
"""Tilt at which a cube is seen along its diagonal, its three sides alike."""

# Sides as one walks round the building from its front with the building on the left hand,
# and how far the direction looked along has turned by then, clockwise from the front's.
_ROUND: tuple[tuple[str, float], ...] = (
    ("front", 0.0),
    ("front right", 315.0),
    ("right", 270.0),
    ("back right", 225.0),
    ("back", 180.0),
    ("back left", 135.0),
    ("left", 90.0),
    ("front left", 45.0),
)


@dataclass(frozen=True)
class Direction:
    """A standard direction: the side looked from, and the bearing and tilt looked along."""

    name: str
    bearing_deg: float
    tilt_deg: float


def standard(front_bearing_deg: float = 0.0) -> tuple[Direction, ...]:
    """All 26, for a front that is looked at along ``front_bearing_deg``.

    >>> [(d.name, d.bearing_deg, d.tilt_deg) for d in standard(10.0)[:2]]
    [('front', 10.0, 0.0), ('front right', 325.0, 0.0)]
    """
    found: list[Direction] = []
    for name, turn in _ROUND:
        bearing = round_bearing(front_bearing_deg + turn)
        tilt = CORNER_TILT_DEG if " " in name else EDGE_TILT_DEG
        found += [
            Direction(name, bearing, 0.0),
            Direction(f"{name}, from above", bearing, tilt),
            Direction(f"{name}, from below", bearing, -tilt),
        ]
    found.sort(key=lambda d: (d.tilt_deg != 0.0, d.tilt_deg < 0.0))
    front = round_bearing(front_bearing_deg)
    return (*found, Direction("above", front, 90.0), Direction("below", front, -90.0))


def nearest(bearing_deg: float, tilt_deg: float, front_bearing_deg: float = 0.0) -> Direction:
    """The standard direction that a direction of view is nearest to."""

    def along(bearing: float, tilt: float) -> tuple[float, float, float]:
        b, t = math.radians(bearing), math.radians(tilt)
        return math.sin(b) * math.cos(t), math.cos(b) * math.cos(t), -math.sin(t)

    look = along(bearing_deg, tilt_deg)
    return max(
        standard(front_bearing_deg),
        key=lambda d: sum(a * b for a, b in zip(look, along(d.bearing_deg, d.tilt_deg), strict=True)),
    )
