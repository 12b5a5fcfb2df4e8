"""The whole application, as it is started for users, in headless Chromium."""

from __future__ import annotations

import contextlib
import json
import os
import subprocess
import sys
import threading
import time
import urllib.request
from collections.abc import Iterator, Mapping, Sequence
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Browser, BrowserContext, Error, Page, ViewportSize, expect

from stairpath.demo import PROJECT_NAME
from stairpath.start.processes import Watched, watching
from tests.asking import by
from tests.e2e.stage import wait_drawn
from tests.ports import port_of_own
from tests.samples import Sample

ROOT = Path(__file__).resolve().parents[2]
CHROMIUM = [
    "--no-sandbox", "--use-angle=swiftshader", "--enable-unsafe-swiftshader", "--ignore-gpu-blocklist",
    "--disable-background-networking", "--disable-component-update", "--disable-sync", "--disable-quic", "--no-first-run",
]  # fmt: skip
# Where a processor draws, the page around the stage is quicker without the card's own way: half of all its time.
UNCARDED = ["--disable-gpu-rasterization", "--disable-gpu-compositing"]
SIZE: ViewportSize = {"width": 1080, "height": 680}
# Where a processor draws, a page may take its time.
expect.set_options(timeout=20_000)


@pytest.fixture(scope="session")
def browser_type_launch_args():
    return {"executable_path": "/usr/bin/chromium", "args": CHROMIUM + UNCARDED}


def ask(address: str, body: Mapping[str, object] | None = None, method: str | None = None, who: str = "Ida Fenn"):
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(address, data, {"Content-Type": "application/json", **by(who)}, method=method)
    with urllib.request.urlopen(request, timeout=30) as answer:
        return json.loads(answer.read() or "null")


@pytest.fixture(scope="session")
def site(database_url, tmp_path_factory):
    """Server and worker on a free port."""
    folder = tmp_path_factory.mktemp("site")
    port = port_of_own()
    os.environ["STAIRPATH_PORT"] = str(port)
    os.environ["STAIRPATH_WEB_DIR"] = str(ROOT / "web" / "dist-test")
    commands = {
        "server": [sys.executable, "-m", "stairpath.api.server"],
        "worker": [sys.executable, "-m", "stairpath.jobs.worker"],
    }
    with watching([Watched(name, command, folder, ROOT) for name, command in commands.items()]) as started:
        address = f"http://127.0.0.1:{port}"
        deadline = time.monotonic() + 60
        while True:
            try:
                ask(f"{address}/api/health")
                break
            except OSError:
                dead = [each.name for each in started if each.child.poll() is not None]
                if dead or time.monotonic() > deadline:
                    log = (folder / f"{(dead or ['server'])[0]}.log").read_text()
                    raise AssertionError(f"did not start: {log}") from None
                time.sleep(0.1)
        with kept_up(started):
            yield address


@contextlib.contextmanager
def kept_up(started: Sequence[Watched]) -> Iterator[None]:
    """Start again what ended by itself, as the start command does: a worker that stood still for long ends so that others go on."""
    done = threading.Event()

    def look() -> None:
        while not done.wait(1.0):
            for each in started:
                each.look(print)

    looking = threading.Thread(target=look, daemon=True)
    looking.start()
    try:
        yield
    finally:
        done.set()
        looking.join()


def send(site: str, project: str, name: str, content: bytes) -> None:
    """Send a file into a project, as the browser does."""
    request = urllib.request.Request(f"{site}/api/projects/{project}/models", content, {"X-File-Name": name})
    urllib.request.urlopen(request, timeout=60).close()


def made(site: str, name: str, files: Mapping[str, bytes], patience_s: float) -> str:
    """A project of some files, read by the worker; its id."""
    project: str = ask(f"{site}/api/projects", {"name": name}, who="Demo")["id"]
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
    """The demo's building with its structure, its air and both proposals for its stair, read and mapped; its id.

    Where a processor draws, a frame of the whole demo takes a second; core and bench have all of it.
    """
    files = {p.name: p.read_bytes() for p in demo_files if p.name.startswith(("QH-ARC", "QH-STR", "QH-AIR"))}
    project = made(site, PROJECT_NAME, files, 300)
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


def duct_model(more: int = 0) -> Sample:
    """Two ducts before the house, and more of them first, so that the others get other numbers."""
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    for k in range(more):
        sample.box(storey, (1 + k, -9, 5), (0.4, 0.4, 0.4), "IfcDuctSegment", Name="Duct", Tag=f"AD-0{k}")
    for k in range(2):
        sample.box(storey, (4 + 8 * k, -8, 1), (4, 0.6, 0.6), "IfcDuctSegment", Name="Duct", Tag=f"AD-{k + 1}")
    return sample


