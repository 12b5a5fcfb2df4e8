"""What is shown, faded and hidden: by rules with names, undone by name, and with a reason for everything."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest
from playwright.sync_api import Page, expect

from tests.e2e.conftest import another, arrive, ask, house_model, made, send
from tests.e2e.going import find, on_foot_in
from tests.e2e.stage import on_screen, pose_of, wait_drawn, wait_posed, wait_resting
from tests.samples import Sample, simple


@pytest.fixture
def opened(page: Page, site, pair):
    arrive(page, site, "Ida Fenn")
    page.goto(f"{site}/p/{pair}")
    wait_drawn(page)
    expect(page.get_by_test_id("place")).to_have_count(1, timeout=15_000)
    return page


def states(page: Page) -> Any:
    """What the stage shows of each component: 0 hidden, 128 faded, 255 shown."""
    return page.evaluate(
        "() => { const s = window.stairpath.stage.building.states; "
        "return Array.from({ length: s.count }, (_, i) => s.texture.image.data[i * 4]); }"
    )


def click_on(page: Page, site, project, point_m) -> None:
    origin = ask(f"{site}/api/projects/{project}/federation")["origin_m"]
    page.mouse.click(*on_screen(page, [v - o for v, o in zip(point_m, origin, strict=True)]))


def settled(page: Page, count: str) -> None:
    """Until the core has answered with so much hidden and faded."""
    expect(page.get_by_test_id("reasons")).to_have_text(count)


def test_hiding_by_key_has_a_name_a_reason_and_a_way_back(opened: Page, site, pair):
    click_on(opened, site, pair, (6, -8, 1.3))
    expect(opened.get_by_test_id("component-tag")).to_have_text("AD-1")
    opened.keyboard.press("c")
    settled(opened, "1 hidden · 0 faded")
    cell = opened.get_by_role("button", name="AIR 00", exact=True)
    expect(cell.get_by_test_id("count")).to_have_text("1/2")
    opened.get_by_role("button", name="ARC 01", exact=True).click()
    settled(opened, "1 hidden · 6 faded")
    opened.get_by_test_id("reasons").click()
    reasons = opened.get_by_test_id("reason")
    expect(reasons).to_have_count(2)
    expect(reasons.first).to_contain_text("Hidden: AD-1")
    expect(reasons.first).to_contain_text("1 component · Ida Fenn")
    expect(reasons.last).to_contain_text("Faded: Architecture on Level 01")
    expect(opened.get_by_test_id("change")).to_have_text(["faded Architecture on Level 01", "hid AD-1", "Start"])
    reasons.first.get_by_role("button", name="switch off").click()
    settled(opened, "0 hidden · 6 faded")
    expect(reasons.first).to_contain_text("(switched off)")
    reasons.first.get_by_role("button", name="switch on").click()
    settled(opened, "1 hidden · 6 faded")
    reasons.last.get_by_role("button", name="Show again").click()
    settled(opened, "1 hidden · 0 faded")
    expect(reasons).to_have_count(1)
    opened.keyboard.press("Escape")
    expect(reasons).to_have_count(0)


def test_changes_are_undone_and_done_again_by_name_after_a_reload_too(opened: Page, site, pair):
    note = opened.get_by_role("status")
    opened.keyboard.press("Control+z")
    expect(note).to_contain_text("There is nothing to undo.")
    click_on(opened, site, pair, (6, -8, 1.3))
    opened.keyboard.press("y")
    settled(opened, "13 hidden · 0 faded")
    opened.keyboard.press("Shift+C")
    settled(opened, "all shown")
    opened.keyboard.press("Control+z")
    expect(note).to_contain_text("Undone: showed everything.")
    settled(opened, "13 hidden · 0 faded")
    opened.wait_for_function("() => location.hash.includes('&seen=')")
    opened.reload()
    wait_drawn(opened)
    expect(note).to_contain_text("Opened as you left it, with 1 rule for hidden or faded components.")
    settled(opened, "13 hidden · 0 faded")
    opened.keyboard.press("Control+z")
    expect(note).to_contain_text("Undone: isolated AD-1.")
    settled(opened, "all shown")
    assert set(states(opened)) == {255}
    opened.keyboard.press("Control+Shift+z")
    expect(note).to_contain_text("Redone: isolated AD-1.")
    settled(opened, "13 hidden · 0 faded")


def test_a_project_opens_with_everything_shown_for_who_wants_it_so(opened: Page):
    opened.get_by_role("button", name="Air, every level").click()
    settled(opened, "0 hidden · 2 faded")
    opened.get_by_role("button", name="Look, building north: change").click()
    opened.get_by_label("Reopen projects with components hidden as I left them").click()
    opened.keyboard.press("Escape")
    opened.wait_for_function("() => location.hash.includes('&seen=')")
    project, start = opened.url.split("#")[0], opened.url.split("/p/")[0]
    opened.goto(start)
    expect(opened.get_by_test_id("project").first).to_be_visible()
    opened.goto(project)
    expect(opened.get_by_role("status")).to_contain_text("Opened with everything shown")
    wait_drawn(opened)
    assert set(states(opened)) == {255}
    opened.keyboard.press("Control+z")
    settled(opened, "0 hidden · 2 faded")


def test_all_that_is_like_it_is_hidden_at_once(opened: Page, site, pair):
    click_on(opened, site, pair, (6, -8, 1.3))
    opened.get_by_label("For the selection, or for all like it").select_option(label="all on Level 00")
    opened.get_by_role("button", name="Hide", exact=True).click()
    settled(opened, "8 hidden · 0 faded")
    opened.get_by_test_id("reasons").click()
    expect(opened.get_by_test_id("reason")).to_contain_text("Hidden: Level 00")


def test_what_is_hidden_and_asked_for_says_why_and_offers_to_show_it(opened: Page):
    opened.get_by_role("button", name="Air, every level").click()
    opened.get_by_role("button", name="Air, every level").click()
    settled(opened, "2 hidden · 0 faded")
    find(opened, "AD-2")
    why = opened.get_by_test_id("why-hidden")
    expect(why).to_contain_text("Hidden: Air (by Ida Fenn)")
    why.get_by_role("button", name="show it").click()
    expect(why).to_have_count(0)
    settled(opened, "1 hidden · 0 faded")


def test_a_wish_and_what_is_picked_mean_the_same_after_a_model_before_it_was_read_anew(opened: Page, site, pair):
    click_on(opened, site, pair, (14, -8, 1.3))
    expect(opened.get_by_test_id("component-tag")).to_have_text("AD-2")
    opened.get_by_role("button", name="Fade others").click()
    settled(opened, "0 hidden · 13 faded")
    assert states(opened)[-2:] == [128, 255]
    grown = house_model()
    grown.box(grown.ifc.by_type("IfcBuildingStorey")[0], (8, 4, 0), (2, 0.2, 3), Name="New wall")
    opened.get_by_role("tab", name="Models").click()
    opened.get_by_test_id("file-input").last.set_input_files(
        {"name": "House-ARC.ifc", "mimeType": "application/x-step", "buffer": grown.content()}
    )
    settled(opened, "0 hidden · 14 faded")
    wait_drawn(opened)
    assert states(opened)[-2:] == [128, 255]
    opened.get_by_role("tab", name="Component").click()
    expect(opened.get_by_test_id("component-tag")).to_have_text("AD-2")
    picked = "() => { const s = window.stairpath.stage.building.states; return s.texture.image.data[(s.count - 1) * 4 + 1]; }"
    assert opened.evaluate(picked) == 255


def test_the_eye_stays_where_it_is_when_the_building_grows_and_is_counted_from_another_origin(page: Page, site):
    project = made(site, "Grows", {"House-ARC.ifc": house_model().content()}, 60)
    arrive(page, site, "Ida Fenn")
    page.goto(f"{site}/p/{project}")
    wait_drawn(page)
    wait_resting(page)

    def origin() -> np.ndarray:
        return np.array(page.evaluate("() => window.stairpath.open.seen().federation.origin_m"))

    begun, eye = origin(), np.array(pose_of(page)["eye_m"])
    wing = Sample()
    wing.box(wing.storey("Level 00", 0.0), (40, 0, 0), (10, 10, 3), Name="Wing", Tag="W-9")
    send(site, project, "Wing-ARC.ifc", wing.content())
    page.wait_for_function(
        "x => window.stairpath.open.seen().federation.origin_m[0] !== x", arg=float(begun[0]), timeout=60_000
    )
    wait_drawn(page)
    assert np.abs(origin() - begun).max() > 1
    assert np.array(pose_of(page)["eye_m"]) + origin() == pytest.approx(eye + begun, abs=1e-6)


def test_leaving_a_project_on_foot_takes_nothing_into_the_next_one(page: Page, site, house):
    arrive(page, site, "Ida Fenn")
    page.goto(f"{site}/p/{house}")
    wait_drawn(page)
    on_foot_in(page, "East room 0")
    other = made(site, "Next", {"Shed-ARC.ifc": simple().content()}, 60)
    page.get_by_role("link", name="Stair Path").click()
    page.locator(f'a[href="/p/{other}"]').first.click()
    wait_drawn(page)
    expect(page.get_by_test_id("walk-bar")).to_have_count(0)
    assert page.evaluate("() => window.stairpath.walker()") is None
    opened = page.locator("canvas").first.get_attribute("data-pose")
    page.keyboard.press("ArrowRight")
    wait_posed(page, opened)
    expect(page.get_by_test_id("stop-line")).to_have_count(0)
    before = pose_of(page)["eye_m"]
    page.keyboard.press("s")
    wait_resting(page)
    assert pose_of(page)["eye_m"] == pytest.approx(before, abs=1e-6)


def test_a_link_carries_what_is_hidden_however_much_it_is(opened: Page, site, pair, browser):
    ids = [f"{k:04d}{'x' * 18}" for k in range(600)]
    federation = ask(f"{site}/api/projects/{pair}/federation")
    rule = {"select": {"kind": "these", "of": {federation["models"][0]["id"]: ids}}, "effect": "hide"}
    wide = {"select": {"kind": "of", "what": "discipline", "value": "AIR"}, "effect": "fade"}
    eye = {"eye_m": [10, -30, 5], "target_m": [10, 0, 2], "up": [0, 0, 1], "projection": "perspective",
           "angle_deg": 60, "height_m": 9}  # fmt: skip
    view = {"eye": eye, "rules": [rule, wide]}
    link = ask(f"{site}/api/projects/{pair}/links", view)["id"]
    with another(browser) as context:
        other = context.new_page()
        arrive(other, site, "Tam Kerr")
        other.goto(f"{site}/p/{pair}#view=e10,-30,5,10,0,2,0,0,1,60,9&link={link}")
        wait_drawn(other)
        settled(other, "0 hidden · 2 faded")
        other.wait_for_function("() => location.hash.includes('&link=')")
        other.get_by_test_id("reasons").click()
        expect(other.get_by_test_id("reason").first).to_contain_text("600 components no longer in the models")
