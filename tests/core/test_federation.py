"""Several models become one building: by hand-worked coordinates, evidence and levels."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from stairpath.core.federation import alternatives, disciplines
from stairpath.core.federation.alignment import Alignment, crossings, fit_grids, height_shift
from stairpath.core.federation.federate import federate
from stairpath.core.federation.outline import outline
from stairpath.core.geometry.plan import area_of, lies_in
from stairpath.core.reading.model import GridAxis, Storey
from stairpath.core.reading.read import read_model
from tests.samples import Sample, simple

NUMBERED = {"1": 0.0, "2": 6.0}
LETTERED = {"A": 0.0, "B": 5.0}


def federated(**samples: Sample):
    return federate([outline(read_model(f"{name}.ifc", s.content())) for name, s in samples.items()])


def gridded(unit: str = "m") -> Sample:
    sample = simple(unit=unit)
    per_m = {"m": 1.0, "ft": 1 / 0.3048}[unit]
    sample.grid({t: x * per_m for t, x in NUMBERED.items()}, {t: y * per_m for t, y in LETTERED.items()})
    return sample


def test_a_turned_shifted_file_in_feet_meets_the_grid():
    """Worked by hand: the file's site is turned 90 degrees anticlockwise and moved by (30, 10) m.

    The wall's corner (1, 2) then stands at (30 - 2, 10 + 1) = (28, 11) in the file. Undoing
    that is a turn of -90 degrees and a shift of (-10, 30): (11, -28) + (-10, 30) = (1, 2).
    """
    turned = gridded("ft")
    turned.move_site([c / 0.3048 for c in (30, 10, 0)], 90.0)
    federation = federated(first=gridded(), second=turned)
    second = federation.models[1]
    assert second.outline.bounds_own_m[0] == pytest.approx([27.8, 11.0, 0.0], abs=1e-6)
    assert second.alignment.by == "grid"
    assert second.alignment.rotation_deg == pytest.approx(-90.0, abs=1e-9)
    assert second.alignment.shift_m == pytest.approx((-10.0, 30.0, 0.0), abs=1e-6)
    assert second.bounds_m[0] == pytest.approx(np.array([[1, 2, 0], [5, 2.2, 3]]), abs=1e-6)


def test_map_coordinates_are_the_projects_wherever_they_stand_in_the_list():
    mapped = gridded()
    mapped.map_conversion(412_300.0, 88_650.0, 6.2, 30.0)
    federation = federated(first=gridded(), mapped=mapped, third=simple())
    assert [m.alignment.by for m in federation.models] == ["grid", "map", "placement"]
    # (1, 2) turned by 30 degrees: (cos30 - 2 sin30, sin30 + 2 cos30).
    c, s = math.cos(math.pi / 6), math.sin(math.pi / 6)
    corner = Alignment("map", 30.0, (412_300.0, 88_650.0, 6.2)).apply(np.array([1.0, 2.0, 0.0]))
    assert corner == pytest.approx([412_300 + c - 2 * s, 88_650 + s + 2 * c, 6.2])
    assert federation.models[0].alignment.shift_m == pytest.approx((412_300.0, 88_650.0, 6.2))
    assert federation.models[0].bounds_m == pytest.approx(federation.models[1].bounds_m, abs=1e-6)
    assert {p.code for p in federation.models[2].problems} >= {"far-away"}
    assert all(value == round(value) for value in federation.origin_m)
    assert abs(federation.origin_m[0] - 412_300) < 20


def test_bounds_are_of_the_corners_not_of_a_turned_box():
    turned = gridded()
    turned.move_site((0, 0, 0), 45.0)
    federation = federated(first=gridded(), second=turned)
    assert federation.models[1].bounds_m[0] == pytest.approx(np.array([[1, 2, 0], [5, 2.2, 3]]), abs=1e-5)


def test_another_crs_is_reported_and_not_used():
    one, two = gridded(), gridded()
    one.map_conversion(1000.0, 2000.0, 0.0, 0.0, "One")
    two.map_conversion(9000.0, 2000.0, 0.0, 0.0, "Two")
    federation = federated(one=one, two=two)
    assert federation.models[1].alignment.by == "grid"
    assert "other-crs" in {p.code for p in federation.models[1].problems}


def test_grids_that_do_not_fit_are_refused_with_a_figure():
    wide = simple()
    wide.grid({"1": 0.0, "2": 9.0}, LETTERED)
    federation = federated(first=gridded(), second=wide)
    assert federation.models[1].alignment.by == "placement"
    (problem,) = [p for p in federation.models[1].problems if p.code == "grid-refused"]
    assert "1.50 m" in problem.text


def test_one_shared_crossing_is_enough():
    axes = [GridAxis("", "1", (0, -5), (0, 5)), GridAxis("", "A", (-5, 0), (5, 0))]
    moved = [GridAxis("", "1", (12, 3), (2, 3)), GridAxis("", "A", (7, -2), (7, 8))]
    fit = fit_grids(axes, moved)
    assert fit is not None
    assert fit.rotation_deg == pytest.approx(90.0)
    assert fit.shift_m == pytest.approx((7, 3))
    assert fit_grids(axes[:1], moved) is None
    assert list(crossings(axes)) == [("1", "A")]


@given(
    turn=st.floats(-180, 180),
    x=st.floats(-1e5, 1e5),
    y=st.floats(-1e5, 1e5),
    scale=st.floats(2, 20),
)
def test_any_turn_and_shift_is_found_again(turn, x, y, scale):
    own = [GridAxis("", t, (at * scale, -50), (at * scale, 50)) for t, at in (("1", 0), ("2", 1), ("3", 2.5))]
    own += [GridAxis("", t, (-50, at * scale), (50, at * scale)) for t, at in (("A", 0), ("B", 1))]
    there = Alignment("grid", turn, (x, y, 0.0))

    def moved(axis):
        a, b = there.apply(np.array([[*axis.start_m, 0], [*axis.end_m, 0]]))[:, :2]
        return GridAxis("", axis.tag, tuple(a), tuple(b))

    fit = fit_grids(own, [moved(axis) for axis in own])
    assert fit is not None
    assert fit.worst_m < 1e-6
    assert math.cos(math.radians(fit.rotation_deg - turn)) == pytest.approx(1.0, abs=1e-12)
    assert fit.shift_m == pytest.approx((x, y), abs=1e-6)


def test_most_storeys_decide_the_height_and_the_odd_one_is_reported():
    levels = {"level00": 0.0, "level01": 4.0, "level02": 8.0}
    own = [Storey("a", "Level 00", 37.5), Storey("b", "LEVEL 01", 41.5), Storey("c", "Level-02", 45.46)]
    assert height_shift(own, levels) == pytest.approx(-37.5)

    def storeys(low: float) -> Sample:
        sample = gridded()
        sample.storey("Level 01", 4.0)
        sample.storey("Level 02", 8.0 - low)
        return sample

    federation = federated(one=storeys(0.0), two=storeys(0.0), three=storeys(0.040))
    assert [p.text for p in federation.models[2].problems] == ["Its Level 02 is 40 mm below the others'."]
    assert [level.elevation_m for level in federation.levels] == [0.0, 4.0, 8.0]
    assert federation.models[0].problems == ()


def test_two_storeys_of_one_model_never_become_one_level():
    sample = Sample()
    for name, height in (("Floor", 0.0), ("Floor", 3.0), ("Mezzanine", 3.2)):
        sample.box(sample.storey(name, height), (0, 0, 0), (1, 1, 1))
    assert len(federated(only=sample).levels) == 3


def test_what_bounds_a_room_belongs_to_it():
    sample = Sample()
    for name, z in (("Level 00", 0.0), ("Level 01", 3.1)):
        storey = sample.storey(name, z)
        sample.room(storey, f"{name[-1]}.01", "West", (0, 0, z), (5, 4, 3))
        sample.room(storey, f"{name[-1]}.02", "East", (5.2, 0, z), (5, 4, 3))
        sample.box(storey, (0.1, 0.1, z - 0.1), (4.8, 3.8, 0.1), "IfcCovering", Name="Finish")
        sample.box(storey, (5.1, -0.2, z - 0.1), (5.2, 4.4, 0.1), "IfcCovering", Name="Finish")
        sample.box(storey, (0.2, 0.2, z + 2.6), (4.6, 3.6, 0.02), "IfcCovering", Name="Ceiling")
        sample.box(storey, (-0.2, -0.2, z - 0.3), (10.6, 4.4, 0.3), "IfcSlab", Name="Slab of all")
    federation = federated(only=sample)
    (model,) = federation.models
    found = [federation.rooms[room].number if room >= 0 else "" for room in model.room]
    assert found == ["0.01", "0.02", "0.01", "", "1.01", "1.02", "1.01", ""]


def test_a_component_belongs_to_the_room_it_stands_in():
    sample = simple()
    storey = sample.ifc.by_type("IfcBuildingStorey")[0]
    sample.room(storey, "0.01", "West", (-10, 0, 0), (10, 10, 3))
    sample.room(storey, "0.02", "East", (0, 0, 0), (10, 10, 3))
    federation = federated(only=sample)
    (room,) = federation.models[0].room
    assert federation.rooms[room].name == "East"


def test_points_in_triangles():
    triangle = np.array([[[0.0, 0.0], [4.0, 0.0], [0.0, 4.0]]])
    points = np.array([[1.0, 1.0], [3.0, 3.0], [0.0, 0.0], [-0.1, 1.0]])
    assert lies_in(area_of(triangle), points).tolist() == [True, False, True, False]


def test_building_north_is_the_grids_and_true_north_the_files():
    sample = gridded()
    sample.map_conversion(0.0, 0.0, 0.0, 17.0)
    sample.context.TrueNorth = sample.make("IfcDirection", (0.0, 1.0))
    federation = federated(only=sample)
    assert federation.building_north_deg == pytest.approx(-17.0)
    assert federation.true_north_deg == pytest.approx(-17.0)


@pytest.mark.parametrize(
    ("name", "code"),
    [("QH-STR-ZZ", "STR"), ("house_hvac_02", "AIR"), ("Plumbing model", "WTR"), ("tower", None), ("restart", None)],
)
def test_disciplines_by_file_name(name, code):
    assert disciplines.by_file_name(name) == code


@pytest.mark.parametrize(
    ("cls", "kind", "systems", "code"),
    [
        ("IfcBeam", "", (), "STR"),
        ("IfcFlowSegment", "IfcDuctSegmentType", (), "AIR"),
        ("IfcPipeSegment", "", ("Sprinklers",), "FIR"),
        ("IfcPipeSegment", "", ("Cold water",), "WTR"),
        ("IfcFlowTerminal", "", ("Lighting",), "ELE"),
        ("IfcBuildingElementProxy", "", (), "OTH"),
    ],
)
def test_disciplines_by_class_and_system(cls, kind, systems, code):
    assert disciplines.by_class_and_system(cls, kind, systems) == code


def test_one_alternative_of_each_proposal_stands():
    names = ["QH-ARC", "QH-S1-ALT-B", "QH-S1-ALT-A", "QH-S2-ALT-B"]
    assert alternatives.standing(names) == [True, False, True, True]
    assert alternatives.standing(names, {"QH-S1-ALT-B"}) == [True, True, False, True]
    assert alternatives.by_file_name("QH-S1-ALT-B") == alternatives.Alternative("QH-S1", "B")
    assert alternatives.by_file_name("SALT-A") is None
