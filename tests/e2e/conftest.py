"""The whole application, as it is started for users, in headless Chromium."""

from __future__ import annotations

import json
import os
import subprocess
import sys
import time
import urllib.request
from collections.abc import Mapping
from pathlib import Path

import pytest
from playwright.sync_api import Page, ViewportSize

from stairpath.demo import PROJECT_NAME
from stairpath.start.demo import children
from stairpath.start.postgres import free_port
from tests.e2e.stage import wait_drawn
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


def send(site: str, project: str, name: str, content: bytes) -> None:
    """Send a file into a project, as the browser does."""
    request = urllib.request.Request(f"{site}/api/projects/{project}/models", content, {"X-File-Name": name})
    urllib.request.urlopen(request, timeout=60).close()


def made(site: str, name: str, files: Mapping[str, bytes], patience_s: float) -> str:
    """A project of some files, read by the worker; its id."""
    project: str = ask(f"{site}/api/projects", {"name": name, "author": "Demo"})["id"]
    for file, content in files.items():
        send(site, project, file, content)
    deadline = time.monotonic() + patience_s
    while time.monotonic() < deadline:
        models = ask(f"{site}/api/projects/{project}/models")
        if all(m["status"] == "read" and m["aligned_by"] for m in models):
            return project
        assert not [m for m in models if m["status"] == "failed"], models
        time.sleep(0.3)
    raise AssertionError(subprocess.run(["ps", "aux"], capture_output=True, text=True, check=False).stdout)


def wait_mapped(site: str, project: str) -> None:
    """Until the walk map is that of the building as it stands."""
    deadline = time.monotonic() + 240
    while not ask(f"{site}/api/projects/{project}/walking")["current"]:
        assert time.monotonic() < deadline, "the walk map was not made"
        time.sleep(0.3)


@pytest.fixture(scope="session")
def demo_project(site, demo_files):
    """The demo, sent file by file, read by the worker and mapped for walking; its id."""
    project = made(site, PROJECT_NAME, {path.name: path.read_bytes() for path in demo_files}, 300)
    wait_mapped(site, project)
    return project


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
    """A small house, read and mapped for walking; its id."""
    project = made(site, "House", {"House-ARC.ifc": house_model().content()}, 60)
    wait_mapped(site, project)
    return project


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


@pytest.fixture
def home(page: Page, site, house):
    """The house, drawn."""
    page.set_viewport_size({"width": 1200, "height": 640})
    page.goto(f"{site}/p/{house}")
    wait_drawn(page)
    page.get_by_test_id("place").first.wait_for()
    return page
