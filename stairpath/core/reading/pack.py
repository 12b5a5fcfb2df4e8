"""Geometry as bytes and back, for keeping: one open .npz archive with every shape once."""

from __future__ import annotations

import io
from collections.abc import Mapping
from typing import Any

import numpy as np
import numpy.typing as npt

from stairpath.core.reading.model import Geometry, Shape
from stairpath.core.reading.paint import GLASS, NONE, Paints


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
        paints=np.concatenate([s.paints for s in shapes] or [np.zeros(0, np.uint32)]),
        owner=geometry.owner,
        shape=geometry.shape,
        matrix=geometry.matrix,
    )
    return out.getvalue()


def _paints(kept: Mapping[str, npt.NDArray[Any]]) -> Paints:
    """The paint of every triangle; what was kept before there were paints says only what is glass."""
    if "paints" in kept:
        return kept["paints"]
    return np.where(kept["see_through"], np.uint32(GLASS), np.uint32(NONE))


def unpack(data: bytes) -> Geometry:
    """The geometry that ``pack`` made."""
    with np.load(io.BytesIO(data)) as kept:
        at_vertex = np.cumsum(kept["vertex_counts"])[:-1]
        at_triangle = np.cumsum(kept["triangle_counts"])[:-1]
        count = len(kept["vertex_counts"])
        vertices = np.split(kept["vertices"], at_vertex) if count else []
        triangles = np.split(kept["triangles"], at_triangle) if count else []
        paints = np.split(_paints(kept), at_triangle) if count else []
        shapes = tuple(Shape(v, t, p) for v, t, p in zip(vertices, triangles, paints, strict=True))
        return Geometry(shapes, kept["owner"], kept["shape"], kept["matrix"])
