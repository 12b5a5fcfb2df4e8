"""Markups: what is drawn over a view by hand, and stays with its place in the model.

Each lies in the plane through the surface point where it was begun, square to the eye that drew it. From elsewhere it is
drawn as what it is while it can be read, else as a pin that leads back to that eye.
"""

from __future__ import annotations

import hashlib
import itertools
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Literal, get_args

import numpy as np
import numpy.typing as npt
from annotated_types import Ge, Le, Len, MaxLen

from stairpath.core.geometry.vectors import Vector, vector
from stairpath.core.limits import WORLD_M, Aspect, Moment, Person, Share
from stairpath.core.palette import HERE, INK, PICK, PLUM
from stairpath.core.review.eye import LEAST_HEIGHT_M, Eye, axes_of, height_at
from stairpath.core.texts import trimmed

Array = npt.NDArray[np.float64]
Kind = Literal["cloud", "arrow", "text", "callout", "rectangle", "ellipse", "polyline", "line", "freehand", "path"]
KINDS: tuple[Kind, ...] = get_args(Kind)
Colour = Literal["ink", "pick", "here", "plum"]
INKS: Mapping[Colour, str] = {"pick": PICK, "ink": INK, "here": HERE, "plum": PLUM}
Screen = tuple[Share, Share]
"""A place in the frame: from -1 to 1, right and up."""

CONE_DEG = 50.0
"""Seen from farther to the side, a markup is a pin."""
EVERYWHERE_DEG = 180.0
LEAST_SHARE, MOST_SHARE = 1 / 6, 5.0
"""So much lower or higher may what is seen at its plane be than when it was drawn."""
LONGEST_TEXT = 2000
MOST_POINTS = 4000
Width = Annotated[float, Ge(0.5), Le(20)]
TextShare = Annotated[float, Ge(0.005), Le(0.3)]
_FEWEST = {"text": 1}
_TWO = ("cloud", "arrow", "rectangle", "ellipse", "line", "callout")
_LEAST_SIZE = 0.004
"""A shape that is smaller than this share of the frame was a slip of the hand."""
_WOBBLE = 0.0011
_BUMP = 0.055
_HEAD, _HEAD_DEG = 0.045, 24.0
_ROUND = 72
_MOST_ALONG, _MOST_BUMPS = 2000, 120
_NEAREST_M = 1e-3


class NotAMarkupError(ValueError):
    """A markup that cannot be; the message says what to do."""


@dataclass(frozen=True)
class Markup:
    """A markup with a key of its own in its view.

    ``points_m`` are two opposite corners (cloud, rectangle, ellipse), both ends (line, arrow: at its head last), where it
    points and where its text is (callout), where it is (text), or all points of the way. A path is a line in space, as a
    file brought it: it lies in no plane, is drawn as it is and read from everywhere. ``text_share`` is the height of
    its letters as a share of the frame that it was drawn in.
    """

    id: Annotated[str, Len(1, 40)]
    kind: Kind
    points_m: Annotated[tuple[Vector, ...], Len(1, MOST_POINTS)]
    eye: Eye
    aspect: Aspect
    colour: Colour = "pick"
    width_px: Width = 2.5
    fill: bool = False
    text: Annotated[str, MaxLen(LONGEST_TEXT)] = ""
    text_share: TextShare = 0.028
    by: Person = ""
    at: Moment = ""


@dataclass(frozen=True)
class Style:
    """How a markup is drawn."""

    colour: Colour = "pick"
    width_px: Width = 2.5
    fill: bool = False
    text_share: TextShare = 0.028


@dataclass(frozen=True, eq=False)
class Stroke:
    """A line of points (n, 3) as a soft pencil draws it; one that is closed may be filled."""

    points_m: Array
    closed: bool = False


@dataclass(frozen=True, eq=False)
class Drawn:
    """What a markup comes to: its lines, where its text stands and how high its letters are, and from where it is read.

    It is read from within ``cone_deg`` about its ``normal``, while what is seen at its plane is at least ``least_m`` and
    at most ``most_m`` high.
    """

    strokes: tuple[Stroke, ...]
    at_m: Vector
    text_at_m: Vector
    text_m: float
    normal: Vector
    cone_deg: float
    least_m: float
    most_m: float


def _plane_point(eye: Eye, aspect: float, at: Screen, through: Array, normal: Array) -> Array:
    """Where the line of sight through a place of the frame meets a plane."""
    right, up, forward = axes_of(eye)
    start = np.array(eye.eye_m, dtype=np.float64)
    if eye.projection == "parallel":
        start = start + right * (at[0] * eye.height_m * aspect / 2) + up * (at[1] * eye.height_m / 2)
        way = forward
    else:
        half = math.tan(math.radians(eye.angle_deg) / 2)
        way = forward + right * (at[0] * half) + up * (at[1] * half / aspect)
    along = float(way @ normal)
    reach = float((through - start) @ normal)
    if abs(along) < 1e-3 or (eye.projection == "perspective" and reach / along <= 0):
        raise NotAMarkupError("The markup is seen edge-on from here. Go to its view first.")
    met: Array = start + way * (reach / along)
    if not (np.abs(met) <= WORLD_M).all():
        raise NotAMarkupError("That is too far away. Go closer and draw it there.")
    return met


