"""A second factor: set up, asked for, used once, and lost."""

from __future__ import annotations

import time

import pyotp
import pytest

from stairpath.store.database import transaction
from stairpath.store.person_tables import Person
from stairpath.work.people import links, slow_down
from tests.api.conftest import GOOD
from tests.api.test_people import OTHER, sign_in

KEY = "ida@quillhaven.example"


@pytest.fixture
def later(monkeypatch):
    """Let time go on by steps of codes."""
    now = [time.time()]
    monkeypatch.setattr(time, "time", lambda: now[0])

    def on(steps: int = 1) -> None:
        now[0] += 30 * steps

    return on


def begin(browser, password=GOOD):
    return browser.post("/api/account/second-factor", json={"password": password})


def set_up(browser) -> tuple[pyotp.TOTP, list[str]]:
    made = pyotp.TOTP(begin(browser).json()["secret"])
    answer = browser.post("/api/account/second-factor/confirm", json={"code": made.at(int(time.time()))})
    assert answer.status_code == 200, answer.text
    return made, answer.json()["codes"]


def signed(browser, code=""):
    slow_down.forget(KEY)
    return browser.post("/api/sign-in", json={"name": KEY, "password": GOOD, "code": code})


def test_a_code_is_asked_for_once_one_was_right_and_not_before(owner, opened, later):
    begun = begin(owner)
    assert begun.json()["address"].startswith("otpauth://totp/Stair%20Path:ida")
    assert begun.json()["picture"].startswith("data:image/svg+xml")
    assert signed(opened()).json()["person"]["name"] == "Ida Fenn"  # nothing counts yet
    wrong = owner.post("/api/account/second-factor/confirm", json={"code": "000000"})
    assert wrong.status_code == 422
    made, codes = set_up(owner)
    assert len(codes) == 10
    later()
    browser = opened()
    assert signed(browser).json() == {"person": None, "asks_code": True}
    assert not browser.cookies
    assert browser.get("/api/projects").status_code == 401
    assert signed(browser, "000000").status_code == 401
    assert signed(browser, made.at(int(time.time()))).json()["person"]["key"] == KEY
    assert browser.get("/api/account").json()["second_factor"] is True


def test_a_code_is_good_once_and_so_is_a_recovery_code(owner, opened, later):
    made, codes = set_up(owner)
    assert signed(opened(), made.at(int(time.time()))).status_code == 401  # the one that set it up
    later()
    code = made.at(int(time.time()))
    assert signed(opened(), code).status_code == 200
    assert signed(opened(), code).status_code == 401
    assert signed(opened(), codes[3].upper()).status_code == 200
    assert signed(opened(), codes[3]).status_code == 401
    assert owner.get("/api/account").json()["recovery_left"] == 9


def test_the_password_alone_guesses_no_codes(owner, opened):
    set_up(owner)
    slow_down._windows.storage.reset()
    wish = {"name": KEY, "password": GOOD}
    answers = [opened().post("/api/sign-in", json={**wish, "code": f"{n:06d}"}).status_code for n in range(12)]
    assert answers[-2:] == [429, 429]
    assert 200 not in answers


def test_a_wrong_password_says_nothing_of_a_second_factor(owner, opened):
    set_up(owner)
    assert sign_in(opened(), password=OTHER).json()["detail"] == sign_in(opened(), "nobody").json()["detail"]


def test_a_link_for_a_new_password_asks_for_a_code_too(owner, opened, later):
    _, codes = set_up(owner)
    secret = links.for_password(KEY)
    assert opened().post("/api/links/look", json={"secret": secret}).json()["asks_code"] is True
    wish = {"secret": secret, "password": OTHER}
    assert opened().post("/api/links/use", json=wish).status_code == 422
    assert opened().post("/api/links/use", json={**wish, "code": codes[0]}).status_code == 200


def test_it_is_set_up_and_removed_with_the_password_alone_and_not_twice(owner, later):
    assert begin(owner, OTHER).status_code == 422
    set_up(owner)
    assert begin(owner).status_code == 409
    removing = "/api/account/second-factor/remove"
    assert owner.post(removing, json={"password": OTHER}).status_code == 422
    assert owner.post(removing, json={"password": GOOD}).status_code == 204
    assert owner.post(removing, json={"password": GOOD}).status_code == 409
    with transaction() as session:
        kept = session.query(Person).filter_by(key=KEY).one()
        assert (kept.code_secret, kept.recovery, kept.code_on) == ("", [], False)


def test_new_recovery_codes_take_the_place_of_those_before(owner, opened):
    _, before = set_up(owner)
    now = owner.post("/api/account/second-factor/codes", json={"password": GOOD}).json()["codes"]
    assert signed(opened(), before[0]).status_code == 401
    assert signed(opened(), now[0]).status_code == 200


def test_who_runs_the_server_helps_who_has_lost_everything_and_the_record_says_so(owner, opened, person):
    person("una", "Una Vale")
    hers = opened()
    hers.post("/api/links/use", json={"secret": links.for_password("una"), "password": GOOD})
    made = pyotp.TOTP(hers.post("/api/account/second-factor", json={"password": GOOD}).json()["secret"])
    hers.post("/api/account/second-factor/confirm", json={"code": made.now()})
    (una,) = [each for each in owner.get("/api/people").json() if each["person"]["key"] == "una"]
    assert una["second_factor"] is True
    assert hers.post(f"/api/people/{una['id']}/second-factor/remove").status_code == 403
    assert owner.post(f"/api/people/{una['id']}/second-factor/remove").status_code == 204
    answer = opened().post("/api/sign-in", json={"name": "una", "password": GOOD})
    assert answer.json()["person"]["name"] == "Una Vale"
    entries = owner.get("/api/record").json()["entries"]
    assert ("Ida Fenn", "una") in [
        (each["who"], each["title"]) for each in entries if each["action"] == "removed a second factor"
    ]


def test_secrets_and_codes_stand_in_no_record(owner):
    made, codes = set_up(owner)
    text = owner.get("/api/record/csv").text + owner.get("/api/record").text
    assert "set up a second factor" in text
    assert made.secret not in text
    assert not any(code in text for code in codes)
