"""Geometry as bytes and back, for keeping: one open .npz archive with every shape once."""

from __future__ import annotations

import io

import numpy as np

from stairpath.core.reading.model import Geometry, Shape


def pack(geometry: Geometry) -> bytes:
    """Geometry as an uncompressed .npz."""
    shapes = geometry.shapes
    out = io.BytesIO()
    np.savez(
        out,
        vertices=np.concatenate([s.vertices for s in shapes] or [np.zeros((0, 3), np.float32)]),
        vertex_counts=np.array([len(s.vertices) for s in shapes], dtype=np.int64),
        triangles=np.concatenate([s.triangles for s in shapes] or [np.zeros((0, 3), np.int32)]),
        triangle_counts=np.array([len(s.triangles) for s in shapes], dtype=np.int64),
        see_through=np.concatenate([s.see_through for s in shapes] or [np.zeros(0, bool)]),
        owner=geometry.owner,
        shape=geometry.shape,
        matrix=geometry.matrix,
    )
    return out.getvalue()


def unpack(data: bytes) -> Geometry:
    """The geometry that ``pack`` made."""
    with np.load(io.BytesIO(data)) as kept:
        at_vertex = np.cumsum(kept["vertex_counts"])[:-1]
        at_triangle = np.cumsum(kept["triangle_counts"])[:-1]
        count = len(kept["vertex_counts"])
        vertices = np.split(kept["vertices"], at_vertex) if count else []
        triangles = np.split(kept["triangles"], at_triangle) if count else []
        see_through = np.split(kept["see_through"], at_triangle) if count else []
        shapes = tuple(Shape(v, t, s) for v, t, s in zip(vertices, triangles, see_through, strict=True))
        return Geometry(shapes, kept["owner"], kept["shape"], kept["matrix"])
