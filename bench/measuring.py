"""Distances and interference, against well-known libraries on the same components."""

from __future__ import annotations

import tempfile
import time
from pathlib import Path

import ifcopenshell
import ifcopenshell.geom
import numpy as np
import numpy.typing as npt
import trimesh

from bench.generated import federation
from bench.measure import Measure, middle
from stairpath.core.measuring.body import body
from stairpath.core.measuring.distance import between
from stairpath.core.measuring.exclusions import Kin
from stairpath.core.measuring.interference import Interference, interference
from stairpath.core.measuring.things import Things
from tests.samples import Sample

Points = npt.NDArray[np.float64]

_RUNS = 3
_AROUND = 113
_CORNERS = 200
_SIZES = (5_000, 20_000)
_SAME = 1_000


def _to_corners(to: trimesh.Trimesh, corners: Points) -> float:
    """The least distance of corners to a mesh by trimesh, a few at a time: all at once need more memory than there is."""
    parts = np.array_split(corners, max(1, len(corners) // 25))
    return min(float(trimesh.proximity.closest_point(to, part)[1].min()) for part in parts)


def _nearest(to: trimesh.Trimesh, of: trimesh.Trimesh) -> Points:
    """The corners of a mesh that are nearest to another's middle."""
    away = np.linalg.norm(of.vertices - to.vertices.mean(axis=0), axis=1)
    corners: Points = np.asarray(of.vertices)[np.argsort(away)[:_CORNERS]]
    return corners


def _distance() -> Measure:
    """Two dented balls of 50,000 triangles, a part of a metre apart."""
    one = trimesh.creation.uv_sphere(1.0, count=[_AROUND, _AROUND])
    other = trimesh.creation.uv_sphere(0.7, count=[_AROUND, _AROUND])
    rng = np.random.default_rng(3)
    for mesh, at in ((one, [0, 0, 0]), (other, [1.6, 1.1, 0.9])):
        dented = mesh.vertices * (1 - 0.02 * rng.random((len(mesh.vertices), 1)))
        mesh.vertices = dented + at
    ours, reference = [], []
    near = 0.0
    a = body(np.asarray(one.vertices, dtype=np.float64), one.faces)
    b = body(np.asarray(other.vertices, dtype=np.float64), other.faces)
    between(a, b)
    for _ in range(_RUNS):
        a = body(np.asarray(one.vertices, dtype=np.float64), one.faces)
        b = body(np.asarray(other.vertices, dtype=np.float64), other.faces)
        started = time.perf_counter()
        found = between(a, b)
        ours.append(1000 * (time.perf_counter() - started))
        if found is None:
            raise RuntimeError("there is always a distance")
        near = found.distance_m
        fresh = [trimesh.Trimesh(m.vertices, m.faces, process=False) for m in (one, other)]
        some = [rng.choice(np.asarray(m.vertices), _CORNERS, replace=False) for m in fresh]
        started = time.perf_counter()
        for to, corners in zip(fresh, some[::-1], strict=True):
            _to_corners(to, corners)
        share = len(one.vertices) / _CORNERS
        reference.append(1000 * share * (time.perf_counter() - started))
    apart = min(_to_corners(to, _nearest(to, of)) for to, of in ((one, other), (other, one)))
    # A corner of one is as near to the other as two edges are, or a little farther.
    if not apart - 1e-3 < near <= apart + 1e-9:
        raise RuntimeError(f"{near} m apart, by trimesh {apart} m")
    how = (
        f"median of {_RUNS} runs in turn: two dented balls of {len(one.faces):,} triangles each, search trees included, "
        f"against trimesh's proximity query of the corners of each to the other: that of {_CORNERS} corners drawn at random, "
        "times as many as there are, since all of them take minutes and more memory than there is. Between two edges the "
        f"distance may be less than from any corner: {near * 1000:.4f} mm here, {apart * 1000:.4f} mm by the nearest corners."
    )
    return Measure(
        "The distance of two components of 50,000 triangles", middle(ours), middle(reference), "ms", 0.05, how
    )


def _check(count: int) -> tuple[float, Interference]:
    """Seconds to find what of so many components interferes with as many others, on the same ground."""
    one, other = federation(count, 1, 1.1), federation(count, 2, 1.1)
    things = Things([one, other], np.zeros(3))
    kin = [Kin("M", str(k), "IfcBuildingElementProxy") for k in range(2 * count)]
    first = np.arange(2 * count) < count
    started = time.perf_counter()
    found = interference(things, kin, first, ~first)
    return time.perf_counter() - started, found


def _growth() -> Measure:
    """How the time grows with the number of components, for pairs as close together."""
    _check(500)
    runs = {count: _check(count) for count in _SIZES}
    small, large = runs[_SIZES[0]], runs[_SIZES[-1]]
    per_pair = [seconds / found.checked * 1e6 for seconds, found in runs.values()]
    told = ", ".join(
        f"{count:,}: {seconds:.1f} s for {found.checked:,} pairs and {len(found.findings):,} findings"
        for count, (seconds, found) in runs.items()
    )
    how = (
        f"two disciplines of as many made-up components each, once: {told}. The reference is four times the time of "
        f"{_SIZES[0]:,}; linear growth is 1, and a little more is the edge of the building's share. "
        f"{per_pair[0]:.0f} to {per_pair[-1]:.0f} µs a pair."
    )
    return Measure("Interference of four times the components", large[0], 4 * small[0], "s", 1.2, how)


def _boxes(path: Path, seed: int) -> None:
    """A file of boxes about a jittered grid."""
    rng = np.random.default_rng(seed)
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    side = int(np.ceil(_SAME ** (1 / 3)))
    for k in range(_SAME):
        at = np.array(np.unravel_index(k, (side, side, side))) * 1.1 + rng.uniform(-0.3, 0.3, 3)
        sample.box(storey, at.tolist(), rng.uniform(0.3, 0.7, 3).tolist(), "IfcBuildingElementProxy", Name=str(k))
    path.write_bytes(sample.content())


def _same_pairs() -> Measure:
    """The same boxes by ifcopenshell's own tree, and whether both find the same pairs."""
    from stairpath.core.federation.federate import federate
    from stairpath.core.federation.outline import outline
    from stairpath.core.federation.placed import all_placed
    from stairpath.core.reading.model import ModelReading
    from stairpath.core.reading.sandboxed import read_many

    with tempfile.TemporaryDirectory() as folder:
        paths = [Path(folder) / f"{name}.ifc" for name in ("A", "B")]
        for seed, path in enumerate(paths):
            _boxes(path, seed)
        tree = ifcopenshell.geom.tree(backend="opencascade.trianglebvh")
        settings = ifcopenshell.geom.settings()
        sets = []
        for path in paths:
            file = ifcopenshell.open(str(path))
            iterator = ifcopenshell.geom.iterator(settings, file, 2)
            tree.add_iterator(iterator)
            sets.append((file, list(file.by_type("IfcBuildingElementProxy"))))
        ours, reference = [], []
        readings = [r for r in read_many([(p.name, p.read_bytes()) for p in paths]) if isinstance(r, ModelReading)]
        federation_ = federate([outline(r) for r in readings])
        ids = [gid for m in federation_.models for gid in m.outline.global_ids]
        kin = [Kin("M", gid, "IfcBuildingElementProxy") for gid in ids]
        first = np.arange(len(ids)) < len(federation_.models[0].outline.global_ids)
        mine: set[tuple[str, str]] = set()
        theirs: set[tuple[str, str]] = set()
        for _ in range(_RUNS):
            things = Things(all_placed(federation_), np.array(federation_.origin_m))
            started = time.perf_counter()
            found = interference(things, kin, first, ~first)
            ours.append(1000 * (time.perf_counter() - started))
            mine = {(ids[p.a], ids[p.b]) for p in found.pairs if p.left_out is None}
            started = time.perf_counter()
            clashes = tree.clash_intersection_many(sets[0][1], sets[1][1], tolerance=0.001, check_all=False)
            reference.append(1000 * (time.perf_counter() - started))
            theirs = {(c.a.get_argument(0), c.b.get_argument(0)) for c in clashes}
    both = len(mine & theirs)
    how = (
        f"median of {_RUNS} runs in turn: {_SAME:,} boxes against {_SAME:,}, read from two files: overlaps deeper than 1 mm with "
        "depth, volume and place, bodies made anew each time, against the intersections of ifcopenshell's own geometry tree, "
        f"built before, which gives a protrusion and two points. Ours found {len(mine):,} pairs, the tree {len(theirs):,}, "
        f"the same {both:,}."
    )
    return Measure("Interference of the same boxes", middle(ours), middle(reference), "ms", None, how)


def measure() -> list[Measure]:
    """Distance, growth, and the same pairs by another library."""
    return [_distance(), _growth(), _same_pairs()]
