"""The record: who did what, from where; a chain in which a row that was removed or edited shows; filtered, and as a file."""

from __future__ import annotations

import csv
import io
import json
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime, timedelta

import pytest
from sqlalchemy import delete, select, update

from stairpath.core.review.topic import TopicFields
from stairpath.store.database import transaction
from stairpath.store.record_tables import RecordEntry, RecordHead
from stairpath.work.base.unit_of_work import Who, unit_of_work
from stairpath.work.people import record
from stairpath.work.topics import topics
from tests.api.conftest import GOOD, first
from tests.api.test_members import add
from tests.api.test_people import sign_in
from tests.api.test_topics import make
from tests.api.test_views import keep


@pytest.fixture
def ida(person):
    return person("ida", "Ida Fenn", owner=True)


@pytest.fixture
def mine(ida):
    return ida.post("/api/projects", json={"name": "Quay House"}).json()["id"]


def entries(browser, project, **wanted):
    answer = browser.get(f"/api/projects/{project}/record", params=wanted)
    assert answer.status_code == 200, answer.text
    return answer.json()["entries"]


def short(found):
    return [(each["who"], each["action"], each["kind"], each["title"]) for each in reversed(found)]


def test_every_change_is_there_with_who_did_it_and_from_what_to_what(ida, mine, person):
    tom = person("tom", "Tom Reed")
    topic, view = make(ida, mine, "Gap"), keep(ida, mine).json()
    entry = add(ida, mine, "tom", "look")["member"]
    ida.put(f"/api/projects/{mine}/members/{entry['id']}/role", json={"role": "comment"})
    tom.post(f"/api/topics/{topic['id']}/comments", json={"text": "Seen"})
    ida.patch(f"/api/topics/{topic['id']}", json={"status": "in hand", "assigned_to": "Tom Reed"})
    ida.put(f"/api/viewpoints/{view['id']}/name", json={"name": "South"})
    ida.delete(f"/api/topics/{topic['id']}")
    ida.post(f"/api/topics/{topic['id']}/restore")
    ida.delete(f"/api/projects/{mine}/members/{entry['id']}")
    found = entries(ida, mine)
    assert short(found) == [
        ("Ida Fenn", "made", "project", "Quay House"),
        ("Ida Fenn", "made", "member", "Ida Fenn"),
        ("Ida Fenn", "made", "topic", "Gap"),
        ("Ida Fenn", "made", "viewpoint", view["name"]),
        ("Ida Fenn", "made", "member", "Tom Reed"),
        ("Ida Fenn", "changed", "member", "Tom Reed"),
        ("Tom Reed", "made", "topic_note", "Seen"),
        ("Ida Fenn", "changed", "topic", "Gap"),
        ("Ida Fenn", "changed", "viewpoint", "South"),
        ("Ida Fenn", "deleted", "topic", "Gap"),
        ("Ida Fenn", "restored", "topic", "Gap"),
        ("Ida Fenn", "deleted", "member", "Tom Reed"),
    ]
    changed = next(each for each in found if each["action"] == "changed" and each["kind"] == "topic")
    assert [(f["name"], f["old"], f["new"]) for f in changed["fields"]] == [
        ("status", "open", "in hand"), ("assignee", "", "Tom Reed"),
    ]  # fmt: skip
    assert changed["browser"] == "testclient"
    assert record.broken() == {}


def test_the_record_is_filtered_by_person_kind_thing_and_time(ida, mine, person):
    tom = person("tom", "Tom Reed")
    add(ida, mine, "tom", "coordinate")
    hers, his = make(ida, mine, "Gap"), make(tom, mine, "Duct")
    soon = (datetime.now(UTC) + timedelta(hours=1)).isoformat()
    assert short(entries(ida, mine, who="Tom Reed")) == [("Tom Reed", "made", "topic", "Duct")]
    assert [each["title"] for each in entries(ida, mine, kind="topic")] == ["Duct", "Gap"]
    assert [each["title"] for each in entries(ida, mine, thing=hers["id"])] == ["Gap"]
    assert (entries(ida, mine, since=soon), len(entries(ida, mine, until=soon))) == ([], 5)
    number = next(each["number"] for each in entries(ida, mine) if each["thing_id"] == his["id"])
    assert [each["title"] for each in entries(ida, mine, kind="topic", before=number)] == ["Gap"]
    assert ida.get(f"/api/projects/{mine}/record").json()["people"] == ["Ida Fenn", "Tom Reed"]
    # Who coordinates sees what was done, and from where nothing.
    assert {each["browser"] for each in entries(tom, mine)} == {""}
    add(ida, mine, "AIR", "comment", kind="discipline")
    assert person("una", "Una Vale", discipline="AIR").get(f"/api/projects/{mine}/record").status_code == 403


