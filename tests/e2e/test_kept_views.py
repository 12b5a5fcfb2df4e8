"""Viewpoints that are framed, kept over, played as a tour, made for the building, and new to others."""

from __future__ import annotations

import base64
import io
import urllib.request

import numpy as np
from PIL import Image
from playwright.sync_api import Page, expect

from tests.e2e.conftest import another, arrive, ask
from tests.e2e.stage import numbers, on_screen, pixels, wait_drawn, wait_posed, where
from tests.e2e.stage import size_of as stage_size
from tests.e2e.test_seeing import click_on
from tests.exchanged import png


def kept(page: Page, *names: str) -> None:
    """Views from all around, kept under names."""
    page.get_by_role("tab", name="Viewpoints").click()
    for k, name in enumerate(names):
        before = where(page)
        page.evaluate(f"() => window.stairpath.stage.turnTo({40 + 70 * k}, 20)")
        wait_posed(page, before)
        page.get_by_label("Name of the viewpoint").fill(name)
        page.keyboard.press("Enter")
        expect(page.get_by_role("button", name=f"Go to {name}")).to_be_visible()


def opened(page: Page, site, pair) -> None:
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(f"{site}/p/{pair}")
    wait_drawn(page)


def size_of(site: str, project: str, sha: str) -> tuple[int, int]:
    with urllib.request.urlopen(f"{site}/api/projects/{project}/blobs/{sha}", timeout=30) as answer:
        return Image.open(io.BytesIO(answer.read())).size


def test_a_picture_is_trimmed_and_widened_for_print_and_the_stage_stays_as_it_was(page: Page, site, pair):
    opened(page, site, pair)
    kept(page, "North")
    before = numbers(page)
    page.get_by_role("button", name="More commands for North").click()
    page.get_by_role("button", name="Frame", exact=True).click()
    frame = page.get_by_test_id("picture-frame")
    expect(frame).to_be_visible()
    expect(page.get_by_role("dialog").locator("img")).to_be_visible()
    page.get_by_label("The picture's left side").focus()
    for _ in range(10):
        page.keyboard.press("ArrowLeft")
    page.get_by_label("The picture's top side").focus()
    for _ in range(20):
        page.keyboard.press("ArrowDown")
    page.get_by_label("Size of the picture").select_option("2400")
    page.get_by_role("button", name="Save picture").click()
    expect(page.get_by_role("dialog")).to_have_count(0, timeout=90_000)
    (view,) = ask(f"{site}/api/projects/{pair}/viewpoints")
    found = view["view"]["frame"]
    assert (round(found["left"], 2), round(found["top"], 2), found["right"]) == (-1.2, 0.6, 1)
    wide, high = size_of(site, pair, view["large"])
    assert wide == 2400
    assert abs(wide / high - found["aspect"] * 2.2 / 1.6) < 0.01
    assert size_of(site, pair, view["picture"])[0] == 720
    # The stage is drawn as before, at its own size.
    assert abs(numbers(page) - before).max() < 1e-9
    canvas = page.evaluate(
        "() => { const c = document.querySelector('canvas'); return [c.width, Math.floor(c.clientWidth * devicePixelRatio)]; }"
    )
    assert canvas[0] == canvas[1]
    expect(page.get_by_role("link", name="save the picture")).to_be_visible()


def test_keeping_over_a_view_says_what_changes_and_is_undone(page: Page, site, pair):
    opened(page, site, pair)
    kept(page, "North")
    before = where(page)
    page.evaluate("() => window.stairpath.stage.turnTo(200, 20)")
    wait_posed(page, before)
    click_on(page, site, pair, (2, 12, 6))
    page.get_by_role("tab", name="Viewpoints").click()
    page.get_by_role("button", name="More commands for North").click()
    page.get_by_role("button", name="Replace with this view").click()
    said = page.get_by_test_id("keep-over")
    expect(said).to_contain_text("The eye moves by")
    page.get_by_role("button", name="Cancel").click()
    expect(said).to_have_count(0)
    page.get_by_role("button", name="Replace with this view").click()
    expect(said).to_contain_text("The eye moves by")
    # Whoever looks elsewhere before they keep it is asked about that.
    before = where(page)
    page.mouse.move(500, 400)
    page.mouse.wheel(0, -300)
    wait_posed(page, before)
    page.get_by_role("button", name="Replace North").click()
    expect(page.get_by_role("status")).to_contain_text("The view has changed")
    expect(said).to_contain_text("The eye moves by")
    page.get_by_role("button", name="Replace North").click()
    expect(page.get_by_role("status")).to_contain_text("North is what you see now.")
    (after,) = ask(f"{site}/api/projects/{pair}/viewpoints")
    page.get_by_role("button", name="Replace with this view").click()
    expect(said).to_contain_text("Only the picture would change.")
    page.get_by_role("status").get_by_role("button", name="Undo").click()
    # What was asked of the view as it was is not said of the one that came back.
    expect(said).to_have_count(0)
    (back,) = ask(f"{site}/api/projects/{pair}/viewpoints")
    assert back["view"]["eye"] != after["view"]["eye"]


