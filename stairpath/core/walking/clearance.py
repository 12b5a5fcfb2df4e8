"""How much room there is beside and above a point of the floor, to the triangles themselves."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
import numpy.typing as npt

from stairpath.core.walking.bodies import Body
from stairpath.core.walking.loops import bins, heights, nearest
from stairpath.core.walking.loops.polygons import Obstacle
from stairpath.core.walking.solids import Solids

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]

NOBODY = -1
_PLAN_BIN_M = 3.2
EVERYWHERE: Array = np.zeros((0, 3))


class Bins(NamedTuple):
    """Which triangles come near a place: those of the bin in slot ``b`` are ``of[start[b]:start[b + 1]]``.

    ``low`` (3,) is the corner of the first bin, ``layout`` says in which slot each is kept.
    """

    low: Array
    layout: bins.Layout
    start: Ints
    of: Ints


def bins_of(reaches: Array, size_m: float = bins.BIN_M, height_m: float = bins.BIN_HEIGHT_M) -> Bins:
    """Sort triangles by where they are; ``reaches`` (n, 7) begins with their lowest and highest z, x and y."""
    low, count = np.zeros(3), np.ones(3, dtype=np.int64)
    if len(reaches):
        low = reaches[:, [2, 4, 0]].min(axis=0)
        count += ((reaches[:, [3, 5, 1]].max(axis=0) - low) / [size_m, size_m, height_m]).astype(np.int64)
    px, py, page, used = bins.pages_of(reaches, low, count, size_m, height_m)
    layout = bins.Layout(int(count[0]), int(count[1]), int(count[2]), px, py, page)
    return Bins(low, layout, *bins.paged(reaches, low, layout, used, size_m, height_m))


def _room_for(body: Body, reach_m: float, spread_m: float) -> nearest.RoomFor:
    """What a body needs beside it, looked for so far around, in places of a cell so far apart."""
    return nearest.RoomFor(
        body.step_up_m + 1e-3, body.shoulder_m, body.height_m, reach_m, body.ahead, body.steepest, body.radius_m,
        spread_m,
    )  # fmt: skip


def _neighbourly(points: Array) -> Ints:
    """An order (n,) of points that goes block by block of the plan, and in each from below upwards."""
    block = np.floor(points[:, :2] / nearest.TOGETHER_M)
    return np.lexsort((points[:, 2], block[:, 0], block[:, 1]))


class Space:
    """The building's triangles, ready to be asked how much room there is somewhere."""

    def __init__(self, solids: Solids) -> None:
        self.solids = solids
        t = np.ascontiguousarray(solids.triangles)
        low: Array = t.min(axis=1) if len(t) else np.zeros((0, 3))
        high: Array = t.max(axis=1) if len(t) else np.zeros((0, 3))
        # Lowest and highest, where it lies on plan, and how steep it is if one can stand on it.
        normal = np.cross(t[:, 1] - t[:, 0], t[:, 2] - t[:, 0])
        flat = np.hypot(normal[:, 0], normal[:, 1])
        slope = np.divide(flat, normal[:, 2], out=np.full(len(t), np.inf), where=normal[:, 2] > 0)
        reaches = np.ascontiguousarray(
            np.column_stack([low[:, 2], high[:, 2], low[:, 0], high[:, 0], low[:, 1], high[:, 1], slope])
        )
        self._where = bins.Binned(t, reaches, *bins_of(reaches))
        self._on_plan = bins_of(reaches, _PLAN_BIN_M, np.inf)

    def __len__(self) -> int:
        return len(self.solids.triangles)

    def around(self, place: tuple[int, int], size_m: float, margin_m: float) -> Ints:
        """The triangles over a square of the plan and so far around it."""
        plan, reaches = self._on_plan, self._where.reaches
        low = np.array(place) * size_m - margin_m
        high = low + size_m + 2.0 * margin_m
        first, last = (((end - plan.low[:2]) / _PLAN_BIN_M).astype(np.int64) for end in (low, high))
        slots = bins.bins_between(first[0], last[0], first[1], last[1], 0, 0, plan.layout)
        near = [plan.of[plan.start[b] : plan.start[b + 1]] for b in slots]
        found = np.unique(np.concatenate(near)) if near else np.zeros(0, dtype=np.int64)
        r = reaches[found]
        inside: Ints = found[(r[:, 3] >= low[0]) & (r[:, 2] <= high[0]) & (r[:, 5] >= low[1]) & (r[:, 4] <= high[1])]
        return inside

    def reaches_on_plan(self) -> tuple[Array, Array]:
        """The lowest and the highest x and y (n, 2) of each triangle."""
        reaches = self._where.reaches
        return reaches[:, [2, 4]], reaches[:, [3, 5]]

    def owners(self, triangles: Ints) -> npt.NDArray[np.int32]:
        """The components (n,) of triangles, NOBODY for -1."""
        out = np.full(len(triangles), NOBODY, dtype=np.int32)
        out[triangles >= 0] = self.solids.component[triangles[triangles >= 0]]
        return out

    def _whose(self, triangle: int) -> int:
        return int(self.solids.component[triangle]) if triangle >= 0 else NOBODY

    def beside(
        self, points: Array, above_m: Array, cell_m: float, body: Body, reach_m: float
    ) -> tuple[Array, npt.NDArray[np.int32], npt.NDArray[np.uint8]]:
        """Room (n,) in metres beside middles of cells (n, 3), up to ``reach_m``, what takes it, and where it is.

        The place is one of nine in three rows of three, a third of a cell apart; 4 is the middle. Where
        what is free above (n,) is lower than the body is high there is no room, and nothing is looked for.
        Where the middle of a cell is too close to something by less than half a cell, the places
        around it are tried, so that no gap that a body fits through with 5 cm to spare is lost.
        """
        upright = np.flatnonzero(above_m >= body.height_m)
        room, taker, at = np.zeros(len(points)), np.full(len(points), NOBODY), np.full(len(points), 4, np.uint8)
        standing = points[upright]
        room[upright], taker[upright], at[upright] = nearest.sides(
            standing, _neighbourly(standing), _room_for(body, reach_m, cell_m / 3.0), self._where
        )
        return room, self.owners(taker), at

    def nearest(
        self,
        x_m: float,
        y_m: float,
        low_m: float,
        high_m: float,
        reach_m: float,
        halves: Array = EVERYWHERE,
        slope: float = -1.0,
        climb: float = 0.0,
    ) -> tuple[float, int, tuple[float, float]]:
        """The nearest thing between two heights: how far, which component (-1 for none in reach), and where.

        Each of ``halves`` (n, 3) with (a, b, c) asks only for what lies on ``a x + b y >= c``; floors no
        steeper than ``slope`` do not count, nor does what ends below ``low_m`` plus ``climb`` times its distance.
        """
        foot = np.array([x_m, y_m])
        obstacle = Obstacle(low_m, high_m, climb, halves)
        gap, found = nearest.nearest(x_m, y_m, reach_m, slope, obstacle, self._where, foot)
        return float(gap), self._whose(int(found)), (float(foot[0]), float(foot[1]))

    def lowest(self, x_m: float, y_m: float, low_m: float, high_m: float, radius_m: float) -> tuple[float, int]:
        """The lowest height between two at which something reaches over a disc, and its component; else ``high_m``."""
        height, found = heights.lowest(x_m, y_m, low_m, high_m, radius_m, self._where)
        return float(height), self._whose(int(found))

    def lowest_over(self, points: Array, low_m: Array, high_m: Array, radius_m: float) -> tuple[Array, Ints]:
        """``lowest`` over many points (n, >=2), between own heights (n,) each: heights, and triangles for ``owners``."""
        height, found = heights.lowest_over(points, low_m, high_m, radius_m, self._where)
        return height, found

    def widths(
        self, points: Array, left: Array, room_m: Array, body: Body, widest_m: float, limit_m: float
    ) -> tuple[Array, npt.NDArray[np.int32]]:
        """Clear widths (n,) across a way at points of the floor (n, 3), and the components (n, 2) to both sides.

        ``left`` (n, 2) is the direction to the left of the way, and nothing is known to be nearer than ``room_m``
        (n,). The nearest thing to one side, and from it the
        nearest to the other: a gap is as wide as it is whichever way one goes through it. Infinite where it is
        wider than ``widest_m``, or than ``limit_m`` and any width before.
        """
        width, one, other = nearest.widths(
            np.ascontiguousarray(points), np.ascontiguousarray(left), room_m, _room_for(body, widest_m, 0.0), widest_m,
            limit_m, self._where,
        )  # fmt: skip
        return width, np.column_stack([self.owners(one), self.owners(other)])

    def trodden(self, points: Array, down_m: float, up_m: float) -> Array:
        """The floor's own height (n,) under points (n, 3), looked for so far below and above them; NaN for none."""
        return self.trodden_by(points, down_m, up_m)[0]

    def trodden_by(self, points: Array, down_m: float, up_m: float) -> tuple[Array, npt.NDArray[np.int32]]:
        """The same, and whose floor (n,) it is, NOBODY for none."""
        height, triangle = heights.trodden(np.ascontiguousarray(points), down_m, up_m, self._where)
        return np.asarray(height), self.owners(triangle)
