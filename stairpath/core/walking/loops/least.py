"""From the goals to what can be reached, over as little as possible that is in the way."""

from __future__ import annotations

from typing import NamedTuple

import numba
import numpy as np
import numpy.typing as npt

from stairpath.core.walking.bodies import STEP_M
from stairpath.core.walking.loops.heap import pop, push


class Bars(NamedTuple):
    """Floors (n,) with what is free above and beside each in centimetres, and the steps (n, 8) that can be taken."""

    start: npt.NDArray[np.int32]
    cell: npt.NDArray[np.int32]
    heights: npt.NDArray[np.float32]
    clear: npt.NDArray[np.uint16]
    room: npt.NDArray[np.uint8]
    steps: npt.NDArray[np.uint8]


class Wants(NamedTuple):
    """How far one looks across what is in the way, how far up and down, and how broad and tall one is (cm)."""

    across: float
    climb: float
    radius: int
    tall: int


@numba.njit(cache=True, nogil=True)
def least_violated(goals, reached, raster, ways, bars, wants):
    """From the goals to the reached part over whatever lies between, at the least expense: the floors on the way.

    A step that the body can take costs its length, any other more the more there is missing, and one across a
    place without a floor most.
    """
    start, cell, heights, clear, room, steps = bars
    across, climb, radius, tall = wants
    cell_m, nx, ny = raster.cell_m, raster.nx, raster.ny
    count = len(cell)
    spent, came, closed = np.full(count, np.inf), np.full(count, -1, dtype=np.int64), np.zeros(count, dtype=np.bool_)
    keys, nodes = np.empty(4096), np.empty(4096, dtype=np.int64)
    size = 0
    for g in goals:
        spent[g] = 0.0
        keys, nodes, size = push(keys, nodes, size, 0.0, g)
    end = -1
    far = int(across / cell_m)
    while size:
        here, _, size = pop(keys, nodes, size)
        if closed[here]:
            continue
        closed[here] = True
        if reached[here]:
            end = here
            break
        i, j = cell[here] % nx, cell[here] // nx
        for w in range(8):
            away = cell_m * (1.0 if w % 2 == 0 else 1.4142135623730951)
            for n in range(1, far + 1):
                x, y = i + n * ways[w, 0], j + n * ways[w, 1]
                if x < 0 or y < 0 or x >= nx or y >= ny:
                    break
                there = False
                for to in range(start[y * nx + x], start[y * nx + x + 1]):
                    if abs(heights[to] - heights[here]) > climb:
                        continue
                    there = True
                    cost = 200.0 + 10.0 * n * away
                    if n == 1:
                        step = steps[here, w]
                        free = step != 255 and start[y * nx + x] + (step & 63) == to
                        cost = away
                        if not free:
                            rise = abs(heights[to] - heights[here])
                            cost += 1.0 + 20.0 * rise
                            if (
                                rise > STEP_M
                            ):  # no riser of a stair, but two at once from its side, or an edge nobody was to climb
                                cost += 500.0 + 5000.0 * rise
                            if clear[to] < tall:
                                cost += 0.5 * (tall - clear[to])
                            elif room[to] == 0:
                                cost += 100.0
                            elif room[to] < radius:
                                cost += 1.0 * (radius - room[to])
                    if spent[here] + cost < spent[to]:
                        spent[to], came[to] = spent[here] + cost, here
                        keys, nodes, size = push(keys, nodes, size, spent[to], to)
                if there or w % 2 == 1:
                    break
    if end < 0:
        return np.empty(0, dtype=np.int64)
    length, k = 1, end
    while came[k] >= 0:
        k = came[k]
        length += 1
    out = np.empty(length, dtype=np.int64)
    k = end
    for n in range(length):
        out[n] = k
        k = came[k]
    return out
