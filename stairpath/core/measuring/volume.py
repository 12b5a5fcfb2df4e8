"""Volume of bodies by their triangles, and of what lies above a plane."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from stairpath.core.cutting.plane import Plane

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
    if not len(corners):
        return 0.0
    local = corners @ plane.axes.T + plane.into[:3, 3]
    height = local[..., 2]
    above = height > 0
    count = above.sum(axis=1)
    total = float(_under(local[count == 3]).sum())
    for lone in (1, 2):
        some = count == lone
        part, high = local[some], above[some]
        if not len(part):
            continue
        # The corner that is alone on its side first, the others after it in order.
        at = np.argmax(high == (lone == 1), axis=1)
        rows = np.arange(len(part))
        a, b, c = (part[rows, (at + k) % 3] for k in range(3))
        to_b, to_c = (a[:, 2] / (a[:, 2] - p[:, 2]) for p in (b, c))
        tip = np.stack([a, a + to_b[:, None] * (b - a), a + to_c[:, None] * (c - a)], axis=1)
        cut = float(_under(tip).sum())
        total += cut if lone == 1 else float(_under(part).sum()) - cut
    return abs(total) / 6.0
