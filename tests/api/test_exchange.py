"""Files of topics: out and in again the same, merged field by field, and whatever strangers send."""

from __future__ import annotations

import base64
import codecs
import csv
import dataclasses
import io
import re
import zipfile
from datetime import UTC, date, datetime, timedelta
from pathlib import Path
from types import SimpleNamespace
from urllib.parse import quote

import openpyxl
import pytest
from PIL import Image
from sqlalchemy import text

from stairpath.core.exchange.bcf import VERSIONS, opened, writing
from stairpath.core.exchange.topic import Bitmap, Camera, Comment, Component, Topic, Viewpoint
from stairpath.store.database import transaction
from tests.api.test_door import vast_png
from tests.api.test_topics import make, told
from tests.api.test_views import rule
from tests.asking import by
from tests.building import resolved
from tests.core.test_exchange import TOPIC, VIEW, WHEN, altered
from tests.exchanged import PNG, check_valid, png, some_guid
from tests.samples import simple

EYE = {
    "eye_m": [2.0, 1.0, 1.6], "target_m": [8.0, 1.0, 1.6], "up": [0, 0, 1],
    "projection": "perspective", "angle_deg": 60, "height_m": 3,
}  # fmt: skip
MARKUP = {
    "id": "m1", "kind": "callout", "points_m": [[8, 1, 1.6], [8, 1.5, 2.2]], "eye": EYE, "aspect": 4 / 3,
    "text": "Too narrow here", "by": "Ida Fenn",
}  # fmt: skip


@pytest.fixture
def ids(client, house, building):
    """The house's model by its id, and its components by their GlobalIds."""
    (model,) = building(house)["models"]
    return SimpleNamespace(id=model["id"], global_ids=model["global_ids"])


def kept_view(client, project, picked, rules=(), **more):
    body = {
        "name": "At the gap", "picture_png": base64.b64encode(PNG).decode(),
        "view": {"version": 2, "eye": EYE, "rules": list(rules), "picked": {"kind": "these", "of": picked}, **more},
    }  # fmt: skip
    answer = client.post(f"/api/projects/{project}/viewpoints", json=body)
    assert answer.status_code == 201, answer.text
    return answer.json()


def saved(client, project, version, *only):
    answer = client.get(f"/api/projects/{project}/topics/file", params={"version": version, "topic": list(only)})
    assert answer.status_code == 200, answer.text
    return answer.content


def sent(client, project, data, name="from elsewhere.bcf"):
    headers = {"X-File-Name": quote(name), **by("Mara Oake")}
    return client.post(f"/api/projects/{project}/topics/files", content=data, headers=headers)


def taken(client, project, work, data, **more):
    """The report on a file that was sent."""
    answer = sent(client, project, data, **more)
    assert answer.status_code == 201, answer.text
    work()
    task = next(e for e in client.get(f"/api/projects/{project}/tasks").json() if e["id"] == answer.json()["id"])
    assert task["status"] == "done", task["message"]
    return client.get(f"/api/tasks/{task['id']}/report").json()


def listed(client, project):
    return client.get(f"/api/projects/{project}/topics").json()


def file_of(*these, version="3.0"):
    out = io.BytesIO()
    with writing(out, version, "Elsewhere") as into:
        for topic in these:
            into.put(topic)
    return out.getvalue()


def read(data, tmp_path):
    path = Path(tmp_path) / "x.bcf"
    path.write_bytes(data)
    with opened(path) as held:
        found = list(held.topics())
    return found, held


def recorded(told):
    """What a topic's history says of imports."""
    return [c["new"] for note in told["notes"] for c in note["changed"] if c["field"] == "import"]


