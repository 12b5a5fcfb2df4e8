"""Take the pictures in docs/screenshots from the running demo (`STAIRPATH_WEB_DIR=web/dist-test make demo` in another terminal)."""

from __future__ import annotations

import sys
import urllib.request
from collections.abc import Callable
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from tests.building import whole

ROOT = Path(__file__).resolve().parents[1]
sys.path.insert(0, str(ROOT))
TO = ROOT / "docs" / "screenshots"


IN_FULL = """(() => {
  const kept = JSON.parse(localStorage.getItem('stairpath.habits') ?? '{"state":{},"version":0}');
  localStorage.setItem('stairpath.habits', JSON.stringify({ ...kept, state: { ...kept.state, inFull: 'always' } }));
})();"""
DRAWN_IN_FULL = """() => {
  const c = document.querySelector('canvas');
  return !c || (c.dataset.inFull === 'yes' && c.dataset.smooth === 'yes');
}"""


def press(page: Page, name: str, times: int) -> None:
    """Press a button of the storey board a number of times."""
    for _ in range(times):
        page.get_by_role("button", name=name, exact=True).click()


def pick(page: Page, address: str, tag: str) -> None:
    """Click the component of a tag where it stands on the stage."""
    from tests.e2e.conftest import ask
    from tests.e2e.stage import on_screen

    project = page.url.split("/p/")[1].split("#")[0]
    federation = whole(address, project)
    for model in federation["models"]:
        if tag in model["labels"]:
            global_id = model["global_ids"][model["labels"].index(tag)]
            bounds = ask(f"{address}/api/models/{model['id']}/components/{global_id}")["bounds_m"]
            middle = [(bounds[i] + bounds[i + 3]) / 2 - federation["origin_m"][i] for i in range(3)]
            page.mouse.click(*on_screen(page, middle))
    page.get_by_test_id("component-tag").wait_for()


def look_around(page: Page, keep: Callable[[str], None]) -> None:
    """Stand in a room."""
    from tests.e2e.going import in_room

    page.get_by_role("tab", name="Component").click()
    in_room(page, "Upper gallery")
    page.get_by_test_id("place").filter(has_text="Upper").wait_for()
    page.mouse.move(1100, 700)
    keep("inside")
    two_ways(page, keep)


def two_ways(page: Page, keep: Callable[[str], None]) -> None:
    """Put a plan and an elevation beside the stage."""
    page.keyboard.press("b")
    page.get_by_label("Drawing beside the stage", exact=True).select_option(label="Plan Level 02")
    page.get_by_test_id("drawing-place").filter(has_text="Plan Level 02").wait_for()
    page.get_by_role("button", name="Second drawing").click()
    page.get_by_test_id("second-place").first.wait_for()
    page.mouse.move(1100, 700)
    keep("plan-beside")
    page.keyboard.press("b")
    page.get_by_test_id("beside").wait_for(state="detached")


def choose(page: Page, label: str, room: str) -> None:
    """Choose a room of the routes desk."""
    page.get_by_role("combobox", name=label, exact=True).fill(room)
    page.locator("[role=option]").first.wait_for()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")


def stand(page: Page, room: str) -> None:
    """Stand in a room."""
    from tests.e2e.going import find
    from tests.e2e.stage import wait_posed, where

    here = where(page)
    find(page, room)
    wait_posed(page, here)


def on_foot(page: Page, keep: Callable[[str], None]) -> None:
    """A route to the escape stair with its lowest place, and the body from behind."""
    from tests.e2e.stage import wait_posed, wait_resting, where

    page.get_by_role("tab", name="Routes").click()
    choose(page, "From", "B1.01")
    choose(page, "To", "2.13")
    page.get_by_role("button", name="Find route").click()
    page.get_by_test_id("route-answer").wait_for()
    here = where(page)
    page.get_by_role("button", name="Home", exact=True).click()
    wait_posed(page, here)
    page.mouse.move(1100, 700)
    keep("route")
    stand(page, "Gallery")
    page.keyboard.press("m")
    page.get_by_test_id("walk-bar").wait_for()
    page.keyboard.press("h")
    page.wait_for_timeout(800)
    wait_resting(page)
    page.mouse.move(1100, 700)
    keep("walking")
    page.keyboard.press("h")


