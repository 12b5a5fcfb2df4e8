"""A view document as the open format has it, and back.

The format shows, hides, selects and colours components, cuts by planes, and has lines and pictures in space; what a view
says beyond that goes beside it (see ``extension``).
"""

from __future__ import annotations

import io
import itertools
import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np
from PIL import Image, ImageDraw, ImageFont

from stairpath.core.camera.pose import NoSightError
from stairpath.core.cutting.cuts import Cut, PlaneCut, active_planes
from stairpath.core.exchange.absent import absent
from stairpath.core.exchange.bcf.writing import aspect_of
from stairpath.core.exchange.pictures import form_of
from stairpath.core.exchange.topic import Bitmap, Camera, Colouring, Component, Plane, Viewpoint
from stairpath.core.geometry.vectors import Vector, vector
from stairpath.core.limits import LEAST_ASPECT, MOST_ASPECT
from stairpath.core.measuring.measures import PointsMeasure
from stairpath.core.palette import PAPER
from stairpath.core.review.eye import Eye, across_deg, axes_of, vertical_deg
from stairpath.core.review.markups import INKS, MOST_POINTS, Markup, drawn
from stairpath.core.review.view import HungPicture, PictureFrame, View
from stairpath.core.visibility.rules import HIDDEN, MATERIALS, Rule, colour_text, resolve
from stairpath.core.visibility.selectors import These
from stairpath.core.visibility.traits import Traits

ANY_MODEL = ""
"""The key under which a view names components of whatever model: those that no model of the project has yet."""

_MOST_POINTS = 160
_LETTER_PX = 40
_PAD_PX = 16
_NEAR_M = 10.0
_LONGEST_ID, _MOST_TINTS, _MOST_CUTS, _MOST_WAYS = 200, 400, 20, 400
_SMALLEST_DEG, _LARGEST_DEG = 1.0, 120.0


def _named(traits: Traits, numbers: Sequence[int]) -> tuple[Component, ...]:
    return tuple(Component(traits.global_id(number)) for number in numbers)


def _camera(eye: Eye, aspect: float) -> Camera:
    _, up, forward = axes_of(eye)
    flat = eye.projection == "parallel"
    return Camera(
        eye.eye_m, vector(forward), vector(up), eye.projection,
        angle_deg=None if flat else vertical_deg(eye, aspect),
        height_m=eye.height_m if flat else None,
        aspect=aspect,
    )  # fmt: skip


def _planes(view: View) -> tuple[Plane, ...]:
    found = [Plane(p.point_m, p.normal) for _, p in active_planes(view.cuts)]
    _, _, forward = axes_of(view.eye)
    eye, target = np.array(view.eye.eye_m), np.array(view.eye.target_m)
    if view.limits.through_m > 0:
        found.append(Plane(vector(eye + forward * view.limits.through_m), vector(-forward)))
    if view.limits.depth_m is not None:
        found.append(Plane(vector(target + forward * view.limits.depth_m), vector(forward)))
    return tuple(found)


def _lines(view: View) -> tuple[tuple[Vector, Vector], ...]:
    ways = [np.array(m.what.points_m) for m in view.measures if isinstance(m.what, PointsMeasure)]
    for markup in view.markups:
        if markup.kind == "path":
            ways.append(np.array(markup.points_m))
            continue
        for stroke in drawn(markup).strokes:
            # As many points as can be told apart, the last one among them.
            step = max(1, math.ceil(len(stroke.points_m) / _MOST_POINTS))
            ways.append(np.concatenate([stroke.points_m[:-1:step], stroke.points_m[-1:]]))
    return tuple((vector(a), vector(b)) for way in ways for a, b in itertools.pairwise(way))


def written_picture(text: str, ink: str) -> bytes:
    """Words on paper with a border, as PNG."""
    font = ImageFont.load_default(_LETTER_PX)
    pen = ImageDraw.Draw(Image.new("RGB", (1, 1)))
    left, top, right, bottom = pen.multiline_textbbox((0, 0), text, font=font)
    size = (math.ceil(right - left) + 2 * _PAD_PX, math.ceil(bottom - top) + 2 * _PAD_PX)
    picture = Image.new("RGB", size, PAPER)
    pen = ImageDraw.Draw(picture)
    pen.rectangle((1, 1, size[0] - 2, size[1] - 2), outline=ink, width=3)
    pen.multiline_text((_PAD_PX - left, _PAD_PX - top), text, fill=INKS["ink"], font=font)
    out = io.BytesIO()
    picture.save(out, "PNG")
    return out.getvalue()


