"""Figures parted into steps: few are told one by one, many in steps with about as many each."""

import pytest

from stairpath.core.reading.model import Component, Quantity
from stairpath.core.register.scale import MOST_STEPS, NotAScaleError, scale
from stairpath.core.visibility.facts import facts_of


def walls(*lengths, unit="m"):
    return [
        Component(str(k), "IfcWall", quantities={"Base": {"Length": Quantity(length, unit)}})
        for k, length in enumerate(lengths)
    ]


def test_few_figures_are_a_step_each():
    asked = facts_of([*walls(1.0, 2.0, 2.0), Component("x", "IfcWall")])
    found = scale(asked, "quantity:Base.Length")
    assert [(s.low, s.high, s.count) for s in found.steps] == [(1.0, 1.0, 1), (2.0, 2.0, 2)]
    assert (found.unit, found.without) == ("m", 1)


def test_many_figures_are_in_steps_of_about_as_many_with_limits_that_can_be_read():
    asked = facts_of(walls(*(0.137 * k for k in range(1, 601))))
    found = scale(asked, "quantity:Length")
    assert len(found.steps) == MOST_STEPS
    assert sum(s.count for s in found.steps) == 600
    assert all(60 <= s.count <= 140 for s in found.steps)
    assert found.steps[0].low == pytest.approx(0.137)
    assert found.steps[-1].high == pytest.approx(82.2)
    for before, after in zip(found.steps, found.steps[1:], strict=False):
        assert before.high == after.low == float(f"{after.low:.2g}")


def test_what_has_no_figures_is_no_scale():
    asked = facts_of([Component("x", "IfcWall", properties={"P": {"FireRating": "EI60"}})])
    with pytest.raises(NotAScaleError, match="choose something that is a number"):
        scale(asked, "property:P.FireRating")
    with pytest.raises(NotAScaleError):
        scale(asked, "quantity:Nothing")
