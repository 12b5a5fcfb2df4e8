"""What is read out of a file, and what is kept and reported when it is not as it should be."""

import os
import time

import numpy as np
import pytest

from stairpath.core.problems import CannotReadError
from stairpath.core.reading.model import Quantity
from stairpath.core.reading.pack import pack, unpack
from stairpath.core.reading.read import own_bounds, read_model
from stairpath.core.reading.sandboxed import read_many, read_sandboxed
from stairpath.core.sandbox import CancelledError, Limits
from tests.samples import Sample, simple


def read(sample: Sample):
    return read_model("sample.ifc", sample.content())


def codes(reading):
    return {p.code: p.components for p in reading.problems}


@pytest.mark.parametrize(
    ("schema", "unit", "name"), [("IFC4", "m", "metre"), ("IFC4", "mm", "millimetre"), ("IFC2X3", "ft", "foot")]
)
def test_every_unit_comes_out_in_metres(schema, unit, name):
    reading = read(simple(schema, unit))
    assert reading.schema == schema
    assert reading.length_unit == name
    assert own_bounds(reading) == pytest.approx(np.array([[1, 2, 0], [5, 2.2, 3]]), abs=1e-6)
    assert reading.problems == ()


def test_duplicated_global_ids_are_both_kept():
    sample = Sample()
    storey = sample.storey("Level 00", 0)
    same = "0" * 22
    sample.box(storey, (0, 0, 0), (1, 1, 1), global_id=same)
    sample.box(storey, (5, 0, 0), (1, 1, 1), global_id=same)
    reading = read(sample)
    assert [c.global_id for c in reading.components] == [same, f"{same}~2"]
    assert codes(reading)["duplicate-global-id"] == (same,)
    bounds = own_bounds(reading)
    assert bounds is not None
    assert bounds[1, 0] == pytest.approx(6)


def test_components_on_no_storey_or_without_shape_are_kept_and_reported():
    sample = Sample()
    storey = sample.storey("Level 00", 0)
    lost = sample.box(None, (0, 0, 0), (1, 1, 1))
    bare = sample.box(storey, (0, 0, 0), (1, 1, 1), Representation=None)
    reading = read(sample)
    assert len(reading.components) == 2
    assert codes(reading) == {"no-storey": (lost.GlobalId,), "no-geometry": (bare.GlobalId,)}


def test_broken_geometry_is_kept_and_reported():
    sample = simple()
    storey = sample.ifc.by_type("IfcBuildingStorey")[0]
    broken = sample.box(storey, (0, 0, 0), (1, 1, 1), Representation=sample.shape(sample.solid((1, 1, 0))))
    reading = read(sample)
    assert len(reading.components) == 2
    assert codes(reading) == {"broken-geometry": (broken.GlobalId,)}


def test_a_whole_without_shape_whose_parts_have_one_is_no_problem():
    sample = simple()
    storey = sample.ifc.by_type("IfcBuildingStorey")[0]
    whole = sample.box(storey, (0, 0, 0), (1, 1, 1), "IfcStair", Representation=None)
    part = sample.root(
        "IfcStairFlight",
        ObjectPlacement=sample.place(storey.ObjectPlacement, (0, 0, 0)),
        Representation=sample.shape(sample.solid((1, 1, 1))),
    )
    sample.relate("IfcRelAggregates", RelatingObject=whole, RelatedObjects=[part])
    reading = read(sample)
    assert reading.problems == ()
    flight = next(c for c in reading.components if c.ifc_class == "IfcStairFlight")
    assert flight.storey == storey.GlobalId
    assert flight.part_of == whole.GlobalId


def test_openings_are_no_components_and_are_cut_out():
    sample = simple()
    wall = sample.ifc.by_type("IfcWall")[0]
    hole = sample.root(
        "IfcOpeningElement",
        ObjectPlacement=sample.place(wall.ObjectPlacement, (1, -0.5, 0)),
        Representation=sample.shape(sample.solid((1, 2, 2))),
    )
    sample.relate("IfcRelVoidsElement", RelatingBuildingElement=wall, RelatedOpeningElement=hole)
    reading = read(sample)
    assert [c.ifc_class for c in reading.components] == ["IfcWall"]
    assert reading.geometry.triangle_count > 12


