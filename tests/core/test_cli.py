"""The headless command: its document, its exit codes, its sentences."""

import json
import subprocess
import sys
import zipfile

import pytest
from typer.testing import CliRunner

from stairpath.cli import app
from tests.samples import Sample, simple


def run(*arguments):
    return CliRunner().invoke(app, list(map(str, arguments)))


def test_read_gives_one_json_document(tmp_path):
    sample = simple("IFC4", "mm")
    storey = sample.ifc.by_type("IfcBuildingStorey")[0]
    sample.room(storey, "0.01", "Only room", (0, 0, 0), (6000, 6000, 3000))
    sample.box(None, (0, 0, 0), (1000, 1000, 1000), "IfcBeam", Name="Lost", Tag="B-1")
    path = tmp_path / "QH-ARC.ifc"
    path.write_bytes(sample.content())
    result = run("read", path, "--components", "--json")
    assert result.exit_code == 0
    document = json.loads(result.stdout)
    (model,) = document["models"]
    assert model["name"] == "QH-ARC"
    assert model["schema"] == "IFC4"
    assert model["length_unit"] == "millimetre"
    assert model["components"] == 2
    assert model["spaces"] == 1
    assert model["by_class"] == {"IfcWall": 1, "IfcBeam": 1}
    assert model["by_level"] == {"Level 00": 1, "No level": 1}
    assert model["by_discipline"] == {"ARC": 2}
    assert model["storeys"] == [{"name": "Level 00", "elevation_m": 0.0}]
    assert model["triangles"] == 24
    assert model["alignment"]["by"] == "placement"
    assert model["alignment"]["shift_m"] == [0, 0, 0]
    assert model["bounds_m"] == model["bounds_own_m"] == [[0, 0, 0], [5, 2.2, 3]]
    assert [p["code"] for p in model["problems"]] == ["no-storey"]
    wall = document["components"][0]
    assert set(wall) >= {"global_id", "model", "class", "name", "tag", "level", "discipline", "bounds_m"}
    assert wall["tag"] == "W-1"
    assert wall["bounds_m"] == [[1, 2, 0], [5, 2.2, 3]]
    assert document["components"][1]["level"] is None


def test_read_without_json_is_for_people(tmp_path):
    path = tmp_path / "a.ifc"
    path.write_bytes(simple().content())
    result = run("read", path)
    assert result.exit_code == 0
    assert "1 components, 12 triangles; aligned by placement" in result.stdout


@pytest.mark.parametrize("content", [b"", b"not ifc at all", simple().content()[:-300]])
def test_what_cannot_be_read_exits_with_2_and_one_sentence(tmp_path, content):
    path = tmp_path / "bad.ifc"
    path.write_bytes(content)
    result = run("read", path, "--json")
    assert result.exit_code == 2
    assert result.stdout == ""
    lines = result.stderr.strip().splitlines()
    assert len(lines) == 1
    assert lines[0].startswith("bad.ifc is ")


def test_a_file_that_is_not_there(tmp_path):
    result = run("read", tmp_path / "none.ifc", "--json")
    assert result.exit_code == 2
    assert "does not exist" in result.stderr
    assert "Traceback" not in result.stderr


def test_many_files_and_a_zip_are_one_building(tmp_path):
    far = simple("IFC2X3", "ft")
    far.ifc.by_type("IfcWall")[0].Tag = "W-2"
    (tmp_path / "T-ARC.ifc").write_bytes(simple("IFC4", "mm").content())
    with zipfile.ZipFile(tmp_path / "rest.ifczip", "w") as archive:
        archive.writestr("models/T-STR.ifc", far.content())
        archive.writestr("models/T-AIR.ifc", simple().content())
        archive.writestr("readme.txt", "nothing to read")
    result = run("read", tmp_path / "T-ARC.ifc", tmp_path / "rest.ifczip", "--json", "--components")
    assert result.exit_code == 0, result.stderr
    document = json.loads(result.stdout)
    assert [m["name"] for m in document["models"]] == ["T-ARC", "T-STR", "T-AIR"]
    assert [m["length_unit"] for m in document["models"]] == ["millimetre", "foot", "metre"]
    assert document["levels"] == [{"name": "Level 00", "elevation_m": 0.0}]
    assert [(c["model"], c["tag"], c["discipline"]) for c in document["components"]] == [
        ("T-ARC", "W-1", "ARC"), ("T-STR", "W-2", "STR"), ("T-AIR", "W-1", "AIR"),
    ]  # fmt: skip
    assert len({json.dumps(c["bounds_m"]) for c in document["components"]}) == 1
    assert sorted(result.stderr.split()) == sorted(["read", "T-ARC.ifc", "read", "T-STR.ifc", "read", "T-AIR.ifc"])


def test_one_bad_file_of_many_stops_with_its_own_sentence(tmp_path):
    (tmp_path / "good.ifc").write_bytes(simple().content())
    (tmp_path / "bad.ifc").write_bytes(simple().content().replace(b"IFCPROJECT(", b"IFCPERSON(", 1))
    result = run("read", tmp_path / "good.ifc", tmp_path / "bad.ifc", "--json")
    assert result.exit_code == 2
    assert result.stdout == ""
    assert any(line.startswith("bad.ifc ") for line in result.stderr.splitlines())
    assert "Traceback" not in result.stderr


