"""Framing, lenses and directions."""

import math

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from hypothesis.extra.numpy import arrays

from stairpath.core.camera.framing import Borders, NothingToFrameError, frame, frame_beside, project
from stairpath.core.camera.lens import levelled
from stairpath.core.camera.pose import Pose, angle_deg, axes, focal_mm
from stairpath.core.camera.square import opened_at

corner = st.floats(-500, 500, allow_nan=False)
clouds = arrays(np.float64, st.tuples(st.integers(2, 24), st.just(3)), elements=corner)


@given(
    points=clouds,
    bearing=st.floats(0, 360),
    tilt=st.floats(-90, 90),
    aspect=st.floats(0.4, 3.5),
    lens=st.floats(1, 120),
    projection=st.sampled_from(["perspective", "parallel"]),
    sides=st.tuples(*[st.floats(0, 0.4)] * 4),
    far=st.floats(-5e5, 5e5),
)
def test_every_corner_is_inside_the_borders_and_one_touches_them(
    points, bearing, tilt, aspect, lens, projection, sides, far
):
    assume(np.ptp(points, axis=0).max() > 0.5)
    points = points + far
    borders = Borders(*sides)
    pose = frame(points, bearing, tilt, aspect, projection, lens, borders)
    placed = project(points, pose)
    assume(pose.height_m > 0.11)
    right, up, _ = axes(bearing, tilt)
    # A cloud that is a point or a line end-on from here has no width to fill the frame with.
    assume(max(np.ptp(points @ right), np.ptp(points @ up)) > 0.2)
    assert (placed[:, 2] > 0).all()
    x, y = (placed[:, 0] + 1) / 2, (placed[:, 1] + 1) / 2
    spare = [
        x.min() - borders.left, 1 - borders.right - x.max(), y.min() - borders.bottom, 1 - borders.top - y.max()
    ]  # fmt: skip
    assert min(spare) == pytest.approx(0, abs=1e-4)


def test_what_covers_a_side_of_the_frame_is_kept_clear_of():
    """A square face through 90 degrees with the left half of the frame covered: it fills the right half."""
    face = np.array([[x, 0.0, z] for x in (0, 10) for z in (0, 10)])
    placed = project(face, frame(face, 0.0, 0.0, 2.0, angle_deg=90.0, borders=Borders.around(0.0, left=0.5)))
    assert placed[:, 0].min() == pytest.approx(0.0, abs=1e-9)
    assert placed[:, 0].max() == pytest.approx(1.0)
    flat = project(face, frame(face, 0.0, 0.0, 2.0, "parallel", borders=Borders(bottom=0.5)))
    assert (flat[:, 1].min(), flat[:, 1].max()) == pytest.approx((0.0, 1.0), abs=1e-9)


def test_of_two_ways_to_keep_clear_the_larger_view_is_taken():
    wide = np.array([[x, 0.0, z] for x in (0, 30) for z in (0, 10)])
    ways = [Borders.around(0.0, left=0.3), Borders.around(0.0, bottom=0.35)]
    found = frame_beside(wide, 0.0, 0.0, 1.5, "perspective", 60.0, ways)
    assert found == frame(wide, 0.0, 0.0, 1.5, "perspective", 60.0, ways[1])


def test_a_view_is_opened_up_to_a_point():
    """What lies before the point along the line of sight is looked through; the eye stands right before it."""
    face = np.array([[x, y, z] for x in (0.0, 10.0) for y in (0.0, 20.0) for z in (0.0, 3.0)])
    pose = frame(face, 0.0, 90.0, 1.0, "parallel")
    opened, through_m = opened_at(pose, np.array([2.0, 2.0, 1.2]))
    assert opened.eye_m[2] - through_m == pytest.approx(1.2)
    assert opened.eye_m[:2] == pytest.approx(pose.eye_m[:2])
    assert np.array(opened.target_m)[2] < 1.2
    assert project(face, opened)[:, :2] == pytest.approx(project(face, pose)[:, :2])


@given(bearing=st.floats(0, 360), tilt=st.floats(-89, 89))
def test_a_framed_view_is_level_and_looks_where_it_should(bearing, tilt):
    pose = frame(np.array([[0.0, 0, 0], [10, 20, 5]]), bearing, tilt, 1.6)
    look = np.array(pose.target_m) - np.array(pose.eye_m)
    assert abs(np.dot(np.cross(look, pose.up), [0, 0, 1])) < 1e-6 * np.linalg.norm(look)
    assert math.degrees(math.atan2(-look[2], math.hypot(look[0], look[1]))) == pytest.approx(tilt, abs=1e-6)
    assert math.cos(math.atan2(look[0], look[1]) - math.radians(bearing)) == pytest.approx(1.0, abs=1e-9)


def test_a_box_seen_square_on_is_worked_out_by_hand():
    """A 10 x 10 face at y = 0 seen along +Y through 90 degrees, no margin: the eye is 5 m away."""
    box = np.array([[x, y, z] for x in (0, 10) for y in (0, 4) for z in (0, 10)], dtype=float)
    pose = frame(box, 0.0, 0.0, 1.0, angle_deg=90.0, borders=Borders())
    assert pose.eye_m == pytest.approx((5.0, -5.0, 5.0))
    assert pose.up == pytest.approx((0, 0, 1))


def test_plan_has_the_bearing_upwards():
    pose = frame(np.array([[0.0, 0, 0], [1, 1, 1]]), 90.0, 90.0, 1.0)
    assert pose.up == pytest.approx((1, 0, 0), abs=1e-9)


@given(st.floats(1, 120))
def test_degrees_and_millimetres_convert_back(angle):
    assert angle_deg(focal_mm(angle)) == pytest.approx(angle, rel=1e-12)


def test_a_35_mm_lens_sees_54_degrees():
    assert angle_deg(35.0) == pytest.approx(54.4, abs=0.05)


@pytest.mark.parametrize(
    "bad",
    [
        {"angle_deg": 0.5},
        {"angle_deg": 150.0},
        {"borders": Borders(left=0.5, right=0.5)},
        {"borders": Borders(left=-0.1)},
        {"aspect": 0.0},
    ],
)
def test_impossible_lenses_and_frames_are_refused(bad):
    with pytest.raises(ValueError, match="must"):
        frame(np.zeros((1, 3)), 0, 0, **{"aspect": 1.0, **bad})


def test_a_margin_takes_a_fifth_of_what_is_free_at_most():
    assert Borders.around(0.3, left=0.5) == Borders(0.6, 0.1, 0.2, 0.2)
    with pytest.raises(ValueError, match="The margin must be"):
        Borders.around(0.5)


def test_nothing_to_frame():
    with pytest.raises(NothingToFrameError):
        frame(np.full((3, 3), np.nan), 0, 0, 1.0)


def test_a_view_that_looks_nowhere_is_made_level_to_the_north():
    nowhere = Pose((1.0, 2.0, 3.0), (1.0, 2.0, 3.0), (0.0, 0.0, 1.0), "perspective", 60.0, 5.0, 1.0)
    assert levelled(nowhere).target_m == (1.0, 3.0, 3.0)
