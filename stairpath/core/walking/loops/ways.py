"""Searching over the floors of a walk map, in straight lines of any direction."""

from __future__ import annotations

from typing import NamedTuple

import numba
import numpy as np
import numpy.typing as npt

from stairpath.core.walking.loops.heap import pop, push

CLIMB_M_S = 0.35
"""How fast somebody gains height on a stair or ramp, beside the time the way on plan takes."""
DESCEND_M_S = 0.5
NEVER = np.inf
_EVEN_S_M = 0.5 / CLIMB_M_S + 0.5 / DESCEND_M_S


class Ground(NamedTuple):
    """Floors (n,) for somebody of a speed: where they lie on the raster and which steps (n, 8) lead from each.

    ``spots`` (16, 2) are the places of a cell about its middle; ``at`` (n,) says in which one stands. The other
    columns are those of a walk map.
    """

    speed: float
    ways: npt.NDArray[np.int64]
    spots: npt.NDArray[np.float64]
    at: npt.NDArray[np.uint8]
    cell_m: float
    x0: float
    y0: float
    nx: int
    start: npt.NDArray[np.int32]
    cell: npt.NDArray[np.int32]
    heights: npt.NDArray[np.float32]
    steps: npt.NDArray[np.uint8]


@numba.njit(cache=True, nogil=True)
def even(rise):
    """What height costs whichever way one goes; up and down differ from it by the same on every way."""
    return abs(rise) * _EVEN_S_M


@numba.njit(cache=True, nogil=True)
def spot(floor, ground):
    """Where one stands on a floor, on plan."""
    nx, cell_m, spots = ground.nx, ground.cell_m, ground.spots
    cell, place = ground.cell[floor], ground.at[floor] & 15
    row = cell // nx
    x = ground.x0 + (cell - row * nx + 0.5) * cell_m + spots[place, 0]
    y = ground.y0 + (row + 0.5) * cell_m + spots[place, 1]
    return x, y


@numba.njit(cache=True, nogil=True)
def straight(a, b, ax, ay, bx, by, ground, limit):
    """The even time of the straight line between points of two floors, infinite if one cannot go it or above a limit."""
    speed, _, _, _, cell_m, x0, y0, nx, start, cell, heights, steps = ground
    dx, dy = bx - ax, by - ay
    i, j = cell[a] % nx, cell[a] // nx
    ti, tj = cell[b] % nx, cell[b] // nx
    si, sj = (1 if dx > 0 else -1), (1 if dy > 0 else -1)
    step_x = cell_m / abs(dx) if dx != 0.0 else np.inf
    step_y = cell_m / abs(dy) if dy != 0.0 else np.inf
    next_x = ((x0 + (i + (si > 0)) * cell_m) - ax) / dx if dx != 0.0 else np.inf
    next_y = ((y0 + (j + (sj > 0)) * cell_m) - ay) / dy if dy != 0.0 else np.inf
    here, height = a, heights[a]
    spent = np.sqrt(dx * dx + dy * dy) / speed
    while i != ti or j != tj:
        if next_x < next_y:
            w = 0 if si > 0 else 4
            i += si
            next_x += step_x
        else:
            w = 2 if sj > 0 else 6
            j += sj
            next_y += step_y
        step = steps[here, w]
        if step == 255:
            return NEVER
        here = start[j * nx + i] + (step & 63)
        if heights[here] != height:
            spent += even(float(heights[here]) - float(height))
            height = heights[here]
        if spent > limit or (i - ti) * si > 0 or (j - tj) * sj > 0:
            return NEVER
    return spent if here == b else NEVER


@numba.njit(cache=True, nogil=True)
def _seen(here, x, y, time, came, closed, ground):
    """From where a floor is reached quickest: in a straight line from before its neighbour, else from a neighbour."""
    speed, ways, _, _, _, _, _, nx, start, cell, heights, steps = ground
    before = came[here]
    px, py = spot(before, ground)
    line = straight(before, here, px, py, x, y, ground, np.inf)
    best, parent = time[before] + line, before
    if best <= time[here] + 1e-9:
        return best, parent
    for w in range(8):
        step = steps[here, w]
        if step == 255:
            continue
        beside = start[cell[here] + ways[w, 1] * nx + ways[w, 0]] + (step & 63)
        if closed[beside]:
            bx, by = spot(beside, ground)
            away = np.sqrt((bx - x) ** 2 + (by - y) ** 2)
            spent = time[beside] + away / speed + even(float(heights[here]) - float(heights[beside]))
            if spent < best:
                best, parent = spent, beside
    return best, parent