def test_as_a_command_it_has_help_output_and_exit_codes_of_its_own(tmp_path):
    (tmp_path / "good.ifc").write_bytes(simple().content())
    (tmp_path / "bad.ifc").write_text("not ifc at all")

    def command(*arguments):
        own = [sys.executable, "-m", "stairpath", *arguments]
        return subprocess.run(own, cwd=tmp_path, capture_output=True, text=True, check=False)

    helped = command("--help")
    assert helped.returncode == 0
    assert {"read", "route", "walkmap", "frame", "plan"} <= set(helped.stdout.split())
    good, bad = command("read", "good.ifc", "--json"), command("read", "bad.ifc", "--json")
    assert good.returncode == 0
    assert json.loads(good.stdout)["models"][0]["components"] == 1
    assert (bad.returncode, bad.stdout) == (2, "")
    assert bad.stderr.startswith("bad.ifc ")
    assert len(bad.stderr.splitlines()) == 1


@pytest.fixture(scope="module")
def two_rooms(tmp_path_factory):
    """A storey of two rooms with a wall between them."""
    sample = simple()
    storey = sample.ifc.by_type("IfcBuildingStorey")[0]
    sample.room(storey, "0.01", "Store", (0, 0, 0), (4, 2, 3))
    sample.room(storey, "0.02", "Store", (0, 2.2, 0), (4, 2, 3))
    sample.room(storey, "0.03", "Office", (5, 0, 0), (4, 4, 3))
    path = tmp_path_factory.mktemp("rooms") / "T-ARC.ifc"
    path.write_bytes(sample.content())
    return path


def test_frame_says_where_the_camera_stands(two_rooms):
    result = run("frame", two_rooms, "--bearing", 0, "--tilt", 0, "--fit", "room:Office", "--focal", 18,
                 "--aspect", "2/1", "--margin", 0, "--json")  # fmt: skip
    assert result.exit_code == 0, result.stderr
    pose = json.loads(result.stdout)
    assert set(pose) == {"eye_m", "target_m", "up", "projection", "angle_deg", "focal_mm", "height_m", "aspect"}
    assert (pose["angle_deg"], pose["focal_mm"], pose["aspect"]) == (pytest.approx(90), pytest.approx(18), 2)
    # A front 3 m high fills the frame from 3 m away, for the frame is as high as it is far.
    assert pose["eye_m"] == pytest.approx([7, -3, 1.5])


def test_frame_of_a_component_a_storey_and_all_in_parallel(two_rooms):
    document = json.loads(run("read", two_rooms, "--components", "--json").stdout)
    wall = document["components"][0]["global_id"]
    poses = [
        json.loads(run("frame", two_rooms, "--fit", what, "--projection", "parallel", "--aspect", 1, "--margin", 0.1,
                       "--tilt", 90, "--json").stdout)
        for what in (wall, "storey:00", "all")
    ]  # fmt: skip
    assert [p["height_m"] for p in poses] == [pytest.approx(4 / 0.8)] * 3
    assert poses[0]["up"] == pytest.approx([0, 1, 0])


@pytest.mark.parametrize(
    ("arguments", "words"),
    [
        (("--fit", "room:Store"), "There are several rooms Store; give the number of one: 0.01, 0.02."),
        (("--fit", "room:Attic"), "There is no room Attic; give its number or its name."),
        (("--fit", "storey:07"), "There is no storey 07; the building has Level 00."),
        (("--fit", "nothing"), "There is no component nothing; give its GlobalId."),
        (("--angle", "150"), "The angle of view must be between 1 and 120 degrees."),
        (("--angle", "60", "--focal", "35"), "The lens is given twice; give --angle or --focal."),
        (("--aspect", "wide"), "wide is not an aspect; give width over height, such as 16/10 or 1.6."),
        (("--projection", "isometric"), "isometric is not a projection; give perspective or parallel."),
        (("--margin", "0.6"), "The margin must be at least 0 and less than 0.5."),
    ],
)
def test_frame_refuses_in_one_sentence(two_rooms, arguments, words):
    result = run("frame", two_rooms, *arguments, "--json")
    assert result.exit_code == 2
    assert result.stdout == ""
    assert result.stderr.strip().splitlines()[-1] == words


def test_plan_writes_a_drawing(two_rooms, tmp_path):
    out = tmp_path / "level 00.svg"
    result = run("plan", two_rooms, "--storey", "Level 00", "--svg", out, "--json")
    assert result.exit_code == 0, result.stderr
    document = json.loads(result.stdout)
    assert document["cut_m"] == 1.2
    assert [r["number"] for r in document["rooms"]] == ["0.01", "0.02", "0.03"]
    (wall,) = document["solid"]
    assert {tuple(corner) for corner in wall} == {(1, 2), (5, 2), (5, 2.2), (1, 2.2)}
    assert "Office" in out.read_text()


