"""Cuts: made from the desk and with tools, dragged by their tabs, filled by the core, kept, undone and linked."""

from __future__ import annotations

import numpy as np
import pytest
from playwright.sync_api import Page, expect

from tests.e2e.conftest import arrive, ask
from tests.e2e.going import find, in_room
from tests.e2e.stage import on_screen, pose_of, size_of, wait_drawn, wait_posed, wait_resting

FILLED = "() => { const s = window.stairpath.stage; s.draw(); return s.cutFaces.root.visible; }"
CLIPS = "() => window.stairpath.stage.building.clips.planes.map(p => [...p.normal.toArray(), p.at])"


@pytest.fixture
def cutting(home: Page):
    """The house, with the Cuts desk open."""
    home.set_viewport_size({"width": 1280, "height": 800})
    home.keyboard.press("t")
    expect(home.get_by_test_id("cut-ways")).to_be_visible()
    return home


def origin_of(site, project) -> np.ndarray:
    return np.array(ask(f"{site}/api/projects/{project}/federation")["origin_m"])


def filled(page: Page) -> None:
    """Until the core's own faces are drawn."""
    page.wait_for_function(FILLED, timeout=30_000)


def cut_at(page: Page, storey: str, height: str) -> None:
    page.get_by_label("Storey to cut").select_option(label=storey)
    page.get_by_label("m above the storey").fill(height)
    page.get_by_role("button", name="Cut", exact=True).click()
    filled(page)


def planes(page: Page) -> np.ndarray:
    return np.array(page.evaluate(CLIPS))


def under(page: Page, site, project, point_m):
    """What is met where a point of the project would be seen: its place in project coordinates, or None."""
    origin = origin_of(site, project)
    x, y = on_screen(page, np.subtract(point_m, origin))
    left, top, *_ = size_of(page)
    hit = page.evaluate(
        "([x, y]) => window.stairpath.stage.componentAt(x, y)?.point.toArray() ?? null", [x - left, y - top]
    )
    return None if hit is None else np.array(hit) + origin


def test_a_cut_at_a_height_takes_away_what_is_above_and_fills_what_it_goes_through(cutting: Page, site, house):
    before = under(cutting, site, house, (5, 0.1, 7.4))
    assert before is not None
    assert before[2] == pytest.approx(7.4, abs=0.1)
    cut_at(cutting, "Level 00", "1.2")
    row = cutting.get_by_test_id("cut")
    expect(row).to_contain_text("Level 00 + 1.20 m")
    # Four outer walls and the one between: 2 x 20 x 0.3 and 2 x 12 x 0.3, less their corners, and 9 x 0.2.
    expect(cutting.get_by_test_id("cut-through")).to_have_text("Cuts 5 components, 21.000 m²")
    # Of the wall that stood higher nothing is met any more; on the cut itself one meets its face.
    assert under(cutting, site, house, (5, 0.1, 7.4)) is None or under(cutting, site, house, (5, 0.1, 7.4))[2] <= 1.2
    assert under(cutting, site, house, (5, 0.15, 1.2)) == pytest.approx([5, 0.15, 1.2], abs=0.02)
    expect(cutting.get_by_role("button", name="Undo").first).to_be_visible()
    cutting.keyboard.press("Escape")
    cutting.locator("canvas").focus()
    cutting.keyboard.press("Control+z")
    expect(row).to_have_count(0)
    assert len(planes(cutting)) == 0
    assert under(cutting, site, house, (5, 0.1, 7.4)) == pytest.approx(before, abs=1e-6)


