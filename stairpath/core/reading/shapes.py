"""Triangles from the geometry kernel, each repeated shape once."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import ifcopenshell.geom
import numpy as np

from stairpath.core.reading.model import Geometry, Shape
from stairpath.core.reading.shares import Progress, processes_for, walk_in_shares

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


def _walk(ifc: Any, entities: Sequence[Any], owners: dict[int, int], on_progress: Progress) -> Geometry:
    """Walk the kernel over entities; ``owners`` maps STEP ids to what ``Geometry.owner`` holds."""
    shapes: list[Shape] = []
    centres: list[np.ndarray[tuple[int], np.dtype[np.float64]]] = []
    index_of: dict[str, int] = {}
    owner: list[int] = []
    shape_of: list[int] = []
    matrices: list[np.ndarray[tuple[int, int], np.dtype[np.float64]]] = []
    iterator = ifcopenshell.geom.iterator(kernel_settings(), ifc, 1, include=list(entities)) if entities else None
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
                owner.append(owners[made.id])
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


def read_geometry(
    name: str, ifc: Any, components: Sequence[Any], spaces: Sequence[Any], on_progress: Progress
) -> Geometry:
    """The triangles of all components and spaces, of a large file on all cores.

    ``on_progress`` is told the share done and the GlobalId just made. Raises CannotReadError
    where the kernel crashed in a helper.
    """
    owners = {entity.id(): i for i, entity in enumerate(components)}
    owners.update({entity.id(): -1 - i for i, entity in enumerate(spaces)})
    shaped = [entity for entity in (*components, *spaces) if entity.Representation is not None]

    def walk(share: Sequence[Any], report: Progress) -> Geometry:
        return _walk(ifc, share, owners, report)

    count = processes_for(len(shaped))
    return walk(shaped, on_progress) if count == 1 else walk_in_shares(name, shaped, walk, on_progress, count)
