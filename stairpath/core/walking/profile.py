"""The floor along a way, to the millimetre: heights, risers, and the line over a flight's nosings."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import pairwise

import numpy as np
import numpy.typing as npt

from stairpath.core.walking.clearance import Space
from stairpath.core.walking.loops.ways import CLIMB_M_S, DESCEND_M_S
from stairpath.core.walking.walkmap import WalkMap

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]

SAMPLE_M = 0.02
RISER_M = 0.05
"""Between two samples a floor rises by so much only over a riser."""
GOING_M = 0.6
"""Risers farther apart than this are steps of their own, not a flight."""
_SEARCH_M = 0.30


@dataclass(frozen=True)
class Flight:
    """Risers one after another, all up or all down: the samples before the first and the last of them."""

    risers: tuple[int, ...]
    up: bool


@dataclass(frozen=True)
class Profile:
    """A way's floor, sampled every 2 cm.

    Columns: ``points`` (n, 3) on the floor, ``along_m`` (n,) from the start on plan, ``nosing_m`` (n,) the
    height that headroom counts from, which over a flight is the line through its nosings
    (the pitch line), and ``walk_m`` (n,) the height that a foot follows, which over a flight is
    straight from the foot of the first riser to the last nosing. ``room_m`` (n,) is the least room that
    there is to either side, ``left`` (n, 2) the direction to the left on plan. ``turn`` (n,) is where the way turns.
    """

    points: Array
    along_m: Array
    nosing_m: Array
    walk_m: Array
    room_m: Array
    left: Array
    turn: npt.NDArray[np.bool_]
    flights: tuple[Flight, ...]
    risers: int

    @property
    def rise_m(self) -> float:
        """Height gained, metre by metre."""
        return float(np.maximum(np.diff(self.points[:, 2]), 0).sum())

    @property
    def descent_m(self) -> float:
        """Height lost, metre by metre."""
        return float(np.maximum(-np.diff(self.points[:, 2]), 0).sum())

    @property
    def length_m(self) -> float:
        """Length of the way, on slopes and flights along them."""
        steps = np.hypot(np.diff(self.along_m), np.diff(self.walk_m))
        single = np.abs(np.diff(self.walk_m)) > RISER_M  # a step of its own adds nothing to the way
        return float(np.where(single, np.diff(self.along_m), steps).sum())

    def time_s(self, speed_m_s: float) -> float:
        """What the way takes: on plan at a speed, and the height at the speeds of stairs."""
        return float(self.along_m[-1] / speed_m_s + self.rise_m / CLIMB_M_S + self.descent_m / DESCEND_M_S)


def _samples(places: Array) -> tuple[Array, npt.NDArray[np.bool_]]:
    """Points (n, 3) every 2 cm from place to place, and which of them are places."""
    out = [places[:1]]
    for a, b in pairwise(places):
        count = max(1, int(np.ceil(np.hypot(*(b - a)[:2]) / SAMPLE_M)))
        out.append(a + (b - a) * (np.arange(1, count + 1) / count)[:, None])
    turn = np.zeros(sum(len(part) for part in out), dtype=bool)
    turn[np.cumsum([len(part) for part in out]) - 1] = True
    return np.concatenate(out), turn


def _flights(along: Array, heights: Array) -> list[Flight]:
    rises = np.diff(heights)
    found: list[Flight] = []
    for k in np.flatnonzero(np.abs(rises) > RISER_M):
        up = bool(rises[k] > 0)
        last = found[-1] if found else None
        if last is not None and last.up == up and along[k] - along[last.risers[-1]] <= GOING_M:
            found[-1] = Flight((*last.risers, int(k)), up)
        else:
            found.append(Flight((int(k),), up))
    return found


def _over_nosings(flight: Flight, along: Array, heights: Array, nosing: Array, walk: Array) -> None:
    """Draw the pitch line and the foot's line over a flight, in place."""
    edges = np.array(flight.risers) + (1 if flight.up else 0)
    first, last = int(edges[0]), int(edges[-1])
    span = slice(first, last + 1)
    nosing[span] = np.maximum(nosing[span], np.interp(along[span], along[edges], heights[edges]))
    foot, top = (flight.risers[0], last) if flight.up else (first, flight.risers[-1] + 1)
    span = slice(foot, top + 1)
    walk[span] = np.interp(along[span], along[[foot, top]], heights[[foot, top]])


def _left(points: Array) -> Array:
    """Unit directions (n, 2) to the left of a way, from a few samples before to a few after each."""
    last = len(points) - 1
    k = np.arange(last + 1)
    way = points[np.minimum(k + 3, last), :2] - points[np.maximum(k - 3, 0), :2]
    size = np.hypot(*way.T)[:, None]
    return np.where(size > 0, np.column_stack([-way[:, 1], way[:, 0]]) / np.maximum(size, 1e-12), [[0.0, 1.0]])


def _trodden(space: Space, walk: WalkMap, points: Array, floor: int) -> tuple[Ints, Array]:
    """The floors (n,) of the map under a way that begins on one of them, and how high (n,) one treads.

    Where a joint leaves no floor under a sample, that of the sample before it counts.
    """
    floors = walk.follow(points, floor)
    rough = walk.height_m[floors].astype(float)
    heights = space.trodden(np.column_stack([points[:, :2], rough]), _SEARCH_M, _SEARCH_M)
    known = np.flatnonzero(~np.isnan(heights))
    if not len(known):
        return floors, rough
    return floors, heights[known[np.maximum(np.searchsorted(known, np.arange(len(heights)), side="right") - 1, 0)]]


def profile(space: Space, walk: WalkMap, places: Array, ends: tuple[int, int]) -> Profile:
    """The floor under a way from place to place (n, 3), whose ends are on floors of the map.

    It is the same floor whichever way one goes: what is seen first in one direction is so in the other.
    """
    points, turn = _samples(places)
    turned = ends[0] > ends[1]
    floors, heights = _trodden(space, walk, points[::-1] if turned else points, min(ends))
    if turned:
        floors, heights = floors[::-1], heights[::-1]
    points[:, 2] = heights
    along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(points[:, :2], axis=0).T))])
    flights = _flights(along, heights)
    nosing, foot = heights.copy(), heights.copy()
    for flight in flights:
        if len(flight.risers) > 1:
            _over_nosings(flight, along, heights, nosing, foot)
    aside = np.hypot(*(points - walk.places(floors))[:, :2].T)
    room = np.maximum(walk.room_cm[floors] / 100.0 - aside, 0.0)
    return Profile(
        points, along, nosing, foot, room, _left(points), turn, tuple(flights), sum(len(f.risers) for f in flights)
    )