def test_a_tour_plays_views_is_paused_scrubbed_and_ended(page: Page, site, pair):
    opened(page, site, pair)
    kept(page, "One", "Two", "Three")
    for name in ("One", "Three"):
        page.get_by_label(f"Tick {name}").check()
    page.get_by_test_id("ticked").get_by_role("button", name="play").click()
    tour = page.get_by_test_id("tour")
    expect(tour).to_contain_text("1 of 2")
    expect(tour).to_contain_text("2 of 2", timeout=30_000)
    page.get_by_role("button", name="Pause").click()
    before = where(page)
    page.get_by_role("button", name="Before", exact=True).click()
    wait_posed(page, before)
    expect(tour.locator("b")).to_have_text("One")
    views = {each["name"]: each["view"]["eye"] for each in ask(f"{site}/api/projects/{pair}/viewpoints")}
    origin = ask(f"{site}/api/projects/{pair}/federation")["origin_m"]
    here = numbers(page)[:3] + origin
    assert abs(here - views["One"]["eye_m"]).max() < 1e-6
    slider = page.get_by_label("Where in the tour")
    slider.focus()
    page.keyboard.press("End")
    expect(tour.locator("b")).to_have_text("Three")
    # Whoever turns the view pauses it.
    page.get_by_role("button", name="Before", exact=True).click()
    tour.get_by_role("button", name="Play", exact=True).click()
    expect(page.get_by_role("button", name="Pause")).to_be_visible()
    page.mouse.move(500, 400)
    page.mouse.wheel(0, -100)
    expect(tour.get_by_role("button", name="Play", exact=True)).to_be_visible()
    # And who goes somewhere else by a key; the tour does not pull them back. To leap in it is part of it.
    page.get_by_role("button", name="Before", exact=True).click()
    tour.get_by_role("button", name="Play", exact=True).click()
    page.get_by_role("button", name="Before", exact=True).click()
    expect(page.get_by_role("button", name="Pause")).to_be_visible()
    page.keyboard.press("e")
    expect(tour.get_by_role("button", name="Play", exact=True)).to_be_visible()
    expect(page.get_by_role("navigation", name="Trail")).to_contain_text("fit: all")
    page.get_by_role("button", name="Stage alone").click()
    expect(page.get_by_role("tab", name="Topics")).to_be_hidden()
    page.keyboard.press("Escape")
    expect(page.get_by_role("tab", name="Topics")).to_be_visible()
    page.get_by_role("button", name="End", exact=True).click()
    expect(tour).to_have_count(0)


def test_standing_views_appear_and_are_new_to_the_other(page: Page, site, pair, browser):
    opened(page, site, pair)
    with another(browser, viewport={"width": 1280, "height": 800}) as context:
        other = context.new_page()
        arrive(other, site, "Tam Kerr")
        other.goto(f"{site}/p/{pair}")
        wait_drawn(other)
        # Was there, and left.
        other.get_by_role("tab", name="Viewpoints").click()
        expect(other.get_by_text("No viewpoints yet.", exact=False).first).to_be_visible()
        other.get_by_role("tab", name="Component").click()
        page.get_by_role("tab", name="Viewpoints").click()
        page.get_by_role("button", name="Make the standing views").click()
        shelf = page.get_by_test_id("shelf").filter(has_text="Standing views")
        expect(shelf.get_by_test_id("viewpoint")).to_have_count(12, timeout=60_000)
        expect(page.get_by_role("button", name="Go to 1.02 East room 1")).to_be_visible()
        other.get_by_role("tab", name="Viewpoints").click()
        card = other.get_by_test_id("viewpoint").filter(has_text="0.01 West room 0")
        expect(card).to_contain_text("new")
        other.get_by_role("tab", name="Component").click()
        other.get_by_role("tab", name="Viewpoints").click()
        expect(card).not_to_contain_text("new")