@pytest.mark.parametrize("version", VERSIONS)
def test_what_goes_out_comes_in_as_the_same(client, house, work, ids, version, tmp_path):
    picked = {ids.id: [ids.global_ids[3]]}
    view = kept_view(
        client, house, picked, rules=[rule({"kind": "of", "what": "level", "value": "01"}, "hide")],
        cuts=[{"id": "c1", "shape": {"kind": "plane", "point_m": [0, 0, 2], "normal": [0, 0, 1]}}], markups=[MARKUP],
    )  # fmt: skip
    topic = make(
        client, house, "Gap too narrow", views=[view["id"]], labels=["door"], due="2026-12-04", kind="too near"
    )
    note = client.post(f"/api/topics/{topic['id']}/comments", json={"text": "Measured: 720 mm.", "view": view["id"]})
    assert note.status_code == 201
    client.post(f"/api/topics/{topic['id']}/files", content=b"%PDF", headers={"X-File-Name": "note.pdf"})
    data = saved(client, house, version)
    check_valid(data, version)
    (out,), held = read(data, tmp_path)
    assert (held.project_name, out.title, out.labels, out.comments[0].text) == (
        "Trial house", "Gap too narrow", ("door",), "Measured: 720 mm.",
    )  # fmt: skip
    (seen,) = out.viewpoints
    assert [c.global_id for c in seen.selected] == [ids.global_ids[3]]
    # One component of nine is hidden, so the others are shown by default.
    assert (seen.default_visible, len(seen.exceptions), len(seen.planes)) == (True, 1, 1)
    # Who knows no markups sees lines, words as a picture in space, and the picture of the view.
    assert len(seen.lines) > 3
    assert (len(seen.bitmaps), seen.snapshot) == (1, PNG)
    before = told(client, topic)
    assert client.delete(f"/api/topics/{topic['id']}").status_code == 204
    client.delete(f"/api/viewpoints/{view['id']}")
    report = taken(client, house, work, data)
    assert (report["new"], report["changed"], report["problems"]) == (0, 1, [])
    after = told(client, topic)
    same = ("reference", "said", "views", "guid", "related", "author", "created_at", "level", "room", "at_m")
    assert {k: after["topic"][k] for k in same} == {k: before["topic"][k] for k in same}
    assert [f["name"] for f in after["files"]] == ["note.pdf"]
    assert client.get(f"/api/viewpoints/{view['id']}").json()["view"] == view["view"]
    assert "Was deleted and restored" in recorded(after)[-1]
    # Once more changes nothing.
    report = taken(client, house, work, data)
    assert (report["new"], report["changed"], report["same"]) == (0, 0, 1)
    assert told(client, topic) == after


@pytest.mark.parametrize("version", VERSIONS)
def test_a_topic_comes_into_another_project_whole(client, house, project, work, ids, version, send):
    view = kept_view(client, house, {ids.id: [ids.global_ids[3]]}, markups=[MARKUP])
    make(client, house, "First", views=[])
    topic = make(client, house, "Gap too narrow", views=[view["id"]])
    other = client.post("/api/projects", json={"name": "The other"}).json()["id"]
    client.post(f"/api/projects/{other}/visits")
    report = taken(client, other, work, saved(client, house, version, topic["id"]))
    assert (report["new"], report["unknown"]) == (1, [ids.global_ids[3]])
    (there,) = listed(client, other)
    # It is new here though it was made before the visit. The number is kept where it is free; the view with its markup is there.
    assert (there["number"], there["said"]["title"], there["new"]) == (2, "Gap too narrow", True)
    (back,) = client.get(f"/api/projects/{other}/viewpoints").json()
    assert back["view"]["markups"] == client.get(f"/api/viewpoints/{view['id']}").json()["view"]["markups"]
    assert back["name"] == "At the gap"


def test_what_two_sides_changed_is_merged_by_field_and_nothing_is_lost(client, house, work, tmp_path):
    topic = make(client, house, "Gap too narrow", description="At the door")
    data = saved(client, house, "3.0")
    client.patch(f"/api/topics/{topic['id']}", json={"assigned_to": "Tam Kerr", "title": "Gap is too narrow"})
    (out,), _ = read(data, tmp_path)
    later = out.modified_at + timedelta(days=1)
    theirs = dataclasses.replace(
        out, title="The gap", priority="high", labels=("water",), modified_by="Wen Osei", modified_at=later,
        comments=(Comment(some_guid(5), "Wen Osei", later, "<script>alert(1)</script>"),),
    )  # fmt: skip
    client.post(f"/api/topics/{topic['id']}/looked")
    report = taken(client, house, work, file_of(theirs))
    assert (report["new"], report["changed"]) == (0, 1)
    assert [each["new"] for each in listed(client, house)] == [True]
    after = told(client, topic)
    said = after["topic"]["said"]
    # Each side's own changes count; where both changed the title ours stays, and theirs is told with its time.
    assert (said["title"], said["assigned_to"], said["priority"], said["labels"]) == (
        "Gap is too narrow", "Tam Kerr", "high", ["water"],
    )  # fmt: skip
    assert any("The gap there (Wen Osei" in text and "Gap is too narrow here" in text for text in recorded(after))
    assert "<script>alert(1)</script>" in [note["text"] for note in after["notes"]]
    count = len(after["notes"])
    assert taken(client, house, work, file_of(theirs))["same"] == 1
    assert len(told(client, topic)["notes"]) == count


