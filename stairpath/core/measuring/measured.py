"""A measure between any two things: points or bodies."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from stairpath.core.measuring.body import Body
from stairpath.core.measuring.distance import Distance, between, between_points, from_point, holds
from stairpath.core.measuring.overlap import overlap

Array = npt.NDArray[np.float64]


def measured(start: Body | Array, end: Body | Array) -> tuple[Distance, bool]:
    """The shortest way from one point (3,) or body to another, and whether they share space.

    >>> found, shared = measured(np.zeros(3), np.array([3.0, 4.0, 0.0]))
    >>> found.distance_m, shared
    (5.0, False)
    """
    if isinstance(start, Body):
        if isinstance(end, Body):
            found = between(start, end)
            if found is None:
                raise AssertionError("without a limit there is always a distance")
            return found, found.distance_m == 0 and overlap(start, end) is not None
        return from_point(end, start).turned(), holds(start, end)
    if isinstance(end, Body):
        return from_point(start, end), holds(end, start)
    return between_points(start, end), False
