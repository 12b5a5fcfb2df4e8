"""Routes against geometry worked out by hand; tolerances stated."""

import math
from dataclasses import replace

import numpy as np
import pytest
import shapely
from hypothesis import HealthCheck, assume, given, settings
from hypothesis import strategies as st
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import dijkstra

from stairpath.core.walking.blocked import Blocked
from stairpath.core.walking.bodies import BODIES, Body, NoSuchBodyError, body_named
from stairpath.core.walking.place import NoPlaceError
from stairpath.core.walking.route import Limits, Route
from tests.core.blocks import Blocks

CM = 0.0101


def straight_flight(risers: int, riser: float = 0.17, going: float = 0.28) -> Blocks:
    top = risers * riser
    end = (risers - 1) * going
    blocks = Blocks().box("ground", (-3, 0, -0.3), (30, 2, 0))
    blocks.flight("flight", (0, 0.4, 0), risers, riser, going, 1.2)
    return blocks.box("landing", (end, 0, 0), (end + 3, 2, top))


@pytest.mark.parametrize("risers", [2, 9, 16])
def test_a_straight_flight_rises_by_its_risers_and_counts_them(risers):
    blocks = straight_flight(risers)
    end = (risers - 1) * 0.28
    walk = blocks.walk()
    up = walk.route((-2, 1, 0), (end + 2, 1, risers * 0.17))
    assert isinstance(up, Route)
    assert up.risers == risers
    assert up.rise_m == pytest.approx(risers * 0.17, abs=0.01)
    assert up.descent_m == pytest.approx(0, abs=0.01)
    # Flat to the foot of the first riser, along the slope to the last nosing, flat again.
    slope = math.hypot(end, risers * 0.17)
    assert up.length_m == pytest.approx(4 + slope, rel=0.02)
    assert up.time_s == pytest.approx((4 + end) / 1.4 + risers * 0.17 / 0.35, rel=0.03)
    down = walk.route((end + 2, 1, risers * 0.17), (-2, 1, 0))
    assert down.risers == risers
    assert down.descent_m == pytest.approx(risers * 0.17, abs=0.01)
    assert down.length_m == pytest.approx(up.length_m, abs=1e-6)
    assert down.time_s < up.time_s


def test_a_dog_leg_stair_is_two_flights_and_a_half_landing():
    riser, going, each = 0.165, 0.27, 9
    half, run = each * riser, (each - 1) * going
    blocks = Blocks().box("ground", (-3, -0.5, -0.3), (6, 3.2, 0))
    blocks.flight("first", (0, 0, 0), each, riser, going, 1.2)
    blocks.box("half landing", (run, 0, half - 0.2), (run + 1.4, 2.6, half))
    blocks.flight("second", (run, 1.4, half), each, riser, going, 1.2, towards=-1)
    blocks.box("spandrel", (-0.01, 1.25, 0), (run, 1.35, 2 * half + 1.0))
    blocks.box("upper floor", (-3, 1.4, 2 * half - 0.2), (0, 2.6, 2 * half))
    found = blocks.walk().route((-1.5, 0.6, 0), (-1.5, 2.0, 2 * half))
    assert isinstance(found, Route)
    assert found.risers == 2 * each
    assert found.rise_m == pytest.approx(2 * half, abs=0.01)
    assert found.descent_m == pytest.approx(0, abs=0.01)
    # Along both slopes, and round the spandrel's end at the body's radius.
    turn = 0.25 * math.pi + 0.1
    assert found.length_m == pytest.approx(1.5 + 2 * math.hypot(run, half) + turn + 1.5, rel=0.02)


