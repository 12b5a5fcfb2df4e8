"""From where two components that meet are seen with what is around them, as a person would stand to look."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

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
_ENOUGH = 0.08
"""Where less of one component is seen from everywhere, what stands before it has to be cut away."""
_SAMPLES = 24
_SAME = 1e-4


@dataclass(frozen=True)
class Sighting:
    """A direction of view along the building's axes, how much of the component seen least is seen so, 0 to 1, and
    whether that takes a cut box around the place.
    """

    bearing_deg: float
    tilt_deg: float
    seen: float
    boxed: bool


def forward(bearing_deg: float, tilt_deg: float) -> Array:
    """The way (3,) one looks along a bearing, clockwise from y, and a tilt, above zero looking down.

    >>> forward(90.0, 30.0).round(3).tolist()
    [0.866, 0.0, -0.5]
    """
    turn, tilt = math.radians(bearing_deg), math.radians(tilt_deg)
    return np.array([math.sin(turn) * math.cos(tilt), math.cos(turn) * math.cos(tilt), -math.sin(tilt)])


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


def first_met(eye: Array, points: Array, triangles: Array, within: tuple[Array, Array] | None = None) -> Array:
    """For each point (k, 3) how much of the way to it from an eye is free, 1 where all is.

    By T. Möller and B. Trumbore (1997), both sides counted; ``within`` leaves out what is met outside a box.
    """
    ways = points - eye
    one, other = triangles[:, 1] - triangles[:, 0], triangles[:, 2] - triangles[:, 0]
    from_eye = eye - triangles[:, 0]
    across = np.cross(from_eye, one)
    far = np.einsum("nc,nc->n", other, across)
    free = np.ones(len(points))
    for k, way in enumerate(ways):
        over = np.cross(way, other)
        size = np.einsum("nc,nc->n", one, over)
        with np.errstate(divide="ignore", invalid="ignore"):
            u = np.einsum("nc,nc->n", from_eye, over) / size
            v = across @ way / size
            t = far / size
            met = (np.abs(size) > 1e-12) & (u >= 0) & (v >= 0) & (u + v <= 1) & (t > _SAME) & (t < 1 - _SAME)
        if within is not None and met.any():
            at = eye + t[met, None] * way
            met[np.flatnonzero(met)] = ((at >= within[0]) & (at <= within[1])).all(axis=1)
        if met.any():
            free[k] = t[met].min()
    return free


def sighting(triangles: Array, component: Ints, parts: Sequence[int], place: Array) -> Sighting:
    """Where to look from at a place (3,) so that its parts, numbers of components, are both seen.

    ``triangles`` (n, 3, 3) along the building's axes are of ``component`` (n,). Raises ValueError with a sentence
    where a part has no shape.
    """
    half = np.array(HALF_M)
    reach = float(np.linalg.norm(half)) / math.sin(math.radians(ANGLE_DEG / 2))
    seen_of = []
    for part in parts:
        own = triangles[component == part]
        if not len(own):
            raise ValueError("One of the two components has no shape. Run the check again.")
        seen_of.append(samples(own, place, half))
    low, high = place - reach, place + reach
    near = triangles[((triangles.max(axis=1) >= low) & (triangles.min(axis=1) <= high)).all(axis=1)]
    box = (place - half - 0.01, place + half + 0.01)

    def best(within: tuple[Array, Array] | None) -> Sighting:
        found: list[tuple[float, Sighting]] = []
        for rank, tilt_deg in enumerate(_TILTS_DEG):
            for k in range(_BEARINGS):
                bearing_deg = (k + 0.5) * 360.0 / _BEARINGS
                eye = place - reach * forward(bearing_deg, tilt_deg)
                seen = min(float((first_met(eye, points, near, within) == 1.0).mean()) for points in seen_of)
                sight = Sighting(bearing_deg, tilt_deg, seen, within is not None)
                found.append((seen - _TELLING * rank, sight))
        return max(found, key=lambda each: each[0])[1]

    free = best(None)
    return free if free.seen >= _ENOUGH else best(box)
