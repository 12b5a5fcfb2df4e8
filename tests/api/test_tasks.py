"""Checks and sheets: asked for, made by jobs, stopped, run again on what changed, handed on in open formats."""

from __future__ import annotations

import io
import xml.etree.ElementTree as ET

import ezdxf
import pytest

from stairpath.core.sandbox import CancelledError
from stairpath.store import kept
from stairpath.store.database import transaction
from stairpath.work.tasks import reconcile, tasks
from tests.api.test_views import rule
from tests.samples import Sample

AIR = {"kind": "of", "what": "discipline", "value": "AIR"}
STR = {"kind": "of", "what": "discipline", "value": "STR"}


def beams():
    """A beam of 8 x 0.3 x 0.5 whose underside is at 3, and a slab over it."""
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    sample.box(storey, (0, 0, 3), (8, 0.3, 0.5), "IfcBeam", Name="Beam", Tag="B-1")
    sample.box(storey, (0, 0, 3.5), (8, 4, 0.2), "IfcSlab", Name="Slab", Tag="S-1")
    return sample


def ducts(height=2.8):
    """Ducts of 0.4 x 0.4 across the beam, from a height on; the second is below it."""
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    sample.box(storey, (2, -1, height), (0.4, 3, 0.4), "IfcDuctSegment", Name="Duct", Tag="D-1")
    sample.box(storey, (5, -1, 2.55), (0.4, 3, 0.4), "IfcDuctSegment", Name="Duct", Tag="D-2")
    return sample


@pytest.fixture
def house(client, project, send, work):
    send(project, "QH-STR.ifc", beams())
    send(project, "QH-AIR.ifc", ducts())
    work()
    return project


def check(**more):
    return {
        "kind": "check",
        "a": {"select": AIR, "called": "Air"},
        "b": {"select": STR, "called": "Structure"},
        **more,
    }


def sheet(**more):
    shape = {"kind": "plane", "point_m": [0, 0, 3.2], "normal": [0, 0, 1]}
    return {"kind": "sheet", "shape": shape, **more}


def ask(client, project, wish, name="Air and structure"):
    answer = client.post(f"/api/projects/{project}/tasks", json={"name": name, "wish": wish})
    assert answer.status_code == 201, answer.text
    return answer.json()["id"]


def row(client, project, task):
    return next(e for e in client.get(f"/api/projects/{project}/tasks").json() if e["id"] == task)


def findings(client, task):
    answer = client.get(f"/api/tasks/{task}/findings")
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_a_check_is_run_by_a_job_and_says_what_overlaps_where(client, house, work):
    task = ask(client, house, check())
    assert row(client, house, task)["status"] == "waiting"
    assert client.get(f"/api/tasks/{task}/findings").status_code == 404
    work()
    told = row(client, house, task)
    assert (told["status"], told["share"], told["name"]) == ("done", 1.0, "Air and structure")
    assert told["made_for"] == client.get(f"/api/projects/{house}/federation").json()["version"]
    found = findings(client, task)
    assert found["count"] == 1
    (only,) = found["findings"]
    assert only["worst"]["kind"] == "overlap"
    assert only["worst"]["depth_m"] == pytest.approx(0.2, abs=1e-4)
    assert only["worst"]["volume_m3"] == pytest.approx(0.4 * 0.3 * 0.2, rel=1e-3)
    assert only["at_m"] == pytest.approx([2.2, 0.15, 3.1], abs=1e-3)
    assert [found["components"][k]["label"] for k in only["components"]] == ["Duct D-1", "Beam B-1"]
    assert found["checked"] == found["anew"] >= 1


def test_too_near_is_told_by_distance_and_findings_by_what_is_shown(client, house, work):
    near = ask(client, house, check(clearance_m=0.1))
    shown = {"rules": [rule({"kind": "of", "what": "tag", "value": "D-1"})], "called": "what is visible"}
    without = ask(client, house, {**check(clearance_m=0.1), "a": shown})
    work()
    kinds = {f["worst"]["kind"]: f["worst"]["distance_m"] for f in findings(client, near)["findings"]}
    assert kinds["clearance"] == pytest.approx(0.05, abs=1e-4)
    labels = {c["label"] for c in findings(client, without)["components"]}
    assert "Duct D-1" not in labels
    assert "Duct D-2" in labels


def test_a_set_is_a_group_of_a_check(client, house, work):
    low = {"kind": "where", "of": [{"what": "tag", "how": "equal", "value": "D-2"}], "called": "The low duct"}
    task = ask(client, house, {**check(clearance_m=0.1), "a": {"select": low, "called": "The low duct"}})
    work()
    found = findings(client, task)
    assert [c["label"] for c in found["components"]] == ["Duct D-2", "Beam B-1"]


