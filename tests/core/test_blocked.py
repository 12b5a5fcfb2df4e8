"""Why there is no way: each kind of obstacle, where it is, and how much is missing."""

import pytest

from stairpath.core.walking.blocked import Blocked
from stairpath.core.walking.stopped import Stop, spoken
from tests.core.blocks import Blocks


def two_rooms() -> Blocks:
    """A floor of 8 by 3 m in walls; what parts it is up to the test."""
    return Blocks().room(0, 0, 8, 3)


def parted(blocks: Blocks, body="standing", **more) -> tuple[Blocked, set[str]]:
    walk = blocks.walk(body)
    found = walk.route((1, 1.5, 0), (7, 1.5, 0), **more)
    assert isinstance(found, Blocked)
    return found, walk.named(found.components)


def test_a_wall_is_as_thick_as_it_is_and_an_opening_as_wide_as_the_body_is_needed():
    found, named = parted(two_rooms().box("partition", (4, 0, 0), (4.25, 3, 3)))
    assert (found.kind, named) == ("solid", {"partition"})
    assert found.found == pytest.approx(0.25, abs=0.03)
    assert found.needs == f"{found.found:.2f} m of solid stand in the way; an opening 0.50 m wide is needed."
    assert found.nearest[0] == pytest.approx(4 - 0.25, abs=0.15)


@pytest.mark.parametrize(("wide", "body"), [(0.44, "standing"), (0.60, "trolley"), (0.74, "wheelchair")])
def test_a_gap_too_narrow_is_measured_and_what_is_missing_is_said(wide, body):
    blocks = (
        two_rooms().box("one", (4, 0, 0), (4.2, 1.5 - wide / 2, 3)).box("other", (4, 1.5 + wide / 2, 0), (4.2, 3, 3))
    )
    found, named = parted(blocks, body)
    assert (found.kind, named) == ("width", {"one", "other"})
    needed = 0.5 if body == "standing" else 0.8
    assert found.found == pytest.approx(wide, abs=0.01)
    assert found.needed == needed
    assert found.needs.endswith(f"{needed:.2f} m needed: {needed - wide:.2f} m wider.")


def test_of_two_gaps_the_one_that_lacks_less_is_told():
    blocks = two_rooms().box("south", (4, 0, 0), (4.2, 0.5, 3)).box("middle", (4, 0.7, 0), (4.2, 2.3, 3))
    found, named = parted(blocks.box("north", (4, 2.72, 0), (4.2, 3, 3)))
    assert (found.kind, named) == ("width", {"middle", "north"})
    assert found.found == pytest.approx(0.42, abs=0.01)


@pytest.mark.parametrize(("low", "body"), [(1.62, "standing"), (1.2, "stooping")])
def test_a_beam_too_low_is_measured_from_the_floor(low, body):
    found, named = parted(two_rooms().box("beam", (4, 0, low), (4.2, 3, 3)), body)
    assert (found.kind, named) == ("height", {"beam"})
    assert found.found == pytest.approx(low, abs=0.01)
    assert found.needed == {"standing": 1.8, "stooping": 1.3}[body]


def test_a_step_too_high_and_a_hole_without_a_floor():
    floors = Blocks().box("low", (0, 0, -0.3), (4, 3, 0)).box("high", (4, 0, -0.3), (8, 3, 0.6))
    walk = floors.walk()
    found = walk.route((1, 1.5, 0), (7, 1.5, 0.6))
    assert isinstance(found, Blocked)
    assert (found.kind, walk.named(found.components)) == ("step", {"high"})
    assert found.found == pytest.approx(0.6, abs=0.01)
    assert found.needed == 0.25
    quays = Blocks().box("one", (0, 0, -0.3), (3, 3, 0)).box("other", (4.4, 0, -0.3), (8, 3, 0))
    found, named = parted(quays)
    assert (found.kind, named) == ("gap", set())
    assert found.nearest[0] == pytest.approx(3, abs=0.11)
    assert found.needs == "There is no floor across; a bridge, a stair or a lift is needed."


