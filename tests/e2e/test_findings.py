"""Checks for interference and sheets from the page: asked for, run by a job, looked at, kept, run again."""

from __future__ import annotations

import re
import urllib.request
import xml.etree.ElementTree as ET

import pytest
from playwright.sync_api import Page, expect

from tests.e2e.conftest import pick_one
from tests.e2e.stage import wait_posed, wait_resting, where
from tests.e2e.test_cutting import cut_at, filled, origin_of

EYE_AT = """x => {
  const drawing = document.querySelector('[data-testid=drawing]');
  return Math.abs(JSON.parse(drawing?.dataset.pose ?? '{"eye_m":[NaN]}').eye_m[0] - x) < 1e-6;
}"""
MARKS = "() => window.stairpath.layers.findings.count"


@pytest.fixture
def finding(home: Page):
    """The house, with the Findings desk open."""
    home.set_viewport_size({"width": 1280, "height": 800})
    home.get_by_role("tab", name="Findings").click()
    expect(home.get_by_test_id("check-form")).to_be_visible()
    return home


def look_for(page: Page, one: str, other: str, near: str) -> None:
    pick_one(page, "One group", one)
    pick_one(page, "The other group", other)
    page.get_by_label("clearance").fill(near)
    page.get_by_role("button", name="Run the check").click()


def done(page: Page):
    """The newest check, once it was run."""
    check = page.get_by_test_id("check").first
    expect(check).to_have_attribute("data-status", "done", timeout=60_000)
    return check


def test_a_check_finds_what_is_too_near_and_each_finding_is_looked_at_and_kept(finding: Page):
    # Between the walls below and the slab above them there are 30 cm.
    look_for(finding, "Level 00", "Level 01", "350 mm")
    check = done(finding)
    expect(check).to_contain_text("Level 00 and Level 01")
    first = finding.get_by_test_id("finding").first
    expect(first).to_contain_text("too near")
    expect(first).to_contain_text("0.300 m apart")
    expect(first).to_contain_text("Slab")
    count = finding.get_by_test_id("finding").count()
    finding.wait_for_function(f"() => ({MARKS})() === {count}")
    before = where(finding)
    first.get_by_role("button", name="Look at it", exact=True).click()
    wait_posed(finding, before)
    # Both parts stand out of what is around them, and another finding takes the place of this one.
    expect(finding.get_by_test_id("reasons")).to_contain_text("0 hidden · ")
    finding.get_by_test_id("finding").nth(1).get_by_role("button", name="Look at it", exact=True).click()
    finding.get_by_test_id("reasons").click()
    expect(finding.get_by_test_id("reason")).to_have_count(1)
    finding.keyboard.press("Escape")
    assert finding.evaluate("() => window.stairpath.open.picked().length") >= 2
    finding.get_by_test_id("finding").first.get_by_role("button", name="keep as a viewpoint").click()
    expect(finding.locator("[role=status]")).to_contain_text("Kept as the viewpoint")
    expect(finding.get_by_test_id("reasons")).to_contain_text("faded")
    finding.get_by_role("tab", name="Viewpoints").click()
    expect(finding.get_by_test_id("viewpoint").first).to_contain_text("Level 00 and Level 01 1: ")
    # On another desk the circles are gone; back on this one they are there again.
    finding.wait_for_function(f"() => ({MARKS})() === 0")
    finding.get_by_role("tab", name="Findings").click()
    finding.wait_for_function(f"() => ({MARKS})() === {count}")
    finding.get_by_test_id("finding").first.get_by_role("button", name="make a topic").click()
    expect(finding.get_by_test_id("reference")).to_have_text("ARC 001")
    expect(finding.get_by_label("Title of ARC 001")).to_have_value(re.compile("Slab.+ (apart|deep)"))
    expect(finding.get_by_label("Labels of ARC 001")).to_have_value("Level 00 and Level 01")
    finding.get_by_role("tab", name="Findings").click()
    # The finding says which topic it has, so that nobody makes a second one without knowing.
    first = finding.get_by_test_id("finding").first
    expect(first.get_by_role("button", name="Topic ARC 001")).to_be_visible()
    expect(first.get_by_role("button", name="Make another topic")).to_be_visible()
    # All that is left become topics at once: here one of several findings.
    finding.get_by_role("button", name="tick all").click()
    finding.get_by_label("How findings become topics").select_option("all")
    finding.get_by_role("button", name="Make 1 topic").click()
    expect(finding.get_by_text("Made 1 topic; they are on the Topics desk.")).to_be_visible(timeout=60_000)
    check.get_by_role("button", name="run again").click()
    expect(finding.get_by_text("0 of them measured in the last run")).to_be_visible(timeout=60_000)
    check.get_by_role("button", name="rules").click()
    finding.get_by_label("clearance").last.fill("0.2")
    finding.get_by_role("button", name="Run", exact=True).click()
    expect(check).to_contain_text("nothing found", timeout=60_000)
    finding.wait_for_function(f"() => ({MARKS})() === 0")
    # What is found no more is proposed as solved, and a person says so.
    gone = finding.get_by_test_id("proposal")
    expect(gone).to_have_count(2)
    expect(gone.first).to_contain_text("was 0.300 m apart, no longer found (open)")
    gone.first.get_by_role("button", name="settled").click()
    expect(gone).to_have_count(1)
    check.get_by_role("button", name="delete").click()
    expect(finding.get_by_test_id("check")).to_have_count(0)
    finding.locator("[role=status]").get_by_role("button", name="undo", exact=False).first.click()
    expect(finding.get_by_test_id("check")).to_have_count(1)
    finding.get_by_test_id("check").get_by_role("button", name="delete").click()
    expect(finding.get_by_test_id("check")).to_have_count(0)