def cut_open(page: Page, keep: Callable[[str], None]) -> None:
    """The building cut along a grid line and above a storey."""
    from tests.e2e.stage import wait_posed

    filled = "() => { const s = window.stairpath.stage; s.draw(); return s.cutFaces.root.visible; }"
    before = page.locator("canvas").first.get_attribute("data-pose")
    page.get_by_role("button", name="Fit all", exact=True).click()
    wait_posed(page, before)
    page.get_by_role("tab", name="Cuts").click()
    page.get_by_label("Grid line to cut along").select_option(label="C")
    page.get_by_role("button", name="Cut along it").click()
    page.wait_for_function(filled)
    page.get_by_label("Storey to cut").select_option(label="Level 02")
    page.get_by_role("button", name="Cut", exact=True).click()
    page.wait_for_function(filled)
    page.mouse.move(1100, 700)
    page.wait_for_load_state("networkidle")
    keep("cuts")
    page.get_by_role("button", name="switch all off").click()


def measured(page: Page, keep: Callable[[str], None]) -> None:
    """A laboratory with the room there is at a point, its area, and how far two components are apart."""
    from tests.e2e.stage import size_of, wait_resting

    stand(page, "Plankton laboratory")
    wait_resting(page)
    page.get_by_role("tab", name="Measures").click()
    ways = page.get_by_test_id("measure-ways")
    ways.get_by_role("button", name="Plankton laboratory").click()
    ways.get_by_role("button", name="Room at a point").click()
    x, y, width, height = size_of(page)
    page.mouse.click(x + 0.62 * width, y + 0.78 * height)
    page.get_by_test_id("measure").nth(1).wait_for()
    ways.get_by_role("button", name="Between two components").click()
    for across, down in ((0.2, 0.45), (0.85, 0.4)):
        page.mouse.click(x + across * width, y + down * height)
    page.get_by_text("clear height").first.wait_for(timeout=120_000)
    page.get_by_role("button", name="Close", exact=True).click()
    page.mouse.move(1100, 760)
    page.wait_for_load_state("networkidle")
    keep("measures")
    page.get_by_role("button", name="delete all").click()


def found(page: Page, keep: Callable[[str], None]) -> None:
    """What of air and structure interferes, on the building, and a topic of the first of it."""
    from tests.e2e.conftest import pick_one
    from tests.e2e.stage import wait_posed, wait_resting, where

    here = where(page)
    page.get_by_role("button", name="Home", exact=True).click()
    wait_posed(page, here)
    page.get_by_role("tab", name="Findings").click()
    pick_one(page, "One group", "Air")
    pick_one(page, "The other group", "Structure")
    page.get_by_label("clearance").fill("30 mm")
    page.get_by_role("button", name="Run the check").click()
    page.get_by_test_id("finding").first.wait_for(timeout=120_000)
    page.mouse.move(1100, 760)
    page.wait_for_load_state("networkidle")
    keep("findings")
    page.get_by_test_id("finding").first.get_by_role("button", name="make a topic").click()
    reference = page.get_by_test_id("reference").inner_text(timeout=60_000)
    page.get_by_label(f"Assigned to of {reference}").fill("Tam Kerr")
    page.get_by_label(f"Due date of {reference}").fill("2027-01-08")
    page.get_by_label(f"Status of {reference}").select_option("in hand")
    page.get_by_label("A comment").fill("Can the duct go past the shaft?")
    page.get_by_role("button", name="Write").click()
    page.get_by_test_id("topic-note").filter(has_text="past the shaft").wait_for()
    page.get_by_test_id("topic-open").evaluate("(open) => open.scrollIntoView()")
    page.mouse.move(1100, 760)
    wait_resting(page)
    page.wait_for_load_state("networkidle")
    keep("topics")
    marked(page, keep)
    taken_to_a_meeting(page, keep, reference)
    page.get_by_role("button", name="Delete", exact=True).click()
    page.get_by_role("button", name="Show everything").click()
    page.get_by_role("tab", name="Findings").click()
    page.get_by_test_id("check").first.get_by_role("button", name="Delete").click()


def drag(page: Page, start: tuple[float, float], end: tuple[float, float]) -> None:
    """Drag between two places of the stage, as shares of it."""
    from tests.e2e.stage import size_of

    x, y, width, height = size_of(page)
    page.mouse.move(x + start[0] * width, y + start[1] * height)
    page.mouse.down()
    page.mouse.move(x + end[0] * width, y + end[1] * height, steps=6)
    page.mouse.up()


