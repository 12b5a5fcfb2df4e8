"""A room seen from within."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from shapely import LineString, Point, Polygon

from stairpath.core.camera.framing import Borders, project
from stairpath.core.camera.inside import EYE_M, Room, opened_from_above, opening, room_outline, stand_in
from stairpath.core.geometry.plane import Plane


def triangles(*rings: list[tuple[float, float]]) -> np.ndarray:
    """Boxes given by their corners, as triangles."""
    out = []
    for a, b, c, d in rings:
        out += [[a, b, c], [a, c, d]]
    return np.array(out, dtype=float)


def box(x: float, y: float, width: float, depth: float) -> list[tuple[float, float]]:
    return [(x, y), (x + width, y), (x + width, y + depth), (x, y + depth)]


def room(floor, low_m=0.0, high_m=3.0, doors=()):
    return Room(floor, low_m, high_m, np.array(doors, dtype=float).reshape(-1, 2))


HALL = triangles(box(0, 0, 10, 6))
ELL = triangles(box(0, 0, 10, 3), box(0, 3, 3, 7))


def told(of, pose, borders=Borders()):
    """What a view tells of a box of a room: the shares of its floor, its walls and its doors in what is free of the frame."""
    outline = room_outline(of.floor)
    low_x, low_y, high_x, high_y = outline.bounds
    steps = np.arange(0.05, 1.0, 0.1)
    across, deep = low_x + steps * (high_x - low_x), low_y + steps * (high_y - low_y)
    ups = of.low_m + np.array([0.1, 1.0, 2.0])
    floor = [(x, y, of.low_m) for x in across for y in deep]
    walls = [(x, y, z) for x in across for y in (low_y, high_y) for z in ups]
    walls += [(x, y, z) for x in (low_x, high_x) for y in deep for z in ups]
    doors = [(x, y, z) for x, y in of.doors.tolist() for z in ups]

    def share(points):
        x, y, ahead = project(np.array(points, dtype=float), pose).T
        free = (x >= 2 * borders.left - 1) & (x <= 1 - 2 * borders.right)
        free &= (y >= 2 * borders.bottom - 1) & (y <= 1 - 2 * borders.top) & (ahead > 0.3)
        return float(free.mean())

    return share(floor), share(walls), share(doors) if doors else 1.0


def bearing_of(pose):
    x, y, _ = np.subtract(pose.target_m, pose.eye_m)
    return math.degrees(math.atan2(x, y)) % 360


@pytest.mark.parametrize("bearing", [0, 90, 180, 270])
def test_one_stands_in_the_room_at_eye_height_and_sees_most_of_it(bearing):
    hall = room(HALL, 4.0, 7.0)
    pose = stand_in(hall, bearing, 1.6)
    assert room_outline(HALL).contains(Point(pose.eye_m[:2]))
    assert pose.eye_m[2] == 4.0 + EYE_M
    look = np.subtract(pose.target_m, pose.eye_m)
    others = [
        sum(told(hall, replace(pose, eye_m=(x, y, 5.6), target_m=tuple(np.add((x, y, 5.6), look)))))
        for x in (0.35, 2.5, 5.0, 7.5, 9.65)
        for y in (0.35, 3.0, 5.65)
    ]
    assert sum(told(hall, pose)) >= max(others) - 0.1
    # Of as much to be seen, one looks as before.
    assert abs((bearing_of(pose) - bearing + 180) % 360 - 180) <= 67.5


@pytest.mark.parametrize("bearing", [0.0, 90.0, 200.0])
def test_a_small_room_is_recognised(bearing):
    """Floor, walls and the door, not a strip of wall."""
    small = room(triangles(box(0, 0, 3.2, 4.0)), doors=[(1.0, 4.1)])
    floor, walls, doors = told(small, stand_in(small, bearing, 1.6))
    assert floor > 0.35
    assert walls >= 0.4
    assert doors == 1.0


def test_what_lies_over_the_stage_covers_little_of_the_room():
    hall = room(HALL, doors=[(10.1, 3.0)])
    covered = Borders(right=0.4)
    free = told(hall, stand_in(hall, 0.0, 1.6, [covered]), covered)
    unaware = told(hall, stand_in(hall, 0.0, 1.6), covered)
    assert sum(free) > sum(unaware) + 0.2
    assert free[2] == 1.0
    # Of two ways to keep clear of it the better one is taken.
    both = stand_in(hall, 0.0, 1.6, [Borders(right=0.6), Borders(bottom=0.1)])
    assert both == stand_in(hall, 0.0, 1.6, [Borders(bottom=0.1)])


def test_the_target_is_at_the_far_wall_and_the_frame_is_as_high_there():
    pose = stand_in(room(HALL), 90.0, 2.0)
    reach = math.dist(pose.target_m, pose.eye_m)
    assert pose.height_m == pytest.approx(reach * math.tan(math.radians(pose.angle_deg / 2)), rel=1e-6)
    assert room_outline(HALL).exterior.distance(Point(pose.target_m[:2])) < 0.4


def test_a_corner_that_hides_part_of_a_room_counts():
    """From the short end of an L one sees into both of its arms only from where they meet."""
    pose = stand_in(room(ELL), 45.0, 1.6)
    outline = room_outline(ELL)
    eye = Point(pose.eye_m[:2])
    steps = [Point(x, y) for x in np.arange(0.2, 10, 0.4) for y in np.arange(0.2, 10, 0.4)]
    seen = [outline.covers(LineString([eye, each])) for each in steps if outline.covers(each)]
    assert np.mean(seen) > 0.75


@pytest.mark.parametrize(
    ("planes", "open_above"),
    [
        ([], False),
        ([Plane((0, 0, 2.2), (0, 0, 1.0))], True),
        ([Plane((0, 0, 5.0), (0, 0, 1.0))], False),
        # Cut away whole, and cut from below: there is no floor to look down on.
        ([Plane((0, 0, -1.0), (0, 0, 1.0))], False),
        ([Plane((0, 0, 1.0), (0, 0, -1.0))], False),
    ],
)  # fmt: skip
def test_a_lid_is_off_where_the_ceiling_is_cut_away_and_the_floor_is_not(planes, open_above):
    assert opened_from_above(room(HALL), planes) is open_above


def test_a_parallel_view_is_opened_over_the_doors_or_behind_the_nearest_wall():
    def opened(of, bearing, tilt):
        found = opening(of, bearing, tilt)
        assert found is not None
        return found

    assert opened(room(HALL, 4.0, 7.0), 30.0, 90.0)[2] == 6.2
    assert opened(room(HALL, 4.0, 6.0), 30.0, 90.0)[2] == 5.5
    x, y, _ = opened(room(HALL), 90.0, 0.0)
    assert (x, 0.0 <= y <= 6.0) == (pytest.approx(0.05), True)
    assert opening(room(HALL), 90.0, 40.0) is None


def test_a_cupboard_and_a_crawl_space_are_stood_in_too():
    pose = stand_in(room(triangles(box(0, 0, 0.15, 0.15)), high_m=1.0), 0.0, 1.6)
    assert Polygon(box(0, 0, 0.15, 0.15)).contains(Point(pose.eye_m[:2]))
    assert pose.eye_m[2] == pytest.approx(0.6)


def test_a_room_without_a_floor_says_so():
    with pytest.raises(ValueError, match="no floor to stand on"):
        stand_in(room(np.zeros((1, 3, 2))), 0.0, 1.6)


@settings(max_examples=30)
@given(
    st.floats(0, 360), st.floats(0.3, 60), st.floats(0.3, 60), st.floats(0.3, 3), st.booleans()
)  # fmt: skip
def test_wherever_it_looks_the_eye_is_in_the_room(bearing, width, depth, aspect, ell):
    floor = triangles(box(0, 0, width, depth), *([box(0, depth, width / 3, depth)] if ell else []))
    pose = stand_in(room(floor), bearing, aspect)
    assert room_outline(floor).buffer(1e-6).contains(Point(pose.eye_m[:2]))
    assert np.isfinite([*pose.eye_m, *pose.target_m, pose.height_m]).all()
    assert math.dist(pose.eye_m, pose.target_m) >= 0.49
