"""Every desk, panel and dialog looked over by axe-core by the rules of level A and AA (WCAG 2.1), as somebody comes to it."""

from __future__ import annotations

from pathlib import Path

from playwright.sync_api import Page, expect

from tests.e2e.going import find
from tests.e2e.stage import wait_drawn
from tests.e2e.test_seeing import click_on

AXE = (Path(__file__).resolve().parents[2] / "web/node_modules/axe-core/axe.min.js").read_text()
LOOK = """() => axe.run(document, {
  runOnly: { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'] },
  resultTypes: ['violations'],
})"""


class Looking:
    """Looks over what is on the page, and keeps what is wrong with it."""

    def __init__(self, page: Page) -> None:
        self.page, self.found = page, dict[str, str]()

    def at(self, place: str) -> None:
        """Look over the page as it is at a place; what begins to fade while it is looked over is looked at again."""
        if not self.page.evaluate("() => 'axe' in window"):
            self.page.evaluate(AXE)
        if self._wrong():
            for each in self._wrong():
                # What is wrong with it at one place is so at all others.
                self.found.setdefault(each, place)

    def _wrong(self) -> set[str]:
        # Half faded in nothing has its contrast yet.
        self.page.wait_for_function("() => document.getAnimations().every((each) => each.playState !== 'running')")
        return {
            f"{rule['id']} {node['html'][:140]} {node['failureSummary'].split(chr(10), 1)[-1].strip()[:160]}"
            for rule in self.page.evaluate(LOOK)["violations"]
            for node in rule["nodes"]
        }

    def desk(self, name: str) -> None:
        """Take up a desk, and look it over."""
        self.page.get_by_role("tab", name=name).click()
        expect(self.page.get_by_text("Loading…")).to_have_count(0)
        self.at(name)


def test_every_desk_is_for_everybody(page: Page, site, pair):
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(site)
    expect(page.get_by_test_id("project").first).to_be_visible()
    look = Looking(page)
    look.at("Start")
    page.goto(f"{site}/p/{pair}")
    wait_drawn(page)
    look.at("as opened")
    click_on(page, site, pair, (6, -8, 1.3))
    expect(page.get_by_test_id("component-tag")).to_have_text("AD-1")
    look.at("a component")
    look.desk("Register")
    page.get_by_role("tab", name="Cuts").click()
    page.get_by_role("button", name="Around the selection").first.click()
    look.desk("Cuts")
    for name in ("Measures", "Markups", "Findings", "Routes", "Models"):
        look.desk(name)
    page.get_by_role("tab", name="Viewpoints").click()
    page.get_by_role("button", name="Keep", exact=True).click()
    page.get_by_role("button", name="More commands for View 1").click()
    look.desk("Viewpoints")
    page.get_by_role("tab", name="Topics").click()
    page.get_by_label("Title of the topic").fill("Duct before the house")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("topic-open")).to_be_visible()
    look.desk("Topics")
    page.get_by_role("button", name="all topics").click()
    page.get_by_role("button", name="Table", exact=True).click()
    page.get_by_label("Tick all topics in the table").check()
    page.get_by_role("button", name="Columns").click()
    look.at("table of topics")
    page.get_by_role("button", name="Close the table of topics").click()
    page.get_by_role("button", name="Meetings").click()
    page.get_by_label("Title of the meeting").fill("Meeting 14")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("agenda-topic")).to_have_count(1)
    look.at("a meeting")
    assert not look.found, "\n".join(f"{place}: {fault}" for fault, place in look.found.items())


def test_every_panel_and_dialog_is_for_everybody(page: Page, site, pair):
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(f"{site}/p/{pair}")
    wait_drawn(page)
    look = Looking(page)
    for name in ("Lens: change", "Look, building north: change", "Eye: change", "Lengths: change"):
        page.get_by_role("button", name=name).click()
        look.at(name)
        page.keyboard.press("Escape")
    page.get_by_role("button", name="Drawing", exact=True).click()
    look.at("Drawing")
    page.keyboard.press("Escape")
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_be_visible()
    look.at("Keys")
    page.keyboard.press("Escape")
    page.keyboard.press("/")
    page.keyboard.type("level")
    page.locator("[role=listbox] [role=option]").first.wait_for()
    look.at("the find box")
    page.keyboard.press("Escape")
    page.keyboard.press("Escape")
    click_on(page, site, pair, (6, -8, 1.3))
    page.keyboard.press("Shift+F10")
    expect(page.get_by_role("menu")).to_be_visible()
    look.at("the menu of a component")
    page.keyboard.press("Escape")
    page.keyboard.press("b")
    expect(page.get_by_test_id("drawing")).to_be_visible()
    look.at("a drawing beside")
    page.get_by_role("button", name="Second drawing").click()
    expect(page.get_by_test_id("second-drawing")).to_be_visible()
    look.at("two drawings beside")
    page.keyboard.press("Escape")
    page.locator("canvas").first.focus()
    page.keyboard.press("b")
    expect(page.get_by_test_id("beside")).to_have_count(0)
    find(page, "Level 01")
    page.get_by_role("tab", name="Viewpoints").click()
    page.get_by_role("button", name="Keep with another frame").click()
    expect(page.get_by_test_id("picture-frame")).to_be_visible()
    look.at("a picture's frame")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Keep", exact=True).click()
    page.get_by_role("button", name="More commands for View 1").click()
    page.get_by_role("button", name="History").click()
    page.get_by_role("button", name="Earlier views").click()
    look.at("the history of a viewpoint")
    page.get_by_role("button", name="Delete", exact=True).click()
    expect(page.get_by_test_id("viewpoint")).to_have_count(0)
    page.get_by_role("button", name="Bin", exact=True).click()
    expect(page.get_by_test_id("deleted")).to_have_count(1)
    look.at("the bin")
    assert not look.found, "\n".join(f"{place}: {fault}" for fault, place in look.found.items())
