"""The page while the server or its database is away, and when they are back."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import time
import urllib.request

import pytest
from playwright.sync_api import Page, expect

from tests.e2e.conftest import ROOT, SIZE, arrive, ask, house_model, made
from tests.e2e.stage import on_screen, pose_of, size_of, wait_drawn
from tests.ports import port_of_own
from tests.samples import Sample, simple


class Server:
    """A server of its own on the tests' database, that a test may kill."""

    def __init__(self) -> None:
        self.port = port_of_own()
        self.address = f"http://127.0.0.1:{self.port}"
        self.process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        environment = {**os.environ, "STAIRPATH_PORT": str(self.port)}
        command = [sys.executable, "-m", "stairpath.api.server"]
        self.process = subprocess.Popen(command, cwd=ROOT, env=environment)
        for _ in range(900):
            try:
                ask(f"{self.address}/api/health")
                return
            except OSError:
                time.sleep(0.1)
        raise AssertionError("the server did not start")

    def kill(self) -> None:
        if self.process is not None:
            self.process.send_signal(signal.SIGKILL)
            self.process.wait(10)
            self.process = None


@pytest.fixture
def own(site):
    server = Server()
    server.start()
    yield server
    server.kill()


@pytest.fixture
def shed(site):
    return made(site, "Kept shed", {"Shed-ARC.ifc": house_model().content()}, 60)


def test_while_the_server_is_gone_the_page_says_so_in_a_line_and_goes_on_by_itself(page: Page, own, site, shed):
    page.set_viewport_size(SIZE)
    arrive(page, own.address, "Ida Fenn")
    page.goto(f"{own.address}/p/{shed}")
    wait_drawn(page)
    page.get_by_role("tab", name="Viewpoints").click()
    name = page.get_by_label("Name of the viewpoint")
    expect(name).to_be_visible()
    before = pose_of(page)
    own.kill()
    away = page.get_by_test_id("away")
    expect(away).to_be_visible(timeout=20_000)
    # What is asked for meanwhile waits or says so, and what was typed is not lost; the page stays.
    name.fill("Kept while away")
    name.press("Enter")
    note = page.get_by_role("status").filter(has_text="as Stair Path cannot be reached")
    expect(note).to_be_visible()
    expect(name).to_have_value("Kept while away")
    expect(away).to_have_text("Stair Path cannot be reached. It is retried automatically. Your work stays as it is.")
    assert pose_of(page) == before
    ask(f"{site}/api/projects", {"name": "Meanwhile"})
    own.start()
    expect(away).to_have_count(0, timeout=20_000)
    expect(note).to_have_count(0)
    name.press("Enter")
    expect(page.get_by_test_id("viewpoint")).to_contain_text("Kept while away")
    page.get_by_role("tab", name="Models").click()
    expect(page.get_by_test_id("model")).to_have_count(1)
    page.get_by_role("button", name="Fit all").click()
    wait_drawn(page)


@pytest.mark.trial
def test_a_page_opened_while_the_server_is_gone_comes_when_it_is_back(page: Page, own, shed):
    arrive(page, own.address, "Ida Fenn")
    page.goto(f"{own.address}/")
    expect(page.get_by_test_id("project").first).to_be_visible()
    own.kill()
    link = page.locator(f'a[href="/p/{shed}"]')
    link.click()
    expect(page.get_by_test_id("away")).to_be_visible(timeout=20_000)
    own.start()
    wait_drawn(page)
    expect(page.get_by_test_id("away")).to_have_count(0)


def test_a_project_is_renamed_thrown_into_the_bin_and_brought_back(page: Page, site):
    project = ask(f"{site}/api/projects", {"name": "Old name"})["id"]
    page.goto(site)
    link = page.locator(f'a[href="/p/{project}"]')
    card = page.get_by_test_id("project").filter(has=link)
    card.get_by_role("button", name="Rename Old name").click()
    field = page.get_by_label("New name of Old name")
    field.fill("Half a na")
    field.press("Escape")
    expect(card).to_contain_text("Old name")
    card.get_by_role("button", name="Rename Old name").click()
    field.fill("Pump house")
    field.press("Enter")
    expect(card).to_contain_text("Pump house")
    card.get_by_role("button", name="Move to bin: Pump house").click()
    expect(link).to_have_count(0)
    page.goto(f"{site}/p/{project}")
    expect(page.get_by_text("Pump house is in the bin. Restore it from the start page.")).to_be_visible()
    page.goto(site)
    bin_ = page.get_by_test_id("bin")
    bin_.get_by_role("button", name="Bin: ").click()
    row = bin_.locator("div", has_text="Pump house").last
    row.locator("xpath=..").get_by_role("button", name="Restore").first.click()
    expect(link).to_be_visible()
    # A browser keeps a plain "gone" for good.
    page.goto(f"{site}/p/{project}")
    expect(page.get_by_text("Nothing to show yet")).to_be_visible()


def test_what_somebody_else_threw_away_is_said_and_nothing_typed_is_lost(page: Page, site):
    project = ask(f"{site}/api/projects", {"name": "Shared"})["id"]
    page.goto(site)
    page.get_by_role("button", name="Rename Shared").click()
    field = page.get_by_label("New name of Shared")
    page.route("**/name", lambda route: route.abort())
    field.fill("Shared by all")
    field.press("Enter")
    expect(page.get_by_text("as Stair Path cannot be reached")).to_be_visible()
    expect(field).to_have_value("Shared by all")
    page.unroute("**/name")
    ask(f"{site}/api/projects/{project}", method="DELETE")
    field.press("Enter")
    expect(page.get_by_text("Shared is in the bin. Restore it from the start page.")).to_be_visible()
    expect(field).to_have_count(0)


