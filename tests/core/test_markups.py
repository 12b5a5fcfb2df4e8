"""Markups: where they stand, how they are moved, what they come to, and from where they are read."""

from __future__ import annotations

import dataclasses
import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from stairpath.core.camera.framing import project
from stairpath.core.camera.pose import NoSightError
from stairpath.core.review.eye import Eye, across_deg, height_at, pose_of, vertical_deg
from stairpath.core.review.markups import (
    KINDS,
    Markup,
    NotAMarkupError,
    Style,
    checked,
    drawn,
    moved,
    placed,
)  # fmt: skip

ASPECT = 1.6
EYE = Eye((0.0, -10.0, 1.6), (0.0, 0.0, 1.6), (0.0, 0.0, 1.0), "perspective", 60.0, 12.0)
FLAT = dataclasses.replace(EYE, projection="parallel")
WALL = (0.5, 2.0, 1.0)
shares = st.floats(-0.9, 0.9)
places = st.tuples(shares, shares)


def kind_of(kind, eye=EYE, points=((-0.2, -0.2), (0.3, 0.4)), **style):
    if kind == "text":
        points = points[:1]
    return placed("m1", kind, points, WALL, eye, ASPECT, Style(**style), text="Drop it by 40 mm")


@pytest.mark.parametrize("eye", [EYE, FLAT])
@given(start=places, end=places)
def test_a_markup_lies_on_the_plane_of_its_surface_point_where_it_was_drawn(eye, start, end):
    if math.hypot(end[0] - start[0], end[1] - start[1]) < 0.05:
        return
    markup = kind_of("line", eye, (start, end))
    points = np.array(markup.points_m)
    # Square to the view: all as deep as the point of the wall.
    assert points[:, 1] == pytest.approx(WALL[1], abs=1e-9)
    assert project(points, pose_of(eye, ASPECT))[:, :2] == pytest.approx(np.array([start, end]), abs=1e-9)


@pytest.mark.parametrize("eye", [EYE, FLAT])
@pytest.mark.parametrize("kind", KINDS)
def test_what_is_drawn_stays_about_where_the_hand_was(kind, eye):
    markup = kind_of(kind, eye)
    made = drawn(markup)
    assert len(made.strokes) == {"text": 0, "arrow": 2, "callout": 2}.get(kind, 1)
    for stroke in made.strokes:
        flat = project(stroke.points_m, pose_of(eye, ASPECT))
        assert flat[:, 2] == pytest.approx(12.0, abs=1e-9)
        assert (flat[:, :2] > np.array([-0.2, -0.2]) - 0.06).all()
        assert (flat[:, :2] < np.array([0.3, 0.4]) + 0.06).all()
        assert stroke.closed == (kind in ("cloud", "rectangle", "ellipse"))
        if stroke.closed:
            assert np.allclose(stroke.points_m[0], stroke.points_m[-1])
    assert drawn(markup).strokes == () or np.array_equal(drawn(markup).strokes[0].points_m, made.strokes[0].points_m)


def test_a_cloud_bulges_outwards_on_all_sides():
    (stroke,) = drawn(kind_of("cloud")).strokes
    flat = project(stroke.points_m, pose_of(EYE, ASPECT))[:, :2]
    low, high = np.array([-0.2, -0.2]), np.array([0.3, 0.4])
    assert (flat.min(axis=0) < low - 0.005).all()
    assert (flat.max(axis=0) > high + 0.005).all()
    inside = ((flat > low + 0.02) & (flat < high - 0.02)).all(axis=1)
    assert not inside.any()


def test_an_arrow_has_its_head_where_the_drag_ended_and_a_callout_where_it_began():
    for kind, tip in (("arrow", (0.3, 0.4)), ("callout", (-0.2, -0.2))):
        _, head = drawn(kind_of(kind)).strokes
        flat = project(head.points_m, pose_of(EYE, ASPECT))[:, :2]
        assert np.abs(flat - np.array(tip)).max(axis=1).min() < 0.004
    assert drawn(kind_of("callout")).text_at_m == pytest.approx(kind_of("callout").points_m[1])


@given(start=places, end=places, kind=st.sampled_from(KINDS))
def test_moving_there_and_back_changes_nothing(start, end, kind):
    markup = kind_of(kind)
    there = moved(markup, FLAT, ASPECT, start, end)
    back = moved(there, FLAT, ASPECT, end, start)
    assert np.array(back.points_m) == pytest.approx(np.array(markup.points_m), abs=1e-9)
    by = np.array(there.points_m) - np.array(markup.points_m)
    assert by == pytest.approx(np.tile(by[0], (len(by), 1)), abs=1e-9)