@pytest.mark.parametrize(("moved_s", "status"), [(0, "in hand"), (60, "in hand"), (-60, "open")])
def test_another_status_of_a_file_counts_unless_it_was_changed_here_since(
    client, house, work, tmp_path, moved_s, status
):
    topic = make(client, house, "Gap too narrow")
    (out,), _ = read(saved(client, house, "3.0"), tmp_path)
    # Other programs leave out what is ours beside the topic, and some do not move the time of the change.
    at = out.modified_at + timedelta(seconds=moved_s)
    theirs = dataclasses.replace(out, status="in hand", modified_at=at, documents=())
    report = taken(client, house, work, file_of(theirs))
    after = told(client, topic)
    assert (after["topic"]["said"]["status"], report["same"]) == (status, 0)
    differs = [text for text in recorded(after) if "status: open here" in text and "in hand there" in text]
    assert len(differs) == (status == "open")


def test_what_an_import_records_is_no_comment_of_the_next_file(client, house, work, tmp_path):
    make(client, house, "Gap too narrow")
    (out,), _ = read(saved(client, house, "3.0"), tmp_path)
    other = client.post("/api/projects", json={"name": "Elsewhere"}).json()["id"]
    taken(client, other, work, file_of(dataclasses.replace(out, documents=())))
    (topic,) = listed(client, other)
    assert recorded(told(client, topic)) == ["Imported from from elsewhere.bcf."]
    (again,), _ = read(saved(client, other, "3.0"), tmp_path)
    assert again.comments == out.comments == ()


def test_a_reference_that_is_quoted_stays_in_a_project_without_the_models(client, house, work, tmp_path):
    make(client, house, "Duct in the beam", disciplines=["STR", "STR", "AIR"])
    (here,) = listed(client, house)
    assert here["reference"].startswith("STR-AIR ")
    data = saved(client, house, "3.0")
    other = client.post("/api/projects", json={"name": "Empty yet"}).json()["id"]
    taken(client, other, work, data)
    assert [topic["reference"] for topic in listed(client, other)] == [here["reference"]]
    # The same from a program that keeps nothing but the reference.
    third = client.post("/api/projects", json={"name": "Third"}).json()["id"]
    (out,), _ = read(data, tmp_path)
    taken(client, third, work, file_of(dataclasses.replace(out, documents=())))
    assert [topic["reference"] for topic in listed(client, third)] == [here["reference"]]


def test_what_has_no_readable_date_is_of_now_and_not_of_1970(client, house, work):
    def change(name, part):
        if not name.endswith("markup.bcf"):
            return part
        return re.sub(b"<(CreationDate|Date|ModifiedDate)>.*?<", rb"<\1>yesterday<", part)

    report = taken(client, house, work, altered(file_of(TOPIC), change))
    assert [p["text"] for p in report["problems"] if "no date" in p["text"]]
    (topic,) = listed(client, house)
    now = datetime.now(UTC)
    for at in (topic["created_at"], *(note["at"] for note in told(client, topic)["notes"])):
        assert abs(datetime.fromisoformat(at) - now) < timedelta(minutes=5)


def test_a_file_of_another_program_comes_in_and_its_components_are_found_once_a_model_brings_them(
    client, project, work, send, ids
):
    known = ids.global_ids[3]
    other = client.post("/api/projects", json={"name": "Empty yet"}).json()["id"]
    view = dataclasses.replace(VIEW, exceptions=(Component(known),), selected=(Component(known),), colours=())
    strange = dataclasses.replace(TOPIC, status="Active", viewpoints=(view,))
    report = taken(client, other, work, file_of(strange, version="2.1"))
    assert (report["new"], report["unknown"]) == (1, [known])
    (topic,) = listed(client, other)
    assert (topic["said"]["status"], topic["said"]["kind"], topic["level"]) == ("Active", "overlap", "")
    # A status that the project does not have stays until another is chosen.
    assert client.patch(f"/api/topics/{topic['id']}", json={"due": None}).json()["said"]["status"] == "Active"
    assert client.patch(f"/api/topics/{topic['id']}", json={"status": "in hand"}).json()["said"]["status"] == "in hand"
    (kept,) = client.get(f"/api/projects/{other}/viewpoints").json()
    assert kept["view"]["rules"][0]["effect"] == "only"
    assert kept["view"]["cuts"][0]["shape"]["normal"] == [0, 0, 1]
    from tests.api.conftest import two_rooms

    send(other, "T-ARC.ifc", two_rooms())
    work()
    (model,) = client.get(f"/api/projects/{other}/federation").json()["models"]
    assert model["name"] == "T-ARC"
    answer = resolved(client, other, kept["view"]["rules"])
    assert (answer["shown"], answer["rules"][0]["gone"]) in ((1, 0), (0, 1))


