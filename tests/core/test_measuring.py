"""Distances with their points, overlaps with their depth and volume, room at a point: against closed form."""

import math

import numpy as np
import pytest
import shapely
import trimesh
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from scipy.sparse import coo_array
from scipy.sparse.csgraph import connected_components

from stairpath.core.measuring.body import NoBodyError, body, body_of
from stairpath.core.measuring.clear import NoFloorError, clear_at
from stairpath.core.measuring.distance import between, from_point, holds
from stairpath.core.measuring.loops.groups import groups
from stairpath.core.measuring.measured import measured
from stairpath.core.measuring.overlap import overlap
from tests.core.blocks import Blocks
from tests.core.solids import bend, box, extruded, i_profile, joined, placed, regular_area

TURN = trimesh.transformations.rotation_matrix


def of(mesh):
    return body(np.asarray(mesh.vertices, dtype=float), mesh.faces)


def bar(radius: float, length: float, at=(0, 0, 0), along=(0, 0, 1), sections: int = 48):
    """A round bar about a point, along a direction."""
    mesh = trimesh.creation.cylinder(radius, length, sections=sections)
    mesh.apply_transform(trimesh.geometry.align_vectors([0, 0, 1], along))
    mesh.apply_translation(at)
    return mesh


# -- distances -----------------------------------------------------------------------------------


def test_box_and_box_by_face_edge_and_corner():
    cube = of(box([0, 0, 0], [1, 1, 1]))
    face = between(cube, of(box([3, 0.2, 0.2], [4, 0.8, 0.8])))
    assert face.distance_m == pytest.approx(2)
    assert face.along_m == pytest.approx((2, 0, 0))
    edge = between(cube, of(box([2, 3, 0], [4, 4, 1])))
    assert edge.distance_m == pytest.approx(math.sqrt(1 + 4))
    assert edge.from_m[:2] == pytest.approx((1, 1))
    corner = between(cube, of(box([2, 3, 4], [5, 5, 5])))
    assert corner.distance_m == pytest.approx(math.sqrt(1 + 4 + 9))
    assert corner.from_m == pytest.approx((1, 1, 1))
    assert corner.to_m == pytest.approx((2, 3, 4))
    assert corner.horizontal_m == pytest.approx(math.sqrt(5))
    assert corner.rise_m == pytest.approx(3)


def test_box_and_cylinder():
    # A facet's corner points at the box; the gap is that of the mesh.
    found = between(of(box([0, -1, 0], [1, 1, 3])), of(bar(0.5, 3, at=(2.25, 0.3, 1.5))))
    assert found.distance_m == pytest.approx(0.75, abs=0.5 * (1 - math.cos(math.pi / 48)))
    assert found.from_m[0] == pytest.approx(1)
    assert found.from_m[1] == pytest.approx(0.3, abs=0.05)


def test_skew_pipes():
    one, other = bar(0.1, 6, along=(1, 0, 0)), bar(0.05, 6, at=(0.4, 0.3, 1.0), along=(0, 1, 0))
    found = between(of(one), of(other))
    assert found.distance_m == pytest.approx(1.0 - 0.15, abs=0.15 * (1 - math.cos(math.pi / 48)))
    assert found.from_m == pytest.approx((0.4, 0, 0.1), abs=0.02)
    assert found.to_m == pytest.approx((0.4, 0, 0.95), abs=0.02)
    assert found.along_m[:2] == pytest.approx((0, 0), abs=1e-9)


def test_nested_and_overlapping_parts_are_at_no_distance():
    outer, inner = of(box([0, 0, 0], [4, 4, 4])), of(box([1, 1, 1], [2, 2, 2]))
    for one, other in ((outer, inner), (inner, outer)):
        found, shared = measured(one, other)
        assert found.distance_m == 0
        assert shared
    assert measured(outer, of(box([3, 3, 3], [5, 5, 5])))[1]
    # In a hollow nothing is shared: the distance is that to the wall around.
    pipe = of(trimesh.creation.annulus(0.4, 0.5, 4.0, sections=48))
    found, shared = measured(pipe, of(bar(0.1, 1)))
    assert not shared
    assert found.distance_m == pytest.approx(0.4 * math.cos(math.pi / 48) - 0.1, abs=1e-3)


