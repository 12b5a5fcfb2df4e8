"""Files with something wrong beside a good one: no death, no hang, bounded memory, the good one read each time."""

from __future__ import annotations

import json
import time
from collections import Counter

import pytest

from stairpath.core.cutting.keyplan import document, draw_key_plan
from stairpath.core.federation import report
from stairpath.core.federation.federate import federate
from stairpath.core.federation.outline import outline
from stairpath.core.mesh.chunks import build_chunks
from stairpath.core.picture.building import draw_picture
from stairpath.core.problems import CannotReadError
from stairpath.core.reading.read import read_model
from stairpath.core.sandbox import Limits, run_sandboxed
from stairpath.core.walking.bodies import BODIES
from stairpath.core.walking.clearance import Space
from stairpath.core.walking.solids import solids_of
from stairpath.core.walking.tile import places, tiles_at
from tests.samples import Sample
from tests.soak.length import SEED, length
from tests.soak.mutations import mutated

FILES = length(18, 300)
MEMORY_MB = 2500
LONGEST_S = 90.0


def house() -> Sample:
    """Two storeys with slabs, walls, doors, properties, a grid and rooms: something of everything that is read."""
    sample = Sample("IFC4", "mm")
    sample.grid({"1": 0.0, "2": 6000.0}, {"A": 0.0, "B": 4000.0}, 8000)
    sample.map_conversion(412_300.0, 88_650.0, 3.0, 17.0)
    make = sample.make
    for name, height in (("Level 00", 0), ("Level 01", 3000)):
        storey = sample.storey(name, height)
        sample.box(storey, (0, 0, -300), (9000, 6000, 300), "IfcSlab", Name="Slab", Tag=f"S-{name}")
        for k in range(6):
            wall = sample.box(storey, (1400 * k, 0, 0), (200, 6000, 2700), Name="Wall", Tag=f"W-{k}")
            value = make("IfcPropertySingleValue", "Width", None, make("IfcLengthMeasure", 200.0), None)
            bundle = sample.root("IfcPropertySet", Name="Sizes", HasProperties=[value])
            sample.relate("IfcRelDefinesByProperties", RelatedObjects=[wall], RelatingPropertyDefinition=bundle)
        sample.room(storey, "0.01", "Hall", (200, 0, 0), (1200, 6000, 2700))
    return sample


def all_of_it(good: bytes, bad: bytes, report_to) -> tuple[int, int, list[str]]:
    """Everything that is done with two files: reading, drawing, aligning, planning, picturing, mapping."""
    fine = read_model("T-ARC.ifc", good)
    assert fine.problems == ()
    odd = read_model("T-AIR.ifc", bad, report_to, 10.0)
    build_chunks(odd)
    building = federate([outline(fine), outline(odd)])
    json.dumps(report.document(building, [fine, odd]), allow_nan=False)
    for level in range(len(building.levels)):
        json.dumps(document(draw_key_plan(building, level), building.origin_m), allow_nan=False)
    draw_picture(building)
    space = Space(solids_of(building))
    for place in places(space)[:4]:
        tiles_at(space, place, BODIES.values())
    return len(fine.components), len(odd.components), [p.code for p in odd.problems]


@pytest.fixture(scope="module")
def good() -> bytes:
    return house().content()


def test_files_with_something_wrong(good):
    """Each ends with a reading or a sentence of its own, and the good file beside it is read each time."""
    whole, refused, problems = 0, Counter[str](), Counter[str]()
    faults: list[str] = []
    slowest = 0.0
    for number in range(FILES):
        bad = mutated(good, number, SEED)
        began = time.monotonic()
        try:
            fine, _, codes = run_sandboxed(all_of_it, good, bad, limits=Limits(LONGEST_S, LONGEST_S, MEMORY_MB))
        except CannotReadError as error:
            sentence = str(error)
            assert sentence.startswith("T-AIR.ifc "), sentence
            assert sentence.endswith(".")
            refused[sentence[10:60]] += 1
        except Exception as error:
            faults.append(f"mutation {number}: {type(error).__name__}: {error} {getattr(error, 'trace', '')[-300:]}")
        else:
            assert fine == 14
            whole += 1
            problems.update(codes)
        slowest = max(slowest, time.monotonic() - began)
    print(f"{FILES} files: {whole} read, {sum(refused.values())} refused {dict(refused)}; slowest {slowest:.1f} s")
    print(f"problems named: {dict(problems)}")
    assert faults == [], f"seed {SEED}"
    # Of what was done to them, little is wrong with the whole file.
    assert whole >= 0.8 * FILES


def test_a_wall_of_thousands_of_openings_is_left_out_or_made_in_time():
    openings = length(800, 10_000)
    sample = Sample()
    storey = sample.storey("Level 00", 0)
    wall = sample.box(storey, (0, 0, 0), (0.5 * openings, 0.3, 3), Name="Wall", Tag="W-1")
    sample.box(storey, (0, 5, 0), (1, 1, 1), Name="Other", Tag="W-2")
    for k in range(openings):
        hole = sample.root("IfcOpeningElement", ObjectPlacement=sample.place(wall.ObjectPlacement, (0.5 * k, -0.1, 1)))
        hole.Representation = sample.shape(sample.solid((0.3, 0.5, 1)))
        sample.relate("IfcRelVoidsElement", RelatingBuildingElement=wall, RelatedOpeningElement=hole)
    began = time.monotonic()
    reading = read_model("a.ifc", sample.content(), longest_silence_s=length(5.0, 60.0))
    print(f"{openings} openings: {time.monotonic() - began:.1f} s, {[p.text for p in reading.problems]}")
    assert [c.tag for c in reading.components] == ["W-1", "W-2"]
    assert 1 in reading.geometry.owner
    assert 0 in reading.geometry.owner or "left-out" in {p.code for p in reading.problems}
