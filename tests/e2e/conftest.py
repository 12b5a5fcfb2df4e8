"""The whole application, as it is started for users, in headless Chromium."""

from __future__ import annotations

import json
import os
import subprocess
import sys
import time
import urllib.request
from pathlib import Path

import pytest
from playwright.sync_api import Page

from stairpath.demo import PROJECT_NAME
from stairpath.start.demo import children
from stairpath.start.postgres import free_port

ROOT = Path(__file__).resolve().parents[2]
CHROMIUM = [
    "--no-sandbox", "--use-angle=swiftshader", "--enable-unsafe-swiftshader", "--ignore-gpu-blocklist",
    "--disable-background-networking", "--disable-component-update", "--disable-sync", "--disable-quic", "--no-first-run",
]  # fmt: skip
SIZE = {"width": 1080, "height": 680}


@pytest.fixture(scope="session")
def browser_type_launch_args():
    return {"executable_path": "/usr/bin/chromium", "args": CHROMIUM}


@pytest.fixture(scope="session")
def browser_context_args():
    return {"viewport": SIZE}


def ask(address: str, body: dict[str, str] | None = None):
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(address, data, {"Content-Type": "application/json"})
    with urllib.request.urlopen(request, timeout=30) as answer:
        return json.loads(answer.read())


@pytest.fixture(scope="session")
def site(database_url, tmp_path_factory):
    """Server and worker on a free port."""
    folder = tmp_path_factory.mktemp("site")
    port = free_port(8700)
    os.environ["STAIRPATH_PORT"] = str(port)
    os.environ["STAIRPATH_WEB_DIR"] = str(ROOT / "web" / "dist")
    commands = {
        "server": [sys.executable, "-m", "stairpath.api.server"],
        "worker": [sys.executable, "-m", "stairpath.jobs.worker"],
    }
    with children(commands, folder) as started:
        address = f"http://127.0.0.1:{port}"
        deadline = time.monotonic() + 60
        while True:
            try:
                ask(f"{address}/api/health")
                break
            except OSError:
                dead = [name for name, child in started.items() if child.poll() is not None]
                if dead or time.monotonic() > deadline:
                    log = (folder / f"{(dead or ['server'])[0]}.log").read_text()
                    raise AssertionError(f"did not start: {log}") from None
                time.sleep(0.1)
        yield address


@pytest.fixture(scope="session")
def demo_project(site, demo_files):
    """The demo, sent file by file and read by the worker; its id."""
    project = ask(f"{site}/api/projects", {"name": PROJECT_NAME, "author": "Demo"})["id"]
    for path in demo_files:
        request = urllib.request.Request(
            f"{site}/api/projects/{project}/models", path.read_bytes(), {"X-File-Name": path.name}
        )
        urllib.request.urlopen(request, timeout=60).close()
    deadline = time.monotonic() + 300
    while time.monotonic() < deadline:
        models = ask(f"{site}/api/projects/{project}/models")
        if all(m["status"] == "read" and m["aligned_by"] for m in models):
            return project
        assert not [m for m in models if m["status"] == "failed"], models
        time.sleep(0.5)
    raise AssertionError(subprocess.run(["ps", "aux"], capture_output=True, text=True, check=False).stdout)


@pytest.fixture
def page(page: Page):
    """A page of somebody whose name is known; script errors fail the test."""
    page.add_init_script("localStorage.setItem('stairpath.name', 'Ida Fenn')")
    errors: list[str] = []
    page.on("pageerror", lambda error: errors.append(str(error)))
    yield page
    assert errors == []
