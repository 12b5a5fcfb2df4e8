"""Who is let in, how much may be sent, and what every answer carries."""

from __future__ import annotations

import base64
import errno
import math
import socket
import struct
import threading
import time
import zlib

import psycopg
import pytest
import uvicorn
from sqlalchemy.exc import OperationalError
from sqlalchemy.exc import TimeoutError as NoConnectionError
from websockets.sync.client import connect

from stairpath.api.http import head_timeout
from stairpath.api.http.errors import BUSY, FULL
from stairpath.api.http.guard import HEADERS
from stairpath.api.live.session import Together
from tests.api.test_views import keep, png, rule, view_of
from tests.ports import port_of_own

WELL_KNOWN = ("content-security-policy", "x-content-type-options", "x-frame-options", "referrer-policy")


@pytest.mark.parametrize("host", ["evil.example", "127.0.0.1.evil.example", "", "localhost.evil:8400", "[::2]"])
def test_other_host_names_are_refused(client, host):
    answer = client.get("/api/projects", headers={"Host": host})
    assert answer.status_code == 400
    assert "does not answer under that name" in answer.json()["detail"]


@pytest.mark.parametrize("host", ["127.0.0.1", "127.0.0.1:8400", "localhost:8400", "LOCALHOST", "[::1]:8400"])
def test_its_own_names_are_let_in(client, host):
    assert client.get("/api/projects", headers={"Host": host}).status_code == 200


@pytest.mark.parametrize(
    ("method", "path"),
    [
        ("POST", "/api/projects"),
        ("DELETE", "/api/projects/none"),
        ("POST", "/api/models/none/cancel"),
        ("PUT", "/api/models/none/discipline"),
    ],
)
@pytest.mark.parametrize(
    "headers",
    [
        {"Origin": "https://evil.example"},
        {"Origin": "null"},
        {"Origin": "http://127.0.0.1:9999", "Host": "127.0.0.1:8400"},
        {"Sec-Fetch-Site": "cross-site"},
        {"Sec-Fetch-Site": "same-site"},
    ],
)
def test_writes_from_other_pages_are_refused_with_and_without_a_body(client, method, path, headers):
    answer = client.request(method, path, headers=headers)
    assert answer.status_code == 403
    assert "from another page" in answer.json()["detail"]


def test_writes_from_its_own_page_are_taken(client):
    headers = {"Host": "127.0.0.1:8400", "Origin": "http://127.0.0.1:8400", "Sec-Fetch-Site": "same-origin"}
    made = client.post("/api/projects", json={"name": "Own"}, headers=headers)
    assert made.status_code == 201


@pytest.mark.parametrize(
    "path", ["/api/projects", "/api/projects/none/federation", "/api/docs", "/api/nowhere", "/api/openapi.json"]
)
def test_every_answer_carries_the_headers(client, path):
    answer = client.get(path)
    for name, value in HEADERS.items():
        assert answer.headers[name] == value
    assert "'unsafe-inline'" not in HEADERS["Content-Security-Policy"].split("script-src", 1)[1].split(";", 1)[0]
    refused = client.get(path, headers={"Host": "evil.example"})
    assert all(name in refused.headers for name in WELL_KNOWN)


def test_nothing_is_kept_by_a_browser_that_does_not_say_so(client):
    """A browser keeps a plain 410 for good, and what was in the bin would never open again."""
    project = client.post("/api/projects", json={"name": "Back again"}).json()["id"]
    assert client.delete(f"/api/projects/{project}").status_code == 204
    gone = client.get(f"/api/projects/{project}/federation")
    assert gone.status_code == 410
    assert gone.headers["cache-control"] == "no-store"
    assert client.get("/api/projects").headers["cache-control"] == "no-store"


def test_the_documentation_page_needs_nothing_from_elsewhere(client):
    page = client.get("/api/docs").text
    assert "/api/projects/{project_id}/federation" in page
    assert "http://" not in page
    assert "https://" not in page
    assert "<script" not in page


