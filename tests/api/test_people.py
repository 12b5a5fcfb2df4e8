"""People: the first owner, signing in and out, links that are good once, and a door that is closed to strangers."""

from __future__ import annotations

import time
from datetime import UTC, datetime, timedelta
from typing import NoReturn

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import func, select, update
from starlette.websockets import WebSocketDisconnect
from typer.testing import CliRunner

from stairpath.settings import settings
from stairpath.start.people import people as command
from stairpath.store.database import transaction
from stairpath.store.person_tables import OneTimeLink, SignIn
from stairpath.work.people import demo, links, secrets, sign_ins, slow_down
from tests.api.conftest import COOKIE, GOOD, first, mailed_secret
from tests.asking import by

OTHER = "twelve gulls on a crane"


def sign_in(browser: TestClient, name: str = "ida@quillhaven.example", password: str = GOOD):
    return browser.post("/api/sign-in", json={"name": name, "password": password})


def hear_on(line) -> NoReturn:
    """Hear until the line is closed."""
    while True:
        line.receive_json()


def test_where_nobody_signs_in_names_are_believed(opened):
    assert opened().get("/api/me").json() == {
        "person": None,
        "closed": False,
        "elsewhere": "",
        "mailbox": False,
        "demo": [],
    }
    assert opened().get("/api/projects").status_code == 200


def test_the_first_owner_closes_the_door_for_everybody_else(opened, client, project):
    secret = links.for_first_owner()
    assert opened().post("/api/links/look", json={"secret": secret}).json()["kind"] == "first_owner"
    mine, stranger = first(opened()), opened()
    me = mine.get("/api/me").json()
    assert (me["closed"], me["person"]["key"], me["person"]["owner"]) == (True, "ida@quillhaven.example", True)
    # The older link ended when the newer one was made, and there is no other.
    assert links.for_first_owner() is None
    for address in (
        "/api/projects",
        f"/api/projects/{project}/topics",
        f"/api/projects/{project}/columns/x",
        "/api/docs",
    ):
        refused = stranger.get(address, headers=by("Ida Fenn"))
        assert (refused.status_code, refused.json()["detail"]) == (401, "Sign in first.")
    assert stranger.post("/api/projects", json={"name": "Mine"}).status_code == 401
    assert stranger.get("/bcf/3.0/projects").json() == {"message": "Sign in first."}
    assert stranger.get("/foundation/1.1/current-user").status_code == 401
    with (
        pytest.raises(WebSocketDisconnect) as closed,
        stranger.websocket_connect(f"ws://127.0.0.1/api/projects/{project}/together"),
    ):
        pass
    assert closed.value.code == 1008
    for address in ("/api/health", "/api/me", "/bcf/versions", "/foundation/versions", "/foundation/1.1/auth"):
        assert stranger.get(address).status_code == 200
    assert mine.get("/api/projects").status_code == 200


def test_who_is_signed_in_does_it_whatever_name_the_request_gives(project, owner):
    made = owner.post(f"/api/projects/{project}/topics", json={"title": "Gap"}, headers=by("Mara Oake")).json()
    assert made["author"] == "Ida Fenn"
    assert owner.get("/foundation/1.1/current-user").json()["name"] == "Ida Fenn"
    with owner.websocket_connect(f"ws://127.0.0.1/api/projects/{project}/together?name=Mara") as line:
        assert [each["name"] for each in line.receive_json()["people"]] == ["Ida Fenn"]


def test_name_and_password_sign_in_and_nothing_tells_which_is_wrong(owner, opened):
    browser = opened()
    wrong = sign_in(browser, password=OTHER)
    nobody = sign_in(browser, name="nobody@quillhaven.example")
    odd = sign_in(browser, name="not a name")
    assert {(each.status_code, each.json()["detail"]) for each in (wrong, nobody, odd)} == {(401, sign_ins.WRONG)}
    assert not browser.cookies
    good = sign_in(browser, name=" IDA@Quillhaven.Example ")
    assert good.json()["person"]["name"] == "Ida Fenn"
    assert browser.get("/api/projects").status_code == 200


def test_an_unknown_name_takes_as_long_as_a_known_one(owner, monkeypatch):
    verified: list[str] = []
    whole = secrets._hasher().verify_and_update

    def verify(password: str, kept: str) -> tuple[bool, str | None]:
        verified.append(kept)
        return whole(password, kept)

    monkeypatch.setattr(secrets._hasher(), "verify_and_update", verify)
    for name in ("nobody@quillhaven.example", "ida@quillhaven.example"):
        assert sign_in(owner, name, OTHER).status_code == 401
    # The one kept for nobody is made as a person's is, so it takes as long.
    nobodys, hers = (each.rpartition("$")[0].rpartition("$")[0] for each in verified)
    assert nobodys == hers
    assert nobodys.startswith("$argon2id$")


