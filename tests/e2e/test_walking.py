"""On foot in the browser: the same steps as the core's, keys, stops, landings, flying, and routes."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np
import pytest
from playwright.sync_api import Page, expect

from stairpath.core.federation.federate import federate
from stairpath.core.federation.outline import outline
from stairpath.core.reading.read import read_model
from stairpath.core.walking.bodies import BODIES
from stairpath.core.walking.solids import solids_of
from stairpath.core.walking.walker import standing_on, walked
from stairpath.core.walking.walkmap import build
from tests.e2e.conftest import ask, house_model
from tests.e2e.going import in_room, on_foot_in
from tests.e2e.stage import on_screen, pose_of, size_of, wait_posed, wait_resting

GONE = """([from, far]) => { const { eye_m } = JSON.parse(document.querySelector('canvas').dataset.pose);
  return Math.hypot(eye_m[0] - from[0], eye_m[1] - from[1]) > far; }"""


def eye(page: Page) -> np.ndarray:
    return np.array(pose_of(page)["eye_m"])


KEYS = [
    (90, 1.4, 0.0),
    (45, 0.9, 1.1),
    (200, -1.4, 0.3),
    (120, 0.0, 3.0),
    (240, 2.0, -0.5),
    (300, 0.4, -2.2),
    (60, 0.0, 0.0),
]


def test_the_page_walks_as_the_core_does(home: Page, site, house, tmp_path):
    path = tmp_path / "House-ARC.ifc"
    path.write_bytes(house_model().content())
    federation = federate([outline(read_model(path.name, path.read_bytes()))])
    walk, _ = build(solids_of(federation), BODIES["standing"])
    on_foot_in(home, "West room 0")
    began = home.evaluate("() => { const w = window.stairpath.walker().replay([]); return [w.x, w.y, w.feet]; }")
    floor = walk.under(*began)
    core = standing_on(walk, floor)
    core = replace(core, x_m=began[0], y_m=began[1])
    expected = walked(walk, core, KEYS)
    for k in range(len(KEYS)):
        ended = home.evaluate(
            "keys => { const w = window.stairpath.walker().replay([keys]); return [w.x, w.y, w.feet, w.blocked]; }",
            list(KEYS[k]),
        )
        after = expected[k]
        assert ended[:3] == pytest.approx([after.x_m, after.y_m, after.feet_m], abs=0.01), k
        assert ended[3] == after.blocked


def test_keys_walk_step_aside_and_turn(home: Page):
    on_foot_in(home, "West room 0")
    before = eye(home)
    looked = np.array(pose_of(home)["target_m"]) - before
    home.keyboard.down("w")
    home.wait_for_function(GONE, arg=[before.tolist(), 0.6])
    home.keyboard.up("w")
    wait_resting(home)
    after = eye(home)
    way = (after - before)[:2]
    assert math.hypot(*way) > 0.3
    assert np.dot(way, looked[:2]) > 0.9 * math.hypot(*way) * math.hypot(*looked[:2])
    assert after[2] == pytest.approx(1.68, abs=0.03)
    aside = eye(home)
    home.keyboard.down("d")
    home.wait_for_function(GONE, arg=[aside.tolist(), 0.3])
    home.keyboard.up("d")
    wait_resting(home)
    step = (eye(home) - aside)[:2]
    right = np.array([looked[1], -looked[0]])
    assert np.dot(step, right) > 0.8 * math.hypot(*step) * math.hypot(*right)
    home.keyboard.press("ArrowRight", delay=300)
    wait_resting(home)
    turned = np.array(pose_of(home)["target_m"]) - eye(home)
    assert np.cross(np.append(looked[:2], 0), np.append(turned[:2], 0))[2] < 0


def test_the_wheel_changes_the_speed_and_never_jumps(home: Page):
    on_foot_in(home, "West room 0")
    before = eye(home)
    home.mouse.move(500, 250)
    home.mouse.wheel(0, -300)
    expect(home.get_by_test_id("walk-bar")).to_contain_text("2.1 m/s")
    assert eye(home) == pytest.approx(before)


def test_a_wall_stops_it_says_so_and_is_picked(home: Page):
    on_foot_in(home, "West room 0")
    home.keyboard.down("Shift")
    home.keyboard.down("w")
    line = home.get_by_test_id("stop-line")
    line.wait_for(timeout=30_000)
    home.keyboard.up("w")
    home.keyboard.up("Shift")
    expect(line).to_contain_text("Wall of House-ARC, architecture stands in the way, 0.50 m needed")
    line.get_by_role("button", name="show it").click()
    expect(home.get_by_test_id("desk")).to_contain_text("IfcWall")
    home.keyboard.down("s")
    line.wait_for(state="detached")
    home.keyboard.up("s")


def test_storey_up_keeps_the_place_and_behind_shows_the_body(home: Page):
    on_foot_in(home, "West room 0")
    before = eye(home)
    home.keyboard.press("PageUp")
    home.wait_for_function("() => JSON.parse(document.querySelector('canvas').dataset.pose).eye_m[2] > 4")
    wait_resting(home)
    assert eye(home) == pytest.approx([before[0], before[1], 4 + 1.68], abs=0.1)
    expect(home.get_by_test_id("place").last).to_contain_text("a storey up")
    seen = eye(home)
    home.keyboard.press("h")
    home.wait_for_function(
        "at => Math.hypot(...JSON.parse(document.querySelector('canvas').dataset.pose).eye_m.map((v, k) => v - at[k])) > 1",
        arg=seen.tolist(),
    )
    assert home.evaluate("() => window.stairpath.layers.figure.root.visible") is True


def test_jump_and_through_a_wall(home: Page):
    on_foot_in(home, "West room 0")
    home.keyboard.press("j")
    expect(home.get_by_test_id("stage-mark")).to_contain_text("Click the floor")
    looked = np.array(pose_of(home)["target_m"]) - eye(home)
    spot = eye(home) + looked / np.linalg.norm(looked) * 5.0
    spot[2] = 0.0
    home.mouse.click(*on_screen(home, spot))
    home.wait_for_function("() => !document.querySelector('[data-testid=stage-mark]')")
    home.wait_for_function(
        "at => Math.hypot(...JSON.parse(document.querySelector('canvas').dataset.pose).eye_m.slice(0, 2).map((v, k) => v - at[k])) < 0.2",
        arg=spot[:2].tolist(),
    )


def test_going_elsewhere_ends_walking_and_the_eye_stays_when_it_begins(home: Page):
    on_foot_in(home, "West room 0")
    there = eye(home)
    home.keyboard.press("m")
    expect(home.get_by_test_id("walk-bar")).to_have_count(0)
    assert eye(home) == pytest.approx(there)
    home.keyboard.press("f")
    expect(home.get_by_test_id("walk-bar")).to_contain_text("Flying")
    assert eye(home) == pytest.approx(there)
    home.keyboard.down("PageUp")
    home.wait_for_function(
        "z => JSON.parse(document.querySelector('canvas').dataset.pose).eye_m[2] > z + 0.5", arg=there[2]
    )
    home.keyboard.up("PageUp")
    wait_resting(home)
    home.keyboard.press("e")
    expect(home.get_by_test_id("walk-bar")).to_have_count(0)


def test_through_a_wall_one_comes_to_stand_behind_it(home: Page, site, house):
    in_room(home, "West room 0")
    home.evaluate("at => window.stairpath.stage.turnTo(90, 0, window.stairpath.stage.pose.eye)")
    wait_resting(home)
    home.keyboard.press("n")
    expect(home.get_by_test_id("stage-mark")).to_contain_text("Click the wall")
    origin = np.array(ask(f"{site}/api/projects/{house}/federation")["origin_m"])
    wall = np.array([9.9, eye(home)[1] + origin[1], 1.6]) - origin
    home.mouse.click(*on_screen(home, wall))
    home.get_by_test_id("present-room").filter(has_text="East room 0").wait_for(timeout=60_000)
    home.get_by_test_id("walk-bar").wait_for()
    assert (eye(home) + origin)[0] == pytest.approx(10.1 + 0.25, abs=0.15)
    home.get_by_test_id("place").filter(has_text="through a wall").wait_for()


def test_walking_comes_to_rest_and_is_one_place_on_the_trail(home: Page):
    on_foot_in(home, "West room 0")
    before = eye(home)
    home.keyboard.down("w")
    home.wait_for_function(GONE, arg=[before.tolist(), 0.3])
    home.keyboard.up("w")
    walked_to = home.get_by_test_id("place").filter(has_text="walked")
    walked_to.first.wait_for(timeout=60_000)
    drawn = home.evaluate("() => window.stairpath.stage.frames")
    # Twice as long as a place takes to count as one, by the page's own frames.
    home.evaluate("() => new Promise((done) => setTimeout(() => requestAnimationFrame(done), 1200))")
    assert home.evaluate("() => window.stairpath.stage.frames") == drawn
    expect(walked_to).to_have_count(1)


def test_zooming_out_stays_in_the_room_which_is_looked_into_through_its_wall_on_request(home: Page, site, house):
    in_room(home, "West room 0")
    origin = np.array(ask(f"{site}/api/projects/{house}/federation")["origin_m"])
    home.mouse.move(500, 250)
    keeps = home.get_by_test_id("stage-mark").filter(has_text="keeps you inside")
    for _ in range(20):
        home.mouse.wheel(0, 300)
        if keeps.count():
            break
    keeps.wait_for()
    wait_resting(home)
    inside = eye(home) + origin
    assert 0.3 < inside[0] < 9.9
    assert 0.3 < inside[1] < 11.7
    assert 0 < inside[2] < 3.7
    before = home.locator("canvas").get_attribute("data-pose")
    keeps.get_by_role("button", name="Look in through it").click()
    wait_posed(home, before)
    assert pose_of(home)["through_m"] > 2
    outside = eye(home) + origin
    assert not (0.3 < outside[0] < 9.9 and 0.3 < outside[1] < 11.7)
    # What is in the middle of the view lies in the room, not on the wall.
    _, _, width, height = size_of(home)
    hit = home.evaluate("([x, y]) => window.stairpath.stage.componentAt(x, y).point.toArray()", [width / 2, height / 2])
    assert np.linalg.norm(np.array(hit) - eye(home)) > pose_of(home)["through_m"]
    home.get_by_test_id("stage-mark").get_by_role("button", name="Back inside").click()
    home.wait_for_function("() => JSON.parse(document.querySelector('canvas').dataset.pose).through_m === 0")
    wait_resting(home)
    assert eye(home) + origin == pytest.approx(inside, abs=0.02)
