"""Names of people: a new one is said everywhere, one of a file is matched once, and of who was removed none is left."""

from __future__ import annotations

import dataclasses
import json
from datetime import UTC, datetime, timedelta

import pytest
from sqlalchemy import text

from stairpath.core.exchange.topic import Comment, Topic
from stairpath.store import record
from stairpath.store.database import transaction
from tests.api.conftest import GOOD
from tests.api.test_exchange import file_of, read
from tests.api.test_views import png, view_of
from tests.exchanged import some_guid

SHEET = {"name": "Plan", "wish": {"kind": "sheet", "shape": {"kind": "plane", "point_m": [0, 0, 1], "normal": [0, 0, 1]}}}  # fmt: skip
UNA, KEY = "Una Vale", "una.vale@quillhaven.example"


def rows_that_say(word: str) -> dict[str, int]:
    """How many rows of which tables have a word anywhere."""
    with transaction() as session:
        tables = session.scalars(text("SELECT tablename FROM pg_tables WHERE schemaname = current_schema()")).all()
        found = {}
        for table in tables:
            if table == "blob_piece" or table.startswith(("procrastinate", "alembic")):
                continue
            asked = text(f"SELECT count(*) FROM {table} AS t WHERE t::text ILIKE :some")
            if count := session.scalar(asked, {"some": f"%{word}%"}):
                found[table] = count
        return found


def broken_chains() -> list[str]:
    with transaction() as session:
        return [chain for chain in record.chains(session) if record.broken(session, chain) is not None]


def done(answer):
    assert answer.is_success, (answer.request.url, answer.text)


@pytest.fixture
def una(owner, person):
    return person(KEY, UNA, makes_projects=True, firm="Pier Works")


@pytest.fixture
def full(una, send, work, owner):
    """A project of Una's in which she made one of everything, and everything that names people names her."""
    project = una.post("/api/projects", json={"name": "Pier"}).json()["id"]
    of = f"/api/projects/{project}"
    done(una.post(f"{of}/members", json={"kind": "person", "named": "ida@quillhaven.example", "role": "own"}))
    from tests.api.conftest import two_rooms

    name = {"X-File-Name": "T-ARC.ifc"}
    assert una.post(f"{of}/models", content=two_rooms().content(), headers=name).status_code == 201
    work()
    made = una.post(f"{of}/topics", json={"title": "Gap", "assigned_to": UNA}).json()["id"]
    done(una.patch(f"/api/topics/{made}", json={"assigned_to": "Ida Fenn"}))
    done(una.patch(f"/api/topics/{made}", json={"assigned_to": UNA}))
    done(una.post(f"/api/topics/{made}/comments", json={"text": "Seen."}))
    done(una.put(f"/api/topics/{made}/question", json={"to": UNA, "text": "Why?"}))
    done(una.post(f"/api/topics/{made}/files", content=b"x", headers={"X-File-Name": "a.txt"}))
    done(una.post(f"/api/topics/{made}/looked"))
    rule = {"select": {"kind": "of", "what": "level", "value": "Level 00"}, "effect": "hide", "colour": None, "by": UNA, "at": "", "why": "", "off": False}  # fmt: skip
    view = una.post(f"{of}/viewpoints", json={"name": "Here", "picture_png": png(), "view": view_of(rule)}).json()
    done(una.put(f"/api/viewpoints/{view['id']}/view", json={"picture_png": png(), "view": view_of(rule)}))
    done(una.put(f"{of}/home", json={"view": view_of(rule)}))
    done(una.post(f"{of}/links", json=view_of(rule)))
    done(una.post(f"{of}/folders", json={"name": "Level 00"}))
    done(una.post(f"{of}/sets", json={"conditions": [{"what": "class", "how": "present"}], "name": "All"}))
    done(una.post(f"{of}/tasks", json=SHEET))
    done(una.post(f"{of}/visits"))
    meeting = una.post(f"{of}/meetings", json={"title": "Monday"}).json()["id"]
    done(una.patch(f"/api/meetings/{meeting}", json={"present": {"add": [UNA, "Ida Fenn"]}}))
    done(una.patch(f"/api/meetings/{meeting}", json={"present": {"drop": [UNA]}, "absent": {"add": [UNA]}}))
    done(una.post(f"/api/meetings/{meeting}/points", json={"topic": made, "text": "Lower it.", "who": UNA}))
    done(una.post(f"{of}/guest-links", json={"name": "Client", "days": 7}))
    work()
    return project


