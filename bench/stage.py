"""A frame of the demo on the stage, against a bare page with the same triangles."""

from __future__ import annotations

import os
import subprocess
import sys
import time
import urllib.request
from pathlib import Path

from playwright.sync_api import Page, sync_playwright
from sqlalchemy import select

from bench.measure import Measure, middle
from stairpath.jobs.tasks import map_walks
from stairpath.start.postgres import free_port
from stairpath.store.database import transaction
from stairpath.store.tables import Project
from tests.e2e.conftest import CHROMIUM
from tests.e2e.stage import wait_drawn

ROOT = Path(__file__).resolve().parents[1]

# Draws one frame and waits for the pixel that proves it is done.
_TIME = """async ([count, edges, turn]) => {
  const stage = window.stairpath.stage;
  stage.setStyle(edges ? "edges" : "plain");
  const { eye, target } = stage.pose;
  const pivot = stage.pivotPoint;
  let bearing = Math.atan2(target.x - eye.x, target.y - eye.y) * 180 / Math.PI;
  const gl = stage.canvas.getContext('webgl2');
  const pixel = new Uint8Array(4);
  const times = [];
  const places = [];
  for (let i = 0; i < count; i++) {
    const start = performance.now();
    if (turn) {
      stage.turnTo(bearing += turn, 24, pivot);
      stage.follow();
    }
    stage.draw();
    gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, pixel);
    times.push(performance.now() - start);
    const now = stage.pose;
    places.push([now.eye.toArray(), now.target.toArray(), now.up.toArray()]);
    if (i % 4 === 0) await new Promise((done) => setTimeout(done));
  }
  return [times, places];
}"""
# Hides a level and shows it again in turn, and draws; whether anything but texels changed.
_TOGGLE = """async (count) => {
  const stage = window.stairpath.stage, { building } = stage;
  const levels = window.stairpath.open.seen().federation.models.flatMap((m) => m.level);
  const all = new Uint8Array(levels.length).fill(2);
  const without = Uint8Array.from(levels, (level) => (level === 2 ? 0 : 2));
  const gl = stage.canvas.getContext('webgl2');
  const pixel = new Uint8Array(4);
  stage.setStyle("plain");
  stage.draw();
  const before = [stage.drawInfo.geometries, stage.drawInfo.calls];
  const times = [];
  for (let i = 0; i < count; i++) {
    const start = performance.now();
    building.setVisible(i % 2 ? all : without);
    stage.draw();
    gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, pixel);
    times.push(performance.now() - start);
    if (i % 4 === 0) await new Promise((done) => setTimeout(done));
  }
  const after = [stage.drawInfo.geometries, stage.drawInfo.calls];
  return [times, before.join() === after.join()];
}"""
# Draws frames with a plane through the middle of the building: where it is, or carried on before each.
_CUT = """async ([count, step]) => {
  const stage = window.stairpath.stage, { building } = stage;
  const { Clips } = window.stairpath.open.clips;
  const { min, max } = building.bounds;
  const gl = stage.canvas.getContext('webgl2');
  const pixel = new Uint8Array(4);
  stage.setStyle("plain");
  let at = (min.z + max.z) / 2;
  const up = max.clone().set(0, 0, 1);
  building.setClips(new Clips([{ normal: up, at }]));
  const times = [];
  for (let i = 0; i < count; i++) {
    const start = performance.now();
    if (step) building.setClips(new Clips([{ normal: up, at: (at += i % 2 ? step : -step) }]));
    stage.draw();
    gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, pixel);
    times.push(performance.now() - start);
    if (i % 4 === 0) await new Promise((done) => setTimeout(done));
  }
  building.setClips(new Clips());
  return times;
}"""
# Draws frames in full, with shade and outlines worked out anew for each, or laid over as they were.
_IN_FULL = """async ([count, anew]) => {
  const stage = window.stairpath.stage;
  const gl = stage.canvas.getContext('webgl2');
  const pixel = new Uint8Array(4);
  stage.setStyle("edges");
  const times = [];
  for (let i = 0; i < count; i++) {
    if (anew) stage.building.shape++;
    const start = performance.now();
    stage.draw(stage.main, true);
    gl.readPixels(0, 0, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, pixel);
    times.push(performance.now() - start);
    if (i % 4 === 0) await new Promise((done) => setTimeout(done));
  }
  return times;
}"""
_BARE = "async ([count, places]) => window.timeBare(count, places)"
Places = list[list[list[float]]]
"""Eye, target and up of each frame."""
_FRAMES = 24
_WARM = 4
_FULL_FRAMES = 8
_ROUNDS = 3
_COPIES = 5
_PICKS = 400


