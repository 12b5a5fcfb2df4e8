"""Made-up federations of very many components, placed as the core has them."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt
import trimesh

from stairpath.core.federation.placed import Placed
from stairpath.core.reading.model import Geometry, Shape

Array = npt.NDArray[np.float64]


def shape_of(mesh: trimesh.Trimesh) -> Shape:
    """A mesh as a shape of the core."""
    return Shape.bare(np.asarray(mesh.vertices), np.asarray(mesh.faces))


def parts(kind: int) -> trimesh.Trimesh:
    """One of four kinds of component: a box, a round bar, a hollow pipe, a ball."""
    return (
        lambda: trimesh.creation.box((0.6, 0.4, 0.5)),
        lambda: trimesh.creation.cylinder(0.15, 0.8, sections=16),
        lambda: trimesh.creation.annulus(0.1, 0.15, 0.8, sections=16),
        lambda: trimesh.creation.icosphere(2, 0.25),
    )[kind]()


def federation(count: int, seed: int = 7, spread_m: float = 1.0) -> Placed:
    """So many components, each a shape of its own, turned at random on a jittered grid ``spread_m`` apart."""
    rng = np.random.default_rng(seed)
    side = int(np.ceil(count ** (1 / 3)))
    at = np.stack(np.unravel_index(np.arange(count), (side, side, side)), axis=1) * spread_m
    matrices = np.tile(np.eye(4), (count, 1, 1))
    angle = rng.uniform(0, 2 * np.pi, count)
    matrices[:, 0, 0] = matrices[:, 1, 1] = np.cos(angle)
    matrices[:, 0, 1], matrices[:, 1, 0] = -np.sin(angle), np.sin(angle)
    matrices[:, :3, 3] = at + rng.uniform(-0.3, 0.3, (count, 3)) * spread_m
    kinds = [parts(k) for k in range(4)]
    shapes = []
    for k in range(count):
        mesh = kinds[k % 4].copy()
        mesh.vertices = mesh.vertices * rng.uniform(0.8, 1.2)
        shapes.append(shape_of(mesh))
    numbers = np.arange(count, dtype=np.int32)
    geometry = Geometry(tuple(shapes), numbers, numbers, matrices)
    return Placed(geometry, np.eye(4), geometry.bounds(count, np.eye(4)), np.ones(count, dtype=bool))
