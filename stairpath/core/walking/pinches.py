"""How wide and how high a way is, to the triangles, and what makes it so."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.walking.bodies import Body
from stairpath.core.walking.clearance import NOBODY, Space
from stairpath.core.walking.profile import SAMPLE_M, Profile

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]

WIDEST_M = 3.0
HIGHEST_M = 6.0
HEAD_RADIUS_M = 0.1
EVERY_M = 0.14
_SAME_M = 0.002
_ASIDE = 36
"""So many samples to both sides of the narrowest are measured too, to find the middle of the pinch."""
WIDTH_LIMIT_M = 0.90
HEIGHT_LIMIT_M = 2.00
"""Places narrower or lower than these are pinches unless other limits are given."""


@dataclass(frozen=True)
class Pinch:
    """A narrow or low place: ``what`` is width or height, ``at`` a point of the floor, and who makes it."""

    what: str
    size_m: float
    at: tuple[float, float, float]
    along_m: float
    components: tuple[int, ...]


def _heights(
    space: Space, profile: Profile, ks: Ints, body: Body, radius_m: float, aside_m: Array
) -> tuple[Array, Ints]:
    """Headroom over samples, up to 6 m, in discs of a radius so far to the sides; and the triangles that make it."""
    points, foot = profile.points[ks], profile.nosing_m[ks]
    best, found = np.full(len(ks), HIGHEST_M), np.full(len(ks), NOBODY)
    for aside in aside_m:
        places = points[:, :2] + profile.left[ks] * aside
        height, triangle = space.lowest_over(places, points[:, 2] + body.height_m / 2.0, foot + HIGHEST_M, radius_m)
        lower = (triangle >= 0) & (height - foot < best)
        best[lower], found[lower] = (height - foot)[lower], triangle[lower]
    return best, found


def headroom(space: Space, profile: Profile, body: Body, limit_m: float) -> tuple[Array, Ints]:
    """Headroom (n,) over every sample and the triangle that makes it, -1 for none in 6 m.

    Counted from the pitch line on a flight, straight up. A head's width is first looked over everywhere;
    where that may be the lowest or below the limit, line by line along the way.
    """
    every = np.arange(len(profile.points))
    coarse, found = _heights(space, profile, every[::2], body, HEAD_RADIUS_M, np.zeros(1))
    heights = np.repeat(coarse, 2)[: len(every)]
    whose = np.repeat(found, 2)[: len(every)]
    steep = HEAD_RADIUS_M  # so much a disc on a flight may be too low
    near = np.flatnonzero(heights <= max(limit_m, float(heights.min()) + steep))
    heights[near], whose[near] = _heights(space, profile, near, body, SAMPLE_M / 2.0, np.linspace(-0.1, 0.1, 5))
    heights[~np.isin(every, near)] = np.maximum(heights[~np.isin(every, near)], heights[near].min() if len(near) else 0)
    return heights, whose


def _least(values: Array, step: int = 1) -> int:
    """Where values are least: the middle of the run of samples that are as low to 2 mm."""
    best = int(np.argmin(values))
    last = best
    while last + step < len(values) and values[last + step] < values[best] + _SAME_M:
        last += step
    return best + (last - best) // (2 * step) * step


def _pinch(profile: Profile, what: str, k: int, size: float, components: list[int]) -> Pinch:
    x, y, z = (float(v) for v in profile.points[k])
    return Pinch(what, size, (x, y, z), float(profile.along_m[k]), tuple(dict.fromkeys(components)))


def runs(below: npt.NDArray[np.bool_], apart: int) -> list[tuple[int, int]]:
    """First and last of each run of True, runs less than ``apart`` from one another as one."""
    at = np.flatnonzero(below)
    if not len(at):
        return []
    breaks = np.flatnonzero(np.diff(at) > apart)
    firsts, lasts = np.concatenate([[0], breaks + 1]), np.concatenate([breaks, [len(at) - 1]])
    return [(int(at[a]), int(at[b])) for a, b in zip(firsts, lasts, strict=True)]


@dataclass(frozen=True)
class Sizes:
    """The narrowest and the lowest place of a way, None if it is open everywhere, and all pinches in order."""

    narrowest: Pinch | None
    lowest: Pinch | None
    pinches: tuple[Pinch, ...]


def sizes(
    space: Space, profile: Profile, body: Body, width_m: float = WIDTH_LIMIT_M, height_m: float = HEIGHT_LIMIT_M
) -> Sizes:
    """How wide and high a way is.

    Widths are looked for only where the room beside lets one be the narrowest or below the limit.
    """
    step = max(1, round(EVERY_M / SAMPLE_M))
    count = len(profile.points)
    samples = np.unique(np.append(np.arange(0, count, step), count - 1))
    widths = np.full(count, np.inf)
    makers = np.full((count, 2), NOBODY, dtype=np.int32)

    def measure(ks: Ints, limit_m: float) -> None:
        widths[ks], makers[ks] = space.widths(
            profile.points[ks], profile.left[ks], profile.room_m[ks], body, WIDEST_M, limit_m
        )

    measure(samples[np.argsort(profile.room_m[samples], kind="stable")], width_m)
    best = int(np.argmin(widths))
    if np.isfinite(widths[best]):
        around = np.arange(max(0, best - _ASIDE), min(count, best + _ASIDE + 1))
        measure(around, max(width_m, float(widths[best]) + _SAME_M))
    best = _least(widths)
    narrow = None
    if np.isfinite(widths[best]):
        narrow = _pinch(profile, "width", best, float(widths[best]), makers[best].tolist())

    heights, over = headroom(space, profile, body, height_m)
    owners = space.owners(over)
    top = _least(heights)
    low = _pinch(profile, "height", top, float(heights[top]), [int(owners[top])]) if over[top] >= 0 else None

    found = []
    for what, values, limit in (("width", widths, width_m), ("height", heights, height_m)):
        for a, b in runs(values < limit, 4 * step):
            least = best if what == "width" else top
            # The least of all was looked for more closely.
            k = least if a <= least <= b else a + _least(values[a : b + 1], step if what == "width" else 1)
            whose = makers[k].tolist() if what == "width" else [int(owners[k])]
            found.append(_pinch(profile, what, k, float(values[k]), whose))
    return Sizes(narrow, low, tuple(sorted(found, key=lambda p: p.along_m)))