def test_a_plane_is_dragged_by_its_tab_and_typed(cutting: Page):
    cut_at(cutting, "Level 01", "1")
    tab = cutting.get_by_test_id("cut-tab")
    expect(tab).to_have_count(1)
    box = tab.bounding_box()
    assert box
    assert box["height"] >= 32
    x, y = box["x"] + 18, box["y"] + box["height"] / 2
    cutting.mouse.move(x, y)
    cutting.mouse.down()
    cutting.mouse.move(x, y + 20, steps=4)
    # While it is dragged the stage fills it by its own means.
    assert cutting.evaluate(FILLED) is False
    expect(tab).not_to_contain_text("+ 1.00")
    cutting.mouse.up()
    filled(cutting)
    label = tab.inner_text()
    row = cutting.get_by_test_id("cut")
    expect(row).to_contain_text(label)
    over = float(row.get_by_label("m above Level 01").input_value())
    assert 0 < over < 1
    assert label == f"Level 01 + {over:.2f} m"
    assert planes(cutting)[0, 3] == pytest.approx(4 + over, abs=1e-6)
    field = row.get_by_label("m above Level 01")
    field.fill("1.5")
    field.press("Enter")
    expect(tab).to_have_text("Level 01 + 1.50 m")
    assert planes(cutting)[0] == pytest.approx([0, 0, 1, 5.5])
    field.fill("a lot")
    expect(row).to_contain_text("a lot is not a length. Type one such as 2.5 m")
    tab.focus()
    cutting.keyboard.press("ArrowUp")
    expect(tab).to_have_text("Level 01 + 1.55 m")
    # With a tool in hand a drag from the tab is the tool's.
    cutting.get_by_role("tab", name="Markups").click()
    cutting.get_by_role("button", name="Rectangle", exact=True).click()
    box = tab.bounding_box()
    assert box
    x, y = box["x"] + 18, box["y"] + box["height"] / 2
    cutting.mouse.move(x, y)
    cutting.mouse.down()
    cutting.mouse.move(x + 30, y + 30, steps=4)
    cutting.mouse.up()
    expect(cutting.get_by_test_id("markup")).to_have_count(1)
    expect(tab).to_have_text("Level 01 + 1.55 m")


def test_a_cut_is_turned_over_switched_off_named_and_removed(cutting: Page):
    cut_at(cutting, "Level 00", "2")
    row = cutting.get_by_test_id("cut")
    row.get_by_role("button", name="flip").click()
    assert planes(cutting)[0] == pytest.approx([0, 0, -1, -2])
    row.get_by_role("button", name="switch off").click()
    expect(row).to_contain_text("(switched off)")
    expect(cutting.get_by_test_id("cut-tab")).to_have_count(0)
    assert len(planes(cutting)) == 0
    row.get_by_role("button", name="switch on").click()
    name = row.get_by_label("Name of the cut")
    name.fill("Below the benches")
    name.press("Enter")
    expect(cutting.get_by_test_id("cut-tab")).to_have_text("Below the benches")
    row.get_by_role("button", name="remove").click()
    expect(row).to_have_count(0)
    assert len(planes(cutting)) == 0


def test_a_cut_along_a_face_that_is_clicked(cutting: Page, site, house):
    cutting.get_by_role("button", name="Along a face").click()
    expect(cutting.get_by_test_id("stage-mark")).to_contain_text("Click the face to cut along.")
    origin = origin_of(site, house)
    x, y = on_screen(cutting, np.subtract((5, 0, 2), origin))
    cutting.mouse.click(x, y)
    expect(cutting.get_by_test_id("cut")).to_contain_text("Along a face")
    (plane,) = planes(cutting)
    assert plane == pytest.approx([0, -1, 0, origin[1]], abs=1e-3)
    expect(cutting.get_by_test_id("stage-mark")).to_have_count(0)


def test_a_box_around_a_room_opens_it_and_what_is_visible_is_what_is_left(cutting: Page, site, house):
    in_room(cutting, "West room 0")
    cutting.get_by_role("button", name="Box around this room").click()
    filled(cutting)
    expect(cutting.get_by_test_id("cut-tab")).to_have_count(6)
    expect(cutting.get_by_test_id("cut")).to_contain_text("Box around 0.01 West room 0")
    sizes = [float(cutting.get_by_label(f"{side}, m of Box").input_value()) for side in ("long", "wide", "high")]
    assert sizes == pytest.approx([10.2, 12, 4])
    before = cutting.locator("canvas").get_attribute("data-pose")
    cutting.locator("canvas").focus()
    cutting.keyboard.press("x")
    wait_posed(cutting, before)
    # Nothing of the other room is there any more.
    origin = origin_of(site, house)
    corners = [np.subtract((x, y, z), origin) for x in (0, 10.2) for y in (0, 12) for z in (-0.3, 3.7)]
    places = np.array([on_screen(cutting, corner) for corner in corners])
    left, top, width, height = size_of(cutting)
    shares = (places - [left, top]) / [width, height]
    assert (shares > -0.01).all()
    assert (shares < 1.01).all()
    assert np.ptp(shares, axis=0).max() > 0.4  # and it is seen large


