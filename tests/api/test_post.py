"""Mail: invitations and new passwords, shown in the mailbox or handed to a server for mail."""

from __future__ import annotations

import email.message
import smtplib
from datetime import UTC, datetime, timedelta

import pytest
from aiosmtpd.controller import Controller
from aiosmtpd.handlers import Message
from sqlalchemy import select, update

from stairpath.settings import settings
from stairpath.store import people
from stairpath.store.database import transaction
from stairpath.store.mail import Mail
from stairpath.work.people import post
from tests.api.conftest import GOOD, mailed_secret
from tests.api.test_people import OTHER, sign_in
from tests.ports import port_of_own

MARA = "mara@quillhaven.example"


class Kept(Message):
    """A server for mail that keeps what it is given."""

    def __init__(self) -> None:
        super().__init__()
        self.got: list[email.message.Message] = []

    def handle_message(self, message) -> None:
        self.got.append(message)


@pytest.fixture
def smtp(monkeypatch):
    kept = Kept()
    port = port_of_own()
    server = Controller(kept, hostname="127.0.0.1", port=port)
    server.start()
    for name, value in (("smtp_host", "127.0.0.1"), ("smtp_port", port), ("smtp_security", "none")):
        monkeypatch.setattr(settings(), name, value)
    monkeypatch.setattr(settings(), "mail_from", "stair-path@quillhaven.example")
    monkeypatch.setattr(settings(), "address", "https://models.quillhaven.example/")
    yield kept
    server.stop()


def invite(browser, key=MARA, name="Mara Oake"):
    return browser.post("/api/people", json={"key": key, "name": name})


def asked(browser, key):
    return browser.post("/api/links/new-password", json={"key": key})


def test_who_signs_in_by_a_mail_address_is_invited_by_mail_and_the_link_is_told_nobody_else(owner, opened):
    assert invite(owner).json() == {"secret": None}
    (mail,) = owner.get("/api/mailbox").json()
    assert (mail["to"], mail["subject"]) == (MARA, "Ida Fenn invites you to Stair Path")
    hers = opened()
    assert hers.post("/api/links/use", json={"secret": mailed_secret(MARA), "password": OTHER}).status_code == 200
    # Who runs no server does not see what others were mailed, and who asks from elsewhere neither.
    assert hers.get("/api/mailbox").status_code == 404
    assert opened().get("/api/mailbox").status_code == 404
    assert hers.get("/api/me").json()["mailbox"] is False
    assert owner.get("/api/me").json()["mailbox"] is True


def test_who_signs_in_by_another_name_is_given_a_link_by_hand(owner):
    assert invite(owner, "mara", "Mara Oake").json()["secret"]
    assert post.mailbox() == []


def test_members_are_invited_by_mail_and_told_where_they_are_known(owner, opened):
    project = owner.post("/api/projects", json={"name": "Pier"}).json()["id"]
    added = f"/api/projects/{project}/members"
    wish = {"kind": "person", "role": "comment", "named": MARA, "name": "Mara Oake"}
    assert owner.post(added, json=wish).json()["secret"] is None
    (invited,) = post.mailbox()
    assert invited.subject == "Ida Fenn invites you to the project Pier in Stair Path"
    other = owner.post("/api/projects", json={"name": "Quay"}).json()["id"]
    owner.post(f"/api/projects/{other}/members", json=wish)
    told = post.mailbox()[0]
    assert told.subject == "Ida Fenn added you to the project Quay"
    assert told.text.endswith(f"/p/{other}\n")
    assert "/welcome" not in told.text


def test_a_new_password_is_mailed_to_who_is_known_and_the_answer_tells_nothing(owner, opened, work):
    known, unknown, by_name = (asked(opened(), key) for key in ("ida@quillhaven.example", "no@body.example", "tam"))
    assert {(each.status_code, each.content) for each in (known, unknown, by_name)} == {(202, b"null")}
    work()
    (mail,) = post.mailbox()
    assert mail.to == "ida@quillhaven.example"
    wish = {"secret": mailed_secret(mail.to), "password": OTHER}
    assert opened().post("/api/links/use", json=wish).status_code == 200
    assert owner.get("/api/projects").status_code == 401  # it is signed out everywhere
    assert sign_in(opened(), password=GOOD).status_code == 401
    # Who did not do this themselves is told.
    assert post.mailbox()[0].subject == "Stair Path: Your password was changed"


