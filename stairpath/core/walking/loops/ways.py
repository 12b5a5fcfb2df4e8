"""Searching over the floors of a walk map."""

from __future__ import annotations

import numba
import numpy as np

CLIMB_M_S = 0.35
"""How fast somebody gains height on a stair or ramp, beside the time the way on plan takes."""
DESCEND_M_S = 0.5


@numba.njit(cache=True, nogil=True)
def push(keys, nodes, size, key, node):
    """Put a node on a heap; returns the heap, grown if it was full, and its new size."""
    if size == len(keys):
        more_keys, more_nodes = np.empty(2 * size), np.empty(2 * size, dtype=np.int64)
        more_keys[:size], more_nodes[:size] = keys, nodes
        keys, nodes = more_keys, more_nodes
    k = size
    while k > 0 and keys[(k - 1) // 2] > key:
        keys[k], nodes[k] = keys[(k - 1) // 2], nodes[(k - 1) // 2]
        k = (k - 1) // 2
    keys[k], nodes[k] = key, node
    return keys, nodes, size + 1


@numba.njit(cache=True, nogil=True)
def pop(keys, nodes, size):
    """Take the node with the least key off a heap; returns it, its key and the new size."""
    key, node = keys[0], nodes[0]
    size -= 1
    last_key, last_node = keys[size], nodes[size]
    k = 0
    while True:
        child = 2 * k + 1
        if child >= size:
            break
        if child + 1 < size and keys[child + 1] < keys[child]:
            child += 1
        if keys[child] >= last_key:
            break
        keys[k], nodes[k] = keys[child], nodes[child]
        k = child
    keys[k], nodes[k] = last_key, last_node
    return node, key, size


@numba.njit(cache=True, nogil=True)
def height_time(rise):
    return rise / CLIMB_M_S if rise > 0.0 else -rise / DESCEND_M_S


@numba.njit(cache=True, nogil=True)
def even(rise):
    """What height costs whichever way one goes; up and down differ from it by the same on every way."""
    return abs(rise) * (0.5 / CLIMB_M_S + 0.5 / DESCEND_M_S)


@numba.njit(cache=True, nogil=True)
def times_from(source, speed, cell_m, nx, ways, start, cell, heights, steps):
    """The even time (n,) from one floor to every other, infinite where no way leads."""
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


@numba.njit(cache=True, nogil=True)
def fastest(source, goal, speed, cell_m, nx, ways, start, cell, heights, steps, marks):
    """A* by even time; the floors from source to goal, none if there is no way."""
    count = len(cell)
    time, came, closed = np.full(count, np.inf), np.full(count, -1, dtype=np.int32), np.zeros(count, dtype=np.bool_)
    keys, nodes = np.empty(4096), np.empty(4096, dtype=np.int64)
    gi, gj, gz = cell[goal] % nx, cell[goal] // nx, heights[goal]
    time[source] = 0.0
    keys, nodes, size = push(keys, nodes, 0, 0.0, source)
    while size:
        here, _, size = pop(keys, nodes, size)
        if closed[here]:
            continue
        closed[here] = True
        if here == goal:
            break
        for w in range(8):
            step = steps[here, w]
            if step == 255:
                continue
            to = start[cell[here] + ways[w, 1] * nx + ways[w, 0]] + (step & 63)
            if closed[to]:
                continue
            away = cell_m * (1.0 if w % 2 == 0 else 1.4142135623730951)
            spent = time[here] + away / speed + even(float(heights[to]) - float(heights[here]))
            if spent >= time[to]:
                continue
            time[to], came[to] = spent, here
            i, j = abs(cell[to] % nx - gi), abs(cell[to] // nx - gj)
            straight = cell_m * (max(i, j) + 0.41421356 * min(i, j))
            left = straight / speed + even(float(gz) - float(heights[to]))
            for m in range(len(marks)):
                left = max(left, abs(marks[m, goal] - marks[m, to]) - 0.05)
            keys, nodes, size = push(keys, nodes, size, spent + left, to)
    if not closed[goal]:
        return np.empty(0, dtype=np.int64)
    length, at = 1, goal
    while at != source:
        at = came[at]
        length += 1
    way = np.empty(length, dtype=np.int64)
    at = goal
    for k in range(length - 1, -1, -1):
        way[k] = at
        at = came[at]
    return way


@numba.njit(cache=True, nogil=True)
def straight(a, b, places, speed, cell_m, x0, y0, nx, start, cell, heights, steps, trace):
    """The time of the straight line between two floors, infinite if one cannot go it; its floors into ``trace``."""
    ax, ay, bx, by = places[0], places[1], places[2], places[3]
    dx, dy = bx - ax, by - ay
    i, j = cell[a] % nx, cell[a] // nx
    ti, tj = cell[b] % nx, cell[b] // nx
    si, sj = (1 if dx > 0 else -1), (1 if dy > 0 else -1)
    step_x = cell_m / abs(dx) if dx != 0.0 else np.inf
    step_y = cell_m / abs(dy) if dy != 0.0 else np.inf
    next_x = ((x0 + (i + (si > 0)) * cell_m) - ax) / dx if dx != 0.0 else np.inf
    next_y = ((y0 + (j + (sj > 0)) * cell_m) - ay) / dy if dy != 0.0 else np.inf
    here, count = a, 1
    trace[0] = a
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
        if step == 255 or count == len(trace) or count > abs(ti - i) + abs(tj - j) + count:
            return np.inf, 0
        to = start[j * nx + i] + (step & 63)
        spent += height_time(float(heights[to]) - float(heights[here]))
        here = to
        trace[count] = here
        count += 1
        if (si > 0 and i > ti) or (si < 0 and i < ti) or (sj > 0 and j > tj) or (sj < 0 and j < tj):
            return np.inf, 0
    return (spent, count) if here == b else (np.inf, 0)


@numba.njit(cache=True, nogil=True)
def pulled(way, places, speed, cell_m, x0, y0, nx, start, cell, heights, steps):
    """The floors at which a way pulled straight still turns."""
    spent = np.zeros(len(way))
    for k in range(1, len(way)):
        away = np.sqrt((places[k, 0] - places[k - 1, 0]) ** 2 + (places[k, 1] - places[k - 1, 1]) ** 2)
        spent[k] = spent[k - 1] + away / speed + height_time(float(heights[way[k]]) - float(heights[way[k - 1]]))
    trace = np.empty(20000, dtype=np.int64)
    line = np.empty(4)
    out = [0]
    k = 0
    while k < len(way) - 1:
        best = k + 1
        misses = 0
        line[0], line[1] = places[k, 0], places[k, 1]
        for m in range(k + 2, len(way)):
            line[2], line[3] = places[m, 0], places[m, 1]
            time, _ = straight(way[k], way[m], line, speed, cell_m, x0, y0, nx, start, cell, heights, steps, trace)
            if time <= spent[m] - spent[k] + 1e-9:
                best, misses = m, 0
            else:
                misses += 1
                if misses > 40:
                    break
        k = best
        out.append(k)
    return np.array(out)


@numba.njit(cache=True, nogil=True)
def filled(turns, places, speed, cell_m, x0, y0, nx, start, cell, heights, steps):
    """Every floor along a pulled way."""
    out = [turns[0]]
    trace = np.empty(20000, dtype=np.int64)
    line = np.empty(4)
    for k in range(len(turns) - 1):
        line[0], line[1], line[2], line[3] = places[k, 0], places[k, 1], places[k + 1, 0], places[k + 1, 1]
        _, count = straight(
            turns[k], turns[k + 1], line, speed, cell_m, x0, y0, nx, start, cell, heights, steps, trace
        )  # fmt: skip
        for n in range(1, count):
            out.append(trace[n])
        if count == 0:
            out.append(turns[k + 1])
    return np.array(out)


@numba.njit(cache=True, nogil=True)
def least_violated(
    goals,
    reached,
    cell_m,
    nx,
    ny,
    across,
    climb,
    ways,
    start,
    cell,
    heights,
    clear,
    room,
    steps,
    radius,
    tall,
):
    """From the goals to the reached part over whatever lies between, at the least expense: the floors on the way.

    A step that the body can take costs its length, any other more the more there is missing, and one across a
    place without a floor most.
    """
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
                            if rise > 0.35:  # no riser of a stair
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


@numba.njit(cache=True, nogil=True)
def tightened(turns, spots, ways, speed, cell_m, x0, y0, nx, start, cell, heights, at, steps):
    """A pulled way with every turn moved to where the two straight lines that meet there take least time."""
    trace = np.empty(20000, dtype=np.int64)
    line, beyond = np.empty(4), np.empty(4)
    turns = turns.copy()
    shape = (speed, cell_m, x0, y0, nx, start, cell, heights, steps)
    for _ in range(30):
        moved = False
        for k in range(1, len(turns) - 1):
            a, b, c = turns[k - 1], turns[k], turns[k + 1]
            line[0], line[1] = spot(a, spots, at, cell, nx, x0, y0, cell_m)
            beyond[2], beyond[3] = spot(c, spots, at, cell, nx, x0, y0, cell_m)
            line[2], line[3] = spot(b, spots, at, cell, nx, x0, y0, cell_m)
            beyond[0], beyond[1] = line[2], line[3]
            best = straight(a, b, line, *shape, trace)[0] + straight(b, c, beyond, *shape, trace)[0]
            for w in range(8):
                step = steps[b, w]
                if step == 255:
                    continue
                to = start[cell[b] + ways[w, 1] * nx + ways[w, 0]] + (step & 63)
                line[2], line[3] = spot(to, spots, at, cell, nx, x0, y0, cell_m)
                beyond[0], beyond[1] = line[2], line[3]
                time = straight(a, to, line, *shape, trace)[0]
                if time < best:
                    time += straight(to, c, beyond, *shape, trace)[0]
                if time < best - 1e-6:
                    best = time
                    turns[k] = to
                    moved = True
        if not moved:
            break
    return turns


@numba.njit(cache=True, nogil=True)
def spot(floor, spots, at, cell, nx, x0, y0, cell_m):
    """Where one stands on a floor, on plan."""
    x = x0 + (cell[floor] % nx + 0.5) * cell_m + spots[at[floor] & 15, 0]
    y = y0 + (cell[floor] // nx + 0.5) * cell_m + spots[at[floor] & 15, 1]
    return x, y
