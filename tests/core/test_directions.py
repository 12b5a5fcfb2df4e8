"""Standard directions, square-on views, lenses, projections and levelling."""

import math

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from stairpath.core.camera.directions import nearest, standard
from stairpath.core.camera.framing import frame, project
from stairpath.core.camera.lens import (
    depth_of,
    height_for_scale,
    levelled,
    scale_of,
    typed_angle,
    with_angle,
    with_projection,
)
from stairpath.core.camera.pose import Pose, angle_deg, axes, focal_mm
from stairpath.core.camera.square import along_axis, onto_face

BOX = np.array([[x, y, z] for x in (0.0, 48.0) for y in (0.0, 24.0) for z in (-4.2, 15.0)])
bearings = st.floats(0, 359.99)
tilts = st.floats(-85, 85)
lenses = st.floats(1, 120)


def along(bearing, tilt):
    return axes(bearing, tilt)[2]


@given(front=st.floats(-720, 720))
def test_there_are_26_directions_all_different(front):
    found = standard(front)
    assert len(found) == len({d.name for d in found}) == 26
    ways = np.array([along(d.bearing_deg, d.tilt_deg) for d in found])
    apart = ways @ ways.T
    np.fill_diagonal(apart, -1)
    assert math.degrees(math.acos(apart.max())) > 35.2
    assert all(0 <= d.bearing_deg < 360 for d in found)


@pytest.mark.parametrize("index", range(26))
def test_each_direction_is_the_nearest_to_itself(index):
    wanted = standard(17.0)[index]
    assert nearest(wanted.bearing_deg + 3, max(-90, min(90, wanted.tilt_deg + 2)), 17.0) == wanted


def test_the_directions_are_those_between_the_sides_of_a_cube():
    """Every one is a sum of some of three sides at right angles, as a cube's edges and corners are."""
    sides = {tuple(np.round(along(d.bearing_deg, d.tilt_deg) / np.abs(along(d.bearing_deg, d.tilt_deg)).max()).astype(int))
             for d in standard(0.0)}  # fmt: skip
    wanted = {(x, y, z) for x in (-1, 0, 1) for y in (-1, 0, 1) for z in (-1, 0, 1)} - {(0, 0, 0)}
    assert sides == wanted


def test_the_front_can_be_another_side():
    turned = {d.name: d.bearing_deg for d in standard(90.0)}
    assert turned["front"] == 90.0
    assert turned["right"] == 0.0
    assert turned["back"] == 270.0


@given(bearing=bearings, tilt=tilts)
def test_square_onto_a_face_looks_against_its_normal(bearing, tilt):
    normal = tuple(-along(bearing, tilt))
    found = onto_face(normal)
    assert along(*found) == pytest.approx(along(bearing, tilt), abs=1e-9)


def test_a_floor_is_looked_at_from_above_and_a_ceiling_from_below_with_the_bearing_one_has():
    assert onto_face((0, 0, 1), 123.0) == (123.0, 90.0)
    assert onto_face((0, 0, -2), 361.0) == (1.0, -90.0)
    with pytest.raises(ValueError, match="Select another"):
        onto_face((0, 0, 0))


@pytest.mark.parametrize(
    ("end", "bearing", "wanted"),
    [((10, 0), 10.0, 0.0), ((10, 0), 190.0, 180.0), ((0, 10), 80.0, 90.0), ((0, -10), 300.0, 270.0), ((10, 10), 330.0, 315.0)],
)  # fmt: skip
def test_a_grid_line_is_looked_at_from_the_side_one_is_on(end, bearing, wanted):
    assert along_axis((0, 0), end, bearing) == pytest.approx(wanted)


def test_a_grid_line_without_length_is_refused():
    with pytest.raises(ValueError, match="Select another"):
        along_axis((1, 1), (1, 1))


@pytest.mark.parametrize(
    ("text", "wanted"),
    [("60", 60), (" 60° ", 60), ("45 deg", 45), ("54,4 degrees", 54.4), ("35 mm", angle_deg(35)), ("18mm", 90)],
)
def test_a_lens_is_typed_as_an_angle_or_a_length(text, wanted):
    assert typed_angle(text) == pytest.approx(wanted)


@pytest.mark.parametrize(
    ("text", "words"),
    [("", "Nothing is not a lens"), ("wide", "wide is not a lens"), ("0", "between 1 and 120"), ("121", "between 1 and 120"),
     ("5 mm", "between 1 and 120"), ("0 mm", "between 1 and 120"), ("-60", "is not a lens"), ("60 m", "is not a lens")],
)  # fmt: skip
def test_what_is_no_lens_gets_a_sentence(text, words):
    with pytest.raises(ValueError, match=words):
        typed_angle(text)


