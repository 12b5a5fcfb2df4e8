"""A finding from the model to the minutes and back: found, cut, measured, marked, given, settled, sent out and taken in."""

from __future__ import annotations

import numpy as np
import pytest
from playwright.sync_api import Page, expect

from tests.e2e.conftest import another, arrive, ask, made
from tests.e2e.going import find
from tests.e2e.stage import on_screen, pixels, wait_drawn, wait_posed, wait_resting, where
from tests.e2e.test_cutting import origin_of
from tests.e2e.test_findings import done, look_for
from tests.e2e.test_following import same_eye
from tests.e2e.test_markups import drag, wait_counts
from tests.e2e.test_measuring import click, inside
from tests.samples import Sample


def beam_model() -> Sample:
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    sample.box(storey, (0, 0, -0.3), (12, 8, 0.3), "IfcSlab", Name="Slab", Tag="S-1")
    for x in (0.0, 11.7):
        sample.box(storey, (x, 3.8, 0), (0.3, 0.3, 3.0), "IfcColumn", Name="Column")
    sample.box(storey, (0, 3.8, 3.0), (12, 0.3, 0.5), "IfcBeam", Name="Beam", Tag="B-1")
    return sample


def duct_model() -> Sample:
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    sample.box(storey, (5, 1, 2.8), (0.6, 6, 0.4), "IfcDuctSegment", Name="Duct", Tag="AD-1")
    return sample


@pytest.fixture
def bay(site):
    """A beam on two columns, and a duct that runs through it 200 mm deep; their project."""
    files = {"Bay-STR.ifc": beam_model().content(), "Bay-AIR.ifc": duct_model().content()}
    return made(site, "Bay", files, 60)


def still(page: Page) -> np.ndarray:
    """What the stage shows once nothing is under the cursor and the eye rests."""
    page.mouse.move(2, 350)
    wait_resting(page)
    page.wait_for_function("() => document.querySelector('canvas').dataset.smooth === 'yes'")
    return pixels(page).astype(int)


