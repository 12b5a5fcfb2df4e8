"""Triangles from the geometry kernel, each repeated shape once."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import ifcopenshell.geom
import numpy as np

from stairpath.core.reading.model import Geometry, Shape

LINEAR_DEFLECTION_M = 0.003
ANGULAR_DEFLECTION_RAD = 0.8
SEE_THROUGH_FROM = 0.15
"""From this transparency on, a surface is drawn see-through."""


def kernel_settings() -> Any:
    """Settings of the geometry kernel: own coordinates, metres, openings cut."""
    settings = ifcopenshell.geom.settings()
    settings.set("mesher-linear-deflection", LINEAR_DEFLECTION_M)
    settings.set("mesher-angular-deflection", ANGULAR_DEFLECTION_RAD)
    return settings


def _shape(geometry: Any) -> tuple[Shape, np.ndarray[tuple[int], np.dtype[np.float64]]]:
    """A shape about a whole-metre point of its own, and that point.

    Coordinates far from zero lose millimetres in single precision, so they are brought near
    it first.
    """
    vertices = np.frombuffer(geometry.verts_buffer, dtype="d").reshape(-1, 3)
    triangles = np.frombuffer(geometry.faces_buffer, dtype="i").reshape(-1, 3).astype(np.int32)
    material_ids = np.frombuffer(geometry.material_ids_buffer, dtype="i")
    clear = np.array(
        [
            (m.transparency == m.transparency and m.transparency > SEE_THROUGH_FROM)  # not NaN
            for m in geometry.materials
        ],
        dtype=bool,
    )
    see_through = np.zeros(len(triangles), dtype=bool)
    if len(clear) and len(material_ids) == len(triangles):
        see_through = np.where(material_ids >= 0, clear[np.maximum(material_ids, 0)], False)
    centre = np.zeros(3)
    if len(vertices):
        middle = (vertices.min(axis=0) + vertices.max(axis=0)) / 2
        if np.abs(middle).max() > 1000.0:
            centre = np.round(middle)
    return Shape((vertices - centre).astype(np.float32), triangles, see_through), centre


def read_geometry(
    ifc: Any,
    ordinals: dict[int, int],
    space_ordinals: dict[int, int],
    on_progress: Callable[[float, str], None],
) -> Geometry:
    """Walk the kernel over all components and spaces.

    ``ordinals`` and ``space_ordinals`` map STEP ids to indexes. ``on_progress`` is told the
    share done and the GlobalId just made.
    """
    shapes: list[Shape] = []
    centres: list[np.ndarray[tuple[int], np.dtype[np.float64]]] = []
    index_of: dict[str, int] = {}
    owner: list[int] = []
    shape_of: list[int] = []
    matrices: list[np.ndarray[tuple[int, int], np.dtype[np.float64]]] = []
    wanted = [ifc.by_id(i) for i in (*ordinals, *space_ordinals) if ifc.by_id(i).Representation is not None]
    iterator = ifcopenshell.geom.iterator(kernel_settings(), ifc, 1, include=wanted) if wanted else None
    if iterator is not None and iterator.initialize():
        while True:
            made = iterator.get()
            geometry = made.geometry
            if len(geometry.faces_buffer):
                key = geometry.id
                if key not in index_of:
                    shape, centre = _shape(geometry)
                    index_of[key] = len(shapes)
                    shapes.append(shape)
                    centres.append(centre)
                at = index_of[key]
                matrix = np.frombuffer(made.transformation_buffer, dtype="d").reshape(4, 4).T.copy()
                matrix[:3, 3] += matrix[:3, :3] @ centres[at]
                owner.append(ordinals[made.id] if made.id in ordinals else -1 - space_ordinals[made.id])
                shape_of.append(at)
                matrices.append(matrix)
            on_progress(iterator.progress() / 100.0, made.guid)
            if not iterator.next():
                break
    return Geometry(
        tuple(shapes),
        np.array(owner, dtype=np.int32),
        np.array(shape_of, dtype=np.int32),
        np.array(matrices, dtype=np.float64).reshape(-1, 4, 4),
    )