@pytest.mark.parametrize("counted", [True, False])
def test_a_body_that_is_too_long_is_refused(client, counted):
    big = b'{"name": "' + b"x" * (2 << 20) + b'", "author": "y"}'
    content = big if counted else (big[k : k + 65536] for k in range(0, len(big), 65536))
    answer = client.post("/api/projects", content=content, headers={"Content-Type": "application/json"})
    assert answer.status_code == 413
    assert answer.json()["detail"] == "The request is larger than the 1 MB that are taken; send less at a time."


def vast_png(width: int, height: int) -> str:
    """A header that announces so many pixels, and next to nothing behind it."""

    def part(kind: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))

    head = struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    picture = b"\x89PNG\r\n\x1a\n" + part(b"IHDR", head) + part(b"IDAT", zlib.compress(b"\0" * 64)) + part(b"IEND", b"")
    return base64.b64encode(picture).decode()


@pytest.mark.parametrize(
    ("picture", "status", "words"),
    [
        (vast_png(100_000, 100_000), 413, "more than 40 million pixels"),
        ("ä" * 40, 422, "is not base64"),
        (base64.b64encode(b"\x89PNG\r\n\x1a\n" + bytes(60)).decode(), 422, "is damaged"),
        (png()[:-40] + "A" * 40, 422, "is damaged"),
        ("A" * (22 << 20), 413, "larger than 16 MB"),
    ],
)
def test_pictures_are_looked_at_before_they_are_unpacked(client, project, picture, status, words):
    answer = keep(client, project, picture_png=picture)
    assert answer.status_code == status
    assert words in answer.json()["detail"]


def test_a_viewpoint_of_forty_megabytes_is_refused(client, project):
    view = view_of(rule({"kind": "these", "of": {"m" * 32: ["g" * 22] * 1_600_000}}))
    assert keep(client, project, view=view).status_code == 413


@pytest.fixture
def away(monkeypatch):
    """The database cannot be reached."""

    def nobody(*args, **more):
        raise OperationalError("SELECT 1", {}, Exception("connection refused"))

    monkeypatch.setattr("sqlalchemy.engine.base.Engine.connect", nobody)
    monkeypatch.setattr("sqlalchemy.orm.session.Session.execute", nobody)
    monkeypatch.setattr("sqlalchemy.orm.session.Session.get", nobody)


@pytest.mark.parametrize("path", ["/api/health", "/api/projects", "/api/projects/none/models", "/api/viewpoints/none"])
def test_while_the_database_is_away_that_is_said(client, away, path):
    answer = client.get(path)
    assert answer.status_code == 503
    assert answer.json()["detail"] == "The database cannot be reached. This is retried automatically."
    assert int(answer.headers["Retry-After"]) > 0


@pytest.mark.parametrize(
    "why",
    [
        NoConnectionError("QueuePool limit of size 10 overflow 20 reached"),
        OperationalError("SELECT", {}, psycopg.OperationalError('FATAL:  too many connections for role "stairpath"')),
        OperationalError("SELECT", {}, psycopg.errors.TooManyConnections("sorry, too many clients already")),
    ],
)
def test_where_all_connections_are_taken_that_is_said_and_goes_by(client, project, monkeypatch, why):
    def taken(*args, **more):
        raise why

    with monkeypatch.context() as now:
        now.setattr("sqlalchemy.orm.session.Session.execute", taken)
        now.setattr("sqlalchemy.orm.session.Session.get", taken)
        answer = client.get(f"/api/projects/{project}/models")
        assert (answer.status_code, answer.json()["detail"]) == (503, BUSY)
        assert int(answer.headers["Retry-After"]) > 0
    assert client.get(f"/api/projects/{project}/models").status_code == 200


@pytest.mark.parametrize(
    "why",
    [
        OperationalError("INSERT", {}, psycopg.errors.DiskFull("could not extend file")),
        OSError(errno.ENOSPC, "No space left on device"),
    ],
)
def test_a_full_disk_is_called_that(client, project, monkeypatch, why):
    monkeypatch.setattr("stairpath.store.database._full_at", -math.inf)
    assert client.get("/api/health").json() == {"status": "ok"}

    def full(*args, **more):
        raise why

    monkeypatch.setattr("sqlalchemy.orm.session.Session.flush", full)
    answer = client.post(f"/api/projects/{project}/topics", json={"title": "Gap"})
    assert (answer.status_code, answer.json()["detail"]) == (507, FULL)
    assert client.get("/api/health").status_code == 507
    # A while after it has room again nothing speaks of it.
    with monkeypatch.context() as later:
        later.setattr("stairpath.store.database._FULL_FOR_S", 0.0)
        assert client.get("/api/health").json() == {"status": "ok"}


