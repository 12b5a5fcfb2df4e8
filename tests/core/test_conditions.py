"""Conditions on what components are, have and measure."""

from __future__ import annotations

import json
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from typer.testing import CliRunner

from stairpath.cli import app
from stairpath.core.reading.model import Quantity
from stairpath.core.units import converted
from stairpath.core.visibility import wording
from stairpath.core.visibility.condition import Condition, NotAConditionError
from stairpath.core.visibility.conditions import all_met, condition_from, meets, unlike
from stairpath.core.visibility.facts import facts_of, joined, text_of
from stairpath.core.visibility.rules import Rule, selected
from stairpath.core.visibility.selectors import Where
from tests.core.listed import building, facts
from tests.samples import Sample

FACTS = facts(
    {
        "arc/A0": {
            "description": "Wall of the pump room",
            "properties": {"Pset_WallCommon": {"FireRating": "EI60", "IsExternal": True, "Lot": 3}},
            "quantities": {"BaseQuantities": {"Length": Quantity(4.0, "m"), "NetVolume": Quantity(2.4, "m³")}},
        },
        "arc/A1": {"properties": {"Pset_WallCommon": {"FireRating": "", "IsExternal": False}}},
        "arc/A2": {"properties": {"Own": {"FireRating": "EI30"}}},
        "air/B0": {
            "description": "Duct",
            "properties": {"Own": {"Diameter": Quantity(0.15, "m"), "Pressure": Quantity(500.0, "Pa"), "Size": 150}},
        },
        "air/B1": {"properties": {"Own": {"Diameter": Quantity(0.2, "m"), "Size": "large"}}},
    }
)
B = building(told=FACTS)


def met(what: str, how: str, value=None, unit: str = "") -> list[str]:
    condition = condition_from({"what": what, "is": how, "value": value, "unit": unit})
    return [f"{B.model_of(k)}/{B.global_id(k)}" for k in np.flatnonzero(meets(condition, B)).tolist()]


@pytest.mark.parametrize(
    ("asked", "wanted"),
    [
        (("property:FireRating", "equal", "ei60"), ["arc/A0"]),
        (("property:Pset_WallCommon.FireRating", "present"), ["arc/A0"]),
        (("property:FireRating", "present"), ["arc/A0", "arc/A2"]),
        (("property:firerating", "contains", "EI"), ["arc/A0", "arc/A2"]),
        (("property:FireRating", "differs", "EI60"), ["arc/A2"]),
        (("property:IsExternal", "equal", True), ["arc/A0"]),
        (("property:IsExternal", "equal", "no"), ["arc/A1"]),
        (("property:IsExternal", "differs", "no"), ["arc/A0"]),
        (("property:IsExternal", "equal", 1), ["arc/A0"]),
        (("property:Lot", "equal", 3), ["arc/A0"]),
        (("property:Lot", "equal", "3.0"), ["arc/A0"]),
        (("property:Diameter", "over", 150, "mm"), ["air/B1"]),
        (("property:Diameter", "under", "150.1", "mm"), ["air/B0"]),
        (("property:Diameter", "equal", 15, "cm"), ["air/B0"]),
        (("property:Diameter", "between", [7, 5], "inch"), ["air/B0"]),
        (("property:Diameter", "between", [0.1, 0.2]), ["air/B0", "air/B1"]),
        (("property:Pressure", "over", 0.4, "kPa"), ["air/B0"]),
        (("property:Size", "over", 100, "mm"), ["air/B0"]),
        (("property:Size", "contains", "lar"), ["air/B1"]),
        (("property:Nowhere", "over", 1), []),
        (("quantity:Length", "equal", 4), ["arc/A0"]),
        (("quantity:BaseQuantities.NetVolume", "over", 2000, "l"), ["arc/A0"]),
        (("description", "contains", "PUMP"), ["arc/A0"]),
        (("description", "present"), ["arc/A0", "air/B0"]),
        (("description", "differs", "duct"), ["arc/A0"]),
        (("room", "equal", "1.04"), ["arc/A1", "arc/A2", "air/B1"]),
        (("room", "contains", "wet"), ["arc/A1", "arc/A2", "air/B1"]),
        (("level", "differs", "01"), ["arc/A0", "arc/A4", "air/B0", "alt/D0"]),
        (("level", "missing"), ["air/A0"]),
        (("system", "contains", "extract"), ["air/B1"]),
        (("system", "missing"), ["arc/A0", "arc/A1", "arc/A2", "arc/A3", "arc/A4", "air/A0", "alt/D0"]),
        (("class", "equal", "wall"), ["arc/A0", "arc/A1"]),
        (("tag", "contains", "AD-"), ["air/B0", "air/B1"]),
        (("type", "equal", "c*"), ["arc/A2", "arc/A3", "arc/A4"]),
        (("material", "present"), ["arc/A0", "arc/A1"]),
    ],
)
def test_who_meets_a_condition(asked, wanted):
    assert met(*asked) == wanted


def test_what_is_missing_is_neither_present_nor_anything_else():
    everybody = {f"{B.model_of(k)}/{B.global_id(k)}" for k in range(B.count)}
    for what in ("property:FireRating", "level", "system", "description", "material", "quantity:Length"):
        missing, present = set(met(what, "missing")), set(met(what, "present"))
        assert missing | present == everybody
        assert not missing & present
        assert not missing & set(met(what, "differs", "something"))


def test_all_conditions_must_hold():
    both = [Condition("level", "equal", "Level 01"), Condition("property:FireRating", "missing")]
    assert [B.global_id(k) for k in np.flatnonzero(all_met(both, B))] == ["A1", "A3", "B1"]
    assert all_met([], B).all()


