"""Fingers on the stage: one turns, two pan, pinch and turn, a tap picks, one that rests opens the menu."""

from __future__ import annotations

import numpy as np
import pytest
from playwright.sync_api import Browser, Page, expect

from tests.e2e.conftest import SIZE, another, arrive
from tests.e2e.going import on_foot_in
from tests.e2e.stage import numbers, on_screen, pose_of, size_of, wait_drawn, wait_resting

Point = tuple[float, float]


class Fingers:
    """Fingers that go down, move and leave, as a touch screen tells of them."""

    def __init__(self, page: Page):
        self.session = page.context.new_cdp_session(page)

    def tell(self, kind: str, *points: Point) -> None:
        self.session.send(
            "Input.dispatchTouchEvent",
            {"type": kind, "touchPoints": [{"x": x, "y": y, "id": i} for i, (x, y) in enumerate(points)]},
        )

    def drag(self, *ways: tuple[Point, Point], steps: int = 8) -> None:
        self.tell("touchStart", *[start for start, _ in ways])
        for i in range(1, steps + 1):
            self.tell("touchMove", *[tuple(np.add(a, np.subtract(b, a) * i / steps).tolist()) for a, b in ways])
        self.tell("touchEnd")


@pytest.fixture
def touched(browser: Browser, site, house):
    context = another(browser, viewport=SIZE, has_touch=True)
    page = context.new_page()
    arrive(page, site, "Ida Fenn")
    page.goto(f"{site}/p/{house}")
    wait_drawn(page)
    expect(page.get_by_test_id("place")).to_have_count(1, timeout=15_000)
    yield page
    context.close()


def on_the_front_wall(page: Page) -> tuple[list[float], Point]:
    """A point of the house that is seen, and where it is on the page."""
    x, y, width, height = size_of(page)
    point = page.evaluate(
        "([x, y]) => window.stairpath.stage.componentAt(x, y).point.toArray()", [width * 0.55, height * 0.42]
    )
    return point, (x + width * 0.55, y + height * 0.42)


def test_one_finger_turns_about_the_point_under_it(touched: Page):
    point, (x, y) = on_the_front_wall(touched)
    before = numbers(touched)
    Fingers(touched).drag(((x, y), (x + 60, y + 10)))
    wait_resting(touched)
    assert np.linalg.norm(numbers(touched)[:3] - before[:3]) > 1
    assert on_screen(touched, point) == pytest.approx((x, y), abs=2)


def test_two_fingers_carry_the_point_between_them(touched: Page):
    point, (x, y) = on_the_front_wall(touched)
    before = pose_of(touched)
    Fingers(touched).drag(((x, y), (x + 50, y + 30)), ((x + 40, y), (x + 90, y + 30)))
    wait_resting(touched)
    assert on_screen(touched, point) == pytest.approx((x + 50, y + 30), abs=3)
    look = np.subtract(before["target_m"], before["eye_m"])
    now = pose_of(touched)
    assert np.cross(look, np.subtract(now["target_m"], now["eye_m"])) == pytest.approx(0, abs=1e-6)


def test_fingers_that_part_come_nearer_to_what_is_between_them(touched: Page):
    point, (x, y) = on_the_front_wall(touched)
    before = pose_of(touched)["eye_m"]
    Fingers(touched).drag(((x - 30, y), (x - 60, y)), ((x + 30, y), (x + 60, y)))
    wait_resting(touched)
    reach = np.linalg.norm(np.subtract(pose_of(touched)["eye_m"], point)) / np.linalg.norm(np.subtract(before, point))
    assert reach == pytest.approx(0.5, abs=0.06)
    assert on_screen(touched, point) == pytest.approx((x, y), abs=4)


def test_a_tap_picks(touched: Page):
    _, (x, y) = on_the_front_wall(touched)
    touched.touchscreen.tap(x, y)
    expect(touched.get_by_role("heading", level=2, name="Wall")).to_be_visible(timeout=10_000)


def test_two_thumbs_walk_and_look(touched: Page):
    """The left thumb pushes the body on, the right one looks around."""
    on_foot_in(touched, "West room 0")
    x, y, width, height = size_of(touched)
    left, right = (x + 0.3 * width, y + 0.3 * height), (x + 0.7 * width, y + 0.3 * height)
    before = numbers(touched)
    fingers = Fingers(touched)
    fingers.tell("touchStart", left)
    fingers.tell("touchMove", (left[0], left[1] - 60))
    touched.wait_for_function(
        "e => { const n = JSON.parse(document.querySelector('canvas').dataset.pose).eye_m;"
        " return Math.hypot(n[0] - e[0], n[1] - e[1]) > 0.4 }",
        arg=before[:2].tolist(),
    )
    fingers.tell("touchEnd")
    wait_resting(touched)
    walked = numbers(touched)
    fingers.drag((right, (right[0] + 80, right[1])))
    wait_resting(touched)
    looked = numbers(touched)
    assert looked[:2] == pytest.approx(walked[:2], abs=0.01)
    assert np.linalg.norm(looked[3:6] - walked[3:6]) > 0.1


def test_a_finger_that_rests_opens_the_menu_and_neither_turns_nor_picks_anew(touched: Page):
    _, (x, y) = on_the_front_wall(touched)
    before = numbers(touched)
    fingers = Fingers(touched)
    fingers.tell("touchStart", (x, y))
    menu = touched.get_by_role("menu", name="What can be done with it")
    expect(menu).to_be_visible()
    fingers.tell("touchEnd")
    expect(menu).to_be_visible()
    menu.get_by_role("menuitem", name="Hide").click()
    expect(touched.get_by_test_id("reasons")).to_have_text("1 hidden · 0 faded")
    assert np.allclose(numbers(touched), before)


def test_two_fingers_that_go_around_each_other_turn_about_what_is_between_them(touched: Page):
    point, (x, y) = on_the_front_wall(touched)
    before = bearing_of(touched)
    fingers = Fingers(touched)
    ends = [(x + 50 * np.cos(a), y + 50 * np.sin(a)) for a in np.radians(np.arange(0, 61, 5))]
    fingers.tell("touchStart", (2 * x - ends[0][0], 2 * y - ends[0][1]), ends[0])
    for end in ends[1:]:
        fingers.tell("touchMove", (2 * x - end[0], 2 * y - end[1]), end)
    fingers.tell("touchEnd")
    wait_resting(touched)
    # The first 15 degrees may be meant as a pinch; clockwise on the screen is clockwise of the building.
    turned = (bearing_of(touched) - before + 540) % 360 - 180
    assert turned == pytest.approx(-45, abs=8)
    # Fingers are told of one after the other, so it goes a little up and down between them.
    assert on_screen(touched, point) == pytest.approx((x, y), abs=25)


def bearing_of(page: Page) -> float:
    pose = pose_of(page)
    look = np.subtract(pose["target_m"], pose["eye_m"])
    return float(np.degrees(np.arctan2(look[0], look[1])))
