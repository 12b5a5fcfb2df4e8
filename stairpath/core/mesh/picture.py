"""A small picture of a building, drawn without a graphics card."""

from __future__ import annotations

import io

import numba
import numpy as np
import numpy.typing as npt
from PIL import Image

from stairpath.core.camera.framing import Borders, frame, project
from stairpath.core.federation.federate import Federation
from stairpath.core.visibility.colours import base_colour

WIDTH, HEIGHT = 480, 300
_OVERSAMPLE = 2
_FILM = (243, 241, 236)
_BEARING_OFF_NORTH_DEG = 32.0
_TILT_DEG = 26.0
_SUN = np.array([0.35, -0.55, 0.76])


@numba.njit(cache=True)  # type: ignore[untyped-decorator]
def _fill(
    screen: npt.NDArray[np.float64], shade: npt.NDArray[np.float32], depth: npt.NDArray[np.float64],
    image: npt.NDArray[np.float32],
) -> None:  # fmt: skip
    """Depth-buffered triangles: ``screen`` (n, 3, 3) in pixels and one over depth, which is what
    runs straight across a screen; ``shade`` (n, 3).
    """
    height, width = depth.shape
    for t in range(screen.shape[0]):
        x0, y0, z0 = screen[t, 0]
        x1, y1, z1 = screen[t, 1]
        x2, y2, z2 = screen[t, 2]
        area = (x1 - x0) * (y2 - y0) - (x2 - x0) * (y1 - y0)
        if abs(area) < 1e-9:
            continue
        left, right = max(0, int(min(x0, x1, x2))), min(width - 1, int(max(x0, x1, x2)) + 1)
        top, bottom = max(0, int(min(y0, y1, y2))), min(height - 1, int(max(y0, y1, y2)) + 1)
        for y in range(top, bottom + 1):
            for x in range(left, right + 1):
                px, py = x + 0.5, y + 0.5
                a = ((x1 - px) * (y2 - py) - (x2 - px) * (y1 - py)) / area
                b = ((x2 - px) * (y0 - py) - (x0 - px) * (y2 - py)) / area
                c = 1.0 - a - b
                if a < 0 or b < 0 or c < 0:
                    continue
                z = a * z0 + b * z1 + c * z2
                if z > depth[y, x]:
                    depth[y, x] = z
                    image[y, x] = shade[t]


def _triangles(federation: Federation) -> tuple[npt.NDArray[np.float64], npt.NDArray[np.float32]]:
    """All standing triangles (n, 3, 3) about the origin, and their colours."""
    origin = np.array(federation.origin_m)
    corners, colours = [], []
    for model in federation.models:
        if not model.stands:
            continue
        matrix = model.alignment.matrix.copy()
        matrix[:3, 3] -= origin
        geometry = model.outline.geometry
        for placed, owner in enumerate(geometry.owner):
            if owner < 0 or model.apart[owner]:
                continue
            shape = geometry.shapes[geometry.shape[placed]]
            solid = shape.triangles[~shape.see_through]
            corners.append(geometry.points_of(placed, matrix)[solid])
            hex_colour = base_colour(int(model.discipline_of[owner]), model.outline.classes[owner])
            rgb = [int(hex_colour[i : i + 2], 16) for i in (1, 3, 5)]
            colours.append(np.tile(np.array(rgb, dtype=np.float32), (len(solid), 1)))
    if not corners:
        return np.zeros((0, 3, 3)), np.zeros((0, 3), np.float32)
    return np.concatenate(corners), np.concatenate(colours)


def draw_picture(federation: Federation) -> bytes | None:
    """A PNG of the whole building from its south-west, or None if there is nothing to draw."""
    triangles, colours = _triangles(federation)
    if not len(triangles):
        return None
    width, height = WIDTH * _OVERSAMPLE, HEIGHT * _OVERSAMPLE
    bearing = federation.building_north_deg + _BEARING_OFF_NORTH_DEG
    pose = frame(triangles.reshape(-1, 3), bearing, _TILT_DEG, width / height, borders=Borders.around(0.06))
    placed = project(triangles.reshape(-1, 3), pose)
    screen = np.column_stack([(placed[:, 0] + 1) / 2 * width, (1 - placed[:, 1]) / 2 * height, 1.0 / placed[:, 2]])
    normal = np.cross(triangles[:, 1] - triangles[:, 0], triangles[:, 2] - triangles[:, 0])
    normal /= np.maximum(np.linalg.norm(normal, axis=1, keepdims=True), 1e-12)
    light = 0.72 + 0.28 * np.abs(normal @ _SUN)
    image = np.empty((height, width, 3), dtype=np.float32)
    image[:] = _FILM
    depth = np.zeros((height, width))
    _fill(screen.reshape(-1, 3, 3), (colours * light[:, None]).astype(np.float32), depth, image)
    picture = Image.fromarray(np.clip(image, 0, 255).astype(np.uint8)).resize((WIDTH, HEIGHT), Image.Resampling.LANCZOS)
    out = io.BytesIO()
    picture.save(out, "PNG", optimize=True)
    return out.getvalue()
