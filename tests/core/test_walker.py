"""Walking by keys: never into a wall, off a floor or with the head in something."""

import math

import numpy as np
import pytest
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st

from stairpath.core.walking.stopped import why_stopped
from stairpath.core.walking.walker import TICK_S, standing_on, tick, walked
from tests.core.blocks import Blocks

SPEED = 1.4


@pytest.fixture(scope="module")
def yard():
    """Blocks at all angles, a stair to a deck without railing, a pit, and a beam to walk under or not."""
    blocks = Blocks().room(0, 0, 10, 8)
    for k, (x, y) in enumerate([(2, 2), (5, 1.3), (2.3, 5), (7.6, 4.8)]):
        turned = trimesh.creation.box((1.0, 0.4, 2.0))
        turned.apply_transform(trimesh.transformations.rotation_matrix(math.radians(20 + 25 * k), (0, 0, 1)))
        turned.apply_translation((x, y, 1.0))
        blocks.mesh(f"board {k}", turned)
    blocks.flight("stair", (4, 6.5, 0), 6, 0.17, 0.28, 1.2)
    blocks.box("deck", (5.4, 6.0, 0.8), (8, 8, 1.02))
    blocks.box("low beam", (3.0, 0, 1.6), (3.3, 2, 1.9))
    return blocks.walk()


def start(walk, point):
    return standing_on(walk.map, int(walk.place(point).floors[0]))


def test_it_comes_up_to_speed_and_covers_the_ground(yard):
    before = start(yard, (1, 4, 0))
    after = walked(yard.map, before, [(120, SPEED, 0)])[0]
    # Two seconds at 1.4 m/s, less what easing in takes: the speed times its time.
    assert after.x_m - before.x_m == pytest.approx(SPEED * (2 - 0.12), abs=0.03)
    assert after.y_m == before.y_m
    assert after.blocked == -1
    at_rest = walked(yard.map, after, [(60, 0, 0)])[0]
    assert at_rest.x_m - after.x_m == pytest.approx(SPEED * 0.12, abs=0.02)
    assert (at_rest.vx_m_s, at_rest.vy_m_s) == (0, 0)
    assert tick(yard.map, at_rest, 0, 0) == at_rest


def test_a_wall_stops_it_and_is_named_and_it_slides_along(yard):
    stopped = walked(yard.map, start(yard, (1, 4, 0)), [(240, -SPEED, 0)])[0]
    assert stopped.x_m == pytest.approx(0.25, abs=0.1)
    assert stopped.blocked == 4
    assert yard.names[yard.map.taker[stopped.floor]] == "west wall"
    along = walked(yard.map, stopped, [(60, -SPEED, SPEED)])[0]
    assert along.y_m - stopped.y_m > 0.9 * SPEED * (1 - 0.12)


@pytest.mark.parametrize(
    ("at", "towards"), [((9, 3, 0), (1, 0)), ((1, 4, 0), (-1, 0)), ((1, 7, 0), (0, 1)), ((8, 1, 0), (0, -1))]
)
def test_square_on_to_a_wall_it_stops_without_slipping_aside(yard, at, towards):
    began = start(yard, at)
    ahead = SPEED * np.array(towards)
    stopped, later = walked(yard.map, began, [(150, *ahead), (300, *ahead)])
    across = "y_m" if towards[0] else "x_m"
    assert getattr(stopped, across) == getattr(later, across) == getattr(began, across)
    assert (later.x_m, later.y_m) == pytest.approx((stopped.x_m, stopped.y_m), abs=1e-3)
    assert stopped.blocked >= 0


def test_nearly_square_on_to_a_wall_it_slides_as_slowly_as_it_meets_it(yard):
    walker = walked(yard.map, start(yard, (9, 3, 0)), [(150, SPEED, 0.14)])[0]
    on = walked(yard.map, walker, [(60, SPEED, 0.14)])[0]
    assert on.y_m - walker.y_m == pytest.approx(0.14, abs=0.01)


def test_it_slides_along_a_slanting_board(yard):
    past = walked(yard.map, start(yard, (1.85, 3.5, 0)), [(300, 0, SPEED)])[0]
    assert past.y_m > 6
    assert past.x_m < 1.8


def test_it_climbs_the_stair_smoothly_and_takes_no_step_off_the_deck(yard):
    walker = start(yard, (3.5, 7.1, 0))
    feet = [walker.feet_m]
    for _ in range(400):
        walker = tick(yard.map, walker, SPEED, 0)
        feet.append(walker.feet_m)
    assert walked(yard.map, walker, [(120, 0, 0)])[0].feet_m == pytest.approx(1.02, abs=1e-6)
    assert walker.feet_m == pytest.approx(1.02, abs=0.01)
    assert np.abs(np.diff(feet)).max() < 0.03
    assert walker.x_m == pytest.approx(8.0, abs=0.1)
    south = walked(yard.map, walker, [(300, 0, -SPEED)])[0]
    assert south.y_m >= 6.0
    assert south.feet_m == pytest.approx(1.02, abs=0.01)