@pytest.mark.parametrize(("run", "passes"), [(12, True), (10, False)])
def test_a_wheelchair_takes_a_ramp_of_one_in_twelve_and_not_of_one_in_ten(run, passes):
    blocks = Blocks().box("low", (-3, 0, -0.3), (0, 2, 0)).ramp("ramp", 0, run, 0, 1, 2)
    blocks.box("high", (run, 0, 0.7), (run + 3, 2, 1))
    found = blocks.walk("wheelchair").route((-2, 1, 0), (run + 2, 1, 1))
    if passes:
        assert isinstance(found, Route)
        assert found.risers == 0
        assert found.rise_m == pytest.approx(1, abs=0.01)
        assert found.length_m == pytest.approx(4 + math.hypot(run, 1), rel=0.01)
    else:
        assert isinstance(found, Blocked)
        assert found.kind == "slope"
        assert found.found == pytest.approx(0.1, abs=0.003)
        assert "1:10" in found.needs
    assert isinstance(blocks.walk("standing").route((-2, 1, 0), (run + 2, 1, 1)), Route)


def gap(width: float, at: float = 1.0) -> Blocks:
    """Two rooms and a wall with a gap so wide between them."""
    blocks = Blocks().room(0, 0, 6, 3)
    blocks.box("lower jamb", (2.9, 0, 0), (3.1, at, 3))
    return blocks.box("upper jamb", (2.9, at + width, 0), (3.1, 3, 3))


@pytest.mark.parametrize("at", [1.0, 1.03, 1.05, 1.07])
@pytest.mark.parametrize(("diameter", "passes"), [(0.67, True), (0.5, True), (0.73, False), (0.8, False)])
def test_a_gap_of_72_cm_lets_through_what_is_narrower_by_5_cm(diameter, passes, at):
    body = Body("crate", diameter / 2, 1.5, 0.02, 0.02, 1 / 8)
    found = gap(0.72, at).walk(body)
    names = found.named
    found = found.route((1, 1.5, 0), (5, 1.5, 0))
    if passes:
        assert isinstance(found, Route)
        assert found.narrowest.size_m == pytest.approx(0.72, abs=0.01)
        assert names(found.narrowest.components) == {"lower jamb", "upper jamb"}
        assert abs(found.narrowest.at[0] - 3) < 0.2
    else:
        assert isinstance(found, Blocked)
        assert found.kind == "width"
        assert found.found == pytest.approx(0.72, abs=0.01)
        assert found.needed == pytest.approx(diameter)
        assert names(found.components) == {"lower jamb", "upper jamb"}
        assert "wider" in found.needs


@pytest.mark.parametrize(("height", "passes"), [(1.75, False), (1.85, True)])
def test_a_lintel_stops_who_is_taller(height, passes):
    blocks = gap(1.0).box("lintel", (2.9, 1, height), (3.1, 2, 3))
    walk = blocks.walk()
    found = walk.route((1, 1.5, 0), (5, 1.5, 0))
    if passes:
        assert isinstance(found, Route)
        assert found.lowest.size_m == pytest.approx(height, abs=0.01)
        assert walk.named(found.lowest.components) == {"lintel"}
        assert [p.what for p in found.pinches] == ["height"]
    else:
        assert isinstance(found, Blocked)
        assert (found.kind, walk.named(found.components)) == ("height", {"lintel"})
        assert found.found == pytest.approx(height, abs=0.01)
        assert "0.05 m higher" in found.needs
    assert isinstance(blocks.walk("stooping").route((1, 1.5, 0), (5, 1.5, 0)), Route)


def test_headroom_under_a_pipe_counts_from_the_nosings():
    risers, riser, going = 12, 0.17, 0.28
    slope = riser / going
    x = 5.5 * going
    pitch = riser + x * slope
    blocks = straight_flight(risers).box("pipe", (x - 0.05, 0, pitch + 1.9), (x + 0.05, 2, pitch + 2.0))
    walk = blocks.walk()
    found = walk.route((-2, 1, 0), (5, 1, risers * riser))
    assert isinstance(found, Route)
    # Lowest where the far edge of the pipe is over the line through the nosings.
    assert found.lowest.size_m == pytest.approx(1.9 - 0.05 * slope, abs=CM)
    assert walk.named(found.lowest.components) == {"pipe"}


