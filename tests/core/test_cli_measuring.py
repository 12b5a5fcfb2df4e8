"""Cuts and measures without a server: their documents, and their sentences where something is not to be had."""

import json

import pytest

from tests.core.test_cli import run
from tests.samples import Sample


@pytest.fixture(scope="module")
def files(tmp_path_factory):
    """A wall, a duct 0.3 m over its top and one through it, a door in it, on national-grid coordinates."""
    folder = tmp_path_factory.mktemp("measured")
    x, y = 400_000.0, 80_000.0
    sample = Sample("IFC4", "m")
    storey = sample.storey("Level 00", 10.0)
    sample.grid({"1": x, "2": x + 6}, {"A": y, "B": y + 4})
    sample.box(storey, (x - 1, y - 1, -0.3), (10, 8, 0.3), "IfcSlab", Name="Floor", global_id="0floor_______________f")
    wall = sample.box(storey, (x, y, 0), (6, 0.2, 3), Name="Wall", global_id="0wall________________w")
    arc = folder / "QH-ARC.ifc"
    door = sample.box(storey, (x + 1, y, 0), (1, 0.2, 2), "IfcDoor", Name="Door", global_id="0door________________d")
    opening = sample.root("IfcOpeningElement", ObjectPlacement=sample.place(storey.ObjectPlacement, (x + 1, y, 0)))
    sample.relate("IfcRelVoidsElement", RelatingBuildingElement=wall, RelatedOpeningElement=opening)
    sample.relate("IfcRelFillsElement", RelatingOpeningElement=opening, RelatedBuildingElement=door)
    arc.write_bytes(sample.content())
    air = Sample("IFC4", "m")
    storey = air.storey("Level 00", 10.0)
    for name, z in (("over", 3.3), ("thru", 2.7)):
        air.box(
            storey, (x + 3, y - 2, z), (0.5, 5, 0.4), "IfcDuctSegment", Name=name, global_id=f"0duct____________{name}_"
        )
    path = folder / "QH-AIR.ifc"
    path.write_bytes(air.content())
    return [arc, path]


WALL, DOOR, FLOOR = "0wall________________w", "0door________________d", "0floor_______________f"
OVER, THROUGH = "0duct____________over_", "0duct____________thru_"


def answered(*arguments):
    result = run(*arguments, "--json")
    assert result.exit_code == 0, result.stderr
    return json.loads(result.stdout)


def test_a_cut_at_a_height_above_a_storey(files):
    document = answered("cut", *files, "--storey", "Level 00", "--height", "1.2")
    assert document["plane"] == {"point_m": [0, 0, 11.2], "normal": [0, 0, 1]}
    assert document["open"] == []
    wall = next(c for c in document["components"] if c["global_id"] == WALL)
    assert set(wall) >= {"global_id", "model", "class", "name", "area_m2", "perimeter_m", "rings"}
    assert (wall["model"], wall["class"], wall["name"]) == ("QH-ARC", "IfcWall", "Wall")
    assert wall["area_m2"] == pytest.approx(1.2)
    assert wall["perimeter_m"] == pytest.approx(12.4)
    (ring,) = wall["rings"]
    assert ring["hole"] is False
    assert sorted(ring["points_m"])[0] == pytest.approx([400_000, 80_000, 11.2])
    assert document["area_m2"] == pytest.approx(sum(c["area_m2"] for c in document["components"]))


def test_a_cut_along_a_grid_axis_and_by_a_plane(files):
    document = answered("cut", *files, "--grid", "a", "--select", "discipline:AIR")
    assert document["plane"]["normal"] == pytest.approx([0, -1, 0])
    assert [c["area_m2"] for c in document["components"]] == pytest.approx([0.2, 0.2])
    slanted = answered("cut", *files, "--plane", "400003,80000.1,11,0,1,1", "--select", WALL)
    (wall,) = slanted["components"]
    assert wall["area_m2"] == pytest.approx(6 * 0.2 * 2**0.5)
    told = run("cut", *files, "--storey", "00", "--height", "1.2", "--select", WALL)
    assert told.stdout == "QH-ARC IfcWall Wall: 1.200 m2, 12.400 m around\n"


def test_a_cut_that_meets_nothing_is_an_answer(files):
    document = answered("cut", *files, "--storey", "00", "--height", "90")
    assert (document["components"], document["area_m2"], document["open"]) == ([], 0, [])


@pytest.mark.parametrize(
    ("options", "said"),
    [
        ((), "give one of them"),
        (("--plane", "0,0,0,0,0,1", "--grid", "A"), "give one of them"),
        (("--plane", "0,0,0,0,0"), "give X,Y,Z,NX,NY,NZ"),
        (("--plane", "0,0,0,0,0,0"), "no length"),
        (("--plane", "0,0,nan,0,0,1"), "finite numbers"),
        (("--storey", "00"), "give --height"),
        (("--height", "1"), "give one of them"),
        (("--grid", "1", "--height", "1"), "give --storey with it"),
        (("--storey", "07", "--height", "1"), "no storey 07; the building has Level 00"),
        (("--grid", "Z"), "no grid axis Z; the building has 1, 2, A, B"),
        (("--grid", "A", "--select", "discipline:WTR"), "selects nothing"),
        (("--grid", "A", "--select", "rubbish:x"), "selects nothing; write all"),
    ],
)
def test_cut_refuses_in_one_sentence(files, options, said):
    result = run("cut", *files, *options, "--json")
    assert result.exit_code == 2
    assert result.stdout == ""
    assert said in result.stderr.splitlines()[-1]
    assert "Traceback" not in result.stderr


