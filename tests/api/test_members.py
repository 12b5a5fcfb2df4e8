"""Who is in a project: by name, firm and discipline; handing over, leaving, guests; and what is one's own."""

from __future__ import annotations

import time
from datetime import UTC, datetime, timedelta

import pytest
from sqlalchemy import update
from starlette.websockets import WebSocketDisconnect

from stairpath.store.database import transaction
from stairpath.store.person_tables import GuestLink, Person, SignIn
from stairpath.work.people.guests import ENDED
from tests.api.conftest import COOKIE, mailed_secret, two_rooms
from tests.api.test_people import hear_on
from tests.api.test_topics import make, told
from tests.api.test_views import keep
from tests.asking import by


@pytest.fixture
def ida(person):
    """Who runs the server."""
    return person("ida", "Ida Fenn", owner=True)


@pytest.fixture
def mine(ida):
    """A project that Ida made."""
    return ida.post("/api/projects", json={"name": "Quay House"}).json()["id"]


def add(browser, project, named, role="comment", kind="person", status=201, **more):
    answer = browser.post(f"/api/projects/{project}/members", json={"kind": kind, "named": named, "role": role, **more})
    assert answer.status_code == status, answer.text
    return answer.json()


def roles(browser, project):
    return {each["name"]: each["role"] for each in browser.get(f"/api/projects/{project}/members").json()}


def heard_by(client, browser, project):
    """A line to those who have a project open. It is on the application's own loop, which ends it."""
    there = {"Cookie": f"{COOKIE}={browser.cookies[COOKIE]}"}
    return client.websocket_connect(f"ws://127.0.0.1/api/projects/{project}/together", headers=there)


def role_of(browser, project):
    answer = browser.get(f"/api/projects/{project}/mine")
    return answer.json()["role"] if answer.status_code == 200 else answer.status_code


def test_who_makes_a_project_owns_it_and_nobody_else_sees_it(ida, mine, person):
    tom = person("tom", "Tom Reed")
    assert (role_of(ida, mine), role_of(tom, mine)) == ("own", 404)
    assert [each["role"] for each in ida.get("/api/projects").json() if each["id"] == mine] == ["own"]
    assert (tom.get("/api/projects").json(), tom.get("/bcf/3.0/projects").json()) == ([], [])
    refused = tom.post("/api/projects", json={"name": "His"})
    assert (refused.status_code, "make projects" in refused.json()["detail"]) == (403, True)
    maker = person("mika", "Mika Lund", makes_projects=True)
    assert maker.post("/api/projects", json={"name": "Hers"}).json()["role"] == "own"


def test_the_first_owner_owns_what_was_made_before_anybody_signed_in(project, opened):
    from tests.api.conftest import first

    assert role_of(first(opened()), project) == "own"


def test_a_person_a_firm_and_a_discipline_are_let_in_and_the_highest_role_counts(ida, mine, person):
    tom = person("tom", "Tom Reed", firm="Reed Ducts", firm_key="reed ducts", discipline="AIR")
    assert add(ida, mine, "  Reed   Ducts ", "look", kind="firm")["member"]["name"] == "Reed Ducts"
    assert role_of(tom, mine) == "look"
    add(ida, mine, "AIR", "coordinate", kind="discipline")
    assert role_of(tom, mine) == "coordinate"
    assert add(ida, mine, "TOM", "own")["secret"] is None
    assert role_of(tom, mine) == "own"
    for wish, status in (
        ({"named": "tom"}, 409), ({"named": "AIR", "kind": "discipline"}, 409), ({"named": "XYZ", "kind": "discipline"}, 422),
        ({"named": " ", "kind": "firm"}, 422), ({"named": "nobody"}, 404), ({"named": "two words"}, 422),
    ):  # fmt: skip
        assert add(ida, mine, **wish, status=status)["detail"].endswith(".")
    # A person without a firm is not of the firm without a name.
    assert role_of(person("una", "Una Vale"), mine) == 404


