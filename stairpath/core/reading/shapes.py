"""Triangles from the geometry kernel, each repeated shape once."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import ifcopenshell.geom
import numpy as np

from stairpath.core.reading.model import Geometry, Shape
from stairpath.core.reading.paint import NONE, paint_of
from stairpath.core.reading.shares import LeftOut, Walked, processes_for, walk_in_shares
from stairpath.core.reading.validate import sound_triangles
from stairpath.core.sandbox import Progress

LINEAR_DEFLECTION_M = 0.001
ANGULAR_DEFLECTION_RAD = 0.8


def kernel_settings() -> Any:
    """Settings of the geometry kernel: own coordinates, metres, openings cut, and the file's own colours alone."""
    settings = ifcopenshell.geom.settings()
    settings.set("apply-default-materials", False)
    settings.set("mesher-linear-deflection", LINEAR_DEFLECTION_M)
    settings.set("mesher-angular-deflection", ANGULAR_DEFLECTION_RAD)
    return settings


def _shape(geometry: Any) -> tuple[Shape, np.ndarray[tuple[int], np.dtype[np.float64]], bool]:
    """A shape about a whole-metre point of its own, that point, and whether all of its coordinates can be.

    Coordinates far from zero lose millimetres in single precision, so they are brought near
    it first.
    """
    vertices = np.frombuffer(geometry.verts_buffer, dtype="d").reshape(-1, 3)
    triangles = np.frombuffer(geometry.faces_buffer, dtype="i").reshape(-1, 3).astype(np.int32)
    material_ids = np.frombuffer(geometry.material_ids_buffer, dtype="i")
    of_styles = np.array([paint_of(style) for style in geometry.materials], dtype=np.uint32)
    paints = np.zeros(len(triangles), dtype=np.uint32)
    if len(of_styles) and len(material_ids) == len(triangles):
        paints = np.where(material_ids >= 0, of_styles[np.maximum(material_ids, 0)], np.uint32(NONE))
    vertices, keep = sound_triangles(vertices, triangles)
    whole = bool(keep.all())
    triangles, paints = triangles[keep], paints[keep]
    centre = np.zeros(3)
    if len(vertices):
        middle = (vertices.min(axis=0) + vertices.max(axis=0)) / 2
        if np.abs(middle).max() > 1000.0:
            centre = np.round(middle)
    return Shape((vertices - centre).astype(np.float32), triangles, paints), centre, whole


def _walk(ifc: Any, entities: Sequence[Any], owners: dict[int, int], on_progress: Progress) -> Walked:
    """Walk the kernel over entities; ``owners`` maps STEP ids to what ``Geometry.owner`` holds."""
    shapes: list[Shape] = []
    centres: list[np.ndarray[tuple[int], np.dtype[np.float64]]] = []
    index_of: dict[str, int] = {}
    broken: set[int] = set()
    unsound: set[int] = set()
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
                    shape, centre, whole = _shape(geometry)
                    index_of[key] = len(shapes)
                    if not whole:
                        broken.add(len(shapes))
                    shapes.append(shape)
                    centres.append(centre)
                at = index_of[key]
                matrix = np.frombuffer(made.transformation_buffer, dtype="d").reshape(4, 4).T.copy()
                matrix[:3, 3] += matrix[:3, :3] @ centres[at]
                if at in broken or not np.isfinite(matrix).all():
                    unsound.add(owners[made.id])
                if len(shapes[at].triangles) and np.isfinite(matrix).all():
                    owner.append(owners[made.id])
                    shape_of.append(at)
                    matrices.append(matrix)
            on_progress(iterator.progress() / 100.0, made.guid)
            if not iterator.next():
                break
    geometry = Geometry(
        tuple(shapes),
        np.array(owner, dtype=np.int32),
        np.array(shape_of, dtype=np.int32),
        np.array(matrices, dtype=np.float64).reshape(-1, 4, 4),
    )
    return Walked(geometry, frozenset(unsound))


def is_represented(entity: Any) -> bool:
    """Whether the file gives it a shape."""
    try:
        return entity.Representation is not None
    except Exception:  # an attribute of another type than the schema says
        return False


def read_geometry(
    ifc: Any, components: Sequence[Any], spaces: Sequence[Any], on_progress: Progress, longest_silence_s: float
) -> tuple[Walked, dict[int, str]]:
    """The triangles of all components and spaces, and the owners that took the kernel down, with how.

    ``on_progress`` is told the share done and the GlobalId just made.
    """
    owners = {entity.id(): i for i, entity in enumerate(components)}
    owners.update({entity.id(): -1 - i for i, entity in enumerate(spaces)})
    shaped = [entity for entity in (*components, *spaces) if is_represented(entity)]

    def walk(share: Sequence[Any], report: Progress) -> Walked:
        return _walk(ifc, share, owners, report)

    left: list[LeftOut]
    walked, left = walk_in_shares(shaped, walk, on_progress, processes_for(len(shaped)), longest_silence_s)
    return walked, {owners[shaped[each.index].id()]: each.why for each in left}