def test_an_upper_floor_with_a_hole_is_walked_around_it():
    blocks = Blocks().room(0, 0, 6, 6)
    for low, high in (((0, 0), (6, 2)), ((0, 4), (6, 6)), ((0, 2), (2, 4)), ((4, 2), (6, 4))):
        blocks.box("upper floor", (*low, 2.7), (*high, 3.0))
    walk = blocks.walk()
    found = walk.route((1, 3, 3.0), (5, 3, 3.0))
    assert isinstance(found, Route)
    # The body's middle may come to the edge; round two corners of the hole.
    assert found.length_m == pytest.approx(2 * math.hypot(1, 1) + 2, rel=0.02)
    assert found.descent_m == 0
    below = walk.route((1, 3, 0), (5, 3, 0))
    assert below.length_m == pytest.approx(4, rel=0.01)
    between = walk.route((1, 3, 3.0), (3, 3, 0))
    assert isinstance(between, Blocked)


def test_a_room_without_a_door_has_no_way_in_and_the_wall_is_named():
    blocks = Blocks().room(0, 0, 6, 3).box("partition", (2.9, 0, 0), (3.1, 3, 3))
    walk = blocks.walk()
    found = walk.route((1, 1.5, 0), (5, 1.5, 0))
    assert isinstance(found, Blocked)
    assert (found.kind, walk.named(found.components)) == ("solid", {"partition"})
    assert found.found == pytest.approx(0.2, abs=0.02)
    assert found.nearest[0] == pytest.approx(2.9 - 0.25, abs=0.1)


def test_a_mezzanine_is_reached_by_its_stair_and_passed_under():
    risers, riser, going = 15, 0.18, 0.27
    top, run = risers * riser, (risers - 1) * going
    blocks = Blocks().room(0, 0, 12, 5, height=6)
    blocks.flight("stair", (1, 0, 0), risers, riser, going, 1.2)
    blocks.box("mezzanine", (1 + run, 0, top - 0.25), (11, 5, top))
    walk = blocks.walk()
    up = walk.route((8, 3, 0), (8, 3, top))
    assert isinstance(up, Route)
    assert up.risers == risers
    assert up.points[-1] == pytest.approx([8, 3, top], abs=0.11)
    under = walk.route((2, 4, 0), (10, 4, 0))
    assert under.rise_m == 0
    assert under.lowest.size_m == pytest.approx(top - 0.25, abs=0.01)
    assert walk.named(under.lowest.components) == {"mezzanine"}


@pytest.mark.parametrize("turn", [1.0, 2.5])
def test_an_l_shaped_corridor_is_walked_within_2_percent_of_the_shortest(turn):
    w = 1.5
    blocks = Blocks().box("floor", (-0.2, -0.2, -0.3), (10.2, 10.2, 0))
    blocks.box("outer south", (0, -0.2, 0), (10, 0, 3)).box("outer east", (10, 0, 0), (10.2, 10, 3))
    blocks.box("inner", (0, w, 0), (10 - w, 10, 3))
    found = blocks.walk().route((0.5, turn / 2, 0), (10 - turn / 2, 9.5, 0))
    # Straight to the circle that the body's middle keeps around the inner corner, along it, and straight on.
    r, corner = 0.25, np.array([10 - w, w])
    one, two = np.array([0.5, turn / 2]) - corner, np.array([10 - turn / 2, 9.5]) - corner
    around = (math.atan2(two[1], two[0]) - math.atan2(one[1], one[0])) % (2 * math.pi)
    arc = around - math.acos(r / math.hypot(*one)) - math.acos(r / math.hypot(*two))
    legs = [math.sqrt(d @ d - r * r) for d in (one, two)]
    assert found.length_m == pytest.approx(sum(legs) + r * arc, rel=0.02)