def test_who_is_new_is_invited_by_a_link_and_has_no_firm_until_the_server_s_owner_says_so(ida, mine, opened):
    assert add(ida, mine, "una@quillhaven.example", "comment", name="Una Vale")["secret"] is None
    secret = mailed_secret("una@quillhaven.example")
    una = opened()
    assert una.post("/api/links/use", json={"secret": secret, "password": "a pier of long planks"}).status_code == 200
    assert (role_of(una, mine), una.get("/api/me").json()["person"]["firm"]) == ("comment", "")
    (listed,) = [each for each in ida.get("/api/people").json() if each["person"]["name"] == "Una Vale"]
    wish = {"name": "Una Vale", "firm": " Vale  Water ", "discipline": "WTR", "owner": False, "makes_projects": False}
    assert una.put(f"/api/people/{listed['id']}", json=wish).status_code == 403
    assert ida.put(f"/api/people/{listed['id']}", json=wish).json()["person"]["firm"] == "Vale Water"
    add(ida, mine, "VALE WATER", "coordinate", kind="firm")
    assert role_of(una, mine) == "coordinate"
    for wrong, status in (({"discipline": "XYZ"}, 422), ({"name": " "}, 422), ({"name": "IDA FENN"}, 409)):
        assert ida.put(f"/api/people/{listed['id']}", json={**wish, **wrong}).status_code == status


def test_somebody_runs_the_server_and_owns_each_project_at_any_time(ida, mine, person):
    person("tom", "Tom Reed")
    own = next(each for each in ida.get("/api/people").json() if each["person"]["name"] == "Ida Fenn")
    wish = {"name": "Ida Fenn", "firm": "", "discipline": "", "owner": False, "makes_projects": True}
    assert "Somebody has to own the server" in ida.put(f"/api/people/{own['id']}", json=wish).json()["detail"]
    (entry,) = ida.get(f"/api/projects/{mine}/members").json()
    assert entry["you"]
    at = f"/api/projects/{mine}/members/{entry['id']}"
    add(ida, mine, "AIR", "own", kind="discipline")  # a group that may be empty is nobody
    for answer in (
        ida.delete(at), ida.put(f"{at}/role", json={"role": "look"}), ida.post(f"/api/projects/{mine}/leave"),
        ida.post(f"{at}/hand-over"),
    ):  # fmt: skip
        assert answer.status_code == 409, answer.text
    assert roles(ida, mine)["Ida Fenn"] == "own"


def test_a_project_is_handed_over_and_left(ida, mine, person):
    tom = person("tom", "Tom Reed")
    entry = add(ida, mine, "tom")["member"]
    assert ida.post(f"/api/projects/{mine}/members/{entry['id']}/hand-over").json()["role"] == "own"
    assert roles(tom, mine) == {"Ida Fenn": "coordinate", "Tom Reed": "own"}
    assert ida.get(f"/api/projects/{mine}/members").status_code == 403
    assert ida.post(f"/api/projects/{mine}/leave").status_code == 204
    assert (role_of(ida, mine), roles(tom, mine)) == (404, {"Tom Reed": "own"})
    assert tom.delete(f"/api/projects/{mine}").status_code == 204
    assert [each["id"] for each in tom.get("/api/projects", params={"bin": True}).json()] == [mine]


def test_who_is_in_by_a_group_cannot_leave_by_themselves(ida, mine, person):
    tom = person("tom", "Tom Reed", discipline="AIR")
    add(ida, mine, "AIR", "look", kind="discipline")
    refused = tom.post(f"/api/projects/{mine}/leave")
    assert (refused.status_code, "firm or discipline" in refused.json()["detail"]) == (409, True)


@pytest.mark.parametrize("what", ["role", "remove", "guest"])
def test_an_open_line_ends_within_two_seconds_of_the_role(client, ida, mine, person, opened, what):
    if what == "guest":
        made = ida.post(f"/api/projects/{mine}/guest-links", json={"name": "Client", "days": 7}).json()
        browser = opened()
        assert browser.post("/api/links/enter", json={"secret": made["secret"]}).json()["project"] == "Quay House"
        at = f"/api/projects/{mine}/guest-links/{made['link']['id']}"
    else:
        browser = person("tom", "Tom Reed")
        at = f"/api/projects/{mine}/members/{add(ida, mine, 'tom')['member']['id']}"
    with heard_by(client, browser, mine) as line:
        line.receive_json()
        begun = time.monotonic()
        answer = ida.put(f"{at}/role", json={"role": "look"}) if what == "role" else ida.delete(at)
        assert answer.status_code in (200, 204)
        with pytest.raises(WebSocketDisconnect) as closed:
            hear_on(line)
    assert (closed.value.code, time.monotonic() - begun < 2.5) == (4401, True)
    assert role_of(browser, mine) == {"role": "look", "remove": 404, "guest": 401}[what]