def id_of(owner, key):
    return next(each["id"] for each in owner.get("/api/people").json() if each["person"]["key"] == key)


def test_a_new_name_is_said_in_all_that_named_somebody_by_the_old_one(owner, una, full):
    before = rows_that_say(UNA)
    assert {"topic", "topic_note", "viewpoint", "meeting", "meeting_point", "project", "model", "change_made", "topic_file",
            "folder", "component_set", "task", "guest_link", "link", "viewpoint_before", "project_visit"} <= before.keys()  # fmt: skip
    wish = {"name": "Una Oake", "firm": "", "discipline": "", "owner": False, "makes_projects": True}
    assert owner.put(f"/api/people/{id_of(owner, KEY)}", json=wish).status_code == 200
    left = rows_that_say(UNA)
    # The record tells what was, and files that went out before come back with the old name.
    assert left.keys() <= {"record_entry", "known_name", "mail"}
    (topic,) = una.get(f"/api/projects/{full}/topics").json()
    assert (topic["author"], topic["said"]["assigned_to"]) == ("Una Oake", "Una Oake")
    assert una.patch(f"/api/topics/{topic['id']}", json={"title": "Gap on site"}).status_code == 200
    (meeting,) = una.get(f"/api/projects/{full}/meetings").json()
    assert meeting["absent"] == ["Una Oake"]
    assert broken_chains() == []


def test_of_who_was_removed_no_name_is_left_and_what_they_did_is(owner, una, full):
    counts = len(owner.get(f"/api/projects/{full}/record").json()["entries"])
    assert una.get("/api/me").json()["person"]
    assert owner.delete(f"/api/people/{id_of(owner, KEY)}").status_code == 204
    assert una.get("/api/me").json()["person"] is None
    assert rows_that_say(UNA) == {}
    assert rows_that_say(KEY) == {}
    (topic,) = owner.get(f"/api/projects/{full}/topics").json()
    assert (topic["author"], topic["said"]["assigned_to"]) == ("Former member", "Former member")
    assert broken_chains() == []
    entries = owner.get(f"/api/projects/{full}/record").json()["entries"]
    assert len(entries) >= counts
    assert "Former member" in {each["who"] for each in entries}
    assert entries[0]["action"].startswith("replaced the name of a former member; the hash was ")
    assert owner.get(f"/api/projects/{full}/topics/file").status_code == 200
    # What a former member made is nobody's own.
    assert owner.delete(f"/api/topics/{topic['id']}").status_code in (200, 204)


def test_who_is_in_a_project_may_be_meant_before_they_ever_came_and_no_former_member(owner, una, full):
    owner.post("/api/people", json={"key": "tam", "name": "Tam Kerr"})
    owner.post(f"/api/projects/{full}/members", json={"kind": "person", "named": "tam", "role": "look"})
    owner.delete(f"/api/people/{id_of(owner, KEY)}")
    assert owner.get(f"/api/projects/{full}/people").json() == ["Ida Fenn", "Tam Kerr"]


def test_nobody_is_removed_whom_a_project_or_the_server_needs(owner, una, person):
    project = una.post("/api/projects", json={"name": "Quay"}).json()["id"]
    refused = owner.delete(f"/api/people/{id_of(owner, KEY)}")
    assert refused.status_code == 409
    assert "Nobody else owns the project Quay." in refused.json()["detail"]
    owner.post(f"/api/server/projects/{project}/owners", json={"key": "ida@quillhaven.example"})
    assert owner.delete(f"/api/people/{id_of(owner, KEY)}").status_code == 204
    assert "own the server" in owner.delete(f"/api/people/{id_of(owner, 'ida@quillhaven.example')}").json()["detail"]
    assert owner.delete(f"/api/people/{'0' * 32}").status_code == 404
    assert person("tam", "Tam Kerr").delete(f"/api/people/{id_of(owner, 'tam')}").status_code == 403


