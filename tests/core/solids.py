"""Bodies whose figures are known in closed form, placed as components are."""

from __future__ import annotations

import math

import numpy as np
import shapely
import trimesh

from stairpath.core.federation.placed import Placed
from stairpath.core.reading.model import Geometry, Shape


def shape_of(mesh: trimesh.Trimesh) -> Shape:
    return Shape.bare(mesh.vertices, mesh.faces)


def placed(*meshes: trimesh.Trimesh, to: np.ndarray | None = None) -> Placed:
    """Each mesh as a component, in order."""
    count = len(meshes)
    numbers = np.arange(count, dtype=np.int32)
    geometry = Geometry(tuple(map(shape_of, meshes)), numbers, numbers, np.tile(np.eye(4), (count, 1, 1)))
    matrix = np.eye(4) if to is None else to
    return Placed(geometry, matrix, geometry.bounds(count, matrix), np.ones(count, bool))


def box(low, high) -> trimesh.Trimesh:
    return trimesh.creation.box(bounds=[low, high])


def joined(*meshes: trimesh.Trimesh) -> trimesh.Trimesh:
    return trimesh.util.concatenate(meshes)


def extruded(profile: shapely.Polygon, height: float) -> trimesh.Trimesh:
    """A profile drawn up from zero, with its holes."""
    rings = [np.array(r.coords)[:-1] for r in (profile.exterior, *profile.interiors)]
    triangles = [
        np.array(t.exterior.coords)[:3] for t in shapely.get_parts(shapely.constrained_delaunay_triangles(profile))
    ]
    corners: list[np.ndarray] = []
    for z, up in ((0.0, False), (height, True)):
        for t in triangles:
            turned = t if bool(shapely.is_ccw(shapely.LinearRing(t))) == up else t[::-1]
            corners.append(np.column_stack([turned, np.full(3, z)]))
    for number, ring in enumerate(rings):
        counter = bool(shapely.is_ccw(shapely.LinearRing(ring)))
        line = ring if counter == (number == 0) else ring[::-1]
        for a, b in zip(line, np.roll(line, -1, axis=0), strict=True):
            low_a, low_b, high_a, high_b = (*a, 0.0), (*b, 0.0), (*a, height), (*b, height)
            corners += [np.array([low_a, low_b, high_b]), np.array([low_a, high_b, high_a])]
    mesh = trimesh.Trimesh(np.concatenate(corners), np.arange(3 * len(corners)).reshape(-1, 3))
    mesh.merge_vertices()
    return mesh


def i_profile(height: float, width: float, web: float, flange: float) -> shapely.Polygon:
    """The outline of an I-beam, about its middle."""
    h, b, s, t = height / 2, width / 2, web / 2, flange
    return shapely.Polygon(
        [(-b, -h), (b, -h), (b, -h + t), (s, -h + t), (s, h - t), (b, h - t),
         (b, h), (-b, h), (-b, h - t), (-s, h - t), (-s, -h + t), (-b, -h + t)]
    )  # fmt: skip


def bend(radius: float, tube: float, sections: int = 32, steps: int = 24) -> trimesh.Trimesh:
    """A quarter bend of a round bar about the z axis, closed at both ends."""
    around = 2 * math.pi * np.arange(sections) / sections
    along = math.pi / 2 * np.arange(steps + 1) / steps
    r = radius + tube * np.cos(around)
    rings = np.array(
        [np.column_stack([r * math.cos(a), r * math.sin(a), tube * np.sin(around)]) for a in along]
    ).reshape(-1, 3)
    ends = np.array([[radius, 0, 0], [0, radius, 0]])
    faces = []
    for i in range(steps):
        for k in range(sections):
            a, b = i * sections + k, i * sections + (k + 1) % sections
            faces += [[a, b, a + sections], [b, b + sections, a + sections]]
    first, last, n = len(rings), len(rings) + 1, steps * sections
    for k in range(sections):
        faces += [[first, (k + 1) % sections, k], [last, n + k, n + (k + 1) % sections]]
    mesh = trimesh.Trimesh(np.concatenate([rings, ends]), faces)
    mesh.fix_normals()
    return mesh


def regular_area(sides: int, radius: float) -> float:
    """Area of a regular polygon, as a circle of facets has it."""
    return sides / 2 * radius**2 * math.sin(2 * math.pi / sides)


def regular_length(sides: int, radius: float) -> float:
    return 2 * sides * radius * math.sin(math.pi / sides)
