"""On foot by the keys of a real keyboard: up a stair and back, and all the way through the demo."""

from __future__ import annotations

import numpy as np
import pytest
from playwright.sync_api import Page, expect

from tests.e2e.conftest import ask, made, wait_mapped
from tests.e2e.going import feet, on_foot_in, walk_the_way
from tests.e2e.stage import wait_drawn, wait_resting


def test_up_a_stair_to_the_gallery_and_back(hall: Page, site, hall_project):
    origin = np.array(ask(f"{site}/api/projects/{hall_project}/federation")["origin_m"])
    on_foot_in(hall, "Hall")
    began = feet(hall)
    gallery = np.array([12.0, 3.0, 3.06]) - origin
    up = walk_the_way(hall, site, hall_project, gallery)
    assert up[0]["risers"] == 18
    assert feet(hall) == pytest.approx(gallery, abs=0.15)
    expect(hall.get_by_test_id("present-room")).to_have_text("1.01 Gallery")
    walk_the_way(hall, site, hall_project, began)
    assert feet(hall) == pytest.approx(began, abs=0.15)
    expect(hall.get_by_test_id("stop-line")).to_have_count(0)


@pytest.fixture
def quay(page: Page, site, demo_files):
    """The whole demo seen from before its entrance; its id; and points along the building's axes about the origin."""
    project = made(site, "Whole demo", {path.name: path.read_bytes() for path in demo_files}, 300)
    wait_mapped(site, project)
    federation = ask(f"{site}/api/projects/{project}/federation")
    level = next(level for level in federation["levels"] if level["name"] == "Level 00")
    plan = ask(f"{site}/api/projects/{project}/keyplans/{level['plan']}")
    hall = np.array(next(room for room in plan["rooms"] if room["number"] == "0.03")["outlines"][0])
    turn = np.radians(federation["building_north_deg"])
    axes = np.array([[np.cos(turn), -np.sin(turn)], [np.sin(turn), np.cos(turn)]])
    # The hall begins 18 m along the building's numbers.
    corner = (hall @ axes.T).min(axis=0) - np.array([18, 0])

    origin = np.array(federation["origin_m"])

    def point(x: float, y: float, z: float) -> np.ndarray:
        return np.append((corner + np.array([x, y])) @ axes, z - origin[2])

    eye, target = point(24, -6, 1.68) + origin, point(24, 4, 1.68) + origin
    look = ",".join(f"{v:.4f}" for v in (*eye, *target))
    page.goto(f"{site}/p/{project}#view=e{look},0,0,1,60,20")
    wait_drawn(page)
    return page, project, point


@pytest.mark.trial
def test_from_the_entrance_to_the_roof_plant_and_back(quay, site):
    page, project, point = quay
    outside, plant = point(24, -1.5, 0), point(38, 12, 12)
    page.keyboard.press("m")
    page.wait_for_function("() => window.stairpath.walker?.()")
    wait_resting(page)
    walk_the_way(page, site, project, outside)
    for there in (plant, outside):
        ways = walk_the_way(page, site, project, there)
        assert 70 <= ways[0]["risers"] <= 76
        assert feet(page) == pytest.approx(there, abs=0.2)
    expect(page.get_by_test_id("place").last).to_contain_text("walked")
