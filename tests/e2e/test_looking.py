"""The key plan and its ring, the Trail, lenses, finding, and coming back to where one was."""

from __future__ import annotations

import numpy as np
import pytest
from playwright.sync_api import Page, expect

from tests.e2e.conftest import SIZE, another, arrive, ask
from tests.e2e.going import find
from tests.e2e.keyplan import until
from tests.e2e.stage import numbers, on_screen, pose_of, size_of, wait_drawn, wait_posed, wait_resting, where


@pytest.fixture
def opened(page: Page, site, house):
    arrive(page, site, "Ida Fenn", "medium")
    page.goto(f"{site}/p/{house}")
    wait_drawn(page)
    page.get_by_test_id("key-plan").wait_for()
    expect(page.get_by_test_id("place")).to_have_count(1, timeout=15_000)
    return page


def plan_middle(page: Page) -> tuple[float, float, float]:
    box = page.get_by_test_id("key-plan").bounding_box()
    assert box
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2, box["width"] / 2


@pytest.mark.parametrize(
    ("side", "mark", "wanted"),
    [("front", "Look level", (0, 0)), ("back left", "Look from above", (135, 35.264)),
     pytest.param("right", "Look from above", (270, 45), marks=pytest.mark.trial),
     pytest.param("left", "Look from below", (90, -45), marks=pytest.mark.trial)],
)  # fmt: skip
def test_ring_and_scale_reach_sides_edges_and_corners(opened: Page, side, mark, wanted):
    opened.get_by_role("button", name=mark).click()
    expect(opened.get_by_test_id("place")).to_have_count(2, timeout=15_000)
    opened.get_by_role("button", name=f"Look at the building from its {side}", exact=True).click()
    until(opened, "bearing", wanted[0])
    until(opened, "tilt", wanted[1])


def test_dragging_the_ring_turns_the_stage_while_it_is_dragged(opened: Page):
    x, y, radius = plan_middle(opened)
    before = numbers(opened)
    edge = radius - 10
    opened.mouse.move(x + edge * np.sin(np.radians(32)), y - edge * np.cos(np.radians(32)))
    opened.mouse.down()
    for degrees in (60, 90):
        opened.mouse.move(x + edge * np.sin(np.radians(degrees)), y - edge * np.cos(np.radians(degrees)))
        until(opened, "bearing", degrees)
    assert np.linalg.norm(numbers(opened)[:3] - before[:3]) > 5
    opened.mouse.up()


def test_standing_on_the_plan_and_carrying_the_eye_moves_the_stage_during_the_drag(opened: Page):
    opened.get_by_label("Storey of the key plan").select_option(label="Level 01")
    x, y, _ = plan_middle(opened)
    opened.mouse.move(x - 20, y)
    expect(opened.get_by_test_id("present-room")).to_have_text("1.01 West room 1")  # the one pointed at
    opened.mouse.click(x + 20, y)  # the wall between the rooms is in the middle
    expect(opened.get_by_test_id("place")).to_have_count(2, timeout=15_000)
    expect(opened.get_by_test_id("present-room")).to_have_text("1.02 East room 1")
    stood = pose_of(opened)
    assert stood["eye_m"][2] == pytest.approx(4 + 1.6)
    assert stood["angle_deg"] == 60
    mark = opened.get_by_test_id("eye-on-plan").locator("circle").bounding_box()
    assert mark
    at = (mark["x"] + mark["width"] / 2, mark["y"] + mark["height"] / 2)
    opened.mouse.move(*at)
    opened.mouse.down()
    opened.mouse.move(at[0] + 12, at[1] + 3, steps=3)
    opened.wait_for_function(
        "x => Math.abs(JSON.parse(document.querySelector('canvas').dataset.pose).eye_m[0] - x) > 0.5",
        arg=stood["eye_m"][0],
    )
    during = pose_of(opened)
    opened.mouse.up()
    assert during["eye_m"][2] == stood["eye_m"][2]
    look = np.subtract(during["target_m"], during["eye_m"])
    assert look == pytest.approx(np.subtract(stood["target_m"], stood["eye_m"]), abs=1e-6)


