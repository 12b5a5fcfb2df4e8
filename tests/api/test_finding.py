"""Finding by letters and by conditions through the server, and sets."""

from __future__ import annotations

import base64
import csv
import io

import numpy as np
import openpyxl
import pytest

from tests.api.test_views import rule
from tests.building import resolved
from tests.samples import Sample


def plant():
    """A wall with a fire rating and one without, and two pipes of a system with diameters."""
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    make = sample.make

    def told(entity, name, **values):
        properties = [make("IfcPropertySingleValue", key, None, value, None) for key, value in values.items()]
        group = sample.root("IfcPropertySet", Name=name, HasProperties=properties)
        sample.relate("IfcRelDefinesByProperties", RelatedObjects=[entity], RelatingPropertyDefinition=group)

    rated = sample.box(storey, (0, 0, 0), (4, 0.2, 3), "IfcWall", Name="Wall", Tag="W-101", Description="Of the hall")
    sample.box(storey, (0, 5, 0), (4, 0.2, 3), "IfcWall", Name="Wall", Tag="W-102")
    told(rated, "Pset_WallCommon", FireRating=make("IfcLabel", "EI60"))
    pipes = [sample.box(storey, (k, 2, 2), (0.2, 2, 0.2), "IfcPipeSegment", Name="Pipe", Tag=f"SW-{k}") for k in (1, 2)]
    for pipe, diameter in zip(pipes, (0.1, 0.2), strict=True):
        told(pipe, "Own", Diameter=make("IfcLengthMeasure", diameter))
    system = sample.root("IfcDistributionSystem", Name="Sea-water supply")
    sample.relate("IfcRelAssignsToGroup", RelatedObjects=pipes, RelatingGroup=system)
    return sample


@pytest.fixture
def house(client, project, send, work):
    send(project, "QH-WTR.ifc", plant())
    work()
    return project


def found(client, house, typed: str) -> list[str]:
    answer = client.get(f"/api/projects/{house}/find", params={"typed": typed})
    assert answer.status_code == 200, answer.text
    return [each["label"] for each in answer.json()["found"]]


def where(client, house, *conditions):
    return client.post(f"/api/projects/{house}/where", json={"conditions": list(conditions)})


def asked(what, how, value=None, unit=""):
    return {"what": what, "how": how, "value": value, "unit": unit}


def test_components_are_found_by_tag_description_property_and_with_a_wrong_letter(client, house):
    assert found(client, house, "w-101") == ["W-101"]
    assert found(client, house, "W-l01") == ["W-101"]
    assert found(client, house, "of the hall") == ["W-101"]
    assert found(client, house, "ei60") == ["W-101"]
    assert found(client, house, "sea-water") == ["SW-1", "SW-2"]
    assert found(client, house, "nothing like it") == []
    one = client.get(f"/api/projects/{house}/find", params={"typed": "w-101"}).json()["found"][0]
    assert (one["level"], one["ifc_class"], one["field"], one["text"]) == ("Level 00", "IfcWall", "tag", "W-101")
    limited = client.get(f"/api/projects/{house}/find", params={"typed": "pipe", "limit": 1}).json()
    assert (limited["count"], len(limited["found"])) == (2, 1)


def test_components_that_meet_conditions_come_as_a_mask_of_the_federation(client, house):
    met = where(client, house, asked("property:Diameter", "over", 150, "mm"), asked("system", "contains", "sea")).json()
    assert met["count"] == 1
    mask = np.frombuffer(base64.b64decode(met["met"]), np.uint8)
    # In the order of the file: two walls, two pipes.
    assert mask.tolist() == [0, 0, 0, 1]
    missing = where(client, house, asked("class", "equal", "wall"), asked("property:FireRating", "missing")).json()
    assert missing["count"] == 1


