"""How tests go places: by the find box, and on foot."""

from __future__ import annotations

from playwright.sync_api import Page

from tests.e2e.stage import wait_resting


def find(page: Page, name: str) -> None:
    """Do what the find box finds under a name."""
    page.keyboard.press("/")
    page.keyboard.type(name)
    page.locator("[role=listbox] [role=option]").first.wait_for()
    page.keyboard.press("Enter")


def in_room(page: Page, room: str) -> None:
    find(page, room)
    page.get_by_test_id("present-room").filter(has_text=room).wait_for()
    wait_resting(page)


def on_foot_in(page: Page, room: str) -> None:
    in_room(page, room)
    page.keyboard.press("g")
    page.get_by_test_id("walk-bar").wait_for()
    page.wait_for_function("() => window.stairpathWalker?.()")
