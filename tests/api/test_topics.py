"""Topics: made, numbered, changed with their history, written of, and new to who has not seen them."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor

import pytest

from tests.api.test_views import keep, view_of
from tests.asking import by


def make(client, project, title, who="Ida Fenn", **more):
    answer = client.post(f"/api/projects/{project}/topics", json={"title": title, **more}, headers=by(who))
    assert answer.status_code == 201, answer.text
    return answer.json()


def told(client, topic):
    return client.get(f"/api/topics/{topic['id']}").json()


@pytest.fixture
def viewpoint(client, project):
    return keep(client, project, name="At the beam").json()["id"]


def test_a_topic_gets_the_projects_next_number_and_is_called_by_its_disciplines(client, project, viewpoint):
    first = make(client, project, "Duct in the beam", disciplines=["AIR", "AIR", "STR"], views=[viewpoint])
    assert (first["reference"], first["said"]["status"], first["author"]) == ("AIR-STR 001", "open", "Ida Fenn")
    assert first["views"] == [viewpoint]
    other = make(client, project, "Pipe over the stair", disciplines=["WTR"])
    again = make(client, project, "The same duct, at grid D", disciplines=["AIR"], variant_of=first["id"])
    assert (other["reference"], again["reference"]) == ("WTR 002", "AIR 001 b")
    listed = client.get(f"/api/projects/{project}/topics").json()
    assert [each["reference"] for each in listed] == ["AIR-STR 001", "AIR 001 b", "WTR 002"]


def test_a_topic_is_about_the_two_components_that_its_view_has_picked(client, project):
    def view(*ids):
        return keep(client, project, view=view_of(picked={"": list(ids)} if ids else {})).json()["id"]

    of_none, of_two, of_three = view(), view("duct", "beam"), view("duct", "beam", "slab")
    made = make(client, project, "Duct in the beam", views=[of_none, of_two])
    assert made["pairs"] == [["beam", "duct"]]
    assert make(client, project, "Three at once", views=[of_three, of_two])["pairs"] == []
    after = client.patch(f"/api/topics/{made['id']}", json={"views": {"drop": [of_two]}}).json()
    assert after["pairs"] == []


def test_a_number_is_never_given_twice_and_not_again_after_deleting(client, project):
    with ThreadPoolExecutor(8) as pool:
        made = list(pool.map(lambda k: make(client, project, f"Topic {k}"), range(24)))
    assert sorted(each["number"] for each in made) == list(range(1, 25))
    last = max(made, key=lambda each: each["number"])
    assert client.delete(f"/api/topics/{last['id']}").status_code == 204
    assert make(client, project, "One more")["number"] == 25
    assert client.get(f"/api/topics/{last['id']}").status_code == 410
    assert client.post(f"/api/topics/{last['id']}/restore").json()["number"] == 24


def test_many_topics_are_changed_at_once_all_of_them_or_none(client, project):
    first, other = make(client, project, "Duct in the beam", disciplines=["AIR"]), make(client, project, "Pipe")
    address = f"/api/projects/{project}/topics/changes"

    def put(*changes, of=address):
        return client.post(
            of, json={"changes": [{"topic": t["id"], "change": c} for t, c in changes]}, headers=by("Tam")
        )

    wish = {"status": "in hand", "assigned_to": "Wen Osei", "labels": {"add": ["fire"]}}
    answer = put((first, wish), (other, wish))
    assert sorted(each["reference"] for each in answer.json()) == sorted([first["reference"], other["reference"]])
    assert {(t["said"]["status"], t["said"]["assigned_to"]) for t in answer.json()} == {("in hand", "Wen Osei")}
    assert {c["field"] for c in told(client, first)["notes"][-1]["changed"]} == {"status", "assigned_to", "labels"}
    # One that the rules refuse is named, and nothing of the others is changed.
    refused = put((first, {"priority": "high"}), (other, {"status": "no such"}))
    assert refused.status_code == 422
    assert other["reference"] in refused.json()["detail"]
    assert "None of the topics was changed" in refused.json()["detail"]
    assert told(client, first)["topic"]["said"]["priority"] == ""
    elsewhere = client.post("/api/projects", json={"name": "The other"}).json()["id"]
    assert put((first, wish), of=f"/api/projects/{elsewhere}/topics/changes").status_code == 404


def test_what_is_changed_is_kept_in_its_history(client, project):
    topic = make(client, project, "Duct in the beam")
    wish = {"status": "in hand", "assigned_to": "Tam Kerr", "due": "2026-01-09", "labels": {"add": ["fire", "fire"]}}
    changed = client.patch(f"/api/topics/{topic['id']}", json=wish, headers=by("Mara Oake")).json()
    assert (changed["said"]["status"], changed["said"]["labels"], changed["overdue"]) == ("in hand", ["fire"], True)
    assert client.patch(f"/api/topics/{topic['id']}", json={"due": None}).json()["overdue"] is False
    client.post(f"/api/topics/{topic['id']}/comments", json={"text": " Lowered by 40 mm? "}, headers=by("Tam Kerr"))
    notes = told(client, topic)["notes"]
    assert [(n["author"], n["text"], [c["field"] for c in n["changed"]]) for n in notes] == [
        ("Mara Oake", "", ["status", "assigned_to", "due", "labels"]),
        ("Somebody", "", ["due"]),
        ("Tam Kerr", "Lowered by 40 mm?", []),
    ]
    assert notes[0]["changed"][0] == {"field": "status", "old": "open", "new": "in hand"}
    before = len(notes)
    client.patch(f"/api/topics/{topic['id']}", json={"status": "in hand"})
    assert len(told(client, topic)["notes"]) == before


def test_what_another_changed_is_new_until_one_has_looked(client, project):
    def new(who):
        return [t["new"] for t in client.get(f"/api/projects/{project}/topics", headers=by(who)).json()]

    def visit(who):
        return client.post(f"/api/projects/{project}/visits", headers=by(who)).json()["before"]

    assert visit("Mara Oake") is None
    topic = make(client, project, "Duct in the beam")
    # To who comes for the first time nothing is new, also once another topic was looked at.
    assert (new("Ida Fenn"), new("Mara Oake"), new("Wen Osei")) == ([False], [True], [False])
    assert visit("Wen Osei") is None
    assert new("Wen Osei") == [False]
    assert visit("Mara Oake") < visit("Mara Oake")
    assert new("Mara Oake") == [True]
    client.post(f"/api/topics/{topic['id']}/looked", headers=by("Mara Oake"))
    assert new("Mara Oake") == [False]
    client.post(f"/api/topics/{topic['id']}/comments", json={"text": "See the plan"}, headers=by("Ida Fenn"))
    assert (new("Ida Fenn"), new("Mara Oake")) == ([False], [True])


@pytest.mark.parametrize(
    ("wish", "why"),
    [
        ({"title": " "}, "needs a title"),
        ({"title": "x", "status": "lost"}, "no status lost"),
        ({"title": "x", "views": ["nowhere"]}, "not in this project"),
        ({"title": "x", "variant_of": "nowhere"}, "no such topic"),
    ],
)
def test_a_topic_that_cannot_be_is_refused_in_a_sentence(client, project, wish, why):
    answer = client.post(f"/api/projects/{project}/topics", json=wish)
    assert answer.status_code in (404, 422)
    assert why in answer.json()["detail"]
    assert client.get(f"/api/projects/{project}/topics").json() == []


def test_a_change_that_may_not_be_is_refused_and_changes_nothing(client, project):
    topic = make(client, project, "Duct in the beam", status="settled")
    for wish, why in (({"status": "asked"}, "After settled may come open"), ({"title": ""}, "needs a title")):
        answer = client.patch(f"/api/topics/{topic['id']}", json=wish)
        assert (answer.status_code, why in answer.json()["detail"]) == (422, True)
    answer = client.post(f"/api/topics/{topic['id']}/comments", json={"text": " "})
    assert (answer.status_code, "nothing in the comment" in answer.json()["detail"]) == (422, True)
    assert told(client, topic)["notes"] == []
    statuses = {
        each["name"]: each["next"] for each in client.get(f"/api/projects/{project}/topic-rules").json()["statuses"]
    }
    assert statuses["settled"] == ["open"]


def rules_of(client, project):
    return client.get(f"/api/projects/{project}/topic-rules").json()


def test_a_project_sets_how_topics_are_called_and_what_may_follow_which(client, project):
    topic = make(client, project, "Duct in the beam", status="in hand", disciplines=["AIR", "AIR", "STR"])
    asked = make(client, project, "Which fire rating?", status="asked")
    url, rules = f"/api/projects/{project}/topic-rules", rules_of(client, project)
    rules["reference"] = {"disciplines": True, "most_disciplines": 1, "joined_by": "/", "digits": 2}
    for each in rules["statuses"]:
        each["was"] = each["name"]
        each["next"] = ["under way" if name == "in hand" else name for name in each["next"]]
        if each["name"] == "in hand":
            each["name"] = "under way"
    rules["priorities"] = ["now", "later"]
    assert client.put(url, json=rules).status_code == 200
    listed = client.get(f"/api/projects/{project}/topics").json()
    assert [(each["reference"], each["said"]["status"]) for each in listed] == [
        ("AIR 01", "under way"),
        ("02", "asked"),
    ]
    answer = client.patch(f"/api/topics/{topic['id']}", json={"status": "in hand"})
    assert (answer.status_code, "choose open, under way" in answer.json()["detail"]) == (422, True)
    assert client.get(f"/bcf/3.0/projects/{project}/extensions").json()["priority"] == ["now", "later"]
    assert client.get(f"/bcf/3.0/projects/{project}/topics/{topic['guid']}").json()["server_assigned_id"] == "AIR 01"

    fewer = rules_of(client, project)
    fewer["statuses"] = [
        {**each, "was": each["name"], "next": [name for name in each["next"] if name != "asked"]}
        for each in fewer["statuses"]
        if each["name"] != "asked"
    ]
    answer = client.put(url, json=fewer)
    assert (answer.status_code, "1 topic is still asked" in answer.json()["detail"]) == (422, True)
    assert client.patch(f"/api/topics/{asked['id']}", json={"status": "dropped"}).status_code == 200
    assert client.put(url, json=fewer).status_code == 200
    assert [each["name"] for each in rules_of(client, project)["statuses"]] == [
        "open", "under way", "answered", "settled", "dropped",
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("part", "why"),
    [
        ({"statuses": []}, "keep at least one"),
        ({"kinds": ["a", "a"]}, "twice"),
        ({"reference": {"disciplines": True, "most_disciplines": 9, "joined_by": "-", "digits": 3}}, "one to 4"),
        ({"reference": {"disciplines": True, "most_disciplines": 2, "joined_by": "?", "digits": 3}}, "joined by"),
    ],
)
def test_rules_that_cannot_be_are_refused(client, project, part, why):
    before = rules_of(client, project)
    answer = client.put(f"/api/projects/{project}/topic-rules", json={**before, **part})
    assert (answer.status_code, why in answer.json()["detail"]) == (422, True)
    assert rules_of(client, project) == before


@pytest.mark.parametrize("unseen", ["\u200b\u200d", "\u202e\u2066 ", "\u2800", " \u00a0\u3000"])
def test_what_nobody_could_see_is_no_name_and_no_comment(client, project, unseen):
    topic = make(client, project, "Seen")
    view = keep(client, project).json()
    for method, path, body in (
        ("post", f"projects/{project}/topics", {"title": unseen}),
        ("post", f"topics/{topic['id']}/comments", {"text": unseen}),
        ("put", f"viewpoints/{view['id']}/name", {"name": unseen}),
        ("post", f"projects/{project}/folders", {"name": unseen}),
        ("post", "projects", {"name": unseen}),
    ):
        answer = client.request(method, f"/api/{path}", json=body, headers=by("Ida Fenn"))
        assert answer.status_code == 422, (path, answer.text)
    assert told(client, topic)["topic"]["said"]["title"] == "Seen"
