"""Rules resolved by the server, links, and what earlier versions kept of views."""

from __future__ import annotations

import json
import re

import pytest
from sqlalchemy import text

from stairpath.store.database import transaction
from tests.api.test_views import EYE, rule, view_of
from tests.building import resolved
from tests.samples import Sample, simple

AIR = {"kind": "of", "what": "discipline", "value": "AIR"}
WALLS = {"kind": "of", "what": "class", "value": "IfcWall"}


def ducts() -> Sample:
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    for k in range(3):
        sample.box(storey, (k, 6, 2), (0.4, 3, 0.4), "IfcDuctSegment", Name="Duct", Tag=f"AD-{k}")
    return sample


@pytest.fixture
def house(client, project, send, work):
    send(project, "QH-ARC.ifc", simple())
    send(project, "QH-AIR.ifc", ducts())
    work()
    return project


def resolve(client, project, *rules):
    return resolved(client, project, rules)


def test_rules_give_every_component_a_state_and_a_reason(client, house):
    seen = resolve(client, house, rule(AIR, "fade"), rule(WALLS, why="to look in"), rule(AIR, "tint", colour="#3f83c2"))
    assert seen["states"] == [0, 1, 1, 1]
    assert seen["reasons"] == [1, 0, 0, 0]
    assert seen["tints"] == [-1, 0x3F83C2, 0x3F83C2, 0x3F83C2]
    assert (seen["shown"], seen["faded"], seen["hidden"]) == (0, 3, 1)
    assert [line["says"] for line in seen["rules"]] == ["Faded: Air", "Hidden: every wall", "Tinted: Air"]
    assert [line["done"] for line in seen["rules"]] == ["faded Air", "hid every wall", "tinted Air"]
    assert [(line["selects"], line["decides"]) for line in seen["rules"]] == [(3, 3), (1, 1), (3, 3)]
    assert seen["rules"][1]["rule"]["why"] == "to look in"
    assert seen["version"] == client.get(f"/api/projects/{house}/federation").json()["version"]


def test_rules_that_others_leave_nothing_of_are_gone_from_the_answer(client, house):
    seen = resolve(client, house, rule(AIR), rule({"kind": "all"}, "show"))
    assert (seen["rules"], seen["states"], seen["tints"]) == ([], [2, 2, 2, 2], [])
    assert seen["done"] == "showed everything"


def test_a_wish_means_the_same_after_another_model_was_read_anew_and_before(client, house, send, work, building):
    """Hide something of one model, let a model before it grow: today's dense numbers are others."""
    air = next(m for m in building(house)["models"] if m["name"] == "QH-AIR")
    wish = rule({"kind": "these", "of": {air["id"]: [air["global_ids"][1], "gone"]}})
    before = resolve(client, house, wish)
    assert (before["states"], before["rules"][0]["gone"]) == ([2, 2, 0, 2], 1)
    grown = simple()
    grown.box(grown.ifc.by_type("IfcBuildingStorey")[0], (0, 4, 0), (4, 0.2, 3), Name="Wall", Tag="W-2")
    send(house, "QH-ARC.ifc", grown)
    work()
    assert resolve(client, house, wish)["states"] == [2, 2, 2, 0, 2]


def test_what_does_not_stand_is_hidden_with_that_reason(client, project, send, work):
    for option in "AB":
        send(project, f"QH-ALT-{option}.ifc", simple())
    work()
    seen = resolve(client, project)
    assert (seen["states"], seen["reasons"]) == ([2, 0], [-1, -2])


NESTED = {"kind": "both", "of": [AIR, {"kind": "all_but", "of": AIR}]}


@pytest.mark.parametrize(
    "bad",
    [
        {"select": {"kind": "of", "what": "colour", "value": "red"}, "effect": "hide"},
        {"select": AIR, "effect": "vanish"},
        {"select": AIR, "effect": "tint", "colour": "red"},
        {
            "select": {"kind": "all_but", "of": {"kind": "either", "of": [{"kind": "all_but", "of": NESTED}]}},
            "effect": "hide",
        },
        {"select": AIR, "effect": "hide", "why": "x" * 401},
    ],
)
def test_what_is_no_rule_is_refused_in_a_sentence(client, house, bad):
    answer = client.post(f"/api/projects/{house}/resolve", json={"rules": [bad]})
    assert answer.status_code == 422
    assert re.fullmatch(r"[^\n]{10,300}\.", answer.json()["detail"])


def test_nesting_without_end_is_refused(client, house):
    deep = "[" * 100_000 + "]" * 100_000
    headers = {"Content-Type": "application/json"}
    answer = client.post(f"/api/projects/{house}/resolve", content=f'{{"rules": {deep}}}', headers=headers)
    assert answer.status_code == 400
    assert isinstance(answer.json()["detail"], str)


def test_a_link_carries_a_whole_view(client, house):
    view = view_of(rule(AIR), rule({"kind": "all_but", "of": WALLS}, "fade"), picked={"m": ["g"]})
    made = client.post(f"/api/projects/{house}/links", json=view)
    assert made.status_code == 201
    assert len(made.json()["id"]) == 10
    assert client.post(f"/api/projects/{house}/links", json=view).json() == made.json()
    assert client.get(f"/api/projects/{house}/links/{made.json()['id']}").json() == view
    missing = client.get(f"/api/projects/{house}/links/nothing")
    assert missing.status_code == 404
    assert "cut short" in missing.json()["detail"]


OLD = {
    "pose": {**EYE, "eye_m": [1.25, -20.5, 3], "through_m": 1.5}, "origin_m": [100, 200, 0],
    "cells": [{"level": "Level 00", "discipline": "AIR", "state": "faded"}, {"level": None, "discipline": "STR", "state": "hidden"}],
    "shown": [{"model": "m", "global_id": "a"}], "hidden": [{"model": "m", "global_id": "b"}, {"model": "n", "global_id": "b"}],
    "faded": [], "picked": [{"model": "m", "global_id": "a"}], "alternatives": {"S1": "QH-S1-ALT-B"},
}  # fmt: skip


def test_views_of_earlier_versions_are_read_as_rules_in_project_coordinates(client, house):
    with transaction() as session:
        picture = session.execute(text("SELECT sha256 FROM blob LIMIT 1")).scalar_one()
        session.execute(
            text(
                "INSERT INTO viewpoint (id, guid, project_id, name, author, created_at, picture, view) "
                "VALUES ('old', 'old', :id, 'Old', 'Ida Fenn', now(), :picture, CAST(:view AS jsonb))"
            ),
            {"id": house, "picture": picture, "view": json.dumps(OLD)},
        )
        session.execute(
            text("UPDATE project SET home = CAST(:home AS jsonb) WHERE id = :id"),
            {"id": house, "home": json.dumps({"view": OLD, "author": "Ida Fenn"})},
        )
    view = client.get("/api/viewpoints/old").json()["view"]
    assert view["eye"]["eye_m"] == [101.25, 179.5, 3]
    assert view["eye"]["target_m"] == [101, 202, 3]
    assert view["limits"] == {"through_m": 1.5, "depth_m": None}
    assert [r["effect"] for r in view["rules"]] == ["fade", "hide", "show", "hide"]
    assert view["rules"][1]["select"]["of"][0] == {"kind": "of", "what": "level", "value": ""}
    assert view["rules"][3]["select"]["of"] == {"m": ["b"], "n": ["b"]}
    assert view["picked"]["of"] == {"m": ["a"]}
    assert view["alternatives"] == {"S1": "QH-S1-ALT-B"}
    assert client.get(f"/api/projects/{house}/federation").json()["home"]["view"] == view
