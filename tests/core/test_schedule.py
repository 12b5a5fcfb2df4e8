"""Schedules: groups, counts and sums, from the file's quantities and from triangles."""

from __future__ import annotations

import csv
import io
import json
from collections import defaultdict

import numpy as np
import openpyxl
import pytest
import trimesh
from hypothesis import given
from hypothesis import strategies as st
from typer.testing import CliRunner

from stairpath.cli import app
from stairpath.core.reading.model import Geometry, Quantity
from stairpath.core.register.quantities import MeshFigures, all_figures, mesh_figures
from stairpath.core.register.schedule import NotAScheduleError, schedule, steps_of
from stairpath.core.register.table import as_csv, as_xlsx, rows_of
from stairpath.core.visibility.conditions import all_met, condition_from
from stairpath.core.visibility.traits import federation_traits
from stairpath.demo import water
from tests.core.listed import building, facts
from tests.core.solids import box, joined, shape_of
from tests.samples import Sample

FACTS = facts(
    {
        "arc/A0": {"quantities": {"BaseQuantities": {"Length": Quantity(4.0, "m"), "GrossVolume": Quantity(2.4, "m³")}}},
        "arc/A1": {"quantities": {"Qto_WallBaseQuantities": {"NetVolume": Quantity(1.0, "m³"), "GrossVolume": Quantity(9.0, "m³")}}},
        "air/B1": {"properties": {"Own": {"Class": "II"}}, "quantities": {"Own": {"Weight": Quantity(12.5, "kg")}}},
    }
)  # fmt: skip
B = building(told=FACTS)
NOTHING = np.full(B.count, np.nan)
MESH = MeshFigures(np.arange(B.count, dtype=float), np.full(B.count, 2.0), NOTHING)


def made(group_by: str, *sums: str, wanted=None):
    mask = np.ones(B.count, dtype=bool) if wanted is None else wanted
    return schedule(steps_of(group_by), sums, mask, B, lambda: MESH)


def test_groups_by_steps_in_reading_order_with_counts():
    groups = made("class,level")
    assert [(group.key, len(group.components)) for group in groups] == [
        (("IfcCovering", "Level 01"), 2),
        (("IfcCovering", "Roof"), 1),
        (("IfcDuctSegment", "Level 00"), 1),
        (("IfcDuctSegment", "Level 01"), 1),
        (("IfcFan", ""), 1),
        (("IfcStair", "Level 00"), 1),
        (("IfcWall", "Level 01"), 1),
        (("IfcWallStandardCase", "Level 00"), 1),
    ]
    assert sum(len(group.components) for group in groups) == B.count


def test_only_what_is_wanted_is_scheduled_and_a_component_counts_once():
    wanted = B.columns["discipline"].having("AIR")
    assert [(g.key, len(g.components)) for g in made("system", wanted=wanted)] == [(("Supply 1",), 2), (("",), 1)]
    assert made("system", wanted=~np.ones(B.count, dtype=bool)) == []
    assert [(g.key, len(g.components)) for g in made("property:Class", wanted=wanted)] == [(("II",), 1), (("",), 2)]


def test_sums_are_the_files_where_it_has_them_and_say_so():
    volume, length = (made("discipline", name)[1].sums[name] for name in ("volume", "length"))
    assert made("discipline")[1].key == ("ARC",)
    assert (volume.value, volume.unit, volume.from_file, volume.from_mesh, volume.without) == (3.4, "m³", 2, 0, 4)
    # Of the six: 4 m by the file, and by their triangles 1, 2, 3, 4 and 8, which is the stair's number.
    assert (length.value, length.from_file, length.from_mesh, length.without) == (4 + 1 + 2 + 3 + 4 + 8, 1, 5, 0)
    weight = next(g for g in made("class", "weight") if g.key == ("IfcDuctSegment",)).sums["weight"]
    assert (weight.value, weight.unit, weight.from_file, weight.without) == (12.5, "kg", 1, 1)


def test_what_cannot_be_scheduled_says_what_to_write():
    with pytest.raises(NotAScheduleError, match="cannot be grouped by"):
        steps_of("class,colour")
    with pytest.raises(NotAScheduleError, match="nothing to group by"):
        steps_of(" , ")
    with pytest.raises(NotAScheduleError, match="No component has a quantity Height"):
        made("class", "Height")


# -- figures from triangles ------------------------------------------------------------------------


def figures(*meshes: trimesh.Trimesh, to: np.ndarray | None = None):
    shapes = tuple(shape_of(mesh) for mesh in meshes)
    numbers = np.arange(len(meshes), dtype=np.int32)
    matrices = np.tile(np.eye(4) if to is None else to, (len(meshes), 1, 1))
    got = mesh_figures(Geometry(shapes, numbers, numbers, matrices), len(meshes))
    return list(zip(got.length_m.tolist(), got.area_m2.tolist(), got.volume_m3.tolist(), strict=True))


