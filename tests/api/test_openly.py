"""The standard's web interface: projects, topics, comments, viewpoints, with its own errors and filters."""

from __future__ import annotations

import base64

import pytest

from tests.api.test_door import vast_png
from tests.api.test_topics import make
from tests.asking import by
from tests.exchanged import PNG, png, some_guid

CAMERA = {
    "camera_view_point": {"x": 2, "y": 1, "z": 1.6}, "camera_direction": {"x": 1, "y": 0, "z": 0},
    "camera_up_vector": {"x": 0, "y": 0, "z": 1}, "field_of_view": 50, "aspect_ratio": 4 / 3,
}  # fmt: skip
PARALLEL = {name: at for name, at in CAMERA.items() if name != "field_of_view"}


@pytest.fixture
def at(client, house):
    def ask(method, path, status=200, **more):
        answer = client.request(method, f"/bcf/3.0/projects/{house}{path}", headers=by("Wen Osei"), **more)
        assert answer.status_code == status, answer.text
        return answer.json() if answer.content else None

    return ask


def test_versions_projects_and_what_may_be_said(client, house, at):
    assert client.get("/bcf/versions").json()["versions"][0]["version_id"] == "3.0"
    listed = client.get("/bcf/3.0/projects").json()
    assert (house, "Trial house") in [(each["project_id"], each["name"]) for each in listed]
    make(client, house, "Gap", kind="too near", labels=["door"])
    said = at("GET", "/extensions")
    assert (said["topic_type"][-1], said["topic_label"], said["topic_status"][0]) == ("too near", ["door"], "open")
    assert client.get("/bcf/3.0/projects/none").json() == {
        "message": "There is no such project; list them to see which there are."
    }


def test_a_topic_is_made_changed_and_deleted_and_is_the_same_one_on_the_page(client, house, at):
    wish = {"guid": some_guid(3), "title": "Gap", "topic_type": "problem", "due_date": "2026-12-04T00:00:00Z"}
    made = at("POST", "/topics", 201, json=wish)
    assert (made["guid"], made["server_assigned_id"], made["creation_author"]) == (some_guid(3), "001", "Wen Osei")
    (ours,) = client.get(f"/api/projects/{house}/topics").json()
    assert (ours["guid"], ours["said"]["due"], ours["said"]["status"]) == (some_guid(3), "2026-12-04", "open")
    put = at("PUT", f"/topics/{some_guid(3)}", json={**wish, "title": "The gap", "topic_status": "in hand"})
    assert (put["title"], put["topic_status"], put["modified_author"]) == ("The gap", "in hand", "Wen Osei")
    # What may not follow is refused, in the standard's form.
    client.patch(f"/api/topics/{ours['id']}", json={"status": "settled"})
    wrong = at("PUT", f"/topics/{some_guid(3)}", 400, json={**wish, "topic_status": "asked"})
    assert wrong["message"].startswith("After settled may come open")
    assert "already" in at("POST", "/topics", 400, json=wish)["message"]
    at("DELETE", f"/topics/{some_guid(3)}")
    assert "There is no topic" in at("GET", f"/topics/{some_guid(3)}", 404)["message"]


def test_what_all_interfaces_have_in_common(client):
    listed = client.get("/foundation/versions").json()["versions"]
    assert [(each["api_id"], each["api_base_url"]) for each in listed] == [("foundation", None), ("bcf", "/bcf/3.0")]
    assert client.get("/foundation/1.1/auth").json()["http_basic_supported"] is False
    assert client.get("/foundation/1.1/current-user", headers=by("Wen Osei")).json()["name"] == "Wen Osei"
    assert client.get("/foundation/2.0/auth").json() == {"message": "There is no such address."}


