"""Files of which a little is wrong: that is left out and named, the rest is read."""

import io
import random
import re

import pytest

from stairpath.core.problems import CannotReadError
from stairpath.core.reading import mend
from stairpath.core.reading.intake import take_in
from stairpath.core.reading.mend import open_step
from stairpath.core.reading.read import read_model
from tests.samples import Sample, simple


def two_walls() -> Sample:
    sample = simple()
    storey = sample.ifc.by_type("IfcBuildingStorey")[0]
    sample.box(storey, (0, 5, 0), (4, 0.2, 3), Name="Second", Tag="W-2")
    return sample


def codes(reading) -> set[str]:
    return {p.code for p in reading.problems}


@pytest.mark.parametrize("as_file", [False, True])
@pytest.mark.parametrize(
    ("pattern", "by"),
    [
        (rb"#(\d+)=IFCPROPERTYSINGLEVALUE\(", rb"#\1=IFCPROPERTYSINGLEVALUE(("),
        (rb"#(\d+)=IFCORGANIZATION\(", rb"#\1=IFCORGANIZATION)"),
        (rb"#(\d+)=IFCPERSON\(", rb"#\1=IFCNOSUCHTHING("),
        (rb"#(\d+)=IFCPERSON\(", rb"#\1=IFCPERSON(?!?"),
    ],
)
def test_a_statement_that_is_none_costs_no_more_than_itself(tmp_path, pattern, by, as_file):
    sample = two_walls()
    wall = sample.ifc.by_type("IfcWall")[0]
    value = sample.make("IfcPropertySingleValue", "Rating", None, sample.make("IfcLabel", "REI 60"), None)
    bundle = sample.root("IfcPropertySet", Name="Fire", HasProperties=[value])
    sample.relate("IfcRelDefinesByProperties", RelatedObjects=[wall], RelatingPropertyDefinition=bundle)
    content = re.sub(pattern, by, sample.content(), count=1)
    assert content != sample.content()
    path = tmp_path / "a.ifc"
    path.write_bytes(content)
    reading = read_model("a.ifc", path if as_file else content)
    assert [c.tag for c in reading.components] == ["W-1", "W-2"]
    assert reading.geometry.triangle_count == 24
    if b"?!?" in content:
        (number,) = re.findall(rb"#(\d+)=IFCPERSON\(", content)
        said = next(p.text for p in reading.problems if p.code == "broken-statement")
        assert (
            said == f"One statement of the file is no STEP (#{number.decode()}) and left out; what it says is missing."
        )


@pytest.mark.parametrize("as_file", [False, True])
def test_a_byte_order_mark_is_skipped(tmp_path, as_file):
    content = b"\xef\xbb\xbf" + two_walls().content()
    with take_in("a.ifc", io.BytesIO(content)) as ((name, _),):
        assert name == "a.ifc"
    path = tmp_path / "a.ifc"
    path.write_bytes(content)
    reading = read_model("a.ifc", path if as_file else content)
    assert [c.tag for c in reading.components] == ["W-1", "W-2"]
    assert "broken-statement" not in codes(reading)


def test_a_few_flipped_bits_cost_no_more_than_their_statements():
    content, chance = two_walls().content(), random.Random(7)
    whole = len(open_step(content).ifc.by_type("IfcRoot"))
    for _ in range(40):
        damaged = bytearray(content)
        for _ in range(4):
            damaged[chance.randrange(len(damaged))] ^= 1 << chance.randrange(8)
        opened = open_step(bytes(damaged))
        # Each bit hits one statement, or the end of one and the next.
        assert len(opened.left_out) <= 8
        assert len(opened.ifc.by_type("IfcRoot")) >= whole - 8


def test_many_quotes_in_a_statement_without_an_end_take_no_time():
    text = b"#1=IFCPERSON(" + b"''" * 60 + b"$"
    assert mend._statement(text) is None
    assert mend._statement(text + b");") == text + b");"


def test_a_damaged_head_says_nothing_of_the_building():
    content = two_walls().content().replace(b"FILE_NAME(", b"FILE\x0eNAME(").replace(b"DATA;", b"DAT\xc1;")
    reading = read_model("a.ifc", content)
    assert ([c.tag for c in reading.components], reading.schema) == (["W-1", "W-2"], "IFC4")


def test_a_file_of_very_many_broken_statements_is_refused_in_a_sentence(monkeypatch):
    monkeypatch.setattr(mend, "MOST_LEFT_OUT", 3)
    content = re.sub(rb"=IFCCARTESIANPOINT\(\(", b"=IFCCARTESIANPOINT((?!?", two_walls().content())
    with pytest.raises(CannotReadError, match=r"^a\.ifc cannot be parsed as IFC; export it again"):
        read_model("a.ifc", content)


def test_a_relation_with_a_missing_end_is_counted_and_left():
    content = re.sub(
        rb"(IFCRELCONTAINEDINSPATIALSTRUCTURE\([^;]*?)\(#\d+[^)]*\)", rb"\1$", two_walls().content(), count=1
    )
    reading = read_model("a.ifc", content)
    assert len(reading.components) == 2
    assert codes(reading) & {"broken-relation", "no-storey", "broken-statement"}


def test_placements_in_a_circle_end_and_are_named():
    sample = two_walls()
    first, second = sample.ifc.by_type("IfcWall")
    first.ObjectPlacement.PlacementRelTo = first.ObjectPlacement
    reading = read_model("a.ifc", sample.content())
    assert len(reading.components) == 2
    assert "left-out" in codes(reading) or "broken-geometry" in codes(reading)
    named = next(p for p in reading.problems if p.code in ("left-out", "broken-geometry"))
    assert first.GlobalId in named.components
    assert second.GlobalId not in named.components


def test_wholes_in_a_circle_end():
    sample = two_walls()
    first, second = sample.ifc.by_type("IfcWall")
    sample.relate("IfcRelAggregates", RelatingObject=first, RelatedObjects=[second])
    sample.relate("IfcRelAggregates", RelatingObject=second, RelatedObjects=[first])
    reading = read_model("a.ifc", sample.content())
    assert len(reading.components) == 2
    assert reading.geometry.triangle_count == 24
    assert "broken-relation" in codes(reading)


def test_booleans_three_thousand_deep_end_and_the_rest_is_read():
    sample = two_walls()
    wall = sample.ifc.by_type("IfcWall")[0]
    representation = wall.Representation.Representations[0]
    body = representation.Items[0]
    cutter = sample.ifc.by_type("IfcExtrudedAreaSolid")[1]
    for _ in range(3000):
        body = sample.make("IfcBooleanResult", "DIFFERENCE", body, cutter)
    representation.Items = [body]
    representation.RepresentationType = "CSG"
    reading = read_model("a.ifc", sample.content(), longest_silence_s=3)
    assert [c.tag for c in reading.components] == ["W-1", "W-2"]
    assert set(reading.geometry.owner.tolist()) >= {1}


def test_texts_hold_nothing_that_cannot_be_kept():
    reading = read_model(
        "a.ifc", two_walls().content().replace(b"'Second'", b"'Se\\X2\\0000\\X0\\cond\\X2\\D83D\\X0\\'")
    )
    second = reading.components[1]
    assert "\0" not in second.name
    second.name.encode()
