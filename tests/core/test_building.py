"""The demo's own figures hold together before any file is written from them."""

from itertools import combinations, pairwise

import pytest

from stairpath.demo import building as b


def test_rooms_of_a_storey_do_not_overlap():
    for one, other in combinations(b.rooms(), 2):
        if one.storey == other.storey:
            across = min(one.x1, other.x1) - max(one.x0, other.x0)
            along = min(one.y1, other.y1) - max(one.y0, other.y0)
            assert min(across, along) <= 1e-9, (one.name, other.name)


def test_rooms_lie_inside_the_building():
    for room in b.rooms():
        assert 0 <= room.x0 < room.x1 <= b.LENGTH_M
        assert 0 <= room.y0 < room.y1 <= b.WIDTH_M
        assert room.area_m2 > 3


def test_rooms_of_every_storey_fill_most_of_it():
    for storey in b.FLOORS:
        area = sum(room.area_m2 for room in b.rooms() if room.storey == storey)
        assert 0.93 < area / (b.LENGTH_M * b.WIDTH_M) <= 1


def test_every_storey_has_its_corridor_escape_stair_and_washrooms():
    for storey in b.FLOORS:
        names = [room.name for room in b.rooms() if room.storey == storey]
        assert names.count("Corridor") == names.count("Escape stair") == 1
    assert sum(room.name == "Washrooms" for room in b.rooms()) == 3


def test_numbers_follow_the_storey():
    numbers = [room.number for room in b.rooms()]
    assert len(set(numbers)) == len(numbers)
    assert all(
        room.number.startswith({"Level B1": "B1.", "Level 00": "0.", "Level 01": "1.", "Level 02": "2."}[room.storey])
        for room in b.rooms()
    )


@pytest.mark.parametrize("storey", b.FLOORS[:3])
def test_the_escape_stair_climbs_from_floor_to_floor_comfortably(storey):
    flights = b.escape_flights(storey)
    floors = list(b.STOREYS_M.values())
    at = list(b.STOREYS_M).index(storey)
    assert flights.rise_m == pytest.approx(floors[at + 1] - floors[at])
    assert flights.riser_m * flights.risers == pytest.approx(flights.rise_m)
    assert 0.15 <= flights.riser_m <= 0.18
    # Two risers and a going make a step of a walking adult.
    assert 0.59 <= 2 * flights.riser_m + flights.going_m <= 0.65
    assert flights.start_y + flights.run_m + flights.landing_m <= b.ESCAPE_STAIR[3] + 1e-9
    assert flights.x0 + flights.outer_m <= b.ESCAPE_STAIR[1] + 1e-9


def test_the_nosing_line_rises_a_riser_a_going():
    flights = b.escape_flights("Level 00")
    assert flights.nosing_z(flights.start_y) == pytest.approx(flights.riser_m)
    step = flights.nosing_z(flights.start_y + flights.going_m) - flights.nosing_z(flights.start_y)
    assert step == pytest.approx(flights.riser_m)


def test_axes_make_bays_and_hold_the_corridor():
    numbered = list(b.NUMBERED_AXES_M.values())
    assert numbered[0] == 0
    assert numbered[-1] == b.LENGTH_M
    assert {round(y - x, 6) for x, y in pairwise(numbered)} == {b.BAY_M}
    assert (b.LETTERED_AXES_M["C"], b.LETTERED_AXES_M["D"]) == b.CORRIDOR_Y_M
