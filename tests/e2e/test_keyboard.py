"""Moving, walking, seeing and cutting by the keyboard alone: no mouse and no finger in the whole of it."""

from __future__ import annotations

from playwright.sync_api import Locator, Page, expect

from tests.e2e.conftest import house_model, made, wait_mapped
from tests.e2e.going import find
from tests.e2e.stage import on_screen, wait_drawn, wait_resting, where

MOST_TABS = 160


def wait_posed(page: Page, before: str | None) -> None:
    page.wait_for_function("before => document.querySelector('canvas').dataset.pose !== before", arg=before)
    wait_resting(page)


def moved_by(page: Page, *keys: str) -> None:
    """Press keys, after which the eye is elsewhere or looks elsewhere."""
    before = where(page)
    for key in keys:
        page.keyboard.press(key)
    wait_posed(page, before)
    wait_resting(page)


def moved_by_finding(page: Page, name: str) -> None:
    before = where(page)
    find(page, name)
    wait_posed(page, before)
    wait_resting(page)


def tab_to(page: Page, wanted: Locator) -> None:
    """Come to something by Tab, as who has no mouse does."""
    for _ in range(MOST_TABS):
        if wanted.evaluate("(each) => each === document.activeElement"):
            return
        page.keyboard.press("Tab")
    raise AssertionError(f"{wanted} is not reached by Tab")


def cross_to(page: Page, x: float, y: float) -> None:
    """Carry the cross to a place of the page."""
    box = page.locator("canvas.stage").bounding_box()
    assert box is not None
    for axis, wanted, keys in (
        ("x", x - box["x"], ("ArrowRight", "ArrowLeft")),
        ("y", y - box["y"], ("ArrowDown", "ArrowUp")),
    ):
        while True:
            at = page.evaluate("() => { const c = document.querySelector('[data-testid=cross]').getBoundingClientRect();"
                               " const s = document.querySelector('canvas.stage').getBoundingClientRect();"
                               " return { x: c.left + 14 - s.left, y: c.top + 14 - s.top }; }")  # fmt: skip
            off = wanted - at[axis]
            if abs(off) < 1:
                break
            step = "Shift+" if abs(off) >= 60 else "" if abs(off) >= 12 else "Alt+"
            page.keyboard.press(step + keys[0 if off > 0 else 1])


def drawn_by_cross(page: Page, hold: str, *ways: str) -> None:
    page.keyboard.press(hold)
    for way in ways:
        page.keyboard.press(way)
    page.keyboard.press(hold)


def test_move_walk_see_and_cut_by_the_keyboard_alone(page: Page, site):
    # A house of its own: what is kept here would be in the way of other tests.
    house = made(site, "House by keys", {"House-ARC.ifc": house_model().content()}, 60)
    wait_mapped(site, house)
    page.set_viewport_size({"width": 1200, "height": 640})
    page.goto(f"{site}/p/{house}")
    wait_drawn(page)
    page.get_by_test_id("place").first.wait_for()
    moving(page)
    walking(page)
    seeing(page)
    cutting(page)


def moving(page: Page) -> None:
    cross = page.get_by_test_id("cross")
    page.keyboard.press("Shift+Enter")
    expect(cross).to_be_visible()
    moved_by(page, "+", "+")
    before = where(page)
    drawn_by_cross(page, "Space", *["ArrowRight"] * 5)
    wait_posed(page, before)
    before = where(page)
    drawn_by_cross(page, "Shift+Space", *["ArrowDown"] * 4)
    wait_posed(page, before)
    page.keyboard.press("Escape")
    expect(cross).to_have_count(0)
    moved_by(page, "e")
    moved_by(page, "o")
    # A region is drawn, and the tool put away.
    page.keyboard.press("z")
    page.keyboard.press("Shift+Enter")
    before = where(page)
    drawn_by_cross(page, "Space", "Shift+ArrowRight", "Shift+ArrowDown")
    wait_posed(page, before)
    page.keyboard.press("Escape")
    page.keyboard.press("Escape")
    moved_by(page, "[")
    moved_by(page, "]")
    find(page, "Save as my home view")
    expect(page.get_by_role("status")).to_contain_text("home", ignore_case=True)
    moved_by(page, "ArrowLeft")
    moved_by(page, "Home")
    moved_by_finding(page, "Square onto grid line A")
    page.keyboard.press("Shift+p")
    page.wait_for_function("() => JSON.parse(document.querySelector('canvas').dataset.pose).projection === 'parallel'")
    moved_by_finding(page, "True scale 1:100")
    page.keyboard.press("p")
    page.wait_for_function(
        "() => JSON.parse(document.querySelector('canvas').dataset.pose).projection === 'perspective'"
    )
    find(page, "Set a lens or a true scale")
    expect(page.get_by_label("Angle of view or focal length")).to_be_visible()
    tab_to(page, page.get_by_label("Angle of view or focal length"))
    page.keyboard.press("Control+a")
    page.keyboard.type("50")
    moved_by(page, "Enter")
    page.keyboard.press("Escape")
    # From one of the sides by the ring.
    before = where(page)
    tab_to(page, page.get_by_role("button", name="Look at the building from its left", exact=True))
    page.keyboard.press("Enter")
    wait_posed(page, before)
    page.keyboard.press("b")
    expect(page.get_by_test_id("drawing")).to_be_visible()
    page.keyboard.press("b")
    expect(page.get_by_test_id("drawing")).to_have_count(0)
    page.keyboard.press("q")
    still = where(page)
    page.keyboard.press("ArrowLeft")
    assert where(page) == still
    page.keyboard.press("q")
    page.keyboard.press("?")
    page.keyboard.type("zoom")
    expect(page.get_by_role("dialog")).to_contain_text("Zoom to a region")
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    find(page, "Background: dark")


