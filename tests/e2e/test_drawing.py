"""How the building is drawn, and what is asked of what is drawn: styles, own colours, boxes, side by side, newer issues."""

from __future__ import annotations

import numpy as np
import pytest
from playwright.sync_api import Page, Route, expect

from tests.e2e.conftest import SIZE, another, arrive, ask, duct_model, house_model, made, send
from tests.e2e.going import find
from tests.e2e.stage import decoded, on_screen, pixels, wait_drawn, wait_resting
from tests.e2e.test_register import picked
from tests.e2e.test_seeing import click_on, settled, states
from tests.samples import Sample

OAK = (0.5, 0.25, 0.125)


def painted() -> Sample:
    """A box before the house, to whose surface its file gives the colour of oak."""
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    box = sample.box(storey, (4, -9, 0), (12, 0.4, 6), "IfcFurniture", Name="Screen", Tag="SCR-1")
    colour = sample.make("IfcColourRgb", None, *OAK)
    rendering = sample.make("IfcSurfaceStyleRendering", colour, 0.0, ReflectanceMethod="FLAT")
    style = sample.make("IfcSurfaceStyle", "Oak", "BOTH", [rendering])
    solid = box.Representation.Representations[0].Items[0]
    sample.make("IfcStyledItem", solid, [style], None)
    return sample


@pytest.fixture
def opened(page: Page, site, pair):
    arrive(page, site, "Ida Fenn")
    page.set_viewport_size({"width": 1280, "height": 720})
    page.goto(f"{site}/p/{pair}")
    wait_drawn(page)
    return page


def colour_at(page: Page, point_m) -> np.ndarray:
    """The colour in which a point about the origin is drawn."""
    box = page.locator("canvas").first.bounding_box()
    assert box
    x, y = on_screen(page, point_m)
    drawn = pixels(page)
    scale = drawn.shape[1] / page.evaluate("() => window.stairpath.stage.main.size.width")
    return np.asarray(drawn[int((y - box["y"]) * scale), int((x - box["x"]) * scale)])


FRAMES_LATER = "() => new Promise(done => setTimeout(() => requestAnimationFrame(() => done(true)), 400))"


def drawn_share(page: Page) -> float:
    """How much of the canvas, as it is, is not background."""
    seen = decoded(page.evaluate("() => document.querySelector('canvas').toDataURL('image/png')"))
    return float((np.abs(seen - seen[2, 2]).max(axis=2) > 8).mean())


def drawing(page: Page, *names: str) -> None:
    """Choose in the panel of how all is drawn, and close it."""
    page.get_by_role("button", name="Drawing", exact=True).click()
    for name in names:
        page.get_by_test_id("drawing-panel").get_by_role("button", name=name, exact=True).click()
    page.keyboard.press("Escape")
    page.get_by_test_id("drawing-panel").wait_for(state="detached")


def test_the_files_own_colours_are_one_action_away_and_back(page: Page, site):
    project = made(site, "Painted", {"House-ARC.ifc": house_model().content(), "Own-FIT.ifc": painted().content()}, 60)
    arrive(page, site, "Ida Fenn")
    page.goto(f"{site}/p/{project}")
    wait_drawn(page)
    origin = ask(f"{site}/api/projects/{project}/federation")["origin_m"]
    front = [v - o for v, o in zip((10, -9, 4), origin, strict=True)]
    trade = colour_at(page, front)
    drawing(page, "Materials")
    page.wait_for_function("() => window.stairpath.stage.building.tints !== null")
    own = colour_at(page, front)
    # Oak in some light: its parts keep their order and about their shares.
    assert own[0] > own[1] > own[2]
    assert own[1] / own[0] == pytest.approx(OAK[1] / OAK[0], abs=0.12)
    assert np.abs(own - trade).max() > 25
    page.keyboard.press("Control+z")
    page.wait_for_function("() => window.stairpath.stage.building.tints === null")
    assert np.abs(colour_at(page, front) - trade).max() < 6


def test_styles_are_changes_with_names_and_come_back(opened: Page):
    shaded = pixels(opened)
    drawing(opened, "Lines only")
    paper = pixels(opened)
    blank = opened.evaluate("() => window.stairpath.stage.building.shared.paper.value.toArray()")
    white = (np.abs(paper / 255 - np.array(blank)).max(axis=2) < 0.02).mean()
    assert white > 0.85
    assert (paper.sum(axis=2) < 300).any()
    opened.keyboard.press("Control+z")
    expect(opened.get_by_role("status")).to_contain_text("drew everything in lines")
    opened.wait_for_function("() => window.stairpath.stage.style === 'edges'")
    assert np.abs(pixels(opened) - shaded).mean() < 2
    find(opened, "see-through")
    opened.wait_for_function("() => window.stairpath.stage.style === 'clear'")


