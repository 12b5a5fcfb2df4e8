"""Standing in a room: away from what is in it, looking along the longest clear line."""

import math

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from stairpath.core.camera.standing import FREE_WITHIN_M, stand_in, stands
from stairpath.core.cutting.keyplan import room_area

ROOM = shapely.box(0, 0, 12, 4)


def test_in_an_empty_room_one_stands_off_the_walls_and_looks_along_it():
    stand = stand_in(ROOM, [])
    assert stand is not None
    assert stand.at[1] == pytest.approx(2, abs=FREE_WITHIN_M)
    assert 2 - FREE_WITHIN_M <= stand.at[0] <= 10 + FREE_WITHIN_M
    off_length = min(abs(stand.bearing_deg - 90), abs(stand.bearing_deg - 270))
    assert off_length <= math.degrees(math.atan(2 / 6)) + 5


def test_a_column_in_the_middle_is_kept_clear_of():
    column = shapely.box(5.8, 1.8, 6.2, 2.2)
    stand = stand_in(ROOM, [column])
    assert stand is not None
    assert shapely.distance(shapely.Point(stand.at), column) > 1.7


def test_a_room_that_is_full_has_no_place():
    assert stand_in(ROOM, [shapely.box(-1, -1, 13, 5)]) is None


boxes = st.lists(
    st.builds(
        lambda x, y, w, h: shapely.box(x, y, x + w, y + h),
        st.floats(0, 11), st.floats(0, 3.5), st.floats(0.1, 3), st.floats(0.1, 2),
    ),
    max_size=6,
)  # fmt: skip


@given(things=boxes)
def test_one_never_stands_in_a_thing_or_in_a_wall_and_no_place_is_freer(things):
    stand = stand_in(ROOM, things)
    free = ROOM.difference(shapely.union_all(things))
    if stand is None:
        assert free.area == pytest.approx(0, abs=1e-9)
        return
    point = shapely.Point(stand.at)
    assert free.buffer(1e-9).contains(point)
    freest = max(
        shapely.maximum_inscribed_circle(part, tolerance=0.01).length
        for part in getattr(free, "geoms", [free])
        if part.geom_type == "Polygon" and part.area > 0
    )
    assert point.distance(free.boundary) >= freest - FREE_WITHIN_M - 0.01


def test_every_room_of_the_demo_can_be_stood_in(demo):
    found = stands(demo)
    assert set(found) == set(range(len(demo.rooms)))
    for index, stand in found.items():
        assert any(p.contains(shapely.Point(stand.at)) for p in room_area(demo, index)), demo.rooms[index].name


def test_in_the_upper_gallery_one_stands_clear_of_the_columns(demo):
    index = next(i for i, room in enumerate(demo.rooms) if room.name == "Upper gallery")
    at = shapely.Point(stands(demo)[index].at)
    structure = next(m for m in demo.models if m.outline.name.startswith("QH-STR"))
    columns = [
        structure.bounds_m[i, :, :2].mean(axis=0)
        for i, cls in enumerate(structure.outline.classes)
        if cls == "IfcColumn" and structure.bounds_m[i, 1, 2] > 9
    ]
    assert min(at.distance(shapely.Point(c)) for c in columns) > 1.5