def test_one_of_several_parts_within_the_other_is_enough():
    outer = of(box([0, 0, 0], [4, 4, 4]))
    two = of(joined(box([9, 0, 0], [10, 1, 1]), box([1, 1, 1], [2, 2, 2])))
    assert measured(two, outer)[1]
    assert measured(outer, two)[0].distance_m == 0


def test_what_only_touches_is_at_no_distance_and_shares_nothing():
    found, shared = measured(of(box([0, 0, 0], [1, 1, 1])), of(box([1, 0.2, 0], [2, 0.8, 1])))
    assert found.distance_m == pytest.approx(0, abs=1e-12)
    assert not shared


def test_points():
    cube = of(box([0, 0, 0], [1, 1, 1]))
    outside = from_point(np.array([0.5, 0.5, 3.0]), cube)
    assert outside.distance_m == pytest.approx(2)
    assert outside.to_m == pytest.approx((0.5, 0.5, 1))
    assert measured(cube, np.array([0.5, 0.5, 3.0]))[0].from_m == pytest.approx((0.5, 0.5, 1))
    found, shared = measured(np.array([0.5, 0.5, 0.5]), cube)
    assert (found.distance_m, shared) == (0, True)
    assert holds(cube, np.array([0.1, 0.9, 0.5]))
    assert not holds(cube, np.array([1.1, 0.9, 0.5]))


def test_a_distance_along_the_building_is_turned_with_its_north():
    found, _ = measured(np.zeros(3), np.array([1.0, 1.0, 2.0]))
    # North of the building lies 45 degrees east of +Y: the way is all north.
    assert found.along_building_m(45.0) == pytest.approx((0, math.sqrt(2), 2))
    assert found.along_building_m(0.0) == pytest.approx(found.along_m)


def test_a_limit_ends_the_search():
    one, other = of(box([0, 0, 0], [1, 1, 1])), of(box([2, 0, 0], [3, 1, 1]))
    assert between(one, other, 0.9) is None
    assert between(one, other, 1.1).distance_m == pytest.approx(1)


def test_a_component_without_a_shape_says_so():
    with pytest.raises(NoBodyError, match="no shape"):
        body_of(placed(box([0, 0, 0], [1, 1, 1])), 3, np.zeros(3))


def test_the_distance_of_large_meshes_is_the_least_over_all_corner_points():
    one = trimesh.creation.icosphere(4, 1.0)
    other = trimesh.creation.icosphere(4, 0.7)
    other.apply_transform(TURN(0.4, [1, 2, 3], [0, 0, 0]))
    other.apply_translation([1.6, 1.1, 0.4])
    found = between(of(one), of(other))
    gaps = np.linalg.norm(one.vertices[:, None] - other.vertices[None], axis=2)
    assert found.distance_m <= gaps.min() + 1e-9
    assert found.distance_m == pytest.approx(math.sqrt(1.6**2 + 1.1**2 + 0.4**2) - 1.7, abs=0.01)


span = st.floats(-2, 2)
SHAPES = [
    box([-0.5, -0.4, -0.3], [0.5, 0.4, 0.3]),
    bar(0.3, 1.2, sections=12),
    extruded(i_profile(0.8, 0.6, 0.1, 0.1), 1.0),
    bend(0.6, 0.2, 8, 6),
]
shapes = st.sampled_from(SHAPES)
ways = st.tuples(span, span, span)


def moved(mesh, turn, by):
    copy = mesh.copy()
    axis = np.add(turn, (0, 0, 1e-3))
    copy.apply_transform(TURN(float(np.linalg.norm(axis)), axis))
    copy.apply_translation(by)
    return copy


@settings(max_examples=40)
@given(shapes, shapes, ways, ways)
def test_distance_is_symmetric_and_moves_along(one, other, turn, by):
    a, b = of(one), of(moved(other, turn, by))
    there, back = between(a, b), between(b, a)
    assert there.distance_m == pytest.approx(back.distance_m, abs=1e-9)
    far = np.array([31.0, -17.0, 5.0])
    assert between(a.moved(far), b.moved(far)).distance_m == pytest.approx(there.distance_m, abs=1e-9)


