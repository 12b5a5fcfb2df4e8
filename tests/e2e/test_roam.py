"""The random stranger: a short walk in each run; `make roam` lets many of them walk for minutes."""

from __future__ import annotations

import os
import sys
import time

import pytest
from playwright.sync_api import Error, Page

from tests.e2e.conftest import arrive
from tests.e2e.roam import Roamer, WrongError, roam, shrunk
from tests.e2e.stage import wait_drawn

LONG = os.environ.get("ROAM")
STEPS = 60 if LONG else 25
SEEDS = range(1, 2) if not LONG else range(int(os.environ.get("ROAM_FROM", "1")), 1000)
MINUTES = float(os.environ.get("ROAM_MINUTES", "10"))


TAMPERED = {
    "not what the core resolves": "() => { const s = window.stairpath.stage.building.states; s.texture.image.data[0] = 77; }",
    "outside the window": """() => { const b = document.createElement('button'); b.textContent = 'Lost';
        b.style = 'position:fixed;left:-200px;top:9px'; document.getElementById('root').append(b); }""",
    "larger than the window": """() => { const d = document.createElement('div'); d.style = 'width:5000px;height:9px';
        document.body.append(d); }""",
    "neighbours of the Trail": """() => { const t = window.stairpath.open.trail();
        t.places.push({ ...t.places[0], id: 99 }); }""",
    "console: oh": "() => console.error('oh')",
    "500 from": "() => fetch('/api/broken')",
}


@pytest.mark.parametrize("what", TAMPERED)
def test_the_stranger_notices_what_is_wrong(page: Page, site, house, what):
    page.route("**/api/broken", lambda route: route.fulfill(status=500, body="{}"))
    stranger = Roamer(page, 0)
    with stranger.listening():
        page.goto(f"{site}/p/{house}")
        wait_drawn(page)
        page.get_by_test_id("place").first.wait_for()
        stranger.check()
        page.evaluate(TAMPERED[what])
        page.wait_for_timeout(50)
        with pytest.raises(WrongError, match=what):
            stranger.check()
    page.unroute("**/api/broken")


def test_a_list_of_steps_is_shrunk_to_those_that_matter():
    assert list(shrunk(lambda steps: 7 in steps and 30 in steps, range(40), 200)) == [7, 30]


def kind_of(error: Exception) -> str:
    return error.kind if isinstance(error, WrongError) else type(error).__name__


def test_a_random_stranger_finds_nothing_wrong(page: Page, site, house):
    address = f"{site}/p/{house}"
    until = time.monotonic() + 60 * MINUTES
    walked = tries = 0
    wanted = ""

    def fails(steps) -> bool:
        nonlocal tries
        tries += 1
        arrive(page, site, f"Again {seed} {tries}")
        try:
            roam(page, address, seed, steps)
        except (WrongError, Error) as error:
            sys.stdout.write(f"  {len(steps)} steps: {str(error)[:600]}\n")
            return kind_of(error) == wanted
        return False

    for seed in SEEDS:
        if LONG and time.monotonic() > until:
            break
        arrive(page, site, f"Stranger {seed}")
        try:
            roam(page, address, seed, range(STEPS))
        except (WrongError, Error) as error:
            wanted = kind_of(error)
            least = shrunk(fails, range(STEPS), 24) if LONG else range(STEPS)
            pytest.fail(f"{error}\nfewest steps of seed {seed} that fail: {list(least)}")
        walked += STEPS
    sys.stdout.write(f"{walked} actions, nothing wrong\n")