def test_links_types_and_priorities_are_those_of_the_project(client, house, at):
    wish = {"title": "Gap", "reference_links": ["https://example.org/a", "https://example.org/a"]}
    topic = at("POST", "/topics", 201, json=wish)
    assert topic["reference_links"] == ["https://example.org/a"]
    url = f"/topics/{topic['guid']}"
    put = at("PUT", url, json={"title": "Gap", "reference_links": ["http://example.org/b"]})
    assert put["reference_links"] == ["http://example.org/b"]
    assert at("PUT", url, json={"title": "Gap"})["reference_links"] == []
    assert "no address of the web" in at("PUT", url, 400, json={**wish, "reference_links": ["javascript:x"]})["message"]
    for field in ("topic_type", "priority", "topic_status"):
        for method, where in (("POST", "/topics"), ("PUT", url)):
            said = at(method, where, 400, json={"title": "Gap", field: "unheard of"})["message"]
            assert "unheard of" in said, (field, method)
    # What a topic of the page has is one of the project's.
    make(client, house, "Other", kind="too near")
    assert at("POST", "/topics", 201, json={"title": "Third", "topic_type": "too near"})["topic_type"] == "too near"
    # A body that is none is the standard's 400, in its form.
    assert "message" in at("POST", "/topics", 400, json={"title": 7})


def test_topics_are_filtered_and_ordered_in_the_standards_words(client, house, at):
    for title, who, due in (
        ("Duct", "Tam Kerr", "2026-12-01"),
        ("Stair", "Wen Osei", "2026-11-01"),
        ("Pipe", "", None),
    ):
        make(client, house, title, assigned_to=who, due=due, labels=[title.lower()])

    def titles(**query):
        return [t["title"] for t in at("GET", "/topics", params={f"${k}": v for k, v in query.items()})]

    assert titles(filter="assigned_to eq 'Tam Kerr'") == ["Duct"]
    assert titles(filter="due_date lt 2026-11-15T00:00:00Z or contains(title, 'ip')") == ["Stair", "Pipe"]
    assert titles(filter="labels eq 'stair' and not (topic_status eq 'settled')") == ["Stair"]
    assert titles(filter="assigned_to eq null") == ["Pipe"]
    assert titles(orderby="due_date") == ["Stair", "Duct", "Pipe"]
    assert titles(orderby="title desc", top=2) == ["Stair", "Pipe"]
    assert titles(skip=1, top=1) == ["Stair"]
    for wrong in (
        "colour eq 'red'",
        "title is 'x'",
        "title eq 'x",
        "(title eq 'x'",
        "title eq 'x' title",
        "due_date lt 2026-99-01",
    ):
        said = at("GET", "/topics", 400, params={"$filter": wrong})
        assert said["message"].count(".") <= 2
    at("GET", "/topics", 400, params={"$orderby": "title sideways"})


def test_what_another_program_sent_is_sent_back_as_it_came(client, house, at, building):
    known = building(house)["models"][0]["global_ids"][3]
    gone, other = "2gone_________________a", "2gone_________________b"
    topic = at("POST", "/topics", 201, json={"title": "Far"})["guid"]
    lines = [
        {"start_point": {"x": 4, "y": 0, "z": 1}, "end_point": {"x": 9, "y": 6, "z": -2}},
        {"start_point": {"x": 9, "y": 6, "z": -2}, "end_point": {"x": 9, "y": -700, "z": 3}},
        {"start_point": {"x": 1, "y": 1, "z": 1}, "end_point": {"x": 1, "y": 1, "z": 2}},
    ]
    dot = base64.b64encode(png(1, 1)).decode()
    for number, default in ((1, True), (2, False)):
        wish = {
            "guid": some_guid(40 + number), "lines": lines,
            "perspective_camera": {**CAMERA, "field_of_view": 45.0, "aspect_ratio": 1.6},
            "components": {
                "selection": [{"ifc_guid": gone}],
                "coloring": [{"color": "#d98032", "components": [{"ifc_guid": other if default is False else known}]}],
                "visibility": {
                    "default_visibility": default, "exceptions": [{"ifc_guid": g} for g in (known, gone, other)],
                },
            },
            "snapshot": {"snapshot_type": "png", "snapshot_data": dot},
        }  # fmt: skip
        at("POST", f"/topics/{topic}/viewpoints", 201, json=wish)
        here = f"/topics/{topic}/viewpoints/{some_guid(40 + number)}"
        back = at("GET", here)
        assert back["perspective_camera"]["field_of_view"] == pytest.approx(45.0)
        assert back["perspective_camera"]["aspect_ratio"] == pytest.approx(1.6)
        assert back["lines"] == lines
        seen = at("GET", f"{here}/visibility")["visibility"]
        assert seen["default_visibility"] is default
        assert sorted(p["ifc_guid"] for p in seen["exceptions"]) == sorted([known, gone, other])
        assert [p["ifc_guid"] for p in at("GET", f"{here}/selection")["selection"]] == [gone]
        (tint,) = at("GET", f"{here}/coloring")["coloring"]
        assert [p["ifc_guid"] for p in tint["components"]] == [known if default else other]
    # They are kept when the view is saved again from the page.
    kept = client.get(f"/api/projects/{house}/viewpoints").json()[0]["view"]
    assert [markup["kind"] for markup in kept["markups"]] == ["path", "path"]