def test_a_sign_in_is_new_each_time_and_no_script_reads_it(owner, opened):
    before = owner.cookies[COOKIE]
    answer = sign_in(owner)
    head = answer.headers["set-cookie"]
    assert "HttpOnly" in head
    assert "SameSite=lax" in head
    assert "Secure" not in head
    assert owner.cookies[COOKIE] != before
    # The one before is over, and a secret that somebody brings along is never taken up.
    assert opened().get("/api/projects", headers={"Cookie": f"{COOKIE}={before}"}).status_code == 401
    fixed = opened()
    fixed.cookies.set(COOKIE, "chosen-by-somebody-else")
    assert sign_in(fixed).status_code == 200
    assert opened().get("/api/projects", headers={"Cookie": f"{COOKIE}=chosen-by-somebody-else"}).status_code == 401
    with transaction() as session:
        assert owner.cookies[COOKIE] not in session.scalars(select(SignIn.secret_hash)).all()


def test_over_tls_the_cookie_is_for_this_host_alone(owner, opened):
    browser = opened("https://127.0.0.1")
    head = sign_in(browser).headers["set-cookie"]
    assert head.startswith("__Host-stairpath=")
    assert "Secure" in head
    assert "Path=/" in head
    assert "Domain" not in head
    assert browser.get("/api/projects").status_code == 200
    # A plain connection has set the other one; over TLS it counts for nothing.
    plain = opened("https://127.0.0.1")
    assert plain.get("/api/projects", headers={"Cookie": f"{COOKIE}={owner.cookies[COOKIE]}"}).status_code == 401


def test_signing_out_ends_it_here_or_everywhere(owner, opened):
    other = opened()
    sign_in(other)
    kept = other.cookies[COOKIE]
    assert other.post("/api/sign-out").status_code == 204
    assert other.get("/api/projects", headers={"Cookie": f"{COOKIE}={kept}"}).status_code == 401
    assert owner.get("/api/projects").status_code == 200
    sign_in(other)
    assert owner.post("/api/sign-out-everywhere").status_code == 204
    assert other.get("/api/projects").status_code == 401
    assert other.post("/api/sign-out-everywhere").status_code == 401
    assert other.post("/api/sign-out").status_code == 204  # twice is nothing


@pytest.mark.parametrize("past", [{"ends_at": timedelta(seconds=1)}, {"used_at": sign_ins.UNUSED}])
def test_a_sign_in_ends_by_time(owner, past):
    ((field, ago),) = past.items()
    with transaction() as session:
        session.execute(update(SignIn).values({field: datetime.now(UTC) - ago}))
    assert owner.get("/api/projects").status_code == 401
    sign_in(owner)
    with transaction() as session:
        assert session.scalar(select(func.count()).select_from(SignIn)) == 1


def test_who_tries_too_often_waits(owner, opened):
    browser = opened()
    for _ in range(slow_down.BY_NAME.amount):
        assert sign_in(browser, name="mara", password=OTHER).status_code == 401
    slow = sign_in(browser, name="mara")
    assert slow.status_code == 429
    assert "too many tries to sign in. Try again in 15 minutes." in slow.json()["detail"]
    assert 0 < int(slow.headers["Retry-After"]) <= 900
    # Others sign in all the while, and their own tries are forgotten once one was good.
    for _ in range(3):
        for _ in range(slow_down.BY_NAME.amount - 1):
            assert sign_in(browser, password=OTHER).status_code == 401
        assert sign_in(browser).status_code == 200
    # One address tries all names only so often.
    answers = {sign_in(browser, name=f"guess{k}").status_code for k in range(slow_down.BY_ADDRESS.amount)}
    assert answers == {401, 429}


@pytest.mark.parametrize(
    ("password", "said"),
    [
        ("short", "at least 12 characters"),
        ("x" * 129, "at most 128 characters"),
        ("aaaaaaaaaaaaaaaa", "easy to guess"),
        ("Password123456", "easy to guess"),
        ("qwertyuiop[]", "easy to guess"),
        ("stairpath2026", "easy to guess"),
        ("Ida Fenn 1987", "easy to guess"),
        ("IDA@quillhaven.example", "not one's own name"),
    ],
)
def test_a_password_that_keeps_nobody_out_is_refused_and_the_link_stays_good(opened, password, said):
    browser = opened()
    secret = links.for_first_owner()
    wish = {"secret": secret, "password": password, "key": "ida@quillhaven.example", "name": "Ida Fenn"}
    refused = browser.post("/api/links/use", json=wish)
    assert refused.status_code == 422
    assert said in refused.json()["detail"]
    assert browser.get("/api/me").json()["closed"] is False
    assert browser.post("/api/links/use", json={**wish, "password": GOOD}).status_code == 200


