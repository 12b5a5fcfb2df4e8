"""The examples of docs/running.md as they stand: a real nginx with TLS in front of the server, and the units of systemd."""

from __future__ import annotations

import configparser
import json
import os
import re
import shutil
import socket
import ssl
import subprocess
import sys
from datetime import UTC, datetime, timedelta
from pathlib import Path
from urllib.parse import urlsplit

import httpx
import psycopg
import pytest
from websockets.sync.client import connect
from websockets.typing import Origin

from stairpath.start.processes import Watched, watching
from stairpath.work.server.certificate import good_until
from tests.api.conftest import GOOD
from tests.ports import port_of_own
from tests.soak.running import ROOT, until

NAME = "models.firm.example"
NGINX = shutil.which("nginx") or "/usr/sbin/nginx"
# What is behind the proxy takes long to start: once is enough.
pytestmark = pytest.mark.xdist_group("proxy")
UNITS = sorted((ROOT / "deploy" / "systemd").glob("stairpath-*"))


def as_it_stands(folder: Path, plain: int, safe: int, behind: int) -> Path:
    """The example with the ports, files and folders of this test, and nothing else changed."""
    example = (ROOT / "deploy" / "nginx" / "stairpath.conf").read_text()
    for was, now in (
        ("listen 80;", f"listen 127.0.0.1:{plain};"), ("listen 443 ssl http2;", f"listen 127.0.0.1:{safe} ssl http2;"),
        ("127.0.0.1:8400", f"127.0.0.1:{behind}"), (f"/etc/ssl/certs/{NAME}.pem", f"{folder}/cert.pem"),
        (f"/etc/ssl/private/{NAME}.key", f"{folder}/key.pem"),
    ):  # fmt: skip
        assert was in example, was
        example = example.replace(was, now)
    example = re.sub(r"^ *listen \[::\].*\n", "", example, flags=re.M)
    temp = "".join(
        f"{kind}_temp_path {folder}/{kind};" for kind in ("client_body", "proxy", "fastcgi", "uwsgi", "scgi")
    )
    path = folder / "nginx.conf"
    path.write_text(
        f"daemon off; pid {folder}/pid; error_log {folder}/error.log; worker_processes 1;\n"
        f"events {{}}\nhttp {{ access_log off; {temp}\n{example}}}\n"
    )
    return path


@pytest.fixture(scope="module")
def proxied(database_url, tmp_path_factory):
    """The address of the proxy over TLS and without, and the link of the first owner."""
    folder = tmp_path_factory.mktemp("proxy")
    with psycopg.connect(database_url, autocommit=True) as connection:
        connection.execute("CREATE SCHEMA proxied")
    url = urlsplit(database_url)._replace(query="options=-csearch_path%3Dproxied").geturl()
    behind, plain, safe = (port_of_own() for _ in range(3))
    with pytest.MonkeyPatch.context() as patch:
        for name, value in {
            "DATABASE_URL": url, "PORT": str(behind), "ALLOWED_HOSTS": f"{NAME},127.0.0.1", "DEMO": "1",
            "ADDRESS": f"https://{NAME}",
        }.items():  # fmt: skip
            patch.setenv(f"STAIRPATH_{name}", value)
        command = [sys.executable, "-m", "stairpath"]
        said = subprocess.run([*command, "migrate"], check=True, capture_output=True, text=True, cwd=ROOT).stdout
        assert said.startswith("The database has the tables of")
        first = subprocess.run(
            [*command, "people", "first"], check=True, capture_output=True, text=True, cwd=ROOT
        ).stdout
        subject = ["-subj", f"/CN={NAME}", "-addext", f"subjectAltName=DNS:{NAME}"]
        files = ["-keyout", str(folder / "key.pem"), "-out", str(folder / "cert.pem")]
        subprocess.run(["openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", *subject, *files], check=True, capture_output=True)  # fmt: skip
        config = as_it_stands(folder, plain, safe, behind)
        started = [
            Watched("server", [sys.executable, "-m", "stairpath.api.server"], folder, ROOT),
            Watched("nginx", [NGINX, "-p", str(folder), "-c", str(config)], folder, ROOT),
        ]
        with watching(started):
            until(
                lambda: os.system(f"curl -sf http://127.0.0.1:{behind}/api/health > /dev/null") == 0, 60, "it answers"
            )
            until((folder / "pid").exists, 20, "nginx runs")
            yield folder, plain, safe, re.findall(r"#(\S+)", first)[0]
    with psycopg.connect(database_url, autocommit=True) as connection:
        connection.execute("DROP SCHEMA proxied CASCADE")


@pytest.fixture(scope="module")
def tls(proxied):
    """A client that comes by TLS, under the name of the server."""
    folder, _, safe, _ = proxied
    context = ssl.create_default_context(cafile=str(folder / "cert.pem"))
    context.check_hostname = False
    with httpx.Client(base_url=f"https://127.0.0.1:{safe}", verify=context, headers={"Host": NAME}) as client:
        yield client


@pytest.fixture(scope="module")
def owner(proxied, tls):
    """The same, signed in as the first owner."""
    wish = {"secret": proxied[3], "password": GOOD, "key": "ida", "name": "Ida Fenn"}
    answer = tls.post("/api/links/use", json=wish, headers={"X-Forwarded-For": "203.0.113.9"})
    assert answer.status_code == 200, answer.text
    cookie = answer.headers["Set-Cookie"]
    # Past the proxy it is known that the browser came by TLS.
    assert cookie.startswith("__Host-stairpath=")
    assert {"Secure", "HttpOnly", "Path=/", "SameSite=lax"} <= set(cookie.split("; "))
    tls.headers["Cookie"] = cookie.split(";")[0]
    return tls


