"""Moving with real mouse events: the point under the cursor is what everything happens about."""

from __future__ import annotations

import numpy as np
import pytest
from playwright.sync_api import Page

from tests.e2e.stage import numbers, on_screen, pose_of, size_of, wait_drawn, wait_posed, wait_resting, where

WITHIN_PX = 2.0


@pytest.fixture
def opened(page: Page, site, house):
    page.goto(f"{site}/p/{house}")
    wait_drawn(page)
    return page


def under_cursor(page: Page, x: float, y: float):
    left, top, _, _ = size_of(page)
    hit = page.evaluate(
        "([x, y]) => { const h = window.stairpath.stage.componentAt(x, y); return h && h.point.toArray(); }",
        [x - left, y - top],
    )
    assert hit is not None
    return np.array(hit)


def middle(page: Page):
    x, y, width, height = size_of(page)
    return x + width * 0.55, y + height * 0.45


def test_turning_keeps_the_point_under_the_cursor_in_its_place(opened: Page):
    x, y = middle(opened)
    point = under_cursor(opened, x, y)
    before = numbers(opened)
    distance = np.linalg.norm(before[:3] - point)
    opened.mouse.move(x, y)
    opened.mouse.down()
    opened.mouse.move(x + 120, y - 30, steps=6)
    assert on_screen(opened, point) == pytest.approx((x, y), abs=WITHIN_PX)
    opened.mouse.up()
    wait_resting(opened)
    after = numbers(opened)
    assert np.linalg.norm(after[:3] - point) == pytest.approx(distance, rel=1e-6)
    assert np.linalg.norm(after[:3] - before[:3]) > 5
    look = after[3:6] - after[:3]
    assert abs(np.dot(np.cross(look, after[6:9]), [0, 0, 1])) < 1e-6 * np.linalg.norm(look)


def test_panning_keeps_the_point_under_the_cursor(opened: Page):
    x, y = middle(opened)
    point = under_cursor(opened, x, y)
    opened.mouse.move(x, y)
    opened.mouse.down(button="right")
    opened.mouse.move(x + 140, y - 60, steps=5)
    opened.mouse.up(button="right")
    assert on_screen(opened, point) == pytest.approx((x + 140, y - 60), abs=WITHIN_PX)


def test_the_wheel_zooms_to_the_cursor_in_proportion_to_the_distance(opened: Page):
    x, y = middle(opened)
    point = under_cursor(opened, x, y)
    far = np.linalg.norm(np.array(pose_of(opened)["eye_m"]) - point)
    opened.mouse.move(x, y)
    opened.mouse.wheel(0, -100)
    wait_resting(opened)
    near = np.linalg.norm(np.array(pose_of(opened)["eye_m"]) - point)
    assert near / far == pytest.approx(0.82, abs=0.01)
    assert on_screen(opened, point) == pytest.approx((x, y), abs=WITHIN_PX)
    opened.mouse.wheel(0, 100)
    wait_resting(opened)
    assert np.linalg.norm(np.array(pose_of(opened)["eye_m"]) - point) == pytest.approx(far, rel=0.02)


def test_the_wheel_does_not_pass_a_wall(opened: Page):
    x, y = middle(opened)
    opened.mouse.move(x, y)
    point = under_cursor(opened, x, y)
    for _ in range(8):
        opened.mouse.wheel(0, -600)
        wait_resting(opened)
    eye = np.array(pose_of(opened)["eye_m"])
    assert 0.04 < np.linalg.norm(eye - point) < 0.5
    opened.get_by_text("Stopped 5 cm before the surface").wait_for()


def test_fit_all_frames_from_where_one_looks(opened: Page):
    x, y = middle(opened)
    opened.mouse.move(x, y)
    opened.mouse.down()
    opened.mouse.move(x - 200, y, steps=4)
    opened.mouse.up()
    opened.mouse.wheel(0, -500)
    wait_resting(opened)
    before = numbers(opened)
    here = where(opened)
    opened.get_by_role("button", name="Fit all").click()
    wait_posed(opened, here)
    after = numbers(opened)

    def way(row):
        look = row[3:6] - row[:3]
        return look / np.linalg.norm(look)

    assert way(after) == pytest.approx(way(before), abs=1e-6)
    assert np.linalg.norm(after[:3] - before[:3]) > 5
