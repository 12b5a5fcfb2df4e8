"""Bytes of the demo's meshes on the wire."""

from __future__ import annotations

from pathlib import Path

from bench.measure import Measure
from stairpath.core.mesh.chunks import build_chunks
from stairpath.core.mesh.surface import surfaces
from stairpath.core.reading.model import ModelReading
from stairpath.core.reading.sandboxed import read_many


def measure(files: list[Path]) -> list[Measure]:
    """All GLB bytes, edges included, against plain float32 arrays of the same vertices and triangles."""
    sent = plain = 0
    for reading in read_many([(f.name, f.read_bytes()) for f in files]):
        assert isinstance(reading, ModelReading)
        sent += sum(len(chunk.glb) for chunk in build_chunks(reading))
        drawn = surfaces(reading.geometry.shapes)
        for owner, at in zip(reading.geometry.owner, reading.geometry.shape, strict=True):
            if owner >= 0:
                plain += len(drawn[at].positions) * 24 + len(drawn[at].triangles) * 12
    how = (
        "all chunks of the demo as sent (GLB with edges, component numbers and JSON) against float32 positions and normals "
        "(24 bytes a vertex, the same vertices) with 32-bit indices (12 bytes a triangle), without edges."
    )
    return [Measure("Bytes sent for the meshes", sent / 1e6, plain / 1e6, "MB", 0.25, how)]