def test_who_comes_without_tls_is_sent_to_it_and_comes_by_it_alone_from_then_on(proxied, tls):
    _, plain, _, _ = proxied
    moved = httpx.get(f"http://127.0.0.1:{plain}/p/x?y=z", headers={"Host": NAME})
    assert (moved.status_code, moved.headers["Location"]) == (308, f"https://{NAME}/p/x?y=z")
    answer = tls.get("/api/health")
    assert answer.json() == {"status": "ok"}
    assert answer.headers["Strict-Transport-Security"] == "max-age=31536000"
    assert answer.headers["X-Content-Type-Options"] == "nosniff"
    assert "nginx" not in answer.headers.get("Via", "")


def test_what_is_for_the_machine_itself_is_not_for_others(tls):
    assert tls.get("/api/metrics").status_code == 404
    assert tls.get("/api/me").json()["demo"] == []
    assert tls.post("/api/demo/sign-in", json={"key": "mara"}).status_code == 404
    assert tls.get("/api/mailbox").status_code == 404
    assert tls.get("/api/health", headers={"Host": "elsewhere.example"}).status_code in (400, 404, 421)


def test_what_a_client_says_of_where_it_is_counts_for_nothing(owner):
    entries = owner.get("/api/record").json()["entries"]
    assert {each["address"] for each in entries if each["kind"] == "sign_in" and each["who"] == "Ida Fenn"} == {
        "127.0.0.1"
    }


def test_a_large_file_goes_through_and_one_that_is_too_large_is_refused_by_the_application(owner):
    project = owner.post("/api/projects", json={"name": "Pier"}).json()["id"]
    large = b"ISO-10303-21;" + b" " * (8 << 20)
    refused = owner.post(f"/api/projects/{project}/models", content=large, headers={"X-File-Name": "a.ifc"})
    assert refused.status_code == 422  # it arrived whole, and is not one
    assert refused.json()["detail"].endswith(".")
    topic = owner.post(f"/api/projects/{project}/topics", json={"title": "Gap"}).json()["id"]
    sent = owner.post(f"/api/topics/{topic}/files", content=large, headers={"X-File-Name": "a.bin"})
    assert sent.status_code == 201
    assert owner.get(f"/api/topic-files/{sent.json()['id']}").content == large


def test_events_and_sockets_come_at_once(proxied, owner):
    folder, _, safe, _ = proxied
    project = owner.post("/api/projects", json={"name": "Quay"}).json()["id"]
    with owner.stream("GET", f"/api/projects/{project}/events") as stream:
        lines = stream.iter_lines()
        assert next(lines) == "event: begun"
        owner.post(f"/api/projects/{project}/topics", json={"title": "Gap"})
        told = next(line for line in lines if line.startswith('data: {"kind"'))
        assert json.loads(told.removeprefix("data: "))["kind"] == "topics"
    context = ssl.create_default_context(cafile=str(folder / "cert.pem"))
    context.check_hostname = False
    port = f":{safe}"  # nginx serves the example at another port here, which a browser names
    with socket.create_connection(("127.0.0.1", safe)) as line_to, connect(
        f"wss://{NAME}{port}/api/projects/{project}/together", sock=line_to, ssl=context, server_hostname=NAME,
        additional_headers={"Cookie": owner.headers["Cookie"]}, origin=Origin(f"https://{NAME}"),
    ) as line:  # fmt: skip
        assert json.loads(line.recv(timeout=10))["people"][0]["name"] == "Ida Fenn"


def test_until_when_the_certificate_is_good_is_told_to_the_owners_of_the_server(proxied):
    _, _, safe, _ = proxied
    until_when = good_until(f"https://127.0.0.1:{safe}")
    assert until_when is not None
    assert timedelta(days=1) < until_when - datetime.now(UTC) <= timedelta(days=2)
    assert good_until("http://127.0.0.1:8400") is None
    assert good_until("https://127.0.0.1:9") is None


@pytest.mark.parametrize("unit", UNITS, ids=lambda path: path.name)
def test_units_run_what_there_is(unit):
    parser = configparser.ConfigParser(strict=False, interpolation=None)
    parser.optionxform = str  # type: ignore[assignment, method-assign]
    parser.read(unit)
    if unit.suffix == ".timer":
        assert (unit.with_suffix(".service")).exists()
        return
    service = parser["Service"]
    assert service["NoNewPrivileges"] == "yes"
    for name in ("ExecStartPre", "ExecStart", "ExecStartPost"):
        if name not in service:
            continue
        program, *words = service[name].split()
        here = program.replace("/opt/stairpath/", f"{ROOT}/")
        assert Path(here).exists(), program
        shown = [here, words[0], "--help"] if words[0] != "-m" else [here, "-c", f"import {words[1]}"]
        assert subprocess.run(shown, check=False, capture_output=True, cwd=ROOT).returncode == 0


def test_systemd_takes_the_units(tmp_path):
    analyze = shutil.which("systemd-analyze")
    if analyze is None:
        pytest.skip("systemd is not on this machine")
    for unit in UNITS:
        text = unit.read_text().replace("/opt/stairpath/", f"{ROOT}/")
        (tmp_path / unit.name).write_text(re.sub(r"^(User|Group)=.*\n", "", text, flags=re.M))
    for unit in UNITS:
        name = unit.name.replace("@.", "@1.")
        if name != unit.name:
            shutil.copy(tmp_path / unit.name, tmp_path / name)
        said = subprocess.run(
            [analyze, "verify", "--man=no", str(tmp_path / name)], check=False, capture_output=True, text=True
        )
        wrong = [line for line in said.stderr.splitlines() if "stairpath" in line and "postgresql" not in line]
        assert wrong == []
