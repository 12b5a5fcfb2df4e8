"""A coordinator's way through the demo: open, look, hide, ask, keep, come back. The demo takes a processor long."""

from __future__ import annotations

import numpy as np
import pytest
from playwright.sync_api import Page, expect

from tests.building import whole
from tests.e2e.conftest import another, arrive, ask, wait_mapped
from tests.e2e.going import find
from tests.e2e.keyplan import bearing, until
from tests.e2e.stage import (
    numbers,
    on_screen,
    pixels,
    pose_of,
    size_of,
    wait_drawn,
    wait_posed,
    wait_resting,
    where,
)

pytestmark = pytest.mark.trial


@pytest.fixture
def opened(page: Page, site, demo_project):
    page.goto(f"{site}/p/{demo_project}")
    wait_drawn(page)
    return page


def component(site, project, tag):
    """Model, GlobalId and bounds about the origin of the component of a tag."""
    federation = whole(site, project)
    for model in federation["models"]:
        if tag in model["labels"]:
            global_id = model["global_ids"][model["labels"].index(tag)]
            found = ask(f"{site}/api/models/{model['id']}/components/{global_id}")
            return found, np.array(found["bounds_m"]).reshape(2, 3) - federation["origin_m"]
    raise AssertionError(tag)


def test_the_start_page_shows_the_project_with_its_picture(page: Page, site, demo_project):
    page.goto(site)
    link = page.locator(f'a[href="/p/{demo_project}"]')
    card = page.get_by_test_id("project").filter(has=link)
    expect(card).to_contain_text("Quillhaven Tide Laboratory")
    expect(card).to_contain_text("5 models")
    picture = card.locator("img")
    expect(picture).to_be_visible()
    page.wait_for_function("() => [...document.images].every((i) => i.complete && i.naturalWidth === 480)")
    link.click()
    wait_drawn(page)


def test_everything_is_framed_at_first_and_said_how_high_the_eye_is(opened: Page, demo_project, site):
    pose = pose_of(opened)
    federation = whole(site, demo_project)
    assert pose["angle_deg"] == 30
    picture = pixels(opened)
    building = np.abs(picture - [243, 241, 236]).max(axis=2) > 4
    columns, rows = np.flatnonzero(building.any(axis=0)), np.flatnonzero(building.any(axis=1))
    width, height = picture.shape[1], picture.shape[0]
    margins = [columns[0] / width, 1 - columns[-1] / width, rows[0] / height, 1 - rows[-1] / height]
    assert min(margins) == pytest.approx(0.04, abs=0.006)
    assert federation["building_north_deg"] == pytest.approx(-17, abs=1e-6)
    height = pose_of(opened)["eye_m"][2]
    expect(opened.get_by_test_id("eye-mark")).to_have_text(f"eye +{height:.2f} ↑")
    expect(opened.locator("footer")).to_contain_text(f"+{height - 12:.2f} m over Roof")
    expect(opened.locator("footer")).to_contain_text("67.2 mm · 30.0°")
    expect(opened.locator("footer")).to_contain_text("032° · 24° down")


def test_hiding_a_discipline_changes_no_geometry_and_shows_in_the_next_frame(opened: Page):
    def geometries():
        return opened.evaluate("() => window.stairpath.stage.drawInfo.geometries")

    before_count, before = geometries(), pixels(opened)
    frames = opened.evaluate("() => window.stairpath.stage.frames")
    pieces = "() => performance.getEntriesByType('resource').filter((e) => e.name.includes('/blobs/')).length"
    fetched = opened.evaluate(pieces)
    opened.get_by_role("button", name="Architecture, every level").click()
    opened.get_by_role("button", name="Architecture, every level").click()
    expect(opened.get_by_test_id("hidden-count")).to_contain_text("571 hidden")
    opened.wait_for_function("(n) => window.stairpath.stage.frames > n", arg=frames)
    after = pixels(opened)
    assert geometries() == before_count
    assert opened.evaluate(pieces) == fetched
    assert (np.abs(after - before).max(axis=2) > 20).mean() > 0.1
    opened.get_by_role("button", name="Show everything").click()
    assert np.abs(pixels(opened) - before).max() == 0


def test_a_cell_goes_from_shown_to_faded_to_hidden_and_undo_steps_back(opened: Page):
    cell = opened.get_by_role("button", name="STR 01", exact=True)
    expect(cell).to_have_attribute("data-state", "shown")
    expect(cell.get_by_test_id("count")).to_have_text("153")
    cell.click()
    expect(cell).to_have_attribute("data-state", "faded")
    cell.click()
    expect(cell.get_by_test_id("count")).to_have_text("off")
    opened.keyboard.press("Control+z")
    expect(cell).to_have_attribute("data-state", "faded")
    row = opened.get_by_role("button", name="02, every discipline")
    row.click()
    expect(opened.get_by_role("button", name="AIR 02", exact=True)).to_have_attribute("data-state", "faded")