def test_files_of_which_none_is_taken_leave_no_project(page: Page, site):
    before = {p["id"] for p in ask(f"{site}/api/projects")}
    page.goto(site)
    page.get_by_test_id("file-input").first.set_input_files(
        {"name": "Gull-notes.ifc", "mimeType": "application/x-step", "buffer": b"dear all"}
    )
    expect(page.get_by_test_id("upload")).to_contain_text("is not an IFC file")
    assert {p["id"] for p in ask(f"{site}/api/projects")} == before
    page.get_by_test_id("file-input").last.set_input_files(
        {"name": "Gull-ARC.ifc", "mimeType": "application/x-step", "buffer": simple().content()}
    )
    expect(page.get_by_test_id("model")).to_have_attribute("data-status", "read", timeout=60_000)
    assert len({p["id"] for p in ask(f"{site}/api/projects")} - before) == 1


@pytest.fixture
def pair(site):
    """A house, and a shed that stands 8 m before it."""
    shed = Sample()
    shed.box(shed.storey("Level 00", 0.0), (1, -8, 0), (6, 0.2, 3), Name="Shed wall")
    return made(site, "Aligned", {"House-ARC.ifc": house_model().content(), "Shed-STR.ifc": shed.content()}, 60)


def card_of(site, project, name):
    return next(c for c in ask(f"{site}/api/projects/{project}/models") if c["name"] == name)


def test_a_model_is_aligned_by_typed_figures_and_undone(page: Page, site, pair):
    page.goto(f"{site}/p/{pair}")
    wait_drawn(page)
    page.get_by_role("tab", name="Models").click()
    model = page.get_by_test_id("model").filter(has_text="Shed-STR")
    model.get_by_role("button", name="Change alignment").click()
    field = model.get_by_label("shift x, m of Shed-STR")
    field.fill("five")
    expect(model).to_contain_text("five is not a length. Type one such as 2.5 m")
    expect(model.get_by_role("button", name="Apply")).to_be_disabled()
    field.fill("5,25")
    field.press("Enter")
    expect(model).to_contain_text("turn and shift set by hand (by Ida Fenn)", timeout=30_000)
    assert card_of(site, pair, "Shed-STR")["shift_m"] == [5.25, 0, 0]
    page.get_by_role("status").get_by_role("button", name="Undo").click()
    expect(model).to_contain_text("Aligned by placement", timeout=30_000)
    assert card_of(site, pair, "Shed-STR")["aligned_set"] is None
    wait_drawn(page)


def test_a_model_is_aligned_by_two_of_its_points(page: Page, site, pair):
    page.goto(f"{site}/p/{pair}")
    wait_drawn(page)
    page.get_by_role("tab", name="Models").click()
    model = page.get_by_test_id("model").filter(has_text="Shed-STR")
    model.get_by_role("button", name="Change alignment").click()
    model.get_by_role("button", name="Pick two points").click()
    expect(page.get_by_test_id("stage-mark")).to_contain_text("Click a point of the model")
    page.keyboard.press("Escape")
    expect(model.get_by_role("button", name="Pick two points")).to_be_visible()
    model.get_by_role("button", name="Pick two points").click()
    note = page.get_by_role("status")
    x, y, width, _ = size_of(page)
    page.mouse.click(x + width - 8, y + 8)
    expect(note).to_contain_text("Nothing is there. Click the building")
    origin = ask(f"{site}/api/projects/{pair}/federation")["origin_m"]

    def click(*point_m: float) -> None:
        page.mouse.click(*on_screen(page, [v - o for v, o in zip(point_m, origin, strict=True)]))

    click(16, 0, 5.5)  # of the house
    expect(note).to_contain_text("That is a point of House-ARC. Click one of Shed-STR")
    click(2.5, -8, 1.5)
    click(5.5, -8, 1.5)
    first = model.get_by_label("x, m of the first point")
    expect(first).to_be_visible()
    moved = float(first.input_value()) + 2
    first.fill(str(moved))
    second = model.get_by_label("x, m of the second point")
    second.fill(str(float(second.input_value()) + 2))
    model.get_by_role("button", name="Align by these points").click()
    expect(model).to_contain_text("turn and shift set by hand", timeout=30_000)
    shift = card_of(site, pair, "Shed-STR")["shift_m"]
    assert abs(shift[0] - 2) < 0.01
    assert abs(shift[1]) < 0.01


def test_a_page_whose_stream_was_refused_hears_again_when_the_database_is_back(page: Page, site, shed):
    """The browser itself does not try a stream again that was answered with 503."""
    away = {"status": 503, "content_type": "application/json", "body": '{"detail": "The database is away."}'}
    page.route("**/events", lambda route: route.fulfill(**away))
    page.route("**/models?*", lambda route: route.fulfill(**away))
    page.goto(f"{site}/p/{shed}")
    wait_drawn(page)
    page.get_by_role("tab", name="Models").click()
    expect(page.get_by_test_id("away")).to_be_visible()
    page.unroute("**/events")
    page.unroute("**/models?*")
    expect(page.get_by_test_id("away")).to_have_count(0, timeout=20_000)
    expect(page.get_by_test_id("model")).to_have_count(1)
    request = urllib.request.Request(
        f"{site}/api/projects/{shed}/name",
        b'{"name": "Shed by the quay"}',
        {"Content-Type": "application/json"},
        method="PUT",
    )
    urllib.request.urlopen(request, timeout=30).close()
    expect(page.locator("header")).to_contain_text("Shed by the quay")
