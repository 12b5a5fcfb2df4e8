"""The few points of many components that decide how a camera frames them."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import numpy.typing as npt

from stairpath.core.camera.framing import Slopes
from stairpath.core.camera.pose import axes
from stairpath.core.federation.placed import Placed
from stairpath.core.geometry.clipping import kept
from stairpath.core.geometry.plane import Plane

Array = npt.NDArray[np.float64]


def _directions(bearing_deg: float, tilt_deg: float, each: Sequence[Slopes]) -> Array:
    """What is largest at the points that decide: the sides of the frame as planes, and near and far (k, 3).

    In perspective a side of the frame is touched by the point where ``x - slope * z`` is largest (x across, z
    along the view); in parallel the slope is zero. See ``framing.frame``.
    """
    right, up, forward = axes(bearing_deg, tilt_deg)
    sides = [
        side - slope * forward
        for slopes in (*each, Slopes())
        for side, slope in ((right, slopes.right), (-right, slopes.left), (up, slopes.top), (-up, slopes.bottom))
    ]
    return np.array(
        [
            *sides,
            forward,
            -forward,
        ]
    )


def _points(part: Placed, placed: int, planes: Sequence[Plane]) -> Array:
    """The corner points of one placed shape, of what planes leave of it."""
    points = part.geometry.points_of(placed, part.to)
    if not any((plane.heights(points) > 0).any() for plane in planes):
        return points
    shape = part.geometry.shapes[part.geometry.shape[placed]]
    return kept(points[shape.triangles], planes).reshape(-1, 3)


def telling_points(
    parts: Sequence[Placed], bearing_deg: float, tilt_deg: float, slopes: Sequence[Slopes], planes: Sequence[Plane] = ()
) -> Array:
    """Points (k, 3) that frame as all corner points of the wanted components do, as far as planes do not cut them away.

    For each direction that decides, components are looked at in the order of how far their boxes reach, until no
    box reaches beyond the farthest point that was found. ``slopes`` are those of the sides of
    what is free of the frame.
    """
    towards = _directions(bearing_deg, tilt_deg, slopes)
    meant = [np.flatnonzero(p.wanted & ~np.isnan(p.bounds_m).any(axis=(1, 2))) for p in parts]
    if not sum(map(len, meant)):
        return np.zeros((0, 3))
    number = np.repeat(np.arange(len(parts)), [len(m) for m in meant])
    owner = np.concatenate(meant)
    box = np.concatenate([p.bounds_m[m] for p, m in zip(parts, meant, strict=True)])
    found: dict[int, Array] = {}

    def points(at: int) -> Array:
        if at not in found:
            part = parts[number[at]]
            placed = np.flatnonzero(part.geometry.owner == owner[at])
            found[at] = np.concatenate([_points(part, int(k), planes) for k in placed])
        return found[at]

    telling: list[Array] = []
    for direction in towards:
        reach = np.where(direction > 0, box[:, 1] * direction, box[:, 0] * direction).sum(axis=1)
        best, where = -np.inf, np.zeros(3)
        for at in np.argsort(-reach, kind="stable"):
            if reach[at] <= best:
                break
            along = points(int(at)) @ direction
            if len(along) and along.max() > best:
                best, where = float(along.max()), points(int(at))[int(np.argmax(along))]
        if best > -np.inf:
            telling.append(where)
    return np.array(telling).reshape(-1, 3)