def test_views_about_another_origin_are_told_and_moved_on_request(client, house, work, ids):
    far = (355_000.0, 412_000.0, 12.0)

    def looking(guid, eye, direction):
        camera = Camera(tuple(e + f for e, f in zip(eye, far, strict=True)), direction, (0, 0, 1), "perspective", 60.0)
        return Viewpoint(guid, camera, selected=(Component(ids.global_ids[3]),), snapshot=PNG)

    views = (
        looking(some_guid(21), (-6.0, 1.5, 1.35), (1.0, 0.0, 0.0)),
        looking(some_guid(22), (-0.1, -9, 1.35), (0.0, 1.0, 0.0)),
    )
    topic = Topic(some_guid(20), "Seen from afar", "Wen Osei", WHEN, viewpoints=views)
    answer = sent(client, house, file_of(topic))
    work()
    report = client.get(f"/api/tasks/{answer.json()['id']}/report").json()
    assert report["shift_m"] == pytest.approx([-f for f in far], abs=3)
    # Asked for once more with the shift: what came in before is moved by it.
    wish = {"wish": {"kind": "topics", "shift_m": report["shift_m"]}}
    assert client.post(f"/api/tasks/{answer.json()['id']}/again", json=wish).status_code == 200
    work()
    report = client.get(f"/api/tasks/{answer.json()['id']}/report").json()
    assert report["shift_m"] is None
    eyes = [v["view"]["eye"]["eye_m"] for v in client.get(f"/api/projects/{house}/viewpoints").json()]
    assert all(abs(c) < 20 for eye in eyes for c in eye)


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (b"", "is no file of topics"),
        (b"PK\x03\x04 cut short", "is no file of topics"),
        (altered(file_of(TOPIC), lambda n, p: p.replace(b"3.0", b"4.2")), "is of version 4.2"),
    ],
)
def test_a_file_that_is_none_is_refused_by_its_own_name(client, project, data, says):
    answer = sent(client, project, data, name="Süd.bcf")
    assert answer.status_code == 422
    assert answer.json()["detail"].startswith("Süd.bcf")
    assert says in answer.json()["detail"]


def test_what_cannot_be_read_is_said_and_the_others_come_in(client, project, work):
    other = dataclasses.replace(
        TOPIC, guid=some_guid(9), title="The other one", viewpoints=(), documents=(), comments=()
    )
    data = altered(file_of(TOPIC, other), lambda n, p: p[:300] if n == f"{TOPIC.guid}/markup.bcf" else p)
    report = taken(client, project, work, data)
    assert (report["new"], len(report["problems"])) == (1, 1)
    assert report["problems"][0]["topic"] == TOPIC.guid
    assert [each["said"]["title"] for each in listed(client, project)] == ["The other one"]


def test_files_are_attached_to_a_topic_saved_and_taken_away_with_undo(client, project):
    topic = make(client, project, "Gap")
    sends = {"X-File-Name": quote("../Zeichnung ä.pdf"), **by("Tam Kerr")}
    made = client.post(f"/api/topics/{topic['id']}/files", content=b"%PDF-1.7", headers=sends)
    assert (made.status_code, made.json()["name"], made.json()["size"]) == (201, "Zeichnung ä.pdf", 8)
    got = client.get(f"/api/topic-files/{made.json()['id']}")
    assert got.content == b"%PDF-1.7"
    assert got.headers["content-disposition"].startswith("attachment")
    assert client.delete(f"/api/topic-files/{made.json()['id']}").status_code == 204
    assert told(client, topic)["files"] == []
    assert client.get(f"/api/topic-files/{made.json()['id']}").status_code == 410
    assert client.post(f"/api/topic-files/{made.json()['id']}/restore").status_code == 204
    assert [f["name"] for f in told(client, topic)["files"]] == ["Zeichnung ä.pdf"]
    assert told(client, topic)["notes"][0]["changed"][0]["new"] == "Zeichnung ä.pdf"