def test_viewpoints_are_sent_with_what_they_show_and_read_again(client, house, at, building):
    (model,) = building(house)["models"]
    one, other = model["global_ids"][3], model["global_ids"][4]
    topic = at("POST", "/topics", 201, json={"title": "Gap"})["guid"]
    wish = {
        "guid": some_guid(8), "perspective_camera": CAMERA,
        "clipping_planes": [{"location": {"x": 0, "y": 0, "z": 2}, "direction": {"x": 0, "y": 0, "z": 1}}],
        "lines": [{"start_point": {"x": 4, "y": 0, "z": 1}, "end_point": {"x": 4, "y": 1, "z": 1}}],
        "components": {
            "selection": [{"ifc_guid": one}], "coloring": [{"color": "#D98032", "components": [{"ifc_guid": other}]}],
            "visibility": {"default_visibility": False, "exceptions": [{"ifc_guid": one}, {"ifc_guid": other}]},
        },
        "snapshot": {"snapshot_type": "png", "snapshot_data": base64.b64encode(PNG).decode()},
    }  # fmt: skip
    made = at("POST", f"/topics/{topic}/viewpoints", 201, json=wish)
    assert made["perspective_camera"]["field_of_view"] == pytest.approx(50)
    assert made["clipping_planes"] == [
        {"location": {"x": 0.0, "y": 0.0, "z": 2.0}, "direction": {"x": 0.0, "y": 0.0, "z": 1.0}}
    ]
    here = f"/topics/{topic}/viewpoints/{some_guid(8)}"
    assert at("GET", f"{here}/selection")["selection"][0]["ifc_guid"] == one
    assert at("GET", f"{here}/coloring")["coloring"][0]["color"] == "#d98032"
    seen = at("GET", f"{here}/visibility")["visibility"]
    assert (seen["default_visibility"], {p["ifc_guid"] for p in seen["exceptions"]}) == (False, {one, other})
    picture = client.get(f"/bcf/3.0/projects/{house}{here}/snapshot")
    assert (picture.content, picture.headers["content-type"]) == (PNG, "image/png")
    # It is a viewpoint like any other, and its topic is where its component is.
    (kept,) = client.get(f"/api/projects/{house}/viewpoints").json()
    assert kept["view"]["rules"][0]["effect"] == "only"
    (ours,) = client.get(f"/api/projects/{house}/topics").json()
    assert (ours["views"], ours["disciplines"], ours["at_m"] is not None) == ([kept["id"]], ["ARC"], True)
    assert len(at("GET", f"/topics/{topic}/viewpoints")) == 1
    assert "already" in at("POST", f"/topics/{topic}/viewpoints", 400, json=wish)["message"]
    for change, says in (
        ({"perspective_camera": None}, "from where"),
        ({"snapshot": {"snapshot_type": "png", "snapshot_data": "PHN2Zy8+"}}, "neither PNG nor JPEG"),
        ({"snapshot": {"snapshot_type": "png", "snapshot_data": "???"}}, "not base64"),
        ({"snapshot": {"snapshot_type": "png", "snapshot_data": "Tür" * 20}}, "not base64"),
        ({"snapshot": {"snapshot_type": "png", "snapshot_data": vast_png(20_000, 20_000)}}, "40 million pixels"),
        ({"orthogonal_camera": {**PARALLEL, "view_to_world_scale": 4}}, "has one camera"),
        ({"perspective_camera": {**CAMERA, "camera_direction": {"x": 0, "y": 0, "z": 0}}}, "no length"),
    ):
        wrong = {**wish, "guid": some_guid(9), **change}
        if "perspective_camera" in change and change["perspective_camera"] is None:
            wrong["components"] = {}
        assert says in at("POST", f"/topics/{topic}/viewpoints", 400, json=wrong)["message"]


