"""Following: one presents, the other sees the same, reads what is done, looks away and comes back, takes over."""

from __future__ import annotations

import numpy as np
from playwright.sync_api import Page, expect

from tests.e2e.conftest import another, arrive
from tests.e2e.stage import numbers, pixels, wait_drawn, wait_posed, wait_resting, where
from tests.e2e.test_seeing import click_on


def same_eye(one: Page, other: Page) -> None:
    wanted = one.locator("canvas").first.get_attribute("data-pose")
    other.wait_for_function(
        """wanted => {
            const [a, b] = [wanted, document.querySelector('canvas').dataset.pose].map(JSON.parse);
            return ['eye_m', 'target_m'].every((k) => a[k].every((c, i) => Math.abs(c - b[k][i]) < 1e-4));
        }""",
        arg=wanted,
        timeout=60_000,
    )


def test_who_follows_sees_what_the_presenter_sees(page: Page, site, pair, browser):
    page.set_viewport_size({"width": 1000, "height": 700})
    page.goto(f"{site}/p/{pair}")
    wait_drawn(page)
    with another(browser, viewport={"width": 1000, "height": 700}) as context:
        other = context.new_page()
        arrive(other, site, "Tam Kerr")
        other.goto(f"{site}/p/{pair}")
        wait_drawn(other)
        expect(page.get_by_role("button", name="2 here")).to_be_visible()
        page.get_by_role("button", name="2 here").click()
        page.get_by_role("button", name="Present to the others").click()
        expect(other.get_by_test_id("together")).to_contain_text("Ida Fenn presents.")
        other.keyboard.press("Shift+F")
        expect(other.get_by_test_id("together")).to_contain_text("You follow Ida Fenn.")
        expect(page.get_by_test_id("together")).to_contain_text("1 follows")
        # The eye, what is picked and hidden, and the name of what was done.
        before = where(page)
        page.evaluate("() => window.stairpath.stage.turnTo(300, 25)")
        wait_posed(page, before)
        same_eye(page, other)
        click_on(page, site, pair, (6, -8, 1.3))
        # What is picked is read from across a room, with both.
        for one in (page, other):
            expect(one.get_by_test_id("picked-large")).to_contain_text("AD-1")
        page.keyboard.press("c")
        expect(other.get_by_test_id("did")).to_contain_text("hid")
        expect(other.get_by_test_id("did")).to_contain_text("Ida Fenn")
        expect(other.get_by_text("1 hidden").first).to_be_visible()
        # A pixel is the same one with both.
        for one in (page, other):
            one.mouse.move(2, 350)
            wait_resting(one)
        page.wait_for_function("() => document.querySelector('canvas').dataset.smooth === 'yes'")
        other.wait_for_function("() => document.querySelector('canvas').dataset.smooth === 'yes'")
        assert np.abs(pixels(page).astype(int) - pixels(other).astype(int)).mean() < 1.0
        # Looked away, and back with one key.
        x, y = 500, 300
        other.mouse.move(x, y)
        other.mouse.wheel(0, -400)
        expect(other.get_by_test_id("together")).to_contain_text("You stopped looking with")
        before = where(page)
        page.evaluate("() => window.stairpath.stage.turnTo(120, 10)")
        wait_posed(page, before)
        assert np.abs(numbers(page) - numbers(other)).max() > 0.1
        other.keyboard.press("Shift+F")
        same_eye(page, other)
        # The presenter's line is lost for a moment: both go on.
        page.evaluate("() => window.stairpath.line?.lose()")
        expect(page.get_by_test_id("together")).to_contain_text("You present; 1 follows", timeout=20_000)
        before = where(page)
        page.evaluate("() => window.stairpath.stage.turnTo(80, 20)")
        wait_posed(page, before)
        same_eye(page, other)
        # What is taken back is called that, and a reload ends nothing.
        page.keyboard.press("Control+z")
        expect(other.get_by_test_id("did")).to_contain_text("undid: hid")
        page.reload()
        wait_drawn(page)
        expect(page.get_by_test_id("together")).to_contain_text("You present; 1 follows", timeout=20_000)
        expect(other.get_by_test_id("together")).to_contain_text("You follow Ida Fenn.")
        same_eye(page, other)
        # Handed over: now the first follows.
        page.get_by_role("button", name="2 here").click()
        page.get_by_role("button", name="Hand over to Tam Kerr").click()
        expect(other.get_by_test_id("together")).to_contain_text("You present")
        expect(page.get_by_test_id("together")).to_contain_text("Tam Kerr presents.")
        expect(page.get_by_test_id("people")).to_have_count(0)
        page.keyboard.press("Shift+F")
        expect(page.get_by_test_id("together")).to_contain_text("You follow Tam Kerr.")
        before = where(other)
        other.evaluate("() => window.stairpath.stage.turnTo(200, 15)")
        wait_posed(other, before)
        same_eye(other, page)
    # The presenter is gone: who followed is told.
    expect(page.get_by_text("The presentation has ended.")).to_be_visible()
    expect(page.get_by_role("button", name="1 here")).to_be_visible()