def _serve(url: str, port: int) -> subprocess.Popen[bytes]:
    env = {
        **os.environ,
        "STAIRPATH_DATABASE_URL": url,
        "STAIRPATH_PORT": str(port),
        "STAIRPATH_WEB_DIR": str(ROOT / "web/dist-test"),
    }
    server = subprocess.Popen([sys.executable, "-m", "stairpath.api.server"], env=env, cwd=ROOT)
    for _ in range(300):
        try:
            urllib.request.urlopen(f"http://127.0.0.1:{port}/api/health", timeout=1).close()
            return server
        except OSError:
            time.sleep(0.1)
    raise RuntimeError("the server did not start")


def _project() -> str:
    with transaction() as session:
        found = session.scalar(select(Project.id).where(Project.name == "Quillhaven run 2"))
    assert found
    return found


_STEPS = 6000
_WALK = f"""() => {{
  const walker = window.stairpath.walker(), pose = window.stairpath.stage.pose;
  const begun = performance.now();
  for (let k = 0; k < {_STEPS}; k++) {{
    const turn = Math.floor(k / 400) * 1.1;
    walker.replay([[1, 1.4 * Math.cos(turn), 1.4 * Math.sin(turn)]]);
    walker.tick(0, 0, pose);
  }}
  return (performance.now() - begun) / {_STEPS};
}}"""


def _times(page: Page, edges: bool, turn_deg: float = 0.0) -> tuple[list[float], Places]:
    """Milliseconds of the frames after the first few, and where each of all frames was seen from."""
    times, places = page.evaluate(_TIME, [_FRAMES, edges, turn_deg])
    return times[_WARM:], places


def _bare_times(page: Page, places: Places) -> list[float]:
    times: list[float] = page.evaluate(_BARE, [_FRAMES, places])
    return times[_WARM:]


def _step_ms(page: Page) -> float:
    """Milliseconds that a sixtieth of a second of walking costs the page: the step, and the eye put in its place."""
    page.keyboard.press("/")
    page.keyboard.type("Corridor")
    page.locator("[role=listbox] [role=option]").first.wait_for()
    page.keyboard.press("Enter")
    page.wait_for_function("() => document.querySelector('canvas').dataset.rest === 'yes'")
    page.keyboard.press("m")
    page.wait_for_function("() => window.stairpath.walker?.()", timeout=120_000)
    took: float = page.evaluate(_WALK)
    return took