def test_a_measure_between_components_and_points(files):
    document = answered("measure", *files, "--from", WALL, "--to", OVER)
    assert set(document) >= {
        "distance_m", "from_m", "to_m", "along_m", "along_building_m", "horizontal_m", "rise_m", "overlap",
    }  # fmt: skip
    assert document["distance_m"] == pytest.approx(0.3, abs=1e-6)
    assert document["along_m"] == pytest.approx([0, 0, 0.3], abs=1e-6)
    assert document["from_m"][2] == pytest.approx(13)
    assert document["overlap"] is False
    through = answered("measure", *files, "--from", WALL, "--to", THROUGH)
    assert (through["distance_m"], through["overlap"]) == (0, True)
    point = answered("measure", *files, "--from", "400000,80000,15", "--to", "400003,79996,15")
    assert point["distance_m"] == pytest.approx(5)
    assert point["horizontal_m"] == pytest.approx(5)
    assert point["rise_m"] == 0
    assert point["along_building_m"] == pytest.approx([3, -4, 0])
    back = answered("measure", *files, "--from", "400003,80000.1,15", "--to", WALL)
    assert back["distance_m"] == pytest.approx(2)
    assert "0.3000 m; along the building" in run("measure", *files, "--from", WALL, "--to", OVER).stdout


@pytest.mark.parametrize(
    ("start", "said"),
    [("nobody", "There is no component nobody"), ("1,2", "give X,Y,Z as numbers"), ("1,2,x", "give X,Y,Z as numbers")],
)
def test_measure_refuses_in_one_sentence(files, start, said):
    result = run("measure", *files, "--from", start, "--to", WALL, "--json")
    assert result.exit_code == 2
    assert result.stdout == ""
    assert said in result.stderr.splitlines()[-1]


def test_clear_height_and_width_at_a_point(files):
    document = answered("clear", *files, "--at", "400003.2,80002,11.5")
    assert document["floor"] == {"level_m": pytest.approx(10), "global_id": FLOOR}
    assert document["height"]["m"] == pytest.approx(2.7, abs=1e-6)
    assert document["height"]["global_id"] == THROUGH
    assert document["height"]["at_m"] == pytest.approx([400_003.2, 80_002, 12.7])
    assert document["width"]["m"] is None
    # In the doorway the leaf is open: between nothing and nothing, the wall has no opening here.
    assert answered("clear", *files, "--at", "399999.5,80003,10")["height"]["m"] is None
    assert "clear width: open" in run("clear", *files, "--at", "400003.2,80002,11.5").stdout
    nowhere = run("clear", *files, "--at", "0,0,0", "--json")
    assert nowhere.exit_code == 2
    assert nowhere.stderr.splitlines()[-1].startswith("There is no floor below that point")


def test_interference_of_two_groups(files):
    document = answered("interference", *files, "--a", "discipline:AIR", "--b", "class:IfcWall", "--clearance", "0.5")
    assert document["checked"] == 2
    pairs = {pair["a"]: pair for pair in document["pairs"]}
    through = pairs[THROUGH]
    assert set(through) >= {"a", "b", "kind", "depth_m", "volume_m3", "distance_m", "at_m", "left_out"}
    assert (through["kind"], through["b"], through["left_out"]) == ("overlap", WALL, None)
    assert through["depth_m"] == pytest.approx(0.3, abs=1e-5)
    assert through["volume_m3"] == pytest.approx(0.5 * 0.2 * 0.3, rel=1e-4)
    assert through["at_m"] == pytest.approx([400_003.25, 80_000.1, 12.85], abs=1e-4)
    assert pairs[OVER]["kind"] == "clearance"
    assert pairs[OVER]["distance_m"] == pytest.approx(0.3, abs=1e-6)
    assert [sorted(f["components"]) for f in document["findings"]] == [sorted([OVER, THROUGH, WALL])]


def test_what_is_hosted_is_left_out_unless_it_is_not_to_be(files):
    asked = ("interference", *files, "--a", DOOR, "--b", WALL)
    document = answered(*asked)
    assert [p["left_out"] for p in document["pairs"]] == ["one is hosted in the other"]
    assert document["findings"] == []
    assert len(answered(*asked, "--leave-out", "none")["findings"]) == 1
    assert "1 pairs left out" in run(*asked).stdout
    for options, said in (
        (("--leave-out", "doors"), "doors leaves no pairs out"),
        (("--clearance", "-1"), "zero or more metres"),
    ):
        result = run(*asked, *options, "--json")
        assert result.exit_code == 2
        assert said in result.stderr.splitlines()[-1]