def _bitmaps(view: View) -> tuple[Bitmap, ...]:
    found = []
    for markup in view.markups:
        if not markup.text.strip():
            continue
        made = drawn(markup)
        _, up, _ = axes_of(markup.eye)
        lines = markup.text.count("\n") + 1
        picture = written_picture(markup.text, INKS[markup.colour])
        found.append(Bitmap("png", picture, made.text_at_m, made.normal, vector(up), made.text_m * (lines + 0.6)))
    return tuple(found)


Held = Callable[[str], bytes | None]
"""The bytes of a picture by its hash, or None where there are none."""


def words_count(view: View) -> int:
    """How many of the pictures that a view has in the format are words of its markups; they come first."""
    return sum(bool(markup.text.strip()) for markup in view.markups)


def hung(bitmap: Bitmap, sha256: str) -> HungPicture:
    """A picture of the format as a view keeps it."""
    return HungPicture(sha256, bitmap.at_m, bitmap.normal, bitmap.up, bitmap.height_m)


def _hung_bitmaps(view: View, held: Held) -> tuple[Bitmap, ...]:
    found = ((each, held(each.sha256)) for each in view.pictures)
    return tuple(
        Bitmap(form_of(data) or "png", data, each.at_m, each.normal, each.up, each.height_m)
        for each, data in found
        if data is not None
    )


def exchanged(view: View, guid: str, traits: Traits, snapshot: bytes | None, held: Held) -> Viewpoint:
    """A view as the format has it.

    Components of alternatives that do not stand are not part of what is seen; those that no model has yet, or no longer,
    are named as its rules name them.
    """
    aspect = view.frame.aspect if view.frame else aspect_of(snapshot)
    missing = absent(traits, view.rules)
    resolved = resolve(traits, view.rules)
    hidden = (resolved.state == HIDDEN) & traits.stands
    shown = ~hidden & traits.stands
    all_but = not missing.others_hidden if missing.some else int(hidden.sum()) <= int(shown.sum())
    tints = [Colouring(c, tuple(Component(g) for g in ids)) for c, ids in missing.tints.items() if c != MATERIALS]
    for value in np.unique(resolved.tint[traits.stands]).tolist():
        colour = colour_text(value)
        if value >= 0 and colour is not None:
            # What is hidden keeps its colour for who shows it.
            members = np.flatnonzero(traits.stands & (resolved.tint == value)).tolist()
            tints.append(Colouring(colour, _named(traits, members)))
    return Viewpoint(
        guid=guid,
        camera=_camera(view.eye, aspect),
        default_visible=all_but,
        exceptions=_named(traits, np.flatnonzero(hidden if all_but else shown).tolist())
        + tuple(Component(g) for g in (missing.hidden if all_but else missing.shown)),
        selected=tuple(Component(g) for ids in view.picked.of.values() for g in ids),
        colours=tuple(tints),
        planes=_planes(view),
        lines=_lines(view),
        bitmaps=_bitmaps(view) + _hung_bitmaps(view, held),
        snapshot=snapshot,
    )


@dataclass(frozen=True)
class Known:
    """What a project knows of components: whose each GlobalId is, and where the middle of some of them is."""

    model_of: Callable[[str], str | None]
    centre_of: Callable[[Sequence[str]], Vector | None]


def _these(components: Sequence[Component], known: Known) -> These:
    found: dict[str, list[str]] = {}
    for each in components:
        if each.global_id and len(each.global_id) <= _LONGEST_ID:
            found.setdefault(known.model_of(each.global_id) or ANY_MODEL, []).append(each.global_id)
    return These({key: tuple(ids) for key, ids in found.items()})


