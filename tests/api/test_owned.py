"""A thing is answered and changed only with its project: not from another one, and not while that is in the bin."""

from __future__ import annotations

import pytest

from tests.api.test_folders import folder
from tests.api.test_meetings import begin, note
from tests.api.test_topics import make, told
from tests.api.test_views import keep
from tests.samples import simple


@pytest.fixture
def other(client):
    return client.post("/api/projects", json={"name": "Other"}).json()["id"]


def test_a_meeting_has_no_view_of_another_project(client, project, other):
    topic, meeting = make(client, project, "Duct in the beam"), begin(client, project)
    strange = keep(client, other, name="Elsewhere").json()["id"]
    assert "no such viewpoint" in note(client, meeting, topic, "x", status=404, view=strange)["detail"]
    own = keep(client, project).json()["id"]
    assert note(client, meeting, topic, "x", view=own)["view"] == own


def test_models_of_two_projects_are_not_compared(client, project, other, send, work):
    send(project, "QH-ARC.ifc", simple())
    send(other, "QH-STR.ifc", simple())
    work()
    own, strange = (client.get(f"/api/projects/{key}/models").json()[0]["id"] for key in (project, other))
    for what in ("changes", "gone"):
        answer = client.get(f"/api/models/{own}/{what}", params={"other": strange})
        assert (answer.status_code, "no such model" in answer.json()["detail"]) == (404, True)


def test_a_topic_is_of_a_finding_of_its_own_project(client, house, other):
    group = {"select": {"kind": "of", "what": "class", "value": "IfcWall"}}
    wish = {"name": "Walls", "wish": {"kind": "check", "a": group, "b": group}}
    check = client.post(f"/api/projects/{house}/tasks", json=wish).json()["id"]
    measured = {"kind": "overlap", "depth_m": 0.1, "distance_m": 0}
    of = {"title": "x", "finding": {"check": check, "pairs": [["a", "b"]], "measured": measured}}
    assert client.post(f"/api/projects/{other}/topics", json=of).status_code == 404
    assert client.get(f"/api/projects/{other}/topics").json() == []
    assert client.post(f"/api/projects/{house}/topics", json=of).status_code == 201


def test_related_topics_are_of_the_same_project(client, project, other):
    topic, friend, strange = make(client, project, "A"), make(client, project, "B"), make(client, other, "C")
    for guids, status in (([friend["guid"]], 200), ([strange["guid"]], 422), (["anything"], 422)):
        answer = client.patch(f"/api/topics/{topic['id']}", json={"related": {"add": guids}})
        assert answer.status_code == status, answer.text
    assert told(client, topic)["topic"]["related"] == [friend["guid"]]
    at = f"/bcf/3.0/projects/{project}/topics/{topic['guid']}/related_topics"
    assert client.put(at, json=[{"related_topic_guid": strange["guid"]}]).status_code == 400


def test_nothing_of_a_project_in_the_bin_answers_or_changes(client, project, send, work):
    send(project, "QH-ARC.ifc", simple())
    work()
    model = client.get(f"/api/projects/{project}/models").json()[0]["id"]
    topic, view, meeting = make(client, project, "A"), keep(client, project).json()["id"], begin(client, project)
    shelf = folder(client, project, "Level 00")
    point = note(client, meeting, topic, "x")
    file = client.post(f"/api/topics/{topic['id']}/files", content=b"x", headers={"X-File-Name": "a.txt"}).json()["id"]
    wish = {"kind": "sheet", "shape": {"kind": "plane", "point_m": [0, 0, 1], "normal": [0, 0, 1]}}
    sheet = client.post(f"/api/projects/{project}/tasks", json={"name": "Plan", "wish": wish}).json()["id"]
    asked = {"conditions": [{"what": "class", "how": "present"}], "name": "All"}
    found = client.post(f"/api/projects/{project}/sets", json=asked).json()["id"]
    client.delete(f"/api/projects/{project}")
    for verb, path, body in (
        ("get", f"topics/{topic['id']}", None), ("patch", f"topics/{topic['id']}", {"status": "in hand"}),
        ("post", f"topics/{topic['id']}/comments", {"text": "x"}), ("delete", f"topics/{topic['id']}", None),
        ("get", f"viewpoints/{view}", None), ("put", f"viewpoints/{view}/name", {"name": "x"}),
        ("delete", f"viewpoints/{view}", None), ("get", f"topic-files/{file}", None),
        ("delete", f"topic-files/{file}", None), ("get", f"meetings/{meeting['id']}", None),
        ("patch", f"meetings/{meeting['id']}", {"ended": True}), ("get", f"meetings/{meeting['id']}/minutes", None),
        ("delete", f"meeting-points/{point['id']}", None), ("put", f"folders/{shelf}/name", {"name": "x"}),
        ("get", f"tasks/{sheet}/sheet/svg", None), ("post", f"tasks/{sheet}/again", {}),
        ("delete", f"tasks/{sheet}", None), ("put", f"sets/{found}", asked), ("delete", f"models/{model}", None),
        ("get", f"models/{model}/issues", None),
    ):  # fmt: skip
        answer = client.request(verb.upper(), f"/api/{path}", json=body)
        assert (answer.status_code, "is in the bin" in answer.text) == (410, True), (verb, path, answer.text)
    client.post(f"/api/projects/{project}/restore")
    assert told(client, topic)["topic"]["said"]["status"] == "open"
    assert client.get(f"/api/meetings/{meeting['id']}").json()["points"] != []
