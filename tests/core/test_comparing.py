"""Two issues of a model: what was added, removed, moved, reshaped and changed, and that alone."""

from __future__ import annotations

import json
import random
import re

import ifcopenshell
import ifcopenshell.guid
import numpy as np
import pytest
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st
from typer.testing import CliRunner

from stairpath.cli import app
from stairpath.core.comparing.gone import gone
from stairpath.core.comparing.issue import Issue
from stairpath.core.comparing.moves import Move, moved
from stairpath.core.federation.placed import Placed
from stairpath.core.reading.model import Component, Geometry
from tests.core.solids import box, shape_of
from tests.samples import Sample


def house():
    """Four walls, a door, a slab and five chairs of one shape."""
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    made = {}
    for k, (at, size) in enumerate(
        (((0, 0, 0), (4, 0.2, 3)), ((0, 5, 0), (4, 0.2, 3)), ((0, 0, 0), (0.2, 5, 3)), ((4, 0, 0), (0.2, 5, 3)))
    ):
        made[f"W-{k}"] = sample.box(storey, at, size, "IfcWall", Name=f"Wall {k}", Tag=f"W-{k}")
    made["D-1"] = sample.box(storey, (1, 0, 0), (0.9, 0.1, 2.1), "IfcDoor", Name="Door", Tag="D-1")
    made["S-1"] = sample.box(storey, (0, 0, -0.3), (4, 5, 0.3), "IfcSlab", Name="Slab", Tag="S-1")
    sample.repeated(storey, 5, cls="IfcFurniture", Name="Chair")
    rating = sample.make("IfcPropertySingleValue", "FireRating", None, sample.make("IfcLabel", "EI30"), None)
    group = sample.root("IfcPropertySet", Name="Pset_WallCommon", HasProperties=[rating])
    sample.relate("IfcRelDefinesByProperties", RelatedObjects=[made["W-1"]], RelatingPropertyDefinition=group)
    return sample, made, rating


def compared(tmp_path, before: bytes, after: bytes):
    paths = [tmp_path / name for name in ("old/QH-ARC.ifc", "new/QH-ARC.ifc")]
    for path, content in zip(paths, (before, after), strict=True):
        path.parent.mkdir(exist_ok=True)
        path.write_bytes(content)
    done = CliRunner().invoke(app, ["compare", *map(str, paths), "--json"])
    assert done.exit_code == 0, done.output
    return json.loads(done.stdout)


def renumbered(content: bytes) -> bytes:
    """The same file with other entity numbers, and its lines in another order."""
    text = content.decode()
    head, data, tail = re.match(r"(.*?DATA;\n)(.*?)(ENDSEC;\nEND-ISO.*)", text, re.DOTALL).groups()
    lines = data.strip().splitlines()
    numbers = [int(line[1 : line.index("=")]) for line in lines]
    chance = random.Random(5)
    others = dict(zip(numbers, chance.sample(range(1, 9 * len(numbers)), len(numbers)), strict=True))
    lines = [re.sub(r"#(\d+)", lambda m: f"#{others[int(m[1])]}", line) for line in lines]
    chance.shuffle(lines)
    return (head + "\n".join(lines) + "\n" + tail).encode()


def nothing(found, but: str = "") -> None:
    for key in ("added", "removed", "moved", "reshaped", "changed"):
        if key != but:
            assert found[key] == [], key


def test_a_file_against_itself_is_the_same_also_in_other_lines(tmp_path):
    sample, *_ = house()
    for after in (sample.content(), renumbered(sample.content())):
        found = compared(tmp_path, sample.content(), after)
        nothing(found)
        assert (found["same"], found["matched_by"]) == (11, "global_id")


