"""Looking at two components that meet: seen freely where that is possible, else boxed."""

from __future__ import annotations

import numpy as np
import pytest

from stairpath.core.camera.pose import axes
from stairpath.core.camera.sighting import Sighting, samples, share_seen, sighting


def box(low, high) -> np.ndarray:
    """The twelve triangles of a box."""
    corners = np.array([[(low, high)[k >> axis & 1][axis] for axis in range(3)] for k in range(8)], dtype=float)
    sides = [(0, 1, 3, 2), (4, 6, 7, 5), (0, 4, 5, 1), (2, 3, 7, 6), (0, 2, 6, 4), (1, 5, 7, 3)]
    return np.array([corners[[a, b, c]] for q in sides for a, b, c in ((q[0], q[1], q[2]), (q[0], q[2], q[3]))])


def looked_at(boxes, place=(0.0, 0.0, 0.0), parts=(0, 1)) -> Sighting:
    """How the first two of some boxes are looked at, the others being what is around them."""
    made = [box(*each) for each in boxes]
    return sighting(np.concatenate(made), np.repeat(np.arange(len(made)), 12), parts, np.array(place))


BEAM = ((-3, -0.15, -0.3), (3, 0.15, 0.3))
DUCT = ((-0.2, -3, -0.1), (0.2, 3, 0.1))


def test_what_stands_free_is_seen_from_above_without_a_box():
    found = looked_at([BEAM, DUCT])
    assert not found.boxed
    assert found.tilt_deg == 28.0
    assert found.seen > 0.15


def test_below_a_slab_one_looks_from_where_it_is_not_in_the_way():
    slab = ((-20, -20, 0.5), (20, 20, 0.7))
    found = looked_at([BEAM, DUCT, slab])
    assert not found.boxed
    assert found.tilt_deg < 15
    eye = -8 * axes(found.bearing_deg, found.tilt_deg)[2]
    assert eye[2] < 0.5


def test_shut_in_on_all_sides_it_is_boxed_and_what_is_left_is_seen():
    around = [
        ((-2.6, -2.6, -1.9), (-2.5, 2.6, 1.9)), ((2.5, -2.6, -1.9), (2.6, 2.6, 1.9)),
        ((-2.6, -2.6, -1.9), (2.6, -2.5, 1.9)), ((-2.6, 2.5, -1.9), (2.6, 2.6, 1.9)),
        ((-2.6, -2.6, 1.8), (2.6, 2.6, 1.9)), ((-2.6, -2.6, -1.9), (2.6, 2.6, -1.8)),
    ]  # fmt: skip
    found = looked_at([BEAM, DUCT, *around])
    assert found.boxed
    assert found.seen > 0.2


def test_a_part_behind_the_other_turns_the_view_until_both_are_seen():
    wall, socket = ((-4, 0, -1.5), (4, 0.2, 1.5)), ((-0.05, 0.2, -0.05), (0.05, 0.25, 0.05))
    found = looked_at([wall, socket], place=(0, 0.2, 0))
    # The socket is on the wall's far side, so one looks from there.
    assert axes(found.bearing_deg, found.tilt_deg)[2][1] < 0


def test_a_part_without_a_shape_is_told():
    with pytest.raises(ValueError, match="no shape"):
        looked_at([BEAM], parts=(0, 7))


def test_points_are_seen_up_to_what_is_met_first():
    wall = box((-1, 2, -1), (1, 3, 1))
    points = np.array([[0.0, 4.0, 0.0], [0.0, 1.0, 0.0], [5.0, 4.0, 0.0], [0.0, 2.0, 0.0]])
    # Behind the wall nothing is seen; before it, beside it and on its own face it is.
    assert [share_seen(np.zeros(3), p[None], wall) for p in points] == [0, 1, 1, 1]
    aside = (np.full(3, 10.0), np.full(3, 11.0))
    assert share_seen(np.zeros(3), points, wall, aside) == 1


def test_samples_lie_on_the_part_around_the_place():
    found = samples(box(*BEAM), np.zeros(3), np.array([2.0, 2.0, 1.4]))
    assert 8 <= len(found) <= 24
    assert (np.abs(found) <= (2, 2, 1.4)).all()
    far = samples(box((8, 0, 0), (9, 1, 1)), np.zeros(3), np.ones(3))
    assert len(far) == 3
