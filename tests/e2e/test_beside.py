"""Show a plan or elevation beside the stage (B): one building, two views, each found and moved in the other."""

from __future__ import annotations

import numpy as np
import pytest
from playwright.sync_api import Page, expect

from tests.e2e.stage import DRAWING, numbers, on_screen, pose_of, size_of, wait_drawn, wait_resting

GROUND_M, UPPER_M = 0.0, 4.0
CUT_M = 1.2
# About the project's origin, which is in the middle of the house.
IN_THE_MIDDLE_WALL = (-0.02, 0.0, GROUND_M)
IN_THE_FRONT_WALL = (2.0, -5.85, GROUND_M)


def rest(page: Page) -> None:
    page.wait_for_function(
        "() => document.querySelector('[data-testid=drawing]').dataset.rest === 'yes'", timeout=30_000
    )


def choose(page: Page, name: str) -> None:
    places = page.get_by_test_id("drawing-place").count()
    page.get_by_label("Drawing beside the stage").select_option(label=name)
    expect(page.get_by_test_id("drawing-place")).to_have_count(places + 1, timeout=20_000)
    rest(page)


def middle(page: Page, test_id: str) -> tuple[float, float]:
    box = page.get_by_test_id(test_id).locator("circle").first.bounding_box()
    assert box
    return box["x"] + box["width"] / 2, box["y"] + box["height"] / 2


def metres_a_pixel(page: Page) -> float:
    return float(pose_of(page, DRAWING)["height_m"] / size_of(page, DRAWING)[3])


@pytest.fixture
def beside(page: Page, site, house):
    page.goto(f"{site}/p/{house}")
    wait_drawn(page)
    expect(page.get_by_test_id("place")).to_have_count(1, timeout=15_000)
    page.keyboard.press("b")
    expect(page.get_by_test_id("drawing-place")).to_have_count(1, timeout=20_000)
    # From outside the same storey is meant as on the key plan.
    chosen = page.get_by_label("Drawing beside the stage").locator("option:checked")
    expect(chosen).to_have_text("Plan Level 00")
    rest(page)
    return page


def test_a_plan_is_cut_above_its_storey_and_an_elevation_stands_before_the_building(beside: Page):
    plan = pose_of(beside, DRAWING)
    assert plan["projection"] == "parallel"
    assert plan["eye_m"][2] == pytest.approx(GROUND_M + CUT_M)
    assert plan["eye_m"][:2] == pytest.approx(plan["target_m"][:2])
    choose(beside, "Front elevation")
    elevation = pose_of(beside, DRAWING)
    assert elevation["eye_m"][1] < -7
    assert elevation["eye_m"][2] == pytest.approx(elevation["target_m"][2])


def test_what_is_picked_in_one_is_picked_in_the_other(beside: Page):
    beside.mouse.click(*on_screen(beside, IN_THE_MIDDLE_WALL, DRAWING))
    expect(beside.get_by_role("heading", name="Wall")).to_be_visible(timeout=10_000)
    expect(beside.get_by_test_id("picked-outline")).to_have_count(1)
    beside.mouse.move(*on_screen(beside, IN_THE_FRONT_WALL, DRAWING))
    expect(beside.get_by_test_id("drawing").get_by_text("Wall")).to_be_visible(timeout=10_000)


def test_a_pick_out_of_sight_is_brought_into_the_other_view(beside: Page):
    # Look away from the house, then pick its wall on the drawing.
    beside.evaluate("() => { const s = window.stairpath.stage; s.turnTo(180, -20, s.pose.eye); }")
    wait_resting(beside)
    away = numbers(beside)
    beside.mouse.click(*on_screen(beside, IN_THE_MIDDLE_WALL, DRAWING))
    beside.wait_for_function(
        "x => Math.abs(JSON.parse(document.querySelector('canvas').dataset.pose).eye_m[0] - x) > 0.01 ||"
        " window.stairpath.stage.main.shows(window.stairpath.stage.pivotPoint)",
        arg=away[0],
        timeout=20_000,
    )
    wait_resting(beside)
    assert beside.evaluate("() => window.stairpath.stage.main.shows(window.stairpath.stage.pivotPoint)")
    # And the other way round: a room upstairs is stood in, a wall there picked on the stage.
    upstairs = beside.evaluate(
        """() => { const s = window.stairpath.stage;
          s.turnTo(0, 0, s.pose.eye);
          s.go({ ...s.pose, eye: s.pose.eye.clone().set(5, 3, 5.6), target: s.pose.eye.clone().set(5, 8, 5.6) }, true);
          const hit = s.componentAt(60, 60); return hit && hit.point.z; }"""
    )
    assert upstairs > UPPER_M
    wait_resting(beside)
    x, y, _, _ = size_of(beside)
    beside.mouse.click(x + 60, y + 60)
    expect(beside.get_by_label("Drawing beside the stage")).to_have_value("0", timeout=15_000)
    rest(beside)
    assert pose_of(beside, DRAWING)["eye_m"][2] == pytest.approx(UPPER_M + CUT_M)