THERE = """() => {
  const { total, pending, pickable } = document.querySelector('canvas')?.dataset ?? {};
  return Number(total) > 0 && pending === '0' && pickable === 'yes';
}"""


def test_nothing_is_drawn_from_where_nobody_meant_to_look(page: Page, site, pair):
    """Where the eye begins is asked for; a building that is there sooner waits for it."""
    held: list[Route] = []

    def hold(route: Route) -> None:
        held.append(route)

    page.route("**/frame", hold)
    arrive(page, site, "Ida Fenn")
    page.goto(f"{site}/p/{pair}")
    page.wait_for_function(THERE)
    page.wait_for_function(FRAMES_LATER)
    assert page.locator("canvas").first.get_attribute("data-rest") == "no"
    assert drawn_share(page) == 0
    held[0].continue_()
    wait_drawn(page)
    assert drawn_share(page) > 0.05


def test_who_cannot_be_told_where_to_begin_sees_the_building_all_the_same(page: Page, site, pair):
    page.route(
        "**/frame", lambda route: route.fulfill(status=422, json={"detail": "Nothing to frame; show something."})
    )
    arrive(page, site, "Ida Fenn")
    page.goto(f"{site}/p/{pair}")
    wait_drawn(page)
    assert drawn_share(page) > 0.05
    expect(page.get_by_role("status")).to_contain_text("Nothing to frame")


def test_at_rest_corners_are_shaded(opened: Page):
    opened.evaluate("() => window.stairpath.stage.setInFull('always')")
    opened.wait_for_function("() => document.querySelector('canvas').dataset.inFull === 'yes'")
    opened.evaluate("() => window.stairpath.stage.setInFull('pictures')")
    opened.wait_for_function("() => document.querySelector('canvas').dataset.inFull === 'no'")
    full = pixels(opened, full=True)
    moving = opened.evaluate(
        "() => { const s = window.stairpath.stage; s.draw(); return s.renderer.picture(s.places.stage, 4096, 'image/png'); }"
    )
    plain = decoded(moving)
    lost = (plain - full).sum(axis=2)
    # The sky has as much light as before; where things meet or end there is less.
    assert np.abs(lost[:8, :8]).max() <= 3
    assert (lost > 40).mean() > 0.004
    assert lost.mean() > 0


def test_a_cell_is_split_and_a_discipline_opens_by_system(page: Page, site):
    sample = duct_model()
    system = sample.root("IfcDistributionSystem", Name="Supply 1")
    ducts = sample.ifc.by_type("IfcDuctSegment")
    sample.relate("IfcRelAssignsToGroup", RelatedObjects=[ducts[0]], RelatingGroup=system)
    project = made(site, "Systems", {"House-ARC.ifc": house_model().content(), "Ducts-AIR.ifc": sample.content()}, 60)
    arrive(page, site, "Ida Fenn")
    page.goto(f"{site}/p/{project}")
    wait_drawn(page)
    page.get_by_role("button", name="Air by system").click()
    cell = page.get_by_role("button", name="Supply 1 00", exact=True)
    cell.click()
    cell.click()
    settled(page, "1 hidden · 0 faded")
    expect(cell.get_by_test_id("count")).to_have_text("off")
    expect(page.get_by_role("button", name="no system 00", exact=True)).to_have_attribute("data-state", "shown")
    page.get_by_role("button", name="Every discipline", exact=True).click()
    whole = page.get_by_role("button", name="AIR 00", exact=True)
    expect(whole.get_by_test_id("count")).to_have_text("1/2")
    expect(whole.get_by_test_id("part-hidden")).to_have_count(1)
    expect(whole.get_by_test_id("part-shown")).to_have_count(1)
    page.get_by_role("button", name="00, every discipline").focus()
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("button", name="ARC 00", exact=True)).to_be_focused()
    page.keyboard.press("ArrowUp")
    expect(page.get_by_role("button", name="ARC 01", exact=True)).to_be_focused()
    page.keyboard.press("Enter")
    settled(page, "1 hidden · 6 faded")


