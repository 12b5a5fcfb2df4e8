"""A view document as a picture: what is shown, faded and tinted, cut open, measured and marked."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
import numpy.typing as npt
from PIL import Image, ImageDraw, ImageFont

from stairpath.core.camera.framing import project
from stairpath.core.camera.pose import Pose
from stairpath.core.cutting.cuts import active_planes
from stairpath.core.measuring.measures import PointsMeasure
from stairpath.core.picture.drawing import Cutting, draw
from stairpath.core.picture.scene import Scene, rgb
from stairpath.core.review.eye import pose_of
from stairpath.core.review.markups import INKS, Markup, drawn
from stairpath.core.review.view import View
from stairpath.core.visibility.rules import FADED, HIDDEN, resolve
from stairpath.core.visibility.selectors import These
from stairpath.core.visibility.traits import Traits

_PICK_SHARE = 0.7
_PAPER = "#faf8f4"
_FRAME_PX = 1000.0
"""Lines of markups are so many pixels thick in a frame of this width."""


def _numbers(traits: Traits, these: These) -> npt.NDArray[np.bool_]:
    found = np.zeros(traits.count, dtype=bool)
    for key, ids in these.of.items():
        found[traits.numbers_of(key, ids)] = True
    return found


def draw_view(scene: Scene, traits: Traits, view: View, size: tuple[int, int]) -> Image.Image:
    """What a view shows of a scene whose components are numbered as in ``traits``, so many pixels wide and high."""
    resolved = resolve(traits, view.rules)
    shown = (resolved.state != HIDDEN) & traits.stands
    colours = scene.colours.copy()
    for value in np.unique(resolved.tint[resolved.tint >= 0]).tolist():
        colours[resolved.tint == value] = ((value >> 16) & 255, (value >> 8) & 255, value & 255)
    picked = _numbers(traits, view.picked)
    colours[picked] = colours[picked] * (1 - _PICK_SHARE) + np.array(rgb(INKS["pick"]), np.float32) * _PICK_SHARE
    part = Scene(scene.corners_m, scene.owner, scene.glass, colours).only(shown)
    pose = pose_of(view.eye, size[0] / size[1])
    away = float(np.linalg.norm(np.subtract(view.eye.target_m, view.eye.eye_m)))
    cutting = Cutting(
        tuple(each for _, each in active_planes(view.cuts)),
        view.limits.through_m,
        math.inf if view.limits.depth_m is None else away + view.limits.depth_m,
        _numbers(traits, view.whole),
    )
    picture = draw(part, pose, size, cutting, (resolved.state == FADED) & shown)
    return _marked(picture, view, pose)


def _marked(picture: Image.Image, view: View, pose: Pose) -> Image.Image:
    """A picture with the measures and markups of its view, twice as large and made smaller for smooth lines."""
    measures = [m.what.points_m for m in view.measures if isinstance(m.what, PointsMeasure)]
    if not measures and not view.markups:
        return picture
    large = picture.resize((picture.width * 2, picture.height * 2), Image.Resampling.BICUBIC)
    pen, thick = ImageDraw.Draw(large), large.width / _FRAME_PX
    for points in measures:
        _line(pen, _placed(np.array(points), pose, large.size), INKS["ink"], 2 * thick)
    for markup in view.markups:
        _mark(pen, markup, pose, large.size, thick)
    return large.resize(picture.size, Image.Resampling.LANCZOS)


def _placed(points: npt.NDArray[np.float64], pose: Pose, size: tuple[int, int]) -> list[tuple[float, float]]:
    """Where points (n, 3) are in a picture, those before the eye."""
    flat = project(points, pose)
    before = (flat[:, 2] > 0) & np.isfinite(flat).all(axis=1) & (np.abs(flat[:, :2]) < 50).all(axis=1)
    return [((x + 1) / 2 * size[0], (1 - y) / 2 * size[1]) for x, y, _ in flat[before].tolist()]


def _line(pen: ImageDraw.ImageDraw, places: Sequence[tuple[float, float]], colour: str, thick: float) -> None:
    if len(places) > 1:
        pen.line(list(places), fill=colour, width=max(1, round(thick)), joint="curve")


def _mark(pen: ImageDraw.ImageDraw, markup: Markup, pose: Pose, size: tuple[int, int], thick: float) -> None:
    made = drawn(markup)
    for stroke in made.strokes:
        _line(pen, _placed(stroke.points_m, pose, size), INKS[markup.colour], markup.width_px * thick)
    at = _placed(np.array([made.text_at_m]), pose, size)
    if not markup.text or not at:
        return
    font = ImageFont.load_default(max(12.0, markup.text_share * size[1]))
    left, top, right, bottom = pen.multiline_textbbox(at[0], markup.text, font=font, anchor="ma", align="center")
    pad = 4 * thick
    box = (left - pad, top - pad, right + pad, bottom + pad)
    pen.rectangle(box, fill=_PAPER, outline=INKS[markup.colour], width=max(1, round(thick)))
    pen.multiline_text(at[0], markup.text, font=font, anchor="ma", align="center", fill=INKS["ink"])
