"""Framing, lenses and directions."""

import math

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from hypothesis.extra.numpy import arrays

from stairpath.core.camera.framing import NothingToFrameError, frame, project
from stairpath.core.camera.pose import angle_deg, axes, focal_mm

corner = st.floats(-500, 500, allow_nan=False)
clouds = arrays(np.float64, st.tuples(st.integers(2, 24), st.just(3)), elements=corner)


@given(
    points=clouds,
    bearing=st.floats(0, 360),
    tilt=st.floats(-90, 90),
    aspect=st.floats(0.4, 3.5),
    lens=st.floats(1, 120),
    projection=st.sampled_from(["perspective", "parallel"]),
    margin=st.floats(0, 0.3),
    far=st.floats(-5e5, 5e5),
)
def test_every_corner_is_inside_and_one_touches_the_margin(
    points, bearing, tilt, aspect, lens, projection, margin, far
):
    assume(np.ptp(points, axis=0).max() > 0.5)
    points = points + far
    pose = frame(points, bearing, tilt, aspect, projection, lens, margin)
    placed = project(points, pose)
    assume(pose.height_m > 0.11)
    right, up, _ = axes(bearing, tilt)
    # A cloud that is a point or a line end-on from here has no width to fill the frame with.
    assume(max(np.ptp(points @ right), np.ptp(points @ up)) > 0.2)
    assert (placed[:, 2] > 0).all()
    outermost = np.abs(placed[:, :2]).max()
    assert outermost == pytest.approx(1 - 2 * margin, abs=2e-4)


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
    pose = frame(box, 0.0, 0.0, 1.0, angle_deg=90.0, margin=0.0)
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


@pytest.mark.parametrize("bad", [{"angle_deg": 0.5}, {"angle_deg": 150.0}, {"margin": 0.5}, {"aspect": 0.0}])
def test_impossible_lenses_and_frames_are_refused(bad):
    with pytest.raises(ValueError, match="must"):
        frame(np.zeros((1, 3)), 0, 0, **{"aspect": 1.0, **bad})


def test_nothing_to_frame():
    with pytest.raises(NothingToFrameError):
        frame(np.full((3, 3), np.nan), 0, 0, 1.0)
