"""Stairs and ramps seen from above: the edges of what can be trodden on, and the way up."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.reading.model import Geometry

Array = npt.NDArray[np.float64]

_STEEPEST_RAMP = math.cos(math.radians(15.0))
_SAME_POINT_M = 1e-4
_SAME_TREAD_M = 0.02


@dataclass(frozen=True)
class Flight:
    """One flight: the edges (n, 2, 2) of its treads on plan, and the way (m, 2) from its lowest up."""

    owner: int
    edges: Array
    way_up: Array


def _facing_up(geometry: Geometry, placed: int, to: Array, low_m: float, high_m: float) -> Array:
    """Triangles (n, 3, 3) of one placed shape that can be trodden on and lie between two heights."""
    points = geometry.points_of(placed, to)
    triangles = geometry.shapes[geometry.shape[placed]].triangles
    corners: Array = points[triangles]
    normal = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    matrix = to @ geometry.matrix[placed]
    rise = normal[:, 2] * np.sign(np.linalg.det(matrix[:3, :3]))
    flat = rise > _STEEPEST_RAMP * np.maximum(np.linalg.norm(normal, axis=1), 1e-12)
    height = corners[:, :, 2].mean(axis=1)
    kept: Array = corners[flat & (height >= low_m) & (height <= high_m)]
    return kept


def _border(corners: Array) -> Array:
    """Edges (n, 2, 2) on plan that only one of the triangles has: the outlines of the treads."""
    cells = np.round(corners.reshape(-1, 3) / _SAME_POINT_M).astype(np.int64)
    _, number = np.unique(cells, axis=0, return_inverse=True)
    number = number.reshape(-1, 3)
    sides = np.concatenate([number[:, [0, 1]], number[:, [1, 2]], number[:, [2, 0]]])
    ends = np.concatenate([corners[:, [0, 1]], corners[:, [1, 2]], corners[:, [2, 0]]])
    _, first, count = np.unique(np.sort(sides, axis=1), axis=0, return_index=True, return_counts=True)
    border: Array = ends[first[count == 1]][:, :, :2]
    return border


def _way_up(corners: Array) -> Array:
    """From tread to tread, through the middle of each, from the lowest up; of a ramp along its slope."""
    double = np.abs(np.cross(corners[:, 1, :2] - corners[:, 0, :2], corners[:, 2, :2] - corners[:, 0, :2]))
    heights = corners[:, :, 2].mean(axis=1)
    sloped = np.ptp(corners[:, :, 2], axis=1) > _SAME_TREAD_M
    if double[sloped].sum() > double.sum() / 2.0:
        return _along_slope(corners.reshape(-1, 3))
    order = np.argsort(heights)
    tread = np.cumsum(np.concatenate([[0], np.diff(heights[order]) > _SAME_TREAD_M]))
    weight = np.maximum(double[order], 1e-12)
    total = np.bincount(tread, weight)
    middles: Array = np.column_stack(
        [np.bincount(tread, weight * corners[order][:, :, axis].mean(axis=1)) / total for axis in range(2)]
    )
    return middles


def _along_slope(points: Array) -> Array:
    """From the middle of a ramp's low end to the middle of its high end."""
    low, high = points[:, 2].min(), points[:, 2].max()
    ends = [points[np.abs(points[:, 2] - height) < _SAME_TREAD_M] for height in (low, high)]
    return np.stack([np.unique(np.round(end[:, :2], 4), axis=0).mean(axis=0) for end in ends])


def flights(geometry: Geometry, to: Array, wanted: npt.NDArray[np.bool_], low_m: float, high_m: float) -> list[Flight]:
    """The flights and ramps among the components ``wanted`` (n,), as far as they lie between two heights."""
    parts: dict[int, list[Array]] = {}
    for placed in geometry.placed_of(wanted):
        owner = int(geometry.owner[placed])
        parts.setdefault(owner, []).append(_facing_up(geometry, int(placed), to, low_m, high_m))
    found = []
    for owner, pieces in sorted(parts.items()):
        corners = np.concatenate(pieces)
        if len(corners):
            found.append(Flight(owner, _border(corners), _way_up(corners)))
    return found