def test_a_known_component_is_picked_at_its_known_place(opened: Page, site, demo_project):
    known, bounds = component(site, demo_project, "AHU-3")
    x, y = on_screen(opened, bounds.mean(axis=0))
    opened.mouse.move(x, y)
    expect(opened.get_by_text("AHU-3")).to_be_visible()
    opened.mouse.click(x, y)
    expect(opened.get_by_test_id("component-tag")).to_have_text("AHU-3")
    desk = opened.get_by_test_id("desk")
    for text in (known["name"], known["description"], "Roof", "QH-AIR-ZZ-ZZ-M3.ifc", "Supply air 1", "3.333 m³/s"):
        expect(desk).to_contain_text(text)
    opened.get_by_label("Search properties").fill("flow")
    expect(desk).not_to_contain_text("AirHandlerConstruction")
    expect(desk).to_contain_text("AirFlowRate")
    opened.keyboard.press("Escape")
    picked = pixels(opened)
    orange = (np.abs(picture_tone(picked)) < 60).sum()
    assert orange > 200


def picture_tone(picture):
    """How far each pixel is from the tone of the selection."""
    return np.abs(picture - [224, 138, 30]).sum(axis=2)


def test_hide_only_this_and_fade_rest(opened: Page, site, demo_project):
    _, bounds = component(site, demo_project, "AHU-1")
    opened.mouse.click(*on_screen(opened, bounds.mean(axis=0)))
    opened.get_by_role("button", name="Isolate").click()
    expect(opened.get_by_test_id("hidden-count")).to_contain_text("1931 hidden")
    here = where(opened)
    opened.get_by_role("button", name="Fit", exact=True).click()
    wait_posed(opened, here)
    tone = picture_tone(pixels(opened))
    assert (tone < 90).mean() > 0.1
    opened.keyboard.press("Control+z")
    opened.get_by_role("button", name="Fade others").click()
    expect(opened.get_by_test_id("hidden-count")).to_contain_text("1931 faded")
    opened.get_by_role("button", name="Show everything").click()
    opened.get_by_role("button", name="Hide", exact=True).click()
    expect(opened.get_by_test_id("hidden-count")).to_contain_text("1 hidden")


def test_a_viewpoint_restores_camera_and_picture_in_this_and_another_browser(opened: Page, site, demo_project, browser):
    _, bounds = component(site, demo_project, "AHU-3")
    opened.mouse.click(*on_screen(opened, bounds.mean(axis=0)))
    opened.get_by_role("button", name="ARC Roof", exact=True).click()
    opened.get_by_role("button", name="STR 02", exact=True).click()
    opened.get_by_role("button", name="STR 02", exact=True).click()
    x, y, width, height = size_of(opened)
    opened.mouse.move(x + width / 2, y + height / 2)
    opened.mouse.down()
    opened.mouse.move(x + width / 2 + 90, y + height / 2 + 40, steps=4)
    opened.mouse.up()
    wait_resting(opened)
    opened.get_by_role("tab", name="Viewpoints").click()
    opened.get_by_label("Name of the viewpoint").fill("Roof plant")
    opened.get_by_role("button", name="Keep", exact=True).click()
    card = opened.get_by_test_id("viewpoint").filter(has_text="Roof plant")
    expect(card).to_contain_text("Ida Fenn")
    opened.mouse.move(2, 2)
    camera, picture = numbers(opened), pixels(opened)

    opened.reload()
    wait_drawn(opened)
    assert numbers(opened) == pytest.approx(camera, abs=1e-6)  # it opens where it was left
    opened.get_by_role("button", name="Show everything").click()
    before = opened.locator("canvas").get_attribute("data-pose")
    opened.get_by_role("button", name="Fit all").click()
    wait_posed(opened, before)
    assert np.abs(numbers(opened) - camera).max() > 1
    opened.get_by_role("tab", name="Viewpoints").click()
    before = opened.locator("canvas").get_attribute("data-pose")
    opened.get_by_role("button", name="Go to Roof plant").click()
    wait_posed(opened, before)
    opened.mouse.move(2, 2)
    assert numbers(opened) == pytest.approx(camera, abs=1e-6)
    assert (np.abs(pixels(opened) - picture).max(axis=2) > 8).mean() < 0.001

    viewpoint = ask(f"{site}/api/projects/{demo_project}/viewpoints")[0]
    with another(browser, viewport=opened.viewport_size) as context:
        other = context.new_page()
        arrive(other, site, "Tam Kerr")
        other.goto(f"{site}/p/{demo_project}/v/{viewpoint['id']}")
        wait_drawn(other)
        assert numbers(other) == pytest.approx(camera, abs=1e-6)
        expect(other.get_by_role("button", name="STR 02", exact=True).get_by_test_id("count")).to_have_text("off")
        expect(other.get_by_test_id("component-tag")).to_have_text("AHU-3")


