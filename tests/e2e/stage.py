"""What tests do with the stage: wait for it, read its camera, point at components."""

from __future__ import annotations

import base64
import io
import json
from typing import Any

import numpy as np
from PIL import Image
from playwright.sync_api import Page

from stairpath.core.camera.framing import project
from stairpath.core.camera.pose import Pose

DRAWN = """() => {
  const c = document.querySelector('canvas');
  return c && c.dataset.total !== '0' && c.dataset.pending === '0' && c.dataset.pickable === 'yes' && c.dataset.rest === 'yes';
}"""
OFTEN_MS = 60
"""How often a page is asked: what is asked with every frame keeps it drawing frames."""
RESTING = "() => document.querySelector('canvas').dataset.rest === 'yes'"


def wait_drawn(page: Page) -> None:
    """Until everything is there, can be picked, and the eye rests."""
    page.wait_for_function(DRAWN, timeout=120_000, polling=OFTEN_MS)


def wait_resting(page: Page) -> None:
    page.wait_for_function(RESTING, timeout=90_000, polling=OFTEN_MS)


def where(page: Page) -> str | None:
    """The eye as the page says it now, to wait until it is elsewhere: a glide may be over before it is looked for."""
    return page.locator("canvas").first.get_attribute("data-pose")


def wait_posed(page: Page, before: str | None) -> None:
    """Until the eye is somewhere else than before, and rests there, however slowly frames come."""
    page.wait_for_function(
        "before => document.querySelector('canvas').dataset.pose !== before",
        arg=before,
        timeout=90_000,
        polling=OFTEN_MS,
    )
    wait_resting(page)


DRAWING = "[data-testid=drawing]"
"""What is drawn beside the stage."""


def pose_of(page: Page, view: str = "canvas") -> dict[str, Any]:
    shape: dict[str, Any] = json.loads(page.locator(view).get_attribute("data-pose") or "{}")
    return shape


def size_of(page: Page, view: str = "canvas") -> tuple[float, float, float, float]:
    box = page.locator(view).bounding_box()
    assert box
    return box["x"], box["y"], box["width"], box["height"]


def on_screen(page: Page, point_m, view: str = "canvas") -> tuple[float, float]:
    """Where a point about the project's origin falls on the page, by the core's own projection."""
    shape = pose_of(page, view)
    x, y, width, height = size_of(page, view)
    given: dict[str, Any] = {
        key: tuple(v) if isinstance(v, list) else v for key, v in shape.items() if key != "through_m"
    }
    pose = Pose(**given, aspect=width / height)
    ((u, v, depth),) = project(np.array([point_m]), pose)
    assert depth > 0
    return x + (u + 1) / 2 * width, y + (1 - v) / 2 * height


def numbers(page: Page, view: str = "canvas") -> np.ndarray:
    """The camera as one row of figures."""
    shape = pose_of(page, view)
    return np.array([*shape["eye_m"], *shape["target_m"], *shape["up"], shape["angle_deg"]])


def decoded(picture: str) -> np.ndarray:
    """The pixels (h, w, 3) of a picture as a page gives it."""
    data = base64.b64decode(picture.split(",", 1)[1])
    return np.asarray(Image.open(io.BytesIO(data)).convert("RGB")).astype(int)


def pixels(page: Page, full: bool = False) -> np.ndarray:
    """What the stage shows now without what lies over it, as while it moves or in full."""
    return decoded(page.evaluate("full => window.stairpath.stage.pictures.ofStage(4096, full)", full))
