"""Folders of viewpoints: made, named, ordered by hand, deleted and brought back with what is in them."""

from __future__ import annotations

import pytest

from tests.api.test_views import keep


def folder(client, project, name):
    answer = client.post(f"/api/projects/{project}/folders", json={"name": name})
    assert answer.status_code == 201, answer.text
    return answer.json()["id"]


def move(client, project, views, into, before=None):
    wish = {"views": views, "folder": into, "before": before}
    return client.post(f"/api/projects/{project}/viewpoints/move", json=wish)


def inside(client, project, into):
    views = [v for v in client.get(f"/api/projects/{project}/viewpoints").json() if v["folder"] == into]
    return [v["name"] for v in sorted(views, key=lambda v: v["place"])]


@pytest.fixture
def views(client, project):
    return {name: keep(client, project, name=name).json()["id"] for name in "ABCD"}


def test_viewpoints_are_moved_and_ordered_by_hand(client, project, views):
    meeting = folder(client, project, "Meeting of 27 November")
    assert move(client, project, [views["C"], views["A"]], meeting).status_code == 204
    assert inside(client, project, meeting) == ["C", "A"]
    move(client, project, [views["D"]], meeting, before=views["A"])
    move(client, project, [views["C"]], meeting)
    assert inside(client, project, meeting) == ["D", "A", "C"]
    move(client, project, [views["A"]], None)
    assert inside(client, project, meeting) == ["D", "C"]
    assert sorted(inside(client, project, None)) == ["A", "B"]


def test_folders_are_named_ordered_deleted_and_brought_back_with_what_is_in_them(client, project, views):
    first, second = folder(client, project, "Standing views"), folder(client, project, "Air")
    move(client, project, [views["B"], views["A"]], second)
    assert client.put(f"/api/folders/{second}/name", json={"name": " Air, Level 01 "}).json()["name"] == "Air, Level 01"
    assert client.put(f"/api/folders/{second}/place", json={"before": first}).status_code == 204

    def listed():
        return [each["id"] for each in client.get(f"/api/projects/{project}/folders").json()]

    assert listed() == [second, first]
    assert client.delete(f"/api/folders/{second}").status_code == 204
    assert listed() == [first]
    assert client.put(f"/api/folders/{second}/name", json={"name": "x"}).status_code == 410
    assert len(client.get(f"/api/projects/{project}/viewpoints").json()) == 4
    client.post(f"/api/folders/{second}/restore")
    assert listed() == [second, first]
    assert inside(client, project, second) == ["B", "A"]


def test_what_cannot_be_moved_is_refused_and_nothing_moves(client, project, views):
    meeting = folder(client, project, "Meeting")
    other = client.post("/api/projects", json={"name": "Other"}).json()["id"]
    foreign = folder(client, other, "Elsewhere")
    for these, into, status in (
        ([views["A"], "nowhere"], meeting, 422),
        ([views["A"]], "nowhere", 404),
        ([views["A"]], foreign, 404),
    ):
        answer = move(client, project, these, into)
        assert answer.status_code == status, answer.text
        assert answer.json()["detail"].endswith(".")
    assert inside(client, project, meeting) == []
    assert client.post(f"/api/projects/{project}/folders", json={"name": " "}).status_code == 422


def test_folders_stand_in_folders_and_never_in_themselves(client, project):
    def made(name, within=None):
        answer = client.post(f"/api/projects/{project}/folders", json={"name": name, "within": within})
        assert answer.status_code == 201, answer.text
        return answer.json()["id"]

    def put(which, within):
        return client.put(f"/api/folders/{which}/within", json={"within": within})

    def around():
        return {each["name"]: each["within"] for each in client.get(f"/api/projects/{project}/folders").json()}

    outer = made("Meetings")
    inner = made("November", outer)
    innermost = made("27 November")
    assert put(innermost, inner).json()["within"] == inner
    assert around() == {"Meetings": None, "November": outer, "27 November": inner}
    for within in (outer, innermost):
        refused = put(outer, within)
        assert refused.status_code == 422
        assert "Meetings can't stand in itself" in refused.json()["detail"]
    # With the folder around it deleted it is still there, and inside again once that is restored.
    assert client.delete(f"/api/folders/{inner}").status_code == 204
    assert around()["27 November"] == inner
    assert put(outer, innermost).status_code == 422
    client.post(f"/api/folders/{inner}/restore")
    assert put(inner, None).json()["within"] is None
    other = client.post("/api/projects", json={"name": "Other"}).json()["id"]
    assert put(folder(client, other, "Elsewhere"), outer).status_code == 404


def test_a_viewpoint_says_for_what_it_was_kept(client, project, views):
    topic = client.post(f"/api/projects/{project}/topics", json={"title": "Duct", "views": [views["A"]]}).json()
    client.post(f"/api/topics/{topic['id']}/comments", json={"text": "From below", "view": views["B"]})
    client.post(f"/api/topics/{topic['id']}/comments", json={"text": "Once more", "view": views["A"]})
    meeting = client.post(f"/api/projects/{project}/meetings", json={"title": "Weekly", "topics": [topic["id"]]}).json()
    client.post(
        f"/api/meetings/{meeting['id']}/points", json={"topic": topic["id"], "text": "Move it", "view": views["C"]}
    )

    def kept_for():
        listed = client.get(f"/api/projects/{project}/viewpoints").json()
        return {each["name"]: [(of["kind"], of["name"]) for of in each["of"]] for each in listed}

    of_topic = [("topic", topic["reference"])]
    assert kept_for() == {"A": of_topic, "B": of_topic, "C": [*of_topic, ("meeting", "Weekly")]} | {
        name: [] for name in views if name not in "ABC"
    }
    client.delete(f"/api/topics/{topic['id']}")
    assert kept_for()["A"] == []
