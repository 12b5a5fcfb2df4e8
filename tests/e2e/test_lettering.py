"""The size of letters: chosen by the person, kept by the browser, and what is dragged stays under the cursor."""

from __future__ import annotations

import numpy as np
import pytest
from playwright.sync_api import Page, expect

from tests.e2e.keyplan import until
from tests.e2e.stage import wait_drawn
from tests.e2e.test_looking import plan_middle


def letters(page: Page) -> float:
    return float(page.evaluate("getComputedStyle(document.documentElement).getPropertyValue('--lettering')"))


def test_letters_are_made_larger_for_board_desk_plan_and_signs_and_stay_so(page: Page, site, house):
    page.set_viewport_size({"width": 1600, "height": 900})
    page.goto(f"{site}/p/{house}")
    wait_drawn(page)
    head = page.get_by_role("tab", name="Cuts")
    before = head.bounding_box()
    head.click()
    page.get_by_role("button", name="Cut", exact=True).click()
    sign = page.get_by_test_id("cut-tab").bounding_box()
    assert sign
    page.get_by_role("button", name="Lengths: change").click()
    page.get_by_label("Size of letters").select_option("1.5")
    page.keyboard.press("Escape")
    expect(page.get_by_label("Size of letters")).to_have_count(0)
    page.reload()
    wait_drawn(page)
    assert letters(page) == 1.5
    after = head.bounding_box()
    assert before
    assert after
    assert after["width"] == pytest.approx(1.5 * before["width"], rel=0.05)
    larger = page.get_by_test_id("cut-tab").bounding_box()
    assert larger
    assert [larger["width"], larger["height"]] == pytest.approx([1.5 * sign["width"], 1.5 * sign["height"]], rel=0.1)
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth && scrollX === 0")

    # The edge of the desk stays under the cursor that drags it.
    edge = page.get_by_role("slider", name="Width of the desk")
    box = edge.bounding_box()
    assert box
    x, y = box["x"] + box["width"] / 2, box["y"] + 300
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x - 60, y, steps=3)
    page.mouse.up()
    moved = edge.bounding_box()
    assert moved
    assert moved["x"] == pytest.approx(box["x"] - 60, abs=4)

    # So does what is dragged on the key plan: the ring, and the handle that makes it larger.
    x, y, radius = plan_middle(page)
    rim = radius - 15
    page.mouse.move(x + rim * np.sin(np.radians(32)), y - rim * np.cos(np.radians(32)))
    page.mouse.down()
    page.mouse.move(x + rim, y, steps=3)
    until(page, "bearing", 90)
    page.mouse.up()
    handle = page.get_by_test_id("size-handle").bounding_box()
    assert handle
    page.mouse.move(handle["x"] + 10, handle["y"] + 10)
    page.mouse.down()
    page.mouse.move(handle["x"] + 10, handle["y"] - 50, steps=3)
    page.mouse.up()
    page.wait_for_function(
        "(wide) => Math.abs(document.querySelector('[data-testid=key-plan]').getBoundingClientRect().width - wide) < 4",
        arg=radius * 2 + 60,
    )
