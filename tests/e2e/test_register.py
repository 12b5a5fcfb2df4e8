"""The register: the building as a list beside the stage, conditions, sets, and finding by a few letters."""

from __future__ import annotations

import csv
import io

import pytest
from playwright.sync_api import Page, expect

from tests.e2e.conftest import arrive, ask, made, pick_one
from tests.e2e.going import find
from tests.e2e.stage import wait_drawn
from tests.e2e.test_seeing import settled, states
from tests.samples import simple


@pytest.fixture
def register(page: Page, site, pair):
    """The house and the ducts before it, with the register open."""
    arrive(page, site, "Ida Fenn")
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(f"{site}/p/{pair}")
    wait_drawn(page)
    page.get_by_role("tab", name="Register").click()
    expect(page.get_by_test_id("register-count")).to_have_text("14 components")
    return page


def picked(page: Page) -> list[int]:
    found: list[int] = page.evaluate("() => window.stairpath.open.picked()")
    return found


def groups(page: Page):
    return page.get_by_test_id("register-group")


def condition(page: Page, at: int, what: str, how: str, value: str | None = None) -> None:
    pick_one(page, "Question", what.capitalize(), at)
    page.get_by_label("Comparison").nth(at).select_option(how)
    if value is not None:
        page.get_by_label("Value").nth(at).fill(value)


def test_the_building_is_listed_opened_picked_hidden_and_isolated(register: Page):
    expect(groups(register)).to_have_text(["▸Level 008onlyhidefadefit", "▸Level 016onlyhidefadefit"])
    register.get_by_label("Open Level 00", exact=True).click()
    register.get_by_label("Open Duct", exact=True).click()
    rows = register.get_by_test_id("register-component")
    expect(rows).to_have_text(["AD-1onlyhidefadefit", "AD-2onlyhidefadefit"])
    register.get_by_label("Select AD-2", exact=True).click()
    expect(rows.nth(1)).to_have_attribute("aria-selected", "true")
    assert picked(register) == [13]
    register.get_by_label("Select Duct", exact=True).click()
    assert picked(register) == [12, 13]
    groups(register).filter(has_text="Duct").hover()
    register.get_by_label("hide: Duct").click()
    settled(register, "2 hidden · 0 faded")
    assert states(register)[12:] == [0, 0]
    register.keyboard.press("Control+z")
    settled(register, "all shown")
    groups(register).first.hover()
    register.get_by_label("only: Level 00").click()
    settled(register, "6 hidden · 0 faded")


def test_what_is_picked_on_the_stage_is_shown_in_the_list(register: Page):
    find(register, "AD-1 ")
    expect(register.get_by_test_id("desk")).to_contain_text("IfcDuctSegment")
    register.get_by_role("tab", name="Register").click()
    expect(register.get_by_test_id("register-component").filter(has_text="AD-1")).to_have_attribute(
        "aria-selected", "true"
    )


def test_grouping_and_sums_follow_what_is_chosen_and_are_saved_as_they_stand(register: Page):
    pick_one(register, "Step 1 of the grouping", "discipline")
    pick_one(register, "Step 2 of the grouping", "none")
    register.get_by_role("button", name="volume", exact=True).click()
    expect(groups(register)).to_have_text(["▸AIR≈2.8800 m³2onlyhidefadefit", "▸ARC≈327.6000 m³12onlyhidefadefit"])
    with register.expect_download() as download:
        register.get_by_role("button", name="CSV").click()
    rows = list(csv.reader(io.StringIO(download.value.path().read_text(encoding="utf-8-sig"))))
    assert rows[0][:3] == ["discipline", "count", "volume (m³)"]
    assert [(row[0], row[1], round(float(row[2]), 3)) for row in rows[1:]] == [
        ("AIR", "2", 2.88),
        ("ARC", "12", 327.6),
    ]


