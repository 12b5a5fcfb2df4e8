"""A client of the real application on a real PostgreSQL, and the real jobs run in turn."""

from __future__ import annotations

import asyncio
from urllib.parse import quote

import pytest
from fastapi.testclient import TestClient

from tests.samples import Sample


@pytest.fixture(scope="session")
def client(database_url):
    from stairpath.api.server import create_app

    with TestClient(create_app()) as opened:
        yield opened


@pytest.fixture
def work(database_url):
    """Run every job that waits on the queue."""

    def run() -> None:
        from procrastinate import PsycopgConnector

        from stairpath.jobs.queue import app

        async def once() -> None:
            with app.replace_connector(PsycopgConnector(conninfo=database_url)) as queue:
                async with queue.open_async():
                    await queue.run_worker_async(wait=False, install_signal_handlers=False, listen_notify=False)

        asyncio.run(once())

    return run


@pytest.fixture
def project(client):
    made = client.post("/api/projects", json={"name": "Trial house", "author": "Ida Fenn"})
    assert made.status_code == 201
    return made.json()["id"]


@pytest.fixture
def send(client):
    """Send a file into a project, as the browser does."""

    def post(project_id: str, name: str, content: bytes | Sample):
        body = content.content() if isinstance(content, Sample) else content
        headers = {"X-File-Name": quote(name), "X-Author": quote("Ida Fenn")}
        return client.post(f"/api/projects/{project_id}/models", content=body, headers=headers)

    return post
