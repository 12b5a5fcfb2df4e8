"""Walking by keys: from cell to cell as the map allows, in fixed steps of time."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from stairpath.core.walking.grid import WAYS
from stairpath.core.walking.tile import NO_STEP
from stairpath.core.walking.walkmap import WalkMap

TICK_S = 1 / 60
EASE_S = 0.12
"""Time in which the speed comes within a third of what the keys ask for."""
LIFT_S = 0.15
"""The same for the eye's height on steps."""
SLIDES_DEG = (30.0, 60.0)
"""Angles tried to one side and the other when straight on is barred, with what is left of the speed in each."""
ASIDE = 0.5
"""The part of the speed left for going aside round a corner."""
LEAST_M = 1e-6
"""A slide counts as longer than another by more than this."""
REST_M_S = 0.01
"""Who wants to stand and is slower stands."""
LEVEL_M = 0.001
"""Feet so near to the height of their floor are on it."""
REACH = 0.5
"""The part of a cell that one piece of a step goes at most, so that no cell is jumped over."""

_WAY = {way: k for k, way in enumerate(WAYS)}


@dataclass(frozen=True)
class Walker:
    """Somebody on a floor of the map: where (metres along the building's axes), how fast, and how high the feet seem.

    ``blocked`` is the way (0 to 7) that was asked for and could not be gone, or -1.
    """

    x_m: float
    y_m: float
    floor: int
    feet_m: float
    vx_m_s: float = 0.0
    vy_m_s: float = 0.0
    blocked: int = -1


def standing_on(walk: WalkMap, floor: int) -> Walker:
    """Somebody who has just come to stand on a floor."""
    x, y, z = (float(v) for v in walk.place(floor))
    return Walker(x, y, floor, z)


def _entered(walk: WalkMap, floor: int, to_x: float, to_y: float) -> tuple[int, int]:
    """The floor that a small move leads onto and the way it went, -1 for the same cell; or -1 and the way barred."""
    grid = walk.grid
    column, row = int(walk.cell[floor]) % grid.nx, int(walk.cell[floor]) // grid.nx
    i = math.floor(to_x / grid.cell_m) - grid.first[0]
    j = math.floor(to_y / grid.cell_m) - grid.first[1]
    if (i, j) == (column, row):
        return floor, -1
    way = _WAY[(i - column, j - row)]
    step = int(walk.steps[floor, way])
    if step == NO_STEP:
        return -1, way
    return int(walk.start[j * grid.nx + i]) + (step & 63), way


def _aside(walk: WalkMap, floor: int, barred: int, length: float) -> list[tuple[float, float]]:
    """Small moves round a corner that is in the way by half a body or less: to where the way on is free from."""
    if barred % 2:
        return []
    ways = [WAYS[(barred + 2 * side) % 8] for side in (1, -1) if walk.steps[floor, (barred + side) % 8] != NO_STEP]
    return [(ax * length * ASIDE, ay * length * ASIDE) for ax, ay in ways]


def _slides(walk: WalkMap, floor: int, x: float, y: float, dx: float, dy: float) -> list[tuple[float, float]]:
    """Small moves along what stands askew in the way; none where both sides are alike, as before a wall met square on."""
    out: list[tuple[float, float]] = []
    for degrees in SLIDES_DEG:
        c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
        sides = [((dx * c - dy * t) * c, (dx * t + dy * c) * c) for t in (s, -s)]
        free = [side for side in sides if _entered(walk, floor, x + side[0], y + side[1])[0] >= 0]
        out += free if len(free) == 1 else []
    return out


def _moved(walk: WalkMap, floor: int, x: float, y: float, dx: float, dy: float) -> tuple[float, float, int, int]:
    """Where a small move ends: as asked, else along what bars it, as far as any; and the way that was barred, or -1."""
    straight, barred = _entered(walk, floor, x + dx, y + dy)
    if straight >= 0:
        return x + dx, y + dy, straight, -1
    tries = [(dx, 0.0), (0.0, dy)]
    tries += _slides(walk, floor, x, y, dx, dy) + _aside(walk, floor, barred, math.hypot(dx, dy))
    best, best_m = (x, y, floor), 0.0
    for mx, my in tries:
        to, _ = _entered(walk, floor, x + mx, y + my)
        if to >= 0 and math.hypot(mx, my) > best_m + LEAST_M:
            best, best_m = (x + mx, y + my, to), math.hypot(mx, my)
    return *best, barred


def tick(walk: WalkMap, walker: Walker, vx_m_s: float, vy_m_s: float) -> Walker:
    """One sixtieth of a second towards a velocity: eased, and from cell to cell as the map allows."""
    ease = 1.0 - math.exp(-TICK_S / EASE_S)
    vx = walker.vx_m_s + (vx_m_s - walker.vx_m_s) * ease
    vy = walker.vy_m_s + (vy_m_s - walker.vy_m_s) * ease
    if vx_m_s == 0.0 and vy_m_s == 0.0 and math.hypot(vx, vy) < REST_M_S:
        vx = vy = 0.0
    dx, dy = vx * TICK_S, vy * TICK_S
    pieces = max(1, math.ceil(max(abs(dx), abs(dy)) / (walk.grid.cell_m * REACH)))
    x, y, floor, blocked = walker.x_m, walker.y_m, walker.floor, -1
    for _ in range(pieces):
        x, y, floor, barred = _moved(walk, floor, x, y, dx / pieces, dy / pieces)
        blocked = barred if barred >= 0 else blocked
    lift = 1.0 - math.exp(-TICK_S / LIFT_S)
    height = float(walk.height_m[floor])
    feet = walker.feet_m + (height - walker.feet_m) * lift
    if abs(height - feet) < LEVEL_M:
        feet = height
    if blocked >= 0:
        # What was not gone is not carried on with either.
        vx, vy = (x - walker.x_m) / TICK_S, (y - walker.y_m) / TICK_S
    return Walker(x, y, floor, feet, vx, vy, blocked)


def walked(walk: WalkMap, walker: Walker, keys: Sequence[tuple[int, float, float]]) -> list[Walker]:
    """Where recorded keys lead: each is so many ticks of one velocity (x, y); the walker after every one of them."""
    out: list[Walker] = []
    for ticks, vx, vy in keys:
        for _ in range(ticks):
            walker = tick(walk, walker, vx, vy)
        out.append(walker)
    return out
