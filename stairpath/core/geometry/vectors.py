"""Points, directions and bearings as plain figures."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from stairpath.core.limits import Coordinate

Array = npt.NDArray[np.float64]
Vector = tuple[Coordinate, Coordinate, Coordinate]


def round_bearing(bearing_deg: float) -> float:
    """A bearing from 0 up to, and not including, 360 degrees.

    >>> round_bearing(-90.0)
    270.0
    """
    turned = bearing_deg % 360.0
    return 0.0 if turned == 360.0 else turned  # as the remainder of a tiny figure below zero is


def vector(values: Array) -> Vector:
    """Three figures of an array as a plain tuple."""
    return float(values[0]), float(values[1]), float(values[2])