def test_nothing_picked_and_a_wrong_length_are_said_and_what_was_typed_stays(finding: Page):
    look_for(finding, "the selection", "everything", "0.1")
    expect(finding.locator("[role=status]")).to_contain_text("The group is empty")
    look_for(finding, "everything", "everything", "near")
    expect(finding.get_by_text("near is not a length. Type one").first).to_be_visible()
    expect(finding.get_by_label("clearance")).to_have_value("near")
    expect(finding.get_by_test_id("check")).to_have_count(0)


def test_a_cut_is_drawn_on_a_sheet_to_be_looked_at_and_saved(home: Page, site):
    home.set_viewport_size({"width": 1280, "height": 800})
    home.keyboard.press("t")
    cut_at(home, "Level 00", "1.2")
    home.get_by_test_id("cut").get_by_role("button", name="sheet").click()
    form = home.get_by_test_id("sheet-form")
    form.get_by_label("Scale of the sheet").select_option(label="1:100")
    form.get_by_label("depth behind the cut").fill("2' 6\"")
    form.get_by_role("button", name="Draw the sheet").click()
    sheet = home.get_by_test_id("sheet").first
    expect(sheet).to_have_attribute("data-status", "done", timeout=60_000)
    expect(sheet).to_contain_text("1:100 on A")
    expect(form).to_have_count(0)
    address = sheet.get_by_role("link", name="look at it").get_attribute("href")
    with urllib.request.urlopen(f"{site}{address}") as answer:
        root = ET.fromstring(answer.read())
    assert root.tag.endswith("svg")
    with home.expect_download() as saved:
        sheet.get_by_role("link", name="PDF").click()
    assert saved.value.suggested_filename.endswith(".pdf")
    sheet.get_by_role("button", name="delete").click()
    expect(home.get_by_test_id("sheet")).to_have_count(0)


def test_a_cut_is_a_drawing_beside_the_stage_and_moving_it_moves_the_drawing(home: Page, site, house):
    home.set_viewport_size({"width": 1280, "height": 800})
    home.keyboard.press("t")
    home.get_by_label("Grid line to cut along").select_option(label="2")
    home.get_by_role("button", name="Cut along it").click()
    filled(home)
    home.get_by_test_id("cut").get_by_role("button", name="beside").click()
    home.wait_for_function("() => document.querySelector('[data-testid=drawing]')?.dataset.rest === 'yes'")
    expect(home.get_by_label("Drawing beside the stage").locator("option:checked")).to_have_text("Cut Grid 2")
    # It is looked along the grid: the eye is on the plane.
    x = 10 - origin_of(site, house)[0]
    home.wait_for_function(EYE_AT, arg=x)
    tab = home.get_by_test_id("cut-tab").first
    tab.focus()
    tab.press("ArrowUp")
    home.wait_for_function(f"x => ({EYE_AT})(x + 0.05) || ({EYE_AT})(x - 0.05)", arg=x)
    home.get_by_role("button", name="Close", exact=True).click()


def test_an_opened_view_is_made_a_cut(home: Page):
    home.set_viewport_size({"width": 1280, "height": 800})
    before = where(home)
    home.keyboard.press("/")
    home.keyboard.type("Square onto grid line 2")
    home.keyboard.press("Enter")
    wait_posed(home, before)
    home.get_by_role("button", name="Make it a cut").click()
    wait_resting(home)
    expect(home.get_by_role("button", name="Make it a cut")).to_have_count(0)
    home.keyboard.press("t")
    expect(home.get_by_test_id("cut")).to_contain_text("Grid 2")
    filled(home)
    expect(home.get_by_test_id("cut-through")).to_contain_text("Cuts ")


def test_a_set_is_chosen_as_a_group(finding: Page, site, house):
    wish = {"name": "Slabs above", "conditions": [{"what": "level", "how": "equal", "value": "Level 01"}]}
    made = finding.request.post(f"{site}/api/projects/{house}/sets", data=wish).json()
    look_for(finding, "Level 00", "Slabs above", "350 mm")
    expect(done(finding)).to_contain_text("Level 00 and Slabs above")
    expect(finding.get_by_test_id("finding").first).to_contain_text("0.300 m apart")
    finding.get_by_test_id("check").get_by_role("button", name="delete").click()
    expect(finding.get_by_test_id("check")).to_have_count(0)
    finding.request.delete(f"{site}/api/sets/{made['id']}")