def marked(page: Page, keep: Callable[[str], None]) -> None:
    """The place of the topic with a cloud and words over it."""
    page.get_by_role("tab", name="Markups").click()
    page.get_by_role("button", name="Cloud", exact=True).click()
    drag(page, (0.36, 0.28), (0.66, 0.6))
    page.get_by_test_id("markup").wait_for()
    page.get_by_label("ink", exact=True).click()
    page.get_by_role("button", name="Callout", exact=True).click()
    drag(page, (0.52, 0.45), (0.76, 0.2))
    page.get_by_label("Text of the markup", exact=True).fill("Past the shaft,\nnot through its wall")
    page.keyboard.press("Enter")
    page.get_by_test_id("markup").nth(1).wait_for()
    page.keyboard.press("Escape")
    page.mouse.move(1100, 760)
    page.wait_for_load_state("networkidle")
    keep("markups")


def taken_to_a_meeting(page: Page, keep: Callable[[str], None], reference: str) -> None:
    """The topic in a meeting that another follows, and its minutes."""
    from tests.e2e.stage import wait_drawn, wait_resting

    page.get_by_role("tab", name="Topics").click()
    page.get_by_role("button", name="Add current view").click()
    page.get_by_test_id("topic-view").nth(1).wait_for()
    page.get_by_role("button", name="Meetings").click()
    page.get_by_label("Title of the meeting").fill("Coordination meeting 14")
    page.keyboard.press("Enter")
    page.get_by_test_id("agenda-topic").filter(has_text=reference).get_by_role("button").first.click()
    page.get_by_test_id("at-topic").filter(has_text=reference).wait_for()
    page.get_by_label("Present of the meeting").fill("Mara Oake, Tam Kerr, Wen Osei")
    page.get_by_label("A note of the meeting").fill(
        "The duct goes past the shaft; the structure leaves its wall as it is."
    )
    page.get_by_label("Assigned to").fill("Tam Kerr")
    page.get_by_label("Due date").fill("2026-12-11")
    page.get_by_label("decided").check()
    page.get_by_label("with this view").check()
    page.get_by_role("button", name="Note", exact=True).click()
    page.get_by_test_id("point").wait_for()
    browser = page.context.browser
    assert browser is not None
    with browser.new_context(locale="en-GB", viewport={"width": 1280, "height": 800}) as context:
        other = context.new_page()
        be(other, page, "tam")
        other.goto(page.url.split("#")[0])
        wait_drawn(other)
        page.get_by_role("button", name="2 here").click()
        page.get_by_role("button", name="Present to the others").click()
        other.get_by_text("Mara Oake presents.").wait_for()
        other.keyboard.press("Shift+F")
        other.get_by_text("You follow Mara Oake.").wait_for()
        x, y = 560, 330
        page.mouse.move(x, y, steps=4)
        page.keyboard.press("Shift+Y")
        other.get_by_test_id("did").filter(has_text="faded").wait_for()
        wait_resting(other)
        other.wait_for_function(DRAWN_IN_FULL.replace("c.dataset.inFull === 'yes' && ", ""), timeout=60_000)
        other.screenshot(path=TO / "following.png")
        page.get_by_role("button", name="Stop presenting").click()
    page.keyboard.press("Control+z")
    address = page.get_by_role("link", name="Page", exact=True).get_attribute("href")
    with browser.new_context(locale="en-GB", viewport={"width": 900, "height": 1000}) as context:
        minutes = context.new_page()
        be(minutes, page, "mara")
        minutes.goto(page.url.split("/p/")[0] + str(address))
        minutes.get_by_role("heading", name="Coordination meeting 14").wait_for()
        minutes.screenshot(path=TO / "minutes.png")
    page.get_by_role("button", name="Delete", exact=True).click()
    page.get_by_role("button", name="Problems").click()