def test_a_file_offers_all_words_of_the_project(client, project):
    make(client, project, "Gap too narrow", kind="problem", priority="high")
    with zipfile.ZipFile(io.BytesIO(saved(client, project, "3.0"))) as held:
        text = held.read("extensions.xml").decode()
    rules = client.get(f"/api/projects/{project}/topic-rules").json()
    for tag, words in (
        ("TopicStatus", [each["name"] for each in rules["statuses"]]),
        ("TopicType", rules["kinds"]),
        ("Priority", rules["priorities"]),
    ):
        assert sorted(re.findall(f"<{tag}>(.*?)</{tag}>", text)) == sorted(words)
        assert len(words) > 2


def test_the_file_is_a_zip_that_others_open(client, project):
    make(client, project, "Gap")
    names = zipfile.ZipFile(io.BytesIO(saved(client, project, "3.0"))).namelist()
    assert {"bcf.version", "project.bcfp", "extensions.xml", "documents.xml"} <= set(names)
    missing = client.get(f"/api/projects/{project}/topics/file", params={"topic": ["gone"]})
    assert missing.status_code == 422


def test_a_file_of_many_megabytes_is_taken(client, project, work):
    large = dataclasses.replace(VIEW, exceptions=(), selected=(), colours=(), snapshot=PNG + b"\0" * (3 << 20))
    data = io.BytesIO()
    small = io.BytesIO(file_of(dataclasses.replace(TOPIC, viewpoints=(large,))))
    with zipfile.ZipFile(small) as held, zipfile.ZipFile(data, "w") as plain:
        for name in held.namelist():
            plain.writestr(name, held.read(name))
    assert taken(client, project, work, data.getvalue())["new"] == 1


def test_a_list_for_a_spreadsheet_has_pictures_and_nothing_runs(client, house, ids):
    view = kept_view(client, house, {ids.id: [ids.global_ids[3]]})
    said = {"due": "2026-01-09", "labels": ["door", "fire"], "description": "Over the door."}
    topic = make(client, house, "=HYPERLINK(1)", views=[view["id"]], **said)
    client.post(f"/api/topics/{topic['id']}/comments", json={"text": "Seen."})
    make(client, house, "Another")
    plain = client.get(f"/api/projects/{house}/topics/list", params={"form": "csv"})
    assert plain.content.startswith(codecs.BOM_UTF8)
    heading, first, second = csv.reader(io.StringIO(plain.content.decode("utf-8-sig")))
    row = dict(zip(heading, first, strict=True))
    assert (row["reference"], row["title"], row["due"], row["overdue"]) == (
        "ARC 001",
        "'=HYPERLINK(1)",
        "2026-01-09",
        "yes",
    )
    assert (row["labels"], row["comments"], second[1]) == ("door, fire", "1", "Another")
    assert row["description"] == "Over the door."
    assert row["what was said"].endswith(", Somebody: Seen.")
    assert row["link"].endswith(f"/p/{house}/t/{topic['id']}")
    book = client.get(f"/api/projects/{house}/topics/list", params={"topic": [topic["id"]]})
    sheet = openpyxl.load_workbook(io.BytesIO(book.content))["Topics"]
    assert (sheet.max_row, sheet["C2"].value, sheet["C2"].data_type) == (2, "=HYPERLINK(1)", "s")
    due = sheet[2][[cell.value for cell in sheet[1]].index("due")]
    assert (due.is_date, due.value.date()) == (True, date(2026, 1, 9))
    assert sheet.auto_filter.ref == sheet.dimensions
    assert [n for n in zipfile.ZipFile(io.BytesIO(book.content)).namelist() if n.startswith("xl/media/")] == [
        "xl/media/image1.png"
    ]