def test_the_trail_goes_back_exactly_and_keeps_what_was_ahead(opened: Page):
    first = pose_of(opened)
    find(opened, "Parallel")
    opened.wait_for_function(
        "() => JSON.parse(document.querySelector('canvas').dataset.pose).projection === 'parallel'"
    )
    places = opened.get_by_test_id("place")
    expect(places).to_have_count(2, timeout=15_000)
    second = pose_of(opened)
    find(opened, "Fit the storey")
    expect(places).to_have_count(3, timeout=15_000)
    opened.keyboard.press("[")
    opened.keyboard.press("[")
    wait_resting(opened)
    assert pose_of(opened) == first
    opened.keyboard.press("]")
    wait_resting(opened)
    assert pose_of(opened) == second
    expect(places.nth(1)).to_have_attribute("aria-current", "location")
    opened.keyboard.press("ArrowLeft")
    expect(places).to_have_count(4, timeout=15_000)
    expect(places.nth(2)).to_contain_text("fit: Level 00")
    expect(places.nth(3)).to_have_attribute("aria-current", "location")
    opened.reload()
    wait_drawn(opened)
    expect(opened.get_by_test_id("place")).to_have_count(4, timeout=15_000)


def test_a_lens_is_typed_and_a_wrong_one_is_told(opened: Page):
    opened.get_by_role("button", name="Lens: change").click()
    box = opened.get_by_label("Angle of view or focal length")
    box.fill("18 mm")
    box.press("Enter")
    expect(opened.get_by_test_id("lens-figures")).to_have_text("18.0 mm · 90.0°", timeout=15_000)
    box.fill("wide")
    box.press("Enter")
    expect(opened.locator("[role=status]")).to_contain_text("wide is not a lens; type an angle such as 60")


def test_switching_the_projection_keeps_the_pivot_in_its_place_and_size(opened: Page):
    pivot = np.array(opened.evaluate("() => window.stairpath.stage.pivotPoint.toArray()"))
    beside = pivot + np.array([0.2, 0, 0])
    before = [np.array(on_screen(opened, p)) for p in (pivot, beside)]
    find(opened, "Parallel")
    opened.wait_for_function(
        "() => JSON.parse(document.querySelector('canvas').dataset.pose).projection === 'parallel'"
    )
    after = [np.array(on_screen(opened, p)) for p in (pivot, beside)]
    assert after[0] == pytest.approx(before[0], abs=1.0)
    assert np.linalg.norm(after[1] - after[0]) == pytest.approx(np.linalg.norm(before[1] - before[0]), rel=0.02)


def test_over_empty_space_one_turns_about_what_is_picked(opened: Page):
    x, y, width, height = size_of(opened)
    opened.mouse.click(x + width * 0.55, y + height * 0.42)
    expect(opened.get_by_test_id("component-tag")).to_be_visible()
    centre = np.array(opened.evaluate("() => window.stairpath.stage.pivotPoint.toArray()"))
    before = on_screen(opened, centre)
    opened.mouse.move(x + width - 20, y + 20)
    opened.mouse.down()
    opened.mouse.move(x + width - 120, y + 40, steps=5)
    assert on_screen(opened, centre) == pytest.approx(before, abs=2.0)
    opened.mouse.up()


def test_a_region_is_zoomed_to_until_the_tool_is_put_away(opened: Page):
    x, y, width, height = size_of(opened)
    before = numbers(opened)
    opened.keyboard.press("z")
    expect(opened.get_by_test_id("stage-mark")).to_contain_text("Draw a box")
    opened.mouse.move(x + width * 0.5, y + height * 0.3)
    opened.mouse.down()
    opened.mouse.move(x + width * 0.7, y + height * 0.5, steps=4)
    expect(opened.get_by_test_id("region")).to_be_visible()
    here = where(opened)
    opened.mouse.up()
    wait_posed(opened, here)
    after = numbers(opened)
    look, was = after[3:6] - after[:3], before[3:6] - before[:3]
    assert look / np.linalg.norm(look) == pytest.approx(was / np.linalg.norm(was), abs=1e-6)
    assert np.linalg.norm(look) < 0.5 * np.linalg.norm(was)
    expect(opened.get_by_test_id("stage-mark")).to_be_visible()
    opened.keyboard.press("Escape")
    expect(opened.get_by_test_id("stage-mark")).to_have_count(0)


def test_a_locked_view_stays_until_the_lock_is_opened(opened: Page):
    x, y, width, height = size_of(opened)
    opened.keyboard.press("q")
    expect(opened.get_by_test_id("stage-mark")).to_contain_text("locked")
    before = pose_of(opened)
    opened.mouse.move(x + width * 0.5, y + height * 0.4)
    opened.mouse.wheel(0, -300)
    opened.mouse.down()
    opened.mouse.move(x + width * 0.6, y + height * 0.5, steps=3)
    opened.mouse.up()
    opened.keyboard.press("e")
    expect(opened.locator("[role=status]")).to_contain_text("The view is locked")
    assert pose_of(opened) == before
    opened.get_by_role("button", name="Unlock").click()
    opened.mouse.move(x + width * 0.5, y + height * 0.4)
    here = where(opened)
    opened.mouse.wheel(0, -300)
    wait_posed(opened, here)