TURNED = trimesh.transformations.rotation_matrix(0.7, [1, 2, 3], [4, 5, 6])


@pytest.mark.parametrize("to", [None, TURNED, np.diag([1.0, -1.0, 1.0, 1.0])])
def test_a_box_a_bar_and_a_wall_with_an_opening(to):
    bar = trimesh.creation.cylinder(0.1, 3.0, sections=64)
    wall = trimesh.boolean.difference([box([0, 0, 0], [5, 0.2, 3]), box([1, -1, 1], [2, 1, 2.5])], engine="manifold")
    cube, round_, pierced = figures(box([0, 0, 0], [2, 1, 1.5]), bar, wall, to=to)
    assert cube == pytest.approx((2.0, 2 * (2 + 3 + 1.5), 3.0), rel=1e-5)
    corners = 64 / 2 * np.sin(2 * np.pi / 64) * 0.1**2
    side = 64 * 2 * 0.1 * np.sin(np.pi / 64)
    assert round_ == pytest.approx((3.0, 2 * corners + side * 3.0, corners * 3.0), rel=1e-5)
    # A flat thing's area is that of one side, less its opening.
    assert pierced == pytest.approx((5.0, 5 * 3 - 1.5, 0.2 * 13.5), rel=1e-5)


def test_what_is_open_has_no_volume_and_what_has_no_shape_has_nothing():
    open_box = box([0, 0, 0], [1, 1, 1])
    open_box.update_faces(np.arange(12) > 1)
    pipe = trimesh.creation.cylinder(0.1, 1.0, sections=16)
    pipe.update_faces(np.abs(pipe.face_normals[:, 2]) < 0.5)
    for length, area, volume in figures(open_box, pipe):
        assert length > 0
        assert area > 0
        assert np.isnan(volume)
    bare = mesh_figures(Geometry((), np.zeros(0, np.int32), np.zeros(0, np.int32), np.zeros((0, 4, 4))), 2)
    assert np.isnan(bare.length_m).all()
    assert np.isnan(bare.volume_m3).all()


def test_parts_of_one_component_count_together():
    shapes = (shape_of(box([0, 0, 0], [1, 1, 1])), shape_of(box([0, 0, 0], [0.5, 0.5, 0.5])))
    matrices = np.tile(np.eye(4), (3, 1, 1))
    matrices[2, 0, 3] = 5.0
    geometry = Geometry(shapes, np.array([1, 0, 1], np.int32), np.array([0, 1, 0], np.int32), matrices)
    got = mesh_figures(geometry, 2)
    assert got.volume_m3 == pytest.approx([0.125, 2.0])
    assert got.length_m == pytest.approx([0.5, 6.0])


@given(st.tuples(*3 * [st.floats(0.1, 5)]), st.floats(0, 6), st.tuples(*3 * [st.floats(-1e3, 1e3)]))
def test_volume_and_length_do_not_depend_on_where_a_box_lies(size, angle, shift):
    to = trimesh.transformations.rotation_matrix(angle, [0.3, 1.0, 0.2])
    to[:3, 3] = shift
    ((length, _, volume),) = figures(box([0, 0, 0], size), to=to)
    assert length == pytest.approx(max(size), rel=1e-4)
    assert volume == pytest.approx(np.prod(size), rel=1e-4)


def test_touching_boxes_joined_as_one_are_closed():
    ((_, _, volume),) = figures(joined(box([0, 0, 0], [1, 1, 1]), box([3, 0, 0], [4, 1, 1])))
    assert volume == pytest.approx(2.0)


# -- tables ----------------------------------------------------------------------------------------


def test_csv_and_spreadsheet_have_the_same_figures():
    groups = made("class,level", "length", "volume")
    rows = rows_of(("class", "level"), ("length", "volume"), groups)
    assert rows[0] == [
        "class", "level", "count", "length (m)", "length: from file", "length: worked out", "volume (m³)",
        "volume: from file", "volume: worked out",
    ]  # fmt: skip
    read = list(csv.reader(io.StringIO(as_csv(rows))))
    sheet = openpyxl.load_workbook(io.BytesIO(as_xlsx(rows))).active
    assert sheet is not None
    cells = [[("" if v is None else v) for v in row] for row in sheet.iter_rows(values_only=True)]
    for written, text, cell in zip(rows, read, cells, strict=True):
        assert text == [str(v) for v in written]
        assert cell == written


def test_a_name_that_looks_like_a_formula_stays_a_name():
    rows: list[list[str | int | float]] = [["name", "count"], ["=1+1", 2], ["@x", -3]]
    assert as_csv(rows).splitlines()[1:] == ["'=1+1,2", "'@x,-3"]
    sheet = openpyxl.load_workbook(io.BytesIO(as_xlsx(rows))).active
    assert sheet is not None
    assert (sheet["A2"].value, sheet["A2"].data_type, sheet["B3"].value) == ("=1+1", "s", -3)


