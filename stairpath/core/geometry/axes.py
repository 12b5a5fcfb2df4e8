"""The building's own axes, in which a walk map lies: its walls then run along the cells."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]


@dataclass(frozen=True)
class Axes:
    """Axes about an origin in project coordinates, y towards ``bearing_deg`` (clockwise from +Y), z up.

    >>> Axes((100.0, 200.0, 0.0), 90.0).to_own(np.array([[101.0, 200.0, 3.0]])).round(9).tolist()
    [[0.0, 1.0, 3.0]]
    """

    origin_m: tuple[float, float, float] = (0.0, 0.0, 0.0)
    bearing_deg: float = 0.0

    @property
    def turn(self) -> Array:
        """Rotation (3, 3) from own directions to those of the project."""
        t = math.radians(self.bearing_deg)
        return np.array([[math.cos(t), math.sin(t), 0.0], [-math.sin(t), math.cos(t), 0.0], [0.0, 0.0, 1.0]])

    def to_own(self, points: Array) -> Array:
        """Points (..., 3) in project coordinates as own ones."""
        own: Array = (points - np.array(self.origin_m)) @ self.turn
        return own

    def to_project(self, points: Array) -> Array:
        """Own points (..., 3) in project coordinates."""
        there: Array = points @ self.turn.T + np.array(self.origin_m)
        return there
