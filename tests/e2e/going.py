"""How tests go places: by the find box, and on foot."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import shapely
from playwright.sync_api import Page

from tests.e2e.conftest import ask
from tests.e2e.stage import wait_resting

TURN_DEG_S = 90
WALK_M_S = 1.4
NEAR_M = 0.1
STOREY_M = 0.5
OFF_DEG = 1.5


def find(page: Page, name: str) -> None:
    """Do what the find box finds under a name."""
    page.keyboard.press("/")
    page.keyboard.type(name)
    page.locator("[role=listbox] [role=option]").first.wait_for()
    page.keyboard.press("Enter")


def in_room(page: Page, room: str) -> None:
    find(page, room)
    page.get_by_test_id("present-room").filter(has_text=room).wait_for()
    wait_resting(page)


def on_foot_in(page: Page, room: str) -> None:
    in_room(page, room)
    page.keyboard.press("m")
    page.get_by_test_id("walk-bar").wait_for()
    page.wait_for_function("() => window.stairpath.walker?.()")


def feet(page: Page) -> np.ndarray:
    """Where somebody on foot stands, about the project's origin."""
    return np.array(page.evaluate("() => window.stairpath.walker().feet.toArray()"))


def hold(page: Page, key: str, seconds: float) -> None:
    """Hold a key, and wait until what it did has come to rest."""
    page.keyboard.down(key)
    page.wait_for_timeout(1000 * seconds)
    page.keyboard.up(key)
    wait_resting(page)


def walk_to(page: Page, corner: np.ndarray) -> bool:
    """Turn to a point and walk straight there by the keys, and Repeat where something was in the way; whether one is there."""
    for _ in range(4):
        way = corner - feet(page)
        if np.hypot(*way[:2]) < NEAR_M:
            return bool(abs(way[2]) < STOREY_M)
        bearing = page.evaluate("() => window.stairpath.walker().heading.bearingDeg")
        off = (math.degrees(math.atan2(way[0], way[1])) - bearing + 540) % 360 - 180
        if abs(off) > OFF_DEG:
            hold(page, "ArrowRight" if off > 0 else "ArrowLeft", abs(off) / TURN_DEG_S)
        hold(page, "w", np.hypot(*way[:2]) / WALK_M_S)
    return False


def walk_the_way(page: Page, site: str, project: str, end: np.ndarray) -> list[dict[str, Any]]:
    """Find route from where one stands to a point and walk it by the keys, corner by corner; the ways found.

    As somebody does who has gone wrong, one asks again from there.
    """
    ways = []
    for _ in range(4):
        wish = {"body": "standing", "start": {"point_m": feet(page).tolist()}, "end": {"point_m": end.tolist()}}
        way: dict[str, Any] = ask(f"{site}/api/projects/{project}/routes/find", wish)
        assert way["found"], way
        ways.append(way)
        line = shapely.simplify(shapely.linestrings(way["points_m"]), 0.03)
        corners = shapely.get_coordinates(line, include_z=True)[1:]
        if all(walk_to(page, corner) for corner in corners):
            break
    return ways
