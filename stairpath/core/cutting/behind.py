"""What lies behind a cut as one sees it: the lines of components, without the parts that others hide."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.cutting.loops.hidden import bins_of, seen
from stairpath.core.federation.placed import Placed
from stairpath.core.geometry.clipping import kept
from stairpath.core.geometry.plane import Plane, level_plane
from stairpath.core.mesh.surface import CREASE_DEG

Array = npt.NDArray[np.float64]
Index = npt.NDArray[np.int64]

_WELD_M = 1e-4
_BIN_M = 0.5
_SLIGHT = 1e-6


@dataclass(frozen=True)
class Behind:
    """Lines (n, 2, 2) in the plane's own coordinates and the component (n,) of each, counted over all models."""

    lines: Array
    of: Index


def _triangles(parts: Sequence[Placed], plane: Plane, depth_m: float) -> tuple[Array, Index, Index]:
    """Triangles (n, 3, 3) of what reaches below the plane, in its coordinates, with component and placed shape."""
    corners: list[Array] = []
    of: list[Index] = []
    shape: list[Index] = []
    first = placed_before = 0
    for part in parts:
        heights = plane.heights(part.bounds_m.mean(axis=1))
        half = (part.bounds_m[:, 1] - part.bounds_m[:, 0]) / 2 @ np.abs(plane.normal)
        with np.errstate(invalid="ignore"):
            meant = part.wanted & (heights - half < 0) & (heights + half > -depth_m)
        to = plane.into @ part.to
        for at in part.geometry.placed_of(meant).tolist():
            faces = part.geometry.shapes[part.geometry.shape[at]].triangles
            mirrored = np.linalg.det((to @ part.geometry.matrix[at])[:3, :3]) < 0
            points = part.geometry.points_of(at, to)[faces[:, ::-1] if mirrored else faces]
            corners.append(points)
            of.append(np.full(len(points), first + int(part.geometry.owner[at]), dtype=np.int64))
            shape.append(np.full(len(points), placed_before + at, dtype=np.int64))
        first += len(part.bounds_m)
        placed_before += len(part.geometry.owner)
    if not corners:
        return np.zeros((0, 3, 3)), np.zeros(0, np.int64), np.zeros(0, np.int64)
    return np.concatenate(corners), np.concatenate(of), np.concatenate(shape)


def _edges(corners: Array, shape: Index) -> tuple[Array, Index]:
    """Edges (n, 2, 3) worth drawing from above, and a triangle (n,) that each is of.

    Borders, creases, and where a face that is seen meets one that turns away. Edges of faces that all turn away are
    hidden by their own body.
    """
    points = corners.reshape(-1, 3)
    cells = np.column_stack([np.repeat(shape, 3), np.round(points / _WELD_M).astype(np.int64)])
    order = np.lexsort(cells.T[::-1])
    new = np.ones(len(order), dtype=bool)
    new[1:] = (cells[order][1:] != cells[order][:-1]).any(axis=1)
    number = np.empty(len(order), dtype=np.int64)
    number[order] = np.cumsum(new) - 1
    welded = number.reshape(-1, 3)
    normal = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    size = np.linalg.norm(normal, axis=1)
    solid = np.flatnonzero(size > 1e-12)
    unit = normal / np.maximum(size, 1e-12)[:, None]
    pairs = np.sort(np.concatenate([welded[solid][:, [i, (i + 1) % 3]] for i in range(3)]), axis=1)
    face = np.tile(solid, 3)
    ends = np.concatenate([np.stack([corners[solid, i], corners[solid, (i + 1) % 3]], axis=1) for i in range(3)])
    real = pairs[:, 0] != pairs[:, 1]
    pairs, face, ends = pairs[real], face[real], ends[real]
    order = np.lexsort((pairs[:, 1], pairs[:, 0]))
    pairs, face, ends = pairs[order], face[order], ends[order]
    begins = np.flatnonzero(np.concatenate([[True], (pairs[1:] != pairs[:-1]).any(axis=1)]))
    counts = np.diff(np.append(begins, len(pairs)))
    a = face[begins]
    b = face[np.minimum(begins + 1, len(face) - 1)]
    cosine = np.einsum("ij,ij->i", unit[a], unit[b])
    za, zb = unit[a, 2], unit[b, 2]
    two = counts == 2
    outline = (za > _SLIGHT) != (zb > _SLIGHT)
    worth = ~two | (cosine < math.cos(math.radians(CREASE_DEG))) | outline
    away = two & (za < -_SLIGHT) & (zb < -_SLIGHT)
    keep = worth & ~away
    return ends[begins[keep]], a[keep]


def _between(lines: Array, of: Index, high_m: float, low_m: float) -> tuple[Array, Index]:
    """The parts of lines (n, 2, 3) between two heights."""
    z0, z1 = lines[:, 0, 2], lines[:, 1, 2]
    rise = z1 - z0
    flat = np.abs(rise) < 1e-12
    safe = np.where(flat, 1.0, rise)
    s_low, s_high = (low_m - z0) / safe, (high_m - z0) / safe
    inside = (z0 <= high_m) & (z0 >= low_m)
    begin = np.where(flat, np.where(inside, 0.0, 1.0), np.clip(np.minimum(s_low, s_high), 0, 1))
    end = np.where(flat, np.where(inside, 1.0, 0.0), np.clip(np.maximum(s_low, s_high), 0, 1))
    some = begin < end
    step = (lines[:, 1] - lines[:, 0])[some]
    start = lines[some, 0]
    return np.stack([start + begin[some, None] * step, start + end[some, None] * step], axis=1), of[some]


def behind(parts: Sequence[Placed], plane: Plane, depth_m: float, faces: Array) -> Behind:
    """The lines of what lies behind a plane, to a depth, less what is hidden.

    ``faces`` (n, 3, 2) are the triangles of what is cut, in the plane's coordinates: they hide all behind them.
    """
    corners, of, shape = _triangles(parts, plane, depth_m)
    if not len(corners):
        return Behind(np.zeros((0, 2, 2)), np.zeros(0, np.int64))
    edges, at = _edges(corners, shape)
    lines, line_of = _between(edges, of[at], -1e-6, -depth_m)
    flat = np.concatenate([faces, np.zeros((*faces.shape[:2], 1))], axis=-1)
    above = np.ascontiguousarray(np.concatenate([kept(corners, [level_plane(0.0)]), flat]))
    long = np.abs(lines[:, 1, :2] - lines[:, 0, :2]).max(axis=1, initial=0) > 1e-4
    lines, line_of = np.ascontiguousarray(lines[long]), line_of[long]
    low = above[..., :2].reshape(-1, 2).min(axis=0)
    nx, ny = (((above[..., :2].reshape(-1, 2).max(axis=0) - low) / _BIN_M).astype(np.int64) + 1).tolist()
    start, which = bins_of(above, low, _BIN_M, nx, ny)
    found, whose = seen(lines, above, low, _BIN_M, nx, ny, start, which)
    return Behind(found[..., :2], line_of[whose])
