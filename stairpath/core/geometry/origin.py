"""Coordinates of the project, and those about the origin of a federation that the browser counts from.

Projects lie far from their zero: what is drawn is counted from an origin near the building, in double precision.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import numpy.typing as npt

Array = npt.NDArray[np.float64]
Points = npt.ArrayLike


def about(points_m: Points, origin_m: Sequence[float] | Array) -> Array:
    """Points (..., 2) or (..., 3) of the project, counted from an origin.

    >>> about([[412_300.5, 88_650.0, 4.0]], (412_300.0, 88_650.0, 0.0)).tolist()
    [[0.5, 0.0, 4.0]]
    """
    points = np.asarray(points_m, dtype=np.float64)
    out: Array = points - np.asarray(origin_m, dtype=np.float64)[: points.shape[-1]]
    return out


def in_project(points_m: Points, origin_m: Sequence[float] | Array) -> Array:
    """Points (..., 2) or (..., 3) counted from an origin, in the project's coordinates.

    >>> in_project((0.5, 0.0, 4.0), (412_300.0, 88_650.0, 0.0)).tolist()
    [412300.5, 88650.0, 4.0]
    """
    points = np.asarray(points_m, dtype=np.float64)
    out: Array = points + np.asarray(origin_m, dtype=np.float64)[: points.shape[-1]]
    return out


def placed_about(matrix: Points, origin_m: Sequence[float] | Array) -> Array:
    """A placement (4, 4) in the project, so that it leads to coordinates about an origin."""
    out = np.array(matrix, dtype=np.float64)
    out[:3, 3] = about(out[:3, 3], origin_m)
    return out
