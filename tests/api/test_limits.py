"""What projects may hold, how often people may ask, and the page of whoever runs the server."""

from __future__ import annotations

import time

import pytest
from typer.testing import CliRunner

from stairpath.command import app
from stairpath.settings import settings
from stairpath.store.database import transaction
from stairpath.store.tables import Model, Project
from stairpath.work.people import slow_down
from tests.api.conftest import two_rooms
from tests.api.test_people import OTHER

BIG = {"file_mb": 512, "unpacked_mb": 2048, "storage_mb": 50_000, "components": 2_000_000, "tasks": 20}
SHEET = {"name": "Plan", "wish": {"kind": "sheet", "shape": {"kind": "plane", "point_m": [0, 0, 1], "normal": [0, 0, 1]}}}  # fmt: skip


@pytest.fixture
def limited(house):
    """Set some limits of the house."""
    from stairpath.core.project_limits import ProjectLimits

    def to(**some):
        with transaction() as session:
            session.get_one(Project, house).limits = ProjectLimits(**{**BIG, **some})

    return to


def test_what_a_project_may_hold_and_holds_is_told(client, house, limited):
    shown = client.get(f"/api/projects/{house}/limits").json()
    assert shown["limits"] == BIG
    assert shown["components"] == client.get(f"/api/projects/{house}/models").json()[0]["components"]
    assert shown["storage_bytes"] > 10_000
    limited(components=12)
    assert client.get(f"/api/projects/{house}/limits").json()["limits"]["components"] == 12


def test_a_file_larger_than_the_project_takes_is_refused_and_nothing_is_kept(client, house, send, limited):
    limited(file_mb=1)
    refused = send(house, "T-STR.ifc", b"ISO-10303-21;" + b" " * (2 << 20))
    assert refused.status_code == 413
    assert "larger than the 1 MB" in refused.json()["detail"]
    assert len(client.get(f"/api/projects/{house}/models").json()) == 1


def test_a_file_that_does_not_fit_beside_the_others_is_refused(client, house, send, limited):
    limited(storage_mb=1)
    big = two_rooms().content().replace(b"DATA;", b"DATA;\n/*" + b"x" * (1 << 20) + b"*/", 1)
    refused = send(house, "T-STR.ifc", big)
    assert refused.status_code == 413
    assert refused.json()["detail"].startswith("T-STR.ifc has 1 MB, and this project holds 0 of at most 1 MB.")
    topic = client.post(f"/api/projects/{house}/topics", json={"title": "Gap"}).json()
    attached = client.post(f"/api/topics/{topic['id']}/files", content=big, headers={"X-File-Name": "a.txt"})
    assert attached.status_code == 413


def test_the_server_has_a_limit_for_all_projects_together(house, send, monkeypatch):
    monkeypatch.setattr(settings(), "server_storage_mb", 1)
    big = two_rooms().content().replace(b"DATA;", b"DATA;\n/*" + b"x" * (1 << 20) + b"*/", 1)
    assert "this server holds" in send(house, "T-STR.ifc", big).json()["detail"]


def test_a_model_with_more_components_than_are_left_fails_with_a_sentence(client, house, send, work, limited):
    (before,) = client.get(f"/api/projects/{house}/models").json()
    limited(components=before["components"] + 1)
    send(house, "T-STR.ifc", two_rooms(north_m=20))
    work()
    (failed,) = [each for each in client.get(f"/api/projects/{house}/models").json() if each["name"] == "T-STR"]
    assert failed["status"] == "failed"
    assert f"the other models of this project have {before['components']}" in failed["message"]
    # The same model again is not another one.
    limited(components=before["components"])
    client.post(f"/api/models/{before['id']}/retry")
    work()
    assert client.get(f"/api/projects/{house}/models").json()[0]["status"] == "read"


def test_no_more_work_is_taken_than_a_project_may_have_waiting(client, house, work, limited):
    limited(tasks=2)
    tasks = [client.post(f"/api/projects/{house}/tasks", json=SHEET) for _ in range(3)]
    assert [each.status_code for each in tasks] == [201, 201, 413]
    assert "2 checks, sheets or imports" in tasks[2].json()["detail"]
    again = tasks[0].json()["id"]
    assert client.post(f"/api/tasks/{again}/again", json={"wish": None}).status_code == 200  # it waits already
    work()
    assert client.post(f"/api/projects/{house}/tasks", json=SHEET).status_code == 201


def until(holds, s: float = 10):
    end = time.monotonic() + s
    while not holds():
        assert time.monotonic() < end
        time.sleep(0.02)