def placed(
    id: str, kind: Kind, drawn: Sequence[Screen], through_m: Vector, eye: Eye, aspect: float,
    style: Style = Style(), text: str = "",
) -> Markup:  # fmt: skip
    """A markup as it was drawn in a frame, in the plane through a point, square to the eye.

    Raises NotAMarkupError for one without extent, or with more points than a hand draws.
    """
    if len(drawn) < _FEWEST.get(kind, 2) or (kind in _TWO and len(drawn) != 2):
        raise NotAMarkupError("A markup needs a beginning and an end; draw it with one drag.")
    if len(drawn) > MOST_POINTS:
        raise NotAMarkupError(f"A markup has at most {MOST_POINTS:,} points; draw it in several.")
    across = np.ptp(np.array(drawn, dtype=np.float64), axis=0)
    if kind != "text" and float(np.hypot(across[0] * aspect, across[1])) / 2 < _LEAST_SIZE:
        raise NotAMarkupError("That was too small to be seen; draw it larger.")
    _, _, forward = axes_of(eye)
    through = np.array(through_m, dtype=np.float64)
    points = tuple(vector(_plane_point(eye, aspect, at, through, -forward)) for at in drawn)
    return checked(
        Markup(id, kind, points, eye, aspect, style.colour, style.width_px, style.fill, text, style.text_share)
    )


def checked(markup: Markup) -> Markup:
    """A markup that can be; NotAMarkupError says what is wrong with another one."""
    if markup.kind in ("text", "callout") and not trimmed(markup.text):
        raise NotAMarkupError("There is nothing to read in it; type the text.")
    if len(markup.text) > LONGEST_TEXT:
        raise NotAMarkupError(f"A markup has at most {LONGEST_TEXT:,} letters; write the rest into the topic.")
    return markup


def moved(markup: Markup, eye: Eye, aspect: float, start: Screen, end: Screen, point: int | None = None) -> Markup:
    """A markup that was dragged within its plane from one place of a frame to another, or one point of it.

    Raises NotAMarkupError where its plane is seen from its edge.
    """
    _, _, forward = axes_of(markup.eye)
    through = np.array(markup.points_m[0], dtype=np.float64)
    by = _plane_point(eye, aspect, end, through, -forward) - _plane_point(eye, aspect, start, through, -forward)
    if point is not None and not 0 <= point < len(markup.points_m):
        raise NotAMarkupError("The markup has no such point any more; drag it again.")
    points = tuple(
        vector(np.array(p) + by) if point is None or point == k else p for k, p in enumerate(markup.points_m)
    )
    if not (np.abs(np.array(points)) <= WORLD_M).all():
        raise NotAMarkupError("That is too far away. Drag it less far.")
    return replace(markup, points_m=points)


def _noise(key: str, count: int) -> Array:
    """A smooth unevenness (n,) between -1 and 1, always the same for a key."""
    seed = int.from_bytes(hashlib.sha256(key.encode()).digest()[:8], "big")
    phases = np.random.default_rng(seed).uniform(0, 2 * math.pi, 3)
    t = np.arange(count, dtype=np.float64)
    waves = [np.sin(t * step + phase) for step, phase in zip((0.23, 0.61, 1.37), phases, strict=True)]
    return np.asarray(waves[0] * 0.5 + waves[1] * 0.32 + waves[2] * 0.18)


def _along(corners: Array, step: float) -> Array:
    """Points along a way on plan (n, 2), no farther apart than a step, and not so many that nobody could see them."""
    whole = float(np.linalg.norm(np.diff(corners, axis=0), axis=1).sum())
    step = max(step, whole / _MOST_ALONG, 1e-9)
    out = [corners[:1]]
    for a, b in itertools.pairwise(corners):
        pieces = max(1, math.ceil(float(np.linalg.norm(b - a)) / step))
        out.append(a + (b - a) * (np.arange(1, pieces + 1) / pieces)[:, None])
    return np.concatenate(out)


def _by_hand(way: Array, key: str, amount: float) -> Array:
    """A way as a hand draws it: a little to its sides."""
    if len(way) < 3:
        return way
    along = np.gradient(way, axis=0)
    lengths = np.linalg.norm(along, axis=1, keepdims=True)
    sides = np.column_stack([-along[:, 1], along[:, 0]]) / np.where(lengths > 0, lengths, 1)
    out: Array = way + sides * (_noise(key, len(way)) * amount)[:, None]
    return out


