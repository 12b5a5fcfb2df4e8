"""Two people in one project: what one keeps or changes, the other sees without reloading."""

from __future__ import annotations

import json
import urllib.request

import pytest
from playwright.sync_api import Page, expect

from tests.e2e.conftest import SIZE, another, arrive, ask, send
from tests.e2e.stage import wait_drawn
from tests.samples import simple


@pytest.fixture
def shed(site):
    """A small project, read and ready."""
    project = ask(f"{site}/api/projects", {"name": "Shed"})["id"]
    send(site, project, "Shed-ARC.ifc", simple().content())
    return project


@pytest.fixture
def other(browser, site, shed):
    """The page of somebody else who has the same project open."""
    with another(browser, viewport=SIZE) as context:
        page = context.new_page()
        arrive(page, site, "Tam Kerr")
        page.goto(f"{site}/p/{shed}")
        wait_drawn(page)
        yield page


def test_a_viewpoint_appears_for_the_other_with_its_author(page: Page, other: Page, site, shed):
    page.goto(f"{site}/p/{shed}")
    wait_drawn(page)
    other.get_by_role("tab", name="Viewpoints").click()
    page.get_by_role("tab", name="Viewpoints").click()
    page.get_by_role("button", name="Keep", exact=True).click()
    kept = other.get_by_test_id("viewpoint")
    expect(kept).to_have_count(1, timeout=15_000)
    expect(kept).to_contain_text("Ida Fenn")


def test_a_model_that_is_added_comes_onto_the_others_stage(other: Page, site, shed):
    expect(other.get_by_role("button", name="STR 00", exact=True)).to_have_count(0)
    send(site, shed, "Shed-STR.ifc", simple().content())
    expect(other.get_by_role("button", name="STR 00", exact=True).get_by_test_id("count")).to_have_text(
        "1", timeout=60_000
    )
    wait_drawn(other)


def test_the_stream_of_events_tells_of_this_project_only(site, shed):
    other = ask(f"{site}/api/projects", {"name": "Another"})["id"]

    def lines(stream, count):
        return [stream.readline().decode().strip() for _ in range(count)]

    with urllib.request.urlopen(f"{site}/api/projects/{other}/events", timeout=60) as stream:
        assert stream.headers["Content-Type"].startswith("text/event-stream")
        assert lines(stream, 3) == ["event: begun", "data: {}", ""]
        send(site, shed, "Shed-AIR.ifc", simple().content())
        assert lines(stream, 2) == [": beat", ""]
        send(site, other, "Other-AIR.ifc", simple().content())
        heard = []
        while "event: changed" not in heard:
            heard += lines(stream, 1)
        assert set(heard) <= {": beat", "", "event: changed"}
        told = json.loads(lines(stream, 1)[0].removeprefix("data: "))
        assert told["kind"] == "models"
        assert told["version"] > 0