def test_a_pinned_pivot_stays_in_its_place(opened: Page):
    x, y, width, height = size_of(opened)
    opened.keyboard.press("i")
    opened.mouse.click(x + width * 0.55, y + height * 0.42)
    expect(opened.locator("[role=status]")).to_contain_text("The pivot is pinned to")
    pivot = np.array(opened.evaluate("() => window.stairpath.stage.navigation.pinnedAt.toArray()"))
    before = on_screen(opened, pivot)
    opened.mouse.move(x + width * 0.4, y + height * 0.3)
    opened.mouse.down()
    opened.mouse.move(x + width * 0.6, y + height * 0.35, steps=4)
    opened.mouse.up()
    assert on_screen(opened, pivot) == pytest.approx(before, abs=2.0)


def test_the_address_opens_the_same_view_elsewhere_and_the_project_opens_where_it_was_left(opened: Page, browser, site):
    opened.keyboard.press("ArrowRight")
    opened.wait_for_function("() => location.hash.startsWith('#view=')")
    wait_resting(opened)
    expect(opened.get_by_test_id("place")).to_have_count(2, timeout=15_000)
    opened.get_by_role("button", name="ARC 01", exact=True).click()
    opened.wait_for_function("() => location.hash.includes('&seen=')")
    here, address = numbers(opened), opened.url
    with another(browser, viewport=SIZE) as context:
        other = context.new_page()
        arrive(other, site, "Tam Kerr", "medium")
        other.goto(address)
        wait_drawn(other)
        assert numbers(other) == pytest.approx(here, abs=2e-3)
        expect(other.get_by_test_id("place")).to_have_count(1, timeout=15_000)
        cell = other.get_by_role("button", name="ARC 01", exact=True)
        expect(cell).to_have_attribute("data-state", "faded")
        # Pasted once more over what was looked at since, which loads nothing anew.
        cell.click()
        expect(cell).to_have_attribute("data-state", "hidden")
        other.locator("canvas").first.focus()
        other.keyboard.press("ArrowRight")
        expect(other.get_by_test_id("place")).to_have_count(2, timeout=15_000)
        # The page writes what was seen last over it before it is told of the link.
        other.evaluate(
            "hash => { location.hash = hash; history.replaceState(null, '', '#view=e0,0,0'); }", address.split("#")[1]
        )
        expect(cell).to_have_attribute("data-state", "faded")
        wait_resting(other)
        assert numbers(other) == pytest.approx(here, abs=2e-3)
    opened.goto(address.split("#")[0].rsplit("/p/", 1)[0])
    opened.goto(address.split("#")[0])
    wait_drawn(opened)
    assert numbers(opened) == pytest.approx(here, abs=1e-6)
    expect(opened.get_by_role("button", name="ARC 01", exact=True)).to_have_attribute("data-state", "faded")


def test_home_is_ones_own_else_everybodys(opened: Page, site, house):
    opened.keyboard.press("ArrowRight")
    expect(opened.get_by_test_id("place")).to_have_count(2, timeout=15_000)
    home = pose_of(opened)
    find(opened, "Save as the project's home view")
    expect(opened.locator("[role=status]")).to_contain_text("project's home view")
    assert ask(f"{site}/api/projects/{house}/federation")["home"]["author"] == "Ida Fenn"
    opened.keyboard.press("ArrowLeft")
    expect(opened.get_by_test_id("place")).to_have_count(3, timeout=15_000)
    opened.keyboard.press("Home")
    opened.wait_for_function(
        "x => Math.abs(JSON.parse(document.querySelector('canvas').dataset.pose).eye_m[0] - x) < 1e-9",
        arg=home["eye_m"][0],
    )
    there = pose_of(opened)
    for key in ("eye_m", "target_m", "up"):
        assert there[key] == pytest.approx(home[key], abs=1e-9)
    assert (there["projection"], there["angle_deg"]) == (home["projection"], home["angle_deg"])
    opened.locator("[role=status]").get_by_role("button", name="Undo").click()
    opened.wait_for_function(
        "a => fetch(a).then((r) => r.json()).then((f) => f.home === null)",
        arg=f"/api/projects/{house}/federation",
    )