def test_conditions_narrow_the_list_and_are_kept_as_a_set_that_hides_and_is_deleted_with_undo(
    register: Page, site, pair
):
    register.get_by_role("button", name="Only components that meet a condition").click()
    expect(register.get_by_test_id("register-count")).to_have_text("14 components")
    condition(register, 0, "tag", "contains", "ad-")
    expect(register.get_by_test_id("register-count")).to_have_text("2 components")
    register.get_by_role("button", name="Add a condition").click()
    condition(register, 1, "level", "equal", "Level 01")
    expect(register.get_by_test_id("register-count")).to_have_text("0 components")
    condition(register, 1, "level", "missing")
    register.get_by_role("button", name="Remove the condition").nth(1).click()
    expect(register.get_by_test_id("register-count")).to_have_text("2 components")
    register.get_by_label("Name of a new set").fill("Ducts before the house")
    register.keyboard.press("Enter")
    row = register.get_by_test_id("set")
    expect(row).to_contain_text("Ducts before the house2tag contains ad-")
    assert ask(f"{site}/api/projects/{pair}/sets")[0]["author"] == "Ida Fenn"
    row.get_by_role("button", name="isolate").click()
    settled(register, "12 hidden · 0 faded")
    row.get_by_role("button", name="Select", exact=True).click()
    assert picked(register) == [12, 13]
    register.get_by_role("button", name="Remove the condition").click()
    expect(register.get_by_test_id("register-count")).to_have_text("14 components")
    row.get_by_role("button", name="List", exact=True).click()
    expect(register.get_by_test_id("register-count")).to_have_text("2 components")
    row.get_by_role("button", name="delete").click()
    expect(row).to_have_count(0)
    register.locator("[role=status]").get_by_role("button", name="Undo").click()
    expect(row).to_have_count(1)


def test_a_condition_that_cannot_be_met_says_why_and_the_list_comes_back(register: Page):
    register.get_by_role("button", name="Only components that meet a condition").click()
    condition(register, 0, "tag", "contains", "nothing of that kind")
    expect(register.get_by_test_id("register-count")).to_have_text("0 components")
    expect(groups(register)).to_have_count(0)
    register.route("**/schedule", lambda route: route.abort())
    condition(register, 0, "tag", "contains", "AD")
    expect(register.get_by_test_id("desk")).to_contain_text("cannot be reached")
    expect(groups(register)).to_have_count(0)
    register.unroute("**/schedule")
    condition(register, 0, "tag", "contains", "AD-")
    expect(register.get_by_test_id("register-count")).to_have_text("2 components")


def test_a_tag_with_one_letter_wrong_is_found(register: Page):
    register.keyboard.press("/")
    register.keyboard.type("AD-l")
    options = register.get_by_role("option")
    expect(options.filter(has_text="AD-1")).to_have_count(1)
    register.keyboard.press("Escape")
    find(register, "duct air")
    expect(register.get_by_test_id("desk")).to_contain_text("AD-1")


def test_groups_are_tinted_and_the_legend_isolates_and_takes_the_tints_off(register: Page):
    register.get_by_role("button", name="tint by level").click()
    legend = register.get_by_test_id("legend")
    expect(legend).to_have_text("Level 00Level 01Discipline coloursMaterial colours")
    tints = "() => [...new Set(window.stairpath.open.seen().tints ?? [])].length"
    register.wait_for_function(f"() => ({tints})() === 2")
    legend.get_by_role("button", name="Level 01").click()
    settled(register, "8 hidden · 0 faded")
    expect(legend).to_be_visible()
    register.keyboard.press("Control+z")
    settled(register, "all shown")
    legend.get_by_role("button", name="Discipline colours").click()
    expect(legend).to_have_count(0)
    register.keyboard.press("Control+z")
    expect(legend).to_be_visible()


