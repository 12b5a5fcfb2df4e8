"""What can be done with a component, listed at it: by a right click and by keys; and going there by a double click."""

from __future__ import annotations

import numpy as np
from playwright.sync_api import Page, expect

from tests.e2e.conftest import ask
from tests.e2e.stage import numbers, on_screen, wait_drawn, wait_posed, where


def place_of(page: Page, site, project, point_m) -> tuple[float, float]:
    return on_screen(page, np.subtract(point_m, ask(f"{site}/api/projects/{project}/federation")["origin_m"]))


def test_the_menu_at_a_component_acts_on_it_or_on_the_selection_it_is_of(page: Page, site, pair):
    page.goto(f"{site}/p/{pair}")
    wait_drawn(page)
    menu = page.get_by_role("menu", name="What can be done with it")
    hidden = page.get_by_test_id("reasons")
    first, second = (place_of(page, site, pair, (x, -8, 1.3)) for x in (6, 14))
    page.mouse.click(*first, button="right")
    expect(page.get_by_test_id("component-tag")).to_have_text("AD-1")
    menu.get_by_role("menuitem", name="Isolate").click()
    expect(menu).to_have_count(0)
    expect(hidden).to_have_text("13 hidden · 0 faded")
    page.keyboard.press("Control+z")
    expect(hidden).to_have_text("all shown")
    # Of a selection it is all of it that is meant; by keys alone, with nothing changed by closing it.
    page.keyboard.down("Shift")
    page.mouse.click(*second)
    page.keyboard.up("Shift")
    expect(page.get_by_role("heading", name="2 selected")).to_be_visible()
    page.mouse.click(*first, button="right")
    expect(menu).to_be_visible()
    page.keyboard.press("Escape")
    expect(hidden).to_have_text("all shown")
    page.keyboard.press("Shift+F10")
    expect(menu).to_be_visible()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    expect(hidden).to_have_text("2 hidden · 0 faded")
    page.keyboard.press("Control+z")
    expect(hidden).to_have_text("all shown")
    # A measure begins at the point that was meant.
    page.mouse.click(*first, button="right")
    menu.get_by_role("menuitem", name="Measure from here").click()
    expect(page.get_by_test_id("stage-mark")).to_contain_text("Click two points.")
    expect(menu).to_have_count(0)
    page.mouse.click(*second)
    expect(page.get_by_test_id("measure")).to_have_count(1)
    # With the tool in hand a right click and a double one are no one else's.
    page.mouse.click(*first, button="right")
    page.mouse.dblclick(*first)
    expect(menu).to_have_count(0)
    page.keyboard.press("Escape")
    # A topic begins with its title.
    page.mouse.click(*first, button="right")
    menu.get_by_role("menuitem", name="Make a topic").click()
    expect(page.get_by_label("Title of the topic")).to_be_focused()


def test_a_double_click_goes_there(page: Page, site, pair):
    page.goto(f"{site}/p/{pair}")
    wait_drawn(page)
    spot = place_of(page, site, pair, (6, -8, 1.3))
    page.mouse.click(*spot)
    expect(page.get_by_test_id("component-tag")).to_have_text("AD-1")
    was, before = where(page), numbers(page)
    page.mouse.dblclick(*spot)
    wait_posed(page, was)
    to = np.subtract((6, -8, 1.3), ask(f"{site}/api/projects/{pair}/federation")["origin_m"])
    assert np.linalg.norm(numbers(page)[:3] - to) < 0.6 * np.linalg.norm(before[:3] - to)