@pytest.mark.parametrize(
    ("condition", "why"),
    [
        (asked("colour", "equal", "red"), "cannot be asked"),
        (asked("level", "over", 3), "no figure"),
        (asked("property:Diameter", "over", 3, "furlongish"), "no unit"),
        (asked("property:Diameter", "over", 3, "kg"), "something else"),
        (asked("property:Diameter", "over"), "no figure"),
        (asked("level", "equal", ""), "to nothing"),
    ],
)
def test_a_condition_that_asks_nothing_is_refused_in_a_sentence(client, house, condition, why):
    answer = where(client, house, condition)
    assert answer.status_code == 422
    assert why in answer.json()["detail"]


def test_what_can_be_asked_is_listed_with_units_and_values(client, house):
    listed = {each["name"]: each for each in client.get(f"/api/projects/{house}/askable").json()}
    assert listed["Diameter"]["units"] == ["m"]
    assert listed["FireRating"] == {
        "kind": "property", "group": "Pset_WallCommon", "name": "FireRating", "units": [], "values": ["EI60"],
        "components": 1,
    }  # fmt: skip


def test_a_set_is_kept_changed_deleted_and_brought_back_and_follows_a_newer_issue(client, house, send, work):
    wish = {
        "name": "Not rated",
        "conditions": [asked("class", "equal", "wall"), asked("property:FireRating", "missing")],
    }
    made = client.post(f"/api/projects/{house}/sets", json=wish, headers={"X-Author": "Ida%20Fenn"}).json()
    assert (made["name"], made["author"], made["says"]) == (
        "Not rated",
        "Ida Fenn",
        "class is wall and FireRating is missing",
    )
    listed = client.get(f"/api/projects/{house}/sets").json()
    assert [each["id"] for each in listed] == [made["id"]]
    changed = client.put(f"/api/sets/{made['id']}", json={**wish, "name": "Walls, not rated"}).json()
    assert changed["name"] == "Walls, not rated"
    laid = client.put(
        f"/api/sets/{made['id']}",
        json={
            **wish,
            "name": changed["name"],
            **(layout := {"steps": ["class"], "sums": ["Width"], "columns": ["tag"]}),
        },
    )
    assert {key: laid.json()[key] for key in layout} == layout
    for bad in (
        {"name": " ", "conditions": wish["conditions"]},
        {"name": "All", "conditions": []},
        {**wish, "steps": ["colour"]},
    ):
        assert client.put(f"/api/sets/{made['id']}", json=bad).status_code == 422
    rules = [rule({"kind": "where", "of": wish["conditions"], "called": "Not rated"}, "hide")]
    seen = resolved(client, house, rules)
    assert (seen["hidden"], seen["done"]) == (1, "hid the set Not rated")
    # A newer issue in which the first wall has lost its rating.
    newer = plant()
    for value in newer.ifc.by_type("IfcPropertySingleValue"):
        if value.Name == "FireRating":
            value.NominalValue = None
    send(house, "QH-WTR.ifc", newer)
    work()
    again = resolved(client, house, rules)
    assert again["hidden"] >= 2
    assert client.delete(f"/api/sets/{made['id']}").status_code == 204
    assert client.get(f"/api/projects/{house}/sets").json() == []
    assert client.put(f"/api/sets/{made['id']}", json=wish).status_code == 410
    assert client.post(f"/api/sets/{made['id']}/restore").json()["name"] == "Walls, not rated"
    assert client.delete("/api/sets/nowhere").status_code == 404


def scheduled(client, house, **wish):
    return client.post(f"/api/projects/{house}/schedule", json=wish)