@numba.njit(cache=True, nogil=True)
def search(source, goal, ground, marks):
    """The even time (n,) to floors and the floor (n,) each is reached from in a straight line; -1 where none was.

    Every floor is first taken to be seen from where its neighbour is reached from, and put right when it is its
    turn.
    """
    speed, ways, spots, at, cell_m, x0, y0, nx, start, cell, heights, steps = ground
    count = len(cell)
    time, came, closed = np.full(count, np.inf), np.full(count, -1, dtype=np.int32), np.zeros(count, dtype=np.bool_)
    keys, nodes = np.empty(4096), np.empty(4096, dtype=np.int64)
    gx, gy = spot(max(goal, 0), ground)
    time[source], came[source] = 0.0, source
    keys, nodes, size = push(keys, nodes, 0, 0.0, source)
    while size:
        here, _, size = pop(keys, nodes, size)
        if closed[here]:
            continue
        x, y = spot(here, ground)
        if here != source:
            time[here], came[here] = _seen(here, x, y, time, came, closed, ground)
        closed[here] = True
        if here == goal:
            break
        before = came[here]
        px, py = spot(before, ground)
        row = cell[here] // nx
        column = cell[here] - row * nx
        for w in range(8):
            step = steps[here, w]
            if step == 255:
                continue
            to = start[cell[here] + ways[w, 1] * nx + ways[w, 0]] + (step & 63)
            if closed[to]:
                continue
            tx = x0 + (column + ways[w, 0] + 0.5) * cell_m + spots[at[to] & 15, 0]
            ty = y0 + (row + ways[w, 1] + 0.5) * cell_m + spots[at[to] & 15, 1]
            away = np.sqrt((tx - px) ** 2 + (ty - py) ** 2)
            spent = time[before] + away / speed + even(float(heights[to]) - float(heights[before]))
            if spent >= time[to]:
                continue
            time[to], came[to] = spent, before
            left = 0.0
            if goal >= 0:
                straight_on = np.sqrt((tx - gx) ** 2 + (ty - gy) ** 2)
                left = straight_on / speed + even(float(heights[goal]) - float(heights[to]))
                for m in range(marks.shape[1]):
                    left = max(left, abs(marks[goal, m] - marks[to, m]))
            keys, nodes, size = push(keys, nodes, size, spent + left, to)
    if goal >= 0 and not closed[goal]:
        came[goal] = -1
    return time, came


@numba.njit(cache=True, nogil=True)
def traced(source, goal, came):
    """The floors at which the way that was found turns, both ends included; none if there is no way."""
    if came[goal] < 0:
        return np.empty(0, dtype=np.int64)
    length, here = 1, goal
    while here != source:
        here = came[here]
        length += 1
    way = np.empty(length, dtype=np.int64)
    here = goal
    for k in range(length - 1, -1, -1):
        way[k] = here
        here = came[here]
    return way


@numba.njit(cache=True, nogil=True)
def _leg(a, b, ground, limit):
    """The even time of the straight line between two floors; beside one another also over a corner."""
    speed, ways, _, _, _, _, _, nx, start, cell, heights, steps = ground
    ax, ay = spot(a, ground)
    bx, by = spot(b, ground)
    time = straight(a, b, ax, ay, bx, by, ground, limit)
    if time == NEVER and abs(cell[a] % nx - cell[b] % nx) <= 1 and abs(cell[a] // nx - cell[b] // nx) <= 1:
        for w in range(8):
            step = steps[a, w]
            if step != 255 and start[cell[a] + ways[w, 1] * nx + ways[w, 0]] + (step & 63) == b:
                return np.sqrt((bx - ax) ** 2 + (by - ay) ** 2) / speed + even(float(heights[b]) - float(heights[a]))
    return time


@numba.njit(cache=True, nogil=True)
def tightened(way, ground):
    """A way with every turn left out that need not be, or moved to where the two lines that meet there take least."""
    nx, start, cell, steps, ways = ground.nx, ground.start, ground.cell, ground.steps, ground.ways
    turns, count = way.copy(), len(way)
    for _ in range(30):
        moved = False
        k = 1
        while k < count - 1:
            a, b, c = turns[k - 1], turns[k], turns[k + 1]
            best = _leg(a, b, ground, np.inf)
            best += _leg(b, c, ground, np.inf)
            if _leg(a, c, ground, best + 1e-6) <= best + 1e-9:
                turns[k : count - 1] = turns[k + 1 : count]
                count -= 1
                moved = True
                continue
            for w in range(8):
                step = steps[b, w]
                if step == 255:
                    continue
                to = start[cell[b] + ways[w, 1] * nx + ways[w, 0]] + (step & 63)
                time = _leg(a, to, ground, best)
                if time < best:
                    time += _leg(to, c, ground, best)
                if time < best - 1e-6:
                    best = time
                    turns[k] = to
                    moved = True
            k += 1
        if not moved:
            break
    return turns[:count]


@numba.njit(cache=True, nogil=True)
def times_from(source, ground):
    """The even time (n,) from one floor to every other in steps to neighbours, infinite where no way leads."""
    speed, ways, _, _, cell_m, _, _, nx, start, cell, heights, steps = ground
    time = np.full(len(cell), np.inf, dtype=np.float32)
    keys, nodes = np.empty(4096), np.empty(4096, dtype=np.int64)
    time[source] = 0.0
    keys, nodes, size = push(keys, nodes, 0, 0.0, source)
    while size:
        here, spent, size = pop(keys, nodes, size)
        if spent > time[here] + 1e-3:
            continue
        for w in range(8):
            step = steps[here, w]
            if step == 255:
                continue
            to = start[cell[here] + ways[w, 1] * nx + ways[w, 0]] + (step & 63)
            away = cell_m * (1.0 if w % 2 == 0 else 1.4142135623730951)
            then = time[here] + away / speed + even(float(heights[to]) - float(heights[here]))
            if then < time[to] - 1e-3:
                time[to] = then
                keys, nodes, size = push(keys, nodes, size, then, to)
    return time