def _rectangle(a: Array, b: Array) -> Array:
    low, high = np.minimum(a, b), np.maximum(a, b)
    return np.array([low, [high[0], low[1]], high, [low[0], high[1]], low])


def _cloud(a: Array, b: Array, size: float) -> Array:
    """Bumps outwards along a rectangle, about as wide as a share of the frame."""
    corners = _rectangle(a, b)
    out = []
    for start, end in itertools.pairwise(corners):
        length = float(np.linalg.norm(end - start))
        bumps = min(_MOST_BUMPS, max(1, round(length / (_BUMP * size))))
        way = (end - start) / bumps
        side = np.array([way[1], -way[0]])
        turn = np.linspace(0, math.pi, 13)[:-1]
        for k in range(bumps):
            middle = start + way * (k + 0.5)
            out.append(middle - np.outer(np.cos(turn), way / 2) + np.outer(np.sin(turn), side * 0.42))
    return np.concatenate([*out, out[0][:1]])


def _ellipse(a: Array, b: Array) -> Array:
    turn = np.linspace(0, 2 * math.pi, _ROUND + 1)
    half = np.abs(b - a) / 2
    out: Array = (a + b) / 2 + np.column_stack([np.cos(turn) * half[0], np.sin(turn) * half[1]])
    return out


def _head(tail: Array, tip: Array, size: float) -> Array:
    """The two barbs of an arrow, through its tip."""
    way = tail - tip
    length = float(np.linalg.norm(way))
    if length == 0:
        return np.array([tip, tip])
    long = min(_HEAD * size, length * 0.6)
    turned = []
    for sign in (1, -1):
        angle = math.radians(_HEAD_DEG) * sign
        c, s = math.cos(angle), math.sin(angle)
        turned.append(tip + np.array([[c, -s], [s, c]]) @ way / length * long)
    return np.array([turned[0], tip, turned[1]])


def _smooth(way: Array) -> Array:
    """A way that a hand drew, without the corners of single pixels (Chaikin's corner cutting, twice)."""
    for _ in range(2):
        if len(way) < 3:
            break
        quarter, rest = way[:-1] * 0.75 + way[1:] * 0.25, way[:-1] * 0.25 + way[1:] * 0.75
        between = np.stack([quarter, rest], axis=1).reshape(-1, 2)
        way = np.concatenate([way[:1], between, way[-1:]])
    return way


def drawn(markup: Markup) -> Drawn:
    """What a markup comes to on its plane."""
    right, up, forward = axes_of(markup.eye)
    points = np.array(markup.points_m, dtype=np.float64)
    origin = points[0]
    if markup.kind == "path":
        return Drawn(
            (Stroke(points),), vector(origin), vector(origin), 0.0, vector(-forward), EVERYWHERE_DEG, 0.0, WORLD_M
        )
    flat = np.column_stack([(points - origin) @ right, (points - origin) @ up])
    depth = float((origin - np.array(markup.eye.eye_m)) @ forward)
    # One that is as near as the eye itself has some size all the same.
    size = max(height_at(markup.eye, max(depth, _NEAREST_M), markup.aspect), LEAST_HEIGHT_M)
    ways, closed, text_at = _ways(markup, flat, size)
    strokes = []
    for k, way in enumerate(ways):
        plain = markup.kind in {"freehand", "cloud"}
        fine = way if plain else _along(way, size * 0.02)
        wobbly = _by_hand(fine, f"{markup.id}/{k}", 0 if markup.kind == "freehand" else size * _WOBBLE)
        if closed:
            wobbly = np.concatenate([wobbly[:-1], wobbly[:1]])
        strokes.append(Stroke(origin + wobbly[:, :1] * right + wobbly[:, 1:] * up, closed))
    at = origin + text_at[0] * right + text_at[1] * up
    return Drawn(
        tuple(strokes), vector(origin), vector(at), markup.text_share * size, vector(-forward), CONE_DEG,
        size * LEAST_SHARE, size * MOST_SHARE,
    )  # fmt: skip


def _ways(markup: Markup, flat: Array, size: float) -> tuple[list[Array], bool, Array]:
    """The lines of a markup in its plane, whether they are closed, and where its text stands."""
    first, last = flat[0], flat[-1]
    if markup.kind == "text":
        return [], False, first
    if markup.kind == "callout":
        return [np.array([last, first]), _head(last, first, size)], False, last
    if markup.kind == "arrow":
        return [np.array([first, last]), _head(first, last, size)], False, (first + last) / 2
    if markup.kind in ("cloud", "rectangle", "ellipse"):
        shape = {"rectangle": _rectangle, "ellipse": _ellipse}.get(markup.kind)
        way = shape(first, last) if shape else _cloud(first, last, size)
        return [way], True, np.array([(first[0] + last[0]) / 2, max(first[1], last[1]) + size * 0.05])
    if markup.kind == "freehand":
        return [_smooth(flat)], False, first
    return [flat], False, first