def _eye(view: Viewpoint, known: Known, aspect: float) -> Eye | None:
    camera = view.camera
    named = [each.global_id for each in (*view.selected, *view.exceptions) if each.global_id]
    centre = known.centre_of([each.global_id for each in view.selected]) or known.centre_of(named[:200])
    if camera is None:
        # Nothing says from where: from the south, from above, at what is meant.
        if centre is None:
            return None
        x, y, z = centre
        return Eye((x, y - _NEAR_M, z + _NEAR_M * 0.6), centre, (0.0, 0.0, 1.0), "perspective", 60.0, _NEAR_M)
    direction = np.array(camera.direction) / np.linalg.norm(camera.direction)
    eye = np.array(camera.eye_m)
    reach = float((np.array(centre) - eye) @ direction) if centre is not None else _NEAR_M
    target = eye + direction * (reach if reach > 0.1 else _NEAR_M)
    angle = across_deg(camera.angle_deg or 60.0, aspect)
    return Eye(
        vector(eye), vector(target), camera.up, camera.projection,
        min(max(angle, _SMALLEST_DEG), _LARGEST_DEG), camera.height_m or _NEAR_M,
    )  # fmt: skip


def _ways(lines: Sequence[tuple[Vector, Vector]]) -> list[list[Vector]]:
    """Lines whose ends meet, as ways."""
    ways: list[list[Vector]] = []
    for a, b in lines:
        if ways and ways[-1][-1] == a:
            ways[-1].append(b)
        else:
            ways.append([a, b])
    return ways


def _markups(view: Viewpoint, eye: Eye, aspect: float) -> tuple[Markup, ...]:
    """Lines in space as they came, in pieces of as many points as a markup may have."""
    pieces = [
        way[k : k + MOST_POINTS]
        for way in _ways(view.lines)[:_MOST_WAYS]
        for k in range(0, len(way) - 1, MOST_POINTS - 1)
    ]
    return tuple(
        Markup(f"line-{number + 1}", "path", tuple(piece), eye, aspect, "ink") for number, piece in enumerate(pieces)
    )


def seen(view: Viewpoint, known: Known, shift_m: Vector = (0.0, 0.0, 0.0)) -> View | None:
    """A viewpoint of a file as a view document, moved by so much; None where nothing says from where it is seen."""
    view = moved(view, shift_m)
    aspect = (view.camera.aspect if view.camera else None) or aspect_of(view.snapshot)
    eye = _eye(view, known, aspect)
    if eye is None:
        return None
    try:
        axes_of(eye)
    except NoSightError:
        return None
    rules = []
    if not view.default_visible:
        rules.append(Rule(_these(view.exceptions, known), "only"))
    elif view.exceptions:
        rules.append(Rule(_these(view.exceptions, known), "hide"))
    rules.extend(Rule(_these(each.components, known), "tint", each.colour) for each in view.colours[:_MOST_TINTS])
    cuts = [Cut(f"cut-{k + 1}", PlaneCut(p.point_m, p.direction)) for k, p in enumerate(view.planes[:_MOST_CUTS])]
    # The picture may be of another shape than what the camera sees.
    wide = view.camera.aspect if view.camera else None
    frame = PictureFrame(wide) if wide and LEAST_ASPECT <= wide <= MOST_ASPECT else None
    return View(
        eye=eye, rules=tuple(rules), cuts=tuple(cuts), markups=_markups(view, eye, aspect),
        picked=_these(view.selected, known), frame=frame,
    )  # fmt: skip


def moved(view: Viewpoint, by_m: Vector) -> Viewpoint:
    """A viewpoint with everything in it elsewhere by so much."""
    if not any(by_m):
        return view

    def there(at: Vector) -> Vector:
        return (at[0] + by_m[0], at[1] + by_m[1], at[2] + by_m[2])

    return replace(
        view,
        camera=replace(view.camera, eye_m=there(view.camera.eye_m)) if view.camera else None,
        planes=tuple(replace(p, point_m=there(p.point_m)) for p in view.planes),
        lines=tuple((there(a), there(b)) for a, b in view.lines),
        bitmaps=tuple(replace(b, at_m=there(b.at_m)) for b in view.bitmaps),
    )
