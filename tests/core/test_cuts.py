"""Cuts that work together: planes, bands, boxes, and the faces that they leave of bodies."""

import math

import numpy as np
import pytest
import trimesh
from hypothesis import example, given
from hypothesis import strategies as st

from stairpath.core.cutting.cuts import (
    BandCut,
    BoxCut,
    Cut,
    NothingToBoxError,
    PlaneCut,
    active_planes,
    box_around,
    planes_of,
)
from stairpath.core.cutting.faces import faces, left_on
from stairpath.core.geometry.clipping import kept
from stairpath.core.geometry.plan import lies_in
from stairpath.core.geometry.plane import NotAPlaneError, level_plane, plane
from tests.core.solids import box, joined, placed

BLOCK = placed(box([0, 0, 0], [10, 8, 3]))


def area(triangles):
    one, two = triangles[:, 1] - triangles[:, 0], triangles[:, 2] - triangles[:, 0]
    return float(np.linalg.norm(np.cross(one, two), axis=1).sum()) / 2


def cut_faces(*shapes, parts=(BLOCK,)):
    planes = [p for _, p in active_planes([Cut(str(k), shape) for k, shape in enumerate(shapes)])]
    return faces(parts, planes)


def test_a_plane_leaves_its_section():
    (found,) = cut_faces(PlaneCut((0, 0, 1.2), (0, 0, 2)))
    assert found.area_m2 == pytest.approx(80)
    assert area(found.triangles) == pytest.approx(80)
    assert set(found.of) == {0}
    assert found.triangles[..., 2] == pytest.approx(1.2)
    assert np.linalg.norm(found.lines[:, 1] - found.lines[:, 0], axis=1).sum() == pytest.approx(36)
    normals = np.cross(found.triangles[:, 1] - found.triangles[:, 0], found.triangles[:, 2] - found.triangles[:, 0])
    assert (normals[:, 2] > 0).all()  # seen from the side that is taken away


def test_planes_that_cut_at_once_take_from_one_another():
    level, upright = cut_faces(PlaneCut((0, 0, 1.2), (0, 0, 1)), PlaneCut((4, 0, 0), (1, 0, 0)))
    assert level.area_m2 == pytest.approx(4 * 8)
    assert upright.area_m2 == pytest.approx(8 * 1.2)
    # Away from one another they leave nothing.
    assert [f.area_m2 for f in cut_faces(PlaneCut((0, 0, 1), (0, 0, 1)), PlaneCut((0, 0, 2), (0, 0, -1)))] == [0, 0]


def test_planes_are_the_same_wherever_their_points_are_given():
    to = np.eye(4)
    to[:3, 3] = (412_300, 88_650, 0)
    far = placed(box([0, 0, 0], [10, 8, 3]), to=to)
    level, upright = cut_faces(PlaneCut((0, 0, 1.2), (0, 0, 1)), PlaneCut((412_304, 0, 0), (1, 0, 0)), parts=(far,))
    assert level.area_m2 == pytest.approx(4 * 8)
    assert upright.area_m2 == pytest.approx(8 * 1.2)


def test_a_band_leaves_both_of_its_faces():
    top, bottom = cut_faces(BandCut((0, 0, 2), (0, 0, 1), 0.5))
    assert top.triangles[..., 2] == pytest.approx(2)
    assert bottom.triangles[..., 2] == pytest.approx(1.5)
    assert top.area_m2 == bottom.area_m2 == pytest.approx(80)


def test_a_box_turns_with_the_building():
    found = cut_faces(BoxCut((5, 4, 1), (2, 4, 1), 0.0))
    assert sorted(f.area_m2 for f in found) == pytest.approx([2, 2, 4, 4, 8, 8])
    turned = cut_faces(BoxCut((5, 4, 1), (2, 4, 1), 30.0))
    assert sorted(f.area_m2 for f in turned) == pytest.approx([2, 2, 4, 4, 8, 8])
    corners = np.concatenate([f.triangles.reshape(-1, 3) for f in turned]) - [5, 4, 1]
    angle = math.radians(30)
    along = corners[:, 0] * math.sin(angle) + corners[:, 1] * math.cos(angle)
    assert np.abs(along).max() == pytest.approx(2)


def test_what_is_off_is_kept_and_cuts_nothing():
    assert active_planes([Cut("a", PlaneCut((0, 0, 1), (0, 0, 1)), off=True)]) == []