def test_whether_somebody_is_known_is_not_looked_up_while_they_ask(owner, opened, monkeypatch):
    monkeypatch.setattr(people, "person_by_key", lambda *_, **__: pytest.fail("it was looked up"))
    assert asked(opened(), "ida@quillhaven.example").status_code == 202


def test_nobodys_box_is_filled(owner, opened, work):
    answers = [asked(opened(), MARA).status_code for _ in range(7)]
    assert answers == [202] * 5 + [429] * 2
    assert asked(opened(), "other@quillhaven.example").status_code == 202


def test_mails_go_to_the_server_for_mail_once_and_are_kept_without_their_text(owner, smtp):
    invite(owner)
    assert owner.get("/api/me").json()["mailbox"] is False
    assert owner.get("/api/mailbox").json()[0]["text"] == ""  # it is on its way, and nobody's to read
    assert post.send_waiting() == 1
    assert post.send_waiting() == 0
    (got,) = smtp.got
    assert (got["To"], got["From"]) == (MARA, "stair-path@quillhaven.example")
    assert "https://models.quillhaven.example/welcome#" in got.get_payload()
    with transaction() as session:
        (row,) = session.scalars(select(Mail)).all()
        assert row.sent_at is not None
        assert row.text == ""
    assert owner.get("/api/mailbox").json() == []


def test_a_name_that_is_written_like_a_head_of_a_mail_stays_in_its_text(owner, smtp):
    invite(owner, name="Mara\r\nBcc: all@quillhaven.example")
    post.send_waiting()
    (got,) = smtp.got
    assert got["Bcc"] is None
    assert got["X-RcptTo"] == MARA


def test_a_mail_that_cannot_be_sent_is_tried_again_later_and_says_why(owner, smtp, monkeypatch):
    invite(owner)

    def refuses(*_):
        raise smtplib.SMTPServerDisconnected("the line is down")

    with monkeypatch.context() as broken:
        broken.setattr(post, "_hand_over", refuses)
        assert post.send_waiting() == 0
    assert "the line is down" in owner.get("/api/mailbox").json()[0]["trouble"]
    assert post.send_waiting() == 0  # its time has not come
    with transaction() as session:
        session.execute(update(Mail).values(next_at=datetime.now(UTC) - timedelta(seconds=1)))
    assert post.send_waiting() == 1
    assert len(smtp.got) == 1


def test_what_lies_in_the_mailbox_for_a_week_is_deleted(owner):
    invite(owner)
    post.forget()
    assert len(post.mailbox()) == 1
    with transaction() as session:
        session.execute(update(Mail).values(made_at=datetime.now(UTC) - post.KEPT - timedelta(seconds=1)))
    post.forget()
    assert post.mailbox() == []


def test_ones_own_password_is_changed_with_the_one_until_now(owner, opened):
    other = opened()
    sign_in(other)
    wish = {"old": OTHER, "new": "nine cranes in a row by night"}
    assert owner.put("/api/account/password", json=wish).status_code == 422
    assert owner.put("/api/account/password", json={"old": GOOD, "new": "short"}).status_code == 422
    assert owner.put("/api/account/password", json={**wish, "old": GOOD}).status_code == 200
    assert owner.get("/api/account").status_code == 200  # this browser stays signed in, with a new secret
    assert other.get("/api/account").status_code == 401


@pytest.mark.parametrize(
    ("part", "said"),
    [
        ({"initials": "IFEN"}, "at most 3"),
        ({"colour": "red"}, "# and six digits"),
        ({"units": "ells"}, "Choose one of"),
        ({"language": "Deutsch"}, "de-DE"),
    ],
)
def test_what_somebody_sets_of_themselves_is_kept_where_it_can_be(owner, part, said):
    wish = {"initials": "IF", "colour": "#8fb8b5", "units": "mm", "language": "de-DE"}
    assert said in owner.put("/api/account", json={**wish, **part}).json()["detail"]
    assert owner.put("/api/account", json=wish).status_code == 200
    shown = owner.get("/api/me").json()["person"]
    assert {name: shown[name] for name in wish} == wish