def test_cuts_travel_with_the_address_and_with_a_viewpoint(cutting: Page, page: Page, site, house):
    cut_at(cutting, "Level 01", "0.8")
    cutting.wait_for_function("() => location.hash.includes('cut=')")
    address = cutting.url
    find(cutting, "Cut square to this view")
    expect(cutting.get_by_test_id("cut")).to_have_count(2)
    cutting.get_by_role("tab", name="Viewpoints").click()
    field = cutting.get_by_label("Name of the viewpoint")
    field.fill("Cut twice")
    field.press("Enter")
    # Others keep viewpoints in the same house.
    expect(cutting.get_by_test_id("viewpoint").filter(has_text="Cut twice")).to_have_count(1)
    arrive(page, site, "Tom Ash")
    page.goto(address)
    wait_drawn(page)
    page.keyboard.press("t")
    expect(page.get_by_test_id("cut")).to_have_count(1)
    expect(page.get_by_test_id("cut")).to_contain_text("Level 01 + 0.80 m")
    filled(page)
    page.get_by_role("tab", name="Viewpoints").click()
    page.get_by_role("button", name="Cut twice").first.click()
    page.wait_for_function("() => window.stairpath.stage.building.clips.planes.length === 2")
    wait_resting(page)
    page.get_by_role("tab", name="Cuts").click()
    expect(page.get_by_test_id("cut")).to_have_count(2)
    assert pose_of(page)["through_m"] == 0


def test_what_is_picked_can_stay_whole(cutting: Page, site, house):
    cut_at(cutting, "Level 00", "1.2")
    origin = origin_of(site, house)
    x, y = on_screen(cutting, np.subtract((14, 0, 0.6), origin))
    cutting.mouse.click(x, y)
    expect(cutting.get_by_test_id("component-tag")).to_be_visible()
    cutting.get_by_role("tab", name="Cuts").click()
    cutting.get_by_role("button", name="keep the selection uncut").click()
    expect(cutting.get_by_test_id("whole")).to_contain_text("1 component stays uncut")
    expect(cutting.get_by_test_id("cut-through")).to_contain_text("Cuts 4 components")
    found = under(cutting, site, house, (5, 0, 2.5))
    assert found is not None
    assert found[2] == pytest.approx(2.5, abs=0.05)
    cutting.get_by_role("button", name="cut all").click()
    expect(cutting.get_by_test_id("cut-through")).to_contain_text("Cuts 5 components")


def test_cuts_show_on_the_storey_board_and_on_the_key_plan(cutting: Page):
    cut_at(cutting, "Level 00", "2")
    mark = cutting.get_by_test_id("cut-mark")
    expect(mark).to_have_count(1)
    box = mark.bounding_box()
    assert box
    x, y = box["x"] + 40, box["y"] + box["height"] / 2
    cutting.mouse.move(x, y)
    cutting.mouse.down()
    cutting.mouse.move(x, y - 20, steps=3)
    cutting.mouse.up()
    filled(cutting)
    height = planes(cutting)[0, 3]
    assert 2.1 < height < 4
    expect(cutting.get_by_test_id("cut-tab")).to_have_text(f"Level 00 + {height:.2f} m")
    expect(cutting.get_by_test_id("cut-on-plan")).to_have_count(0)
    cutting.get_by_label("Grid line to cut along").select_option(label="2")
    cutting.get_by_role("button", name="Cut along it").click()
    expect(cutting.get_by_test_id("cut-on-plan")).to_have_count(1)
    expect(cutting.get_by_test_id("cut-mark")).to_have_count(1)
    expect(cutting.get_by_test_id("reasons")).to_have_text("all shown \N{MIDDLE DOT} 2 cuts")
    cutting.locator("canvas").focus()
    cutting.keyboard.press("Shift+T")
    expect(cutting.get_by_test_id("cut-tab")).to_have_count(0)
    expect(cutting.get_by_test_id("reasons")).to_have_text("all shown")