def test_components_that_could_not_be_closed_are_told_with_their_gap():
    sheet = trimesh.Trimesh([[9, 0, 0], [13, 0, 0], [13, 0, 3], [9, 0, 3]], [[0, 1, 2], [0, 2, 3]])
    (found,) = faces([BLOCK, placed(sheet)], [level_plane(1)])
    assert list(found.open_of) == [1]
    assert found.gap_m == pytest.approx([4])


def test_components_are_counted_over_all_models():
    two = [placed(box([0, 0, 0], [1, 1, 1]), box([2, 0, 0], [3, 1, 1])), placed(joined(box([4, 0, 0], [5, 1, 1])))]
    (found,) = faces(two, [level_plane(0.5)])
    assert sorted(set(found.of)) == [0, 1, 2]
    assert sorted(set(found.line_of)) == [0, 1, 2]


@pytest.mark.parametrize(
    ("shape", "said"),
    [
        (PlaneCut((0, 0, 0), (0, 0, 0)), "no length"),
        (BandCut((0, 0, 0), (0, 0, 1), 0.0), "at least 1 mm thick"),
        (BandCut((0, 0, 0), (0, 0, 1), math.nan), "at least 1 mm thick"),
        (BoxCut((0, 0, 0), (1, 0, 1)), "at least 1 mm long"),
    ],
)
def test_what_cuts_nothing_is_refused(shape, said):
    with pytest.raises(NotAPlaneError, match=said):
        planes_of(shape)


small = st.floats(-1, 1)


NEARLY = [((0.2 + tilt, -0.4, 0.9), 0.3 + off) for tilt in (1e-7, 1e-8, 3e-9) for off in (-0.5, 0.5)]


@given(st.lists(st.tuples(st.tuples(small, small, small), st.floats(-1, 1)), min_size=1, max_size=4))
@example(NEARLY[:1])
@example(NEARLY[1:2])
@example(NEARLY[2:3])
@example(NEARLY[3:4])
@example(NEARLY[4:5])
@example(NEARLY[5:])
def test_what_is_left_on_a_plane_is_what_no_other_takes_away(others):
    base = plane((0.1, 0.2, 0.3), (0.2, -0.4, 0.9))
    planes = [plane((0, 0, o), n) for n, o in others if np.linalg.norm(n) > 0.2]
    left = left_on(base, planes)
    if left is None:
        assert planes == []
        return
    flat = np.random.default_rng(1).uniform(-3, 3, (60, 2))
    heights = np.array([p.heights(base.placed(flat)) for p in planes])
    clear = (np.abs(heights) > 1e-6).all(axis=0)
    inside = (heights <= 0).all(axis=0)
    assert (lies_in(left, flat) == inside)[clear].all()


@given(st.floats(-90, 90), st.floats(0, 2))
def test_a_box_around_something_holds_it_with_its_margin_and_no_more(bearing, margin):
    points = np.add(np.random.default_rng(2).uniform(-5, 5, (20, 3)), (400_000, 80_000, 0))
    found = box_around(points, bearing, margin)
    heights = np.array([p.heights(points) for p in planes_of(found)])
    assert heights.max(axis=1) == pytest.approx(-margin, abs=1e-6)


def test_there_is_no_box_around_nothing():
    with pytest.raises(NothingToBoxError, match="nothing to put a box around"):
        box_around(np.zeros((0, 3)), 0.0, 0.5)


@given(st.lists(st.tuples(st.tuples(small, small, small), st.floats(-2, 2)), max_size=3))
def test_what_is_kept_of_triangles_lies_beneath_all_planes_and_covers_what_does(others):
    corners = box([-2, -2, -2], [2, 2, 2]).triangles
    planes = [plane(tuple(np.array(n) / np.linalg.norm(n) * o), n) for n, o in others if np.linalg.norm(n) > 0.2]
    found = kept(corners, planes)
    for each in planes:
        assert (each.heights(found) <= 1e-9).all()
    whole = np.ones(len(corners), dtype=bool)
    for each in planes:
        whole &= (each.heights(corners) <= 0).all(axis=1)
    assert area(found) >= area(corners[whole]) - 1e-9
    if not planes:
        assert np.array_equal(found, corners)


def test_what_a_plane_keeps_and_what_its_other_side_keeps_is_all():
    corners = box([0, 0, 0], [2, 3, 4]).triangles
    one = plane((1, 1, 1), (0.3, 0.5, 0.9))
    other = plane((1, 1, 1), (-0.3, -0.5, -0.9))
    assert area(kept(corners, [one])) + area(kept(corners, [other])) == pytest.approx(area(corners))
