"""What the cursor catches of a body, and what measures come to: against figures worked out by hand."""

import math
from dataclasses import replace

import numpy as np
import pytest
import trimesh
from hypothesis import given
from hypothesis import strategies as st

from stairpath.core.component_ref import ComponentRef
from stairpath.core.measuring.centrelines import between_lines, centre_lines
from stairpath.core.measuring.facets import Facets
from stairpath.core.measuring.features import features
from stairpath.core.measuring.figures import Gap, NotMeasuredError, Room, Spot, figures_of, settled
from stairpath.core.measuring.measures import (
    BetweenMeasure,
    ClearMeasure,
    EdgeSide,
    FaceMeasure,
    FaceSide,
    PointsMeasure,
    RoomMeasure,
    SidesMeasure,
    VolumeMeasure,
    moved,
)
from tests.core.solids import bend, box, extruded, i_profile, joined, regular_area, regular_length
from tests.core.test_measuring import TURN, bar, of

A, B, FLOOR = ComponentRef("m", "a"), ComponentRef("m", "b"), ComponentRef("m", "floor")


class House:
    """Bodies by their GlobalIds, and one room."""

    north_deg = 0.0

    def __init__(self, north_deg=0.0, **bodies):
        self.north_deg = north_deg
        self.bodies = {key: of(mesh) for key, mesh in bodies.items()}
        self.spot = Spot(FLOOR, None, None)

    def body(self, ref):
        return self.bodies[ref.global_id]

    def room(self, ref):
        return Room(12.0, [np.array([[0, 0, 0], [4, 0, 0], [4, 3, 0], [0, 3, 0], [0, 0, 0]], float)])

    def clear(self, at):
        return self.spot


def values(found):
    return {figure.name: figure.value for figure in found.figures}


def rows(points):
    return sorted((np.round(points, 6) + 0.0).reshape(len(points), -1).tolist())


# -- what the cursor catches ----------------------------------------------------------------------


def test_a_box_has_its_corners_edges_middles_and_centres_however_it_is_cut_into_triangles():
    plain, fine = box([0, 0, 0], [4, 2, 1]), box([0, 0, 0], [4, 2, 1]).subdivide().subdivide()
    for mesh in (plain, fine):
        found = features(of(mesh))
        assert rows(found.corners) == rows(np.array([[x, y, z] for x in (0, 4) for y in (0, 2) for z in (0, 1)]))
        assert len(found.edges) == len(found.middles) == 12
        assert [2.0, 0.0, 0.0] in rows(found.middles)
        assert [2.0, 1.0, 1.0] in rows(found.centres)
        assert rows(found.lines) in ([[0, 1, 0.5, 4, 1, 0.5]], [[4, 1, 0.5, 0, 1, 0.5]])


def test_a_round_bar_has_no_corners_but_its_edges_the_centres_of_its_ends_and_its_centre_line():
    found = features(of(bar(0.1, 3, at=(1, 2, 3), along=(1, 0, 0))))
    assert len(found.corners) == 0
    assert len(found.middles) == 0
    assert len(found.edges) == 96
    assert rows(found.centres) == [[-0.5, 2, 3], [2.5, 2, 3]]
    (line,) = found.lines
    assert rows(line) == [[-0.5, 2, 3], [2.5, 2, 3]]


def test_centre_lines_of_pipes_beams_discs_and_turned_parts():
    (disc,) = centre_lines(Facets(of(bar(0.5, 0.1))))
    assert disc.radius_m == pytest.approx(0.5)
    assert np.abs(disc.ends[:, 2]).tolist() == pytest.approx([0.05, 0.05])
    (pipe,) = centre_lines(Facets(of(trimesh.creation.annulus(0.08, 0.1, 2.0, sections=24))))
    assert pipe.radius_m == pytest.approx(0.1)
    beam = extruded(i_profile(0.3, 0.15, 0.007, 0.011), 6.0)
    turn = TURN(0.4, [1, 2, 3])
    beam.apply_transform(turn)
    (line,) = centre_lines(Facets(of(beam)))
    assert line.radius_m is None
    wanted = (turn @ np.array([[0, 0, 0, 1], [0, 0, 6, 1]]).T).T[:, :3]
    assert rows(line.ends) == rows(wanted)