def test_figures_and_texts_without_end_in_a_file_harm_nobody(client, house, work, ids):
    """Whatever stands in the format's part, or beside it, the project's lists are still read."""
    far = Camera((1e300, 0.0, 0.0), (1.0, 0.0, 0.0), (0.0, 0.0, 1.0), "perspective", 60.0)
    flat = Camera((0.0, 0.0, 0.0), (0.0, 0.0, 1.0), (0.0, 0.0, 1.0), "parallel", height_m=1e12)
    odd = Viewpoint(some_guid(31), VIEW.camera, selected=(Component("x" * 5000),), snapshot=b"<svg onload=alert(1)>")
    views = (Viewpoint(some_guid(32), far), Viewpoint(some_guid(33), flat), odd)
    topic = dataclasses.replace(
        TOPIC, guid=some_guid(30), viewpoints=views, comments=(), documents=(), title="T" * 900, kind="k" * 900,
        labels=tuple(f"{k}" * 300 for k in range(90)), assigned_to="a" * 900,
    )  # fmt: skip
    view = kept_view(client, house, {ids.id: [ids.global_ids[3]]})
    mine = make(client, house, "Mine", views=[view["id"]])
    data = saved(client, house, "3.0", mine["id"])
    spoiled = altered(
        data,
        lambda n, p: p.replace(b"[8.0,1.0,1.6]", b"[8e300,1.0,1.6]").replace(b'"angle_deg":60.0', b'"angle_deg":999'),
    )
    client.delete(f"/api/topics/{mine['id']}")
    client.delete(f"/api/viewpoints/{view['id']}")
    for file in (file_of(topic), spoiled):
        report = taken(client, house, work, file)
        assert report["new"] + report["changed"] == 1
    kept = client.get(f"/api/projects/{house}/viewpoints")
    assert kept.status_code == 200
    assert {v["name"][:4] for v in kept.json()} <= {"TTTT", "At t"}
    assert {len(t["said"]["kind"]) for t in listed(client, house)} == {0, 200}
    assert client.get(f"/api/projects/{house}/topics/file").status_code == 200


@pytest.mark.parametrize("version", VERSIONS)
def test_pictures_in_space_of_another_program_stay_with_their_view(client, house, work, ids, version, tmp_path):
    hung = Bitmap("png", PNG, (8.0, 1.0, 2.0), (-1.0, 0.0, 0.0), (0.0, 0.0, 1.0), 0.6)
    view = dataclasses.replace(VIEW, selected=(Component(ids.global_ids[0]),), exceptions=(), bitmaps=(hung,), lines=())
    path = tmp_path / "theirs.bcf"
    with writing(path, version, "Theirs") as into:
        into.put(dataclasses.replace(TOPIC, viewpoints=(view,), documents=()))
    sent(client, house, path.read_bytes())
    work()
    (kept,) = client.get(f"/api/projects/{house}/viewpoints").json()
    (picture,) = kept["view"]["pictures"]
    assert (picture["at_m"], picture["height_m"]) == ([8.0, 1.0, 2.0], 0.6)
    assert client.get(f"/api/projects/{house}/blobs/{picture['sha256']}").content == PNG
    # With words of a markup beside it, out and in again, neither is doubled.
    with_words = {**kept["view"], "markups": [MARKUP]}
    client.put(f"/api/viewpoints/{kept['id']}/view", json={"picture_png": png_text(), "view": with_words})
    out = tmp_path / "ours.bcf"
    out.write_bytes(saved(client, house, version))
    with opened(out) as held:
        (topic,) = held.topics()
    assert [each.data == PNG for each in topic.viewpoints[0].bitmaps] == [False, True]
    other = client.post("/api/projects", json={"name": "Other"}).json()["id"]
    sent(client, other, out.read_bytes())
    work()
    (again,) = client.get(f"/api/projects/{other}/viewpoints").json()
    assert [each["sha256"] for each in again["view"]["pictures"]] == [picture["sha256"]]
    assert len(again["view"]["markups"]) == 1


def png_text() -> str:
    return base64.b64encode(PNG).decode()


def vast(width, height):
    return base64.b64decode(vast_png(width, height))