def test_who_may_only_look_hears_who_presents_and_does_not_present(client, ida, mine, person):
    tom = person("tom", "Tom Reed")
    add(ida, mine, "tom", "look")
    with heard_by(client, tom, mine) as line:
        line.receive_json()
        line.send_json({"kind": "present", "on": True})
        line.send_json({"kind": "follows", "on": True})
        assert line.receive_json()["presenter"] is None


def test_a_guest_looks_at_one_project_until_a_day_and_does_nothing_else(ida, mine, opened, client):
    made = ida.post(f"/api/projects/{mine}/guest-links", json={"name": " Client  board ", "days": 7}).json()
    assert made["link"]["name"] == "Client board"
    guest = opened()
    assert guest.post("/api/links/guest", json={"secret": made["secret"]}).json()["project"] == "Quay House"
    assert guest.post("/api/links/enter", json={"secret": made["secret"]}).status_code == 200
    me = guest.get("/api/me").json()["person"]
    assert (me["name"], me["guest_of"], me["owner"]) == ("Client board", mine, False)
    assert [each["id"] for each in guest.get("/api/projects").json()] == [mine]
    assert guest.get(f"/api/projects/{mine}/topics").status_code == 200
    other = ida.post("/api/projects", json={"name": "Other"}).json()["id"]
    for verb, path, status in (
        ("get", f"projects/{other}/topics", 404), ("post", f"projects/{mine}/topics", 403), ("post", "projects", 403),
        ("get", f"projects/{mine}/members", 403), ("get", "people", 403), ("post", f"projects/{mine}/leave", 409),
    ):  # fmt: skip
        assert guest.request(verb, f"/api/{path}", json={"title": "x", "name": "x"}).status_code == status, path
    (listed,) = ida.get(f"/api/projects/{mine}/guest-links").json()
    assert (listed["made_by"], listed["used_at"] is not None) == ("Ida Fenn", True)
    # The link ends on its day, for who looks by it too, and is listed no more.
    with transaction() as session:
        at = datetime.now(UTC) - timedelta(seconds=1)
        session.execute(update(GuestLink).values(ends_at=at))
        session.execute(update(SignIn).where(SignIn.guest_id.is_not(None)).values(ends_at=at))
    assert guest.get(f"/api/projects/{mine}/topics").status_code == 401
    assert ida.get(f"/api/projects/{mine}/guest-links").json() == []
    for path in ("guest", "enter"):
        refused = guest.post(f"/api/links/{path}", json={"secret": made["secret"]})
        assert (refused.status_code, refused.json()["detail"]) == (410, ENDED)


@pytest.mark.parametrize(("name", "days"), [("", 7), ("Client", 0), ("Client", 367)])
def test_a_guest_link_needs_a_name_and_an_end(ida, mine, name, days):
    answer = ida.post(f"/api/projects/{mine}/guest-links", json={"name": name, "days": days})
    assert (answer.status_code, answer.json()["detail"][-1]) == (422, ".")


def test_a_guest_link_of_a_project_in_the_bin_opens_nothing(ida, mine, opened):
    made = ida.post(f"/api/projects/{mine}/guest-links", json={"name": "Client", "days": 7}).json()
    ida.delete(f"/api/projects/{mine}")
    assert opened().post("/api/links/guest", json={"secret": made["secret"]}).status_code == 410


