"""What whoever runs the server looks at: whether it is ready, what is counted, and a log that names requests and no secrets."""

from __future__ import annotations

import json
import re

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import text
from structlog.testing import capture_logs

from stairpath.logs import as_json_lines
from stairpath.store.database import transaction
from stairpath.work.topics import topics


@pytest.fixture
def here(client):
    """Who asks on the machine itself."""
    return TestClient(
        client.app, base_url="http://127.0.0.1", client=("127.0.0.1", 50_000), raise_server_exceptions=False
    )


def test_it_is_ready_with_the_tables_of_this_version_alone(here):
    assert here.get("/api/ready").json() == {"status": "ready"}
    with transaction() as session:
        now = session.scalar(text("SELECT version_num FROM alembic_version"))
        session.execute(text("UPDATE alembic_version SET version_num = 'c5e8a1d70f36'"))
    try:
        answer = here.get("/api/ready")
        assert (answer.status_code, "tables of another version" in answer.json()["detail"]) == (503, True)
    finally:
        with transaction() as session:
            session.execute(text("UPDATE alembic_version SET version_num = :now"), {"now": now})


def test_answers_and_jobs_are_counted_for_who_asks_on_the_machine_alone(client, here, project):
    def count() -> float:
        found = re.search(
            r'stairpath_answers_total\{address="/api/projects/\{project_id\}/topics",method="GET",status="200"\} (\S+)',
            here.get("/api/metrics").text,
        )
        return float(found[1]) if found else 0.0

    before = count()
    here.get(f"/api/projects/{project}/topics")
    assert count() == before + 1
    told = here.get("/api/metrics")
    assert told.headers["content-type"].startswith("text/plain")
    for name in ('stairpath_jobs{status="todo"}', "stairpath_database_up 1.0", "stairpath_kept_bytes", "_bucket{"):
        assert name in told.text
    assert project not in told.text
    assert client.get("/api/metrics").status_code == 404
    assert here.get("/api/metrics", headers={"X-Forwarded-For": "192.0.2.7"}).status_code == 404


def test_an_error_names_its_request_and_the_log_has_neither_secrets_nor_what_was_typed(here, project, monkeypatch):
    assert len(here.get("/api/health").headers["x-request-id"]) == 12

    def breaks(*_: object) -> None:
        raise RuntimeError("it broke")

    monkeypatch.setattr(topics, "make", breaks)
    here.cookies.set("stairpath", "a-secret-of-a-browser", domain="127.0.0.1")
    with capture_logs(processors=[]) as logs:
        answer = here.post(f"/api/projects/{project}/topics", json={"title": "typed by somebody"})
    assert answer.status_code == 500
    named = re.search(r"this is request ([0-9a-f]{12})\.", answer.json()["detail"])
    assert named is not None
    assert "a request went wrong" in [each["event"] for each in logs]
    assert not any(word in repr(logs) for word in ("typed by somebody", "a-secret-of-a-browser"))


def test_the_log_is_lines_of_json_with_the_id_of_the_request(here, project, monkeypatch, capsys):
    import structlog

    monkeypatch.setattr(topics, "make", lambda *_: 1 / 0)
    before = structlog.get_config()
    as_json_lines()
    try:
        answer = here.post(f"/api/projects/{project}/topics", json={"title": "x"})
    finally:
        structlog.configure(**before)
    lines = [json.loads(line) for line in capsys.readouterr().out.splitlines() if line.startswith("{")]
    found = next(line for line in lines if line["event"] == "a request went wrong")
    assert found["request"] in answer.json()["detail"]
    assert "ZeroDivisionError" in found["exception"]