@pytest.mark.parametrize("shuffled", [False, True])
def test_one_moved_one_removed_one_changed_are_found_exactly(tmp_path, shuffled):
    sample, made, rating = house()
    before = sample.content()
    made["W-0"].ObjectPlacement.RelativePlacement.Location.Coordinates = (0.0, 0.035, 0.0)
    rating.NominalValue = sample.make("IfcLabel", "EI60")
    door = made["D-1"]
    contained = next(r for r in sample.ifc.by_type("IfcRelContainedInSpatialStructure") if door in r.RelatedElements)
    gone = door.GlobalId
    sample.ifc.remove(contained)
    sample.ifc.remove(door)
    after = renumbered(sample.content()) if shuffled else sample.content()
    found = compared(tmp_path, before, after)
    assert found["removed"] == [gone]
    ((wall),) = found["moved"]
    assert wall == {"global_id": made["W-0"].GlobalId, "by_m": pytest.approx([0, 0.035, 0], abs=1e-9), "turned_deg": 0}
    assert found["changed"] == [
        {
            "global_id": made["W-1"].GlobalId,
            "fields": [{"name": "Pset_WallCommon.FireRating", "old": "EI30", "new": "EI60"}],
        }
    ]
    assert found["added"] == found["reshaped"] == []
    assert found["same"] == 8


def test_what_is_longer_is_reshaped_and_what_is_new_is_added(tmp_path):
    sample, made, _ = house()
    before = sample.content()
    made["W-0"].Representation.Representations[0].Items[0].Depth = 3.5
    added = sample.box(
        sample.ifc.by_type("IfcBuildingStorey")[0], (9, 9, 0), (1, 1, 1), "IfcColumn", Name="C", Tag="C-1"
    )
    made["S-1"].Name = "Floor slab"
    found = compared(tmp_path, before, sample.content())
    assert found["reshaped"] == [made["W-0"].GlobalId]
    assert found["added"] == [added.GlobalId]
    assert [(c["global_id"], c["fields"]) for c in found["changed"]] == [
        (made["S-1"].GlobalId, [{"name": "name", "old": "Slab", "new": "Floor slab"}])
    ]
    assert found["moved"] == []


def test_a_file_with_new_ids_throughout_is_matched_by_tag_type_and_place(tmp_path):
    sample, made, _ = house()
    before = sample.content()
    made["W-0"].ObjectPlacement.RelativePlacement.Location.Coordinates = (0.0, 7.0, 0.0)
    chairs = sample.ifc.by_type("IfcFurniture")
    chairs[2].ObjectPlacement.RelativePlacement.Location.Coordinates = (6.4, 0.0, 0.0)
    for entity in sample.ifc.by_type("IfcRoot"):
        entity.GlobalId = ifcopenshell.guid.new()
    found = compared(tmp_path, before, renumbered(sample.content()))
    assert found["matched_by"] == "place"
    assert found["added"] == found["removed"] == found["reshaped"] == found["changed"] == []
    assert {m["global_id"]: m["by_m"] for m in found["moved"]} == {
        # It is far from where it was, and is known by its tag.
        made["W-0"].GlobalId: pytest.approx([0, 7, 0], abs=1e-6),
        chairs[2].GlobalId: pytest.approx([0.4, 0, 0], abs=1e-6),
    }
    told = CliRunner().invoke(app, ["compare", str(tmp_path / "old/QH-ARC.ifc"), str(tmp_path / "new/QH-ARC.ifc")])
    assert "new GlobalIds throughout" in told.output
    assert "2 moved" in told.stdout


def test_what_cannot_be_compared_is_one_sentence(tmp_path):
    bad = tmp_path / "a.ifc"
    bad.write_bytes(b"no")
    done = CliRunner().invoke(app, ["compare", str(bad), str(bad)])
    assert done.exit_code == 2
    assert "Traceback" not in done.output


# -- moves -----------------------------------------------------------------------------------------


def issue(mesh: trimesh.Trimesh, matrix: np.ndarray) -> Issue:
    zero = np.zeros(1, np.int32)
    geometry = Geometry((shape_of(mesh),), zero, zero, matrix[None])
    placed = Placed(geometry, np.eye(4), geometry.bounds(1), np.ones(1, dtype=bool))
    return Issue([Component("a", "IfcWall")], placed, {})