def measure(url: str) -> list[Measure]:
    """Frames in turn: ours without edges, ours with edges, the bare page; medians over all rounds."""
    port = free_port(8800)
    map_walks(_project())
    server = _serve(url, port)
    subprocess.run(
        ["npx", "vite", "build", "--config", "bench.vite.config.ts", "--logLevel", "error"],
        cwd=ROOT / "web",
        check=True,
    )
    plain: list[float] = []
    edged: list[float] = []
    bare: list[float] = []
    orbits: list[float] = []
    bare_orbits: list[float] = []
    toggled: list[float] = []
    dragged: list[float] = []
    cut: list[float] = []
    anew: list[float] = []
    again: list[float] = []
    try:
        with sync_playwright() as play:
            browser = play.chromium.launch(executable_path="/usr/bin/chromium", args=CHROMIUM)
            page = browser.new_page(viewport={"width": 1280, "height": 800})
            page.add_init_script("localStorage.setItem('stairpath.name', 'Bench')")
            page.goto(f"http://127.0.0.1:{port}/p/{_project()}")
            wait_drawn(page)
            info = page.evaluate("() => window.stairpath.stage.drawInfo")
            other = browser.new_page(viewport={"width": 1280, "height": 800})
            other.route("**/bare.html", lambda route: route.fulfill(path=str(ROOT / "web/dist-bench/bare.html")))
            other.route(
                "**/bare-assets/**",
                lambda route: route.fulfill(path=str(ROOT / "web/dist-bench" / route.request.url.split("/", 3)[3])),
            )
            size = page.evaluate(
                "() => [window.stairpath.stage.canvas.clientWidth, window.stairpath.stage.canvas.clientHeight]"
            )
            pose = page.locator("canvas").get_attribute("data-pose")
            other.goto(f"http://127.0.0.1:{port}/bare.html")
            triangles = other.evaluate("(given) => window.makeBare(given)", [_project(), size, pose])
            for _ in range(_ROUNDS):
                plain += _times(page, edges=False)[0]
                bare += _bare_times(other, [])
                edged += _times(page, edges=True)[0]
                anew += page.evaluate(_IN_FULL, [_FULL_FRAMES, True])[1:]
                again += page.evaluate(_IN_FULL, [_FULL_FRAMES, False])[1:]
                times, texels_only = page.evaluate(_TOGGLE, _FRAMES)
                if not texels_only:
                    raise RuntimeError("hiding a level changed geometry or draw calls")
                toggled += times[_WARM:]
                dragged += page.evaluate(_CUT, [_FRAMES, 0.05])[_WARM:]
                cut += page.evaluate(_CUT, [_FRAMES, 0.0])[_WARM:]
                for turn_deg in (3.0, -3.0):
                    times, places = _times(page, edges=False, turn_deg=turn_deg)
                    orbits += times
                    bare_orbits += _bare_times(other, places)
            picks, plain_picks, picked = other.evaluate("(given) => window.timePicking(given)", [_COPIES, _PICKS])
            step_ms = _step_ms(page)
            browser.close()
    finally:
        server.terminate()
        server.wait(20)
    how = (
        f"median of {len(plain)} frames, taken in turn; a frame is timed from the call until one pixel of it was read back. "
        f"Canvas {size[0]} x {size[1]}, the opening view. The bare page draws the same {triangles:,} triangles merged into one "
        f"mesh with one MeshLambertMaterial, one sun and one sky light, with as many samples for a pixel as ours (one, as a processor draws). Ours drew {info['calls']} calls with edges."
    )
    walk_how = (
        f"mean of {_STEPS} steps of a sixtieth of a second in the corridor, against walls too, each with the eye put in its place, "
        "on top of drawing. A frame that takes longer makes up for more steps, so the share of the time is the same at any rate."
    )
    orbit_how = (
        f"median of {len(orbits)} frames of the same kind with the view turned by 3 degrees before each, edges off, against "
        "the bare page turned to the same places. Where a frame takes over 80 ms the stage leaves edges out while it moves, as it does here."
    )
    pick_how = (
        f"median of {_PICKS} rays through random points of the opening view into {_COPIES} copies of the demo side by side "
        f"({triangles * _COPIES:,} triangles), {picked:.0%} of which met something; search trees built before. Wanted: 5 ms. The "
        "reference is three.js's own raycaster over the same meshes (20 of the rays)."
    )
    return [
        Measure("A frame of the demo, edges off", middle(plain), middle(bare), "ms", 1.3, how),
        Measure(
            "A frame of the demo, edges on",
            middle(edged),
            middle(bare),
            "ms",
            None,
            "the same with edges, stated beside it.",
        ),
        Measure(
            "A frame at rest with shade and outlines",
            middle(anew),
            middle(edged),
            "ms",
            None,
            f"median of {len(anew)}: the same with edges, drawn in full: surfaces again at twice the width and height, shade in "
            "corners, lines where components end and meet. The reference is the frame with edges alone.",
        ),
        Measure(
            "The same frame again",
            middle(again),
            middle(edged),
            "ms",
            None,
            f"median of {len(again)}: as when the cursor marks something in a resting view: what was worked out is laid over.",
        ),
        Measure(
            "A level hidden or shown, its frame drawn",
            middle(toggled),
            middle(plain),
            "ms",
            1.2,
            f"median of {len(toggled)}: from the states of all components to the pixel of the frame that shows them, edges "
            "off, against a frame that changes nothing. Geometries and draw calls are the same before and after.",
        ),
        Measure(
            "A frame while a plane is dragged",
            middle(dragged),
            middle(cut),
            "ms",
            1.1,
            f"median of {len(dragged)}: a level plane through the middle of the building carried on by 5 cm before each frame, "
            f"edges off, against the same cut frame at rest by the stage's own means.",
        ),
        Measure(
            "The same against a frame that nothing cuts",
            middle(dragged),
            middle(plain),
            "ms",
            None,
            "the same, stated beside it: what cuts is looked up for each pixel.",
        ),
        Measure("A frame while orbiting", middle(orbits), middle(bare_orbits), "ms", 1.15, orbit_how),
        Measure("A step of walking, of its sixtieth of a second", step_ms, 1000.0 / 60.0, "ms", 0.05, walk_how),
        Measure("Picking among a million triangles", middle(picks), middle(plain_picks), "ms", None, pick_how),
    ]
