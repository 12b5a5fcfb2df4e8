"""Markups: drawn over the view, kept with it, moved, restyled and deleted with undo, and found again elsewhere."""

from __future__ import annotations

import json

import numpy as np
from playwright.sync_api import Page, expect

from tests.e2e.conftest import ask
from tests.e2e.stage import size_of, wait_drawn, wait_posed, where

COUNTS = "() => { const { read, pins } = window.stairpath.layers.markups.counts; return `${read} ${pins}`; }"


def drag(page: Page, start: tuple[float, float], end: tuple[float, float], steps: int = 5) -> None:
    """Drag between two places of the stage, as shares of its width and height."""
    x, y, width, height = size_of(page)
    page.mouse.move(x + start[0] * width, y + start[1] * height)
    page.mouse.down()
    page.mouse.move(x + end[0] * width, y + end[1] * height, steps=steps)
    page.mouse.up()


def wait_counts(page: Page, counts: str) -> None:
    page.wait_for_function(f"wanted => ({COUNTS})() === wanted", arg=counts, timeout=60_000)


POINTS = "() => JSON.stringify(window.stairpath.layers.markups.places)"


def points(page: Page) -> np.ndarray:
    """Where the first markup can be taken hold of."""
    return np.array(json.loads(page.evaluate(POINTS))[0])


def points_after(page: Page, before: np.ndarray) -> np.ndarray:
    """The same once they are elsewhere."""
    was = json.dumps([before.tolist()], separators=(",", ":"))
    page.wait_for_function(f"was => ({POINTS})() !== was", arg=was, timeout=60_000)
    return points(page)


def opened(page: Page, site, pair) -> None:
    page.goto(f"{site}/p/{pair}")
    wait_drawn(page)
    page.get_by_role("tab", name="Markups").click()


def test_every_kind_of_markup_is_drawn_and_stays_with_its_place(page: Page, site, pair):
    opened(page, site, pair)
    rows = page.get_by_test_id("markup")
    before = where(page)
    kinds = ("Cloud", "Arrow", "Rectangle", "Ellipse", "Line", "Freehand")
    for k, kind in enumerate(kinds):
        page.get_by_role("button", name=kind, exact=True).click()
        drag(page, (0.3 + 0.05 * k, 0.4), (0.4 + 0.05 * k, 0.5))
        expect(rows).to_have_count(k + 1)
    page.get_by_role("button", name="Polyline", exact=True).click()
    x, y, width, height = size_of(page)
    for share in (0.4, 0.5, 0.6):
        page.mouse.click(x + share * width, y + 0.55 * height)
    page.keyboard.press("Enter")
    expect(rows).to_have_count(7)
    page.get_by_role("button", name="Text", exact=True).click()
    # What is typed early belongs to the text: no key acts on the page.
    page.keyboard.press("b")
    expect(page.get_by_role("status")).to_contain_text("Click where the text goes.")
    page.mouse.click(x + 0.45 * width, y + 0.35 * height)
    page.get_by_label("Text of the markup").fill("Is this the old duct?")
    page.keyboard.press("Enter")
    expect(rows).to_have_count(8)
    page.get_by_role("button", name="Callout", exact=True).click()
    drag(page, (0.5, 0.5), (0.6, 0.3))
    page.get_by_label("Text of the markup", exact=True).fill("Lower it by 40 mm")
    # A click elsewhere keeps what was typed.
    page.mouse.click(x + 0.3 * width, y + 0.6 * height)
    expect(rows).to_have_count(9)
    expect(rows.first).to_contain_text("Lower it by 40 mm")
    page.keyboard.press("Escape")
    # Drawing does not move the eye.
    assert where(page) == before
    wait_counts(page, "9 0")
    # From the other side they are pins, and a pin leads back.
    page.evaluate("() => window.stairpath.stage.turnTo(180, 20)")
    wait_posed(page, before)
    wait_counts(page, "0 9")
    turned = where(page)
    page.get_by_role("button", name="look at it").click()
    wait_posed(page, turned)
    wait_counts(page, "9 0")


def test_a_markup_is_moved_restyled_and_deleted_by_mouse_and_keys_with_undo(page: Page, site, pair):
    opened(page, site, pair)
    page.get_by_role("button", name="Rectangle", exact=True).click()
    drag(page, (0.4, 0.4), (0.5, 0.5))
    rows = page.get_by_test_id("markup")
    expect(rows).to_have_count(1)
    page.keyboard.press("Escape")
    wait_counts(page, "1 0")
    first = points(page)
    # By its line: all of it.
    drag(page, (0.45, 0.4), (0.5, 0.45))
    there = points_after(page, first)
    assert np.allclose(there[0] - first[0], there[1] - first[1], atol=1e-6)
    assert np.linalg.norm(there[0] - first[0]) > 0.05
    row = rows.get_by_role("button").first
    row.focus()
    page.keyboard.press("Shift+ArrowRight")
    assert np.linalg.norm(points_after(page, there)[0] - there[0]) > 0.01
    page.get_by_label("plum").click()
    page.get_by_label("Filled").check()
    page.wait_for_function("() => window.stairpath.layers.markups.filled")
    row.focus()
    page.keyboard.press("Delete")
    expect(rows).to_have_count(0)
    wait_counts(page, "0 0")
    page.keyboard.press("Control+z")
    expect(rows).to_have_count(1)
    page.wait_for_function("() => window.stairpath.layers.markups.filled")


def test_markups_are_part_of_a_viewpoint_and_of_a_link(page: Page, site, pair, browser):
    opened(page, site, pair)
    page.get_by_role("button", name="Cloud", exact=True).click()
    drag(page, (0.4, 0.4), (0.6, 0.6))
    expect(page.get_by_test_id("markup")).to_have_count(1)
    page.keyboard.press("Escape")
    page.wait_for_function("() => location.hash.includes('cut=')")
    link = page.url
    page.get_by_role("tab", name="Viewpoints").click()
    page.get_by_label("Name of the viewpoint").fill("With a cloud")
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_test_id("viewpoint")).to_have_count(1)
    (kept,) = ask(f"{site}/api/projects/{pair}/viewpoints")
    assert [markup["kind"] for markup in kept["view"]["markups"]] == ["cloud"]
    page.goto("about:blank")
    page.goto(link)
    wait_drawn(page)
    wait_counts(page, "1 0")


def test_a_locked_view_can_be_drawn_over(page: Page, site, pair):
    opened(page, site, pair)
    page.evaluate("() => { window.stairpath.stage.navigation.locked = true }")
    page.get_by_role("button", name="Cloud", exact=True).click()
    drag(page, (0.4, 0.4), (0.6, 0.6))
    expect(page.get_by_test_id("markup")).to_have_count(1)