ODD = box([0, 0, 0], [3, 0.2, 1])
ODD.vertices[0] -= [0.4, 0.3, 0.2]
turns = st.tuples(st.floats(0.01, 3.1), st.tuples(*3 * [st.floats(-1, 1)]).filter(lambda v: np.linalg.norm(v) > 0.1))
shifts = st.tuples(*3 * [st.floats(-50, 50)])


@given(turns, shifts, st.booleans())
@settings(max_examples=60)
def test_a_move_is_found_whether_the_shape_is_placed_or_written_elsewhere(turn, shift, baked):
    angle, axis = turn
    motion = trimesh.transformations.rotation_matrix(angle, axis)
    motion[:3, 3] = shift
    mesh = ODD.copy()
    if baked:  # the other program writes the corners where they are
        mesh.apply_transform(motion)
    now = issue(mesh, np.eye(4) if baked else motion)
    how = moved(issue(ODD, np.eye(4)), 0, now, 0)
    assert isinstance(how, Move)
    low, high = ODD.bounds
    middle = (low + high) / 2
    assert how.by_m == pytest.approx((motion[:3, :3] @ middle + motion[:3, 3] - middle).tolist(), abs=2e-3)
    assert how.turned_deg == pytest.approx(np.degrees(angle), abs=0.02)


def test_what_stands_as_it_did_is_no_move_and_what_is_mirrored_is_reshaped():
    was = issue(ODD, np.eye(4))
    assert moved(was, 0, issue(ODD, np.eye(4)), 0) is True
    stirred = ODD.copy()
    order = np.random.default_rng(1).permutation(len(ODD.vertices))
    stirred.vertices = ODD.vertices[order]
    stirred.faces = np.argsort(order)[ODD.faces]
    assert moved(was, 0, issue(stirred, np.eye(4)), 0) is True
    assert moved(was, 0, issue(ODD, np.diag([1.0, -1.0, 1.0, 1.0])), 0) is None
    assert moved(was, 0, issue(box([0, 0, 0], [3, 0.2, 1]), np.eye(4)), 0) is None


# -- what is gone ----------------------------------------------------------------------------------


def test_what_is_gone_is_drawn_where_it_stood_about_an_origin():
    motion = trimesh.transformations.rotation_matrix(0.5, [0, 0, 1])
    motion[:3, 3] = (500.0, 20.0, 3.0)
    was = issue(box([0, 0, 0], [3, 0.2, 1]), motion)
    origin = np.array([490.0, 0.0, 0.0])
    found = gone(was, [0], origin)
    corners = box([0, 0, 0], [3, 0.2, 1]).vertices @ motion[:3, :3].T + motion[:3, 3] - origin
    assert found.boxes_m[0] == pytest.approx(np.stack([corners.min(axis=0), corners.max(axis=0)]), abs=1e-5)
    assert (found.triangles.shape, found.edges.shape, found.left_out) == ((12, 3, 3), (12, 2, 3), 0)
    assert found.triangles.reshape(-1, 3).max(axis=0) == pytest.approx(corners.max(axis=0), abs=1e-5)
    ends = np.linalg.norm(found.edges[:, 0] - found.edges[:, 1], axis=1)
    assert sorted(ends.round(4).tolist()) == pytest.approx([0.2] * 4 + [1.0] * 4 + [3.0] * 4, abs=1e-4)


def test_of_too_much_that_is_gone_the_rest_is_counted(monkeypatch):
    monkeypatch.setattr("stairpath.core.comparing.gone.MOST_TRIANGLES", 20)
    owner = np.arange(5, dtype=np.int32)
    geometry = Geometry((shape_of(ODD),), owner, np.zeros(5, np.int32), np.tile(np.eye(4), (5, 1, 1)))
    placed = Placed(geometry, np.eye(4), geometry.bounds(6), np.ones(6, dtype=bool))
    was = Issue([Component(str(k), "IfcWall") for k in range(6)], placed, {})
    found = gone(was, [0, 5, 2, 3, 4], np.zeros(3))
    assert (found.components.tolist(), found.left_out) == ([0, 2], 2)
    nothing_left = gone(was, [5], np.zeros(3))
    assert (nothing_left.triangles.shape, nothing_left.components.tolist()) == ((0, 3, 3), [])
