"""A plane through very many components, against cutting them one by one."""

from __future__ import annotations

import time

import numpy as np
import trimesh

from bench.generated import federation
from bench.measure import Measure, middle
from stairpath.core.cutting.cut import cut
from stairpath.core.federation.placed import Placed
from stairpath.core.geometry.plane import level_plane

_COUNT = 100_000
_RUNS = 3


def _one_by_one(placed: Placed, height_m: float) -> tuple[float, dict[int, float]]:
    """Seconds to cut what a level plane meets with trimesh, and how long the outlines of each are."""
    geometry = placed.geometry
    met = np.flatnonzero((placed.bounds_m[:, 0, 2] < height_m) & (placed.bounds_m[:, 1, 2] > height_m))
    bodies = [(int(k), geometry.points_of(int(k)), geometry.shapes[k].triangles) for k in met]
    lengths: dict[int, float] = {}
    started = time.perf_counter()
    sections = [
        (
            k,
            trimesh.Trimesh(points, faces, process=False).section(
                plane_origin=[0, 0, height_m], plane_normal=[0, 0, 1]
            ),
        )
        for k, points, faces in bodies
    ]
    took = time.perf_counter() - started
    for k, section in sections:
        if section is not None:
            ends = section.vertices[
                np.concatenate([np.column_stack([e.points[:-1], e.points[1:]]) for e in section.entities])
            ]
            lengths[k] = float(np.linalg.norm(ends[:, 0] - ends[:, 1], axis=1).sum())
    return took, lengths


def measure() -> list[Measure]:
    """Outlines and regions of one plane, in turn with the reference; the lengths of all outlines are compared."""
    placed = federation(_COUNT)
    height = float(np.median(placed.bounds_m[:, :, 2])) + 0.137
    plane = level_plane(height)
    cut([placed], plane)
    ours, reference = [], []
    worst = 0.0
    lengths: dict[int, float] = {}
    for _ in range(_RUNS):
        started = time.perf_counter()
        (found,) = cut([placed], plane).parts
        ours.append(1000 * (time.perf_counter() - started))
        took, lengths = _one_by_one(placed, height)
        reference.append(1000 * took)
        own = dict(zip(found.owner.tolist(), found.perimeters_m.tolist(), strict=True))
        if set(own) != set(lengths):
            raise RuntimeError(f"{len(set(own) ^ set(lengths))} components are cut by one and not by the other")
        worst = max(abs(own[k] - lengths[k]) for k in own)
        if worst > 1e-4:
            raise RuntimeError(f"outlines differ by {worst} m")
    how = (
        f"median of {_RUNS} runs in turn: regions, areas and perimeters of the {len(lengths):,} that one level plane meets of "
        f"{_COUNT:,} made-up components (boxes, bars, pipes and balls, each a shape of its own), against trimesh's section of "
        f"each of those one after another. The outlines of every component are as long as trimesh's within {worst * 1e6:.0f} µm."
    )
    return [
        Measure(
            "One plane through 100,000 components",
            middle(ours),
            middle(reference),
            "ms",
            float(np.round(1 / 15, 3)),
            how,
        )
    ]
