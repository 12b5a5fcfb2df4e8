"""Coming to stand: in a room, a storey up or down, behind a wall, at a point."""

import numpy as np
import pytest
import shapely

from stairpath.core.walking.landing import behind, in_the_room, on_storey
from stairpath.core.walking.place import NoPlaceError, Room, at_point, floors_in, in_room, joined
from tests.core.blocks import Blocks


@pytest.fixture(scope="module")
def walk():
    """Two storeys of 8 by 4 m; the upper one has a hole over x 5 to 8, and a table stands below it."""
    blocks = Blocks().box("ground", (0, 0, -0.3), (8, 4, 0)).box("upper", (0, 0, 3.0), (5, 4, 3.3))
    blocks.box("wall", (4, 0, 0), (4.2, 4, 3.0)).box("table", (6, 1.5, 0), (7, 2.5, 0.75))
    return blocks.box("sill", (-0.9, 1, 0.4), (-0.2, 3, 0.5)).walk().map


def up(walk, at, elevation_m):
    return walk.place(on_storey(walk, np.array(at, float), elevation_m).floor)


def test_a_storey_up_keeps_the_place_on_plan(walk):
    at = up(walk, (2.05, 1.05, 0), 3.3)
    assert at[:2] == pytest.approx([2.05, 1.05], abs=0.06)
    assert at[2] == pytest.approx(3.3, abs=0.005)
    assert up(walk, at, 0.0) == pytest.approx([2.05, 1.05, 0], abs=0.06)


def test_over_the_hole_the_nearest_floor_of_the_storey_is_taken(walk):
    at = up(walk, (6.55, 3.05, 0), 3.3)
    assert at[2] == pytest.approx(3.3, abs=0.005)
    assert at[0] == pytest.approx(5, abs=0.2)
    assert at[1] == pytest.approx(3.05, abs=0.15)


def test_coming_down_onto_a_table_one_stands_beside_it(walk):
    at = up(walk, (6.5, 2.0, 3.3), 0.0)
    assert at[2] == pytest.approx(0, abs=0.005)
    away = shapely.box(6, 1.5, 7, 2.5).distance(shapely.Point(at[:2]))
    assert 0.2 < away < 0.5


def test_a_storey_without_a_floor_says_so(walk):
    with pytest.raises(NoPlaceError, match="no free floor for standing there; take another storey"):
        on_storey(walk, np.array([2.0, 1.0, 0]), 9.0)


@pytest.mark.parametrize(("at", "towards", "beyond"), [((4, 1, 1.2), (1, 0), 4.2), ((4.2, 1, 1.2), (-1, 0), 4.0)])
def test_behind_a_wall_is_the_nearest_floor_on_its_other_side(walk, at, towards, beyond):
    place = walk.place(behind(walk, np.array(at, float), np.array(towards, float), 0.0).floor)
    assert (place[0] - beyond) * towards[0] == pytest.approx(0.25, abs=0.11)
    assert place[1] == pytest.approx(1, abs=0.06)
    assert place[2] == pytest.approx(0, abs=0.005)


def test_behind_the_outer_wall_there_is_nothing(walk):
    with pytest.raises(NoPlaceError, match="There is no floor within"):
        behind(walk, np.array([8.0, 2, 1]), np.array([1.0, 0]), 0.0)


def test_a_point_means_the_floor_below_it_or_the_nearest_where_one_fits(walk):
    eye = at_point(walk, np.array([2.03, 1.07, 1.7]), "the eye")
    assert eye.fits
    assert walk.place(int(eye.floors[0]))[2] == pytest.approx(0, abs=0.005)
    assert eye.on(walk, int(eye.floors[0]))[:2] == pytest.approx([2.03, 1.07])
    at_the_wall = at_point(walk, np.array([3.95, 1.0, 0.0]), "the wall")
    near = walk.place(int(at_the_wall.floors[0]))
    assert near[0] == pytest.approx(3.75, abs=0.11)
    with pytest.raises(NoPlaceError, match="There is no floor at the sky"):
        at_point(walk, np.array([2.0, 1.0, 9.0]), "the sky")
    with pytest.raises(NoPlaceError, match="There is no floor at the lawn"):
        at_point(walk, np.array([30.0, 1.0, 0.0]), "the lawn")


def test_standing_in_a_room_one_does_not_face_its_door():
    """A room of 6 by 4 m; its longest line leads on through the door in its far wall, down a corridor."""
    blocks = Blocks().box("ground", (0, 0, -0.3), (20, 4, 0)).box("south", (0, -0.2, 0), (20, 0, 3))
    blocks.box("north", (0, 4, 0), (20, 4.2, 3)).box("west", (-0.2, 0, 0), (0, 4, 3))
    blocks.box("jamb", (6, 0, 0), (6.2, 1.5, 3)).box("other jamb", (6, 2.5, 0), (6.2, 4, 3))
    walk = blocks.walk().map
    landing = in_the_room(walk, Room("Laboratory", shapely.box(0, 0, 6, 4), 0.0, 3.0))
    assert landing.look_deg is not None
    towards = np.radians(landing.look_deg)
    x, y, _ = walk.place(landing.floor)
    across = y + (6.0 - x) * np.tan(towards) if np.cos(towards) > 0 else np.inf
    assert not 1.3 < across < 2.7


def test_a_room_means_its_floor_and_not_the_furniture_in_it(walk):
    lower = Room("Laboratory", shapely.box(4.2, 0, 8, 4), 0.0, 3.0)
    floors = floors_in(walk, lower)
    assert set(np.round(walk.height_m[floors], 2).tolist()) == {0.0, 0.75}
    place = in_room(walk, lower)
    assert place.fits
    assert np.abs(walk.height_m[place.floors]).max() < 0.01
    stand = walk.place(in_the_room(walk, lower).floor)
    assert shapely.box(6, 1.5, 7, 2.5).distance(shapely.Point(stand[:2])) > 0.7


def test_rooms_without_a_floor_or_without_room_are_told_apart(walk):
    with pytest.raises(NoPlaceError, match="Void has no floor; take another room"):
        in_room(walk, Room("Void", shapely.box(5.5, 0, 8, 4), 3.3, 6.0))
    with pytest.raises(NoPlaceError, match="Nothing has no floor"):
        in_room(walk, Room("Nothing", shapely.Polygon(), 0.0, 3.0))
    shaft = in_room(walk, Room("Shaft", shapely.box(4.2, 0, 4.4, 4), 0.0, 3.0))
    assert not shaft.fits


def test_two_places_join_only_where_one_part_of_the_building_has_both(walk):
    west = at_point(walk, np.array([1.0, 2, 0]), "west")
    also_west = at_point(walk, np.array([3.0, 2, 0]), "also west")
    east = at_point(walk, np.array([5.0, 2, 0]), "east")
    both = joined(walk, west, also_west)
    assert both is not None
    assert walk.region[both[0]] == walk.region[both[1]]
    assert joined(walk, west, east) is None