@pytest.fixture
def real_server(client, monkeypatch):
    """The application behind a real port, where nobody is waited for long."""
    monkeypatch.setattr(head_timeout, "HEAD_S", 0.6)
    monkeypatch.setattr("stairpath.api.http.guard.SLOWEST_S", 0.6)
    port = port_of_own()
    server = uvicorn.Server(
        uvicorn.Config(client.app, port=port, lifespan="off", http=head_timeout.HeadTimeoutProtocol, log_level="error")
    )
    thread = threading.Thread(target=server.run)
    thread.start()
    while not server.started:
        time.sleep(0.02)
    yield port
    server.should_exit = True
    thread.join(10)


def said(port: int, *parts: bytes, pause_s: float = 0.0) -> bytes:
    """What comes back on a connection until it is closed."""
    with socket.create_connection(("127.0.0.1", port), timeout=10) as line:
        for part in parts:
            line.sendall(part)
            time.sleep(pause_s)
        out = b""
        while piece := line.recv(65536):
            out += piece
        return out


HEAD = b"GET /api/openapi.json HTTP/1.1\r\nHost: 127.0.0.1\r\n"
POST = b"POST /api/projects HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: 40\r\n\r\n"


def test_slow_senders_are_closed(real_server):
    began = time.monotonic()
    assert said(real_server) == b""
    assert said(real_server, HEAD, b"X-More: 1", pause_s=0.2) == b""
    slow = said(real_server, POST, b'{"name"')
    assert b" 408 " in slow.split(b"\r\n", 1)[0]
    assert b"took too long to arrive" in slow
    assert time.monotonic() - began < 8
    assert b" 200 " in said(real_server, HEAD + b"Connection: close\r\n\r\n").split(b"\r\n", 1)[0]


def test_what_is_no_http_is_refused_with_the_same_head(real_server):
    head, body = said(real_server, b"NONSENSE\r\n\r\n").split(b"\r\n\r\n", 1)
    assert b" 400 " in head.split(b"\r\n", 1)[0]
    assert b"cannot be understood" in body
    for name in WELL_KNOWN:
        assert name.encode() in head.lower(), name


def test_a_head_is_that_of_the_whole_answer(client, project):
    for path in ("/api/projects", f"/api/projects/{project}/events", "/bcf/versions", "/api/nowhere"):
        head = client.head(path)
        if not path.endswith("/events"):
            whole = client.get(path)
            assert (head.status_code, head.headers["content-type"]) == (
                whole.status_code,
                whole.headers["content-type"],
            )
        assert head.content == b""


@pytest.mark.parametrize(
    ("path", "methods"),
    [
        ("/api/projects", "GET, HEAD, OPTIONS, POST"),
        ("/api/meeting-points/x", "DELETE, OPTIONS, PATCH"),
        ("/bcf/3.0/projects/x/topics/y", "DELETE, GET, HEAD, OPTIONS, PUT"),
    ],
)
def test_an_address_says_all_that_it_takes(client, path, methods):
    answer = client.options(path)
    assert (answer.status_code, answer.headers["allow"]) == (204, methods)
    refused = client.request("TRACE", path)
    assert (refused.status_code, refused.headers["allow"]) == (405, methods)


def test_a_line_that_stays_is_not_taken_for_a_slow_sender(client, project, real_server):
    client.app.state.together = Together()
    address = f"ws://127.0.0.1:{real_server}/api/projects/{project}/together?name=Mara"
    with connect(address) as line:
        assert "Mara" in line.recv(timeout=5)
        with pytest.raises(TimeoutError):
            # Longer than a head may take; nothing is said, and the line is there.
            line.recv(timeout=1.5)
        line.send('{"kind": "follows", "on": true}')
        assert "here" in line.recv(timeout=5)