@settings(max_examples=40)
@given(shapes, shapes, ways, ways)
def test_distance_is_nothing_exactly_where_they_overlap(one, other, turn, by):
    a, b = of(one), of(moved(other, turn, by))
    apart = between(a, b).distance_m
    shared = overlap(a, b)
    assume(shared is None or (shared.volume_m3 or 0) > 1e-7)
    assume(apart == 0 or apart > 1e-6)
    assert (apart == 0) == (shared is not None)


close = st.floats(-0.35, 0.35)


@settings(max_examples=25)
@given(shapes, shapes, ways, st.tuples(close, close, close))
def test_the_shift_parts_them_and_hardly_less_does_not(one, other, turn, by):
    a, b = of(one), of(moved(other, turn, by))
    shared = overlap(a, b)
    assume(shared is not None and shared.depth_m > 1e-3)
    assert np.linalg.norm(shared.shift_m) == pytest.approx(shared.depth_m)
    after = overlap(a.moved(np.array(shared.shift_m) * (1 + 1e-4)), b)
    assert after is None or (after.volume_m3 or 0) < 1e-6
    less = overlap(a.moved(np.array(shared.shift_m) * 0.97), b)
    assert less is not None


# -- overlaps ------------------------------------------------------------------------------------


def test_two_boxes_overlap_by_the_least_of_three():
    found = overlap(of(box([0, 0, 0], [1, 1, 1])), of(box([0.8, 0.3, 0.2], [2, 2, 2])))
    assert found.depth_m == pytest.approx(0.2)
    assert found.volume_m3 == pytest.approx(0.2 * 0.7 * 0.8)
    assert found.at_m == pytest.approx((0.9, 0.65, 0.6))
    assert found.shift_m == pytest.approx((-0.2, 0, 0))


def test_a_box_turned_by_45_degrees_overlaps_by_its_corner():
    turned = trimesh.creation.box((1, 1, 1), TURN(math.pi / 4, [0, 0, 1]))
    turned.apply_translation([0.5 + math.sqrt(0.5) - 0.1, 0, 0])
    found = overlap(of(box([-0.5, -0.5, -0.5], [0.5, 0.5, 0.5])), of(turned))
    assert found.depth_m == pytest.approx(0.1)
    assert found.volume_m3 == pytest.approx(0.1 * 0.1)  # a corner of 90 degrees, 0.1 deep


def test_a_box_in_a_box_comes_out_by_the_nearest_side():
    found = overlap(of(box([0, 0, 0], [4, 4, 4])), of(box([0.5, 1, 1], [1.5, 2, 2])))
    assert found.volume_m3 == pytest.approx(1)
    assert found.depth_m == pytest.approx(1.5)
    assert found.at_m == pytest.approx((1, 1.5, 1.5))


def test_a_pipe_through_a_wall():
    wall, pipe = of(box([0, 0, 0], [6, 0.3, 3])), of(bar(0.1, 2, at=(3, 0.15, 1.5), along=(0, 1, 0)))
    found = overlap(pipe, wall)
    assert found.volume_m3 == pytest.approx(regular_area(48, 0.1) * 0.3, rel=1e-6)
    assert found.at_m == pytest.approx((3, 0.15, 1.5), abs=1e-6)
    # Out of the wall endways: half of both lengths.
    assert found.depth_m == pytest.approx(1.15)


WINDOW = extruded(shapely.box(0, 0, 6, 3).difference(shapely.box(2, 1, 3.5, 2.2)), 0.3)


@pytest.mark.parametrize(("x", "deep"), [(2.09, 0.01), (1.95, 0.15)])
def test_a_pipe_that_grazes_an_opening_goes_back_into_it(x, deep):
    found = overlap(of(bar(0.1, 2, at=(x, 1.5, 0.15), sections=24)), of(WINDOW))
    assert found.depth_m == pytest.approx(deep, abs=1e-5)
    assert found.shift_m == pytest.approx((deep, 0, 0), abs=1e-5)


def test_a_duct_that_reaches_into_a_flange_is_as_deep_as_the_flange_is_met():
    beam = extruded(i_profile(0.3, 0.15, 0.007, 0.011), 5.0)
    duct = box([0.01, -0.145, 1.8], [0.07, -0.045, 2.2])
    found = overlap(of(duct), of(beam))
    assert found.depth_m == pytest.approx(0.006, abs=1e-5)
    assert found.shift_m == pytest.approx((0, 0.006, 0), abs=1e-5)
    assert found.volume_m3 == pytest.approx(0.006 * 0.06 * 0.4, rel=1e-3)


