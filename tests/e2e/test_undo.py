"""One line of undo for what is kept, each step by its name, and the bin, where what was deleted is found for longer."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from tests.e2e.conftest import ask
from tests.e2e.stage import numbers, wait_drawn
from tests.e2e.test_kept_views import kept, opened
from tests.e2e.test_topics import two_topics


def undone(page: Page, what: str, key: str = "Control+z") -> None:
    page.keyboard.press(key)
    expect(page.get_by_role("status")).to_contain_text(what)


def test_views_and_folders_are_undone_by_name_and_the_eye_stays(page: Page, site, pair):
    opened(page, site, pair)
    kept(page, "North")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="More commands for North").click()
    page.get_by_role("button", name="Rename", exact=True).click()
    page.get_by_label("New name").fill("South")
    page.keyboard.press("Enter")
    shown = page.get_by_test_id("viewpoint")
    expect(shown).to_contain_text("South")
    page.get_by_label("Name of a new folder").fill("Monday")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("shelf")).to_have_count(2)
    page.get_by_label("Tick South").check()
    page.get_by_label("Move the ticked viewpoints to").select_option(label="Monday")
    expect(page.get_by_test_id("shelf").first.get_by_test_id("viewpoint")).to_have_count(1)
    page.get_by_role("button", name="Delete", exact=True).click()
    expect(shown).to_have_count(0)
    eye = numbers(page)
    page.keyboard.press("Escape")
    for what, there in (
        ('deleted "South"', 1),
        ("moved a viewpoint", 1),
        ("made the folder Monday", 1),
        ("renamed the viewpoint North", 1),
        ("kept the viewpoint North", 0),
    ):
        undone(page, f"Undone: {what}")
        expect(shown).to_have_count(there)
    assert (numbers(page) == eye).all()
    assert ask(f"{site}/api/projects/{pair}/folders") == []
    for what in (
        "kept the viewpoint North",
        "renamed the viewpoint North",
        "made the folder Monday",
        "moved a viewpoint",
    ):
        undone(page, f"Redone: {what}", "Control+y")
    (view,) = ask(f"{site}/api/projects/{pair}/viewpoints")
    (folder,) = ask(f"{site}/api/projects/{pair}/folders")
    assert (view["name"], view["folder"], folder["name"]) == ("South", folder["id"], "Monday")


def test_a_meeting_is_undone_step_by_step(page: Page, site, pair):
    two_topics(page, site, pair)
    page.get_by_role("button", name="Meetings").click()
    page.get_by_label("Title of the meeting").fill("Monday")
    page.keyboard.press("Enter")
    agenda = page.get_by_test_id("agenda-topic")
    expect(agenda).to_have_count(2)
    page.get_by_label("Take AIR 001 off the agenda").click()
    expect(agenda).to_have_count(1)
    agenda.get_by_role("button").first.click()
    page.get_by_label("A note of the meeting").fill("Lower it.")
    page.get_by_role("button", name="Note", exact=True).click()
    expect(page.get_by_test_id("point")).to_have_count(1)
    page.get_by_role("button", name="End meeting").click()
    expect(page.get_by_role("button", name="Reopen")).to_be_visible()
    page.keyboard.press("Escape")
    undone(page, "Undone: ended Monday")
    expect(page.get_by_role("button", name="End meeting")).to_be_visible()
    undone(page, "Undone: noted something")
    expect(page.get_by_test_id("point")).to_have_count(0)
    # A click on a topic of the agenda went there.
    undone(page, "Undone: went to viewpoint Another one")
    undone(page, "Undone: changed the agenda of Monday")
    expect(agenda).to_have_count(2)
    expect(agenda.first).to_contain_text("AIR 001")
    # So did the beginning of the meeting.
    undone(page, "Undone: went to viewpoint Duct before the house")
    undone(page, "Undone: began Monday")
    assert ask(f"{site}/api/projects/{pair}/meetings") == []


def test_what_was_deleted_is_found_in_the_bin_by_anybody_and_restored(page: Page, site, pair):
    two_topics(page, site, pair)
    page.get_by_test_id("topic").filter(has_text="AIR 001").click()
    page.get_by_role("button", name="Delete", exact=True).click()
    expect(page.get_by_test_id("topic")).to_have_count(1)
    page.reload()
    wait_drawn(page)
    page.get_by_role("button", name="Bin", exact=True).click()
    deleted = page.get_by_test_id("deleted")
    expect(deleted).to_have_count(1)
    expect(deleted).to_contain_text("Duct before the house")
    expect(deleted).to_contain_text("Topic, deleted")
    page.get_by_role("button", name="Restore Duct before the house").click()
    expect(page.get_by_test_id("project-bin")).to_contain_text("Nothing was deleted within the last 30 days.")
    page.get_by_role("button", name="Close", exact=True).last.click()
    expect(page.get_by_test_id("topic")).to_have_count(2)
