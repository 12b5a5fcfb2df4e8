"""A meeting: begun with its agenda, notes against topics, the minutes, and its link opened by another."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from tests.e2e.conftest import ask
from tests.e2e.stage import wait_drawn
from tests.e2e.test_topics import two_topics


def test_a_topic_is_taken_to_a_meeting_and_the_minutes_are_made(page: Page, site, pair):
    two_topics(page, site, pair)
    page.get_by_role("button", name="Meetings").click()
    page.get_by_label("Title of the meeting").fill("Meeting 14")
    page.keyboard.press("Enter")
    agenda = page.get_by_test_id("agenda-topic")
    expect(agenda).to_have_count(2)
    expect(agenda.first).to_contain_text("new")
    page.get_by_label("Present of the meeting").fill("Ida Fenn, Tam Kerr")
    page.get_by_label("AIR 001 later").click()
    expect(agenda.first).to_contain_text("AIR 002")
    agenda.nth(1).get_by_role("button").first.click()
    at = page.get_by_test_id("at-topic")
    expect(at).to_contain_text("Duct before the house")
    page.get_by_label("A note of the meeting").fill("Lower it by 40 mm.")
    page.get_by_label("Assigned to").fill("Tam Kerr")
    page.get_by_label("Due date").fill("2026-12-04")
    page.get_by_label("decided").check()
    page.get_by_label("with this view").check()
    page.get_by_role("button", name="Note", exact=True).click()
    expect(page.get_by_test_id("point")).to_contain_text("Decided: Lower it by 40 mm.")
    expect(page.get_by_label("A note of the meeting")).to_have_value("")
    expect(agenda.filter(has_text="AIR 001")).to_contain_text("1 noted")
    # A note is corrected, and an ended meeting takes no more.
    page.get_by_test_id("point").get_by_role("button", name="Correct").click()
    page.get_by_label("Note of the meeting", exact=True).fill("Lower it by 60 mm.")
    page.get_by_role("button", name="Done").click()
    expect(page.get_by_test_id("point")).to_contain_text("Decided: Lower it by 60 mm.")
    page.get_by_role("button", name="End meeting").click()
    expect(at).to_contain_text("Reopen it to note more")
    expect(page.get_by_label("A note of the meeting")).to_have_count(0)
    page.get_by_role("button", name="Reopen").click()
    # What is not on the agenda is counted, and added by one click.
    page.get_by_label("Take AIR 002 off the agenda").click()
    expect(page.get_by_test_id("left-out")).to_contain_text("1 other open topic is not on the agenda")
    page.get_by_role("button", name="Add it").click()
    expect(page.get_by_test_id("left-out")).to_have_count(0)
    expect(agenda).to_have_count(2)
    page.get_by_role("button", name="open the topic").click()
    expect(page.get_by_label("Assigned to of AIR 001")).to_have_value("Tam Kerr")
    expect(page.get_by_test_id("topic-note").filter(has_text="nothing → 04/12/2026")).to_have_count(1)
    (meeting,) = ask(f"{site}/api/projects/{pair}/meetings")
    assert meeting["present"] == ["Ida Fenn", "Tam Kerr"]
    views = ask(f"{site}/api/projects/{pair}/viewpoints")
    assert [view["name"] for view in views if view["folder"] == meeting["folder"]] == ["AIR 001 Duct before the house"]
    page.get_by_role("button", name="Meetings").click()
    with page.expect_popup() as opening:
        page.get_by_role("link", name="page").click()
    minutes = opening.value
    expect(minutes.get_by_role("heading", name="Meeting 14")).to_be_visible()
    expect(minutes.get_by_role("img", name="Duct before the house")).to_be_visible()
    minutes.get_by_role("link", name="Duct before the house").click()
    # Back in the project, at the topic and its place.
    wait_drawn(minutes)
    expect(minutes.get_by_test_id("reference")).to_have_text("AIR 001")
