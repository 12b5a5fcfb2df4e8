"""The headless command: its document, its exit codes, its sentences."""

import json
import subprocess
import sys

import pytest

from tests.samples import simple


def run(*arguments):
    return subprocess.run(
        [sys.executable, "-m", "stairpath", *map(str, arguments)], capture_output=True, text=True, check=False
    )


def test_read_gives_one_json_document(tmp_path):
    sample = simple("IFC4", "mm")
    storey = sample.ifc.by_type("IfcBuildingStorey")[0]
    sample.room(storey, "0.01", "Only room", (0, 0, 0), (6000, 6000, 3000))
    sample.box(None, (0, 0, 0), (1000, 1000, 1000), "IfcBeam", Name="Lost", Tag="B-1")
    path = tmp_path / "QH-ARC.ifc"
    path.write_bytes(sample.content())
    result = run("read", path, "--components", "--json")
    assert result.returncode == 0
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
    assert result.returncode == 0
    assert "1 components, 12 triangles; aligned by placement" in result.stdout


@pytest.mark.parametrize("content", [b"", b"not ifc at all", simple().content()[:-300]])
def test_what_cannot_be_read_exits_with_2_and_one_sentence(tmp_path, content):
    path = tmp_path / "bad.ifc"
    path.write_bytes(content)
    result = run("read", path, "--json")
    assert result.returncode == 2
    assert result.stdout == ""
    lines = result.stderr.strip().splitlines()
    assert len(lines) == 1
    assert lines[0].startswith("bad.ifc is ")


def test_a_file_that_is_not_there(tmp_path):
    result = run("read", tmp_path / "none.ifc", "--json")
    assert result.returncode == 2
    assert "does not exist" in result.stderr
    assert "Traceback" not in result.stderr