@pytest.mark.parametrize(
    ("said", "why"),
    [
        ("level", "no condition"),
        ({"what": "colour", "is": "equal", "value": "red"}, "colour cannot be asked"),
        ({"what": "property:", "is": "present"}, "cannot be asked"),
        ({"what": "level", "is": "like", "value": "1"}, "no way to ask"),
        ({"what": "level", "is": "equal"}, "to nothing"),
        ({"what": "property:A", "is": "over", "value": "wide"}, "wide is no figure"),
        ({"what": "property:A", "is": "over", "value": True}, "no figure"),
        ({"what": "property:A", "is": "between", "value": 3}, "two figures"),
        ({"what": "property:A", "is": "between", "value": "ab"}, "two figures"),
    ],
)
def test_a_condition_that_asks_nothing_says_what_to_write(said, why):
    with pytest.raises(NotAConditionError, match=why):
        condition_from(said)


def test_names_are_no_figures_and_units_are_told_apart():
    for what in ("level", "description"):
        with pytest.raises(NotAConditionError, match="no figure"):
            met(what, "over", 3)
    with pytest.raises(NotAConditionError, match="no unit"):
        met("property:Diameter", "over", 3, "furlongish")
    pressure = Condition("property:Pressure", "over", 3.0, "mm")
    assert met("property:Pressure", "over", 3, "mm") == []
    assert "something else" in unlike(pressure, FACTS)
    assert (
        unlike(replace(pressure, unit="bar"), FACTS)
        == unlike(replace(pressure, what="level", how="equal", value="01"), FACTS)
        == ""
    )


def test_a_selection_by_conditions_is_a_rule_like_any_other():
    where = Where((Condition("property:FireRating", "missing"), Condition("level", "equal", "01")))
    assert [B.global_id(k) for k in np.flatnonzero(selected(B, where))] == ["A1", "A3", "B1"]
    assert wording.spoken(B, where) == "all whose FireRating is missing and level is 01"
    assert wording.spoken(B, replace(where, called="not rated")) == "the set not rated"
    assert wording.done(B, Rule(where, "hide")) == "hid all whose FireRating is missing and level is 01"
    assert selected(B, Where(())).all()


@given(st.floats(-1e6, 1e6), st.sampled_from(["mm", "cm", "ft", "inch", "in", "km"]))
def test_units_there_and_back_are_the_same(value, unit):
    assert converted(converted(value, unit, "m"), "m", unit) == pytest.approx(value, rel=1e-12, abs=1e-12)


def test_units_as_they_are_written():
    assert converted(150, "mm", "m") == 0.15
    assert converted(1, "ft", "m") == 0.3048
    assert converted(36, "m³/h", "m³/s") == pytest.approx(0.01)
    assert converted(1, "W/m²K", "W/m²K") == 1
    assert converted(3, "l/s", "m³/s") == pytest.approx(0.003)
    assert converted(20, "°C", "K") == pytest.approx(293.15)


def test_facts_of_models_join_as_those_of_one_building():
    parts = [facts_of([]), facts_of([]), FACTS, FACTS]
    whole = joined(parts)
    assert whole.count == 2 * FACTS.count
    assert whole.descriptions == FACTS.descriptions * 2
    for kind, names in FACTS.of.items():
        for name, fact in names.items():
            both = whole.of[kind][name]
            assert both.owner.tolist() == [*fact.owner.tolist(), *(fact.owner + FACTS.count).tolist()]
            assert [both.texts[v] for v in both.value] == [fact.texts[v] for v in fact.value] * 2


def test_yes_and_one_are_told_apart():
    made = facts({"arc/A0": {"properties": {"P": {"X": True}}}, "arc/A1": {"properties": {"P": {"X": 1}}}})
    assert made.of["property"]["P", "X"].texts == ("yes", "1")
    assert [text_of(v) for v in (False, 2.5, "a", None)] == ["no", "2.5", "a", ""]


def test_find_without_a_server(tmp_path):
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    wall = sample.box(storey, (0, 0, 0), (4, 0.2, 3), "IfcWall", Name="Wall", Tag="W-1")
    sample.box(storey, (0, 5, 0), (1, 1, 1), "IfcSlab", Name="Slab", Tag="S-1")
    rating = sample.make("IfcPropertySingleValue", "FireRating", None, sample.make("IfcLabel", "EI60"), None)
    group = sample.root("IfcPropertySet", Name="Pset_WallCommon", HasProperties=[rating])
    sample.relate("IfcRelDefinesByProperties", RelatedObjects=[wall], RelatingPropertyDefinition=group)
    path = tmp_path / "QH-ARC.ifc"
    path.write_bytes(sample.content())
    where = '[{"what": "property:FireRating", "is": "equal", "value": "EI60"}]'
    done = CliRunner().invoke(app, ["find", str(path), "--where", where, "--json"])
    assert json.loads(done.stdout) == {
        "count": 1,
        "components": [
            {
                "global_id": wall.GlobalId, "model": "QH-ARC", "class": "IfcWall", "name": "Wall", "tag": "W-1",
                "level": "Level 00",
            }
        ],
    }  # fmt: skip
    written = tmp_path / "where.json"
    written.write_text('{"what": "tag", "is": "contains", "value": "s-"}')
    told = CliRunner().invoke(app, ["find", str(path), "--where", str(written)])
    assert "1 components\nS-1 (IfcSlab) on Level 00" in told.stdout
    for bad in ("[{]", "no-such-file.json", '[{"what": "colour"}]', '[{"what": "level", "is": "over", "value": 1}]'):
        wrong = CliRunner().invoke(app, ["find", str(path), "--where", bad])
        assert wrong.exit_code == 2
        assert "Traceback" not in wrong.output