def test_a_plane_is_tilted_by_its_grip_by_keys_and_typed(cutting: Page):
    cutting.get_by_label("Grid line to cut along").select_option(label="2")
    cutting.get_by_label("Which way to look").select_option(index=1)
    cutting.get_by_role("button", name="Cut along it").click()
    filled(cutting)
    row = cutting.get_by_test_id("cut")
    facing, leaning = row.get_by_label("faces, \N{DEGREE SIGN} from north"), row.get_by_label("tilt")
    assert float(facing.input_value()) in (90, 270)
    assert float(leaning.input_value()) == 0
    # Where it stands is typed as people say it.
    away = row.get_by_label("m east of grid 2")
    assert float(away.input_value()) == 0
    there = planes(cutting)[0][3]
    away.fill("1.5")
    away.press("Enter")
    cutting.wait_for_function(f"there => Math.abs(Math.abs(({CLIPS})()[0][3] - there) - 1.5) < 1e-6", arg=there)
    filled(cutting)
    before = planes(cutting)[0]
    box = cutting.get_by_test_id("cut-grip").bounding_box()
    assert box
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    cutting.mouse.move(x, y)
    cutting.mouse.down()
    cutting.mouse.move(x + 20, y, steps=4)
    cutting.mouse.up()
    filled(cutting)
    after = planes(cutting)[0]
    turn = np.degrees(np.arccos(np.clip(before[:3] @ after[:3], -1, 1)))
    assert 3 < turn < 60
    tab = cutting.get_by_test_id("cut-tab").first
    tab.press("ArrowRight")
    cutting.wait_for_function(f"before => JSON.stringify(({CLIPS})()) !== before", arg=str(after.tolist()))
    leaning.fill("90")
    leaning.press("Enter")
    cutting.wait_for_function(f"() => Math.abs(({CLIPS})()[0][2] - 1) < 1e-9")
    leaning.fill("120")
    expect(row).to_contain_text("A plane tilts by at most 90 degrees")


def test_a_cut_is_dragged_on_the_key_plan(cutting: Page):
    cutting.get_by_label("Grid line to cut along").select_option(label="2")
    cutting.get_by_role("button", name="Cut along it").click()
    filled(cutting)
    before = planes(cutting)[0]
    eye = pose_of(cutting)["eye_m"]
    box = cutting.get_by_test_id("instrument").bounding_box()
    assert box
    # Somewhere on the line within the ring.
    x, y = cutting.evaluate(
        """() => {
          const path = document.querySelector('[data-testid=cut-on-plan-grip]');
          const ring = path.closest('svg').getBoundingClientRect();
          const [cx, cy] = [ring.x + ring.width / 2, ring.y + ring.height / 2];
          const places = Array.from({ length: 2001 }, (_, k) =>
            path.getPointAtLength((path.getTotalLength() * k) / 2000).matrixTransform(path.getScreenCTM()));
          const away = (p) => Math.hypot(p.x - cx, p.y - cy);
          const at = places.reduce((best, p) => (away(p) < away(best) ? p : best));
          return [at.x, at.y];
        }"""
    )
    normal = before[:2]
    cutting.mouse.move(x, y)
    cutting.mouse.down()
    cutting.mouse.move(x + 8 * normal[0], y - 8 * normal[1], steps=4)
    cutting.mouse.up()
    filled(cutting)
    after = planes(cutting)[0]
    assert after[:3] == pytest.approx(before[:3])
    assert abs(after[3] - before[3]) > 0.2
    assert pose_of(cutting)["eye_m"] == eye


def test_a_room_is_opened_from_where_one_looks_and_a_box_is_drawn_between_two_corners(cutting: Page, site, house):
    find(cutting, "0.01 West room 0")
    wait_resting(cutting)
    cutting.get_by_role("button", name="Room opened towards me").click()
    row = cutting.get_by_test_id("cut")
    expect(row).to_contain_text("Into 0.01 West room 0")
    assert len(planes(cutting)) == 6
    row.get_by_role("button", name="remove").click()
    expect(row).to_have_count(0)
    cutting.get_by_role("button", name="Box between two corners").click()
    x, y, width, height = size_of(cutting)
    for across, down in ((0.55, 0.8), (0.8, 0.7)):
        cutting.mouse.click(x + across * width, y + down * height)
    expect(row).to_contain_text("Box as drawn")
    assert len(planes(cutting)) == 6


def test_tabs_of_several_cuts_keep_clear_of_one_another_however_one_looks(cutting: Page):
    for height in ("1.2", "1.4", "1.6", "1.0", "0.8"):
        cut_at(cutting, "Level 00", height)
    tabs = cutting.get_by_test_id("cut-tab")
    expect(tabs).to_have_count(5)
    for look in ("(40, 20)", "(40, 0)", "(200, 89)"):
        cutting.evaluate(f"() => window.stairpath.stage.turnTo{look}")
        wait_resting(cutting)
        boxes = [tab.bounding_box() for tab in tabs.all()]
        for k, a in enumerate(boxes):
            for b in boxes[:k]:
                assert a
                assert b
                apart = (
                    a["x"] >= b["x"] + b["width"], b["x"] >= a["x"] + a["width"],
                    a["y"] >= b["y"] + b["height"] - 1, b["y"] >= a["y"] + a["height"] - 1,
                )  # fmt: skip
                assert any(apart), (look, a, b)
