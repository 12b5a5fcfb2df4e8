"""Walking in the demo: its planted problems, its alternatives, and from the entrance to the roof plant and back."""

from __future__ import annotations

import numpy as np
import pytest
import shapely

from stairpath.core.federation.federate import federate
from stairpath.core.federation.rooms import room_named
from stairpath.core.walking.blocked import Blocked
from stairpath.core.walking.bodies import BODIES
from stairpath.core.walking.landing import in_every_room
from stairpath.core.walking.loops import ways
from stairpath.core.walking.loops.ways import CLIMB_M_S, DESCEND_M_S
from stairpath.core.walking.place import at_point, place_named, room_of
from stairpath.core.walking.report import global_ids
from stairpath.core.walking.route import Route, route
from stairpath.core.walking.search import fastest, marks_of, walkable_building
from stairpath.core.walking.solids import Rule, frame_of, solids_of
from stairpath.core.walking.walker import standing_on, tick
from stairpath.core.walking.walkmap import NOWHERE, build


class Walked:
    """The demo on foot; points in the building's own coordinates (x along the numbers, y along the letters)."""

    def __init__(self, federation, body="standing", rule=None):
        self.federation = federation
        self.map, self.space = build(solids_of(federation, rule), BODIES[body])
        hall = room_of(federation, self.map.axes, room_named(federation, "0.03"))
        self.zero = np.array([hall.area.bounds[0] - 18.0, hall.area.bounds[1], 0.0])
        self.ids = global_ids(federation)

    def place(self, where):
        if isinstance(where, str):
            return place_named(self.federation, self.map, f"room:{where}")
        return at_point(self.map, self.zero + np.array(where, float), "there")

    def route(self, start, end, **more):
        return route(self.map, self.space, self.place(start), self.place(end), **more)

    def classes(self, components):
        kinds = [c for m in self.federation.models for c in m.outline.classes]
        return {kinds[c] for c in components}


@pytest.fixture(scope="module")
def standing(demo):
    return Walked(demo)


@pytest.fixture(scope="module")
def wheelchair(demo):
    return Walked(demo, "wheelchair")


def test_without_steps_the_way_up_ends_at_one_riser_and_not_at_two_from_the_side_of_the_flight(standing):
    for start, end in (("0.03", "1.03"), ("0.02", "1.03"), ("0.01", "1.01")):
        found = standing.route(start, end, step_free=True)
        assert isinstance(found, Blocked)
        assert (found.kind, standing.classes(found.components)) == ("step", {"IfcStairFlight"})
        assert found.found == pytest.approx(1 / 6, abs=1e-3)


def test_the_pipe_over_the_escape_stair_is_found_at_1_86_m(standing):
    up = standing.route((44.6, 13.9, 0), (44.6, 13.9, 4))
    assert isinstance(up, Route)
    assert up.rise_m == pytest.approx(4, abs=0.01)
    assert up.lowest.size_m == pytest.approx(1.86, abs=0.01)
    assert standing.classes(up.lowest.components) == {"IfcPipeSegment"}


def test_the_corridor_of_0_72_m_is_found_and_stops_the_wheelchair(standing, wheelchair):
    past = standing.route((10, 12, -4.2), (26, 12, -4.2))
    assert isinstance(past, Route)
    assert past.narrowest.size_m == pytest.approx(0.72, abs=0.01)
    assert "IfcUnitaryEquipment" in standing.classes(past.narrowest.components)
    stopped = wheelchair.route((10, 12, -4.2), (26, 12, -4.2))
    assert isinstance(stopped, Blocked)
    assert stopped.needs == "0.72 m wide, 0.80 m needed: 0.08 m wider."


def test_from_the_entrance_to_the_roof_plant_and_back(standing):
    outside, plant = (24, -1.5, 0), (38, 12, 12)
    there, back = standing.route(outside, plant), standing.route(plant, outside)
    assert isinstance(there, Route)
    assert there.rise_m - there.descent_m == pytest.approx(12, abs=0.1)
    assert 70 <= there.risers <= 76
    assert back.length_m == pytest.approx(there.length_m, abs=1e-6)
    assert back.risers == there.risers
    assert back.time_s < there.time_s


def test_both_alternatives_of_the_stair_give_their_own_route(demo):
    def up(chosen):
        outlines = [m.outline for m in demo.models]
        return Walked(federate(outlines, chosen={chosen})).route("0.03", "1.03")

    a, b = up("QH-ARC-S1-ALT-A"), up("QH-ARC-S1-ALT-B")
    assert isinstance(a, Route)
    assert isinstance(b, Route)
    assert a.risers == 24
    assert (round(a.length_m, 1), a.risers) != (round(b.length_m, 1), b.risers)


def test_a_wheelchair_is_told_of_the_stair(wheelchair):
    up = wheelchair.route("0.03", "1.03")
    assert isinstance(up, Blocked)
    assert up.kind == "step"
    assert "IfcStairFlight" in wheelchair.classes(up.components)


def test_locked_doors_close_the_rooms(demo):
    locked = Walked(demo, rule=Rule(doors_locked=True))
    found = locked.route("0.03", "0.09")
    assert isinstance(found, Blocked)
    assert "IfcDoor" in locked.classes(found.components)


