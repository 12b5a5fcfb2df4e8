"""Tokens: another program does what a person may, as far as the token lets it, until its end; and hears what it may."""

from __future__ import annotations

import time
from datetime import UTC, datetime, timedelta

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import update
from starlette.websockets import WebSocketDisconnect

from stairpath.store.database import transaction
from stairpath.store.person_tables import SignIn
from stairpath.work.people import links
from tests.api.test_members import add
from tests.api.test_people import hear_on
from tests.api.test_topics import make


@pytest.fixture
def ida(person):
    return person("ida", "Ida Fenn", owner=True)


@pytest.fixture
def mine(ida):
    return ida.post("/api/projects", json={"name": "Quay House"}).json()["id"]


def token_of(browser, scope="comment", days=30, name="Site tablet"):
    answer = browser.post("/api/tokens", json={"name": name, "scope": scope, "days": days})
    assert answer.status_code == 201, answer.text
    return answer.json()


@pytest.fixture
def program(client):
    """Another program, which knows no cookie."""

    def asks(secret: str):
        def ask(method: str, path: str, **more):
            with_nothing = TestClient(client.app, base_url="http://127.0.0.1")
            return with_nothing.request(method, path, headers={"Authorization": f"Bearer {secret}"}, **more)

        return ask

    return asks


def test_a_program_does_what_its_person_may_and_no_more_than_its_token(ida, mine, program):
    topic = make(ida, mine, "Gap")
    looks, writes = (program(token_of(ida, scope)["secret"]) for scope in ("look", "comment"))
    at = f"/bcf/3.0/projects/{mine}/topics/{topic['guid']}"
    assert looks("GET", at).json()["title"] == "Gap"
    refused = looks("POST", f"{at}/comments", json={"comment": "x"})
    assert (refused.status_code, "You may look in this project" in refused.json()["message"]) == (403, True)
    assert writes("POST", f"{at}/comments", json={"comment": "Seen"}).json()["author"] == "Ida Fenn"
    # Ida owns the project and runs the server; no program of hers does.
    for ask in (looks, writes, program(token_of(ida, "coordinate")["secret"])):
        for method, path in (
            ("DELETE", f"/api/projects/{mine}"), ("GET", f"/api/projects/{mine}/members"), ("GET", "/api/people"),
            ("GET", "/api/tokens"), ("POST", "/api/tokens"), ("POST", "/api/projects"),
        ):  # fmt: skip
            answer = ask(method, path, json={"name": "x", "scope": "look", "days": 1} if method == "POST" else None)
            assert answer.status_code == 403, path
    said = ida.get(f"/api/projects/{mine}/record", params={"kind": "topic_note"}).json()["entries"]
    assert [(each["who"], each["token"]) for each in said] == [("Ida Fenn", "Site tablet")]


def test_a_token_is_no_cookie_and_a_cookie_no_token(ida, mine, opened, program):
    secret = token_of(ida)["secret"]
    browser = opened()
    browser.cookies.set("stairpath", secret, domain="127.0.0.1")
    assert browser.get(f"/api/projects/{mine}/topics").status_code == 401
    refused = program(ida.cookies["stairpath"])("GET", f"/api/projects/{mine}/topics")
    assert (refused.status_code, refused.headers["www-authenticate"]) == (401, "Bearer")
    assert refused.json()["detail"].startswith("This token is not valid, or has ended.")


def test_a_token_ends_on_its_day_by_hand_and_with_a_new_password_and_outlives_signing_out(ida, mine, program, opened):
    made = [token_of(ida, name=name) for name in ("one", "two", "three")]
    one, two, three = (program(each["secret"]) for each in made)

    def asked():
        return [ask("GET", f"/api/projects/{mine}/topics").status_code for ask in (one, two, three)]

    assert asked() == [200, 200, 200]
    assert ida.delete(f"/api/tokens/{made[0]['token']['id']}").status_code == 204
    with transaction() as session:
        unused = datetime.now(UTC) - timedelta(days=20)  # a browser that long unused would have to sign in again
        session.execute(update(SignIn).where(SignIn.token == "three").values(used_at=unused))
        session.execute(update(SignIn).where(SignIn.token == "two").values(ends_at=datetime.now(UTC)))
    assert asked() == [401, 401, 200]
    assert [each["name"] for each in ida.get("/api/tokens").json()] == ["three"]
    assert ida.post("/api/sign-out-everywhere").status_code == 204
    assert asked() == [401, 401, 200]
    links_used = opened().post(
        "/api/links/use", json={"secret": links.for_password("ida"), "password": "a pier of planks"}
    )
    assert links_used.status_code == 200
    assert asked() == [401, 401, 401]


def test_a_token_of_somebody_else_is_not_ended(ida, person):
    made = token_of(person("tom", "Tom Reed"))["token"]["id"]
    assert ida.delete(f"/api/tokens/{made}").status_code == 404


def test_a_line_of_a_program_ends_with_its_token(client, ida, mine):
    made = token_of(ida)
    there = {"Authorization": f"Bearer {made['secret']}"}
    with client.websocket_connect(f"ws://127.0.0.1/api/projects/{mine}/together", headers=there) as line:
        line.receive_json()
        begun = time.monotonic()
        ida.delete(f"/api/tokens/{made['token']['id']}")
        with pytest.raises(WebSocketDisconnect) as closed:
            hear_on(line)
    assert (closed.value.code, time.monotonic() - begun < 2.5) == (4401, True)


@pytest.mark.parametrize("wrong", [{"name": " "}, {"days": 0}, {"days": 400}, {"scope": "own"}])
def test_a_token_needs_a_name_an_end_and_a_scope(ida, wrong):
    answer = ida.post("/api/tokens", json={"name": "x", "scope": "look", "days": 1, **wrong})
    assert (answer.status_code, answer.json()["detail"][-1]) == (422, ".")


def test_a_program_hears_what_it_may_in_the_words_of_the_standard(ida, mine, person, program):
    tom = person("tom", "Tom Reed")
    add(ida, mine, "tom", "comment")
    hers, his = make(ida, mine, "Gap"), make(tom, mine, "Duct")
    ask = program(token_of(tom, "coordinate")["secret"])
    at = f"/bcf/3.0/projects/{mine}"
    assert ask("GET", at).json()["authorization"] == {"project_actions": ["createTopic", "createDocument"]}
    told = {each["guid"]: each["authorization"] for each in ask("GET", f"{at}/topics").json()}
    assert "update" not in told[hers["guid"]]["topic_actions"]
    assert told[hers["guid"]]["topic_status"] == []
    assert {"update", "delete", "createComment"} <= set(told[his["guid"]]["topic_actions"])
    assert told[his["guid"]]["topic_status"][:2] == ["open", "in hand"]
    written = ida.post(f"{at}/topics/{his['guid']}/comments", json={"comment": "x"}).json()
    assert written["authorization"]["comment_actions"] == ["update", "delete"]
    assert ask("GET", f"{at}/topics/{his['guid']}/comments").json()[0]["authorization"]["comment_actions"] == []
    assert ask("GET", "/foundation/1.1/current-user").json()["name"] == "Tom Reed"
