"""The key plan of a storey, against cutting the same components one by one."""

from __future__ import annotations

import time
from pathlib import Path

import numpy as np
import trimesh

from bench.measure import Measure, middle
from stairpath.core.cutting.keyplan import CUT, draw_key_plan
from stairpath.core.federation.federate import Federation, federate, level_named
from stairpath.core.federation.outline import outline
from stairpath.core.reading.model import ModelReading
from stairpath.core.reading.sandboxed import read_many

_RUNS = 7


def _one_by_one(federation: Federation, height_m: float) -> tuple[float, int]:
    """Seconds to cut with trimesh what the key plan cuts, and how many bodies that were."""
    bodies = []
    for model in federation.models:
        if not model.stands:
            continue
        geometry, to = model.outline.geometry, model.alignment.matrix
        for placed, owner in enumerate(geometry.owner):
            if owner < 0 or not model.outline.classes[owner].startswith(CUT):
                continue
            low, high = model.bounds_m[owner, :, 2]
            if low < height_m < high:
                faces = geometry.shapes[geometry.shape[placed]].triangles
                bodies.append((geometry.points_of(placed, to), faces))
    started = time.perf_counter()
    for points, faces in bodies:
        trimesh.Trimesh(points, faces).section(plane_origin=[0, 0, height_m], plane_normal=[0, 0, 1])
    return time.perf_counter() - started, len(bodies)


def measure(files: list[Path]) -> list[Measure]:
    """Whole key plans of Level 02, rooms, swings and treads included, in turn with the reference."""
    readings = read_many([(f.name, f.read_bytes()) for f in files])
    federation = federate([outline(r) for r in readings if isinstance(r, ModelReading)])
    level = level_named(federation, "02")
    height = federation.levels[level].elevation_m + 1.2
    draw_key_plan(federation, level)
    ours, reference, count = [], [], 0
    for _ in range(_RUNS):
        started = time.perf_counter()
        draw_key_plan(federation, level)
        ours.append(1000 * (time.perf_counter() - started))
        took, count = _one_by_one(federation, height)
        reference.append(1000 * took)
    how = (
        f"median of {_RUNS} runs in turn, Level 02: the whole key plan with rooms, door swings, treads and grid, against "
        f"trimesh building and cutting the same {count} bodies one after another and nothing else. That the outlines are the "
        "same is a test (tests/core/test_cutting.py)."
    )
    return [Measure("The key plan of a storey", middle(ours), middle(reference), "ms", float(np.round(1 / 15, 3)), how)]