def test_what_touches_or_lies_in_a_hollow_does_not_overlap():
    cube = of(box([0, 0, 0], [1, 1, 1]))
    assert overlap(cube, of(box([1, 0, 0], [2, 1, 1]))) is None
    assert overlap(cube, of(box([5, 0, 0], [6, 1, 1]))) is None
    assert overlap(of(trimesh.creation.annulus(0.4, 0.5, 4.0)), of(bar(0.1, 1))) is None


def test_of_an_open_body_no_volume_is_told():
    opened = trimesh.creation.box((2, 2, 2))
    opened.update_faces(np.arange(len(opened.faces)) != 0)
    found = overlap(of(opened), of(box([0.9, -0.2, -0.2], [2, 0.2, 0.2])))
    assert found.volume_m3 is None
    assert found.depth_m == pytest.approx(0.1, abs=0.01)


def test_parts_of_one_component_that_overlap_count_once():
    two = joined(box([0, 0, 0], [2, 2, 2]), box([1, 1, 0], [3, 3, 2]))
    assert overlap(of(two), of(box([-1, -1, -1], [4, 4, 4]))).volume_m3 == pytest.approx(14)


# -- room at a point -----------------------------------------------------------------------------


def test_clear_height_and_width_in_a_corridor():
    blocks = Blocks().room(0, 0, 8, 1.4).box("duct", (3, -0.2, 2.31), (4, 1.6, 2.6))
    found = clear_at(blocks.solids(), np.array([3.5, 0.5, 1.0]))
    assert found.floor == pytest.approx([3.5, 0.5, 0])
    assert blocks.names[found.component] == "floor"
    assert found.height.height_m == pytest.approx(2.31)
    assert blocks.names[found.height.component] == "duct"
    assert found.height.at == pytest.approx([3.5, 0.5, 2.31])
    assert found.width.width_m == pytest.approx(1.4, abs=1e-6)
    assert {blocks.names[c] for c in found.width.components} == {"south wall", "north wall"}
    assert clear_at(blocks.solids(), np.array([6.0, 0.5, 0.0])).height is None


def test_clear_width_between_a_wall_and_what_stands_before_it():
    blocks = Blocks().room(0, 0, 8, 2).box("press", (3, 0.72, 0), (4, 2, 1.8))
    found = clear_at(blocks.solids(), np.array([3.5, 0.3, 0.02]))
    assert found.width.width_m == pytest.approx(0.72, abs=1e-6)
    assert sorted(blocks.names[c] for c in found.width.components) == ["press", "south wall"]
    # What is too low to narrow the way, or too high, does not.
    low = Blocks().room(0, 0, 8, 2).box("kerb", (3, 0.72, 0), (4, 2, 0.04)).box("shelf", (3, 0.72, 2.1), (4, 2, 2.4))
    assert clear_at(low.solids(), np.array([3.5, 0.3, 0.1])).width.width_m == pytest.approx(2, abs=1e-6)


def test_clear_width_through_a_doorway_between_its_jambs():
    blocks = Blocks().box("floor", (-3, -3, -0.3), (3, 3, 0))
    blocks.box("left", (-3, -0.1, 0), (-0.45, 0.1, 3)).box("right", (0.45, -0.1, 0), (3, 0.1, 3))
    found = clear_at(blocks.solids(), np.array([0.1, 0.0, 0.5]))
    assert found.width.width_m == pytest.approx(0.9, abs=1e-4)


def test_where_there_is_no_floor_it_says_so():
    with pytest.raises(NoFloorError, match="no floor below"):
        clear_at(Blocks().box("floor", (0, 0, -0.3), (1, 1, 0)).solids(), np.array([5.0, 5.0, 1.0]))


@given(st.integers(1, 30).flatmap(lambda n: st.tuples(st.just(n), st.lists(st.tuples(*2 * [st.integers(0, n - 1)])))))
def test_what_hangs_together_is_one_group_counted_as_it_comes(given_pairs):
    count, pairs = given_pairs
    one, other = np.array(pairs, dtype=np.int64).reshape(-1, 2).T
    label = groups(count, one, other)
    expected = connected_components(coo_array((np.ones(len(one)), (one, other)), shape=(count, count)), False)[1]
    assert (label == expected).all()
