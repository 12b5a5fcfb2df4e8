"""Measures: taken with the mouse to the millimetre, held to axes, read in one's own units, kept, undone and linked."""

from __future__ import annotations

import math

import numpy as np
import pytest
from playwright.sync_api import Page, expect

from tests.e2e.conftest import arrive
from tests.e2e.going import find
from tests.e2e.stage import on_screen, size_of, wait_drawn, wait_resting
from tests.e2e.test_cutting import origin_of

CAUGHT = "() => document.querySelector('[data-testid=caught]')?.textContent ?? ''"
TEXTS = "() => window.stairpath.layers.dimensions.texts"
BOTTOM_LEFT, BOTTOM_RIGHT, TOP_RIGHT = (0, 0, 4), (20, 0, 4), (20, 0, 7.4)
"""Corners of the front wall of the upper storey."""


@pytest.fixture
def measuring(home: Page):
    """The house, with the Measures desk open."""
    home.set_viewport_size({"width": 1280, "height": 800})
    home.keyboard.press("g")
    expect(home.get_by_test_id("measure-ways")).to_be_visible()
    wait_resting(home)
    return home


def way(page: Page, name: str) -> None:
    page.get_by_test_id("measure-ways").get_by_role("button", name=name, exact=True).click()


def over(page: Page, origin, point_m, caught: str) -> tuple[float, float]:
    """Hover over a point of the project until what is caught there is said."""
    x, y = on_screen(page, np.subtract(point_m, origin))
    page.mouse.move(x - 30, y - 30)
    page.mouse.move(x, y)
    page.wait_for_function(f"wanted => ({CAUGHT})() === wanted", arg=caught, timeout=20_000)
    return x, y


def click(page: Page, origin, point_m, caught: str) -> None:
    page.mouse.click(*over(page, origin, point_m, caught))


def inside(point_m, towards, share: float = 0.004):
    """A point a little towards another one, so that the cursor is on the component and not beside it."""
    return tuple(a + share * (b - a) for a, b in zip(point_m, towards, strict=True))


def distance(page: Page, origin, one, other) -> None:
    middle = tuple((a + b) / 2 for a, b in zip(BOTTOM_LEFT, TOP_RIGHT, strict=True))
    for point in (one, other):
        click(page, origin, inside(point, middle, 0.012), "corner")


def figure(page: Page, row: int = 0):
    return page.get_by_test_id("measure").nth(row)


def test_two_corners_are_measured_with_the_mouse_to_the_millimetre(measuring: Page, site, house):
    origin = origin_of(site, house)
    way(measuring, "Distance")
    distance(measuring, origin, BOTTOM_LEFT, TOP_RIGHT)
    long = math.hypot(20, 3.4)
    expect(figure(measuring)).to_contain_text(f"{long:.3f} m")
    expect(figure(measuring).get_by_test_id("figures")).to_contain_text("up3.400 m")
    expect(figure(measuring).get_by_test_id("figures")).to_contain_text("east20.000 m")
    expect(figure(measuring).get_by_test_id("figures")).to_contain_text(f"fall{3.4 / 20 * 100:.2f} %")
    assert measuring.evaluate(TEXTS) == [f"{long:.3f} m"]
    figure(measuring).get_by_label("Main figure").select_option(label="up")
    expect(figure(measuring)).to_contain_text("3.400 m")
    measuring.wait_for_function(f"() => JSON.stringify(({TEXTS})()) === JSON.stringify(['3.400 m'])")
    # By one action it is the words of a markup.
    figure(measuring).get_by_role("button", name="write on the view").click()
    measuring.wait_for_function("() => window.stairpath.layers.markups.counts.read === 1")
    measuring.get_by_role("tab", name="Markups").click()
    expect(measuring.get_by_test_id("markup")).to_contain_text("3.400 m")
    measuring.keyboard.press("Control+z")
    expect(measuring.get_by_test_id("markup")).to_have_count(0)
    measuring.get_by_role("tab", name="Measures").click()
    # The tool is still in hand; Esc puts it away, and the measure is undone and done again.
    measuring.keyboard.press("Escape")
    expect(measuring.get_by_role("button", name="Close", exact=True)).to_have_count(0)
    measuring.locator("canvas").focus()
    measuring.keyboard.press("Control+z")
    expect(figure(measuring)).to_contain_text(f"{long:.3f} m")
    measuring.keyboard.press("Control+z")
    expect(measuring.get_by_test_id("measure")).to_have_count(0)
    measuring.wait_for_function(f"() => !({TEXTS})().length")
    measuring.keyboard.press("Control+y")
    expect(figure(measuring)).to_contain_text(f"{long:.3f} m")


def test_the_next_point_is_held_to_an_axis_and_a_chain_has_a_sum(measuring: Page, site, house):
    origin = origin_of(site, house)
    way(measuring, "Chain")
    middle = tuple((a + b) / 2 for a, b in zip(BOTTOM_LEFT, TOP_RIGHT, strict=True))
    click(measuring, origin, inside(BOTTOM_LEFT, middle, 0.012), "corner")
    hold = measuring.get_by_role("group", name="Hold the next point")
    hold.get_by_role("button", name="east–west").click()
    click(measuring, origin, inside(TOP_RIGHT, middle, 0.012), "corner")
    hold.get_by_role("button", name="up", exact=True).click()
    click(measuring, origin, inside(TOP_RIGHT, middle, 0.012), "corner")
    measuring.keyboard.press("Enter")
    row = figure(measuring)
    expect(row).to_contain_text("23.400 m")
    expect(row.get_by_test_id("figures")).to_contain_text("leg 120.000 m")
    expect(row.get_by_test_id("figures")).to_contain_text("leg 23.400 m")
    expect(hold).to_have_count(0)


