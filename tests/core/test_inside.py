"""A room seen from within."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import Point, Polygon

from stairpath.core.camera.inside import EYE_M, room_outline, stand_in


def triangles(*rings: list[tuple[float, float]]) -> np.ndarray:
    """Boxes given by their corners, as triangles."""
    out = []
    for a, b, c, d in rings:
        out += [[a, b, c], [a, c, d]]
    return np.array(out, dtype=float)


def box(x: float, y: float, width: float, depth: float) -> list[tuple[float, float]]:
    return [(x, y), (x + width, y), (x + width, y + depth), (x, y + depth)]


HALL = triangles(box(0, 0, 10, 6))
ELL = triangles(box(0, 0, 10, 3), box(0, 3, 3, 7))


def seen(pose, floor) -> float:
    """The share of a room's floor that a pose sees, by the geometry of its frame and sight lines, in fine steps."""
    outline = room_outline(floor)
    low_x, low_y, high_x, high_y = outline.bounds
    found = []
    for x in np.arange(low_x + 0.1, high_x, 0.2):
        for y in np.arange(low_y + 0.1, high_y, 0.2):
            if outline.covers(Point(x, y)):
                dx, dy = x - pose.eye_m[0], y - pose.eye_m[1]
                look = np.subtract(pose.target_m, pose.eye_m)
                turn = math.degrees(math.atan2(dx * look[1] - dy * look[0], dx * look[0] + dy * look[1]))
                line = Polygon([pose.eye_m[:2], (x, y), (x, y)])
                found.append(abs(turn) <= pose.angle_deg / 2 and outline.buffer(1e-6).covers(line.boundary))
    return float(np.mean(found))


@pytest.mark.parametrize("bearing", [0, 90, 180, 270])
def test_one_stands_in_the_room_at_eye_height_and_sees_most_of_it(bearing):
    pose = stand_in(HALL, 4.0, 7.0, bearing, 90.0, 1.6)
    assert room_outline(HALL).contains(Point(pose.eye_m[:2]))
    assert pose.eye_m[2] == pose.target_m[2] == 4.0 + EYE_M
    look = np.subtract(pose.target_m, pose.eye_m)
    others = [
        seen(replace(pose, eye_m=(x, y, 5.6), target_m=tuple(np.add((x, y, 5.6), look))), HALL)
        for x in (0.35, 2.5, 5.0, 7.5, 9.65)
        for y in (0.35, 3.0, 5.65)
    ]
    assert seen(pose, HALL) >= max(others) - 0.02
    assert math.degrees(math.atan2(look[0], look[1])) % 360 == pytest.approx(bearing, abs=1e-6)


def test_the_target_is_at_the_far_wall_and_the_frame_is_as_high_there():
    pose = stand_in(HALL, 0.0, 3.0, 90.0, 60.0, 2.0)
    assert pose.target_m[0] == pytest.approx(10.0)
    reach = pose.target_m[0] - pose.eye_m[0]
    assert reach == pytest.approx(9.7, abs=0.01)
    assert pose.height_m == pytest.approx(reach * math.tan(math.radians(30)), rel=1e-6)
    assert pose.eye_m[1] == pytest.approx(3.0, abs=0.15)


def test_a_corner_that_hides_part_of_a_room_counts():
    """From the short end of an L one sees into both of its arms only from where they meet."""
    pose = stand_in(ELL, 0.0, 3.0, 45.0, 100.0, 1.6)
    assert seen(pose, ELL) > 0.75
    assert pose.eye_m[0] < 3
    assert pose.eye_m[1] < 3


def test_a_cupboard_and_a_crawl_space_are_stood_in_too():
    pose = stand_in(triangles(box(0, 0, 0.15, 0.15)), 0.0, 1.0, 0.0, 60.0, 1.6)
    assert Polygon(box(0, 0, 0.15, 0.15)).contains(Point(pose.eye_m[:2]))
    assert pose.eye_m[2] == pytest.approx(0.6)


def test_a_room_without_a_floor_says_so():
    with pytest.raises(ValueError, match="no floor to stand on"):
        stand_in(np.zeros((1, 3, 2)), 0.0, 3.0, 0.0, 60.0, 1.6)


@settings(max_examples=30)
@given(
    st.floats(0, 360), st.floats(1, 120), st.floats(0.3, 60), st.floats(0.3, 60), st.floats(0.3, 3), st.booleans()
)  # fmt: skip
def test_wherever_it_looks_the_eye_is_in_the_room(bearing, angle, width, depth, aspect, ell):
    floor = triangles(box(0, 0, width, depth), *([box(0, depth, width / 3, depth)] if ell else []))
    pose = stand_in(floor, 0.0, 3.0, bearing, angle, aspect)
    assert room_outline(floor).buffer(1e-6).contains(Point(pose.eye_m[:2]))
    assert np.isfinite([*pose.eye_m, *pose.target_m, pose.height_m]).all()
    assert math.dist(pose.eye_m, pose.target_m) >= 0.49