def test_the_low_beam_is_ducked_under_only_by_who_stoops(yard):
    assert walked(yard.map, start(yard, (2.6, 0.8, 0)), [(180, SPEED, 0)])[0].x_m < 3.0


def stop(blocks, body, at, towards):
    """Why a body at a point cannot go on in a direction, and what is named."""
    walk = blocks.walk(body)
    walker = start(walk, at)
    speed = np.array(towards) / np.hypot(*towards)
    walker = walked(walk.map, walker, [(600, *speed)])[0]
    why = why_stopped(walk.map, walk.space, walker.floor, np.array([walker.x_m, walker.y_m]), speed)
    return why, walk.names[why.component]


def test_a_landing_too_high_to_step_onto_is_a_step_of_its_height():
    blocks = Blocks().box("quay", (-3, 0, -0.3), (10, 4, 0)).box("landing", (3, 0, 0), (8, 4, 0.45))
    for aside in (0.0, 0.3):
        why, whose = stop(blocks, "standing", (0, 1, 0), (1, aside))
        assert (why.kind, whose) == ("step", "landing")
        assert why.found_m == pytest.approx(0.45, abs=0.01)
        assert why.needed_m == 0.25


def test_a_wheelchair_is_stopped_by_a_riser_and_by_a_ramp_that_is_too_steep():
    blocks = Blocks().box("low", (-3, 0, -0.3), (0, 3, 0)).ramp("ramp", 0, 10, 0, 1, 3)
    why, whose = stop(blocks, "wheelchair", (-2, 1.5, 0), (1, 0))
    assert (why.kind, whose) == ("slope", "ramp")
    assert why.found_m == pytest.approx(0.1, abs=0.003)
    stair = Blocks().box("low", (-3, 0, -0.3), (9, 3, 0)).flight("stair", (0, 0, 0), 6, 0.17, 0.28, 3)
    why, whose = stop(stair, "wheelchair", (-2, 1.5, 0), (1, 0))
    assert (why.kind, whose) == ("step", "stair")
    assert why.found_m == pytest.approx(0.17, abs=0.01)


def test_a_higher_floor_behind_a_wall_is_not_what_stops():
    blocks = Blocks().box("low", (-3, 0, -0.3), (3, 3, 0)).box("wall", (3, 0, 0), (3.1, 3, 3))
    why, whose = stop(blocks.box("raised", (3.1, 0, 0), (6, 3, 0.1)), "wheelchair", (0, 1.5, 0), (1, 0))
    assert (why.kind, whose) == ("solid", "wall")


def test_a_floor_s_end_is_an_edge_or_a_drop():
    deck = Blocks().box("deck", (0, 0, -0.3), (4, 3, 0))
    assert stop(deck, "standing", (2, 1.5, 0), (1, 0))[0].kind == "edge"
    deck.box("yard", (4, 0, -0.9), (9, 3, -0.6))
    why, whose = stop(deck, "standing", (2, 1.5, 0), (1, 0))
    assert (why.kind, whose) == ("drop", "deck")
    assert why.found_m == pytest.approx(0.6, abs=0.01)


keys = st.lists(
    st.tuples(st.integers(1, 90), st.floats(0, 360), st.sampled_from([0.5, SPEED, 3.0, 6.0])), min_size=1, max_size=8
)


@settings(max_examples=80, deadline=None)
@given(keys)
def test_no_keys_end_in_a_wall_off_a_floor_or_with_the_head_in_something(yard, keys):
    walk, space = yard.map, yard.space
    presses = [(n, v * math.cos(math.radians(a)), v * math.sin(math.radians(a))) for n, a, v in keys]
    for walker in walked(walk, start(yard, (1, 4, 0)), presses):
        assert walk.fits[walker.floor]
        cell = walk.grid.cell_at(walker.x_m, walker.y_m)
        assert cell == walk.cell[walker.floor]
        height = float(walk.height_m[walker.floor])
        # Within its cell somebody may be nearer to things by what the place of the cell is away.
        away = math.dist((walker.x_m, walker.y_m), walk.place(walker.floor)[:2])
        low, high = height + 0.26, height + walk.body.shoulder_m
        gap, _, _ = space.nearest(walker.x_m, walker.y_m, low, high, 1.0, slope=1.001, climb=1.0)
        assert gap >= walk.body.radius_m - away - 1e-6
        top, _ = space.lowest(walker.x_m, walker.y_m, height + 0.5, height + walk.body.height_m, 0.01)
        assert top >= height + walk.body.height_m - 1e-6
        assert not math.isnan(space.trodden(np.array([[*walk.place(walker.floor)]]), 0.1, 0.1)[0])


def test_time_is_counted_in_sixtieths():
    assert pytest.approx(1 / 60) == TICK_S