def drag(page: Page, start, end) -> None:
    page.mouse.move(*start)
    page.mouse.down()
    page.mouse.move((start[0] + end[0]) / 2, (start[1] + end[1]) / 2, steps=2)
    page.mouse.move(*end, steps=2)


def test_a_box_picks_what_is_inside_or_what_it_touches(opened: Page, site, pair):
    origin = ask(f"{site}/api/projects/{pair}/federation")["origin_m"]

    def at(*point):
        return on_screen(opened, [v - o for v, o in zip(point, origin, strict=True)])

    def around(first_x, last_x):
        corners = np.array([at(x, y, z) for x in (first_x, last_x) for y in (-8, -7.4) for z in (1, 1.6)])
        return corners.min(axis=0) - 5, corners.max(axis=0) + 5

    (left, high), (right, low) = around(4, 8)
    (_, over), (beyond, _) = around(12, 14)
    opened.keyboard.press("Shift+R")
    expect(opened.get_by_text("Draw a box.", exact=False)).to_be_visible()
    drag(opened, (left, high), (right, low))
    expect(opened.get_by_test_id("region")).to_have_text("only components fully inside")
    opened.mouse.up()
    assert picked(opened) == [12]
    drag(opened, (beyond, over), (left, low))
    expect(opened.get_by_test_id("region")).to_have_text("also components it touches")
    opened.mouse.up()
    assert {12, 13} <= set(picked(opened))
    opened.keyboard.press("Escape")
    expect(opened.get_by_test_id("in-common")).to_contain_text("selected")


def test_several_say_what_they_share_and_two_stand_side_by_side(opened: Page, site, pair):
    click_on(opened, site, pair, (6, -8, 1.3))
    expect(opened.get_by_test_id("component-tag")).to_have_text("AD-1")
    expect(opened.get_by_test_id("component-place")).to_contain_text("1.00 m above")
    opened.keyboard.down("Shift")
    click_on(opened, site, pair, (14, -8, 1.3))
    opened.keyboard.up("Shift")
    expect(opened.get_by_test_id("in-common")).to_contain_text("2 selected")
    expect(opened.get_by_test_id("in-common")).to_contain_text("Duct")
    beside = opened.get_by_test_id("side-by-side")
    expect(beside).to_contain_text("AD-1")
    expect(beside).to_contain_text("AD-2")
    expect(beside).to_contain_text("No differences")
    opened.get_by_role("button", name="Clear selection").click()
    click_on(opened, site, pair, (6, -8, 1.3))
    opened.get_by_label("Within, m", exact=True).fill("5 m")
    opened.keyboard.press("Enter")
    expect(opened.get_by_test_id("near").first).to_contain_text("AD-2")
    expect(opened.get_by_test_id("near").first).to_contain_text("4.000 m")
    opened.get_by_test_id("near").first.click()
    expect(opened.get_by_test_id("component-tag")).to_have_text("AD-2")
    expect(opened.get_by_test_id("around")).to_have_count(0)


def test_a_newer_issue_says_what_changed_and_tints_it(opened: Page, browser, site, pair):
    visited = opened.request.post(f"{site}/api/projects/{pair}/visits", headers={"X-Author": "Tam%20Kerr"})
    assert visited.json() == {"before": None}
    opened.get_by_role("tab", name="Models").click()
    expect(opened.get_by_label("Compare Ducts-AIR with")).to_have_count(0)
    newer = duct_model()
    _, second = newer.ifc.by_type("IfcDuctSegment")
    found = ask(f"{site}/api/projects/{pair}/find?typed=AD-2")["found"]
    second.GlobalId = next(each["global_id"] for each in found if each["label"] == "AD-2")
    second.Name = "Main"
    send(site, pair, "Ducts-AIR.ifc", newer.content())
    compare = opened.get_by_label("Compare Ducts-AIR with")
    expect(compare).to_have_count(1, timeout=60_000)
    compare.select_option(index=1)
    differences = opened.get_by_test_id("differences")
    expect(differences).to_contain_text("1 added, 1 removed, 1 with other properties; 0 unchanged.", timeout=60_000)
    expect(opened.get_by_test_id("differs-changed")).to_contain_text("name: Duct → Main")
    opened.get_by_role("button", name="Tint differences").click()
    expect(opened.get_by_test_id("legend")).to_contain_text("Properties changed")
    opened.get_by_test_id("differs-changed").click()
    assert picked(opened) == [13]
    gone = "() => window.stairpath.layers.gone?.count ?? 0"
    assert opened.evaluate(gone) == 0
    opened.get_by_test_id("differs-removed").click()
    expect(opened.get_by_test_id("gone-sign")).to_contain_text("1 component gone since the issue of")
    expect(opened.locator('[data-testid="trail-now"], [aria-current]').last).to_contain_text("where AD-1 was")
    wait_drawn(opened)
    assert opened.evaluate(gone) == 2
    opened.get_by_role("button", name="Close", exact=True).click()
    expect(opened.get_by_test_id("gone-sign")).to_have_count(0)
    assert opened.evaluate(gone) == 0
    # Who was here before hears of it on coming back, one click from the list.
    with another(browser, viewport={"width": 1080, "height": 680}) as context:
        other = context.new_page()
        arrive(other, site, "Tam Kerr")
        other.goto(f"{site}/p/{pair}")
        status = other.get_by_role("status")
        expect(status).to_contain_text("AIR: 1 added, 1 removed, 1 with other properties.", timeout=60_000)
        expect(other.get_by_role("tab", name="Models")).to_contain_text("1 new")
        status.get_by_role("button", name="Show the list").click()
        expect(other.get_by_test_id("differences")).to_contain_text("1 added")
        expect(other.get_by_role("tab", name="Models")).not_to_contain_text("new")