@given(angle=lenses)
def test_degrees_to_millimetres_and_back_is_exact(angle):
    assert angle_deg(focal_mm(angle)) == pytest.approx(angle, rel=1e-12)
    assert typed_angle(f"{focal_mm(angle):.12f} mm") == pytest.approx(angle, rel=1e-9)


def shown_size(pose: Pose, point) -> float:
    """Share of the frame's width that a metre across the view takes at a point."""
    look = np.subtract(pose.target_m, pose.eye_m)
    right = np.cross(look / np.linalg.norm(look), pose.up)
    a, b = project(np.array([point, point + right / np.linalg.norm(right)]), pose)
    return float(abs(b[0] - a[0]))


@given(
    bearing=bearings,
    tilt=tilts,
    angle=lenses,
    other=lenses,
    x=st.floats(0, 48),
    y=st.floats(0, 24),
    z=st.floats(-4, 15),
)
def test_switching_the_projection_keeps_size_and_place_of_the_pivot(bearing, tilt, angle, other, x, y, z):
    pose = frame(BOX, bearing, tilt, 1.6, angle_deg=angle)
    pivot = (x, y, z)
    assume(depth_of(pose, pivot) > 0.5)
    flat = with_projection(pose, "parallel", pivot)
    assert shown_size(flat, np.array(pivot)) == pytest.approx(shown_size(pose, np.array(pivot)), rel=1e-3)
    assert project(np.array([pivot]), flat)[0, :2] == pytest.approx(project(np.array([pivot]), pose)[0, :2], abs=1e-6)
    back = with_projection(with_angle(flat, other), "perspective", pivot)
    assert back.projection == "perspective"
    assert shown_size(back, np.array(pivot)) == pytest.approx(shown_size(pose, np.array(pivot)), rel=1e-3)
    assert project(np.array([pivot]), back)[0, :2] == pytest.approx(project(np.array([pivot]), pose)[0, :2], abs=1e-6)


@given(bearing=bearings, tilt=tilts, angle=lenses, other=lenses)
def test_a_lens_that_keeps_the_subject_moves_the_eye_along_the_line_of_sight(bearing, tilt, angle, other):
    pose = frame(BOX, bearing, tilt, 1.6, angle_deg=angle)
    changed = with_angle(pose, other, keep="subject")
    target = np.array(pose.target_m)
    assert changed.target_m == pose.target_m
    assert shown_size(changed, target) == pytest.approx(shown_size(pose, target), rel=1e-6)
    assert changed.height_m == pose.height_m
    look, before = np.subtract(changed.target_m, changed.eye_m), np.subtract(pose.target_m, pose.eye_m)
    assert np.cross(look, before) == pytest.approx(0, abs=1e-5 * float(np.linalg.norm(look) * np.linalg.norm(before)))


def test_a_lens_that_keeps_the_eye_leaves_it_where_it_is():
    pose = frame(BOX, 30, 20, 1.6)
    wide = with_angle(pose, 90)
    assert (wide.eye_m, wide.target_m) == (pose.eye_m, pose.target_m)
    assert wide.height_m == pytest.approx(pose.height_m * math.tan(math.radians(45)) / math.tan(math.radians(15)))


@given(bearing=bearings, tilt=st.floats(-90, 90))
def test_a_levelled_view_looks_level_the_same_way_and_verticals_are_vertical(bearing, tilt):
    pose = frame(BOX, bearing, tilt, 1.6)
    level = levelled(pose)
    look = np.subtract(level.target_m, level.eye_m)
    assert level.eye_m == pose.eye_m
    assert look[2] == pytest.approx(0, abs=1e-9 * float(np.linalg.norm(look)))
    assert look / np.linalg.norm(look) == pytest.approx(along(bearing, 0), abs=1e-6)
    foot = np.array(level.target_m)
    low, high = project(np.stack([foot, foot + np.array([0, 0, 3.0])]), level)
    assert low[0] == pytest.approx(high[0], abs=1e-9)


@given(scale=st.floats(1, 5000), height=st.floats(100, 4000), pixel=st.floats(0.05, 1))
def test_a_scale_and_the_height_it_needs_belong_together(scale, height, pixel):
    assert scale_of(height_for_scale(scale, height, pixel), height, pixel) == pytest.approx(scale)


def test_one_to_fifty_worked_out_by_hand():
    """690 pixels of 0.25 mm are 172.5 mm of screen: 8.625 m at 1:50."""
    assert height_for_scale(50, 690, 0.25) == pytest.approx(8.625)
    with pytest.raises(ValueError, match="above zero"):
        height_for_scale(0, 690, 0.25)
