"""Cuts and key plans against what can be worked out by hand, and against trimesh for the demo."""

import math
import xml.etree.ElementTree as ET

import numpy as np
import pytest
import shapely
import trimesh
from hypothesis import given
from hypothesis import strategies as st

from stairpath.core.cutting.keyplan import document, draw_key_plan
from stairpath.core.cutting.outlines import cut_level
from stairpath.core.cutting.svg import svg
from stairpath.core.cutting.treads import flights
from stairpath.core.federation.doors import swings
from stairpath.core.federation.federate import NoSuchStoreyError, federate, level_named
from stairpath.core.federation.outline import outline
from stairpath.core.reading.model import Geometry, Shape
from stairpath.core.reading.read import read_model
from tests.samples import Sample, simple


def solid(mesh: trimesh.Trimesh, at=(0, 0, 0), mirror=False) -> Geometry:
    """One component of the shape of a mesh."""
    shape = Shape.bare(mesh.vertices, mesh.faces)
    matrix = np.eye(4)
    matrix[:3, 3] = at
    if mirror:
        matrix[0, 0] = -1
    return Geometry((shape,), np.zeros(1, np.int32), np.zeros(1, np.int32), matrix[None])


BOX = trimesh.creation.box((4, 2, 3))


def test_a_box_is_cut_in_one_rectangle_of_four_corners():
    cut = cut_level(solid(BOX), np.eye(4), 0.5)
    assert len(cut) == 1
    assert cut.closed.all()
    assert len(cut[0]) == 4  # where the triangles of a face meet there is no corner
    assert cut.areas() == pytest.approx([8])
    assert cut.lengths() == pytest.approx([12])


def test_a_mirrored_box_still_goes_round_counter_clockwise():
    assert cut_level(solid(BOX, mirror=True), np.eye(4), 0.5).areas() == pytest.approx([8])


def test_a_tube_has_an_outline_and_a_hole():
    tube = trimesh.creation.annulus(0.4, 1.0, 2.0, sections=64)
    cut = cut_level(solid(tube), np.eye(4), 0.1)
    outer, hole = sorted(cut.areas(), reverse=True)
    assert outer == pytest.approx(math.pi, rel=0.01)
    assert hole == pytest.approx(-math.pi * 0.16, rel=0.01)


def test_lines_end_where_they_began_unless_they_are_open():
    sheet = trimesh.Trimesh([[9, 0, 0], [13, 0, 0], [13, 0, 3], [9, 0, 3]], [[0, 1, 2], [0, 2, 3]])
    opened = solid(sheet)
    two = Geometry.joined([
        solid(BOX),
        Geometry(opened.shapes, np.ones(1, np.int32), np.zeros(1, np.int32), opened.matrix),
    ])  # fmt: skip
    ring, line = cut_level(two, np.eye(4), 1.0).lines()
    assert len(ring) == 5
    assert ring[0] == pytest.approx(ring[-1])
    assert sorted(line[:, 0]) == pytest.approx([9, 13])
    assert cut_level(two, np.eye(4), 99.0).lines() == []


def test_above_and_below_there_is_nothing():
    for height in (1.6, -1.6):
        assert len(cut_level(solid(BOX), np.eye(4), height)) == 0


@pytest.mark.parametrize("height", [-1.5, 1.5])
def test_a_cut_through_a_face_is_closed_or_nothing(height):
    cut = cut_level(solid(BOX), np.eye(4), height)
    assert cut.closed.all()
    assert set(np.round(cut.areas(), 6)) <= {8.0}


def test_an_open_sheet_is_cut_in_an_open_line():
    sheet = trimesh.Trimesh([[0, 0, 0], [4, 0, 0], [4, 0, 3], [0, 0, 3]], [[0, 1, 2], [0, 2, 3]])
    cut = cut_level(solid(sheet), np.eye(4), 1.0)
    assert not cut.closed.any()
    assert cut.lengths() == pytest.approx([4])
    assert len(cut[0]) == 2
    assert cut.areas() == pytest.approx([0])


def test_only_what_is_wanted_is_cut():
    two = Geometry.joined([
        solid(BOX),
        Geometry(solid(BOX).shapes, np.ones(1, np.int32), np.zeros(1, np.int32), solid(BOX, (10, 0, 0)).matrix),
    ])  # fmt: skip
    assert list(cut_level(two, np.eye(4), 0.0).owner) == [0, 1]
    assert list(cut_level(two, np.eye(4), 0.0, np.array([False, True])).owner) == [1]