def test_properties_and_quantities_in_metres_with_units():
    sample = simple("IFC4", "mm")
    wall = sample.ifc.by_type("IfcWall")[0]
    make = sample.make
    values = [
        make("IfcPropertySingleValue", "Width", None, make("IfcPositiveLengthMeasure", 200.0), None),
        make("IfcPropertySingleValue", "LoadBearing", None, make("IfcBoolean", True), None),
        make("IfcPropertySingleValue", "Note", None, None, None),
    ]
    bundle = sample.root("IfcPropertySet", Name="Pset_Own", HasProperties=values)
    base = sample.root(
        "IfcElementQuantity", Name="Base", Quantities=[make("IfcQuantityLength", "Length", None, None, 4000.0)]
    )
    for definition in (bundle, base):
        sample.relate("IfcRelDefinesByProperties", RelatedObjects=[wall], RelatingPropertyDefinition=definition)
    (component,) = read(sample).components
    assert component.properties == {"Pset_Own": {"Width": Quantity(0.2, "m"), "LoadBearing": True, "Note": None}}
    assert component.quantities == {"Base": {"Length": Quantity(4.0, "m")}}


def test_shapes_that_repeat_are_stored_once():
    sample = Sample()
    storey = sample.storey("Level 00", 0)
    sample.repeated(storey, 5)
    geometry = read(sample).geometry
    assert len(geometry.shapes) == 1
    assert len(geometry.owner) == 5
    assert geometry.triangle_count == 60
    assert geometry.bounds(5)[4, 1] == pytest.approx([13, 1, 1])


def test_far_from_zero_stays_sharp():
    sample = Sample()
    storey = sample.storey("Level 00", 0)
    sample.box(storey, (412_345.678, 5_400_000.123, 0), (0.012, 0.012, 0.012))
    bounds = own_bounds(read(sample))
    assert bounds is not None
    assert bounds[1] - bounds[0] == pytest.approx([0.012] * 3, abs=1e-6)


def test_packing_keeps_geometry():
    geometry = read(simple()).geometry
    back = unpack(pack(geometry))
    assert np.array_equal(back.matrix, geometry.matrix)
    assert np.array_equal(back.shapes[0].vertices, geometry.shapes[0].vertices)
    assert np.array_equal(back.owner, geometry.owner)


def test_text_that_only_looks_like_ifc():
    with pytest.raises(CannotReadError, match=r"cannot be parsed|holds no project|is written in"):
        read_model("x.ifc", b"ISO-10303-21;\nHEADER;\nENDSEC;\nDATA;\nnonsense\nENDSEC;\nEND-ISO-10303-21;\n")


# Children that stand in for a geometry kernel that misbehaves.
def _crash(name, content, progress):
    if b"crash" in content:
        progress(0.5, "3abcdefghijklmnopqrstu")
        time.sleep(0.3)
        os.kill(os.getpid(), 11)
    return read_model(name, content, progress)


def _hang(name, content, progress):
    progress(0.3, "2abcdefghijklmnopqrstu")
    time.sleep(60)


def test_a_crash_names_the_file_and_the_component():
    with pytest.raises(CannotReadError, match=r"bad\.ifc crashed its reader \(SIGSEGV\), last at component 3abc"):
        read_sandboxed("bad.ifc", b"crash", read=_crash)


def test_a_hang_is_ended():
    with pytest.raises(CannotReadError, match=r"slow\.ifc took longer than allowed.*2abc"):
        read_sandboxed("slow.ifc", b"", limits=Limits(total_s=30, silence_s=1.0), read=_hang)


def test_cancelling_ends_the_child():
    started = time.monotonic()
    with pytest.raises(CancelledError):
        read_sandboxed("slow.ifc", b"", cancelled=lambda: time.monotonic() - started > 0.5, read=_hang)
    assert time.monotonic() - started < 20


def test_one_bad_file_leaves_the_others_alone():
    good = simple().content()
    first, second, third = read_many([("a.ifc", good), ("b.ifc", good[:300]), ("c.ifc", good)])
    assert isinstance(second, CannotReadError)
    assert not isinstance(first, CannotReadError)
    assert not isinstance(third, CannotReadError)
    assert third.name == "c"
