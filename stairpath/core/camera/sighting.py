"""From where two components that meet are seen with what is around them, as a person would stand to look."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.camera.loops.sight import seen
from stairpath.core.camera.pose import axes

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.integer]

HALF_M = (2.0, 2.0, 1.4)
"""So far around the place its surroundings count, along the building's axes and up."""
ANGLE_DEG = 50.0
"""Through this lens, as one that is neither wide nor long."""
_TILTS_DEG = (28.0, 12.0, 50.0, -25.0)
"""From these heights one looks, the most telling one first; above zero is from above."""
_BEARINGS = 12
_TELLING = 0.06
"""The better height is worth so much of what is seen."""
_PLENTY = 0.3
"""More of a component's faces is rarely turned towards the eye, and tells no more."""
_ENOUGH = 0.08
"""Where less of one component is seen from everywhere, what stands before it has to be cut away."""
_SAMPLES = 16


@dataclass(frozen=True)
class Sighting:
    """A direction of view along the building's axes, how much of the component seen least is seen so, 0 to 1, and
    whether that takes a cut box around the place.
    """

    bearing_deg: float
    tilt_deg: float
    seen: float
    boxed: bool


def samples(triangles: Array, place: Array, half: Array) -> Array:
    """Points (k, 3) on a component's triangles (n, 3, 3) around a place, spread over them; the nearest where none is."""
    share = np.array([(i, j, 6 - i - j) for i in range(7) for j in range(7 - i)], dtype=np.float64) / 6.0
    points: Array = np.einsum("ks,nsc->nkc", share, triangles).reshape(-1, 3)
    away = np.abs(points - place) / half
    near = np.flatnonzero((away <= 1.0).all(axis=1))
    if not len(near):
        return points[np.argsort(np.linalg.norm(points - place, axis=1))[:3]]
    order = near[np.argsort(np.linalg.norm(points[near] - place, axis=1), kind="stable")]
    return points[order[:: max(1, len(order) // _SAMPLES)][:_SAMPLES]]


def share_seen(eye: Array, points: Array, triangles: Array, within: tuple[Array, Array] | None = None) -> float:
    """The share of some points (k, 3) that is seen from an eye past triangles (n, 3, 3), or past those in a box alone."""
    low, high = within or (eye, eye)
    return float(seen(eye, points, triangles, low, high, within is not None)) / len(points)


def sighting(triangles: Array, component: Ints, parts: Sequence[int], place: Array) -> Sighting:
    """Where to look from at a place (3,) so that its parts, numbers of components, are both seen.

    ``triangles`` (n, 3, 3) along the building's axes are of ``component`` (n,). Raises ValueError with a sentence
    where a part has no shape.
    """
    half = np.array(HALF_M)
    reach = float(np.linalg.norm(half)) / math.sin(math.radians(ANGLE_DEG / 2))
    points_of = []
    for part in parts:
        own = triangles[component == part]
        if not len(own):
            raise ValueError("One of the two components has no shape. Run the check again.")
        points_of.append(samples(own, place, half))
    low, high = place - reach, place + reach
    near = np.ascontiguousarray(
        triangles[((triangles.max(axis=1) >= low) & (triangles.min(axis=1) <= high)).all(axis=1)]
    )
    box = (place - half - 0.01, place + half + 0.01)

    def best(within: tuple[Array, Array] | None) -> Sighting:
        found: list[tuple[float, Sighting]] = []
        for rank, tilt_deg in enumerate(_TILTS_DEG):
            for k in range(_BEARINGS):
                bearing_deg = (k + 0.5) * 360.0 / _BEARINGS
                eye = place - reach * axes(bearing_deg, tilt_deg)[2]
                share = min(share_seen(eye, points, near, within) for points in points_of)
                sight = Sighting(bearing_deg, tilt_deg, share, within is not None)
                found.append((min(share, _PLENTY) - _TELLING * rank, sight))
        return max(found, key=lambda each: each[0])[1]

    free = best(None)
    return free if free.seen >= _ENOUGH else best(box)