def test_step_free_goes_round_by_the_ramp():
    blocks = Blocks().box("ground", (-3, 0, -0.3), (4, 4, 0)).box("step", (3, 0, 0), (3.3, 2, 0.17))
    blocks.box("platform", (3.3, 0, 0), (16, 2, 0.34)).box("guard", (2, 1.9, 0), (14.5, 2.1, 1.4))
    blocks.ramp("ramp", 4, 14, 0, 0.34, 1.9, y=2.1).box("top", (14, 2, 0), (16, 4, 0.34))
    walk = blocks.walk()
    up = walk.route((0, 1, 0), (8, 1, 0.34))
    assert up.risers == 2
    assert up.length_m == pytest.approx(8, rel=0.02)
    round_by = walk.route((0, 1, 0), (8, 1, 0.34), step_free=True)
    assert round_by.risers == 0
    assert round_by.rise_m == pytest.approx(0.34, abs=0.01)
    assert round_by.length_m > 20
    assert blocks.walk("wheelchair").route((0, 1, 0), (8, 1, 0.34)).risers == 0


def test_the_wheelchair_is_told_of_the_step_and_the_stair():
    walk = straight_flight(9).walk("wheelchair")
    found = walk.route((-2, 1, 0), (4, 1, 9 * 0.17))
    assert isinstance(found, Blocked)
    assert found.kind == "step"
    assert found.found == pytest.approx(0.17, abs=0.005)
    assert "flight" in walk.named(found.components)


def test_pinches_are_those_below_the_limits():
    blocks = gap(0.85)
    walk = blocks.walk()
    assert [round(p.size_m, 2) for p in walk.route((1, 1.5, 0), (5, 1.5, 0)).pinches] == [0.85]
    assert walk.route((1, 1.5, 0), (5, 1.5, 0), limits=Limits(width_m=0.8)).pinches == ()
    with pytest.raises(ValueError, match="limit"):
        Limits(width_m=-1)


def test_the_next_best_way_keeps_away_from_the_tight_place_of_the_best():
    blocks = Blocks().room(0, 0, 8, 6)
    blocks.box("south pier", (3.9, 0, 0), (4.1, 1, 3)).box("middle pier", (3.9, 1.75, 0), (4.1, 4.4, 3))
    blocks.box("north pier", (3.9, 5.6, 0), (4.1, 6, 3))
    walk = blocks.walk()
    ends = (1, 1.4, 0), (7, 1.4, 0)
    best = walk.route(*ends)
    assert best.narrowest.size_m == pytest.approx(0.75, abs=0.01)
    (other,) = walk.others(*ends)
    assert walk.named(other.avoids.components) == {"south pier", "middle pier"}
    assert other.route.narrowest.size_m == pytest.approx(1.2, abs=0.01)
    assert other.route.time_s > best.time_s
    assert other.route.length_m == pytest.approx(walk.route(ends[0], (4, 5, 0)).length_m * 2, rel=0.05)


def test_where_there_are_two_stairs_the_other_one_is_offered():
    blocks = Blocks().box("ground", (-3, 0, -0.3), (10, 12, 0)).box("upper floor", (4.5, 0, 2.4), (10, 12, 2.7))
    blocks.flight("near stair", (0, 1, 0), 16, 2.7 / 16, 0.3, 1.2)
    blocks.flight("far stair", (0, 9, 0), 16, 2.7 / 16, 0.3, 1.2)
    walk = blocks.walk()
    ends = (-2, 1.6, 0), (8, 1.6, 2.7)
    (other,) = [o for o in walk.others(*ends) if o.avoids.what == "flight"]
    assert walk.named(other.avoids.components) == {"near stair"}
    assert (other.route.points[:, 1] > 8).any()
    assert other.route.risers == walk.route(*ends).risers == 16


def test_where_one_door_is_the_only_way_there_is_no_other():
    assert gap(0.85).walk().others((1, 1.5, 0), (5, 1.5, 0)) == []
    assert Blocks().room(0, 0, 4, 4).box("wall", (1.9, 0, 0), (2.1, 4, 3)).walk().others((1, 1, 0), (3, 1, 0)) == []