def test_plan_above_everything_is_empty_and_a_wrong_storey_is_told(two_rooms, tmp_path):
    high = run("plan", two_rooms, "--storey", "00", "--height", 9, "--svg", tmp_path / "high.svg", "--json")
    assert json.loads(high.stdout)["solid"] == []
    wrong = run("plan", two_rooms, "--storey", "Attic", "--svg", tmp_path / "wrong.svg")
    assert wrong.exit_code == 2
    assert "There is no storey Attic" in wrong.stderr
    nowhere = run("plan", two_rooms, "--storey", "00", "--svg", tmp_path / "none" / "a.svg")
    assert nowhere.exit_code == 2
    assert "cannot be written" in nowhere.stderr


def rooms_with_gap(path, gap=0.9):
    """Two rooms of 4 x 3 m beside one another with a gap in the wall between them, at national-grid coordinates."""
    sample = Sample("IFC4", "m")
    storey = sample.storey("Level 00", 0.0)
    x, y = 400_000.0, 80_000.0
    sample.box(storey, (x - 0.2, y - 0.2, -0.3), (8.6, 3.4, 0.3), "IfcSlab")
    for corner, size in (
        ((-0.2, -0.2), (8.6, 0.2)),
        ((-0.2, 3), (8.6, 0.2)),
        ((-0.2, 0), (0.2, 3)),
        ((8.2, 0), (0.2, 3)),
        ((4, 0), (0.2, 1)),
        ((4, 1 + gap), (0.2, 2 - gap)),
    ):
        sample.box(storey, (x + corner[0], y + corner[1], 0), (*size, 3), "IfcWall")
    sample.room(storey, "0.01", "West", (x, y, 0), (4, 3, 3))
    sample.room(storey, "0.02", "East", (x + 4.2, y, 0), (4, 3, 3))
    path.write_bytes(sample.content())
    return path


def test_walkmap_says_how_much_floor_is_free(tmp_path):
    result = run("walkmap", rooms_with_gap(tmp_path / "a.ifc"), "--json")
    assert result.exit_code == 0
    document = json.loads(result.stdout)
    assert document["cell_m"] == 0.1
    (storey,) = document["storeys"]
    ground = min(storey["floors"], key=lambda floor: abs(floor["level_m"]))
    # Both rooms less 0.25 m all round, and the gap between them.
    assert ground["level_m"] == 0
    assert ground["free_area_m2"] == pytest.approx(2 * 3.5 * 2.5 + 0.7 * 0.4, rel=0.03)
    assert document["bytes"] > 0


def test_route_gives_its_fields_in_project_coordinates(tmp_path):
    path = rooms_with_gap(tmp_path / "a.ifc", 0.72)
    result = run("route", path, "--from", "room:0.01", "--to", "400006.5,80001.5,0", "--body", "standing", "--json")
    assert result.exit_code == 0
    document = json.loads(result.stdout)
    assert document["found"] is True
    assert document["risers"] == 0
    assert document["points_m"][-1] == pytest.approx([400_006.5, 80_001.5, 0])
    assert document["length_m"] == pytest.approx(4.6, abs=0.4)
    assert document["narrowest"]["width_m"] == pytest.approx(0.72, abs=0.01)
    assert len(document["narrowest"]["components"]) == 2
    assert document["narrowest"]["at_m"][0] == pytest.approx(400_004.1, abs=0.3)
    assert document["lowest"] is None
    assert [p["what"] for p in document["pinches"]] == ["width"]
    assert document["blocked"] is None
    told = run("route", path, "--from", "room:West", "--to", "room:East")
    assert "0 risers" in told.stdout


def test_route_says_what_blocks_it(tmp_path):
    result = run(
        "route", rooms_with_gap(tmp_path / "a.ifc", 0.72), "--from", "room:0.01", "--to", "room:0.02", "--body", "wheelchair",
        "--json",
    )  # fmt: skip
    assert result.exit_code == 0
    document = json.loads(result.stdout)
    assert document["found"] is False
    assert document["points_m"] == []
    blocked = document["blocked"]
    assert blocked["needs"] == "0.72 m wide, 0.80 m needed: 0.08 m wider."
    assert len(blocked["components"]) == 2
    assert blocked["nearest_m"][0] == pytest.approx(400_003.8, abs=0.5)


@pytest.mark.parametrize(
    ("options", "said"),
    [
        (("--from", "room:9.99", "--to", "room:0.01"), "no room 9.99"),
        (("--from", "here", "--to", "room:0.01"), "here is not a place"),
        (("--from", "1,2,3", "--to", "room:0.01"), "no floor at 1,2,3"),
        (("--from", "room:0.01", "--to", "room:0.02", "--body", "giant"), "giant is not a body"),
        (("--from", "room:0.01", "--to", "room:0.02", "--width", "-1"), "limit"),
    ],
)
def test_route_refuses_in_one_sentence(tmp_path, options, said):
    result = run("route", rooms_with_gap(tmp_path / "a.ifc"), *options, "--json")
    assert result.exit_code == 2
    assert result.stdout == ""
    assert said in result.stderr.splitlines()[-1]
    assert "Traceback" not in result.stderr
