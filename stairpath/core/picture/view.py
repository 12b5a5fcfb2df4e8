"""A view document as a picture: what is shown, faded and tinted, cut open, measured and marked."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
from PIL import Image, ImageDraw, ImageFont

from stairpath.core.camera.framing import project
from stairpath.core.camera.pose import Pose
from stairpath.core.cutting.cuts import active_planes
from stairpath.core.palette import PAPER
from stairpath.core.picture.drawing import Cutting, draw
from stairpath.core.picture.scene import Scene, rgb
from stairpath.core.review.eye import pose_of
from stairpath.core.review.markups import INKS, Markup, drawn
from stairpath.core.review.view import View
from stairpath.core.visibility.rules import FADED, HIDDEN, resolve
from stairpath.core.visibility.selectors import These
from stairpath.core.visibility.traits import Traits

Array = npt.NDArray[np.float64]
_PICK_SHARE = 0.7
_FRAME_PX = 1000.0
"""Lines of markups are so many pixels thick in a frame of this width."""
_FIGURE_SHARE = 0.035
"""The height of a figure's letters as a share of the picture's."""


@dataclass(frozen=True, eq=False)
class Dimension:
    """A measured line (n, 3), and the figure that stands at it; without words it only leads there."""

    line: Array
    text: str = ""


def _numbers(traits: Traits, these: These) -> npt.NDArray[np.bool_]:
    found = np.zeros(traits.count, dtype=bool)
    for key, ids in these.of.items():
        found[traits.numbers_of(key, ids)] = True
    return found


def draw_view(
    scene: Scene, traits: Traits, view: View, size: tuple[int, int], measured: Sequence[Dimension] = ()
) -> Image.Image:
    """What a view shows of a scene whose components are numbered as in ``traits``, so many pixels wide and high.

    ``measured`` is what its measures come to in the building.
    """
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
    return _marked(picture, view, pose, measured)


def _marked(picture: Image.Image, view: View, pose: Pose, measured: Sequence[Dimension]) -> Image.Image:
    """A picture with the measures and markups of its view, twice as large and made smaller for smooth lines."""
    if not measured and not view.markups:
        return picture
    large = picture.resize((picture.width * 2, picture.height * 2), Image.Resampling.NEAREST)
    pen, thick = ImageDraw.Draw(large), large.width / _FRAME_PX
    for each in measured:
        _dimension(pen, each, pose, large.size, thick)
    for markup in view.markups:
        _mark(pen, markup, pose, large.size, thick)
    return large.reduce(2)


def _placed(points: npt.NDArray[np.float64], pose: Pose, size: tuple[int, int]) -> list[tuple[float, float]]:
    """Where points (n, 3) are in a picture, those before the eye."""
    flat = project(points, pose)
    before = (flat[:, 2] > 0) & np.isfinite(flat).all(axis=1) & (np.abs(flat[:, :2]) < 50).all(axis=1)
    return [((x + 1) / 2 * size[0], (1 - y) / 2 * size[1]) for x, y, _ in flat[before].tolist()]


def _line(pen: ImageDraw.ImageDraw, places: Sequence[tuple[float, float]], colour: str, thick: float) -> None:
    if len(places) > 1:
        pen.line(list(places), fill=colour, width=max(1, round(thick)), joint="curve")


def _dimension(pen: ImageDraw.ImageDraw, of: Dimension, pose: Pose, size: tuple[int, int], thick: float) -> None:
    """A measured line with a short oblique stroke at either end, and its figure at its middle."""
    places = _placed(of.line, pose, size)
    _line(pen, places, INKS["ink"], (2 if of.text else 1) * thick)
    if not of.text or len(places) < 2:
        return
    for x, y in (places[0], places[-1]):
        _line(pen, [(x - 9 * thick, y + 9 * thick), (x + 9 * thick, y - 9 * thick)], INKS["ink"], 3 * thick)
    (x, y), (u, v) = places[(len(places) - 1) // 2], places[len(places) // 2]
    middle = (x + u) / 2, (y + v) / 2
    _words(pen, middle, of.text, "mm", max(12.0, _FIGURE_SHARE * size[1]), INKS["ink"], thick)


def _words(
    pen: ImageDraw.ImageDraw, at: tuple[float, float], text: str, anchor: str, high: float, border: str, thick: float
) -> None:
    """Words on paper with a border, so many pixels high, anchored at a place."""
    font = ImageFont.load_default(high)
    left, top, right, bottom = pen.multiline_textbbox(at, text, font=font, anchor=anchor, align="center")
    pad = 4 * thick
    box = (left - pad, top - pad, right + pad, bottom + pad)
    pen.rectangle(box, fill=PAPER, outline=border, width=max(1, round(thick)))
    pen.multiline_text(at, text, font=font, anchor=anchor, align="center", fill=INKS["ink"])


def _mark(pen: ImageDraw.ImageDraw, markup: Markup, pose: Pose, size: tuple[int, int], thick: float) -> None:
    made = drawn(markup)
    for stroke in made.strokes:
        _line(pen, _placed(stroke.points_m, pose, size), INKS[markup.colour], markup.width_px * thick)
    at = _placed(np.array([made.text_at_m]), pose, size)
    if markup.text and at:
        high = max(12.0, markup.text_share * size[1])
        _words(pen, at[0], markup.text, "ma", high, INKS[markup.colour], thick)