def test_it_is_run_again_on_what_changed(client, house, work, send):
    task = ask(client, house, check(clearance_m=0.1))
    work()
    first = findings(client, task)
    client.post(f"/api/tasks/{task}/again", json={})
    work()
    again = findings(client, task)
    assert again["anew"] == 0
    assert again["findings"] == first["findings"]
    send(house, "QH-AIR.ifc", ducts(height=2.4))
    work()
    told = row(client, house, task)
    assert told["made_for"] < client.get(f"/api/projects/{house}/federation").json()["version"]
    client.post(f"/api/tasks/{task}/again", json={})
    work()
    assert [f["worst"]["kind"] for f in findings(client, task)["findings"]] == ["clearance"]
    wider = client.post(f"/api/tasks/{task}/again", json={"wish": check(clearance_m=0.0)})
    assert wider.status_code == 200
    work()
    assert findings(client, task)["count"] == 0
    refused = client.post(f"/api/tasks/{task}/again", json={"wish": sheet()})
    assert refused.status_code == 409
    assert "A check cannot become a sheet" in refused.json()["detail"]


def test_one_that_waits_is_stopped_and_one_of_nothing_says_so(client, house, work):
    task = ask(client, house, check())
    assert client.post(f"/api/tasks/{task}/stop").status_code == 204
    work()
    told = row(client, house, task)
    assert told["status"] == "stopped"
    assert "Run it again" in told["message"]
    nothing = ask(client, house, {**check(), "b": {"select": {"kind": "of", "what": "level", "value": "Nowhere"}}})
    work()
    told = row(client, house, nothing)
    assert told["status"] == "failed"
    assert "nothing in one of the groups" in told["message"]


def test_one_that_runs_is_stopped_in_the_middle(client, house, monkeypatch):
    task = ask(client, house, check())

    def apart(doer, task_id, asked, *, cancelled, on_progress, **rest):
        on_progress(0.5, "12 of 24 pairs")
        assert row(client, house, task)["message"] == "12 of 24 pairs"
        client.post(f"/api/tasks/{task_id}/stop")
        monkeypatch.setattr(tasks, "_TELL_EVERY_S", 0.0)
        assert cancelled()
        raise CancelledError("It was cancelled.")

    monkeypatch.setattr(tasks, "run_sandboxed", apart)
    tasks.run(task)
    assert row(client, house, task)["status"] == "stopped"


def test_an_task_without_a_job_gets_one_and_one_deleted_comes_back(client, house, work):
    task = ask(client, house, check())
    client.delete(f"/api/tasks/{task}")
    assert client.get(f"/api/projects/{house}/tasks").json() == []
    work()
    client.post(f"/api/tasks/{task}/restore")
    assert row(client, house, task)["status"] == "waiting"
    assert reconcile.find_work() == 1
    work()
    assert row(client, house, task)["status"] == "done"
    client.put(f"/api/tasks/{task}/name", json={"name": "Ducts"})
    assert row(client, house, task)["name"] == "Ducts"
    with transaction() as session:
        assert kept.unfinished_tasks(session) == []


def test_a_sheet_is_drawn_by_a_job_in_open_formats(client, house, work):
    task = ask(client, house, sheet(scale=50, depth_m=1.0), "Over the beam")
    work()
    told = row(client, house, task)
    assert told["status"] == "done", told["message"]
    assert told["message"].startswith("1:50 on A")
    drawn = client.get(f"/api/tasks/{task}/sheet/svg")
    assert drawn.headers["content-type"].startswith("image/svg+xml")
    root = ET.fromstring(drawn.text)
    assert root.tag.endswith("svg")
    assert "Over the beam" in drawn.text
    dxf = client.get(f"/api/tasks/{task}/sheet/dxf?save=true")
    assert "attachment" in dxf.headers["content-disposition"]
    layers = {layer.dxf.name for layer in ezdxf.read(io.StringIO(dxf.text)).layers}
    assert {"STR-CUT", "AIR-CUT"} <= {name[:7] for name in layers}
    assert client.get(f"/api/tasks/{task}/sheet/pdf").content.startswith(b"%PDF")
    hidden = ask(client, house, sheet(rules=[rule(AIR)]))
    huge = ask(client, house, sheet(scale=1, paper="A4"))
    work()
    assert "AIR-CUT" not in client.get(f"/api/tasks/{hidden}/sheet/svg").text
    assert row(client, house, huge)["status"] == "failed"
    assert "1:" in row(client, house, huge)["message"]


@pytest.mark.parametrize(
    "wish",
    [
        {"kind": "check", "a": {"select": AIR}},
        {"kind": "check", "a": {"select": AIR}, "b": {"select": STR}, "clearance_m": -1},
        {"kind": "sheet", "shape": {"kind": "box", "centre_m": [0, 0, 0], "size_m": [1, 1, 1]}},
        sheet(scale=0),
    ],
)
def test_what_cannot_be_asked_for_is_refused(client, house, wish):
    assert client.post(f"/api/projects/{house}/tasks", json={"name": "x", "wish": wish}).status_code == 422