def walking(page: Page) -> None:
    moved_by_finding(page, "West room 0")
    page.keyboard.press("m")
    expect(page.get_by_test_id("walk-bar")).to_be_visible()
    page.wait_for_function("() => window.stairpath.walker?.()")
    page.keyboard.down("w")
    # It ends at a wall, which says what it is.
    expect(page.get_by_test_id("stop-line")).to_contain_text("Wall", timeout=60_000)
    page.keyboard.up("w")
    moved_by(page, "PageUp")
    moved_by(page, "h")
    page.keyboard.press("h")
    page.keyboard.press("j")
    page.keyboard.press("Shift+Enter")
    # The arrows are the cross's, not the walker's.
    still = where(page)
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowDown")
    assert where(page) == still
    moved_by(page, "Enter")
    page.keyboard.press("Escape")
    page.keyboard.press("Escape")
    page.keyboard.press("f")
    before = where(page)
    page.keyboard.down("s")
    page.wait_for_function("before => document.querySelector('canvas').dataset.pose !== before", arg=before)
    page.keyboard.up("s")
    page.keyboard.press("f")
    find(page, "Find a route")
    expect(page.get_by_role("tab", name="Routes")).to_have_attribute("aria-selected", "true")


def seeing(page: Page) -> None:
    moved_by(page, "e")
    head = page.get_by_role("button", name="00, every discipline")
    tab_to(page, page.locator("[data-place][tabindex='0']").first)
    page.keyboard.press("Control+Home")
    for _ in range(8):
        if head.evaluate("(each) => each === document.activeElement"):
            break
        page.keyboard.press("ArrowDown")
    cell = page.get_by_role("button", name="ARC 00", exact=True)
    page.keyboard.press("Enter")
    expect(cell).to_have_attribute("data-state", "faded")
    page.keyboard.press("Control+z")
    expect(cell).to_have_attribute("data-state", "shown")
    page.keyboard.press("Shift+Enter")
    cross_to(page, *on_screen(page, (10, 0, 2)))
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("component-tag")).to_be_visible()
    page.keyboard.press("Escape")
    find(page, "Select all visible of the same level")
    page.keyboard.press("c")
    expect(page.get_by_test_id("reasons")).to_contain_text("hidden")
    page.keyboard.press("Shift+c")
    expect(page.get_by_test_id("reasons")).to_contain_text("all shown")
    find(page, "Select in a box")
    page.keyboard.press("Shift+Enter")
    drawn_by_cross(page, "Space", "Shift+ArrowRight", "Shift+ArrowDown")
    page.keyboard.press("Escape")
    find(page, "Invert the selection")
    find(page, "Clear selection")
    moved_by_finding(page, "West room 0")
    page.keyboard.press("e")
    page.keyboard.press("Shift+o")
    expect(page.get_by_role("tab", name="Cuts")).to_be_visible()
    page.keyboard.press("Shift+o")


def cutting(page: Page) -> None:
    rows = page.get_by_test_id("cut")
    page.keyboard.press("t")
    expect(rows).to_have_count(0)
    find(page, "Cut this storey from above at 1.2 m")
    expect(rows).to_have_count(1)
    find(page, "Cut along a face")
    page.keyboard.press("Shift+Enter")
    cross_to(page, *on_screen(page, (10, 0, 0.6)))
    page.keyboard.press("Enter")
    expect(rows).to_have_count(2)
    page.keyboard.press("Escape")
    # Its tab on the stage is moved by the arrows.
    height = rows.first.inner_text()
    tab_to(page, page.get_by_test_id("cut-tab").first)
    page.keyboard.press("ArrowUp")
    expect(rows.first).not_to_have_text(height)
    find(page, "Cut square to this view")
    expect(rows).to_have_count(3)
    page.keyboard.press("Shift+t")
    page.keyboard.press("Shift+t")
    page.keyboard.press("k")
    expect(page.get_by_label("Name of the viewpoint")).to_be_focused()
    page.keyboard.type("Cut by keys")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("viewpoint").filter(has_text="Cut by keys")).to_have_count(1)
