"""A route through the building: the way, how long and how steep it is, and where it is tight."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
import shapely

from stairpath.core.walking.blocked import Blocked, blocked
from stairpath.core.walking.clearance import Space
from stairpath.core.walking.pinches import HEIGHT_LIMIT_M, WIDTH_LIMIT_M, Pinch, Sizes, sizes
from stairpath.core.walking.place import Place, joined
from stairpath.core.walking.profile import Profile, profile
from stairpath.core.walking.search import fastest
from stairpath.core.walking.walkmap import WalkMap

Array = npt.NDArray[np.float64]

_DRAWN_M = 0.02
"""How far the drawn line may be off the floor's profile."""


@dataclass(frozen=True)
class Limits:
    """Below which clear width and headroom a place is a pinch."""

    width_m: float = WIDTH_LIMIT_M
    height_m: float = HEIGHT_LIMIT_M

    def __post_init__(self) -> None:
        if not (0.0 <= self.width_m <= 3.0 and 0.0 <= self.height_m <= 6.0):
            raise ValueError("A limit for pinches is up to 3 m for widths and up to 6 m for headroom.")


@dataclass(frozen=True)
class Route:
    """A way that somebody can walk; ``points`` (n, 3) along the building's axes, over flights along their slope."""

    points: Array
    length_m: float
    rise_m: float
    descent_m: float
    risers: int
    time_s: float
    narrowest: Pinch | None
    lowest: Pinch | None
    pinches: tuple[Pinch, ...]

    @property
    def involved(self) -> tuple[int, ...]:
        """All components that make it narrow or low."""
        tight = (self.narrowest, self.lowest, *self.pinches)
        return tuple(c for pinch in tight if pinch is not None for c in pinch.components)


def _line(found: Profile) -> Array:
    """The way as few points as it takes to draw it: its ends, its turns, and where the slope changes."""
    z = found.walk_m
    if len(z) == 1:
        return np.repeat(found.points, 2, axis=0)
    kept = found.turn.copy()
    line = shapely.LineString(np.column_stack([found.along_m, z]))
    if line.length > 0:
        simple = shapely.get_coordinates(line.simplify(_DRAWN_M))[:, 0]
        kept[np.searchsorted(found.along_m, simple - 1e-9).clip(0, len(z) - 1)] = True
    kept[0] = kept[-1] = True
    return np.column_stack([found.points[kept, :2], z[kept]])


def route(
    walk: WalkMap,
    space: Space,
    start: Place,
    end: Place,
    step_free: bool = False,
    limits: Limits | None = None,
    marks: npt.NDArray[np.float32] | None = None,
) -> Route | Blocked:
    """The quickest way from one place to another for the map's body, or why there is none."""
    limits = limits or Limits()
    both = joined(walk, start, end, step_free)
    if both is None:
        return blocked(walk, space, start.floors, end.floors, step_free)
    way = fastest(walk, *both, step_free, marks)
    if not len(way):
        return blocked(walk, space, start.floors, end.floors, step_free)
    places = walk.places(way)
    places[0], places[-1] = start.on(walk, both[0]), end.on(walk, both[1])
    found = profile(space, walk, places, both)
    tight: Sizes = sizes(space, found, walk.body, limits.width_m, limits.height_m)
    return Route(
        _line(found), found.length_m, found.rise_m, found.descent_m, found.risers,
        found.time_s(walk.body.speed_m_s), tight.narrowest, tight.lowest, tight.pinches,
    )  # fmt: skip
