"""Areas on plan, and which points lie in them."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt
import shapely

Array = npt.NDArray[np.float64]


def area_of(triangles: Array) -> shapely.Geometry:
    """What triangles on plan (n, 3, 2) cover together; those without an area are left out."""
    parts = shapely.polygons(np.asarray(triangles, dtype=np.float64).reshape(-1, 3, 2))
    return shapely.union_all(parts[shapely.area(parts) > 0])


def lies_in(area: shapely.Geometry, points: Array) -> npt.NDArray[np.bool_]:
    """Which points (n, >=2) lie in an area on plan, its edges included."""
    inside: npt.NDArray[np.bool_] = shapely.intersects_xy(area, points[:, 0], points[:, 1])
    return inside
