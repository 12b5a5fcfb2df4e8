"""What somebody who means harm tries: other pages, stolen secrets, more in a body than is asked, texts that are to be run."""

from __future__ import annotations

import csv
import io
import threading
from http.server import BaseHTTPRequestHandler, HTTPServer

import pytest

from stairpath.core.exchange.printed import question_html
from stairpath.core.exchange.printed.page import pdf_of
from stairpath.store.database import transaction
from stairpath.store.tables import Project
from stairpath.work.people import links
from stairpath.work.topics import questions
from tests.api.conftest import COOKIE, GOOD
from tests.api.test_people import sign_in

FORMS = {
    "form": ("application/x-www-form-urlencoded", b"name=x"),
    "multipart": (
        "multipart/form-data; boundary=x",
        b'--x\r\nContent-Disposition: form-data; name="name"\r\n\r\nx\r\n--x--',
    ),
    "text": ("text/plain", b'{"name": "x"}'),
    "json": ("application/json", b'{"name": "x"}'),
    "nothing": ("", b""),
}
ELSEWHERE = (
    {"Origin": "https://elsewhere.example"}, {"Origin": "null"}, {"Sec-Fetch-Site": "cross-site"},
    {"Sec-Fetch-Site": "same-site"}, {"Origin": "http://127.0.0.1:9999"},
)  # fmt: skip


@pytest.mark.parametrize("headers", ELSEWHERE, ids=str)
@pytest.mark.parametrize("form", FORMS)
def test_another_page_does_nothing_with_a_visitors_cookie(owner, form, headers):
    kind, body = FORMS[form]
    project = owner.post("/api/projects", json={"name": "Pier"}).json()["id"]
    sent = {"Content-Type": kind, **headers} if kind else headers
    for method, path in (
        ("POST", "/api/projects"), ("PUT", f"/api/projects/{project}/name"), ("DELETE", f"/api/projects/{project}"),
        ("POST", "/api/sign-out"), ("POST", "/api/tokens"), ("PUT", "/api/account/password"),
        ("POST", f"/bcf/3.0/projects/{project}/topics"), ("POST", "/foundation/oauth2/token"),
    ):  # fmt: skip
        assert owner.request(method, path, content=body, headers=sent).status_code == 403, path
    assert owner.get(f"/api/projects/{project}/limits").status_code == 200


@pytest.mark.parametrize("form", ["form", "multipart", "text"])
def test_what_a_plain_form_can_send_is_no_request(owner, form):
    """A browser that says nothing of where a form is from gets nothing done by it either."""
    kind, body = FORMS[form]
    count = len(owner.get("/api/projects").json())
    assert owner.post("/api/projects", content=body, headers={"Content-Type": kind}).status_code == 422
    assert len(owner.get("/api/projects").json()) == count


def test_a_secret_that_was_brought_along_becomes_nobodys(owner, opened):
    victim = opened()
    victim.cookies.set(COOKIE, "chosen-by-somebody-else", domain="127.0.0.1")
    assert sign_in(victim).status_code == 200
    thief = opened()
    thief.cookies.set(COOKIE, "chosen-by-somebody-else", domain="127.0.0.1")
    assert thief.get("/api/projects").status_code == 401


def test_a_stolen_cookie_is_good_for_nothing_after_signing_out_and_after_a_new_password(owner, opened):
    stolen = owner.cookies[COOKIE]
    owner.post("/api/sign-out")
    thief = opened()
    thief.cookies.set(COOKIE, stolen, domain="127.0.0.1")
    assert thief.get("/api/projects").status_code == 401
    again = opened()
    sign_in(again)
    thief.cookies.set(COOKIE, again.cookies[COOKIE], domain="127.0.0.1")
    assert thief.get("/api/projects").status_code == 200
    new = {"old": GOOD, "new": "nine cranes in a row by night"}
    assert again.put("/api/account/password", json=new).status_code == 200
    assert thief.get("/api/projects").status_code == 401


@pytest.mark.parametrize(
    ("method", "path", "body"),
    [
        ("POST", "/api/projects", {"name": "x", "id": "0" * 32, "created_by": "Somebody Else", "removed_at": None, "limits": {"tasks": 1}}),
        ("PUT", "/api/account", {"initials": "", "colour": "", "units": "", "owner": True, "makes_projects": True, "name": "Ida Fenn", "key": "ida"}),
        ("PUT", "/api/account/password", {"old": GOOD, "new": GOOD + " anew", "owner": True}),
    ],
)  # fmt: skip
def test_more_in_a_body_than_is_asked_counts_for_nothing(owner, opened, method, path, body):
    owner.post("/api/people", json={"key": "una", "name": "Una Vale"})
    una = opened()
    una.post("/api/links/use", json={"secret": links.for_password("una"), "password": GOOD, "owner": True})
    una.request(method, path, json=body)
    me = una.get("/api/me").json()["person"]
    assert (me["name"], me["key"], me["owner"], me["makes_projects"]) == ("Una Vale", "una", False, False)
    made = owner.request("POST", "/api/projects", json={"name": "y", "id": "0" * 32, "created_by": "Una Vale"})
    with transaction() as session:
        row = session.get_one(Project, made.json()["id"])
        assert (row.id == "0" * 32, row.created_by, row.limits) == (False, "Ida Fenn", None)