@pytest.mark.parametrize(
    ("part", "kept", "carried"),
    [("eye", "target_m", "eye_m"), pytest.param("target", "eye_m", "target_m", marks=pytest.mark.trial)],
)
def test_the_stage_follows_its_eye_and_target_while_they_are_dragged_on_the_plan(beside: Page, part, kept, carried):
    # Both stand on the plan, apart from each other.
    beside.evaluate(
        """() => { const s = window.stairpath.stage;
          s.go({ ...s.pose, eye: s.pose.eye.clone().set(3, 3, 1.6), target: s.pose.eye.clone().set(7, 9, 1.2) }, true); }"""
    )
    wait_resting(beside)
    before = pose_of(beside)
    x, y = middle(beside, f"drawing-{part}")
    beside.mouse.move(x, y)
    beside.mouse.down()
    beside.mouse.move(x + 30, y - 12, steps=4)
    expected = np.add(before[carried], np.array([30, 12, 0]) * metres_a_pixel(beside))
    beside.wait_for_function(
        "([name, x]) => Math.abs(JSON.parse(document.querySelector('canvas').dataset.pose)[name][0] - x) < 0.01",
        arg=[carried, expected[0]],
        timeout=20_000,
    )
    during = pose_of(beside)
    beside.mouse.up()
    assert during[carried] == pytest.approx(expected.tolist(), abs=0.01)
    assert during[kept] == pytest.approx(before[kept], abs=1e-9)


def test_the_drawing_follows_its_own_marks_while_they_are_dragged_on_the_stage(beside: Page):
    before = pose_of(beside, DRAWING)
    x, y = middle(beside, "sheet-target")
    beside.mouse.move(x, y)
    beside.mouse.down()
    beside.mouse.move(x + 25, y + 10, steps=4)
    beside.wait_for_function(
        "x => Math.abs(JSON.parse(document.querySelector('[data-testid=drawing]').dataset.pose).target_m[0] - x) > 0.2",
        arg=before["target_m"][0],
        timeout=20_000,
    )
    during = pose_of(beside, DRAWING)
    beside.mouse.up()
    # A plan moves in its own plane.
    assert during["target_m"][2] == pytest.approx(before["target_m"][2], abs=1e-9)
    assert np.subtract(during["eye_m"], during["target_m"]) == pytest.approx(
        np.subtract(before["eye_m"], before["target_m"])
    )
    rest(beside)
    x, y = middle(beside, "sheet-eye")
    beside.mouse.move(x, y)
    beside.mouse.down()
    beside.mouse.move(x, y - 20, steps=4)
    beside.wait_for_function(
        "z => JSON.parse(document.querySelector('[data-testid=drawing]').dataset.pose).eye_m[2] > z + 0.1",
        arg=during["eye_m"][2],
        timeout=20_000,
    )
    beside.mouse.up()
    lifted = pose_of(beside, DRAWING)
    assert lifted["eye_m"][:2] == pytest.approx(during["eye_m"][:2], abs=1e-6)


def test_the_drawing_pans_and_zooms_under_the_cursor_and_has_its_own_trail(beside: Page):
    stage_before, places = numbers(beside), beside.get_by_test_id("place").count()
    first = numbers(beside, DRAWING)
    corner = IN_THE_FRONT_WALL
    x, y = on_screen(beside, corner, DRAWING)
    beside.mouse.move(x, y)
    beside.mouse.down()
    beside.mouse.move(x + 40, y - 30, steps=4)
    beside.mouse.up()
    rest(beside)
    assert on_screen(beside, corner, DRAWING) == pytest.approx((x + 40, y - 30), abs=2)
    height = pose_of(beside, DRAWING)["height_m"]
    beside.mouse.move(x + 40, y - 30)
    beside.mouse.wheel(0, -300)
    beside.wait_for_function(
        "h => JSON.parse(document.querySelector('[data-testid=drawing]').dataset.pose).height_m < h * 0.7",
        arg=height,
        timeout=20_000,
    )
    rest(beside)
    assert on_screen(beside, corner, DRAWING) == pytest.approx((x + 40, y - 30), abs=2)
    moved = numbers(beside, DRAWING)
    beside.wait_for_function(
        """() => { const kept = window.stairpath.open.trail('drawing').places.at(-1);
        const now = JSON.parse(document.querySelector('[data-testid=drawing]').dataset.pose);
        return Math.abs(kept.view.eye.height_m - now.height_m) < 1e-9; }""",
        timeout=15_000,
    )
    kept = beside.get_by_test_id("drawing-place").count()
    beside.get_by_test_id("drawing-place").first.click()
    beside.wait_for_function(
        "x => Math.abs(JSON.parse(document.querySelector('[data-testid=drawing]').dataset.pose).eye_m[0] - x) < 1e-9",
        arg=first[0],
        timeout=20_000,
    )
    assert numbers(beside, DRAWING) == pytest.approx(first, abs=1e-9)
    while beside.get_by_test_id("drawing-place").nth(kept - 1).get_attribute("aria-current") != "location":
        beside.keyboard.press("}")
    rest(beside)
    assert numbers(beside, DRAWING) == pytest.approx(moved, abs=1e-6)
    assert numbers(beside) == pytest.approx(stage_before)
    assert beside.get_by_test_id("place").count() == places


