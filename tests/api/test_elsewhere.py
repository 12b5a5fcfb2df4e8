"""Signing in by a provider of accounts, with the stand-in that ships with the application."""

from __future__ import annotations

import threading
from urllib.parse import parse_qs, urlsplit

import httpx
import pytest
import uvicorn

from stairpath.settings import settings
from stairpath.standin.provider import CLIENT_ID, provider_app
from stairpath.work.people import elsewhere
from tests.ports import port_of_own
from tests.soak.running import until

MARA, IDA, UNKNOWN, NOT_LOOKED_AT = "1001", "1002", "1003", "1004"


@pytest.fixture(scope="module")
def stand_in():
    port = port_of_own()
    app = provider_app(f"http://127.0.0.1:{port}")
    server = uvicorn.Server(uvicorn.Config(app, port=port, log_level="warning"))
    thread = threading.Thread(target=server.run)
    thread.start()
    until(lambda: server.started, 20, "the provider answers")
    yield app.state.provider
    server.should_exit = True
    thread.join()


@pytest.fixture
def provider(stand_in, monkeypatch):
    for name, value in (
        ("oidc_issuer", stand_in.issuer),
        ("oidc_client_id", CLIENT_ID),
        ("oidc_name", "Quillhaven account"),
    ):
        monkeypatch.setattr(settings(), name, value)
    elsewhere.PROVIDER.forget()
    yield stand_in
    stand_in.extra.clear()
    elsewhere.PROVIDER.forget()


def began(browser, back_to="/"):
    answer = browser.post("/api/elsewhere/begin", json={"back_to": back_to})
    assert answer.status_code == 200, answer.text
    return answer.json()["address"]


def chosen(address, sub):
    """What the provider sends along for somebody."""
    sent = httpx.get(f"{address}&as={sub}").headers["Location"]
    assert urlsplit(sent).path == "/elsewhere"
    return {name: value for name, (value,) in parse_qs(urlsplit(sent).query).items()}


def through(browser, sub, back_to="/"):
    return browser.post("/api/elsewhere/finish", json=chosen(began(browser, back_to), sub))


def test_who_was_invited_signs_in_by_their_account_and_stays_the_same_person(owner, opened, provider):
    browser = opened()
    assert browser.get("/api/me").json()["elsewhere"] == "Quillhaven account"
    done = through(browser, IDA, "/p/x")
    assert done.status_code == 200, done.text
    assert (done.json()["person"]["name"], done.json()["back_to"]) == ("Ida Fenn", "/p/x")
    assert browser.get("/api/projects").status_code == 200
    # Their mail address may change there: it is the account that counts from now on.
    provider.extra["email"] = "ida.fenn@elsewhere.example"
    assert through(opened(), IDA).json()["person"]["name"] == "Ida Fenn"
    assert "signed in by Quillhaven account" in {each["action"] for each in owner.get("/api/record").json()["entries"]}


def test_an_account_of_nobody_who_was_invited_opens_nothing(owner, opened, provider):
    for sub in (UNKNOWN, NOT_LOOKED_AT):
        browser = opened()
        refused = through(browser, sub)
        assert refused.status_code == 404
        assert "Ask who runs this server to invite" in refused.json()["detail"]
        assert browser.get("/api/projects").status_code == 401
    # Who has come by one account is not taken over by another one with the same address.
    assert through(opened(), IDA).status_code == 200
    provider.extra["email"] = "ida@quillhaven.example"
    assert through(opened(), MARA).status_code == 404


def test_a_way_there_is_good_once_and_in_its_own_browser(owner, opened, provider):
    mine, other = opened(), opened()
    sent = chosen(began(mine), IDA)
    began(other)
    # Who is brought a link of somebody else's is not signed in as them.
    assert other.post("/api/elsewhere/finish", json=sent).status_code == 401
    assert opened().post("/api/elsewhere/finish", json=sent).status_code == 401
    assert mine.post("/api/elsewhere/finish", json=sent).status_code == 200
    assert mine.post("/api/elsewhere/finish", json=sent).status_code == 401


@pytest.mark.parametrize(
    "said",
    [{"iss": "https://elsewhere.example"}, {"aud": "another"}, {"exp": 1}, {"nonce": "another"}, {"sub": None}],
)
def test_what_does_not_hold_signs_nobody_in(owner, opened, provider, said):
    provider.extra.update(said)
    browser = opened()
    assert through(browser, IDA).status_code == 401
    assert browser.get("/api/projects").status_code == 401


def test_a_token_of_another_key_signs_nobody_in(owner, opened, provider, monkeypatch):
    from joserfc.jwk import RSAKey

    browser = opened()
    sent = chosen(began(browser), IDA)  # the keys are known by now
    monkeypatch.setattr(provider, "key", RSAKey.generate_key(2048, {"kid": "one"}))
    assert browser.post("/api/elsewhere/finish", json=sent).status_code == 401


@pytest.mark.parametrize("back_to", ["https://elsewhere.example/", "//elsewhere.example", "/\\elsewhere.example", ""])
def test_nobody_is_sent_to_another_server_afterwards(owner, opened, provider, back_to):
    assert through(opened(), IDA, back_to).json()["back_to"] == "/"


def test_a_provider_that_does_not_answer_is_said_so(owner, opened, provider, monkeypatch):
    monkeypatch.setattr(settings(), "oidc_issuer", "http://127.0.0.1:9")
    refused = opened().post("/api/elsewhere/begin", json={})
    assert refused.status_code == 409
    assert "does not answer just now" in refused.json()["detail"]


def test_without_a_provider_there_is_no_such_way(owner, opened):
    assert opened().get("/api/me").json()["elsewhere"] == ""
    assert opened().post("/api/elsewhere/begin", json={}).status_code == 404