def test_somebody_takes_along_what_is_kept_of_them_and_is_removed_with_their_password(owner, opened, full):
    # A name that nothing else says here, so that nothing which others left is found.
    wish = {"name": "Isa Thorn", "firm": "", "discipline": "", "owner": True, "makes_projects": True}
    done(owner.put(f"/api/people/{id_of(owner, 'ida@quillhaven.example')}", json=wish))
    kept = owner.get("/api/account/kept")
    assert kept.headers["Content-Disposition"].endswith("what-is-kept-of-me.json")
    told = json.loads(kept.content)
    assert told["person"]["signs_in_as"] == "ida@quillhaven.example"
    assert told["projects"][0]["project"] == "Pier"
    assert told["sign_ins"][0]["address"] == "testclient"
    assert "signed in" in {each["action"].split(" and ")[-1] for each in told["record"]}
    assert "argon2" not in kept.text
    assert "secret_hash" not in kept.text
    owner.post("/api/people", json={"key": "tam", "name": "Tam Kerr", "owner": True})
    from stairpath.work.people import links

    tam = opened()
    tam.post("/api/links/use", json={"secret": links.for_password("tam"), "password": GOOD})
    assert owner.post("/api/account/remove", json={"password": "something else"}).status_code == 422
    assert owner.post("/api/account/remove", json={"password": GOOD}).status_code == 204
    assert owner.get("/api/account").status_code == 401
    assert rows_that_say("Isa Thorn") == {}


def test_a_name_is_replaced_in_what_an_import_said_of_values_that_differ(owner, una, full, work, tmp_path):
    (topic,) = una.get(f"/api/projects/{full}/topics").json()
    data = una.get(f"/api/projects/{full}/topics/file").content
    (out,), _ = read(data, tmp_path)
    theirs = dataclasses.replace(
        out, assigned_to="Wen Osei", modified_by=UNA, modified_at=out.modified_at + timedelta(days=1)
    )
    done(una.patch(f"/api/topics/{topic['id']}", json={"assigned_to": "Tam Kerr"}))
    taken(una, full, work, file_of(theirs))
    told = [c["new"] for note in una.get(f"/api/topics/{topic['id']}").json()["notes"] for c in note["changed"]]
    assert any(f"({UNA}, " in each for each in told if each and "other values" in each)
    assert owner.delete(f"/api/people/{id_of(owner, KEY)}").status_code == 204
    assert rows_that_say(UNA) == {}


def from_elsewhere(**more):
    at = datetime(2026, 11, 20, 9, 0, tzinfo=UTC)
    comment = Comment(some_guid(701), "U. Vale", at, "Seen on site.")
    return file_of(
        Topic(some_guid(702), "Pump", "U. Vale", at, assigned_to="u. vale", comments=(comment,), **more)
    )  # fmt: skip


def taken(browser, project, work, data):
    sent = browser.post(f"/api/projects/{project}/topics/files", content=data, headers={"X-File-Name": "x.bcf"})
    assert sent.status_code == 201, sent.text
    work()


def test_a_name_of_a_file_is_matched_once_and_remembered(owner, una, full, work):
    first = from_elsewhere()
    taken(owner, full, work, first)
    of = f"/api/projects/{full}/names"
    shown = owner.get(of).json()
    assert shown["unknown"] == ["U. Vale", "u. vale"] or shown["unknown"] == ["u. vale", "U. Vale"]
    assert [each["name"] for each in shown["people"]] == ["Ida Fenn", UNA]
    una_id = shown["people"][1]["id"]
    wrong = owner.put(of, json={"name": "Ida Fenn", "person_id": una_id})
    assert wrong.status_code == 409
    assert owner.put(of, json={"name": "U. Vale", "person_id": "0" * 32}).status_code == 404
    done = owner.put(of, json={"name": "U. Vale", "person_id": una_id}).json()
    assert (done["unknown"], done["matched"]) == ([], [{"name": "U. Vale", "is_": UNA}])
    assert rows_that_say("U. Vale").keys() <= {"known_name", "record_entry"}
    pump = next(each for each in una.get(f"/api/projects/{full}/topics").json() if each["said"]["title"] == "Pump")
    assert (pump["author"], pump["said"]["assigned_to"]) == (UNA, UNA)
    # The same file again changes nothing, and another one knows who is meant.
    taken(owner, full, work, first)
    taken(owner, full, work, from_elsewhere(description="another"))
    assert owner.get(of).json()["unknown"] == []
    assert rows_that_say("U. Vale").keys() <= {"known_name", "record_entry"}
    # In another project the same name may be somebody else's.
    other = owner.post("/api/projects", json={"name": "Quay"}).json()["id"]
    taken(owner, other, work, from_elsewhere())
    assert "U. Vale" in owner.get(f"/api/projects/{other}/names").json()["unknown"]
    assert owner.post(f"{of}/forget", json={"name": "u. vale"}).json()["matched"] == []


def test_what_is_kept_names_only_what_is_ones_own(owner, una, full):
    told = json.loads(una.get("/api/account/kept").content)
    assert {row for table in told["things_that_name_you"].values() for row in table}
    assert told["things_that_name_you"].keys() >= {"topic", "viewpoint", "meeting", "model"}