@given(turn=st.floats(0, 360), x=st.floats(-1e5, 1e5), height=st.floats(-1.4, 1.4))
def test_where_a_body_stands_changes_nothing_of_its_outline(turn, x, height):
    c, s = math.cos(math.radians(turn)), math.sin(math.radians(turn))
    to = np.array([[c, -s, 0, x], [s, c, 0, -x], [0, 0, 1, 7], [0, 0, 0, 1]])
    cut = cut_level(solid(BOX), to, height + 7)
    assert cut.areas() == pytest.approx([8], rel=1e-5)
    assert cut[0].mean(axis=0) == pytest.approx([x, -x], abs=1e-6 * max(1, abs(x)))


def test_outlines_of_the_demo_are_those_of_cutting_one_by_one(demo):
    height, compared = 9.2, 0
    for model in demo.models:
        geometry, to = model.outline.geometry, model.alignment.matrix
        walls = np.array(
            [c.startswith(("IfcWall", "IfcColumn", "IfcWindow", "IfcDoor")) for c in model.outline.classes]
        )
        crossed = walls & (model.bounds_m[:, 0, 2] < height) & (model.bounds_m[:, 1, 2] > height)
        cut = cut_level(geometry, to, height, crossed)
        own: dict[int, list[shapely.LinearRing]] = {}
        for i, owner in enumerate(cut.owner):
            own.setdefault(int(owner), []).append(shapely.LinearRing(cut[i] - [412_300, 88_650]))
        for placed, owner in enumerate(geometry.owner):
            if owner < 0 or not crossed[owner]:
                continue
            faces = geometry.shapes[geometry.shape[placed]].triangles
            mesh = trimesh.Trimesh(geometry.points_of(placed, to) - [412_300, 88_650, 0], faces)
            lines = trimesh.intersections.mesh_plane(mesh, [0, 0, 1], [0, 0, height])[:, :, :2]
            theirs, ours = shapely.union_all(shapely.linestrings(lines)), shapely.union_all(own[owner])
            assert shapely.hausdorff_distance(ours, theirs, densify=0.25) < 1e-4
            assert shapely.length(ours) == pytest.approx(shapely.length(theirs), abs=1e-3)
            compared += 1
    assert compared > 60


def test_a_leaf_that_swings_left_is_hung_at_the_left_and_opens_along_y():
    bounds = np.array([[0.0, 0.0, 0.0], [0.9, 0.1, 2.1]])
    (leaf,) = swings("SINGLE_SWING_LEFT", bounds, np.eye(4))
    assert leaf.hinge == pytest.approx((0, 0.1))
    assert leaf.open == pytest.approx((0, 1.0))
    assert leaf.arc[-1] == pytest.approx([0.9, 0.1])
    assert np.hypot(*(leaf.arc - leaf.hinge).T) == pytest.approx(0.9)


def test_right_double_and_sliding_doors():
    bounds = np.array([[0.0, 0.0, 0.0], [1.8, 0.1, 2.1]])
    (right,) = swings("SINGLE_SWING_RIGHT", bounds, np.eye(4))
    assert right.hinge == pytest.approx((1.8, 0.1))
    assert right.open == pytest.approx((1.8, 1.9))
    left, other = swings("DOUBLE_DOOR_SINGLE_SWING", bounds, np.eye(4))
    assert left.arc[-1] == pytest.approx([0.9, 0.1])
    assert other.arc[-1] == pytest.approx([0.9, 0.1])
    for operation in ("SLIDING_TO_LEFT", "NOTDEFINED", ""):
        assert swings(operation, bounds, np.eye(4)) == []


def stair(risers: int) -> Geometry:
    steps = [
        trimesh.creation.box(bounds=[[0, 0.3 * i, 0], [1.2, 0.3 * (i + 1), 0.17 * (i + 1)]]) for i in range(risers)
    ]
    return solid(trimesh.util.concatenate(steps))


def test_a_flight_shows_its_treads_and_the_way_up():
    (flight,) = flights(stair(5), np.eye(4), np.array([True]), -1, 10)
    assert flight.way_up == pytest.approx(np.array([[0.6, 0.15 + 0.3 * i] for i in range(5)]), abs=1e-6)
    lengths = np.linalg.norm(flight.edges[:, 1] - flight.edges[:, 0], axis=1)
    assert lengths.sum() == pytest.approx(5 * 2 * (1.2 + 0.3))


