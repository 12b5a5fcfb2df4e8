"""Finding, scheduling, and comparing two issues of a model."""

from __future__ import annotations

import tempfile
import time
from pathlib import Path
from types import SimpleNamespace

import numpy as np

from bench.measure import Measure, middle
from stairpath.core.comparing.compare import compare
from stairpath.core.comparing.issue import Issue
from stairpath.core.federation.federate import federate
from stairpath.core.federation.outline import outline
from stairpath.core.federation.placed import all_placed
from stairpath.core.reading.model import ModelReading, Quantity
from stairpath.core.reading.sandboxed import read_many
from stairpath.core.register.quantities import MeshFigures
from stairpath.core.register.schedule import schedule
from stairpath.core.register.search import Index
from stairpath.core.visibility.facts import facts_of
from stairpath.core.visibility.traits import ModelTraits, Traits, Words, traits
from tests.samples import Sample

COMPONENTS = 100_000
_SEARCHES = 300
_RUNS = 7
_FIND_MS, _SCHEDULE_MS = 100.0, 1000.0
_ISSUE = 20_000
_KINDS = (
    ("IfcDuctSegment", "Duct 320 x 200"), ("IfcPipeSegment", "Pipe DN 42"), ("IfcCableCarrierSegment", "Cable tray 300"),
    ("IfcWall", "Wall 150"), ("IfcDoor", "Door EI30"), ("IfcAirTerminal", "Swirl diffuser 600"),
)  # fmt: skip


def _building() -> Traits:
    chance = np.random.default_rng(11)
    of = [_KINDS[k] for k in chance.integers(0, len(_KINDS), COMPONENTS)]
    tags = [f"{'ABCDEFG'[k % 7]}{'PQRST'[k % 5]}-{k}" for k in range(COMPONENTS)]
    words = Words(
        [f"{k:022d}" for k in range(COMPONENTS)],
        tags,
        [ifc_class for ifc_class, _ in of],
        [kind for _, kind in of],
        [f"System {k % 40}" for k in range(COMPONENTS)],
        ["Steel"] * COMPONENTS,
        [f"{kind} {k % 700}" for k, (_, kind) in enumerate(of)],
        tags,
    )
    where = [chance.integers(low, high, COMPONENTS).astype(np.int32) for low, high in ((0, 10), (0, 8), (-1, 300))]

    def told() -> SimpleNamespace:
        k = next(number)
        return SimpleNamespace(
            description=f"Component {k % 5000} of the plant",
            properties={"Own": {"FireRating": ("EI30", "EI60", "")[k % 3], "Serial": f"SN{k * 7919 % 1000003}"}},
            quantities={"Base": {"Length": Quantity(float(k % 977) / 100, "m")}} if k % 2 else {},
        )

    number = iter(range(COMPONENTS))
    known = facts_of(told() for _ in range(COMPONENTS))
    return traits(
        [ModelTraits("m", "QH", True, words, *where)],
        [f"Level {k:02d}" for k in range(10)],
        [(f"{k // 30}.{k % 30:02d}", f"Room {k}") for k in range(300)],
        lambda: known,
    )


def _typed(chance: np.random.Generator) -> str:
    k = int(chance.integers(COMPONENTS))
    tag = f"{'ABCDEFG'[k % 7]}{'PQRST'[k % 5]}-{k}"
    wrong = tag.replace(tag[0], "X", 1)
    kind = _KINDS[k % len(_KINDS)][1]
    return (tag, wrong, kind.lower(), f"SN{k * 7919 % 1000003}", f"{kind.split()[0]} level {k % 10:02d}", kind[:-4])[
        k % 6
    ]


def _finding(asked: Traits) -> Measure:
    index = Index(asked)
    chance = np.random.default_rng(5)
    index.search("warm")
    took = []
    for _ in range(_SEARCHES):
        typed = _typed(chance)
        started = time.perf_counter()
        index.search(typed, 20)
        took.append(1000 * (time.perf_counter() - started))
    slow = float(np.percentile(took, 95))
    how = (
        f"the 95th percentile of {_SEARCHES} searches among {COMPONENTS:,} made-up components (median {middle(took):.0f} ms): "
        "tags, tags with a wrong letter, names, serial numbers, several words. The reference is the limit."
    )
    return Measure("Finding by letters among 100,000 components", slow, _FIND_MS, "ms", 1.0, how)


def _scheduling(asked: Traits) -> Measure:
    mesh = MeshFigures(*(np.ones(COMPONENTS) for _ in range(3)))
    everything = np.ones(COMPONENTS, dtype=bool)
    took = []
    for _ in range(_RUNS):
        started = time.perf_counter()
        groups = schedule(("class", "level"), ("length", "volume"), everything, asked, lambda: mesh)
        took.append(1000 * (time.perf_counter() - started))
    how = (
        f"median of {_RUNS} runs: {COMPONENTS:,} made-up components by class and level ({len(groups)} groups), length and volume "
        "summed, the figures from triangles at hand. The reference is the limit."
    )
    return Measure("A schedule of 100,000 components", middle(took), _SCHEDULE_MS, "ms", 1.0, how)


def _sample(moved: int = -1) -> Sample:
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    chance = np.random.default_rng(2)
    for k in range(_ISSUE):
        at = [float(k % 100), float(k // 100), 0.035 if k == moved else 0.0]
        size = chance.uniform(0.3, 0.7, 3).tolist()
        sample.box(storey, at, size, "IfcBuildingElementProxy", global_id=f"{k:022d}", Name=f"Box {k}", Tag=f"B-{k}")
    return sample


def _comparing() -> Measure:
    with tempfile.TemporaryDirectory() as folder:
        paths = [Path(folder) / f"QH-{name}.ifc" for name in ("A", "B")]
        for path, moved in zip(paths, (-1, 777), strict=True):
            path.write_bytes(_sample(moved).content())
        reading, readings = [], []
        for path in paths:
            started = time.perf_counter()
            readings += read_many([(path.name, path.read_bytes())])
            reading.append(time.perf_counter() - started)
    known = [each for each in readings if isinstance(each, ModelReading)]
    placed = all_placed(federate([outline(each) for each in known]))
    took = []
    for _ in range(3):
        issues = [
            Issue(each.components, where, {s.global_id: s.name for s in each.storeys})
            for each, where in zip(known, placed, strict=True)
        ]
        started = time.perf_counter()
        found = compare(*issues)
        took.append(time.perf_counter() - started)
    if (found.same, len(found.moved)) != (_ISSUE - 1, 1):
        raise RuntimeError(f"{found.same} the same, {len(found.moved)} moved")
    how = (
        f"median of 3 runs: two issues of a model of {_ISSUE:,} boxes, each with a shape of its own, one of them moved, against "
        "reading one of them on all cores."
    )
    return Measure("Comparing two issues of 20,000 components", middle(took), middle(reading), "s", 1.0, how)


def measure() -> list[Measure]:
    """Finding, scheduling, comparing."""
    asked = _building()
    return [_finding(asked), _scheduling(asked), _comparing()]