def test_what_is_alike_what_is_visible_and_the_opposite_are_picked(register: Page):
    find(register, "Select all visible of the same class")
    expect(register.locator("[role=status]")).to_contain_text("Nothing is selected")
    register.get_by_label("Open Level 00", exact=True).click()
    register.get_by_label("Open Duct", exact=True).click()
    register.get_by_label("Select AD-2", exact=True).click()
    find(register, "Select all visible of the same class")
    expect(register.locator("[role=status]")).to_contain_text("2 components selected")
    assert picked(register) == [12, 13]
    find(register, "Invert the selection of visible components")
    expect(register.locator("[role=status]")).to_contain_text("12 components selected")
    find(register, "Select all visible of the same system")
    expect(register.locator("[role=status]")).to_contain_text("has no system")
    register.keyboard.press("c")
    settled(register, "12 hidden · 0 faded")
    find(register, "Select all visible")
    expect(register.locator("[role=status]")).to_contain_text("2 components selected")
    assert picked(register) == [12, 13]
    find(register, "Clear selection")
    register.wait_for_function("() => window.stairpath.open.picked().length === 0")


def test_a_property_becomes_a_condition_and_a_grouping(page: Page, site):
    sample = simple()
    storey = sample.ifc.by_type("IfcBuildingStorey")[0]
    walls = [
        sample.ifc.by_type("IfcWall")[0],
        sample.box(storey, (1, 6, 0), (4, 0.2, 3), Name="Wall", Tag="W-2"),
        sample.box(storey, (1, 9, 0), (4, 0.2, 3), Name="Wall", Tag="W-3"),
    ]
    for wall, rating in zip(walls, ("EI30", "EI60"), strict=False):
        value = sample.make("IfcPropertySingleValue", "FireRating", None, sample.make("IfcLabel", rating), None)
        group = sample.root("IfcPropertySet", Name="Pset_WallCommon", HasProperties=[value])
        sample.relate("IfcRelDefinesByProperties", RelatedObjects=[wall], RelatingPropertyDefinition=group)
    project = made(site, "Rated", {"Rated-ARC.ifc": sample.content()}, 60)
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(f"{site}/p/{project}")
    wait_drawn(page)
    find(page, "W-2")
    line = page.get_by_test_id("property").filter(has_text="Fire rating")
    line.hover()
    line.get_by_role("button", name="list the same").click()
    expect(page.get_by_test_id("register-count")).to_have_text("1 component")
    page.get_by_role("tab", name="Component").click()
    line.hover()
    line.get_by_role("button", name="list without").click()
    expect(page.get_by_test_id("register-count")).to_have_text("1 component")
    expect(page.get_by_label("Comparison")).to_have_value("missing")
    page.get_by_role("button", name="Remove the condition").click()
    page.get_by_role("tab", name="Component").click()
    line.hover()
    line.get_by_role("button", name="group by it").click()
    expect(groups(page)).to_have_text(
        ["▸EI301onlyhidefadefit", "▾EI601onlyhidefadefit", "▸no fire rating1onlyhidefadefit"]
    )
    page.get_by_role("tab", name="Component").click()
    line.hover()
    line.get_by_role("button", name="column").click()
    pick_one(page, "Columns beside each component", "length")
    beside = page.get_by_test_id("register-component").locator("[data-column]")
    expect(beside).to_have_text(["EI60", "≈4.000 m"])
    # In a desk as slim as usual the list is moved sideways; nothing else is wider than the desk.
    assert page.get_by_test_id("desk").evaluate("(desk) => desk.scrollWidth <= desk.clientWidth")
    slider = page.get_by_role("slider", name="Width of the desk")
    slider.focus()
    before = page.get_by_test_id("desk").evaluate("(desk) => desk.clientWidth")
    for _ in range(3):
        slider.press("ArrowLeft")
    assert page.get_by_test_id("desk").evaluate("(desk) => desk.clientWidth") > before + 100
    wait_drawn(page)
    page.get_by_role("button", name="Fire rating", exact=True).click()
    page.get_by_role("button", name="length", exact=True).last.click()
    expect(beside).to_have_count(0)
    page.get_by_role("button", name="tint by Fire rating").click()
    expect(page.get_by_test_id("legend")).to_contain_text("EI60")
    groups(page).last.hover()
    page.get_by_label("hide: no fire rating").click()
    settled(page, "1 hidden · 0 faded")