def listed(page: Page, keep: Callable[[str], None]) -> None:
    """The sea-water pipes of a level, alone, tinted by system, with their lengths."""
    from tests.e2e.conftest import pick_one
    from tests.e2e.stage import wait_posed, where

    page.get_by_role("tab", name="Register").click()
    page.get_by_role("button", name="Only components that meet a condition").click()
    page.get_by_label("Comparison").select_option("contains")
    page.get_by_label("Value").fill("sea-water")
    page.get_by_role("button", name="Add a condition").click()
    pick_one(page, "Question", "Level", 1)
    page.get_by_label("Value").nth(1).fill("Level 01")
    pick_one(page, "Step 1 of the grouping", "system")
    page.get_by_role("button", name="length", exact=True).click()
    page.get_by_test_id("register-count").filter(has_text="72").wait_for()
    page.get_by_role("button", name="isolate").first.click()
    page.get_by_role("button", name="tint by system").click()
    page.get_by_test_id("legend").wait_for()
    page.get_by_label("Open Sea-water supply", exact=True).click()
    here = where(page)
    page.keyboard.press("x")
    wait_posed(page, here)
    page.mouse.move(1100, 700)
    page.wait_for_load_state("networkidle")
    keep("register")
    for _ in range(2):
        page.keyboard.press("Control+z")
    for _ in range(2):
        page.get_by_role("button", name="Remove the condition").first.click()


def be(other: Page, page: Page, key: str) -> None:
    """Have somebody of the demo signed in at another browser."""
    other.request.post(f"{page.url.split('/p/')[0]}/api/demo/sign-in", data={"key": key})


def main() -> None:
    """Walk through the main views and keep a picture of each."""
    from tests.e2e.conftest import CHROMIUM, ask
    from tests.e2e.stage import wait_drawn, wait_posed, wait_resting

    mark = ROOT / "var" / "running"
    if not mark.exists():
        sys.exit("The demo does not run. Start it with STAIRPATH_WEB_DIR=web/dist-test make demo.")
    address = mark.read_text().split()[-1]
    # What is asked beside the page is asked as the same person.
    urllib.request.install_opener(urllib.request.build_opener(urllib.request.HTTPCookieProcessor()))
    ask(f"{address}/api/demo/sign-in", {"key": "mara"})
    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM)
        page = browser.new_page(locale="en-GB", viewport={"width": 1280, "height": 800})
        page.add_init_script(IN_FULL)

        def keep(name: str) -> None:
            # A processor that draws takes its time for a frame in full.
            page.wait_for_function(DRAWN_IN_FULL, timeout=60_000)
            page.screenshot(path=TO / f"{name}.png")

        page.goto(address)
        page.get_by_role("button", name="Mara Oake").wait_for()
        page.get_by_role("button", name="Mara Oake").click()
        page.get_by_test_id("project").first.wait_for()
        page.wait_for_load_state("networkidle")
        keep("start")
        page.get_by_role("link", name="Who is in Quillhaven").click()
        page.get_by_test_id("member").last.wait_for()
        keep("members")
        page.go_back()
        page.get_by_test_id("project").filter(has_text="Quillhaven").last.click()
        wait_drawn(page)
        press(page, "Roof, every discipline", 2)
        press(page, "ARC 02", 1)
        press(page, "STR 02", 2)
        page.mouse.move(720, 280)
        page.mouse.down()
        page.mouse.move(670, 310, steps=4)
        page.mouse.up()
        page.mouse.wheel(0, -150)
        wait_resting(page)
        pick(page, address, "AD-221")
        page.mouse.move(1100, 700)
        page.wait_for_load_state("networkidle")
        keep("project")
        before = page.locator("canvas").first.get_attribute("data-pose")
        page.get_by_role("button", name="Fit", exact=True).click()
        wait_posed(page, before)
        page.mouse.move(1100, 700)
        keep("component")
        page.keyboard.press("Shift+Y")
        page.get_by_test_id("reasons").click()
        page.get_by_test_id("reason").filter(has_text="all but").wait_for()
        wait_resting(page)
        keep("reasons")
        page.keyboard.press("Escape")
        page.keyboard.press("Control+z")
        page.get_by_role("tab", name="Viewpoints").click()
        # The demo's own, by levels; its first two levels have none or one.
        page.get_by_role("button", name="Level B1", exact=False).first.wait_for()
        before = page.locator("canvas").first.get_attribute("data-pose")
        page.get_by_role("button", name="Home", exact=True).click()
        page.mouse.move(640, 720)
        wait_posed(page, before)
        page.wait_for_load_state("networkidle")
        keep("viewpoints")
        cut_open(page, keep)
        measured(page, keep)
        found(page, keep)
        listed(page, keep)
        page.get_by_role("tab", name="Models").click()
        page.get_by_text("40 mm below").wait_for()
        wait_resting(page)
        keep("models")
        look_around(page, keep)
        on_foot(page, keep)
        browser.close()


if __name__ == "__main__":
    main()