def test_a_viewpoint_is_taken_from_its_topic(client, house, at):
    one, other = (at("POST", "/topics", 201, json={"title": title})["guid"] for title in ("One", "Other"))
    wish = {"guid": some_guid(5), "perspective_camera": CAMERA}
    at("POST", f"/topics/{one}/viewpoints", 201, json=wish)
    (view,) = client.get(f"/api/projects/{house}/viewpoints").json()
    (theirs,) = [t for t in client.get(f"/api/projects/{house}/topics").json() if t["guid"] == other]
    client.patch(f"/api/topics/{theirs['id']}", json={"views": {"add": [view["id"]]}})
    assert at("DELETE", f"/topics/{one}/viewpoints/{some_guid(5)}") is None
    assert at("GET", f"/topics/{one}/viewpoints") == []
    # Another topic has it still; without that one it goes to the bin.
    assert len(client.get(f"/api/projects/{house}/viewpoints").json()) == 1
    at("DELETE", f"/topics/{other}/viewpoints/{some_guid(5)}")
    assert client.get(f"/api/projects/{house}/viewpoints").json() == []
    at("DELETE", f"/topics/{other}/viewpoints/{some_guid(5)}", 404)


def test_comments_are_written_changed_and_deleted(client, house, at):
    topic = at("POST", "/topics", 201, json={"title": "Gap"})["guid"]
    view = at("POST", f"/topics/{topic}/viewpoints", 201, json={"perspective_camera": CAMERA})["guid"]
    made = at("POST", f"/topics/{topic}/comments", 201, json={"comment": "Too narrow.", "viewpoint_guid": view})
    assert (made["comment"], made["author"], made["viewpoint_guid"], made["topic_guid"]) == (
        "Too narrow.",
        "Wen Osei",
        view,
        topic,
    )
    here = f"/topics/{topic}/comments/{made['guid']}"
    assert at("PUT", here, json={"comment": "Far too narrow."})["comment"] == "Far too narrow."
    found = at("GET", f"/topics/{topic}/comments", params={"$filter": "author eq 'Wen Osei'"})
    assert [c["comment"] for c in found] == ["Far too narrow."]
    at("DELETE", here)
    at("GET", here, 404)
    assert at("GET", f"/topics/{topic}/comments") == []
    missing = at("POST", f"/topics/{topic}/comments", 400, json={"comment": "x", "viewpoint_guid": some_guid(99)})
    assert "send it first" in missing["message"]


def test_related_topics_are_said_both_ways_of_asking(client, house, at):
    one, two = (at("POST", "/topics", 201, json={"title": title})["guid"] for title in ("One", "Two"))
    assert at("PUT", f"/topics/{one}/related_topics", json=[{"related_topic_guid": two}]) == [
        {"related_topic_guid": two}
    ]
    assert at("GET", f"/topics/{one}/related_topics") == [{"related_topic_guid": two}]


