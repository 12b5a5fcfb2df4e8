"""Viewpoints kept over, framed, new to others, standing, and naming what is gone."""

from __future__ import annotations

import base64
import io

import pytest
from PIL import Image

from stairpath.store.kept import viewpoint_by_id
from stairpath.work.base.unit_of_work import read_only
from stairpath.work.views.thumbnails import dimensions_of
from tests.api.conftest import two_rooms
from tests.api.test_views import EYE, keep, png, rule, view_of
from tests.asking import by


def listed(client, project, who="Ida Fenn"):
    return client.get(f"/api/projects/{project}/viewpoints", headers=by(who)).json()


def test_keeping_over_a_view_says_what_changes_and_is_taken_back(client, project):
    first = keep(client, project).json()
    other = view_of()
    other["eye"] = {**EYE, "angle_deg": 60.0}
    url = f"/api/viewpoints/{first['id']}"
    says = client.post(f"{url}/changes", json=other).json()
    assert says == ["The angle of view changes from 42° to 60°.", "1 rule removed: faded."]
    after = client.put(f"{url}/view", json={"picture_png": png(), "view": other}, headers=by("Mara Oake")).json()
    assert (after["view"]["eye"]["angle_deg"], after["changed_by"]) == (60.0, "Mara Oake")
    assert client.post(f"{url}/changes", json=other).json() == []
    back = client.post(f"{url}/take-back").json()
    assert back["view"] == first["view"]
    answer = client.post(f"{url}/take-back")
    assert (answer.status_code, "There is nothing to undo" in answer.json()["detail"]) == (409, True)


def test_what_others_kept_since_one_looked_is_new(client, project):
    keep(client, project, who="Ida Fenn")
    assert not any(each["new"] for each in listed(client, project, "Mara Oake"))  # she was never there
    looked = f"/api/projects/{project}/viewpoints/looked"
    assert client.post(looked, headers=by("Mara Oake")).status_code == 204
    keep(client, project, name="Later", who="Ida Fenn")
    keep(client, project, name="Her own", who="Mara Oake")
    assert [each["name"] for each in listed(client, project, "Mara Oake") if each["new"]] == ["Later"]
    client.post(looked, headers=by("Mara Oake"))
    assert not any(each["new"] for each in listed(client, project, "Mara Oake"))