def test_a_pipe_without_ends_has_a_centre_line_and_a_bend_and_a_ball_have_none():
    tube = bar(0.1, 2.0)
    normals = tube.face_normals
    tube.update_faces(np.abs(normals[:, 2]) < 0.5)
    (line,) = centre_lines(Facets(of(tube)))
    assert rows(line.ends) == [[0, 0, -1], [0, 0, 1]]
    assert centre_lines(Facets(of(bend(1.0, 0.1)))) == []
    assert centre_lines(Facets(of(trimesh.creation.icosphere(3)))) == []


@pytest.mark.parametrize("size", [(5, 0.2, 3), (20, 8, 0.3), (1, 0.01, 1)])
def test_walls_slabs_and_panels_have_no_centre_line(size):
    assert centre_lines(Facets(of(box([0, 0, 0], size)))) == []


def test_each_part_of_a_component_has_its_own_centre_line():
    two = joined(bar(0.05, 2, at=(0, 0, 1)), bar(0.05, 2, at=(1, 0, 1)))
    assert len(centre_lines(Facets(of(two)))) == 2


coordinate = st.floats(-5, 5, allow_nan=False).map(lambda v: round(v, 3))
segment = st.lists(coordinate, min_size=6, max_size=6).map(lambda v: np.array(v).reshape(2, 3))


@given(segment, segment)
def test_no_two_points_of_two_lines_are_nearer_than_those_found(one, other):
    a, b = between_lines(one, other)
    share = np.linspace(0, 1, 21)[:, None]
    there = one[0] + share * (one[1] - one[0]), other[0] + share * (other[1] - other[0])
    least = float(np.linalg.norm(there[0][:, None] - there[1][None], axis=2).min())
    assert np.linalg.norm(a - b) <= least + 1e-9
    for point, line in ((a, one), (b, other)):
        way, length = line[1] - line[0], float(np.linalg.norm(line[1] - line[0]))
        assert np.linalg.norm(np.cross(point - line[0], way)) <= 1e-6 * max(1, length)


# -- what measures come to ------------------------------------------------------------------------


def test_a_distance_has_its_parts_along_the_building_and_the_project_and_its_fall():
    found = figures_of(PointsMeasure(((0, 0, 0), (3, 4, 1))), House(north_deg=90.0))
    figures = values(found)
    assert found.figures[0].name == "distance"
    assert figures["distance"] == pytest.approx(math.sqrt(26))
    assert figures["plan"] == pytest.approx(5)
    assert (figures["east"], figures["north"]) == pytest.approx((-4, 3))
    assert (figures["project_x"], figures["project_y"]) == pytest.approx((3, 4))
    assert figures["fall"] == pytest.approx(0.2)
    assert "project_x" not in values(figures_of(PointsMeasure(((0, 0, 0), (3, 4, 1))), House()))


@pytest.mark.parametrize(
    ("main", "line"),
    [
        ("up", [[3, 4, 0], [3, 4, 1]]),
        ("plan", [[0, 0, 0], [3, 4, 0]]),
        ("east", [[0, 0, 0], [3, 0, 0]]),
        ("north", [[0, 0, 0], [0, 4, 0]]),
    ],
)
def test_the_main_figure_is_drawn_along_its_own_axis(main, line):
    found = figures_of(PointsMeasure(((0, 0, 0), (3, 4, 1)), main), House())
    assert found.figures[0].name == main
    assert np.round(found.dimensions[0].line, 9).tolist() == line
    assert found.dimensions[0].figure == 0
    assert all(each.figure is None for each in found.dimensions[1:])