def test_a_duct_in_a_beam_is_settled_at_a_meeting_and_comes_back_from_a_file(page: Page, site, bay, browser, tmp_path):
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(f"{site}/p/{bay}")
    wait_drawn(page)
    # Found by a check, and looked at.
    page.get_by_role("tab", name="Findings").click()
    look_for(page, "Air", "Structure", "50 mm")
    done(page)
    finding = page.get_by_test_id("finding").first
    expect(finding).to_contain_text("0.200 m deep")
    before = where(page)
    finding.get_by_role("button", name="Look at it", exact=True).click()
    wait_posed(page, before)
    # Cut open square to the view, before the duct.
    page.get_by_role("tab", name="Cuts").click()
    page.get_by_label("Storey to cut").select_option(label="Level 00")
    page.get_by_label("m above the storey").fill("3.3")
    page.get_by_role("button", name="Cut", exact=True).click()
    expect(page.get_by_test_id("cut")).to_have_count(1)
    # Measured from corner to corner of the duct.
    before = where(page)
    find(page, "AD-1")
    # The server finds it, and then it is fitted.
    wait_posed(page, before)
    before = where(page)
    page.evaluate("() => window.stairpath.stage.turnTo(35, 24)")
    wait_posed(page, before)
    page.keyboard.press("g")
    page.get_by_test_id("measure-ways").get_by_role("button", name="Distance", exact=True).click()
    origin = origin_of(site, bay)
    for corner in ((5.0, 1.0, 3.2), (5.6, 1.0, 3.2)):
        click(page, origin, inside(corner, (5.3, 1.0, 3.0), 0.03), "corner")
    expect(page.get_by_test_id("measure")).to_contain_text("0.600 m")
    page.keyboard.press("Escape")
    # Marked with a cloud and words.
    page.get_by_role("tab", name="Markups").click()
    page.get_by_role("button", name="Cloud", exact=True).click()
    drag(page, (0.35, 0.35), (0.6, 0.6))
    expect(page.get_by_test_id("markup")).to_have_count(1)
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Text", exact=True).click()
    page.mouse.click(*on_screen(page, np.subtract((5.3, 2.0, 3.2), origin)))
    page.get_by_label("Text of the markup").fill("Under the beam, please")
    page.keyboard.press("Enter")
    expect(page.get_by_test_id("markup")).to_have_count(2)
    page.keyboard.press("Escape")
    wait_counts(page, "2 0")
    # A topic of it, given to somebody.
    page.get_by_role("tab", name="Topics").click()
    page.get_by_label("Title of the topic").fill("Duct in the beam")
    page.keyboard.press("Enter")
    reference = page.get_by_test_id("reference")
    expect(reference).to_have_text("AIR 001")
    page.get_by_label("Assigned to of AIR 001").fill("Tam Kerr")
    page.keyboard.press("Enter")
    seen = still(page)
    # Taken to a meeting, decided, and the minutes.
    page.get_by_role("button", name="Meetings").click()
    page.get_by_label("Title of the meeting").fill("Meeting 1")
    page.keyboard.press("Enter")
    page.get_by_test_id("agenda-topic").get_by_role("button").first.click()
    page.get_by_label("A note of the meeting").fill("The duct goes under the beam.")
    page.get_by_label("decided").check()
    page.get_by_role("button", name="Note", exact=True).click()
    expect(page.get_by_test_id("point")).to_contain_text("Decided: The duct goes under the beam.")
    with page.expect_popup() as opening:
        page.get_by_role("link", name="page").click()
    minutes = opening.value
    expect(minutes.get_by_role("img", name="Duct in the beam")).to_be_visible()
    link = minutes.get_by_role("link", name="Duct in the beam").get_attribute("href")
    minutes.close()
    assert link
    # Its link in a second browser, that follows and sees the same.
    with another(browser, viewport={"width": 1280, "height": 800}) as context:
        other = context.new_page()
        arrive(other, site, "Tam Kerr")
        other.goto(link)
        wait_drawn(other)
        expect(other.get_by_test_id("reference")).to_have_text("AIR 001")
        wait_counts(other, "2 0")
        page.get_by_role("button", name="2 here").click()
        page.get_by_role("button", name="Present to the others").click()
        expect(other.get_by_test_id("together")).to_contain_text("Ida Fenn presents.")
        other.keyboard.press("Shift+F")
        same_eye(page, other)
        assert np.abs(still(page) - still(other)).mean() < 1.0
    # Out, deleted, and in again: the same topic, the same view.
    topic = ask(f"{site}/api/projects/{bay}/topics")[0]
    page.get_by_role("button", name="Problems").click()
    page.get_by_role("button", name="all topics").click()
    with page.expect_download() as saving:
        page.get_by_role("link", name="Export all as BCF 3.0").click()
    saving.value.save_as(tmp_path / "out.bcf")
    page.get_by_test_id("topic").click()
    page.get_by_role("button", name="Delete", exact=True).click()
    expect(page.get_by_test_id("topic")).to_have_count(0)
    before = where(page)
    page.evaluate("() => window.stairpath.stage.turnTo(200, 40)")
    wait_posed(page, before)
    page.get_by_label("Topic files to import").set_input_files(tmp_path / "out.bcf")
    page.get_by_role("button", name="Import 1 topic").click(timeout=60_000)
    expect(page.get_by_test_id("import-preview")).to_have_count(0)
    expect(page.get_by_test_id("coming-in")).to_have_attribute("data-status", "done", timeout=60_000)
    page.get_by_test_id("topic").click()
    expect(reference).to_have_text("AIR 001")
    expect(page.get_by_test_id("topic-note").first).to_be_visible()
    before = where(page)
    page.get_by_test_id("topic-view").click()
    wait_posed(page, before)
    wait_counts(page, "2 0")
    again = ask(f"{site}/api/projects/{bay}/topics")[0]
    assert [again[key] for key in ("guid", "said", "at_m")] == [topic[key] for key in ("guid", "said", "at_m")]
    page.get_by_role("tab", name="Component").click()
    page.get_by_role("tab", name="Topics").click()
    assert np.abs(still(page) - seen).mean() < 1.0
