"""Whether the views of a file were written about another origin, told by the components that they name."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from stairpath.core.geometry.vectors import Vector, vector

FAR_M = 500.0
"""Nobody looks at a component from farther away."""
_FEWEST = 2
_OFF_M = 25.0


@dataclass(frozen=True)
class Sight:
    """An eye, where it looks, and the middle of what it has picked, in the project's coordinates."""

    eye_m: Vector
    direction: Vector
    picked_m: Vector


def shift_between(sights: Sequence[Sight]) -> Vector | None:
    """How far the views of a file lie beside the building, in whole metres; None where they do not, or it cannot be told.

    Where most eyes are far from what they have picked, the shift is sought that leads their lines of sight nearest past
    it: the least squares of the distances of points to lines, which two different directions settle.
    """
    if len(sights) < _FEWEST:
        return None
    eyes = np.array([s.eye_m for s in sights])
    picked = np.array([s.picked_m for s in sights])
    ways = np.array([s.direction for s in sights], dtype=np.float64)
    ways /= np.linalg.norm(ways, axis=1, keepdims=True)
    if float(np.median(np.linalg.norm(picked - eyes, axis=1))) < FAR_M:
        return None
    # Square to each line of sight: what moving along it does not change.
    square = np.eye(3) - ways[:, :, None] * ways[:, None, :]
    left, right = square.sum(axis=0), (square @ (picked - eyes)[:, :, None]).sum(axis=0)[:, 0]
    if np.linalg.cond(left) > 1e6:
        return None
    shift = np.rint(np.linalg.solve(left, right)).astype(np.float64)
    after = (square @ (picked - eyes - shift)[:, :, None])[:, :, 0]
    if float(np.median(np.linalg.norm(after, axis=1))) > _OFF_M:
        return None
    return vector(shift)