def test_pictures_in_space_come_in_are_read_and_go_out_again(client, house, at):
    topic = at("POST", "/topics", 201, json={"title": "Gap"})
    standing = {
        "bitmap_type": "png", "bitmap_data": base64.b64encode(PNG).decode(), "location": {"x": 2, "y": 1, "z": 1.5},
        "normal": {"x": 0, "y": -1, "z": 0}, "up": {"x": 0, "y": 0, "z": 1}, "height": 0.8,
    }  # fmt: skip
    url = f"/topics/{topic['guid']}/viewpoints"
    made = at("POST", url, 201, json={"perspective_camera": CAMERA, "bitmaps": [standing]})
    (bitmap,) = made["bitmaps"]
    assert {k: bitmap[k] for k in ("location", "normal", "up", "height")} == {
        k: standing[k] for k in ("location", "normal", "up", "height")
    }
    address = f"/bcf/3.0/projects/{house}{url}/{made['guid']}/bitmaps"
    assert client.get(f"{address}/{bitmap['guid']}").content == PNG
    assert client.get(f"{address}/{some_guid(9)}").status_code == 404
    (kept,) = client.get(f"/api/projects/{house}/viewpoints").json()
    assert [each["height_m"] for each in kept["view"]["pictures"]] == [0.8]
    for wrong in ({"bitmap_data": "****"}, {"normal": {"x": 0, "y": 0, "z": 0}}, {"height": 0}):
        at("POST", url, 400, json={"perspective_camera": CAMERA, "bitmaps": [{**standing, **wrong}]})


def test_documents_are_listed_read_and_attached(client, house, at):
    topic = at("POST", "/topics", 201, json={"title": "Gap"})
    (row,) = client.get(f"/api/projects/{house}/topics").json()
    client.post(f"/api/topics/{row['id']}/files", content=b"40 mm", headers={"X-File-Name": "note.txt"})
    (document,) = at("GET", "/documents")
    assert document["filename"] == "note.txt"
    assert client.get(f"/bcf/3.0/projects/{house}/documents/{document['guid']}").content == b"40 mm"
    at("GET", f"/documents/{some_guid(8)}", 404)
    url = f"/topics/{topic['guid']}/document_references"
    at("POST", url, 201, json={"url": "https://example.org/plan.pdf", "description": "The plan"})
    other = at("POST", "/topics", 201, json={"title": "The same gap"})
    at("POST", f"/topics/{other['guid']}/document_references", 201, json={"document_guid": document["guid"]})
    first, second = at("GET", url)
    assert (first["document_guid"], second["url"], second["description"]) == (
        document["guid"], "https://example.org/plan.pdf", "The plan",
    )  # fmt: skip
    for wrong in (
        {},
        {"url": "https://example.org", "document_guid": document["guid"]},
        {"url": "javascript:alert(1)"},
        {"url": "file:///etc/passwd"},
        {"document_guid": some_guid(7)},
    ):
        at("POST", url, 400, json=wrong)
    assert [each["filename"] for each in at("GET", f"/topics/{topic['guid']}/files")] == ["T-ARC.ifc"]


def test_what_was_done_is_told_in_the_standards_words(client, house, at):
    topic = at("POST", "/topics", 201, json={"title": "Gap", "labels": ["door"]})
    url = f"/topics/{topic['guid']}"
    at(
        "PUT",
        url,
        json={"title": "Gap", "topic_status": "asked", "labels": ["fire"], "due_date": "2026-12-04T00:00:00Z"},
    )
    at("POST", f"{url}/comments", 201, json={"comment": "Whose is it?"})
    made, changed = at("GET", f"{url}/events")
    assert (made["actions"][0]["type"], made["author"]) == ("topic_created", "Wen Osei")
    assert {(each["type"], each["value"]) for each in changed["actions"]} == {
        ("status_updated", "asked"), ("due_date_updated", "2026-12-04"), ("label_added", "fire"), ("label_removed", "door"),
    }  # fmt: skip
    assert at("GET", "/topics/events") == [made, changed]
    (written,) = at("GET", f"{url}/comments/events")
    assert written["actions"] == [{"type": "comment_created", "value": "Whose is it?"}]