def large_png(width: int) -> str:
    out = io.BytesIO()
    Image.new("RGB", (width, width * 5 // 8), "#0b6f78").save(out, "PNG")
    return base64.b64encode(out.getvalue()).decode()


def test_a_picture_is_widened_and_printed_large(client, project):
    first = keep(client, project).json()
    frame = {"aspect": 1.6, "left": -1.5, "right": 1.2, "bottom": -1.0, "top": 1.0}
    url = f"/api/viewpoints/{first['id']}/picture"
    after = client.put(url, json={"picture_png": large_png(2400), "frame": frame}).json()
    assert after["view"]["frame"] == frame
    sizes = [
        Image.open(io.BytesIO(client.get(f"/api/projects/{project}/blobs/{after[which]}").content)).width
        for which in ("picture", "large")
    ]
    assert sizes == [720, 2400]
    assert {**after["view"], "frame": None} == first["view"]
    for wrong in ({**frame, "left": 1.2}, {**frame, "top": 9.0}):
        assert client.put(url, json={"picture_png": png(), "frame": wrong}).status_code == 422


@pytest.fixture
def rooms(client, project, send, work):
    send(project, "T-ARC.ifc", two_rooms())
    work()
    return project


def test_standing_views_are_made_drawn_and_kept_as_people_left_them(client, rooms, send, work):
    url = f"/api/projects/{rooms}/viewpoints/standing"
    assert client.post(url).status_code == 202
    work()
    made = {each["name"]: each for each in listed(client, rooms)}
    assert len(made) == 10
    assert all(each["standing"] for each in made.values())
    folders = client.get(f"/api/projects/{rooms}/folders").json()
    assert [each["name"] for each in folders] == ["Standing views"]
    picture = Image.open(io.BytesIO(client.get(f"/api/projects/{rooms}/blobs/{made['Level 00']['picture']}").content))
    assert picture.size == (720, 450)
    assert len(picture.convert("RGB").getcolors(1 << 20) or ()) > 20

    west, upper = made["0.01 West"]["id"], made["Level 01"]["id"]
    changed = client.put(f"/api/viewpoints/{west}/view", json={"picture_png": png(), "view": view_of()}).json()
    client.put(f"/api/viewpoints/{upper}/name", json={"name": "My deck"})
    assert client.delete(f"/api/viewpoints/{made['Side: back']['id']}").status_code == 204
    other = two_rooms(gap=0.9)
    other.room(other.ifc.by_type("IfcBuildingStorey")[1], "1.01", "Deck", (0, 0, 0), (4, 3, 2))
    send(rooms, "T-ARC.ifc", other)
    work()
    after = {each["name"]: each for each in listed(client, rooms)}
    assert after["0.01 West"]["view"] == changed["view"]
    assert after["0.01 West"]["picture"] == changed["picture"]
    assert after["My deck"]["id"] == upper
    assert "Side: back" not in after
    assert "1.01 Deck" in after
    # A room that is gone takes its view with it, and brings one when it comes back.
    for model, there in ((two_rooms(gap=0.9), False), (other, True)):
        send(rooms, "T-ARC.ifc", model)
        work()
        assert ("1.01 Deck" in {each["name"] for each in listed(client, rooms)}) is there
    client.post(url)
    work()
    assert "Side: back" in {each["name"] for each in listed(client, rooms)}


def test_standing_views_need_a_building(client, project):
    answer = client.post(f"/api/projects/{project}/viewpoints/standing")
    assert (answer.status_code, "no model yet" in answer.json()["detail"]) == (409, True)


def test_what_a_view_names_and_the_project_lost_is_said_with_the_day(client, rooms):
    model = client.get(f"/api/projects/{rooms}/federation").json()["models"][0]["id"]
    gone = {"kind": "these", "of": {model: ["0" * 22, "1" * 22]}}
    kept = keep(client, rooms, view=view_of(rule(gone))).json()
    (says,) = client.get(f"/api/viewpoints/{kept['id']}/missing").json()
    assert says.startswith("2 of its 2 hidden components are gone since the issue of ")


def test_viewpoints_go_out_as_topics_and_come_back_the_same(client, rooms, work):
    views = [keep(client, rooms, name=name).json() for name in ("North side", "South side")]
    url = f"/api/projects/{rooms}/viewpoints/file"
    for version in ("2.1", "3.0"):
        answer = client.get(url, params={"view": [each["id"] for each in views], "version": version})
        assert answer.status_code == 200
        client.post(f"/api/projects/{rooms}/topics/files", content=answer.content, headers={"X-File-Name": "v.bcf"})
        work()
    listed_now = client.get(f"/api/projects/{rooms}/topics").json()
    # A file has its topics in no order.
    assert {each["said"]["title"]: each["views"] for each in listed_now} == {
        each["name"]: [each["id"]] for each in views
    }
    assert client.get(url, params={"view": ["none"]}).status_code == 422


def test_a_picture_says_what_its_measures_come_to(client, rooms):
    (model,) = client.get(f"/api/projects/{rooms}/federation").json()["models"]
    ref = {"model": model["id"], "global_id": "0" * 22}
    shapes = [
        {"kind": "points", "points_m": [[1, 1, 0], [1, 4, 4]], "main": "distance"},
        {"kind": "points", "points_m": [[1, 1, 0], [1, 4, 4]], "main": "up"},
        {"kind": "between", "a": ref, "b": ref, "how": "nearest"},
    ]
    measures = [{"id": str(number), "what": what} for number, what in enumerate(shapes)]
    view = keep(client, rooms, view=view_of() | {"measures": measures})
    assert view.status_code == 201, view.text
    with read_only() as look:
        row = viewpoint_by_id(look.session, view.json()["id"])
        assert row is not None
    found = [(each.text, each.line.tolist()) for each in dimensions_of(rooms, row.view)]
    # What is gone comes to nothing; the corner of a height is led to.
    assert found[0] == ("5.000 m", [[1, 1, 0], [1, 4, 4]])
    assert found[1:] == [("4.000 m", [[1, 4, 0], [1, 4, 4]]), ("", [[1, 1, 0], [1, 4, 0]])]


def test_a_view_that_came_without_a_picture_is_drawn(client, rooms, work):
    topic = client.post(f"/api/projects/{rooms}/topics", json={"title": "Gap"}).json()
    camera = {
        "camera_view_point": {"x": 2.0, "y": -6.0, "z": 4.0},
        "camera_direction": {"x": 0.0, "y": 1.0, "z": -0.4},
        "camera_up_vector": {"x": 0.0, "y": 0.4, "z": 1.0},
        "field_of_view": 60.0,
        "aspect_ratio": 1.6,
    }
    url = f"/bcf/3.0/projects/{rooms}/topics/{topic['guid']}/viewpoints"
    made = client.post(url, json={"perspective_camera": camera})
    assert made.status_code == 201, made.text
    before = listed(client, rooms)[0]["picture"]
    work()
    after = listed(client, rooms)[0]["picture"]
    assert after != before
    picture = Image.open(io.BytesIO(client.get(f"/api/projects/{rooms}/blobs/{after}").content))
    assert picture.size == (720, 450)