def way_time_s(walk, way):
    """Straight from floor to floor, and the height that it takes."""
    along = np.diff(walk.places(way), axis=0)
    heights = np.where(along[:, 2] > 0, along[:, 2] / CLIMB_M_S, -along[:, 2] / DESCEND_M_S)
    return float(np.hypot(along[:, 0], along[:, 1]).sum() / walk.body.speed_m_s + heights.sum())


@pytest.mark.trial
def test_marks_find_the_same_way_faster(standing):
    walk = standing.map
    source, goal = int(standing.place("B1.01").floors[0]), int(standing.place("2.10").floors[0])
    marks = marks_of(walk)
    plain, marked = fastest(walk, source, goal), fastest(walk, source, goal, False, marks)
    assert way_time_s(walk, marked) == pytest.approx(way_time_s(walk, plain), rel=0.01)

    def looked_at(with_marks) -> int:
        """On how many floors it was said how long it takes there."""
        time, _ = ways.search(min(source, goal), max(source, goal), walkable_building(walk), with_marks)
        return int(np.isfinite(time).sum())

    assert looked_at(marks) < 0.5 * looked_at(np.zeros((len(walk), 0), dtype=np.float32))


def test_a_door_s_frame_stays_and_its_leaf_opens(demo):
    model = next(m for m in demo.models if m.outline.name == "QH-ARC-ZZ-ZZ-M3")
    geometry = model.outline.geometry
    placed = int(geometry.placed_of(model.outline.of_class(("IfcDoor",)))[0])
    shape = geometry.shapes[geometry.shape[placed]]
    frame = frame_of(shape)
    assert 0 < frame.sum() < len(frame)
    corners = shape.vertices[shape.triangles[frame].reshape(-1)]
    width = np.ptp(shape.vertices[:, 0])
    middle = np.abs(corners[:, 0] - shape.vertices[:, 0].min() - width / 2) < 0.2 * width
    # Nothing of the frame stands in the middle between head and threshold.
    assert not ((corners[:, 2] > 0.3) & (corners[:, 2] < 1.9) & middle).any()


def test_every_room_can_be_stood_in_clear_of_what_is_in_it(standing):
    landings = in_every_room(standing.map, standing.federation)
    assert set(landings) == set(range(len(standing.federation.rooms)))
    for index, landing in landings.items():
        room = room_of(standing.federation, standing.map.axes, index)
        at = standing.map.place(landing.floor)
        assert room.area.buffer(0.05).contains(shapely.Point(at[:2])), room.name
        assert abs(at[2] - room.low_m) < 0.5, room.name


def test_in_the_upper_gallery_one_stands_clear_of_the_columns(standing):
    index = next(i for i, room in enumerate(standing.federation.rooms) if room.name == "Upper gallery")
    at = standing.map.place(in_every_room(standing.map, standing.federation)[index].floor)
    structure = next(m for m in standing.federation.models if m.outline.name.startswith("QH-STR"))
    columns = [
        standing.map.axes.to_own(structure.bounds_m[i].mean(axis=0))
        for i, cls in enumerate(structure.outline.classes)
        if cls == "IfcColumn" and structure.bounds_m[i, 1, 2] > 9
    ]
    assert min(np.hypot(*(at - column)[:2]) for column in columns) > 1.5


def test_most_rooms_can_be_walked_to(standing):
    region = standing.map.region
    main = np.bincount(region[region != NOWHERE]).argmax()
    reached = []
    for index, room in enumerate(standing.federation.rooms):
        place = place_named(standing.federation, standing.map, f"room:{room.number}")
        reached.append(bool((region[place.floors] == main).any()))
        assert room_of(standing.federation, standing.map.axes, index).area.area > 1
    assert sum(reached) >= 46


def follow(walked, found):
    """Walk along a route by keys: towards each of its points in turn; where one ends."""
    walk = walked.map
    walker = standing_on(walk, int(at_point(walk, found.points[0], "the start").floors[0]))
    for point in found.points[1:]:
        for _ in range(6000):
            away = point[:2] - [walker.x_m, walker.y_m]
            distance = float(np.hypot(*away))
            if distance < 0.08:
                break
            speed = min(1.4, 6.0 * distance)
            walker = tick(walk, walker, *(away / distance * speed))
        else:
            raise AssertionError(f"stopped at {walker} on the way to {point}")
    return walker


@pytest.mark.parametrize("x", [21.1, 22.5, 25.3, 29.5])
def test_who_walks_to_the_glass_stands_on_the_floor_of_the_hall(standing, x):
    walker = standing_on(standing.map, int(standing.place((x, 3, 0)).floors[0]))
    for _ in range(960):
        walker = tick(standing.map, walker, 0.0, -1.4)
    assert walker.y_m - standing.zero[1] < 0.1
    assert walker.feet_m == pytest.approx(0.0, abs=1e-3)


def test_keys_walk_from_the_entrance_to_the_roof_plant_and_back(standing):
    outside, plant = (24, -1.5, 0), (38, 12, 12)
    for start, end in ((outside, plant), (plant, outside)):
        found = standing.route(start, end)
        walker = follow(standing, found)
        assert np.array([walker.x_m, walker.y_m]) == pytest.approx(found.points[-1][:2], abs=0.1)
        assert walker.feet_m == pytest.approx(float(found.points[-1][2]), abs=0.05)