@pytest.fixture
def pair(site):
    """A house and ducts before it; its own project, as tests change it."""
    files = {"House-ARC.ifc": house_model().content(), "Ducts-AIR.ifc": duct_model().content()}
    return made(site, "Seen", files, 60)


# The stage has half as many pixels each way as its place on the page; letters and buttons have all of theirs.
COARSE = "Object.defineProperty(window, 'devicePixelRatio', { get: () => 0.5 })"


def another(browser: Browser, **wish: Any) -> BrowserContext:
    """A browser of somebody's own, that draws coarsely: where a processor draws, pixels are what takes long."""
    context = browser.new_context(locale="en-GB", **wish)
    context.add_init_script(COARSE)
    return context


@pytest.fixture(scope="session")
def tab(browser):
    """A page for all tests, so that the application is fetched and compiled once."""
    with another(browser) as context:
        yield context.new_page()


STORE = """([name, habits]) => {
  localStorage.setItem('stairpath.name', name);
  localStorage.setItem('stairpath.habits', habits);
}"""


def pick_one(page: Page, label: str, name: str, at: int = 0) -> None:
    """Choose by its whole name in a list that one types into."""
    page.get_by_label(label, exact=True).nth(at).click()
    page.get_by_label(label, exact=True).nth(at).fill(name)
    page.get_by_role("listbox").get_by_role("option").filter(has=page.get_by_text(name, exact=True)).first.click()


def arrive(page: Page, site: str, name: str, instrument: str = "small", *, counts: bool = True) -> None:
    """Be somebody from the next page on, with a key plan of a size; a small one leaves the stage to who clicks on it.

    The storey board says how many components there are. Frames in full take a processor long, and few tests look at them.
    """
    habits = {"instrument": instrument, "inFull": "pictures", "boardCounts": counts}
    page.goto(f"{site}/api/health")
    page.evaluate(STORE, [name, json.dumps({"state": habits, "version": 0})])


@pytest.fixture
def page(tab, site):
    """A page of somebody whose name is known and who was never here before; script errors fail the test."""
    tab.goto(f"{site}/api/health")
    tab.set_viewport_size(SIZE)
    forget = {"origin": site, "storageTypes": "local_storage,indexeddb"}
    tab.context.new_cdp_session(tab).send("Storage.clearDataForOrigin", forget)
    arrive(tab, site, "Ida Fenn")
    errors: list[str] = []

    def note(error: Error) -> None:
        errors.append(str(error))

    tab.on("pageerror", note)
    yield tab
    tab.remove_listener("pageerror", note)
    # A page that lies behind one that was opened by a link is drawn once a second.
    for other in tab.context.pages:
        if other is not tab:
            other.close()
    tab.bring_to_front()
    # What a test answered itself is the server's again for the next one.
    tab.unroute_all(behavior="ignoreErrors")
    assert errors == []


@pytest.fixture
def home(page: Page, site, house):
    """The house, drawn."""
    page.set_viewport_size({"width": 1200, "height": 640})
    page.goto(f"{site}/p/{house}")
    wait_drawn(page)
    page.get_by_test_id("place").first.wait_for()
    return page


def annexe() -> dict[str, bytes]:
    """A hall, a deck over its end, and two proposals for the stair between them: of 18 risers, and of 17."""
    base = Sample()
    ground, upper = base.storey("Level 00", 0.0), base.storey("Level 01", 3.06)
    base.box(ground, (0, 0, -0.3), (14, 6, 0.3), "IfcSlab", Name="Ground")
    base.box(upper, (8, 0, -0.3), (6, 6, 0.3), "IfcSlab", Name="Deck")
    base.room(ground, "0.01", "Hall", (0, 0, 0), (8, 6, 3))
    base.room(upper, "1.01", "Gallery", (8, 0, 0), (6, 6, 3))
    files = {"Annexe-ARC.ifc": base.content()}
    for option, risers, going in (("A", 18, 0.28), ("B", 17, 0.30)):
        stair, riser = Sample(), 3.06 / risers
        foot = stair.storey("Level 00", 0.0)
        for k in range(1, risers):
            x = 8 - (risers - k) * going
            stair.box(foot, (x, 2, 0), (going, 1.4, k * riser), "IfcStairFlight", Name=f"Tread {k}")
        files[f"Annexe-S1-ALT-{option}.ifc"] = stair.content()
    return files


@pytest.fixture(scope="module")
def hall_project(site):
    """The annexe, read and mapped; its id. Who changes its stair changes it for the tests of one file."""
    project = made(site, "Annexe", annexe(), 60)
    wait_mapped(site, project)
    return project


@pytest.fixture
def hall(page: Page, site, hall_project):
    """The annexe, drawn."""
    page.set_viewport_size({"width": 1200, "height": 640})
    page.goto(f"{site}/p/{hall_project}")
    wait_drawn(page)
    return page