def test_actions_are_found_with_their_keys_and_the_sheet_is_searched(opened: Page):
    opened.keyboard.press("/")
    opened.keyboard.type("fit vis")
    expect(opened.locator("[role=listbox] [role=option]").first).to_contain_text("X")
    opened.keyboard.press("Escape")
    opened.keyboard.press("?")
    sheet = opened.get_by_role("dialog")
    sheet.get_by_label("Search keys").fill("trail")
    expect(sheet.get_by_text("Back to the last place")).to_have_count(0)
    sheet.get_by_label("Search keys").fill("back to")
    expect(sheet.get_by_text("Back to the last place")).to_be_visible()


def test_the_eyes_height_is_typed_and_a_wrong_one_is_told(opened: Page):
    opened.get_by_role("button", name="Eye: change").click()
    box = opened.get_by_label("Eye height above the storey, m")
    box.fill("50")
    box.press("Enter")
    opened.wait_for_function(
        "() => Math.abs(JSON.parse(document.querySelector('canvas').dataset.pose).eye_m[2] - 54) < 1e-6"
    )
    box.fill("high")
    box.press("Enter")
    expect(opened.locator("[role=status]")).to_contain_text("high is not a length. Type one such as 2.5 m")


def test_the_zoom_handle_follows_every_pixel(opened: Page):
    handle = opened.get_by_test_id("zoom-handle").bounding_box()
    assert handle
    x, y = handle["x"] + 12, handle["y"] + 30
    opened.mouse.move(x, y)
    opened.mouse.down()
    reach = []
    for up in (1, 2, 3, 40):
        opened.mouse.move(x, y - up)
        wait_resting(opened)
        shape = pose_of(opened)
        reach.append(float(np.linalg.norm(np.subtract(shape["target_m"], shape["eye_m"]))))
    opened.mouse.up()
    assert reach == sorted(reach, reverse=True)
    assert len(set(reach)) == 4
    assert reach[0] - reach[1] < 0.02 * reach[0]


def test_a_grid_line_is_picked_on_the_plan_and_looked_at_squarely(opened: Page):
    opened.get_by_role("button", name="larger").click()
    opened.get_by_role("button", name="Look square onto axis A", exact=True).click()
    until(opened, "tilt", 0)
    until(opened, "bearing", 0)
    opened.get_by_role("button", name="Look square onto axis 2", exact=True).click()
    until(opened, "bearing", 90)


def test_the_key_plan_is_made_larger_by_dragging_its_handle(opened: Page):
    before = plan_middle(opened)[2]
    handle = opened.get_by_test_id("size-handle").bounding_box()
    assert handle
    x, y = handle["x"] + 8, handle["y"] + 8
    opened.mouse.move(x, y)
    opened.mouse.down()
    opened.mouse.move(x + 30, y - 44, steps=3)
    opened.mouse.up()
    assert plan_middle(opened)[2] * 2 == pytest.approx(before * 2 + 44, abs=1)
    opened.get_by_role("button", name="smaller").click()
    # It is no larger than about a tenth of the stage is then.
    _, _, width, height = size_of(opened)
    assert plan_middle(opened)[2] * 2 == pytest.approx(min(176, (0.06 * width * height) ** 0.5), abs=1)


def opened_mark(page: Page):
    return page.get_by_test_id("stage-mark").filter(has_text="Opened")


def test_a_plan_is_opened_over_its_storey_until_it_is_closed(opened: Page):
    before = opened.locator("canvas").first.get_attribute("data-pose")
    find(opened, "Look at plan")
    wait_posed(opened, before)
    pose = pose_of(opened)
    assert pose["projection"] == "parallel"
    assert pose["eye_m"][2] - pose["through_m"] == pytest.approx(1.2, abs=1e-3)
    expect(opened_mark(opened)).to_contain_text("Opened 1.20 m above Level 00.")
    # What is seen in the middle of a room is its floor, not the roof.
    _, _, width, height = size_of(opened)
    seen = opened.evaluate("([x, y]) => window.stairpath.stage.componentAt(x, y)?.point.z", [width * 0.4, height * 0.3])
    assert seen < 1.2
    opened_mark(opened).get_by_role("button", name="Close", exact=True).click()
    expect(opened_mark(opened)).to_have_count(0)
    assert pose_of(opened)["through_m"] == 0


def test_square_onto_a_grid_line_it_is_opened_there_and_the_line_is_marked_until_one_turns(opened: Page):
    before = opened.locator("canvas").first.get_attribute("data-pose")
    find(opened, "Square onto grid line 2")
    wait_posed(opened, before)
    expect(opened_mark(opened)).to_contain_text("Opened along grid line 2.")
    assert opened.evaluate("() => window.stairpath.layers.gridLine.tag") == "2"
    x, y, width, height = size_of(opened)
    opened.mouse.move(x + width * 0.6, y + height * 0.3)
    opened.mouse.down()
    opened.mouse.move(x + width * 0.7, y + height * 0.35, steps=4)
    opened.mouse.up()
    expect(opened_mark(opened)).to_have_count(0)
    assert opened.evaluate("() => window.stairpath.layers.gridLine.tag") is None