@pytest.mark.parametrize(
    ("names", "said"),
    [
        ({"key": "ida fenn"}, "no spaces"),
        ({"key": "  "}, "to sign in with is needed"),
        ({"key": "x" * 81}, "at most 80"),
        ({"name": "\u200b"}, "needs a name"),
        ({"name": "x" * 81}, "at most 80"),
    ],
)
def test_names_that_cannot_be_are_refused(opened, names, said):
    wish = {"secret": links.for_first_owner(), "password": GOOD, "key": "ida", "name": "Ida Fenn", **names}
    refused = opened().post("/api/links/use", json=wish)
    assert refused.status_code == 422
    assert said in refused.json()["detail"]


def test_a_link_is_good_once_and_for_a_week_and_ends_what_was_signed_in(owner, opened):
    secret = links.add_person("Mara.Oake", "Mara Oake")
    browser = opened()
    shown = browser.post("/api/links/look", json={"secret": secret}).json()
    assert shown == {"kind": "password", "name": "Mara Oake", "key": "mara.oake", "asks_code": False}
    # What the body says of names counts for nothing: the link knows whom it is for.
    wish = {"secret": secret, "password": OTHER, "key": "someone", "name": "Someone Else"}
    assert browser.post("/api/links/use", json=wish).json()["name"] == "Mara Oake"
    for address in ("look", "use"):
        gone = opened().post(f"/api/links/{address}", json=wish)
        assert (gone.status_code, "used or has ended" in gone.json()["detail"]) == (410, True)
    again = links.for_password("MARA.OAKE")
    newest = links.for_password("mara.oake")
    assert opened().post("/api/links/use", json={**wish, "secret": again}).status_code == 410
    assert browser.get("/api/projects").status_code == 200
    assert opened().post("/api/links/use", json={**wish, "secret": newest, "password": GOOD}).status_code == 200
    assert browser.get("/api/projects").status_code == 401
    assert sign_in(browser, "mara.oake", OTHER).status_code == 401
    late = links.for_password("mara.oake")
    with transaction() as session:
        session.execute(update(OneTimeLink).values(ends_at=datetime.now(UTC) - timedelta(seconds=1)))
    assert opened().post("/api/links/use", json={**wish, "secret": late}).status_code == 410


def test_what_is_open_ends_soon_after_its_sign_in(client, project, owner, opened):
    other = opened()
    sign_in(other)
    here, there = ({"Cookie": f"{COOKIE}={each.cookies[COOKIE]}"} for each in (owner, other))
    address = f"ws://127.0.0.1/api/projects/{project}/together"
    with client.websocket_connect(address, headers=there) as stays:
        with client.websocket_connect(address, headers=here) as line:
            line.receive_json()
            begun = time.monotonic()
            assert owner.post("/api/sign-out").status_code == 204
            with pytest.raises(WebSocketDisconnect) as closed:
                hear_on(line)
            assert (closed.value.code, closed.value.reason) == (4401, "Sign in first.")
            assert time.monotonic() - begun < 2
        # Who is still signed in stays, and hears that the other came and has gone; of what is told quickly only the newest.
        for count in (2, 1):
            while len(stays.receive_json()["people"]) != count:
                pass


def test_another_page_signs_nobody_in(owner):
    elsewhere = {"Origin": "https://elsewhere.example", "Sec-Fetch-Site": "cross-site"}
    wish = {"name": "ida@quillhaven.example", "password": GOOD}
    assert owner.post("/api/sign-in", json=wish, headers=elsewhere).status_code == 403
    assert owner.post("/api/sign-out", headers=elsewhere).status_code == 403
    assert owner.get("/api/projects").status_code == 200