def test_what_lies_above_the_cut_is_not_drawn():
    (flight,) = flights(stair(5), np.eye(4), np.array([True]), -1, 0.4)
    assert len(flight.way_up) == 2


def test_a_ramp_goes_from_its_low_end_to_its_high_end():
    ramp = trimesh.Trimesh([[0, 0, 0], [6, 0, 0.5], [6, 2, 0.5], [0, 2, 0]], [[0, 1, 2], [0, 2, 3]])
    (flight,) = flights(solid(ramp), np.eye(4), np.array([True]), -1, 2)
    assert flight.way_up == pytest.approx(np.array([[0, 1], [6, 1]]))


@pytest.fixture(scope="module")
def level_02(demo):
    return draw_key_plan(demo, level_named(demo, "02"))


def test_the_key_plan_of_level_02_shows_rooms_doors_windows_and_stairs(level_02):
    assert level_02.storey == "Level 02"
    assert level_02.cut_m == pytest.approx(9.2)
    assert {r.name for r in level_02.rooms} >= {"Specimen store", "Corridor", "Upper gallery", "Data office"}
    assert len(level_02.swings) == 11
    assert len(level_02.flights) == 3
    assert [a.tag for a in level_02.axes] == [*"ABCDEF", *"123456789"]


def test_rooms_are_labelled_inside_and_have_their_area(level_02):
    store = next(r for r in level_02.rooms if r.name == "Specimen store")
    (ring,) = store.outlines
    x, y = (ring - ring.mean(axis=0)).T
    area = abs(np.dot(x[:-1], y[1:]) - np.dot(x[1:], y[:-1])) / 2
    assert area == pytest.approx(6.0 * 10.8, rel=0.01)
    corridor = next(r for r in level_02.rooms if r.name == "Corridor")
    middle = corridor.outlines[0][:-1].mean(axis=0)
    assert corridor.label == pytest.approx(tuple(middle), abs=0.5)


def test_only_the_alternative_that_stands_is_drawn(demo_readings):
    outlines = [outline(r) for r in demo_readings]
    one = federate(outlines, chosen={"QH-ARC-S1-ALT-A"})
    other = federate(outlines, chosen={"QH-ARC-S1-ALT-B"})
    level = level_named(one, "00")
    drawn = [draw_key_plan(f, level) for f in (one, other)]
    treads = [
        {(len(f.edges), round(float(np.abs(f.edges[:, 1] - f.edges[:, 0]).sum()), 3)) for f in p.flights} for p in drawn
    ]
    assert len(treads[0] & treads[1]) >= 3  # the escape stair's two flights, and the ramp
    assert treads[0] != treads[1]
    assert len(drawn[0].solid) == len(drawn[1].solid)


def test_a_storey_that_is_not_there_names_those_that_are(demo):
    with pytest.raises(NoSuchStoreyError, match="no storey 07; the building has Level B1, Level 00"):
        level_named(demo, "07")


def test_the_document_is_about_the_origin_in_whole_millimetres(demo, level_02):
    kept = document(level_02, demo.origin_m)
    points = np.concatenate([np.array(ring) for ring in kept["solid"]])
    assert np.abs(points).max() < 40
    assert np.abs(points * 1000 - np.round(points * 1000)).max() < 1e-6
    assert {len(s["leaf"]) for s in kept["swings"]} == {2}


def test_the_drawing_is_svg_in_millimetres_with_every_room(demo, level_02):
    drawn = ET.fromstring(svg(level_02, demo.building_north_deg, 200.0))
    words = {e.text for e in drawn.iter("{http://www.w3.org/2000/svg}text")}
    assert {"Specimen store", "2.05", "A", "9"} <= words
    # 48.4 m of building, and a border of 10 mm, at 1:200.
    assert float(drawn.attrib["width"].removesuffix("mm")) == pytest.approx(48.4 * 5 + 20, abs=3)


def test_a_building_of_nothing_gives_an_empty_sheet():
    sample = Sample()
    sample.storey("Level 00", 0)
    empty = federate([outline(read_model("a.ifc", sample.content()))])
    drawn = draw_key_plan(empty, 0)
    assert (drawn.solid, drawn.rooms, drawn.axes) == ([], [], [])
    assert "<svg" in svg(drawn)


def test_a_wall_in_feet_is_drawn_in_metres():
    found = federate([outline(read_model("a.ifc", simple("IFC2X3", "ft").content()))])
    (ring,) = draw_key_plan(found, 0).solid
    assert np.ptp(ring, axis=0) == pytest.approx([4, 0.2], abs=1e-6)