def test_schedule_without_a_server(tmp_path):
    sample = Sample("IFC4", "mm")
    storey = sample.storey("Level 00", 0.0)
    for x in (0, 5000):
        sample.box(storey, (x, 0, 0), (4000, 200, 3000), "IfcWall", Name="Wall", Tag=f"W-{x}")
    sample.box(storey, (0, 9000, 0), (1000, 1000, 500), "IfcSlab", Name="Slab")
    path = tmp_path / "QH-ARC.ifc"
    path.write_bytes(sample.content())
    out = tmp_path / "s.csv"
    asked = ["schedule", str(path), "--group-by", "class", "--sum", "volume,area", "--csv", str(out), "--json"]
    done = CliRunner().invoke(app, asked)
    groups = {group["key"][0]: group for group in json.loads(done.stdout)["groups"]}
    assert groups["IfcWall"]["count"] == 2
    assert groups["IfcWall"]["sums"]["volume"]["value"] == pytest.approx(4.8)
    assert groups["IfcWall"]["sums"]["area"]["value"] == pytest.approx(24)
    assert groups["IfcSlab"]["sums"]["volume"] == pytest.approx(
        {"value": 0.5, "unit": "m³", "from_file": 0, "from_mesh": 1, "without": 0}
    )
    assert out.read_text().splitlines()[1].startswith("IfcSlab,1,0.5")
    for bad in (
        ["--group-by", "colour"],
        ["--group-by", "class", "--sum", "Height"],
        ["--group-by", "class", "--csv", "/no/s"],
    ):
        wrong = CliRunner().invoke(app, ["schedule", str(path), *bad])
        assert wrong.exit_code == 2
        assert "Traceback" not in wrong.output


def test_the_demos_walls_doors_ducts_and_pipes_by_hand(demo, demo_readings):
    asked = federation_traits(demo, demo_readings)
    parts = [mesh_figures(r.geometry, len(r.components)) for r in demo_readings]
    mesh = all_figures(parts)
    groups = schedule(("class",), ("length",), np.ones(asked.count, dtype=bool), asked, lambda: mesh)
    sums = {group.key[0]: group.sums["length"] for group in groups}
    by_hand: dict[str, list[float]] = defaultdict(list)
    for reading in demo_readings:
        for component in reading.components:
            for quantities in component.quantities.values():
                if "Length" in quantities:
                    by_hand[component.ifc_class].append(quantities["Length"].value)
    for ifc_class in ("IfcFlowSegment", "IfcPipeSegment", "IfcCableCarrierSegment"):
        assert sums[ifc_class].value == pytest.approx(sum(by_hand[ifc_class]))
        assert (sums[ifc_class].from_file, sums[ifc_class].from_mesh) == (len(by_hand[ifc_class]), 0)
    # Parapets and the shaft's walls are among them, and have no length in their files.
    assert sums["IfcWall"].from_file == len(by_hand["IfcWall"])
    # Straight ducts, pipes and trays are as long by their triangles as their files say.
    for reading, part in zip(demo_readings, parts, strict=True):
        for number, component in enumerate(reading.components):
            length = component.quantities.get("BaseQuantities", {}).get("Length")
            if component.ifc_class in ("IfcFlowSegment", "IfcPipeSegment") and length:
                assert part.length_m[number] == pytest.approx(length.value, abs=0.002)
    doors = [c.quantities["BaseQuantities"] for r in demo_readings for c in r.components if c.ifc_class == "IfcDoor"]
    assert {round(door["Height"].value, 3) for door in doors} == {2.1}


def test_the_sea_water_pipes_of_level_01_that_lack_insulation_and_how_many_metres_that_is(demo, demo_readings):
    asked = federation_traits(demo, demo_readings)
    conditions = [
        condition_from({"what": "system", "is": "contains", "value": "sea-water"}),
        condition_from({"what": "class", "is": "equal", "value": "PipeSegment"}),
        condition_from({"what": "level", "is": "equal", "value": "01"}),
        condition_from({"what": "property:Insulation", "is": "missing"}),
    ]
    bare = all_met(conditions, asked)
    unknown = np.full(asked.count, np.nan)
    (group,) = schedule(("level",), ("length",), bare, asked, lambda: MeshFigures(unknown, unknown, unknown))
    by_hand = [
        component
        for reading in demo_readings
        for component in reading.components
        if component.description.startswith("Sea-water") and component.description.endswith(water.BARE)
        and component.ifc_class == "IfcPipeSegment" and "Level 01" in {s.name for s in reading.storeys if s.global_id == component.storey}
    ]  # fmt: skip
    assert len(group.components) == len(by_hand) > 0
    length = group.sums["length"]
    assert length.value == pytest.approx(sum(c.quantities["BaseQuantities"]["Length"].value for c in by_hand))
    assert length.from_mesh == length.without == 0
    # What is bare is so for no other reason than the rooms that were forgotten.
    assert {c.description.rpartition(" to ")[2] for c in by_hand} == set(water.BARE)