SCRIPT = "<script>alert(1)</script><img src=x onerror=alert(1)>"


def test_a_file_that_is_attached_is_saved_and_never_run(owner):
    project = owner.post("/api/projects", json={"name": SCRIPT}).json()["id"]
    topic = owner.post(f"/api/projects/{project}/topics", json={"title": SCRIPT}).json()["id"]
    for name, content in (
        ("a.html", SCRIPT.encode()),
        ("a.svg", b"<svg onload='alert(1)'/>"),
        ('x"; filename=a.js', b"1"),
    ):
        head = {"X-File-Name": name.replace('"', "%22").replace(";", "%3B")}
        file = owner.post(f"/api/topics/{topic}/files", content=content, headers=head).json()
        answer = owner.get(f"/api/topic-files/{file['id']}")
        assert answer.headers["Content-Type"] == "application/octet-stream"
        assert answer.headers["Content-Disposition"].startswith("attachment; filename*=utf-8''")
        assert answer.headers["X-Content-Type-Options"] == "nosniff"
        assert '"' not in answer.headers["Content-Disposition"]
    # Texts go out as JSON, and as text in what is printed.
    assert owner.get(f"/api/projects/{project}/topics").headers["Content-Type"] == "application/json"
    owner.put(f"/api/topics/{topic}/question", json={"to": SCRIPT, "text": SCRIPT})
    page = question_html(questions.page(topic, "http://127.0.0.1"))
    assert "<script>" not in page
    assert "<img src=x" not in page


class _Listener(BaseHTTPRequestHandler):
    heard: list[str] = []  # noqa: RUF012

    def do_GET(self):
        self.heard.append(self.path)
        self.send_response(200)
        self.end_headers()

    def log_message(self, format, *args):
        pass


@pytest.fixture
def listener():
    server = HTTPServer(("127.0.0.1", 0), _Listener)
    thread = threading.Thread(target=server.serve_forever)
    thread.start()
    _Listener.heard.clear()
    yield f"http://127.0.0.1:{server.server_port}", _Listener.heard
    server.shutdown()
    thread.join()
    server.server_close()


def test_what_is_printed_asks_no_address_and_no_file(owner, listener, tmp_path):
    address, heard = listener
    secret = tmp_path / "secret.txt"
    secret.write_text("harbour")
    project = owner.post("/api/projects", json={"name": "Pier"}).json()["id"]
    text = f'<img src="{address}/a"><link rel=stylesheet href="{address}/b"><style>@import url({address}/c)</style><a href="file://{secret}">x</a>'
    topic = owner.post(f"/api/projects/{project}/topics", json={"title": text[:80], "description": text}).json()["id"]
    owner.put(f"/api/topics/{topic}/question", json={"to": "Tam", "text": text})
    assert owner.get(f"/api/topics/{topic}/question").content.startswith(b"%PDF")
    meeting = owner.post(f"/api/projects/{project}/meetings", json={"title": text[:80], "chosen": [topic]}).json()["id"]
    assert owner.get(f"/api/meetings/{meeting}/minutes").status_code == 200
    # Even a page that has it as HTML, which texts never become, asks for nothing.
    assert pdf_of(f"<html><body>{text}<img src='file://{secret}'></body></html>").startswith(b"%PDF")
    assert heard == []


@pytest.mark.parametrize("sign", ["=", "+", "-", "@", "\t=", "\r="])
def test_no_cell_of_a_list_is_a_formula(owner, sign):
    evil = f"{sign}cmd|' /C calc'!A0"
    project = owner.post("/api/projects", json={"name": "Pier"}).json()["id"]
    owner.post(f"/api/projects/{project}/topics", json={"title": evil, "description": evil})
    for path in ("topics/list?form=csv", "record/csv"):
        text = owner.get(f"/api/projects/{project}/{path}").content.decode("utf-8-sig")
        cells = [cell for row in csv.reader(io.StringIO(text)) for cell in row]
        assert any("cmd|" in cell for cell in cells), path
        assert not [cell for cell in cells if "cmd|" in cell and cell.lstrip()[:1] in "=+-@"], path


def test_who_sounds_out_ids_hears_the_same_of_what_is_anothers_and_of_what_is_not(owner, person):
    project = owner.post("/api/projects", json={"name": "Pier"}).json()["id"]
    una = person("una", "Una Vale")
    theirs = una.get(f"/api/projects/{project}/federation")
    nobodys = una.get(f"/api/projects/{'0' * 32}/federation")
    assert (theirs.status_code, theirs.json()) == (nobodys.status_code, nobodys.json()) == (404, theirs.json())


def test_a_secret_is_told_once_and_stands_in_no_list(owner):
    made = owner.post("/api/tokens", json={"name": "Tablet", "scope": "look", "days": 7}).json()
    assert made["secret"]
    for path in ("/api/tokens", "/api/people", "/api/record", "/api/account/kept", "/api/server", "/api/me"):
        text = owner.get(path).text
        assert made["secret"] not in text, path
        assert "argon2" not in text, path
