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
    page.get_by_role("button", name="More commands for the folder Meeting of 27 November").click()
    page.get_by_label("delete Meeting of 27 November").click()
    expect(page.get_by_test_id("shelf")).to_have_count(1)
    expect(page.get_by_test_id("viewpoint")).to_have_count(3)
    page.get_by_role("button", name="Undo").last.click()
    expect(page.get_by_test_id("shelf").first).to_contain_text("Meeting of 27 November")
    assert len(ask(f"{site}/api/projects/{pair}/viewpoints")) == 3


def test_folders_stand_in_folders_and_views_of_topics_below_them(page: Page, site, pair):
    page.set_viewport_size({"width": 1280, "height": 900})
    page.goto(f"{site}/p/{pair}")
    wait_drawn(page)
    page.get_by_role("tab", name="Topics").click()
    page.get_by_label("Title of the topic").fill("Duct before the house")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("topic-open")).to_be_visible()
    page.get_by_role("tab", name="Viewpoints").click()
    page.get_by_label("Name of the viewpoint").fill("Hall")
    page.get_by_role("button", name="Keep", exact=True).click()
    # What a topic keeps is not among what people keep: it stands below, closed, and is found.
    rows, shelves = page.get_by_test_id("viewpoint"), page.get_by_test_id("shelf")
    expect(rows).to_have_count(1)
    expect(rows).to_contain_text("Hall")
    expect(shelves.last).to_contain_text("Of topics")
    page.get_by_label("Find a viewpoint").fill("before the house")
    expect(rows).to_have_count(1)
    rows.get_by_role("button", name="More commands").click()
    rows.get_by_role("button", name="Open ").click()
    expect(page.get_by_test_id("reference")).to_contain_text("001")
    page.get_by_role("tab", name="Viewpoints").click()
    page.get_by_label("Find a viewpoint").fill("")
    page.get_by_label("Name of a new folder").fill("Meetings")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="More commands for the folder Meetings").click()
    page.get_by_role("button", name="a folder in Meetings").click()
    page.get_by_role("button", name="More commands for the folder New folder").click()
    page.get_by_role("button", name="rename New folder").click()
    page.get_by_label("Name of the folder New folder").fill("November")
    page.keyboard.press("Enter")
    page.get_by_label("Tick Hall").check()
    page.get_by_label("Move the ticked viewpoints to").select_option(label="November")
    expect(shelves.nth(1)).to_contain_text("November")
    expect(shelves.nth(1)).to_contain_text("Hall")
    # The folder around it counts what is inside, and takes it along when it closes.
    outer = page.get_by_role("button", name="▾ Meetings")
    outer.click()
    expect(rows).to_have_count(0)
    page.get_by_role("button", name="▸ Meetings").click()
    expect(rows).to_have_count(1)
    # It is put beside the other one again, and never into what stands in it.
    page.get_by_role("button", name="More commands for the folder Meetings").click()
    expect(page.get_by_label("Put Meetings into")).to_have_count(0)
    page.get_by_role("button", name="More commands for the folder November").click()
    page.get_by_label("Put November into").select_option(label="no folder")
    expect(page.get_by_label("Put Meetings into")).to_have_count(0)
    expect(page.get_by_label("Put November into").locator("option")).to_have_text(["Put into…", "Meetings"])
    within = {each["name"]: each["within"] for each in ask(f"{site}/api/projects/{pair}/folders")}
    assert within == {"Meetings": None, "November": None}
