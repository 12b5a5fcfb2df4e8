"""What stands beside each component of a register, and the table that has a row for each."""

from __future__ import annotations

import csv
import io

import numpy as np
import pytest

from stairpath.core.reading.model import Quantity
from stairpath.core.register.columns import TextColumn, column_of, origin_of
from stairpath.core.register.quantities import MeshFigures
from stairpath.core.register.schedule import Amounts, NotAScheduleError, schedule
from stairpath.core.register.table import as_csv, rows_of_each
from tests.core.listed import building, facts

FACTS = facts(
    {
        "arc/A0": {
            "properties": {"Pset_WallCommon": {"FireRating": "EI 60", "IsExternal": True}, "Own": {"U": 0.24}},
            "quantities": {"BaseQuantities": {"Length": Quantity(4.0, "m"), "Width": Quantity(0.2, "m")}},
        },
        "arc/A1": {"properties": {"Other": {"FireRating": "EI 30"}, "Own": {"U": 0.3}}},
        "air/B0": {"properties": {"Own": {"Diameter": Quantity(0.16, "m"), "Note": 5}}},
        "air/B1": {"properties": {"Own": {"Diameter": Quantity(0.2, "m"), "Note": "as built"}}},
    }
)  # fmt: skip
B = building(told=FACTS)
NUMBER = {g: B.numbers_of(g_of, [g])[0] for g_of, ids in (("arc", ("A0", "A1")), ("air", ("B0", "B1"))) for g in ids}
MESH = MeshFigures(np.arange(B.count, dtype=float), np.full(B.count, 2.0), np.full(B.count, np.nan))


def said(name: str) -> list[str]:
    column = column_of(name, B, lambda: MESH)
    assert isinstance(column, TextColumn)
    return [column.texts[v] for v in column.value]


def figures(name: str) -> Amounts:
    column = column_of(name, B, lambda: MESH)
    assert isinstance(column, Amounts)
    return column


def test_texts_are_those_of_the_file_and_empty_where_there_are_none():
    rating = said("property:FireRating")
    assert (rating[NUMBER["A0"]], rating[NUMBER["A1"]], rating[NUMBER["B0"]]) == ("EI 60", "EI 30", "")
    assert said("property:Pset_WallCommon.FireRating")[NUMBER["A1"]] == ""
    assert said("property:IsExternal")[NUMBER["A0"]] == "yes"
    assert said("class")[NUMBER["A1"]] == "IfcWall"


def test_a_component_of_several_systems_is_said_with_all_of_them():
    several = [s for s in said("system") if ", " in s]
    assert all(len(set(s.split(", "))) == s.count(", ") + 1 for s in several)
    owner, value = B.columns["system"].owner, B.columns["system"].value
    assert owner is not None
    for number, text in zip(owner.tolist(), (B.columns["system"].values[v] for v in value.tolist()), strict=True):
        assert text in said("system")[number]


def test_a_value_with_a_comma_is_a_value_of_its_own():
    told = facts(
        {"arc/A0": {"properties": {"One": {"Note": "red, dark"}, "Two": {"Note": "dark"}, "Three": {"Note": "dark"}}}}
    )
    column = column_of("property:Note", building(told=told), lambda: MESH)
    assert isinstance(column, TextColumn)
    assert sorted(column.texts[column.value[NUMBER["A0"]]].split(", ")) == ["dark", "dark", "red"]


def test_a_property_of_figures_in_one_unit_is_figures_and_a_mixed_one_is_text():
    diameter = figures("property:Own.Diameter")
    assert (diameter.unit, diameter.value[NUMBER["B0"]]) == ("m", 0.16)
    assert not diameter.worked.any()
    assert np.isnan(diameter.value[NUMBER["A0"]])
    assert figures("property:U").value[NUMBER["A1"]] == 0.3
    assert said("property:Note")[NUMBER["B0"]] == "5"


def test_a_quantity_says_whether_it_was_worked_out():
    length = figures("length")
    assert (length.value[NUMBER["A0"]], origin_of(length, NUMBER["A0"])) == (4.0, "file")
    assert (length.value[NUMBER["B1"]], origin_of(length, NUMBER["B1"])) == (NUMBER["B1"], "worked out")
    width = figures("quantity:BaseQuantities.Width")
    assert origin_of(width, NUMBER["B1"]) == ""
    for nothing in ("property:Colour", "quantity:Height"):
        with pytest.raises(NotAScheduleError, match="No component has a"):
            column_of(nothing, B, lambda: MESH)


def test_the_table_has_a_row_for_each_component_in_its_group():
    wanted = B.columns["discipline"].having("ARC")
    names = ("length", "property:Pset_WallCommon.FireRating")
    columns = {name: column_of(name, B, lambda: MESH) for name in names}
    rows = rows_of_each(("class",), columns, schedule(("class",), (), wanted, B, lambda: MESH), B)
    assert rows[0] == ["class", "tag", "name", "GlobalId", "length (m)", "length: from", "Pset_WallCommon.FireRating"]
    assert len(rows) == 1 + wanted.sum()
    of = {row[3]: row for row in reversed(rows[1:])}
    assert of["A0"][4:] == [4.0, "file", "EI 60"]
    assert of["A1"][4:] == [float(NUMBER["A1"]), "worked out", ""]
    assert [row[0] for row in rows[1:]] == sorted(str(row[0]) for row in rows[1:])
    assert [row[3] for row in csv.reader(io.StringIO(as_csv(rows)))][1:] == [row[3] for row in rows[1:]]