def test_a_point_alone_is_no_measure_and_a_chain_of_two_is_kept_when_it_is_put_away(measuring: Page, site, house):
    origin = origin_of(site, house)
    middle = tuple((a + b) / 2 for a, b in zip(BOTTOM_LEFT, TOP_RIGHT, strict=True))
    way(measuring, "Chain")
    click(measuring, origin, inside(BOTTOM_LEFT, middle, 0.012), "corner")
    measuring.keyboard.press("Escape")
    expect(measuring.get_by_test_id("measure")).to_have_count(0)
    way(measuring, "Chain")
    for point in (BOTTOM_LEFT, TOP_RIGHT):
        click(measuring, origin, inside(point, middle, 0.012), "corner")
    way(measuring, "Area of a face")
    expect(figure(measuring)).to_contain_text(f"{math.hypot(20, 3.4):.3f} m")


def test_between_components_faces_and_the_room_at_a_point(measuring: Page, site, house):
    origin = origin_of(site, house)
    way(measuring, "Between two components")
    for point in ((5, 0, 5.5), (5, 0, 1.5)):
        measuring.mouse.click(*on_screen(measuring, np.subtract(point, origin)))
    expect(figure(measuring)).to_contain_text("0.600 m")
    way(measuring, "Area of a face")
    measuring.mouse.click(*on_screen(measuring, np.subtract((5, 0, 5.5), origin)))
    expect(figure(measuring)).to_contain_text("68.000 m²")
    expect(measuring.get_by_test_id("measure")).to_have_count(2)
    figure(measuring).get_by_role("button", name="look at it").click()
    expect(figure(measuring).get_by_test_id("figures")).to_contain_text("perimeter46.800 m")
    figure(measuring).get_by_role("button", name="delete").click()
    expect(measuring.get_by_test_id("measure")).to_have_count(1)
    measuring.get_by_role("button", name="Close", exact=True).click()
    # Within a room there is so much of it: between the floors, and between its walls.
    find(measuring, "0.01 West room 0")
    wait_resting(measuring)
    measuring.keyboard.press("g")
    way(measuring, "Area of 0.01 West room 0")
    expect(figure(measuring)).to_contain_text(f"{9.6 * 11.4:.3f} m²")
    way(measuring, "Room at a point")
    x, y, width, height = size_of(measuring)
    measuring.mouse.click(x + 0.75 * width, y + 0.8 * height)
    expect(figure(measuring)).to_contain_text("3.700 m")
    expect(figure(measuring)).to_contain_text("above it Slab")


def test_lengths_are_read_and_typed_in_feet_and_inches(measuring: Page, site, house):
    origin = origin_of(site, house)
    way(measuring, "Distance")
    distance(measuring, origin, BOTTOM_LEFT, BOTTOM_RIGHT)
    expect(figure(measuring)).to_contain_text("20.000 m")
    measuring.get_by_role("button", name="Lengths: change").click()
    measuring.get_by_label("feet and inches, to 1/16").check()
    measuring.keyboard.press("Escape")
    expect(figure(measuring)).to_contain_text("65' 7 3/8\"")
    measuring.wait_for_function(f"""() => ({TEXTS})()[0] === `65' 7 3/8"`""")
    measuring.get_by_role("tab", name="Cuts").click()
    measuring.get_by_label("Storey to cut").select_option(label="Level 00")
    field = measuring.get_by_label("ft above the storey")
    field.fill("1200 mm")
    measuring.get_by_role("button", name="Cut", exact=True).click()
    expect(measuring.get_by_test_id("cut")).to_contain_text("Level 00 + 3' 11 1/4\"")
    field.fill("two feet")
    expect(measuring.get_by_text("two feet is not a length. Type one such as 2.5 m")).to_be_visible()


def test_measures_go_with_the_link_and_with_a_viewpoint(measuring: Page, site, house, page: Page):
    origin = origin_of(site, house)
    way(measuring, "Distance")
    distance(measuring, origin, BOTTOM_LEFT, BOTTOM_RIGHT)
    expect(figure(measuring)).to_contain_text("20.000 m")
    measuring.wait_for_function("() => location.hash.includes('cut=')")
    unnamed = measuring.url
    field = measuring.get_by_label("Name of the measure")
    field.fill("Front")
    field.press("Enter")
    expect(figure(measuring)).to_contain_text("Front")
    measuring.wait_for_function("before => location.hash.includes('cut=') && location.href !== before", arg=unnamed)
    address = measuring.url
    measuring.get_by_role("tab", name="Viewpoints").click()
    name = measuring.get_by_label("Name of the viewpoint")
    name.fill("Measured")
    name.press("Enter")
    expect(measuring.get_by_test_id("viewpoint").first).to_contain_text("Measured")
    arrive(page, site, "Tom Ash")
    page.goto(address)
    wait_drawn(page)
    page.keyboard.press("g")
    expect(figure(page)).to_contain_text("Front")
    expect(figure(page)).to_contain_text("20.000 m")
    figure(page).get_by_role("button", name="delete").click()
    expect(page.get_by_test_id("measure")).to_have_count(0)
    page.get_by_role("tab", name="Viewpoints").click()
    page.get_by_role("button", name="Measured").first.click()
    page.wait_for_function(f"() => ({TEXTS})().length === 1")
    page.get_by_role("tab", name="Measures").click()
    expect(figure(page)).to_contain_text("Front")
