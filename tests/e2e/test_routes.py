"""Routes in the browser: found, drawn, kept, walked; why there is none; and what an alternative changes."""

from __future__ import annotations

import pytest
from playwright.sync_api import Page, expect

from tests.e2e.stage import pose_of, wait_posed, where


def choose(page: Page, label: str, room: str) -> None:
    box = page.get_by_role("combobox", name=label, exact=True)
    box.fill(room)
    page.locator("[role=option]").first.wait_for()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")


def choose_body(page: Page, name: str) -> None:
    page.locator("form").filter(has=page.get_by_role("button", name="Find route")).locator(
        "[role=combobox]"
    ).last.click()
    page.get_by_role("option", name=name, exact=True).click()


def test_a_route_is_found_drawn_kept_and_walked(home: Page):
    home.get_by_role("tab", name="Routes").click()
    choose(home, "From", "0.01")
    choose(home, "To", "0.02")
    home.get_by_role("button", name="Find route").click()
    answer = home.get_by_test_id("route-answer")
    answer.wait_for(timeout=60_000)
    expect(answer).to_contain_text("Risers")
    assert home.evaluate("() => window.stairpath.layers.route.shown") is True
    home.get_by_label("Name of the route").fill("Across")
    home.get_by_role("button", name="Keep", exact=True).click()
    expect(home.get_by_test_id("kept-route")).to_contain_text("Across")
    before = pose_of(home)["eye_m"]
    home.get_by_role("slider", name="Where on the route").focus()
    home.keyboard.press("End")
    home.wait_for_function(
        "z => JSON.parse(document.querySelector('canvas').dataset.pose).eye_m[0] !== z", arg=before[0]
    )
    assert pose_of(home)["eye_m"][2] == pytest.approx(1.68, abs=0.02)
    # While it plays, the handle stands where one is.
    home.get_by_role("button", name="Walk", exact=True).last.click()
    home.wait_for_function("""() => {
      const [thumb, input] = ['.MuiSlider-thumb', 'input[type=range]'].map(
        (part) => document.querySelector(`[data-testid=walk-it] ${part}`));
      const rail = thumb.parentElement.getBoundingClientRect();
      const share = (thumb.getBoundingClientRect().left + thumb.offsetWidth / 2 - rail.left) / rail.width;
      return share > 0.05 && share < 0.95 && Math.abs(share - input.value / input.max) < 0.05;
    }""")
    home.get_by_role("button", name="Pause", exact=True).click()
    # What answers another question than the form's cannot be kept.
    choose(home, "To", "1.01")
    expect(home.get_by_label("Name of the route")).to_have_count(0)
    home.get_by_test_id("kept-route").get_by_role("button", name="delete").click()
    expect(home.get_by_test_id("kept-route")).to_have_count(0)


def test_a_long_search_is_stopped_and_the_route_has_its_own_body(home: Page):
    home.get_by_role("tab", name="Routes").click()
    choose(home, "From", "0.01")
    choose(home, "To", "0.02")
    choose_body(home, "trolley")
    home.get_by_role("button", name="Find route").click()
    home.get_by_test_id("route-answer").wait_for(timeout=60_000)
    before = where(home)
    home.get_by_role("button", name="Fit the route").click()
    wait_posed(home, before)
    home.route("**/routes/find", lambda route: None)  # a search that does not end
    choose_body(home, "stooping")
    home.get_by_role("button", name="Find route").click()
    expect(home.get_by_role("status").filter(has_text="Finding a route")).to_be_visible()
    expect(home.get_by_test_id("route-answer")).to_have_count(0)
    home.get_by_role("button", name="Cancel").click()
    expect(home.get_by_test_id("route-changed")).to_contain_text("Changed since this was found: body.")
    expect(home.get_by_role("button", name="Find route")).to_be_enabled()


def test_what_changed_since_the_answer_is_told_and_the_line_goes_with_its_desk(home: Page):
    home.get_by_role("tab", name="Routes").click()
    choose(home, "From", "0.01")
    choose(home, "To", "0.02")
    home.get_by_role("button", name="Find route").click()
    home.get_by_test_id("route-answer").wait_for(timeout=60_000)
    changed = home.get_by_test_id("route-changed")
    expect(changed).to_have_count(0)
    home.get_by_role("checkbox", name="no stairs").check()
    expect(changed).to_contain_text("Changed since this was found: stairs.")
    # Nobody takes the old answer for one to what is asked now.
    expect(home.get_by_test_id("walk-it")).to_have_count(0)
    home.wait_for_function("() => !window.stairpath.layers.route.shown")
    home.get_by_role("checkbox", name="no stairs").uncheck()
    expect(changed).to_have_count(0)
    home.wait_for_function("() => window.stairpath.layers.route.shown")
    expect(home.get_by_test_id("walk-it")).to_have_count(1)
    home.get_by_role("button", name="other ways").click()
    expect(home.get_by_test_id("other-ways")).to_contain_text("There is no other route.", timeout=30_000)
    home.get_by_role("button", name="Narrowest").click()
    home.wait_for_function("() => window.stairpath.layers.outlines.shown")
    shown = "(on) => window.stairpath.layers.route.shown === on"
    home.get_by_role("button", name="Hide the line").click()
    home.wait_for_function(shown, arg=False)
    home.get_by_role("button", name="Show the line").click()
    home.wait_for_function(shown, arg=True)
    home.get_by_role("tab", name="Models").click()
    home.wait_for_function(shown, arg=False)


def test_no_way_says_why(home: Page):
    home.get_by_role("tab", name="Routes").click()
    choose(home, "From", "0.01")
    choose(home, "To", "1.02")
    home.get_by_role("button", name="Find route").click()
    expect(home.get_by_test_id("no-way")).to_contain_text("There is no route.", timeout=60_000)
    angle = pose_of(home)["angle_deg"]
    home.get_by_role("button", name="Show end").click()
    home.get_by_test_id("place").filter(has_text="where the route ends").wait_for()
    assert pose_of(home)["angle_deg"] == angle


def test_another_alternative_gives_another_way_and_the_difference_is_told(hall: Page):
    hall.get_by_role("tab", name="Routes").click()
    choose(hall, "From", "0.01")
    choose(hall, "To", "1.01")
    hall.get_by_role("button", name="Find route").click()
    answer = hall.get_by_test_id("route-answer")
    expect(answer.get_by_text("18", exact=True)).to_be_visible(timeout=60_000)
    hall.get_by_role("tab", name="Models").click()
    hall.get_by_role("button", name="Let alternative B stand").click()
    hall.get_by_role("tab", name="Routes").click()
    expect(answer).to_contain_text("Against before:", timeout=60_000)
    expect(answer).to_contain_text("-1 risers".replace("-", "\u2212"))
    expect(answer.get_by_text("17", exact=True)).to_be_visible()