def test_one_point_is_moved_alone_and_stays_in_the_plane_from_anywhere():
    markup = kind_of("line")
    aside = dataclasses.replace(EYE, eye_m=(-6.0, -6.0, 3.0), target_m=WALL)
    there = moved(markup, aside, ASPECT, (0.0, 0.0), (0.2, 0.1), point=1)
    assert there.points_m[0] == markup.points_m[0]
    assert there.points_m[1] != markup.points_m[1]
    assert there.points_m[1][1] == pytest.approx(WALL[1])
    with pytest.raises(NotAMarkupError, match="no such point"):
        moved(markup, EYE, ASPECT, (0, 0), (0.1, 0), point=7)


def test_a_markup_that_is_seen_from_its_edge_is_not_moved():
    along = Eye((-10.0, 2.0, 1.0), (0.0, 2.0, 1.0), (0.0, 0.0, 1.0), "parallel", 60.0, 12.0)
    with pytest.raises(NotAMarkupError, match="edge-on"):
        moved(kind_of("line"), along, ASPECT, (0.0, 0.0), (0.1, 0.0))


def test_it_says_from_where_it_can_be_read():
    made = drawn(kind_of("cloud"))
    height = height_at(EYE, 12.0, ASPECT)
    assert made.normal == pytest.approx((0, -1, 0))
    assert (made.least_m, made.most_m) == pytest.approx((height / 6, height * 5))
    assert made.text_m == pytest.approx(height * 0.028)


@pytest.mark.parametrize(
    ("wrong", "says"),
    [
        (lambda: placed("m", "line", [(0, 0)], WALL, EYE, ASPECT), "a beginning and an end"),
        (lambda: placed("m", "cloud", [(0, 0), (1, 1), (0, 1)], WALL, EYE, ASPECT), "a beginning and an end"),
        (lambda: placed("m", "arrow", [(0, 0), (0.001, 0.001)], WALL, EYE, ASPECT), "too small"),
        (lambda: placed("m", "text", [(0, 0)], WALL, EYE, ASPECT, text=" "), "type the text"),
        (lambda: placed("m", "freehand", [(0, 0), (1, 1)] * 2500, WALL, EYE, ASPECT), "at most 4,000 points"),
        (lambda: checked(dataclasses.replace(kind_of("text"), text="x" * 2001)), "at most 2,000 letters"),
        (lambda: placed("m", "line", [(0, 0), (1, 1)], (0.0, -40.0, 0.0), EYE, ASPECT), "edge-on"),
    ],
)
def test_what_cannot_be_is_said(wrong, says):
    with pytest.raises(NotAMarkupError, match=says):
        wrong()


def test_an_eye_that_looks_nowhere_is_said():
    nowhere = dataclasses.replace(EYE, target_m=EYE.eye_m)
    for eye in (nowhere, dataclasses.replace(EYE, up=(0.0, 1.0, 0.0))):
        with pytest.raises(NoSightError, match="look at something"):
            placed("m", "line", [(0, 0), (1, 1)], WALL, eye, ASPECT)


@given(st.floats(1, 120), st.floats(0.3, 4))
def test_the_angle_from_top_to_bottom_and_across_are_each_others_inverse(angle, aspect):
    eye = dataclasses.replace(EYE, angle_deg=angle)
    assert across_deg(vertical_deg(eye, aspect), aspect) == pytest.approx(angle)


def test_however_strange_a_kept_markup_is_it_comes_to_something():
    near = Markup("m", "cloud", (EYE.eye_m, (1e6, 0.0, 1e6)), EYE, ASPECT)
    many = Markup("m", "polyline", tuple((float(k % 2) * 1e6, 0.0, float(k)) for k in range(4000)), EYE, ASPECT)
    for strange in (near, many, dataclasses.replace(near, points_m=(WALL, WALL), kind="arrow")):
        for stroke in drawn(strange).strokes:
            assert np.isfinite(stroke.points_m).all()
            assert len(stroke.points_m) < 20_000


@pytest.mark.parametrize("kind", KINDS)
def test_what_was_drawn_in_a_view_of_no_height_is_drawn_all_the_same(kind):
    eye = Eye((0.0, 0.0, 0.0), (0.0, 0.0, 1.0), (0.0, 1.0, 0.0), "parallel", 60.0, 5e-324)
    found = drawn(Markup("0", kind, ((0.0, 0.0, 0.0), (0.0, 0.0, 0.0)), eye, 1.0, text="x"))
    assert all(np.isfinite(stroke.points_m).all() for stroke in found.strokes)