def test_a_question_is_asked_and_answered_and_rules_are_set(page: Page, site, pair):
    opened(page, site, pair)
    click_on(page, site, pair, (6, -8, 1.3))
    page.get_by_role("tab", name="Topics").click()
    page.get_by_label("Title of the topic").fill("Duct before the house")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Ask a question").click()
    page.get_by_label("Addressee").fill("Tam Kerr")
    page.get_by_label("The question").fill("May it go 40 mm lower?")
    page.get_by_role("button", name="Ask", exact=True).click()
    question = page.get_by_test_id("question")
    expect(question).to_contain_text("Ida Fenn asked Tam Kerr")
    with page.expect_download() as saving:
        question.get_by_role("link", name="mail draft").click()
    assert saving.value.suggested_filename.endswith(".eml")
    page.get_by_label("The answer").fill("Yes.")
    page.get_by_role("button", name="Save answer").click()
    expect(question).to_contain_text("Yes.")
    expect(page.get_by_label("The answer")).to_have_count(0)
    # A comment with what is seen, and back to it.
    page.get_by_label("A comment").fill("Seen from here.")
    page.get_by_label("with the current view").check()
    page.get_by_role("button", name="Write").click()
    expect(page.get_by_test_id("note-view")).to_have_count(1)
    expect(page.get_by_label("with the current view")).not_to_be_checked()
    # Another way to call topics, and another name of a status.
    page.get_by_role("button", name="all topics").click()
    page.get_by_role("button", name="Rules of this project").click()
    page.get_by_label("Digits of a reference").select_option("2")
    page.get_by_label("Name of open").fill("found")
    page.get_by_role("button", name="Save rules").click()
    expect(page.get_by_test_id("topic-rules")).to_have_count(0)
    row = page.get_by_test_id("topic")
    expect(row).to_contain_text("AIR 01")
    expect(row).to_contain_text("found")
    # Marked on the board and on the plan; a click opens it.
    page.get_by_test_id("topic-on-board").click()
    expect(page.get_by_test_id("reference")).to_have_text("AIR 01")


def test_a_picture_that_another_program_hung_into_its_view_is_on_the_stage(page: Page, site, pair):
    topic = ask(f"{site}/bcf/3.0/projects/{pair}/topics", {"title": "Is this the duct?"})
    xyz = [dict(zip("xyz", at, strict=True)) for at in ((6, -20, 4), (0, 1, -0.1), (0, 0.1, 1), (6, -8, 3), (0, -1, 0))]
    eye, way, up, at, normal = xyz
    camera = {"camera_view_point": eye, "camera_direction": way, "camera_up_vector": up, "field_of_view": 50}
    hung = {"bitmap_type": "png", "bitmap_data": base64.b64encode(png(64, 32, "#c00000")).decode(), "location": at}
    body = {
        "perspective_camera": {**camera, "aspect_ratio": 1.3},
        "bitmaps": [{**hung, "normal": normal, "up": {"x": 0, "y": 0, "z": 1}, "height": 2.0}],
    }
    ask(f"{site}/bcf/3.0/projects/{pair}/topics/{topic['guid']}/viewpoints", body)
    opened(page, site, pair)
    page.get_by_role("tab", name="Topics").click()
    page.get_by_test_id("topic").click()
    before = where(page)
    page.get_by_test_id("topic-view").click()
    wait_posed(page, before)
    page.wait_for_function("() => window.stairpath.layers.hung.count === 1", timeout=60_000)
    x, y = on_screen(page, np.subtract((6, -8, 3), ask(f"{site}/api/projects/{pair}/federation")["origin_m"]))
    left, top, width, height = stage_size(page)
    image = pixels(page)
    red = image[int((y - top) / height * image.shape[0]), int((x - left) / width * image.shape[1])]
    assert red[0] > 150
    assert red[1] < 60
    # It belongs to what is seen: undone with it.
    page.keyboard.press("Escape")
    page.locator("canvas").first.focus()
    page.keyboard.press("Control+z")
    page.wait_for_function("() => window.stairpath.layers.hung.count === 0", timeout=60_000)


def test_a_viewpoint_is_renamed_and_deleted_with_undo(page: Page, site, pair):
    opened(page, site, pair)
    page.get_by_role("button", name="Keep this view").click()
    page.get_by_label("Name of the viewpoint").fill("Kept first")
    page.get_by_role("button", name="Keep", exact=True).click()
    cards = page.get_by_test_id("viewpoint")
    card = cards.filter(has_text="Kept first")
    card.get_by_role("button", name="More commands").click()
    card.get_by_role("button", name="rename").click()
    page.get_by_label("New name").fill("Entrance")
    page.get_by_label("New name").press("Enter")
    renamed = cards.filter(has_text="Entrance")
    expect(renamed).to_have_count(1)
    renamed.get_by_role("button", name="delete").click()
    expect(renamed).to_have_count(0)
    page.get_by_role("status").get_by_role("button", name="Undo").click()
    expect(renamed).to_have_count(1)
