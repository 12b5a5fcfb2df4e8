"""The walk map and routes: against the tessellation of the same files, and against stated limits."""

from __future__ import annotations

import time
from pathlib import Path

import numpy as np

from bench.measure import Measure, middle
from bench.reading import walk_geometry
from stairpath.core.federation.federate import federate
from stairpath.core.federation.outline import outline
from stairpath.core.reading.model import ModelReading
from stairpath.core.reading.sandboxed import read_many
from stairpath.core.walking.bodies import BODIES
from stairpath.core.walking.clearance import Space
from stairpath.core.walking.place import NoPlaceError, in_room, room_of
from stairpath.core.walking.route import route
from stairpath.core.walking.search import marks_of
from stairpath.core.walking.solids import Solids, solids_of
from stairpath.core.walking.tile import all_tiles
from stairpath.core.walking.walkmap import build, join

_RUNS = 3
_QUERIES = 200
_LIMIT_MS = 150.0
_LIMIT_MB = 60.0
_BODY = BODIES["standing"]


def _beside(solids: Solids, copies: int) -> Solids:
    """A building so many times side by side."""
    width = float(np.ptp(solids.triangles[..., 0])) + 10.0
    moved = [np.add(solids.triangles, (k * width, 0.0, 0.0)) for k in range(copies)]
    return Solids(np.concatenate(moved), np.tile(solids.component, copies), solids.axes)


def _seconds(solids: Solids) -> float:
    began = time.perf_counter()
    build(solids, _BODY)
    return time.perf_counter() - began


def measure(files: list[Path]) -> list[Measure]:
    """Building, growth, memory and queries."""
    readings = read_many([(f.name, f.read_bytes()) for f in files])
    federation = federate([outline(r) for r in readings if isinstance(r, ModelReading)])
    build(solids_of(federation), _BODY)  # compiles
    ours, four, reference = [], [], []
    for _ in range(_RUNS):
        began = time.perf_counter()
        walk, space = build(solids_of(federation), _BODY)
        ours.append(time.perf_counter() - began)
        began = time.perf_counter()
        ground = Space(solids_of(federation))
        for name, tiles in all_tiles(ground, BODIES.values()).items():
            join(tiles, BODIES[name], ground.solids.axes)
        four.append(time.perf_counter() - began)
        reference.append(walk_geometry(files))
    solids = solids_of(federation)
    grown = {copies: middle([_seconds(_beside(solids, copies)) for _ in range(_RUNS)]) for copies in (1, 2, 4)}
    free_m2 = float(walk.fits.sum()) * walk.grid.cell_m**2
    megabytes = walk.bytes / 1e6

    marks = marks_of(walk)
    places = []
    for index in range(len(federation.rooms)):
        try:
            places.append(in_room(walk, room_of(federation, walk.axes, index)))
        except NoPlaceError:
            continue
    random = np.random.default_rng(7)
    pairs = random.integers(0, len(places), (_QUERIES, 2))
    route(walk, space, places[0], places[1], False, None, marks)
    times = []
    for a, b in pairs:
        began = time.perf_counter()
        route(walk, space, places[a], places[b], False, None, marks)
        times.append(1000.0 * (time.perf_counter() - began))
    built = (
        f"median of {_RUNS} runs in turn: from the federation's geometry to the joined map, {len(solids.triangles):,} triangles, "
        "cells of 0.1 m, against a process that walks ifcopenshell's geometry iterator over the same files (2 threads)."
    )
    return [
        Measure("Building the walk map, one body", middle(ours), middle(reference), "s", 0.5, built),
        Measure(
            "Building the walk map, four bodies", middle(four), middle(reference), "s", None,
            "the same for standing, stooping, trolley and wheelchair together, as the job makes it.",
        ),
        Measure(
            "Walk map of four times the building", grown[4], 4.0 * grown[1], "s", 1.05,
            f"the demo once, twice and four times side by side took {grown[1]:.2f}, {grown[2]:.2f} and {grown[4]:.2f} s; "
            "the reference is four times the first. Linear growth is 1; 0.05 is left for noise.",
        ),
        Measure(
            "Memory for 10,000 m2 of walkable floor", megabytes * 1e4 / free_m2, _LIMIT_MB, "MB", 1.0,
            f"{megabytes:.1f} MB for {free_m2:,.0f} m2 on which somebody standing fits, tops of furniture and roofs included; "
            "the reference is the limit.",
        ),
        Measure(
            "A route query, 95th percentile", float(np.percentile(times, 95)), _LIMIT_MS, "ms", 1.0,
            f"{_QUERIES} pairs of the demo's rooms drawn at random, standing, map in memory, with narrowest, lowest and pinches or "
            f"what blocks; median {np.percentile(times, 50):.0f} ms, slowest {max(times):.0f} ms. The reference is the limit.",
        ),
    ]  # fmt: skip