def test_a_time_that_no_list_could_be_read_with_is_told_and_left_out(client, house, work):
    late = "<CreationDate>0001-01-01T00:00:00+14:00</CreationDate>"

    def change(name, part):
        return re.sub(b"<CreationDate>.*?</CreationDate>", late.encode(), part) if name.endswith("markup.bcf") else part

    report = taken(client, house, work, altered(file_of(TOPIC), change))
    assert [p["text"] for p in report["problems"] if "1900 to 2200" in p["text"]]
    (topic,) = listed(client, house)
    assert topic["said"]["title"] == TOPIC.title
    for path in ("viewpoints", "meetings", "topics/file", "topics/list"):
        assert client.get(f"/api/projects/{house}/{path}").status_code == 200, path
    assert client.get(f"/bcf/3.0/projects/{house}/topics").status_code == 200


@pytest.mark.parametrize("day", ["0001-01-01", "1899-12-31", "2201-01-01", "9999-12-31"])
def test_days_outside_of_what_is_kept_are_refused_in_a_sentence(client, house, day):
    topic = make(client, house, "Gap")
    meeting = client.post(f"/api/projects/{house}/meetings", json={"title": "First"}).json()
    client.put(f"/api/topics/{topic['id']}/question", json={"text": "May it go lower?"})
    for verb, path, body in (
        ("post", f"projects/{house}/topics", {"title": "x", "due": day}),
        ("patch", f"topics/{topic['id']}", {"due": day}),
        ("put", f"topics/{topic['id']}/answer", {"text": "Yes.", "on": day}),
        ("post", f"projects/{house}/meetings", {"title": "x", "held_on": day}),
        ("patch", f"meetings/{meeting['id']}", {"held_on": day}),
        ("post", f"meetings/{meeting['id']}/points", {"topic": topic["id"], "text": "x", "until": day}),
    ):
        answer = client.request(verb, f"/api/{path}", json=body)
        assert (answer.status_code, "1900 to 2200" in answer.json()["detail"]) == (422, True), (path, answer.text)
    answer = client.post(f"/bcf/3.0/projects/{house}/topics", json={"title": "x", "due_date": f"{day}T00:00:00Z"})
    assert (answer.status_code, "1900 to 2200" in answer.json()["message"]) == (400, True)


def test_a_vast_picture_is_left_out_of_a_file_and_a_large_one_is_made_small_once(client, house, work):
    camera = Camera((2, 1, 1.6), (1, 0, 0), (0, 0, 1), "perspective", 60.0)
    views = tuple(
        Viewpoint(some_guid(30 + k), camera, snapshot=picture)
        for k, picture in enumerate((vast(20_000, 20_000), png(2000, 1250)))
    )
    report = taken(client, house, work, file_of(dataclasses.replace(TOPIC, viewpoints=views)))
    assert [p for p in report["problems"] if "more than 40 million pixels" in p["text"]]
    first, second = client.get(f"/api/projects/{house}/viewpoints").json()
    large = next(v for v in (first, second) if v["large"])
    small = Image.open(io.BytesIO(client.get(f"/api/projects/{house}/blobs/{large['picture']}").content))
    assert (small.width, client.get(f"/api/projects/{house}/blobs/{large['large']}").content) == (
        720,
        views[1].snapshot,
    )
    # It goes out as it came.
    with zipfile.ZipFile(io.BytesIO(saved(client, house, "3.0"))) as held:
        assert views[1].snapshot in [held.read(name) for name in held.namelist() if name.endswith(".png")]


def test_a_control_character_in_one_title_or_name_breaks_no_table(client, project, send, work):
    sample = simple()
    sample.box(sample.ifc.by_type("IfcBuildingStorey")[0], (0, 9, 0), (1, 1, 1), Name="Tank\x1b[7m", Tag="T\x07-1")
    send(project, "QH-ARC.ifc", sample)
    work()
    make(client, project, "Duct\x1b in the\x00 beam")
    assert client.get(f"/api/projects/{project}/topics").json()[0]["said"]["title"] == "Duct in the beam"
    wish = {"steps": ["name"], "columns": ["tag"]}
    for answer in (
        client.get(f"/api/projects/{project}/topics/list", params={"form": "xlsx"}),
        client.post(f"/api/projects/{project}/schedule/xlsx", json=wish),
    ):
        assert answer.status_code == 200, answer.text
        sheet = openpyxl.load_workbook(io.BytesIO(answer.content)).active
        assert sheet.max_row > 1
    assert "Tank[7m" in str([cell.value for row in sheet.rows for cell in row])


