"""What cuts leave of triangles."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import numpy.typing as npt

from stairpath.core.geometry.plane import Plane

Array = npt.NDArray[np.float64]


def _beneath(corners: Array, plane: Plane) -> Array:
    """The parts of triangles (n, 3, 3) on the side of a plane that its normal points away from, as triangles."""
    height = plane.heights(corners)
    below = height <= 0
    count = below.sum(axis=1)
    parts = [corners[count == 3]]
    for lone in (1, 2):
        some = count == lone
        own, high, under = corners[some], height[some], below[some]
        if not len(own):
            continue
        # The corner that is alone on its side first, the others after it in order.
        at = np.argmax(under == (lone == 1), axis=1)
        rows = np.arange(len(own))
        a, b, c = (own[rows, (at + k) % 3] for k in range(3))
        ha, hb, hc = (high[rows, (at + k) % 3] for k in range(3))
        ab = a + (ha / (ha - hb))[:, None] * (b - a)
        ac = a + (ha / (ha - hc))[:, None] * (c - a)
        if lone == 1:
            parts.append(np.stack([a, ab, ac], axis=1))
        else:
            parts += [np.stack([ab, b, c], axis=1), np.stack([ab, c, ac], axis=1)]
    return np.concatenate(parts)


def kept(corners: Array, planes: Sequence[Plane]) -> Array:
    """What planes that cut at once leave of triangles (n, 3, 3), as triangles."""
    for plane in planes:
        corners = _beneath(corners, plane)
    return corners
