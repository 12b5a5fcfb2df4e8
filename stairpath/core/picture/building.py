"""The picture that stands for a building, on the start page."""

from __future__ import annotations

import numpy as np

from stairpath.core.camera.first_view import OFF_NORTH_DEG, TILT_DEG
from stairpath.core.camera.framing import Borders, frame
from stairpath.core.federation.federate import Federation
from stairpath.core.picture.drawing import as_png, draw
from stairpath.core.picture.scene import scene_of, standing

SIZE = (480, 300)


def draw_picture(federation: Federation) -> bytes | None:
    """A PNG of the whole building from its south-west, or None if there is nothing to draw."""
    scene = scene_of(federation.models).only(standing(federation))
    if not len(scene.corners_m):
        return None
    bearing = federation.building_north_deg + OFF_NORTH_DEG
    points = np.unique(scene.corners_m.reshape(-1, 3), axis=0)
    pose = frame(points, bearing, TILT_DEG, SIZE[0] / SIZE[1], borders=Borders.around(0.06))
    return as_png(draw(scene, pose, SIZE))