def test_rows_that_cannot_be_read_never_take_the_list_with_them(client, house):
    whole, odd = make(client, house, "Whole"), make(client, house, "Of another age")
    view, broken = (kept_view(client, house, {})["id"] for _ in range(2))
    with transaction() as session:
        session.execute(
            text("UPDATE topic SET created_at = '0001-01-01T00:00:00+14:00' WHERE id = :id"), {"id": odd["id"]}
        )
        session.execute(text("UPDATE viewpoint SET view = '{\"version\": 2}' WHERE id = :id"), {"id": broken})
    assert [t["id"] for t in listed(client, house)] == [whole["id"], odd["id"]]
    assert [v["id"] for v in client.get(f"/api/projects/{house}/viewpoints").json()] == [view]
    assert client.get(f"/api/viewpoints/{broken}").status_code == 404


def previewed(client, project, work, data):
    """What a file would bring, as it was sent to be told first; and the task that tells it."""
    headers = {"X-File-Name": quote("from elsewhere.bcf"), **by("Mara Oake")}
    answer = client.post(f"/api/projects/{project}/topics/files?preview=true", content=data, headers=headers)
    assert answer.status_code == 201, answer.text
    work()
    return client.get(f"/api/tasks/{answer.json()['id']}/preview").json(), answer.json()["id"]


def test_a_file_is_told_before_it_is_imported_and_its_words_are_remembered(client, house, work, tmp_path):
    topic = make(client, house, "Gap too narrow", assigned_to="Wen Osei")
    (out,), _ = read(saved(client, house, "3.0"), tmp_path)
    later = out.modified_at + timedelta(days=1)
    theirs = dataclasses.replace(
        out, status="Closed", kind="Clash", priority="Critical", assigned_to="w.osei@example.org", documents=(),
        modified_by="w.osei@example.org", modified_at=later, comments=(Comment(some_guid(5), "Nia Brand", later, "Done"),),
    )  # fmt: skip
    other = dataclasses.replace(theirs, guid=some_guid(8), title="Duct", status="open", viewpoints=(), comments=())
    found, task = previewed(client, house, work, file_of(theirs, other))
    assert (found["new"], found["changed"], found["same"], found["comments"]) == (1, 1, 0, 1)
    unknown = {(each["field"], each["word"]): each["count"] for each in found["unknown"]}
    assert unknown == {
        ("status", "Closed"): 1, ("kind", "Clash"): 2, ("priority", "Critical"): 2,
        ("people", "w.osei@example.org"): 2, ("people", "Nia Brand"): 1,
    }  # fmt: skip
    told_fields = {each["field"]: (each["here"], each["there"], each["kept"]) for each in found["differences"]}
    assert told_fields["status"] == ("open", "Closed", False)
    assert told_fields["assigned_to"] == ("Wen Osei", "w.osei@example.org", False)
    # Nothing came in yet.
    assert told(client, topic)["topic"]["said"]["status"] == "open"
    assert len(listed(client, house)) == 1
    words = {
        "status": {"Closed": "settled"}, "kind": {"Clash": "problem"}, "priority": {"Critical": "high"},
        "people": {"w.osei@example.org": "Wen Osei"},
    }  # fmt: skip
    again = {"wish": {"kind": "topics", "preview": False, "words": words}}
    assert client.post(f"/api/tasks/{task}/again", json=again).status_code == 200
    work()
    assert client.get(f"/api/tasks/{task}/report").json()["new"] == 1
    said = told(client, topic)["topic"]["said"]
    assert (said["status"], said["kind"], said["priority"], said["assigned_to"]) == (
        "settled", "problem", "high", "Wen Osei",
    )  # fmt: skip
    # The next file is read with the same words: it would change nothing more, and what is not known is told still.
    found, _ = previewed(client, house, work, file_of(theirs, other))
    assert (found["new"], found["changed"], found["same"], found["differences"]) == (0, 0, 2, [])
    assert {each["word"]: each["becomes"] for each in found["unknown"]} == {
        "Closed": "settled", "Clash": "problem", "Critical": "high", "w.osei@example.org": "Wen Osei",
    }  # fmt: skip
    # Setting the rules forgets none of them.
    rules = client.get(f"/api/projects/{house}/topic-rules").json()
    same = [{**each, "was": each["name"]} for each in rules["statuses"]]
    assert client.put(f"/api/projects/{house}/topic-rules", json={**rules, "statuses": same}).status_code == 200
    found, _ = previewed(client, house, work, file_of(theirs, other))
    assert found["changed"] == 0
