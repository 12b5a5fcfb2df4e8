"""Cutting a model into chunks: one storey, one neighbourhood, a bounded number of triangles."""

from __future__ import annotations

import hashlib
from collections import defaultdict
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.mesh.glb import ChunkMesh, encode
from stairpath.core.mesh.surface import Surface, surfaces
from stairpath.core.reading.model import ModelReading
from stairpath.core.reading.paint import is_see_through

MOST_TRIANGLES = 60_000
NEIGHBOURHOOD_M = 96.0


@dataclass(frozen=True)
class Chunk:
    """An encoded piece of a model.

    ``centre_m`` is the point of the model's own coordinates that the GLB's zero stands for.
    """

    sha256: str
    glb: bytes
    centre_m: tuple[float, float, float]
    bounds_m: npt.NDArray[np.float64]
    storey: str | None
    triangles: int
    see_through: int
    edges: int


@dataclass
class _Placed:
    ordinal: int
    surface: Surface
    matrix: npt.NDArray[np.float64]
    middle: npt.NDArray[np.float64]


def _by_storey(reading: ModelReading) -> dict[str | None, list[_Placed]]:
    geometry = reading.geometry
    made_surfaces = surfaces(geometry.shapes)
    groups: dict[str | None, list[_Placed]] = defaultdict(list)
    for placed in np.argsort(geometry.owner, kind="stable"):
        owner = int(geometry.owner[placed])
        made = made_surfaces[geometry.shape[placed]]
        if owner < 0 or not len(made.triangles):
            continue
        matrix = geometry.matrix[placed]
        low, high = made.positions.min(axis=0), made.positions.max(axis=0)
        middle = matrix[:3, :3] @ ((low + high) / 2) + matrix[:3, 3]
        groups[reading.components[owner].storey].append(_Placed(owner, made, matrix, middle))
    return groups


def _slices(group: list[_Placed]) -> list[list[_Placed]]:
    """Halve a group across its longest side until each part is small enough."""
    middles = np.array([p.middle for p in group])
    small = sum(len(p.surface.triangles) for p in group) <= MOST_TRIANGLES
    if len(group) == 1 or (small and np.ptp(middles, axis=0).max() <= NEIGHBOURHOOD_M):
        return [group]
    order = np.argsort(middles[:, int(np.argmax(np.ptp(middles, axis=0)))], kind="stable")
    half = len(group) // 2
    first, second = ([group[i] for i in part] for part in (order[:half], order[half:]))
    return _slices(first) + _slices(second)


def _chunk(storey: str | None, group: list[_Placed]) -> Chunk:
    positions, normals, components, triangles, paints, edges = [], [], [], [], [], []
    offset = 0
    for local, placed in enumerate(group):
        s, m = placed.surface, placed.matrix
        positions.append(s.positions @ m[:3, :3].T + m[:3, 3])
        turned = s.normals @ m[:3, :3].T
        normals.append(turned / np.maximum(np.linalg.norm(turned, axis=1, keepdims=True), 1e-12))
        components.append(np.full(len(s.positions), local))
        faces = s.triangles[:, ::-1] if np.linalg.det(m[:3, :3]) < 0 else s.triangles
        triangles.append(faces + offset)
        paints.append(s.paints)
        edges.append(s.edges + offset)
        offset += len(s.positions)
    points = np.concatenate(positions)
    bounds = np.stack([points.min(axis=0), points.max(axis=0)])
    centre = np.round(bounds.mean(axis=0))
    faces, painted = np.concatenate(triangles), np.concatenate(paints)
    see_through = is_see_through(painted[faces[:, 0]])
    mesh = ChunkMesh(
        positions=points - centre,
        normals=np.concatenate(normals),
        components=np.concatenate(components),
        ordinals=[p.ordinal for p in group],
        paints=painted,
        opaque=faces[~see_through],
        see_through=faces[see_through],
        edges=np.concatenate(edges),
    )
    glb = encode(mesh)
    return Chunk(
        sha256=hashlib.sha256(glb).hexdigest(),
        glb=glb,
        centre_m=(float(centre[0]), float(centre[1]), float(centre[2])),
        bounds_m=bounds,
        storey=storey,
        triangles=len(faces),
        see_through=int(see_through.sum()),
        edges=len(mesh.edges),
    )


def build_chunks(reading: ModelReading) -> list[Chunk]:
    """All chunks of a model, deterministic for the same reading."""
    groups = _by_storey(reading)
    return [
        _chunk(storey, part)
        for storey in sorted(groups, key=lambda storey: storey or "")
        for part in _slices(groups[storey])
    ]