def test_the_record_is_a_file_that_no_spreadsheet_works_out(ida, mine):
    make(ida, mine, "=HYPERLINK(1)")
    lines = [json.loads(line) for line in ida.get(f"/api/projects/{mine}/record/jsonl").text.splitlines()]
    assert [line["number"] for line in lines] == [1, 2, 3]
    assert lines[-1]["thing"] == "=HYPERLINK(1)"
    answer = ida.get(f"/api/projects/{mine}/record/csv", params={"kind": "topic"})
    (row,) = csv.DictReader(io.StringIO(answer.content.decode("utf-8-sig")))
    assert (row["thing"], row["who"]) == ("'=HYPERLINK(1)", "Ida Fenn")


@pytest.mark.parametrize("harm", ["removed", "edited", "its end cut off"])
def test_what_was_done_to_the_record_itself_shows(ida, mine, harm):
    for title in ("A", "B", "C"):
        make(ida, mine, title)
    assert record.broken() == {}
    last = entries(ida, mine)[0]["number"]
    with transaction() as session:
        if harm == "edited":
            session.execute(
                update(RecordEntry).where(RecordEntry.number == 3, RecordEntry.chain == mine).values(title="Z")
            )
        else:
            number = 3 if harm == "removed" else last
            session.execute(delete(RecordEntry).where(RecordEntry.number == number, RecordEntry.chain == mine))
    assert record.broken() == {mine: last if harm == "its end cut off" else 3}
    with transaction() as session:
        session.execute(delete(RecordEntry).where(RecordEntry.chain == mine))
        session.execute(delete(RecordHead).where(RecordHead.chain == mine))


def test_what_is_not_kept_is_not_recorded(project):
    def half() -> None:
        with unit_of_work(Who("Ida Fenn")) as act:
            act.session.flush()
            act.project(project, hold=True).name = "Half"
            act.session.flush()
            raise RuntimeError("half way")

    with pytest.raises(RuntimeError, match="half way"):
        half()
    with transaction() as session:
        assert session.scalars(select(RecordEntry.title).where(RecordEntry.chain == project)).all() == ["Trial house"]


def test_many_at_once_make_one_chain(project):
    wish = topics.NewTopic(TopicFields("At once"))
    with ThreadPoolExecutor(8) as pool:
        list(pool.map(lambda k: topics.make(Who(f"P{k}"), project, wish), range(24)))
    with transaction() as session:
        numbers = session.scalars(select(RecordEntry.number).where(RecordEntry.chain == project)).all()
    assert (sorted(numbers), record.broken()) == (list(range(1, 26)), {})


def test_signing_in_and_what_was_refused_is_there_for_who_runs_the_server(opened):
    ida = first(opened())
    sign_in(opened(), password="not this one at all")
    sign_in(opened(), name="my-own-secret", password="typed into the wrong field")
    elsewhere = opened()
    assert sign_in(elsewhere).status_code == 200
    secret = ida.post("/api/people", json={"key": "una", "name": "Una Vale"}).json()["secret"]
    una = opened()
    una.post("/api/links/use", json={"secret": secret, "password": GOOD + " again"})
    assert una.get("/api/people").status_code == 403
    assert una.get("/api/record").status_code == 403
    elsewhere.post("/api/sign-out")
    said = short(ida.get("/api/record").json()["entries"])
    assert said[-8:] == [
        ("Ida Fenn", "was refused", "sign_in", "ida@quillhaven.example"),
        ("Somebody", "was refused", "sign_in", "an unknown name"),
        ("Ida Fenn", "signed in", "sign_in", "ida@quillhaven.example"),
        ("Ida Fenn", "made", "person", "Una Vale"),
        ("Una Vale", "set a password and signed in", "sign_in", "una"),
        ("Una Vale", "was refused", "action", "see people and how it runs"),
        ("Una Vale", "was refused", "action", "see people and how it runs"),
        ("Ida Fenn", "signed out", "sign_in", "Ida Fenn"),
    ]
    assert "my-own-secret" not in ida.get("/api/record").text