def test_a_ramp_too_steep_for_the_wheelchair_is_a_slope():
    blocks = (
        Blocks()
        .box("low", (-3, 0, -0.3), (0, 3, 0))
        .ramp("ramp", 0, 5, 0, 0.6, 3)
        .box("high", (5, 0, -0.3), (8, 3, 0.6))
    )
    walk = blocks.walk("wheelchair")
    found = walk.route((-2, 1.5, 0), (7, 1.5, 0.6))
    assert isinstance(found, Blocked)
    assert (found.kind, walk.named(found.components)) == ("slope", {"ramp"})
    assert found.found == pytest.approx(0.12, abs=0.003)
    assert found.needs == "A slope of 1:8.3 where 1:12 at most can be taken."


def test_who_is_shut_in_is_told_of_the_room_s_own_wall_and_from_outside_of_the_same():
    blocks = Blocks().box("ground", (-6, -6, -0.3), (12, 9, 0))
    for name, low, high in (
        ("south", (0, 0, 0), (3, 0.2, 3)), ("north", (0, 2.8, 0), (3, 3, 3)),
        ("west", (0, 0.2, 0), (0.2, 2.8, 3)), ("east", (2.9, 0.2, 0), (3, 2.8, 3)),
    ):  # fmt: skip
        blocks.box(name, low, high)
    walk = blocks.walk()
    for start, end in (((1.5, 1.5, 0), (9, 1.5, 0)), ((9, 1.5, 0), (1.5, 1.5, 0))):
        found = walk.route(start, end)
        assert isinstance(found, Blocked)
        assert found.kind == "solid"
        # The thinnest wall is the least in the way.
        assert walk.named(found.components) == {"east"}
        assert found.found == pytest.approx(0.1, abs=0.03)


def test_without_steps_a_stair_ends_the_way_that_others_take():
    blocks = Blocks().box("low", (-3, 0, -0.3), (0, 3, 0)).flight("stair", (0, 0, 0), 6, 0.17, 0.28, 3)
    walk = blocks.box("deck", (1.4, 0, 0.7), (6, 3, 1.02)).walk()
    assert not isinstance(walk.route((-2, 1.5, 0), (5, 1.5, 1.02)), Blocked)
    found = walk.route((-2, 1.5, 0), (5, 1.5, 1.02), step_free=True)
    assert isinstance(found, Blocked)
    assert (found.kind, walk.named(found.components)) == ("step", {"stair"})
    assert found.found == pytest.approx(0.17, abs=0.01)
    assert found.nearest[0] == pytest.approx(0, abs=0.2)


@pytest.mark.parametrize(
    ("stop", "line"),
    [
        (Stop("height", 1, 1.74, 1.8), "Duct AD-114, air: 1.74 m clear, 1.80 m needed"),
        (Stop("step", 1, 0.449, 0.25), "Duct AD-114, air: a step of 0.45 m, 0.25 m at most"),
        (Stop("drop", 1, 0.6, 0.25), "Duct AD-114, air: 0.60 m down, 0.25 m at most"),
        (Stop("slope", 1, 0.1, 1 / 12), "Duct AD-114, air: a slope of 1:10.0, 1:12 at most"),
        (Stop("edge", 1), "Duct AD-114, air: the floor ends here"),
        (Stop("solid", 1), "Duct AD-114, air stands in the way"),
        (Stop("solid", 1, None, 0.5), "Duct AD-114, air stands in the way, 0.50 m needed"),
        (Stop("step", 1), "Duct AD-114, air: a step"),
        (Stop("slope", 1), "Duct AD-114, air: too steep"),
    ],
)
def test_a_stop_says_what_blocks_and_how_much_is_missing(stop, line):
    assert spoken(stop, "Duct AD-114, air") == line