def test_a_schedule_groups_counts_and_sums_what_is_wanted(client, house):
    made = scheduled(client, house, steps=["class", "level"], sums=["volume", "length"]).json()
    assert [(group["key"], group["count"]) for group in made["groups"]] == [
        (["IfcPipeSegment", "Level 00"], 2),
        (["IfcWall", "Level 00"], 2),
    ]
    pipes, walls = (group["sums"] for group in made["groups"])
    assert pipes[0]["value"] == pytest.approx(2 * 0.08)
    assert walls == [
        {"value": pytest.approx(4.8), "unit": "m³", "from_file": 0, "from_mesh": 2, "without": 0},
        {"value": pytest.approx(8), "unit": "m", "from_file": 0, "from_mesh": 2, "without": 0},
    ]
    assert np.frombuffer(base64.b64decode(made["group_of"]), "<i4").tolist() == [1, 1, 0, 0]
    rated = scheduled(client, house, steps=["property:FireRating"], conditions=[asked("class", "equal", "wall")]).json()
    assert [(group["key"], group["count"]) for group in rated["groups"]] == [(["EI60"], 1), ([""], 1)]
    hidden = [rule({"kind": "of", "what": "tag", "value": "SW-1"}, "hide")]
    shown = scheduled(client, house, steps=["system"], shown_by=hidden).json()
    assert [(group["key"], group["count"]) for group in shown["groups"]] == [(["Sea-water supply"], 1), ([""], 2)]


def test_a_schedule_is_written_as_a_table_with_the_same_figures(client, house):
    wish = {"steps": ["class"], "sums": ["volume"]}
    address = f"/api/projects/{house}/schedule"
    text = client.post(f"{address}/csv", json=wish)
    rows = list(csv.reader(io.StringIO(text.content.decode("utf-8-sig"))))
    sheet = openpyxl.load_workbook(io.BytesIO(client.post(f"{address}/xlsx", json=wish).content)).active
    assert sheet is not None
    cells = [list(row) for row in sheet.iter_rows(values_only=True)]
    groups = client.post(address, json=wish).json()["groups"]
    assert (
        [float(row[2]) for row in rows[1:]]
        == [row[2] for row in cells[1:]]
        == pytest.approx([g["sums"][0]["value"] for g in groups], rel=1e-14)
    )
    assert "utf-8''schedule.csv" in text.headers["content-disposition"]


def test_what_stands_beside_each_component_is_told_and_written(client, house):
    wish = {"steps": ["class"], "sums": ["length"], "columns": ["property:FireRating", "tag", "length"]}
    length, rating, tag = scheduled(client, house, **wish).json()["columns"]
    assert (length["kind"], length["unit"], rating["kind"], tag["what"]) == ("figures", "m", "texts", "tag")
    assert np.frombuffer(base64.b64decode(length["figures"]), "<f8") == pytest.approx([4, 4, 2, 2])
    assert base64.b64decode(length["worked"]) == b"\x01" * 4
    told = [rating["texts"][v] for v in np.frombuffer(base64.b64decode(rating["value"]), "<i4")]
    assert told == ["EI60", "", "", ""]
    text = client.post(f"/api/projects/{house}/schedule/csv", json=wish).content.decode("utf-8-sig")
    rows = list(csv.reader(io.StringIO(text)))
    assert rows[0] == ["class", "tag", "name", "GlobalId", "length (m)", "length: from", "FireRating", "tag"]
    assert sorted((row[0], row[1], row[6]) for row in rows[1:]) == [
        ("IfcPipeSegment", "SW-1", ""), ("IfcPipeSegment", "SW-2", ""), ("IfcWall", "W-101", "EI60"), ("IfcWall", "W-102", ""),
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("wish", "why"),
    [
        ({"steps": ["class"], "columns": ["property:Colour"]}, "No component has a property Colour"),
        ({"steps": ["colour"]}, "cannot be grouped by"),
        ({"steps": [" "]}, "cannot be grouped by"),
        ({"steps": ["class"], "sums": ["Height"]}, "No component has a quantity Height"),
        ({"steps": ["class"], "conditions": [asked("property:Diameter", "over", 3, "kg")]}, "something else"),
    ],
)
def test_a_schedule_that_cannot_be_made_is_refused_in_a_sentence(client, house, wish, why):
    answer = scheduled(client, house, **wish)
    assert answer.status_code == 422
    assert why in answer.json()["detail"]
    assert scheduled(client, house, steps=[]).status_code == 422