def test_places_and_bodies_that_are_not_there_are_told():
    walk = gap(1.0).walk()
    with pytest.raises(NoPlaceError, match="no floor"):
        walk.place((50, 50, 0))
    with pytest.raises(NoSuchBodyError, match="standing"):
        body_named("giant")
    with pytest.raises(ValueError, match="radius"):
        replace(BODIES["standing"], radius_m=0)
    with pytest.raises(ValueError, match="cell"):
        gap(1.0).walk(cell_m=2.0)


def test_finer_cells_measure_the_same():
    coarse, fine = gap(0.72).walk(), gap(0.72).walk(cell_m=0.05)
    a, b = coarse.route((1, 1.5, 0), (5, 1.5, 0)), fine.route((1, 1.5, 0), (5, 1.5, 0))
    assert a.narrowest.size_m == pytest.approx(b.narrowest.size_m, abs=0.005)
    assert a.length_m == pytest.approx(b.length_m, rel=0.01)


BLOCKS = [(1, 1), (3, 2.2), (5.5, 0.7), (2, 4.5), (4.6, 5), (6.3, 3.1), (1, 6.5), (6.2, 6.4)]


@pytest.fixture(scope="module")
def maze():
    blocks = Blocks().room(0, 0, 8, 8)
    for k, (x, y) in enumerate(BLOCKS):
        blocks.box(f"block {k}", (x, y, 0), (x + 1.1, y + 0.9, 1.0 + 0.2 * k))
    blocks.box("dais", (3, 6.5, 0), (5, 8, 0.17))
    return blocks.walk()


def shortest(field, a, b):
    """The length of the shortest way of a point over a free field, from corner to corner of it."""
    corners = shapely.get_coordinates(field)
    stops = np.array([a, b, *corners])
    one, other = np.triu_indices(len(stops), 1)
    lines = shapely.linestrings(np.stack([stops[one], stops[other]], axis=1))
    seen = shapely.covers(shapely.buffer(field, 1e-6), lines)
    lengths = coo_matrix((shapely.length(lines[seen]), (one[seen], other[seen])), (len(stops),) * 2)
    return float(dijkstra(lengths.tocsr(), False, np.array([0]))[0, 1])


@pytest.fixture(scope="module")
def field():
    """Where the middle of somebody standing may be among the blocks of the maze that are not stepped over."""
    blocks = shapely.union_all([shapely.box(x, y, x + 1.1, y + 0.9) for x, y in BLOCKS])
    return shapely.box(0.25, 0.25, 7.75, 7.75).difference(blocks.buffer(0.25, quad_segs=4))


points = st.tuples(st.floats(0.3, 7.7), st.floats(0.3, 7.7))


@settings(max_examples=60, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(points, points)
def test_there_and_back_are_equally_long_and_step_free_has_no_riser(maze, a, b):
    there = maze.route((*a, 0.2), (*b, 0.2))
    back = maze.route((*b, 0.2), (*a, 0.2))
    assert isinstance(there, Route) == isinstance(back, Route)
    if isinstance(there, Route):
        assert there.length_m == pytest.approx(back.length_m, abs=1e-6)
        assert there.risers == back.risers
        assert there.length_m >= math.dist(there.points[0][:2], there.points[-1][:2]) - 1e-6
    level = maze.route((*a, 0.2), (*b, 0.2), step_free=True)
    if isinstance(level, Route):
        assert level.risers == 0
        if max(math.dist(level.points[k], there.points[k]) for k in (0, -1)) < 0.05:
            assert level.length_m >= there.length_m * 0.99


@settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(points, points)
def test_a_way_among_obstacles_is_within_2_percent_of_the_shortest(maze, field, a, b):
    assume(field.contains(shapely.Point(a)) and field.contains(shapely.Point(b)) and math.dist(a, b) > 1)
    assume(max(a[1], b[1]) < 6)  # the dais has a step, which costs time
    found = maze.route((*a, 0), (*b, 0))
    assert isinstance(found, Route)
    truly = shortest(field, a, b)
    # Beside the 2% a cell, which short ways feel.
    assert found.length_m <= 1.02 * truly + 0.1
    assert found.length_m >= 0.98 * truly - 0.1