def test_a_chain_has_a_sum_and_each_leg_its_own_figure():
    found = figures_of(PointsMeasure(((0, 0, 0), (3, 0, 0), (3, 4, 0))), House())
    assert found.figures[0].name == "sum"
    assert found.figures[0].value == pytest.approx(7)
    assert [found.figures[d.figure or 0].value for d in found.dimensions] == pytest.approx([3, 4])
    assert values(found)["ends_distance"] == pytest.approx(5)


def test_between_pipes_at_the_nearest_and_from_centre_line_to_centre_line():
    house = House(a=bar(0.1, 4, along=(1, 0, 0)), b=bar(0.05, 4, at=(0, 0.5, 0.3), along=(0, 1, 0)))
    nearest = figures_of(BetweenMeasure(A, B), house)
    centres = figures_of(BetweenMeasure(A, B, "centre_lines"), house)
    assert values(nearest)["distance"] == pytest.approx(0.15, abs=0.001)
    assert values(centres)["distance"] == pytest.approx(0.3)
    assert nearest.of == (("from", A), ("to", B))
    with pytest.raises(NotMeasuredError, match="centre line"):
        figures_of(BetweenMeasure(A, B, "centre_lines"), House(a=bar(0.1, 4), b=bend(1, 0.1)))


def test_between_what_overlaps_is_how_deep_it_does_and_between_what_touches_nothing():
    over = figures_of(BetweenMeasure(A, B), House(a=box([0, 0, 0], [2, 2, 2]), b=box([1, 1, 1.75], [3, 3, 3])))
    assert values(over) == {"depth": pytest.approx(0.25), "shared_volume": pytest.approx(0.25)}
    assert over.note.startswith("They overlap")
    (line,) = over.dimensions
    assert np.abs(line.line[1] - line.line[0]) == pytest.approx([0, 0, 0.25])
    assert line.line.mean(axis=0) == pytest.approx([1.5, 1.5, 1.875])
    touch = figures_of(BetweenMeasure(A, B), House(a=box([0, 0, 0], [1, 1, 1]), b=box([1, 0, 0], [2, 1, 1])))
    assert (touch.figures[0].value, touch.note) == (0, "They touch.")


def face(ref, *point):
    return FaceSide(ref, point)


def test_parallel_faces_have_a_square_distance_and_others_an_angle():
    house = House(a=box([0, 0, 0], [1, 1, 1]), b=box([3, 2, 0], [4, 5, 1]))
    square = figures_of(SidesMeasure(face(A, 1, 0.5, 0.5), face(B, 3, 4, 0.2)), house)
    assert square.figures[0].name == "square"
    assert square.figures[0].value == pytest.approx(2)
    line = square.dimensions[0].line
    assert np.abs(line[1] - line[0]).tolist() == pytest.approx([2, 0, 0])
    turned = box([-1, -1, 0], [1, 1, 1])
    turned.apply_transform(TURN(math.radians(30), [0, 0, 1]))
    turned.apply_translation([5, 0, 0])
    at = turned.triangles_center[np.argmax(turned.face_normals @ [math.cos(math.pi / 6), math.sin(math.pi / 6), 0])]
    askew = figures_of(SidesMeasure(face(A, 1, 0.5, 0.5), face(B, *at)), House(a=box([0, 0, 0], [1, 1, 1]), b=turned))
    assert askew.figures[0].value == pytest.approx(30)
    assert askew.note == "They are not parallel."


def test_edges_are_measured_to_edges_and_to_faces():
    house = House(a=box([0, 0, 0], [1, 1, 1]))
    low, high = EdgeSide(((0, 0, 3), (1, 0, 3)), (0.3, 0, 3)), EdgeSide(((0, 4, 6), (5, 4, 6)), (2, 4, 6))
    assert values(figures_of(SidesMeasure(low, high), house)) == pytest.approx({"square": 5, "angle": 0})
    for pair in ((low, face(A, 0.5, 0.5, 1)), (face(A, 0.5, 0.5, 1), low)):
        assert values(figures_of(SidesMeasure(*pair), house)) == pytest.approx({"square": 2, "angle": 0})
    up = EdgeSide(((0, 0, 1), (0, 1, 2)), (0, 0, 1))
    assert values(figures_of(SidesMeasure(up, face(A, 0.5, 0.5, 1)), house)) == pytest.approx({"angle": 45})


