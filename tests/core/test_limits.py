"""Limits stand on the documents of the core, and whatever validates them obeys."""

from __future__ import annotations

from typing import Any

import pytest
from pydantic import TypeAdapter, ValidationError

from stairpath.core.review.recheck import Measured, OfFinding
from stairpath.core.review.view import View
from stairpath.core.visibility.rules import Rule
from stairpath.core.visibility.selectors import AllBut, Either, NotASelectorError, Of

VIEW: TypeAdapter[View] = TypeAdapter(View)
EYE = {
    "eye_m": [0, -10, 2], "target_m": [0, 0, 1], "up": [0, 0, 1], "projection": "perspective", "angle_deg": 60,
    "height_m": 4,
}  # fmt: skip
PLANE = {"kind": "plane", "point_m": [0, 0, 3], "normal": [0, 0, 1]}
BOX = {"kind": "box", "centre_m": [0, 0, 0], "size_m": [1, 1, 1]}


def view(**rest: Any) -> View:
    return VIEW.validate_python({"eye": EYE, **rest})


def reason(**rest: Any) -> str:
    with pytest.raises(ValidationError) as wrong:
        view(**rest)
    return wrong.value.errors()[0]["msg"]


def test_a_view_as_it_is_sent_is_the_core_s_own():
    got = view(cuts=[{"id": "c", "shape": PLANE}], rules=[{"select": {"kind": "all"}, "effect": "fade"}])
    assert got.cuts[0].shape.point_m == (0.0, 0.0, 3.0)
    assert VIEW.validate_python(VIEW.dump_python(got, mode="json")) == got


@pytest.mark.parametrize(
    ("wrong", "said"),
    [
        ({"eye": {**EYE, "angle_deg": 0}}, "greater than or equal to 1"),
        ({"eye": {**EYE, "eye_m": [0, 0, 2e9]}}, "less than or equal to 1000000000"),
        ({"eye": {**EYE, "eye_m": [0, 0, float("nan")]}}, "less than or equal to 1000000000"),
        ({"limits": {"through_m": -1}}, "greater than or equal to 0"),
        ({"rules": [{"select": {"of": []}, "effect": "hide"}]}, "discriminator"),
        ({"rules": [{"select": {}, "effect": "hide"}]}, "discriminator"),
        ({"rules": [{"select": {"kind": "all"}, "effect": "tint", "colour": "reddish"}]}, "is not a colour"),
        ({"rules": [{"select": {"kind": "all"}, "effect": "hide"}] * 501}, "at most 500"),
        ({"cuts": [{"id": f"{k}", "shape": BOX} for k in range(5)]}, "24"),
        ({"frame": {"aspect": 1.6, "left": 0, "right": 0}}, "no extent"),
        (
            {"pictures": [{"sha256": "x", "at_m": [0, 0, 0], "normal": [0, 1, 0], "up": [0, 0, 1], "height_m": 1}]},
            "name",
        ),
    ],
)
def test_what_cannot_be_is_refused(wrong, said):
    assert said in reason(**wrong)


def test_selections_are_not_nested_without_end():
    deep = AllBut(Either((AllBut(Of("level", "01")),)))
    Rule(deep, "hide")
    with pytest.raises(NotASelectorError, match="more than 4 deep"):
        AllBut(deep)


def test_a_pair_of_a_finding_has_no_first_and_second():
    measured = Measured("overlap", 0.1, 0.0)
    assert OfFinding("c", (("b", "a"),), measured) == OfFinding("c", (("a", "b"),), measured)