def test_who_asks_more_than_anybody_needs_waits(owner, opened, person, monkeypatch):
    other = person("una", "Una Vale")
    monkeypatch.setattr(settings(), "person_requests_per_minute", 5)
    slow_down._requests.storage.reset()
    answers = [owner.get("/api/projects") for _ in range(7)]
    assert [each.status_code for each in answers][:5] == [200] * 5
    assert answers[-1].status_code == 429
    assert int(answers[-1].headers["Retry-After"]) <= 60
    assert other.get("/api/projects").status_code == 200  # the others are not hindered
    slow_down._requests.storage.reset()


def test_so_many_pages_may_one_person_have_open(owner, monkeypatch):
    project = owner.post("/api/projects", json={"name": "Pier"}).json()["id"]
    monkeypatch.setattr(settings(), "person_connections", 1)
    with owner.websocket_connect(f"ws://127.0.0.1/api/projects/{project}/together") as line:
        line.receive_json()
        full = owner.get(f"/api/projects/{project}/events")
        assert full.status_code == 429
        assert full.json()["detail"].startswith("You have as many pages open as one person may")
    # Once it is closed there is room again.
    until(lambda: not owner.app.state.sign_ins._held)
    with owner.websocket_connect(f"ws://127.0.0.1/api/projects/{project}/together") as line:
        assert line.receive_json()


def test_who_runs_the_server_sees_how_it_is(owner, person, send, work, tmp_path):
    state = owner.get("/api/server").json()
    assert state["people"] == 1
    assert state["backup"] is None
    assert {"Stair Path", "PostgreSQL", "Python", "IfcOpenShell", "Tables"} <= state["versions"].keys()
    assert state["database_bytes"] > 1 << 20
    project = owner.post("/api/projects", json={"name": "Pier"}).json()["id"]
    broken = b"ISO-10303-21;\nHEADER;\nENDSEC;\nDATA;\nENDSEC;\nEND-ISO-10303-21;\n"
    sent = owner.post(f"/api/projects/{project}/models", content=broken, headers={"X-File-Name": "T-STR.ifc"})
    assert sent.status_code == 201, sent.text
    work()
    (failure,) = [each for each in owner.get("/api/server").json()["failures"] if each["project_id"] == project]
    assert (failure["project"], failure["what"], failure["name"]) == ("Pier", "model", "T-STR.ifc")
    assert failure["why"].endswith(".")
    made = CliRunner().invoke(app, ["backup", str(tmp_path / "night.backup")])
    assert made.exit_code == 0, made.output
    assert owner.get("/api/server").json()["backup"]["to"].endswith("night.backup")
    assert person("una", "Una Vale").get("/api/server").status_code == 403


def test_who_runs_the_server_sees_all_projects_limits_them_and_gives_them_owners(owner, person):
    una = person("una", "Una Vale", makes_projects=True)
    project = una.post("/api/projects", json={"name": "Quay"}).json()["id"]
    (listed,) = [each for each in owner.get("/api/server/projects").json() if each["id"] == project]
    assert (listed["owners"], listed["own_limits"], listed["limits"]) == (["Una Vale"], False, BIG)
    assert owner.get(f"/api/projects/{project}/federation").status_code == 404  # and what is in it stays theirs
    path = f"/api/server/projects/{project}"
    set_ = owner.put(f"{path}/limits", json={"limits": {**BIG, "storage_mb": 7}}).json()
    assert (set_["own_limits"], set_["limits"]["storage_mb"]) == (True, 7)
    assert una.get(f"/api/projects/{project}/limits").json()["limits"]["storage_mb"] == 7
    assert owner.put(f"{path}/limits", json={"limits": {**BIG, "tasks": 0}}).status_code == 422
    assert owner.put(f"{path}/limits", json={"limits": None}).json()["own_limits"] is False
    assert owner.post(f"{path}/owners", json={"key": "nobody"}).status_code == 404
    assert owner.post(f"{path}/owners", json={"key": "ida@quillhaven.example"}).json()["owners"] == [
        "Ida Fenn",
        "Una Vale",
    ]
    assert owner.get(f"/api/projects/{project}/federation").status_code == 200
    record = una.get(f"/api/projects/{project}/record").json()["entries"]
    assert ("Ida Fenn", "made", "Ida Fenn") in [(each["who"], each["action"], each["title"]) for each in record]
    assert OTHER


def test_components_of_models_that_were_removed_do_not_count(client, house):
    before = client.get(f"/api/projects/{house}/limits").json()["components"]
    (model,) = client.get(f"/api/projects/{house}/models").json()
    client.delete(f"/api/models/{model['id']}")
    assert (before, client.get(f"/api/projects/{house}/limits").json()["components"]) == (model["components"], 0)
    with transaction() as session:
        assert session.get_one(Model, model["id"]).removed_at is not None