def test_a_fit_keeps_clear_of_the_key_plan(opened: Page):
    before = opened.locator("canvas").first.get_attribute("data-pose")
    find(opened, "Look from the front")
    wait_posed(opened, before)
    plan = opened.get_by_test_id("instrument").bounding_box()
    assert plan
    corners = np.array([on_screen(opened, (x, y, z)) for x in (-10, 10) for y in (-6, 6) for z in (0, 7.4)])
    left, top = corners.min(axis=0)
    _, bottom = corners.max(axis=0)
    assert left > plan["x"] + plan["width"] or bottom < plan["y"] or top > plan["y"] + plan["height"]


def test_what_a_click_will_catch_is_marked_before_it(opened: Page):
    find(opened, "Pin the pivot to a point")
    x, y, width, height = size_of(opened)
    opened.mouse.move(x + width * 0.55, y + height * 0.42)
    opened.wait_for_function("() => window.stairpath.stage.marks.caught !== null")
    caught = opened.evaluate("() => window.stairpath.stage.marks.caught")
    opened.mouse.click(x + width * 0.55, y + height * 0.42)
    words = {"corner": "a corner", "middle": "the middle of an edge", "crossing": "a grid crossing", "edge": "an edge"}
    words |= {"centre": "a centre", "axis": "a centre line", "gridline": "a grid line", "face": "a point of the face"}
    expect(opened.locator("[role=status]").last).to_contain_text(words[caught])
    opened.wait_for_function("() => window.stairpath.stage.marks.caught === null")


def test_leaving_before_the_eye_has_rested_keeps_where_one_was(opened: Page):
    before = pose_of(opened)["eye_m"]
    there = opened.evaluate(
        """() => { const s = window.stairpath.stage; s.turnTo(200, 10);
          const at = s.seen.eye.toArray(); location.reload(); return at; }"""
    )
    assert np.linalg.norm(np.subtract(there, before)) > 1
    wait_drawn(opened)
    expect(opened.get_by_test_id("place").first).to_be_visible()
    assert pose_of(opened)["eye_m"] == pytest.approx(there, abs=1e-6)


SHARES = """() => {
  const area = (e) => { const b = e.getBoundingClientRect(); return b.width * b.height; };
  const stage = area(document.querySelector('canvas.stage'));
  const plan = document.querySelector('[data-testid=instrument]');
  return [stage / (innerWidth * innerHeight), plan ? area(plan) / stage : 0];
}"""


def test_the_stage_is_the_largest_thing_and_alone_by_one_key(page: Page, site, house):
    arrive(page, site, "Ida Fenn", instrument="medium", counts=False)
    page.set_viewport_size({"width": 1280, "height": 800})
    page.goto(f"{site}/p/{house}")
    wait_drawn(page)
    expect(page.get_by_test_id("place")).to_have_count(1, timeout=15_000)
    stage, plan = page.evaluate(SHARES)
    assert stage >= 0.58
    assert plan <= 0.1
    # Under the cursor, or by key, the pictures of the Trail stand up over the stage, and nothing moves.
    strip = page.get_by_test_id("trail-pictures")
    closed = strip.evaluate("e => e.clientHeight")
    assert closed <= 44
    page.keyboard.press("v")
    page.wait_for_function(
        "h => document.querySelector('[data-testid=trail-pictures]').clientHeight > h + 30", arg=closed
    )
    assert page.evaluate(SHARES)[0] == stage
    page.keyboard.press("Escape")
    page.wait_for_function("h => document.querySelector('[data-testid=trail-pictures]').clientHeight <= h", arg=closed)
    page.keyboard.press("u")
    page.wait_for_function(f"() => ({SHARES})()[0] >= 0.9")
    # A click picks and leaves it alone; what is asked for by name comes back with all around it.
    x, y, width, height = size_of(page)
    page.mouse.click(x + 0.55 * width, y + 0.5 * height)
    page.wait_for_function("() => window.stairpath.open.picked().length === 1")
    assert page.evaluate(SHARES)[0] >= 0.9
    page.keyboard.press("t")
    expect(page.get_by_test_id("cut-ways")).to_be_visible()
    page.keyboard.press("u")
    page.get_by_role("button", name="Show all").click()
    page.wait_for_function(f"() => Math.abs(({SHARES})()[0] - {stage}) < 0.001")
