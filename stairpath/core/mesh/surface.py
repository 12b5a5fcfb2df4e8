"""A shape made ready to draw: vertices with normals, triangles, and the edges worth drawing."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.reading.model import Shape

CREASE_DEG = 32.0
"""Faces that meet at less than this are shaded as one and show no edge."""
WELD_M = 1e-4


@dataclass(frozen=True)
class Surface:
    """Drawable form of a shape.

    ``positions`` (n, 3) float32 metres; ``normals`` (n, 3) float32 unit; ``triangles`` (m, 3);
    ``see_through`` (m,); ``edges`` (k, 2), all indexing ``positions``.
    """

    positions: npt.NDArray[np.float32]
    normals: npt.NDArray[np.float32]
    triangles: npt.NDArray[np.int32]
    see_through: npt.NDArray[np.bool_]
    edges: npt.NDArray[np.int32]


def _weld(vertices: npt.NDArray[np.float32]) -> tuple[npt.NDArray[np.intp], int]:
    """A number per vertex, the same for vertices closer than a tenth of a millimetre or so."""
    cells = np.round(vertices / WELD_M).astype(np.int64)
    _, inverse = np.unique(cells, axis=0, return_inverse=True)
    inverse = inverse.reshape(-1)
    return inverse, int(inverse.max()) + 1 if len(inverse) else 0


def _corner_normals(
    corners: npt.NDArray[np.intp], face_normals: npt.NDArray[np.float64], angles: npt.NDArray[np.float64], count: int
) -> npt.NDArray[np.float64]:
    """Normal (m, 3, 3) per triangle corner: of the faces round it that meet this one smoothly.

    Each face counts with its angle at the corner, so that how a face is cut into triangles
    does not show.
    """
    flat = corners.reshape(-1)
    order = np.argsort(flat, kind="stable")
    starts = np.searchsorted(flat[order], np.arange(count + 1))
    sizes = np.diff(starts)
    # Every corner against every face round its vertex.
    per_corner = sizes[flat]
    corner = np.repeat(np.arange(len(flat)), per_corner)
    within = np.arange(len(corner)) - np.repeat(np.cumsum(per_corner) - per_corner, per_corner)
    there = order[starts[flat[corner]] + within]
    other = there // 3
    mine = corner // 3
    smooth = np.einsum("ij,ij->i", face_normals[mine], face_normals[other]) >= math.cos(math.radians(CREASE_DEG))
    weighted = face_normals[other] * (angles[there] * smooth)[:, None]
    total = np.empty((len(flat), 3))
    for axis in range(3):
        total[:, axis] = np.bincount(corner, weights=weighted[:, axis], minlength=len(flat))
    length = np.linalg.norm(total, axis=1, keepdims=True)
    fallback = np.repeat(face_normals, 3, axis=0)
    return np.where(length > 1e-12, total / np.maximum(length, 1e-12), fallback).reshape(-1, 3, 3)


def _corner_angles(points: npt.NDArray[np.float64]) -> npt.NDArray[np.float64]:
    """Angle (3 m,) at each corner of triangles (m, 3, 3)."""
    to_next = np.roll(points, -1, axis=1) - points
    to_last = np.roll(points, 1, axis=1) - points
    across = np.linalg.norm(np.cross(to_next, to_last), axis=2)
    angles: npt.NDArray[np.float64] = np.arctan2(across, np.einsum("ijk,ijk->ij", to_next, to_last)).reshape(-1)
    return angles


def _feature_edges(corners: npt.NDArray[np.intp], face_normals: npt.NDArray[np.float64]) -> npt.NDArray[np.intp]:
    """Pairs of welded vertices along borders, creases, and where more than two faces meet."""
    pairs = np.sort(np.concatenate([corners[:, [0, 1]], corners[:, [1, 2]], corners[:, [2, 0]]]), axis=1)
    face = np.tile(np.arange(len(corners)), 3)
    real = pairs[:, 0] != pairs[:, 1]
    pairs, face = pairs[real], face[real]
    edges, inverse, counts = np.unique(pairs, axis=0, return_inverse=True, return_counts=True)
    inverse = inverse.reshape(-1)
    order = np.argsort(inverse, kind="stable")
    first = np.cumsum(counts) - counts
    a, b = face[order[first]], face[order[np.minimum(first + 1, len(order) - 1)]]
    cosine = np.einsum("ij,ij->i", face_normals[a], face_normals[b])
    keep = (counts != 2) | (cosine < math.cos(math.radians(CREASE_DEG)))
    kept: npt.NDArray[np.intp] = edges[keep]
    return kept


def surface(shape: Shape) -> Surface:
    """Normals, split vertices and feature edges of a shape; triangles without area are left out."""
    welded, count = _weld(shape.vertices)
    corners = welded[shape.triangles]
    points = shape.vertices[shape.triangles].astype(np.float64)
    cross = np.cross(points[:, 1] - points[:, 0], points[:, 2] - points[:, 0])
    double = np.linalg.norm(cross, axis=1)
    solid = double > 1e-12
    corners, points, cross, double = corners[solid], points[solid], cross[solid], double[solid]
    see_through = shape.see_through[solid]
    if not len(corners):
        empty = np.zeros((0, 3), dtype=np.float32)
        return Surface(empty, empty, np.zeros((0, 3), np.int32), see_through, np.zeros((0, 2), np.int32))
    face_normals = cross / double[:, None]
    normals = _corner_normals(corners, face_normals, _corner_angles(points), count)

    representative = np.zeros(count, dtype=np.intp)
    representative[welded] = np.arange(len(welded))
    quantised = np.round(normals.reshape(-1, 3) * 127).astype(np.int64) + 128
    code = quantised[:, 0] << 16 | quantised[:, 1] << 8 | quantised[:, 2]
    keys = corners.reshape(-1).astype(np.int64) << 24 | code
    unique, index, inverse = np.unique(keys, return_index=True, return_inverse=True)
    owner = (unique >> 24).astype(np.intp)
    at_vertex = np.zeros(count, dtype=np.int32)
    at_vertex[owner] = np.arange(len(owner))
    edges = _feature_edges(corners, face_normals)
    return Surface(
        positions=shape.vertices[representative[owner]],
        normals=normals.reshape(-1, 3)[index].astype(np.float32),
        triangles=inverse.reshape(-1, 3).astype(np.int32),
        see_through=see_through,
        edges=at_vertex[edges].astype(np.int32),
    )