def test_those_who_own_the_server_invite_and_see_people_and_nobody_else(owner, opened):
    wish = {"key": "Mara@quillhaven.example", "name": "Mara Oake"}
    made = owner.post("/api/people", json=wish)
    assert made.status_code == 201
    assert made.json() == {"secret": None}  # it was mailed, and is told nobody else
    assert owner.post("/api/people", json=wish).status_code == 409
    names = [
        (each["person"]["key"], each["begun"], each["seen_at"] is None) for each in owner.get("/api/people").json()
    ]
    assert names == [("ida@quillhaven.example", True, False), ("mara@quillhaven.example", False, True)]
    hers = opened()
    assert (
        hers.post(
            "/api/links/use", json={"secret": mailed_secret("mara@quillhaven.example"), "password": OTHER}
        ).status_code
        == 200
    )
    assert owner.get("/api/people").json()[1]["begun"] is True
    # Who does not own the server invites nobody, not themselves as an owner either.
    for answer in (
        hers.get("/api/people"),
        hers.post("/api/people", json={"key": "tam", "name": "Tam Kerr", "owner": True}),
        hers.post("/api/people/link", json={"key": "ida@quillhaven.example"}),
    ):
        assert answer.status_code == 403
        assert "own the server" in answer.json()["detail"]
    assert hers.get("/api/me").json()["person"]["owner"] is False
    assert opened().get("/api/people").status_code == 401
    again = owner.post("/api/people/link", json={"key": "mara@quillhaven.example"}).json()
    assert opened().post("/api/links/use", json={**again, "password": GOOD}).status_code == 200
    assert hers.get("/api/projects").status_code == 401
    assert owner.post("/api/people/link", json={"key": "nobody"}).status_code == 404


def test_while_nobody_signs_in_nobody_invites(opened):
    assert opened().get("/api/people").status_code == 401
    assert opened().post("/api/people", json={"key": "tam", "name": "Tam", "owner": True}).status_code == 401
    assert opened().post("/api/people/link", json={"key": "tam"}).status_code == 401


def test_whoever_runs_the_server_adds_and_lists_people(opened):
    run = CliRunner()

    def said(*words):
        done = run.invoke(command, list(words))
        return done.exit_code, done.output

    assert said("list") == (0, "Nobody signs in yet.\n")
    code, text = said("first")
    assert code == 0
    assert "/welcome#" in text
    code, text = said("add", "tam@quillhaven.example", "Tam Kerr", "--owner")
    assert said("list") == (0, "tam@quillhaven.example  Tam Kerr, owner, has not set a password yet\n")
    secret = text.strip().rpartition("#")[2]
    assert opened().post("/api/links/use", json={"secret": secret, "password": GOOD}).status_code == 200
    assert said("list") == (0, "tam@quillhaven.example  Tam Kerr, owner\n")
    assert said("first")[0] == 2
    assert said("add", "tam@quillhaven.example", "Tam")[0] == 2
    assert said("reset", "nobody")[0] == 2
    assert said("reset", "tam@quillhaven.example")[0] == 0


@pytest.fixture
def in_demo(client, opened, project, monkeypatch):
    """The demo's people in a project, as the start command of the demo has them."""
    demo.load(project)
    monkeypatch.setattr(settings(), "demo", True)
    return lambda: TestClient(client.app, base_url="http://127.0.0.1", client=("127.0.0.1", 50000))


def test_a_visitor_of_the_demo_is_one_of_its_people_with_one_click_and_another_with_one_more(in_demo, project):
    visitor = in_demo()
    me = visitor.get("/api/me").json()
    assert (me["closed"], [each["name"] for each in me["demo"]][:2]) == (True, ["Mara Oake", "Lio Marsh"])
    for key, role in (("mara", "own"), ("tam", "comment"), ("nell", "look")):
        assert visitor.post("/api/demo/sign-in", json={"key": key}).status_code == 200
        assert visitor.get(f"/api/projects/{project}/mine").json()["role"] == role
    assert visitor.get("/api/people").status_code == 403
    # Nobody signs in by a password that none of them has.
    assert sign_in(visitor, "mara", "").status_code == 401


def test_nobody_is_one_of_the_demo_from_elsewhere_or_past_a_proxy_or_without_the_demo(in_demo, client, monkeypatch):
    elsewhere = TestClient(client.app, base_url="http://127.0.0.1", client=("192.0.2.7", 50000))
    for visitor, more in ((elsewhere, {}), (in_demo(), {"X-Forwarded-For": "192.0.2.7"})):
        assert visitor.get("/api/me", headers=more).json()["demo"] == []
        assert visitor.post("/api/demo/sign-in", json={"key": "mara"}, headers=more).status_code == 404
    assert in_demo().post("/api/demo/sign-in", json={"key": "nobody"}).status_code == 404
    monkeypatch.setattr(settings(), "demo", False)
    assert in_demo().get("/api/me").json()["demo"] == []
    assert in_demo().post("/api/demo/sign-in", json={"key": "mara"}).status_code == 404
