"""Viewpoints in folders: kept, ticked, dragged into an order, found, and deleted together with undo."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from tests.e2e.conftest import ask
from tests.e2e.stage import wait_drawn


def names(page: Page, shelf: int) -> list[str]:
    cards = page.get_by_test_id("shelf").nth(shelf).get_by_test_id("viewpoint")
    return [card.get_by_role("button").first.get_attribute("aria-label") or "" for card in cards.all()]


def test_viewpoints_are_put_into_folders_ordered_by_hand_and_deleted_together(page: Page, site, pair):
    page.set_viewport_size({"width": 1280, "height": 1400})
    page.goto(f"{site}/p/{pair}")
    wait_drawn(page)
    page.get_by_role("tab", name="Viewpoints").click()
    for k, name in enumerate(("Hall", "Stair", "Duct")):
        page.get_by_label("Name of the viewpoint").fill(name)
        page.get_by_role("button", name="Keep", exact=True).click()
        expect(page.get_by_test_id("viewpoint")).to_have_count(k + 1)
    page.get_by_label("Name of a new folder").fill("Meeting of 27 November")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("shelf")).to_have_count(2)
    page.get_by_label("Tick Hall").check()
    page.get_by_label("Tick Stair").check()
    page.get_by_label("Move the ticked viewpoints to").select_option(label="Meeting of 27 November")
    expect(page.get_by_test_id("ticked")).to_have_count(0)
    folder = page.get_by_test_id("shelf").first
    expect(folder.get_by_test_id("viewpoint")).to_have_count(2)
    assert names(page, 1) == ["Go to Duct"]
    # Dragged before the first of them.
    first = folder.get_by_test_id("viewpoint").first
    page.get_by_label("Go to Duct").drag_to(first)
    expect(folder.get_by_test_id("viewpoint")).to_have_count(3)
    expect(folder.get_by_test_id("viewpoint").first).to_contain_text("Duct")
    page.get_by_label("Find a viewpoint").fill("meeting stair")
    expect(page.get_by_test_id("viewpoint")).to_have_count(1)
    page.get_by_label("Find a viewpoint").fill("")
    page.get_by_label("Tick Duct").check()
    page.get_by_label("Tick Hall").check()
    page.get_by_test_id("ticked").get_by_role("button", name="delete").click()
    expect(page.get_by_test_id("viewpoint")).to_have_count(1)
    page.get_by_role("button", name="Undo").last.click()
    expect(page.get_by_test_id("viewpoint")).to_have_count(3)
    page.get_by_label("delete Meeting of 27 November").click()
    expect(page.get_by_test_id("shelf")).to_have_count(1)
    expect(page.get_by_test_id("viewpoint")).to_have_count(3)
    page.get_by_role("button", name="Undo").last.click()
    expect(page.get_by_test_id("shelf").first).to_contain_text("Meeting of 27 November")
    assert len(ask(f"{site}/api/projects/{pair}/viewpoints")) == 3
