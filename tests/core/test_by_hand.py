"""Alignment said by a person in place of the evidence."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from stairpath.core.federation.alignment import Alignment, Placement, align, by_points
from stairpath.core.federation.outline import outline
from stairpath.core.reading.read import read_model
from tests.samples import Sample, simple

NUMBERED, LETTERED = {"1": 0.0, "2": 6.0}, {"A": 0.0, "B": 4.0}


def gridded(east: float = 0.0) -> Sample:
    sample = simple()
    sample.grid(NUMBERED, LETTERED)
    if east:
        sample.map_conversion(east, 0.0, 0.0, 0.0)
    return sample


def aligned(placements, **samples):
    models = [outline(read_model(f"{name}.ifc", sample.content())) for name, sample in samples.items()]
    return align(models, placements)


def test_a_typed_turn_and_shift_stands_in_place_of_all_evidence():
    placement = Placement("hand", 90.0, (10.0, 20.0, 3.0), "Ida Fenn")
    found = aligned({"second": placement}, first=gridded(), second=gridded())
    assert found.alignments[1].by == "hand"
    assert found.alignments[1].reason == "turn and shift set by hand (by Ida Fenn)"
    assert found.alignments[1].apply(np.array([1.0, 0.0, 0.0])) == pytest.approx([10, 21, 3])


def test_another_evidence_can_be_chosen():
    mapped = gridded(500.0)
    by = {
        p: aligned({"second": Placement(p)}, first=gridded(300.0), second=mapped) for p in ("grid", "placement", "map")
    }
    assert [found.alignments[1].by for found in by.values()] == ["grid", "placement", "map"]
    assert by["grid"].alignments[1].shift_m == pytest.approx((300, 0, 0))
    assert by["placement"].alignments[1].shift_m == (0, 0, 0)
    assert by["map"].alignments[1].shift_m == pytest.approx((500, 0, 0))
    assert "chosen by hand" in by["placement"].alignments[1].reason


def test_evidence_that_is_not_there_is_named():
    found = aligned({"second": Placement("grid")}, first=gridded(), second=simple())
    assert found.alignments[1].by == "placement"
    assert "no two of its axes cross" in next(p.text for p in found.problems[1] if p.code == "no-such-evidence")


def test_the_others_follow_a_first_model_that_was_set_by_hand():
    found = aligned({"first": Placement("hand", 0.0, (7.0, 0.0, 0.0))}, first=gridded(), second=gridded())
    assert found.alignments[1].by == "grid"
    assert found.alignments[1].shift_m == pytest.approx((7, 0, 0))


def test_nothing_said_is_as_before():
    assert aligned({}, first=gridded(), second=gridded(3.0)) == aligned(None, first=gridded(), second=gridded(3.0))


@given(turn=st.floats(-179, 179), x=st.floats(-1e5, 1e5), y=st.floats(-1e5, 1e5), z=st.floats(-100, 100))
def test_two_points_say_any_turn_and_shift(turn, x, y, z):
    own = np.array([[1.0, 2.0, 0.5], [9.0, -4.0, 0.5]])
    there = Alignment("hand", turn, (x, y, z)).apply(own)
    found, shift = by_points(own, there)
    assert Alignment("hand", found, shift).apply(own) == pytest.approx(there, abs=1e-6)


def test_the_first_point_is_met_exactly_and_the_second_gives_the_direction():
    turn, shift = by_points(np.array([[0, 0, 0], [5, 0, 0]]), np.array([[100, 50, 3], [100, 57, 9]]))
    assert turn == pytest.approx(90)
    assert shift == pytest.approx((100, 50, 3))


@pytest.mark.parametrize("second", [[1.0, 2.0, 9.0], [1.0, 2.0, 0.0]])
def test_points_over_one_another_are_refused(second):
    with pytest.raises(ValueError, match="coincide on plan"):
        by_points(np.array([[1.0, 2.0, 0.0], second]), np.array([[0, 0, 0], [5, 0, 0]]))
