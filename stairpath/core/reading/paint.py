"""The surface colours that a file gives, one number for each triangle.

A paint is 0xRRGGBBAA; 0 says that the file gives none, so what is wholly transparent keeps an alpha of 1.
"""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import numpy.typing as npt

Paints = npt.NDArray[np.uint32]

NONE = 0
SEE_THROUGH_FROM = 0.15
"""From this transparency on, a surface is drawn see-through."""
_MOST_ALPHA = round(255 * (1.0 - SEE_THROUGH_FROM))


GLASS = 0xC4DADE59
"""What is see-through and of which no more is known."""


def _byte(share: float, least: int = 0) -> int:
    """A share from 0 to 1 as a byte; what is no number counts as 1."""
    return max(least, min(255, round(255 * share))) if math.isfinite(share) else 255


def paint(red: float, green: float, blue: float, transparency: float = 0.0) -> int:
    """A paint of shares from 0 to 1; a transparency that is no number counts as none."""
    alpha = _byte(1.0 - transparency, least=1)
    return _byte(red) << 24 | _byte(green) << 16 | _byte(blue) << 8 | alpha


def paint_of(material: Any) -> int:
    """The paint of a style as the geometry kernel gives it."""
    colour = material.diffuse
    return paint(colour.r(), colour.g(), colour.b(), material.transparency)


def is_see_through(paints: Paints) -> npt.NDArray[np.bool_]:
    """Which surfaces one looks through."""
    return np.asarray((paints != NONE) & ((paints & 0xFF) < _MOST_ALPHA))