def test_the_lid_is_lifted_and_put_back(opened: Page):
    opened.evaluate("() => window.stairpath.stage.canvas.focus()")
    find(opened, "Lift or replace the lid")
    opened.get_by_role("tab", name="Cuts").click()
    expect(opened.get_by_text("Lid of Level").first).to_be_visible()
    opened.wait_for_function("() => window.stairpath.stage.building.clips.planes.length === 1")
    opened.keyboard.press("Escape")
    find(opened, "Lift or replace the lid")
    opened.wait_for_function("() => window.stairpath.stage.building.clips.planes.length === 0")
    assert set(states(opened)) == {255}


def test_storeys_and_grid_lines_are_found_and_enter_waits_for_the_server(opened: Page):
    opened.keyboard.press("/")
    opened.keyboard.type("Level 01")
    expect(opened.locator("[role=option]").filter(has_text="Fit").first).to_contain_text("Level 01")
    opened.keyboard.press("Escape")
    opened.keyboard.press("/")
    opened.keyboard.type("grid B")
    expect(opened.locator("[role=option]").filter(has_text="look square on")).to_contain_text("Grid B")
    opened.keyboard.press("Escape")
    opened.keyboard.press("/")
    opened.keyboard.type("AD-2")
    opened.keyboard.press("Enter")
    expect(opened.get_by_test_id("component-tag")).to_have_text("AD-2")


def test_where_a_processor_draws_what_rests_is_smooth_without_a_second_look(opened: Page):
    drawn = "() => { const c = document.querySelector('canvas'); return c.toDataURL('image/png'); }"
    # Half of its pixels are whole ones, so that the picture has as many as the stage.
    opened.set_viewport_size({"width": SIZE["width"] + 1, "height": SIZE["height"]})
    opened.wait_for_function("() => document.querySelector('canvas').clientWidth % 2 === 0")
    wait_resting(opened)
    assert opened.evaluate("() => window.stairpath.stage.renderer.samples") == 5
    opened.evaluate("() => window.stairpath.stage.setInFull('always')")
    opened.wait_for_function("() => document.querySelector('canvas').dataset.inFull === 'yes'")
    # A frame as while one moves has one sample for a pixel.
    rough = decoded(opened.evaluate(f"() => {{ window.stairpath.stage.draw(); return ({drawn})(); }}"))
    whole = pixels(opened, full=True)
    # After a moment at rest the page shows by itself what a kept picture has.
    opened.evaluate("() => { const s = window.stairpath.stage; s.ask(); s.canvas.dataset.smooth = 'asked'; }")
    opened.wait_for_function("() => document.querySelector('canvas').dataset.smooth === 'yes'")
    smooth = decoded(opened.evaluate(drawn))
    steps = [np.square(np.diff(picture.astype(float), axis=1)).sum() for picture in (smooth, rough)]
    assert steps[0] < 0.8 * steps[1]
    assert (np.abs(smooth - whole).max(axis=2) > 8).mean() < 0.001
    # The mean of what is shifted by parts of a pixel lies where the view does.
    assert np.abs(smooth.mean(axis=(0, 1)) - rough.mean(axis=(0, 1))).max() < 1.0
