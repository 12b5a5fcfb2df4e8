"""Volume of bodies by their triangles, and of what lies above a plane."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from stairpath.core.geometry.clipping import kept
from stairpath.core.geometry.plane import Plane

Array = npt.NDArray[np.float64]


def _under(corners: Array) -> Array:
    """Six times the signed volume between the origin and each triangle (n, 3, 3)."""
    out: Array = np.einsum("ij,ij->i", corners[:, 0], np.cross(corners[:, 1], corners[:, 2]))
    return out


def volume_m3(corners: Array) -> float:
    """Volume that triangles (n, 3, 3), counter-clockwise from outside, enclose.

    The sum of signed tetrahedra about one point (the divergence theorem); it is that of a closed body alone.
    """
    if not len(corners):
        return 0.0
    about = corners - corners.reshape(-1, 3).mean(axis=0)
    return abs(float(_under(about).sum())) / 6.0


def volume_above_m3(corners: Array, plane: Plane) -> float:
    """Volume of the part of a closed body (n, 3, 3) that lies on the side of the plane's normal.

    Tetrahedra are taken about a point of the plane, so that the cut face itself adds nothing.
    """
    turned = Plane(plane.point_m, (-plane.normal[0], -plane.normal[1], -plane.normal[2]))
    return abs(float(_under(kept(corners, [turned]) - plane.point_m).sum())) / 6.0
