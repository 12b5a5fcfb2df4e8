"""What stands twice, here and on the page, is held together by one table of cases that both are tested by."""

from __future__ import annotations

import json
from pathlib import Path

import numpy as np
import pytest
from pydantic import TypeAdapter

from stairpath.core.cutting.cuts import Shape, planes_of
from stairpath.core.visibility.rules import Rule, resolve
from tests.core.listed import building

CASES = Path(__file__).resolve().parents[1] / "cases"
SHAPE: TypeAdapter[Shape] = TypeAdapter(Shape)
RULES: TypeAdapter[list[Rule]] = TypeAdapter(list[Rule])
SIDES = json.loads((CASES / "cut_sides.json").read_text())
NEXT = json.loads((CASES / "next_frame.json").read_text())
CODES = ("ARC", "STR")


@pytest.mark.parametrize("case", SIDES)
def test_the_planes_of_a_cut_in_their_order(case):
    found = planes_of(SHAPE.validate_python(case["shape"]))
    np.testing.assert_allclose([p.normal for p in found], [s["normal"] for s in case["sides"]], atol=1e-12)
    # A point of each plane: which of them does not matter.
    heights = [p.heights(np.array(s["point_m"], dtype=float)) for p, s in zip(found, case["sides"], strict=True)]
    np.testing.assert_allclose(heights, 0, atol=1e-12)


@pytest.mark.parametrize("case", NEXT["cases"])
def test_what_rules_show(case):
    rows = {
        model: [
            {"id": name, "class": "IfcWall", "at": f"{level} {CODES[discipline]} -1"} for name, level, discipline in of
        ]
        for model, of in NEXT["models"].items()
    }
    in_use = " ".join(model for model in rows if model not in NEXT["not_in_use"])
    made = building(tuple(rows), rows, in_use)
    states = resolve(made, RULES.validate_python(case["rules"])).state
    assert "".join(map(str, states.tolist())) == case["states"]