def test_one_changes_what_one_made_or_was_given_and_deletes_what_one_made(ida, mine, person):
    tom = person("tom", "Tom Reed")
    add(ida, mine, "tom", "comment")
    hers, his = make(ida, mine, "Gap"), make(tom, mine, "Duct too low")
    view = keep(ida, mine).json()["id"]
    own = tom.post(f"/api/projects/{mine}/viewpoints", json=_view_wish()).json()["id"]

    def change(topic):
        return tom.patch(f"/api/topics/{topic['id']}", json={"status": "in hand"})

    assert (change(his).status_code, change(hers).status_code) == (200, 403)
    refused = change(hers).json()["detail"]
    assert refused.startswith("You may only change topics that you made or that are assigned to you.")
    assert tom.post(f"/api/topics/{hers['id']}/comments", json={"text": "Seen"}).status_code == 201
    both = [{"topic": topic["id"], "change": {"status": "in hand"}} for topic in (his, hers)]
    assert tom.post(f"/api/projects/{mine}/topics/changes", json={"changes": both}).status_code == 403
    ida.patch(f"/api/topics/{hers['id']}", json={"assigned_to": "tom reed"})
    assert change(hers).status_code == 200
    assert tom.delete(f"/api/topics/{hers['id']}").status_code == 403
    assert tom.delete(f"/api/topics/{his['id']}").status_code == 204
    assert tom.post(f"/api/topics/{his['id']}/restore").status_code == 200
    for key, status in ((view, 403), (own, 200)):
        assert tom.put(f"/api/viewpoints/{key}/name", json={"name": "Mine"}).status_code == status
    # By the interface of the standard it is the same.
    at = f"/bcf/3.0/projects/{mine}/topics/{hers['guid']}/comments"
    (note,) = [each for each in ida.get(at).json() if each["comment"] == "Seen"]
    said = ida.post(at, json={"comment": "Mine"}).json()["guid"]
    assert tom.put(f"{at}/{said}", json={"comment": "Not so"}).status_code == 403
    assert tom.put(f"{at}/{note['guid']}", json={"comment": "Seen again"}).status_code == 200
    assert [each["text"] for each in told(ida, hers)["notes"] if each["text"]] == ["Seen again", "Mine"]


def _view_wish():
    from tests.api.test_views import png, view_of

    return {"name": "His", "picture_png": png(), "view": view_of()}


def test_names_in_heads_and_bodies_make_nobody_somebody_else(ida, mine, person):
    tom = person("tom", "Tom Reed")
    add(ida, mine, "tom", "comment")
    wish = {"title": "x", "author": "Ida Fenn", "owner": True, "role": "own", "project_id": "0" * 32}
    made = tom.post(f"/api/projects/{mine}/topics", json=wish, headers=by("Ida Fenn"))
    if made.status_code == 201:
        assert told(ida, made.json())["topic"]["author"] == "Tom Reed"
    assert role_of(tom, mine) == "comment"
    with transaction() as session:
        assert [bool(row.owner) for row in session.query(Person).order_by(Person.key)] == [True, False]


def test_a_job_does_not_run_for_who_may_not_any_more(ida, mine, person, send_as, work):
    tom = person("tom", "Tom Reed")
    send_as(ida, mine)
    work()
    entry = add(ida, mine, "tom", "coordinate")["member"]
    group = {"select": {"kind": "of", "what": "class", "value": "IfcWall"}}
    wish = {"name": "Walls", "wish": {"kind": "check", "a": group, "b": group}}
    task = tom.post(f"/api/projects/{mine}/tasks", json=wish).json()["id"]
    ida.put(f"/api/projects/{mine}/members/{entry['id']}/role", json={"role": "comment"})
    work()
    (row,) = ida.get(f"/api/projects/{mine}/tasks").json()
    assert (row["status"], row["message"][:23]) == ("failed", "Who asked for it may no")
    ida.post(f"/api/tasks/{task}/again", json={})
    work()
    assert [each["status"] for each in ida.get(f"/api/projects/{mine}/tasks").json()] == ["done"]


@pytest.fixture
def send_as():
    def send(browser, project):
        answer = browser.post(
            f"/api/projects/{project}/models", content=two_rooms().content(), headers={"X-File-Name": "T-ARC.ifc"}
        )
        assert answer.status_code == 201, answer.text

    return send
