"""A route through the building: the way, how long and how steep it is, and where it is tight."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt
import shapely

from stairpath.core.walking.blocked import Blocked, blocked
from stairpath.core.walking.clearance import Space
from stairpath.core.walking.pinches import HEIGHT_LIMIT_M, WIDTH_LIMIT_M, Pinch, Sizes, runs, sizes
from stairpath.core.walking.place import Place, joined
from stairpath.core.walking.profile import Profile, profile
from stairpath.core.walking.search import fastest
from stairpath.core.walking.walkmap import NOWHERE, WalkMap

Array = npt.NDArray[np.float64]
Marks = npt.NDArray[np.float32]

_DRAWN_M = 0.02
"""How far the drawn line may be off the floor's profile."""
_AWAY_M = 0.9
"""So far a way that avoids a tight place keeps away from it."""
_FLIGHT_AWAY_M = 1.5
_JAMB_M = 0.3
_SAME_FLOOR_M = 1.0
_LEAST_RISE_M = 0.1
_STEEP = 0.05
_TRIED = 6
_SAME_S = 0.05
"""Two ways that take as long are the same."""


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


@dataclass(frozen=True)
class Avoided:
    """A place that a way keeps away from: one that is tight in width or height, or a flight of stairs or a ramp."""

    what: Literal["width", "height", "flight"]
    size_m: float | None
    at: tuple[float, float, float]
    components: tuple[int, ...]

    @property
    def away_m(self) -> float:
        """How far one keeps away from it, so that its whole width is barred wherever in it one would go."""
        if self.what == "flight":
            return _FLIGHT_AWAY_M
        return max(_AWAY_M, (self.size_m or 0.0) + _JAMB_M) if self.what == "width" else _AWAY_M


@dataclass(frozen=True)
class Other:
    """A way that keeps away from something on a quicker one."""

    avoids: Avoided
    route: Route


@dataclass(frozen=True)
class _Search:
    """Where a way is looked for, for whom, and between which floors."""

    walk: WalkMap
    space: Space
    start: Place
    end: Place
    both: tuple[int, int]
    step_free: bool
    limits: Limits
    marks: Marks | None

    def route(self, barred: npt.NDArray[np.bool_] | None = None) -> Route | None:
        """The quickest way that leads over none of the barred floors (n,)."""
        walk = self.walk
        way = fastest(walk, *self.both, self.step_free, self.marks, barred)
        if not len(way):
            return None
        places = walk.places(way)
        places[0], places[-1] = self.start.on(walk, self.both[0]), self.end.on(walk, self.both[1])
        found = profile(self.space, walk, places, self.both)
        tight: Sizes = sizes(self.space, found, walk.body, self.limits.width_m, self.limits.height_m)
        return Route(
            _line(found), found.length_m, found.rise_m, found.descent_m, found.risers,
            found.time_s(walk.body.speed_m_s), tight.narrowest, tight.lowest, tight.pinches,
        )  # fmt: skip


def route(
    walk: WalkMap,
    space: Space,
    start: Place,
    end: Place,
    step_free: bool = False,
    limits: Limits | None = None,
    marks: Marks | None = None,
) -> Route | Blocked:
    """The quickest way from one place to another for the map's body, or why there is none."""
    both = joined(walk, start, end, step_free)
    if both is not None:
        found = _Search(walk, space, start, end, both, step_free, limits or Limits(), marks).route()
        if found is not None:
            return found
    return blocked(walk, space, start.floors, end.floors, step_free)


def _flights(walk: WalkMap, points: Array) -> list[Avoided]:
    """The flights and ramps of a way (n, 3), each by its middle and the component it belongs to there."""
    found: list[Avoided] = []
    rise, run = np.abs(np.diff(points[:, 2])), np.hypot(*np.diff(points[:, :2], axis=0).T)
    for first, last in runs((rise > _LEAST_RISE_M) & (rise > _STEEP * run), 1):
        x, y, z = (float(v) for v in (points[first] + points[last + 1]) / 2)
        floor = walk.under(x, y, z)
        owner = int(walk.owner[floor]) if floor >= 0 else NOWHERE
        found.append(Avoided("flight", None, (x, y, z), (owner,) if owner >= 0 else ()))
    return found


def _avoidable(walk: WalkMap, best: Route) -> list[Avoided]:
    """What of a way is worth avoiding, one for each place: its pinches, then its flights, then where it is tightest."""
    tight = [
        Avoided("width" if p.what == "width" else "height", p.size_m, p.at, p.components)
        for p in (*sorted(best.pinches, key=lambda p: p.size_m), best.narrowest, best.lowest)
        if p is not None
    ]
    pinches = len(best.pinches)
    found: list[Avoided] = []
    for place in (*tight[:pinches], *_flights(walk, best.points), *tight[pinches:]):
        if all(np.linalg.norm(np.subtract(place.at, p.at)) > p.away_m for p in found):
            found.append(place)
    return found[:_TRIED]


def others(
    walk: WalkMap,
    space: Space,
    start: Place,
    end: Place,
    step_free: bool = False,
    limits: Limits | None = None,
    marks: Marks | None = None,
) -> list[Other]:
    """The next best ways, the quickest first: each keeps away from a tight place or a flight of the quickest way."""
    both = joined(walk, start, end, step_free)
    if both is None:
        return []
    search = _Search(walk, space, start, end, both, step_free, limits or Limits(), marks)
    best = search.route()
    found: list[Other] = []
    for place in _avoidable(walk, best) if best else ():
        barred = walk.near(np.array(place.at), place.away_m, _SAME_FLOOR_M)
        # Where somebody begins or ends they cannot keep away from.
        if barred[list(both)].any():
            continue
        way = search.route(barred)
        if way is not None and all(abs(way.time_s - o.route.time_s) > _SAME_S for o in found):
            found.append(Other(place, way))
    return sorted(found, key=lambda o: o.route.time_s)
