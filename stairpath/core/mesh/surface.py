"""A shape made ready to draw: vertices with normals, triangles, and the edges worth drawing."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.reading.model import Shape
from stairpath.core.reading.paint import Paints

CREASE_DEG = 32.0
"""Faces that meet at less than this are shaded as one and show no edge."""
WELD_M = 1e-4


@dataclass(frozen=True)
class Surface:
    """Drawable form of a shape.

    ``positions`` (n, 3) float32 metres; ``normals`` (n, 3) float32 unit; ``triangles`` (m, 3);
    ``edges`` (k, 2), both indexing ``positions``; ``paints`` (n,), one for all corners of a triangle.
    """

    positions: npt.NDArray[np.float32]
    normals: npt.NDArray[np.float32]
    triangles: npt.NDArray[np.int32]
    paints: Paints
    edges: npt.NDArray[np.int32]


_EMPTY = Surface(
    np.zeros((0, 3), np.float32),
    np.zeros((0, 3), np.float32),
    np.zeros((0, 3), np.int32),
    np.zeros(0, np.uint32),
    np.zeros((0, 2), np.int32),
)


def _weld(vertices: npt.NDArray[np.float32], shape: npt.NDArray[np.intp]) -> npt.NDArray[np.intp]:
    """A number per vertex, the same for vertices of a shape closer than a tenth of a millimetre or so."""
    cells = np.round(vertices / WELD_M).astype(np.int64)
    order = np.lexsort((cells[:, 2], cells[:, 1], cells[:, 0], shape))
    rows, owners = cells[order], shape[order]
    new = np.ones(len(order), dtype=bool)
    new[1:] = (rows[1:] != rows[:-1]).any(axis=1) | (owners[1:] != owners[:-1])
    numbers = np.empty(len(order), dtype=np.intp)
    numbers[order] = np.cumsum(new) - 1
    return numbers


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
    keys = pairs[:, 0].astype(np.int64) << 32 | pairs[:, 1]
    unique, inverse, counts = np.unique(keys, return_inverse=True, return_counts=True)
    edges = np.column_stack([unique >> 32, unique & 0xFFFFFFFF]).astype(np.intp)
    order = np.argsort(inverse, kind="stable")
    first = np.cumsum(counts) - counts
    a, b = face[order[first]], face[order[np.minimum(first + 1, len(order) - 1)]]
    cosine = np.einsum("ij,ij->i", face_normals[a], face_normals[b])
    keep = (counts != 2) | (cosine < math.cos(math.radians(CREASE_DEG)))
    kept: npt.NDArray[np.intp] = edges[keep]
    return kept


def surface(shape: Shape) -> Surface:
    """Normals, split vertices and feature edges of a shape; triangles without area are left out."""
    return surfaces([shape])[0]


def surfaces(shapes: Sequence[Shape]) -> list[Surface]:
    """The surfaces of many shapes, worked out together, for most shapes of a building are small."""
    sizes = [len(s.vertices) for s in shapes]
    starts = np.cumsum([0, *sizes])
    if not starts[-1]:
        return [_EMPTY for _ in shapes]
    vertices = np.concatenate([s.vertices for s in shapes])
    welded = _weld(vertices, np.repeat(np.arange(len(shapes)), sizes))
    count = int(welded.max()) + 1
    triangles = np.concatenate([s.triangles + start for s, start in zip(shapes, starts, strict=False)])
    paints = np.concatenate([s.paints for s in shapes])
    shape_of = np.repeat(np.arange(len(shapes)), [len(s.triangles) for s in shapes])

    corners = welded[triangles]
    points = vertices[triangles].astype(np.float64)
    cross = np.cross(points[:, 1] - points[:, 0], points[:, 2] - points[:, 0])
    double = np.linalg.norm(cross, axis=1)
    solid = double > 1e-12
    corners, points, cross, double = corners[solid], points[solid], cross[solid], double[solid]
    paints, shape_of = paints[solid], shape_of[solid]
    if not len(corners):
        return [_EMPTY for _ in shapes]
    face_normals = cross / double[:, None]
    normals = _corner_normals(corners, face_normals, _corner_angles(points), count)

    representative = np.zeros(count, dtype=np.intp)
    representative[welded] = np.arange(len(welded))
    quantised = np.round(normals.reshape(-1, 3) * 127).astype(np.int64) + 128
    code = quantised[:, 0] << 16 | quantised[:, 1] << 8 | quantised[:, 2]
    # What is painted in another colour has corners of its own.
    colours, colour = np.unique(np.repeat(paints, 3), return_inverse=True)
    keys = (corners.reshape(-1).astype(np.int64) * len(colours) + colour) << 24 | code
    unique, index, inverse = np.unique(keys, return_index=True, return_inverse=True)
    owner = ((unique >> 24) // len(colours)).astype(np.intp)
    at_vertex = np.zeros(count, dtype=np.int32)
    at_vertex[owner] = np.arange(len(owner))
    edges = at_vertex[_feature_edges(corners, face_normals)]
    return _apart(
        len(shapes),
        Surface(
            positions=vertices[representative[owner]],
            normals=normals.reshape(-1, 3)[index].astype(np.float32),
            triangles=inverse.reshape(-1, 3).astype(np.int32),
            paints=np.repeat(paints, 3)[index],
            edges=edges.astype(np.int32),
        ),
        shape_of,
        np.searchsorted(starts, representative[owner], side="right") - 1,
    )


def _apart(
    count: int, made: Surface, shape_of: npt.NDArray[np.intp], shape_of_vertex: npt.NDArray[np.intp]
) -> list[Surface]:
    """Cut what was worked out together into shapes again; vertices and faces run shape by shape."""
    shapes = np.arange(count + 1)
    vertex = np.searchsorted(shape_of_vertex, shapes)
    face = np.searchsorted(shape_of, shapes)
    edge_shape = shape_of_vertex[made.edges[:, 0]] if len(made.edges) else np.zeros(0, dtype=np.intp)
    order = np.argsort(edge_shape, kind="stable")
    edges, edge = made.edges[order], np.searchsorted(edge_shape[order], shapes)
    return [
        Surface(
            made.positions[vertex[i] : vertex[i + 1]],
            made.normals[vertex[i] : vertex[i + 1]],
            made.triangles[face[i] : face[i + 1]] - np.int32(vertex[i]),
            made.paints[vertex[i] : vertex[i + 1]],
            edges[edge[i] : edge[i + 1]] - np.int32(vertex[i]),
        )
        for i in range(count)
    ]
