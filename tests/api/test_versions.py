"""Two people change one thing: a change of a version that is no longer there is refused and told; all of it is history."""

from __future__ import annotations

import pytest

from tests.api.test_folders import folder
from tests.api.test_meetings import begin, note
from tests.api.test_topics import make
from tests.api.test_views import keep, png
from tests.asking import by


def tag(client, path):
    return client.get(f"/api/{path}").headers["etag"]


@pytest.fixture
def view(client, project):
    return keep(client, project, name="North").json()["id"]


def test_a_change_of_an_older_version_says_who_changed_what_since(client, project):
    path = f"topics/{make(client, project, 'Duct in the beam')['id']}"
    read = tag(client, path)
    ours = {**by("Ida Fenn"), "If-Match": read}
    theirs = client.patch(f"/api/{path}", json={"status": "in hand"}, headers={**by("Tam Kerr"), "If-Match": read})
    assert theirs.status_code == 200
    client.patch(f"/api/{path}", json={"labels": {"add": ["fire"]}, "title": "Duct"}, headers=by("Mara Oake"))
    refused = client.patch(f"/api/{path}", json={"status": "settled"}, headers=ours)
    assert refused.status_code == 412
    assert refused.json()["detail"] == (
        "Tam Kerr and Mara Oake changed the status, title and labels since you read it. "
        "Read it again and repeat your change."
    )
    told = client.get(f"/api/{path}")
    assert told.json()["topic"]["said"]["status"] == "in hand"
    again = client.patch(f"/api/{path}", json={"status": "settled"}, headers={"If-Match": told.headers["etag"]})
    assert (again.status_code, again.headers["etag"]) == (200, tag(client, path))
    # What is written of a topic changes no field of it.
    client.post(f"/api/{path}/comments", json={"text": "Seen."})
    assert tag(client, path) == again.headers["etag"]


def test_any_version_and_one_of_several_are_taken_and_none_that_is_weak_or_strange(client, project):
    path = f"/api/topics/{make(client, project, 'A')['id']}"
    assert client.get(path).headers["etag"] == '"0"'
    for named, status in (
        ('W/"0"', 412),
        ("nonsense", 412),
        ('"x"', 412),
        ('"99999999"', 412),
        ('"99999999", "0"', 200),
        ('"0"', 412),
        ("*", 200),
    ):
        answer = client.patch(path, json={"description": f"{named} {status}"}, headers={"If-Match": named})
        assert answer.status_code == status, named
    never = client.patch(path, json={"description": "x"}, headers={"If-Match": '"99999999"'})
    assert never.json()["detail"].startswith("The request names a version that there never was.")


def test_views_meetings_folders_and_sets_have_versions(client, project, view):
    topic = make(client, project, "A")
    meeting = begin(client, project, title="Monday", chosen=[topic["id"]])
    point = note(client, meeting, topic, "Lower it.")
    asked = {"conditions": [{"what": "class", "how": "present"}], "name": "All"}
    things = (
        ("put", f"viewpoints/{view}/name", {"name": "South"}, f"viewpoints/{view}"),
        ("patch", f"meeting-points/{point['id']}", {"text": "Lower it by 40 mm."}, f"meeting-points/{point['id']}"),
        ("patch", f"meetings/{meeting['id']}", {"title": "Tuesday"}, f"meetings/{meeting['id']}"),
        ("put", f"folders/{folder(client, project, 'Stairs')}/name", {"name": "Steps"}, None),
        ("put", f"sets/{client.post(f'/api/projects/{project}/sets', json=asked).json()['id']}",
         {**asked, "name": "Everything"}, None),
    )  # fmt: skip
    tags = {}
    for verb, path, body, thing in things:
        first = getattr(client, verb)(f"/api/{path}", json=body, headers={"If-Match": '"0"'})
        assert first.status_code in (200, 204), first.text
        late = getattr(client, verb)(f"/api/{path}", json=body, headers={"If-Match": '"0"'})
        assert late.status_code == 412, path
        if thing is not None:
            tags[thing] = first.headers["etag"]
    for thing, version in tags.items():
        assert client.delete(f"/api/{thing}", headers={"If-Match": '"0"'}).status_code == 412
        assert client.delete(f"/api/{thing}", headers={"If-Match": version}).status_code == 204


def test_a_meeting_has_the_history_of_itself_and_its_notes(client, project):
    topic, other = make(client, project, "A"), make(client, project, "B")
    meeting = begin(client, project, title="Monday", chosen=[topic["id"], other["id"]])
    path = f"/api/meetings/{meeting['id']}"
    client.patch(path, json={"title": "Tuesday", "topics": {"drop": [other["id"]]}}, headers=by("Tam Kerr"))
    client.patch(path, json={"title": "Tuesday"}, headers=by("Tam Kerr"))
    point = note(client, meeting, topic, "Lower it.")
    client.patch(f"/api/meeting-points/{point['id']}", json={"text": "Raise it."}, headers=by("Ida Fenn"))
    client.delete(f"/api/meeting-points/{point['id']}", headers=by("Ida Fenn"))
    told = client.get(f"{path}/history").json()
    assert [(each["author"], each["kind"]) for each in told] == [
        ("Ida Fenn", "meeting_point"),
        ("Ida Fenn", "meeting_point"),
        ("Tam Kerr", "meeting"),
    ]
    assert told[0]["fields"] == [{"name": "deleted", "old": "", "new": "yes"}]
    assert told[1]["fields"] == [{"name": "text", "old": "Lower it.", "new": "Raise it."}]
    assert told[2]["fields"] == [
        {"name": "title", "old": "Monday", "new": "Tuesday"},
        {"name": "agenda", "old": other["id"], "new": ""},
    ]


def test_a_view_kept_over_many_times_can_become_each_of_what_it_was(client, project, view):
    path = f"/api/viewpoints/{view}"
    first = client.get(path).json()
    for k in range(4):
        body = {"picture_png": png(), "view": {**first["view"], "limits": {"through_m": k + 1}}}
        assert client.put(f"{path}/view", json=body, headers=by("Tam Kerr")).status_code == 200
    earlier = client.get(f"{path}/earlier").json()
    assert len(earlier) == 4
    back = client.post(f"{path}/earlier/{earlier[-1]['id']}", headers=by("Ida Fenn")).json()
    assert (back["view"], back["changed_by"]) == (first["view"], "Ida Fenn")
    assert len(client.get(f"{path}/earlier").json()) == 5
    assert client.post(f"{path}/take-back").json()["view"]["limits"]["through_m"] == 4
    missing = client.post(f"{path}/earlier/{'0' * 32}")
    assert (missing.status_code, "no such earlier view" in missing.json()["detail"]) == (404, True)
    history = client.get(f"{path}/history").json()
    assert {field["name"] for each in history for field in each["fields"]} == {"view"}
    assert {each["author"] for each in history} >= {"Tam Kerr", "Ida Fenn"}
