"""Lines and hatches of a sheet: widths and types of ISO 128, hatches by material."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
import shapely

from stairpath.core.palette import INK, SOFT

Array = npt.NDArray[np.float64]


@dataclass(frozen=True)
class Pen:
    """A line: its width, and the lengths of its dashes and gaps, none for a line that is whole. Millimetres."""

    name: str
    width_mm: float
    dashes_mm: tuple[float, ...] = ()
    ink: str = INK


HEAVY = Pen("heavy", 0.5)
"""Cut edges (ISO 128-2 line group 0.5)."""
THIN = Pen("thin", 0.25)
"""What lies behind, and lettering."""
FINE = Pen("fine", 0.13, ink=SOFT)
"""Hatching."""
AXIS = Pen("axis", 0.18, (6.0, 1.5, 0.5, 1.5), SOFT)
"""Grid lines: long dashes and dots."""
LEVEL = Pen("level", 0.18, (3.0, 1.5), SOFT)
FRAME = Pen("frame", 0.7)
"""The frame of the sheet (ISO 5457)."""
PENS = {pen.name: pen for pen in (HEAVY, THIN, FINE, AXIS, LEVEL, FRAME)}

_CLOSE_MM, _WIDE_MM = 1.5, 3.0
_HATCHES: tuple[tuple[tuple[str, ...], tuple[tuple[float, float], ...]], ...] = (
    (("concrete", "screed", "mortar"), ((45.0, _WIDE_MM), (45.0, _WIDE_MM))),
    (("brick", "block", "masonry", "stone"), ((45.0, 2.0),)),
    (("steel", "aluminium", "aluminum", "metal", "iron", "copper", "zinc", "stainless", "galvan"), ((45.0, 0.8),)),
    (("timber", "wood", "oak", "ply", "birch", "laminate"), ((15.0, 1.2),)),
    (("insulation", "wool", "foam"), ((60.0, 2.0), (120.0, 2.0))),
    (("plaster", "gypsum", "board"), ((135.0, 1.2),)),
    (("glass", "glazing"), ()),
    (("earth", "soil", "gravel"), ((45.0, _WIDE_MM), (135.0, _WIDE_MM))),
    (("hdpe", "pvc", "polymer", "plastic", "acrylic", "rubber"), ((135.0, 0.8),)),
)
_OTHER = ((135.0, _CLOSE_MM),)


def hatch_of(material: str) -> tuple[tuple[float, float], ...]:
    """How a material is hatched: the angle of each set of lines, and how far apart they are, in millimetres.

    >>> hatch_of("C35 concrete, cast in place")[0], hatch_of("Float glass"), hatch_of("")
    ((45.0, 3.0), (), ((135.0, 1.5),))
    """
    words = material.casefold()
    for stems, lines in _HATCHES:
        if any(stem in words for stem in stems):
            return lines
    return _OTHER


def shift_of(sets: Sequence[tuple[float, float]], number: int) -> float:
    """How far a set of a hatch's lines is shifted across, as a share of its spacing.

    The second of two sets that run alike stands close beside the first.
    """
    return 0.25 if number and sets[number - 1][0] == sets[number][0] else 0.0


def hatching(area: shapely.Geometry, sets: Sequence[tuple[float, float]]) -> list[Array]:
    """The lines (each (2, 2)) of a hatch within an area on paper. They run on from one area to the next."""
    lines: list[Array] = []
    x0, y0, x1, y1 = shapely.bounds(area)
    corners = np.array([[x0, y0], [x1, y0], [x1, y1], [x0, y1]])
    for number, (angle, apart) in enumerate(sets):
        turn = np.radians(angle)
        along, across = np.array([np.cos(turn), np.sin(turn)]), np.array([-np.sin(turn), np.cos(turn)])
        reach, depth = corners @ along, corners @ across
        aside = apart * shift_of(sets, number)
        steps = np.arange(np.ceil((depth.min() - aside) / apart), np.floor((depth.max() - aside) / apart) + 1)
        places = steps[:, None] * apart * across + aside * across
        if not len(places):
            continue
        ends = np.stack([places + along * reach.min(), places + along * reach.max()], axis=1)
        parts = shapely.get_parts(shapely.intersection(shapely.linestrings(ends), area))
        lines += [shapely.get_coordinates(p)[[0, -1]] for p in parts if p.geom_type == "LineString" and p.length > 0.05]
    return lines
