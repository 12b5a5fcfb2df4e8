"""The floor along a way, and how wide and high it is, against figures worked out by hand."""

import math

import numpy as np
import pytest

from stairpath.core.walking.loops.ways import CLIMB_M_S, DESCEND_M_S
from stairpath.core.walking.pinches import sizes
from stairpath.core.walking.profile import profile
from stairpath.core.walking.route import Limits, Route
from tests.core.blocks import Blocks

RISER, GOING = 0.17, 0.28


def along(walk, start, end):
    """The profile of the straight line between two points of a floor."""
    ends = int(walk.place(start).floors[0]), int(walk.place(end).floors[0])
    return profile(walk.space, walk.map, np.array([start, end], float), ends)


@pytest.fixture(scope="module")
def stair():
    """Up six risers at x = 0, along a landing, and down three at x = 5; a beam over the first flight."""
    blocks = Blocks().box("low", (-3, 0, -0.3), (9, 2, 0)).flight("up", (0, 0, 0), 6, RISER, GOING, 2)
    blocks.box("landing", (1.4, 0, 0.5), (5, 2, 6 * RISER)).box("terrace", (5.56, 0, 0), (9, 2, 3 * RISER))
    blocks.box("first", (5, 0, 0), (5.28, 2, 5 * RISER)).box("second", (5.28, 0, 0), (5.56, 2, 4 * RISER))
    return blocks.box("beam", (0.6, 0, 2.6), (0.7, 2, 2.8)).walk()


def test_risers_rise_and_descent_are_those_of_the_stair(stair):
    found = along(stair, (-2, 1, 0), (8, 1, 3 * RISER))
    assert found.risers == 9
    assert found.rise_m == pytest.approx(6 * RISER, abs=1e-6)
    assert found.descent_m == pytest.approx(3 * RISER, abs=1e-6)
    assert [(len(f.risers), f.up) for f in found.flights] == [(6, True), (3, False)]


def test_the_length_follows_flights_along_their_slope(stair):
    found = along(stair, (-2, 1, 0), (8, 1, 3 * RISER))
    # The foot's line goes from before the first riser straight to the last nosing.
    up = math.hypot(5 * GOING, 6 * RISER) - 5 * GOING
    down = math.hypot(2 * GOING, 3 * RISER) - 2 * GOING
    assert found.length_m == pytest.approx(10 + up + down, abs=0.03)
    assert found.time_s(1.4) == pytest.approx(10 / 1.4 + 6 * RISER / CLIMB_M_S + 3 * RISER / DESCEND_M_S, abs=0.01)


def test_a_step_of_its_own_adds_no_length():
    walk = Blocks().box("low", (0, 0, -0.3), (3, 2, 0)).box("high", (3, 0, -0.3), (6, 2, 0.2)).walk()
    found = along(walk, (1, 1, 0), (5, 1, 0.2))
    assert found.length_m == pytest.approx(4, abs=1e-6)
    assert found.risers == 1
    assert len(found.flights) == 1


def test_headroom_on_a_flight_counts_from_the_line_over_its_nosings(stair):
    found = along(stair, (-2, 1, 0), (3, 1, 6 * RISER))
    # The beam's low edge at x = 0.7 over the line through nosings (0, r), (1.4, 6 r).
    line = RISER + 0.7 / GOING * RISER
    lowest = sizes(stair.space, found, stair.map.body).lowest
    assert lowest is not None
    assert lowest.size_m == pytest.approx(2.6 - line, abs=0.01)
    assert stair.named(lowest.components) == {"beam"}
    assert lowest.at[0] == pytest.approx(0.7, abs=0.05)


def test_there_and_back_have_the_same_floor(stair):
    there, back = along(stair, (-2, 1, 0), (8, 1, 0.51)), along(stair, (8, 1, 0.51), (-2, 1, 0))
    assert back.length_m == pytest.approx(there.length_m, abs=1e-9)
    assert back.risers == there.risers
    assert back.rise_m == pytest.approx(there.descent_m, abs=1e-9)


def test_a_slope_is_no_flight():
    walk = Blocks().ramp("ramp", 0, 6, 0, 0.5, 2).walk()
    found = along(walk, (0.5, 1, 0), (5.5, 1, 0.5))
    assert found.risers == 0
    assert found.flights == ()
    assert found.rise_m == pytest.approx(5 * 0.5 / 6, abs=1e-6)
    assert found.length_m == pytest.approx(5 * math.hypot(1, 0.5 / 6), abs=1e-6)


@pytest.fixture(scope="module")
def corridor():
    """Twelve metres, 2 m wide: a pillar leaves 0.8 m at x = 4, a cabinet 0.65 m at x = 8, a duct 1.95 m at x = 6."""
    blocks = Blocks().room(0, 0, 12, 2)
    blocks.box("pillar", (3.9, 0.8, 0), (4.1, 2, 3)).box("cabinet", (7.9, 0, 0), (8.3, 1.35, 2))
    return blocks.box("duct", (5.9, 0, 1.95), (6.1, 2, 2.2)).walk()


def test_pinches_are_in_their_order_with_who_makes_them(corridor):
    found = corridor.route((1, 1, 0), (11, 1, 0), limits=Limits(0.9, 2.0))
    assert isinstance(found, Route)
    told = [(p.what, round(p.size_m, 2), corridor.named(p.components)) for p in found.pinches]
    assert told == [
        ("width", 0.80, {"pillar", "south wall"}),
        ("height", 1.95, {"duct"}),
        ("width", 0.65, {"cabinet", "north wall"}),
    ]
    assert found.narrowest == found.pinches[2]
    assert found.lowest == found.pinches[1]
    assert [p.along_m for p in found.pinches] == sorted(p.along_m for p in found.pinches)


def test_limits_choose_what_is_a_pinch_and_not_what_is_narrowest(corridor):
    found = corridor.route((1, 1, 0), (11, 1, 0), limits=Limits(0.7, 1.9))
    assert isinstance(found, Route)
    assert [p.what for p in found.pinches] == ["width"]
    none = corridor.route((1, 1, 0), (11, 1, 0), limits=Limits(0.5, 1.0))
    assert isinstance(none, Route)
    assert none.pinches == ()
    assert none.narrowest is not None
    assert none.narrowest.size_m == pytest.approx(0.65, abs=0.01)


@pytest.mark.parametrize(("width_m", "height_m"), [(-0.1, 2.0), (3.1, 2.0), (0.9, -1.0), (0.9, 6.5)])
def test_limits_that_make_no_sense_are_refused(width_m, height_m):
    with pytest.raises(ValueError, match="A limit for pinches is up to 3 m for widths and up to 6 m for headroom"):
        Limits(width_m, height_m)


def test_in_the_open_nothing_is_narrow_or_low():
    walk = Blocks().box("field", (0, 0, -0.3), (20, 20, 0)).walk()
    found = walk.route((5, 10, 0), (15, 10, 0))
    assert isinstance(found, Route)
    assert (found.narrowest, found.lowest, found.pinches) == (None, None, ())
    assert found.length_m == pytest.approx(10, abs=1e-3)
    assert len(found.points) == 2