def test_the_stairs_other_alternative_takes_the_place_of_the_first(opened: Page, site, demo_project):
    opened.get_by_role("tab", name="Models").click()
    expect(opened.get_by_text("Its Level 02 is 40 mm below the others'.")).to_be_visible()

    def firsts() -> dict[str, int]:
        """The number of the first component of each alternative."""
        federation = whole(site, demo_project)
        return {m["alternative_option"]: m["first"] for m in federation["models"] if m["alternative_what"]}

    def drawn() -> dict[str, bool]:
        return {o: opened.evaluate("(n) => window.stairpath.stage.building.isDrawn(n)", n) for o, n in firsts().items()}

    assert drawn() == {"A": True, "B": False}
    opened.get_by_role("button", name="Let alternative B stand").click()
    expect(opened.get_by_role("button", name="Let alternative A stand")).to_be_visible()
    opened.wait_for_function("(n) => window.stairpath.stage.building.isDrawn(n)", arg=firsts()["B"])
    assert drawn() == {"A": False, "B": True}
    expect(opened.get_by_role("button", name="ARC 01", exact=True).get_by_test_id("count")).to_have_text("184")
    opened.get_by_role("button", name="Let alternative A stand").click()
    expect(opened.get_by_role("button", name="Let alternative B stand")).to_be_visible()


@pytest.fixture
def front(page: Page, site, demo_project):
    """The demo as it opens, from the front; whoever was here before may have changed its stair."""
    wait_mapped(site, demo_project)
    arrive(page, site, "Ida Fenn", "medium")
    page.goto(f"{site}/p/{demo_project}")
    wait_drawn(page)
    expect(page.get_by_test_id("place")).to_have_count(1, timeout=20_000)
    return page


def in_the_middle(page: Page, federation) -> str:
    """What the middle of the stage shows."""
    number = page.evaluate(
        """() => { const s = window.stairpath.stage;
          return s.componentAt(s.canvas.clientWidth / 2, s.canvas.clientHeight / 2)?.component ?? -1; }"""
    )
    labels = [
        m["labels"][number - m["first"]] for m in federation["models"] if 0 <= number - m["first"] < len(m["labels"])
    ]
    return labels[0] if labels else ""


def store_and_its_door(site, federation) -> tuple[str, np.ndarray, np.ndarray]:
    """The specimen store's name on the plan, its middle, and the middle of its door."""
    room = next(r for r in federation["rooms"] if r["name"] == "Specimen store")
    plan = ask(f"{site}/api/projects/{federation['id']}/keyplans/{federation['levels'][room['level']]['plan']}")
    drawn = next(r for r in plan["rooms"] if r["name"] == "Specimen store")
    corners = np.array(drawn["outlines"][0])
    doors = np.array([[swing["leaf"][0], swing["arc"][-1]] for swing in plan["swings"]]).mean(axis=1)
    middle = np.array(drawn["label"])
    along = np.linalg.norm(doors[:, None] - corners[None], axis=2).min(axis=1)
    return f"{drawn['number']} {drawn['name']}", middle, doors[np.argmin(along)]


def test_by_keyboard_alone_into_the_specimen_store_facing_its_door(front: Page, site, demo_project):
    federation = whole(site, demo_project)
    find(front, "Specimen store")
    expect(front.get_by_test_id("present-room")).to_have_text("2.05 Specimen store", timeout=15_000)
    wait_resting(front)
    for _ in range(60):
        if in_the_middle(front, federation).startswith("D-"):
            break
        before = bearing(front)
        front.keyboard.press("ArrowLeft")
        until(front, "bearing", before - 6)
    assert in_the_middle(front, federation).startswith("D-")
    until(front, "tilt", 0)
    front.keyboard.press("r")
    expect(front.get_by_test_id("place").last).to_contain_text("fit: 2.05", timeout=15_000)


def test_with_the_mouse_alone_into_the_specimen_store_facing_its_door(front: Page, site, demo_project):
    federation = whole(site, demo_project)
    name, middle, door = store_and_its_door(site, federation)
    front.get_by_label("Storey of the key plan").select_option(label="Level 02")
    front.get_by_role("button", name="larger").click()

    def on_plan(point: np.ndarray) -> tuple[float, float]:
        turn = np.radians(federation["building_north_deg"])
        sheet = [np.cos(turn) * point[0] - np.sin(turn) * point[1], -np.sin(turn) * point[0] - np.cos(turn) * point[1]]
        x, y = front.evaluate(
            """([x, y]) => { const g = document.querySelector('[data-testid=key-plan] [data-sheet]');
              const p = new DOMPoint(x, y).matrixTransform(g.getScreenCTM()); return [p.x, p.y]; }""",
            sheet,
        )
        return x, y

    front.mouse.move(*on_plan(middle))
    expect(front.get_by_test_id("present-room")).to_have_text(name)
    front.mouse.down()
    front.mouse.move(*on_plan(door), steps=6)
    front.mouse.up()
    wait_resting(front)
    front.get_by_test_id("place").nth(1).wait_for()
    assert pose_of(front)["eye_m"][:2] == pytest.approx(middle.tolist(), abs=0.3)
    assert in_the_middle(front, federation).startswith("D-")