def test_the_area_of_a_face_goes_around_its_hole_and_that_of_a_round_one_around_its_mantle():
    frame = trimesh.creation.annulus(0.5, 1.0, 0.2, sections=48)
    ring = figures_of(FaceMeasure(face(A, 0.75, 0, 0.1)), House(a=frame))
    assert values(ring)["area"] == pytest.approx(regular_area(48, 1.0) - regular_area(48, 0.5))
    assert values(ring)["perimeter"] == pytest.approx(regular_length(48, 1.0) + regular_length(48, 0.5))
    assert [d.figure for d in ring.dimensions] == [0, None]
    mantle = figures_of(FaceMeasure(face(A, 0.1, 0, 0)), House(a=bar(0.1, 2.0)))
    assert values(mantle)["area"] == pytest.approx(2 * regular_length(48, 0.1))
    with pytest.raises(NotMeasuredError, match="no longer"):
        figures_of(FaceMeasure(face(A, 9, 9, 9)), House(a=frame))


def test_rooms_volumes_and_room_at_a_point():
    house = House(a=box([0, 0, 0], [1, 2, 3]), b=bar(0.5, 2))
    assert values(figures_of(RoomMeasure(A), house)) == pytest.approx({"area": 12, "perimeter": 14})
    assert values(figures_of(VolumeMeasure((A, B)), house))["volume"] == pytest.approx(6 + 2 * regular_area(48, 0.5))
    tube = bar(0.1, 2.0)
    tube.update_faces(np.abs(tube.face_normals[:, 2]) < 0.5)
    assert "not closed" in figures_of(VolumeMeasure((A,)), House(a=tube)).note
    with pytest.raises(NotMeasuredError, match="Select"):
        figures_of(VolumeMeasure(()), house)
    height = Gap(2.4, np.array([[0, 0, 0], [0, 0, 2.4]]), (("above", A),))
    house.spot = Spot(FLOOR, height, None)
    clear = figures_of(ClearMeasure((0, 0, 0)), house)
    assert values(clear) == {"clear_height": 2.4}
    assert clear.of == (("floor", FLOOR), ("above", A))
    assert "open" in clear.note
    house.spot = Spot(FLOOR, None, None, hidden_height=replace(height, of=(("above_hidden", A),)))
    hidden = figures_of(ClearMeasure((0, 0, 0)), house)
    assert values(hidden) == {"hidden_height": 2.4}
    assert not hidden.dimensions
    assert hidden.of == (("floor", FLOOR), ("above_hidden", A))
    house.spot = Spot(FLOOR, None, None)
    with pytest.raises(NotMeasuredError, match="open"):
        figures_of(ClearMeasure((0, 0, 0)), house)


def test_a_point_of_the_stage_settles_on_the_face_it_was_clicked_on_and_a_far_one_stays():
    cube = of(box([0, 0, 0], [1, 1, 1]))
    assert settled(cube, np.array([0.3, 0.4, 1.0006])).tolist() == pytest.approx([0.3, 0.4, 1.0])
    assert settled(cube, np.array([0.3, 0.4, 1.5])).tolist() == [0.3, 0.4, 1.5]


@given(st.tuples(coordinate, coordinate, coordinate))
def test_measures_shift_with_all_their_points(by):
    what = SidesMeasure(face(A, 1, 2, 3), EdgeSide(((0, 0, 0), (1, 0, 0)), (0.5, 0, 0)))
    there = moved(what, by)
    assert there.a.point_m == pytest.approx(tuple(np.array([1, 2, 3]) + by))
    assert np.array(there.b.ends_m) == pytest.approx(np.array([[0, 0, 0], [1, 0, 0]]) + by)
    assert there.a.of == A