def test_the_room_for_the_drawing_is_dragged_and_the_stage_has_it_all_again_when_it_is_put_away(beside: Page):
    width = size_of(beside, DRAWING)[2]
    box = beside.get_by_role("slider", name="Width of the drawing").bounding_box()
    assert box
    beside.mouse.move(box["x"] + box["width"] / 2, box["y"] + 200)
    beside.mouse.down()
    beside.mouse.move(box["x"] - 80, box["y"] + 200, steps=4)
    beside.mouse.up()
    assert size_of(beside, DRAWING)[2] == pytest.approx(width + 80, abs=8)
    whole = size_of(beside)[2]
    assert beside.evaluate("() => window.stairpath.stage.main.aspect * window.stairpath.stage.canvas.clientHeight") == pytest.approx(
        whole - size_of(beside, DRAWING)[2], abs=2
    )  # fmt: skip
    beside.get_by_role("button", name="Close", exact=True).click()
    expect(beside.get_by_test_id("drawing")).to_have_count(0)
    beside.wait_for_function("() => Math.abs(window.stairpath.stage.main.aspect * window.stairpath.stage.canvas.clientHeight"
                             " - window.stairpath.stage.canvas.clientWidth) < 1")  # fmt: skip


SECOND = "[data-testid=second-drawing]"


def test_a_plan_and_a_section_stand_beside_at_once_and_the_cut_is_dragged_from_one_to_the_other(beside: Page):
    beside.set_viewport_size({"width": 1280, "height": 900})
    rest(beside)
    beside.get_by_role("button", name="Second drawing").click()
    expect(beside.get_by_test_id("second-drawing")).to_be_visible()
    expect(beside.get_by_role("button", name="Second drawing")).to_have_count(0)
    chosen = beside.get_by_label("Second drawing beside the stage").locator("option:checked")
    expect(chosen).to_have_text("Front elevation")
    expect(beside.get_by_test_id("second-place")).to_have_count(1, timeout=20_000)
    before = pose_of(beside, SECOND)
    plan = pose_of(beside, DRAWING)
    # The elevation is cut before the building: its line waits at the plan's edge, and is carried in. There it is a section.
    line = beside.get_by_test_id("drawing").get_by_test_id("other-cut")
    expect(line).to_have_attribute("opacity", "0.55")
    box, drawn = line.bounding_box(), beside.get_by_test_id("drawing").bounding_box()
    assert box
    assert drawn
    x, middle_y = box["x"] + 0.15 * box["width"], drawn["y"] + drawn["height"] / 2
    beside.mouse.move(x, drawn["y"] + drawn["height"] - 16)
    beside.mouse.down()
    beside.mouse.move(x, middle_y, steps=4)
    beside.mouse.up()
    expect(line).to_have_attribute("opacity", "1")
    beside.wait_for_function(
        "y => Math.abs(JSON.parse(document.querySelector('[data-testid=second-drawing]').dataset.pose).eye_m[1] - y) < 0.5",
        arg=plan["eye_m"][1],
    )
    assert pose_of(beside, SECOND)["eye_m"][1] > before["eye_m"][1] + 1
    assert pose_of(beside, DRAWING) == plan
    # Each is closed for itself, and the key puts both away.
    beside.get_by_test_id("beside").get_by_role("button", name="Close").first.click()
    expect(beside.get_by_test_id("drawing")).to_have_count(0)
    expect(beside.get_by_test_id("second-drawing")).to_be_visible()
    beside.get_by_role("button", name="Second drawing").click()
    expect(beside.get_by_test_id("drawing")).to_be_visible()
    beside.keyboard.press("Escape")
    beside.locator("canvas").first.focus()
    beside.keyboard.press("b")
    expect(beside.get_by_test_id("beside")).to_have_count(0)
