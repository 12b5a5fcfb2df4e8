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
from playwright.sync_api import Page, ViewportSize

from stairpath.demo import PROJECT_NAME
from stairpath.start.demo import children
from stairpath.start.postgres import free_port
from tests.samples import Sample

ROOT = Path(__file__).resolve().parents[2]
CHROMIUM = [
    "--no-sandbox", "--use-angle=swiftshader", "--enable-unsafe-swiftshader", "--ignore-gpu-blocklist",
    "--disable-background-networking", "--disable-component-update", "--disable-sync", "--disable-quic", "--no-first-run",
]  # fmt: skip
SIZE: ViewportSize = {"width": 1080, "height": 680}


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


def house_model() -> Sample:
    """Two storeys of two rooms each, on a grid: little to draw, so that moving about in it is quick."""
    sample = Sample()
    sample.grid({"1": 0.0, "2": 10.0, "3": 20.0}, {"A": 0.0, "B": 12.0}, 14.0)
    for name, height in (("Level 00", 0.0), ("Level 01", 4.0)):
        storey = sample.storey(name, height)
        sample.box(storey, (-1, -1, -0.3), (22, 14, 0.3), "IfcSlab", Name="Slab")
        for at, size in (((0, 0, 0), (20, 0.3, 3.4)), ((0, 11.7, 0), (20, 0.3, 3.4)), ((0, 0, 0), (0.3, 12, 3.4)),
                         ((19.7, 0, 0), (0.3, 12, 3.4)), ((9.9, 0.3, 0), (0.2, 9, 3.4))):  # fmt: skip
            sample.box(storey, at, size, Name="Wall")
        number = "0" if height == 0 else "1"
        sample.room(storey, f"{number}.01", f"West room {number}", (0.3, 0.3, 0), (9.6, 11.4, 3.4))
        sample.room(storey, f"{number}.02", f"East room {number}", (10.1, 0.3, 0), (9.6, 11.4, 3.4))
    return sample


@pytest.fixture(scope="session")
def house(site):
    """A small house, read and drawn; its id."""
    project = ask(f"{site}/api/projects", {"name": "House", "author": "Demo"})["id"]
    request = urllib.request.Request(
        f"{site}/api/projects/{project}/models", house_model().content(), {"X-File-Name": "House-ARC.ifc"}
    )
    urllib.request.urlopen(request, timeout=60).close()
    deadline = time.monotonic() + 60
    while time.monotonic() < deadline:
        (model,) = ask(f"{site}/api/projects/{project}/models")
        if model["status"] == "read" and model["aligned_by"]:
            return project
        time.sleep(0.2)
    raise AssertionError(model)


@pytest.fixture
def page(page: Page):
    """A page of somebody whose name is known; script errors fail the test."""
    page.add_init_script("localStorage.setItem('stairpath.name', 'Ida Fenn')")
    # A small instrument leaves the stage to the tests that click on it.
    page.add_init_script(
        "if (!localStorage.getItem('stairpath.habits'))"
        "localStorage.setItem('stairpath.habits', JSON.stringify({ state: { instrument: 'small' }, version: 0 }))"
    )
    errors: list[str] = []
    page.on("pageerror", lambda error: errors.append(str(error)))
    yield page
    assert errors == []
