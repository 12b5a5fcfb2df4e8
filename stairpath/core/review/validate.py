"""Whether a view that came from somewhere can be kept: every figure of it is one, and nothing of it is without end."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Mapping

from stairpath.core.camera.pose import NoSightError
from stairpath.core.cutting.cuts import too_many_planes
from stairpath.core.limits import LEAST_ASPECT, MOST_ASPECT, WORLD_M
from stairpath.core.review.eye import LEAST_HEIGHT_M, axes_of
from stairpath.core.review.view import PictureFrame, View

_MOST = {"rules": 500, "cuts": 24, "measures": 200, "markups": 500, "pictures": 100, "points_m": 4000}
_MOST_NAMED, _MOST_LETTERS, _MOST_MODELS = 200_000, 400, 1000
_LETTERS = {
    "text": 2000,
    "sha256": 64,
    "global_id": 200,
    "colour": 9,
    "id": 40,
    "by": 80,
    "at": 40,
    "unit": 20,
    "called": 80,
    "name": 120,
}


def is_valid(view: View) -> bool:
    """Whether a view is within what is kept: coordinates, lens, counts and lengths of its texts."""
    eye = view.eye
    lens = (
        1 <= eye.angle_deg <= 120 and LEAST_HEIGHT_M <= eye.height_m <= WORLD_M and 0 <= view.limits.through_m <= 1000
    )
    if not lens or (view.limits.depth_m is not None and not 0 < view.limits.depth_m <= 1e6):
        return False
    frame = view.frame
    if frame is not None and not is_frame(frame):
        return False
    if too_many_planes((cut.shape.kind, cut.off) for cut in view.cuts) or not _within(dataclasses.asdict(view), ""):
        return False
    try:
        for each in (eye, *(markup.eye for markup in view.markups)):
            axes_of(each)
    except NoSightError:
        return False
    return all(
        LEAST_ASPECT <= m.aspect <= MOST_ASPECT
        and 0.5 <= m.width_px <= 20
        and 0.005 <= m.text_share <= 0.3
        and m.points_m
        for m in view.markups
    )


def is_frame(frame: PictureFrame) -> bool:
    """Whether a picture's frame has some extent, and not more than a lens can have."""
    sides = (frame.left, frame.right, frame.bottom, frame.top)
    wide, high = frame.right - frame.left, frame.top - frame.bottom
    return (
        LEAST_ASPECT <= frame.aspect <= MOST_ASPECT
        and all(abs(side) <= 4 for side in sides)
        and wide >= 0.02
        and high >= 0.02
    )


def _within(value: object, name: str) -> bool:
    if isinstance(value, bool) or value is None:
        return True
    if isinstance(value, (int, float)):
        return math.isfinite(value) and abs(value) <= WORLD_M
    if isinstance(value, str):
        return len(value) <= _LETTERS.get(name, _MOST_LETTERS) and "\0" not in value
    if isinstance(value, Mapping):
        few = len(value) <= _MOST_MODELS
        return few and all(len(str(key)) <= 64 and _within(each, str(key)) for key, each in value.items())
    if isinstance(value, (list, tuple)):
        return len(value) <= _MOST.get(name, _MOST_NAMED) and all(_within(each, name) for each in value)
    return False
