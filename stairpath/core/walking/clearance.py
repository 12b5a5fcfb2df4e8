"""How much room there is beside and above a point of the floor, to the triangles themselves."""

from __future__ import annotations

from dataclasses import dataclass

import numba
import numpy as np
import numpy.typing as npt

from stairpath.core.walking.bodies import Body
from stairpath.core.walking.floors import Floors
from stairpath.core.walking.solids import Solids

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]

BIN_M = 0.5
BIN_HEIGHT_M = 1.0
NOBODY = -1
EVERYWHERE: Array = np.zeros((0, 3))


@dataclass(frozen=True)
class Bins:
    """Which triangles come near a place: those of bin ``b`` are ``of[start[b]:start[b + 1]]``.

    ``low`` (3,) is the corner of the first bin, ``count`` (3,) how many there are along x, y and z.
    """

    low: Array
    count: Ints
    start: Ints
    of: Ints


@numba.njit(cache=True, nogil=True)  # type: ignore[untyped-decorator]
def _binned(reaches, low, count):  # type: ignore[no-untyped-def]
    nx, ny, nz = count
    start = np.zeros(nx * ny * nz + 1, dtype=np.int64)
    of = np.zeros(0, dtype=np.int64)
    place = np.zeros(0, dtype=np.int64)
    for fill in range(2):
        if fill:
            start[1:] = np.cumsum(start[:-1])
            start[0] = 0
            of = np.empty(start[-1], dtype=np.int64)
            place = start[:-1].copy()
        for t in range(len(reaches)):
            i0, i1 = int((reaches[t, 2] - low[0]) / BIN_M), int((reaches[t, 3] - low[0]) / BIN_M)
            j0, j1 = int((reaches[t, 4] - low[1]) / BIN_M), int((reaches[t, 5] - low[1]) / BIN_M)
            k0, k1 = int((reaches[t, 0] - low[2]) / BIN_HEIGHT_M), int((reaches[t, 1] - low[2]) / BIN_HEIGHT_M)
            for k in range(k0, k1 + 1):
                for j in range(j0, j1 + 1):
                    for i in range(i0, i1 + 1):
                        b = (k * ny + j) * nx + i
                        if fill:
                            of[place[b]] = t
                            place[b] += 1
                        else:
                            start[b] += 1
    return start, of


def bins_of(reaches: Array) -> Bins:
    """Sort triangles by where they are; ``reaches`` (n, 7) begins with their lowest and highest z, x and y."""
    if not len(reaches):
        return Bins(np.zeros(3), np.ones(3, dtype=np.int64), np.zeros(2, dtype=np.int64), np.zeros(0, dtype=np.int64))
    low = reaches[:, [2, 4, 0]].min(axis=0)
    high = reaches[:, [3, 5, 1]].max(axis=0)
    count = ((high - low) / [BIN_M, BIN_M, BIN_HEIGHT_M]).astype(np.int64) + 1
    start, of = _binned(reaches, low, count)
    return Bins(low, count, start, of)


@numba.njit(cache=True, nogil=True)  # type: ignore[untyped-decorator]
def _cut(polygon, count, axis_x, axis_y, axis_z, limit, out):  # type: ignore[no-untyped-def]
    """The part of a convex polygon where a direction's product is at least a limit; how many corners it has."""
    kept = 0
    for k in range(count):
        m = (k + 1) % count
        here = axis_x * polygon[k, 0] + axis_y * polygon[k, 1] + axis_z * polygon[k, 2] - limit
        there = axis_x * polygon[m, 0] + axis_y * polygon[m, 1] + axis_z * polygon[m, 2] - limit
        if here >= 0.0:
            out[kept, 0], out[kept, 1], out[kept, 2] = polygon[k, 0], polygon[k, 1], polygon[k, 2]
            kept += 1
        if (here >= 0.0) != (there >= 0.0):
            share = here / (here - there)
            out[kept, 0] = polygon[k, 0] + share * (polygon[m, 0] - polygon[k, 0])
            out[kept, 1] = polygon[k, 1] + share * (polygon[m, 1] - polygon[k, 1])
            out[kept, 2] = polygon[k, 2] + share * (polygon[m, 2] - polygon[k, 2])
            kept += 1
    return kept


@numba.njit(cache=True, nogil=True)  # type: ignore[untyped-decorator]
def _apart(polygon, count, x, y, foot):  # type: ignore[no-untyped-def]
    """Distance squared on plan from a point to a convex polygon, and the point of it that is nearest in ``foot``."""
    best = 1e30
    left, right = False, False
    for k in range(count):
        m = (k + 1) % count
        ax, ay = polygon[k, 0], polygon[k, 1]
        ux, uy = polygon[m, 0] - ax, polygon[m, 1] - ay
        size = ux * ux + uy * uy
        share = 0.0 if size == 0.0 else min(1.0, max(0.0, ((x - ax) * ux + (y - ay) * uy) / size))
        px, py = ax + share * ux, ay + share * uy
        gap = (px - x) * (px - x) + (py - y) * (py - y)
        if gap < best:
            best = gap
            foot[0], foot[1] = px, py
        side = ux * (y - ay) - uy * (x - ax)
        left |= side > 1e-12
        right |= side < -1e-12
    if left != right:  # strictly inside
        foot[0], foot[1] = x, y
        return 0.0
    return best


@numba.njit(cache=True, nogil=True)  # type: ignore[untyped-decorator]
def _nearest(x, y, low, high, reach, enough, climb, grade, halves, triangles, zs, first_bin, bin_count, bins_start, bins_of, foot):  # type: ignore[no-untyped-def]
    """The nearest triangle between two heights within reach on plan: how far, which, and where (in ``foot``).

    Each of ``halves`` (n, 3) with (a, b, c) leaves out what does not lie on ``a x + b y >= c``. What ends below ``low``
    plus its distance times ``climb`` is stepped onto, not bumped into; so is an upward face no
    steeper than ``grade``, whose edges are faces of their own. Once something is nearer
    than ``enough`` the search ends with it.
    """
    best = reach * reach
    found = -1
    one, other = np.empty((9, 3)), np.empty((9, 3))
    at = np.empty(2)
    nx, ny, nz = bin_count
    gx, gy = (x - first_bin[0]) / BIN_M, (y - first_bin[1]) / BIN_M
    steps = int(reach / BIN_M) + 1
    k0 = max(0, int((low - first_bin[2]) / BIN_HEIGHT_M))
    k1 = min(nz - 1, int((high - first_bin[2]) / BIN_HEIGHT_M))
    # Rings of bins around the point: what is near soon rules out what is farther.
    for ring in range(steps + 1):
        for j in range(int(gy) - ring, int(gy) + ring + 1):
            if j < 0 or j >= ny:
                continue
            wy = max(0.0, j - gy, gy - j - 1.0) * BIN_M
            edge = j == int(gy) - ring or j == int(gy) + ring
            for i in range(int(gx) - ring, int(gx) + ring + 1, 1 if edge or ring == 0 else 2 * ring):
                if i < 0 or i >= nx:
                    continue
                wx = max(0.0, i - gx, gx - i - 1.0) * BIN_M
                if wx * wx + wy * wy >= best:
                    continue
                for k in range(k0, k1 + 1):
                    b = (k * ny + j) * nx + i
                    for m in range(bins_start[b], bins_start[b + 1]):
                        t = bins_of[m]
                        if zs[t, 1] <= low or zs[t, 0] >= high or zs[t, 6] <= grade:
                            continue
                        dx = max(0.0, zs[t, 2] - x, x - zs[t, 3])
                        dy = max(0.0, zs[t, 4] - y, y - zs[t, 5])
                        if dx * dx + dy * dy >= best:
                            continue
                        count = _cut(triangles[t], 3, 0.0, 0.0, 1.0, low, one)
                        count = _cut(one, count, 0.0, 0.0, -1.0, -high, other)
                        for h in range(len(halves)):
                            count = _cut(other, count, halves[h, 0], halves[h, 1], 0.0, halves[h, 2], one)
                            other, one = one, other
                        if count == 0:
                            continue
                        gap = _apart(other, count, x, y, at)
                        if gap >= best or zs[t, 1] <= low + climb * np.sqrt(gap):
                            continue
                        best, found = gap, t
                        foot[0], foot[1] = at[0], at[1]
                        if gap < enough * enough:
                            return np.sqrt(best), found
    return np.sqrt(best), found


@numba.njit(cache=True, nogil=True)  # type: ignore[untyped-decorator]
def _bins_between(i0, i1, j0, j1, k0, k1, nx, ny, nz):  # type: ignore[no-untyped-def]
    for k in range(max(0, k0), min(nz - 1, k1) + 1):
        for j in range(max(0, j0), min(ny - 1, j1) + 1):
            for i in range(max(0, i0), min(nx - 1, i1) + 1):
                yield (k * ny + j) * nx + i


@numba.njit(cache=True, nogil=True)  # type: ignore[untyped-decorator]
def _lowest(x, y, low, high, radius, triangles, zs, first_bin, bin_count, bins_start, bins_of):  # type: ignore[no-untyped-def]
    """The lowest height at which a triangle reaches over a disc, between two heights; and which triangle."""
    best = high
    found = -1
    one = np.empty((9, 3))
    nx, ny, nz = bin_count
    i0, i1 = int((x - radius - first_bin[0]) / BIN_M), int((x + radius - first_bin[0]) / BIN_M)
    j0, j1 = int((y - radius - first_bin[1]) / BIN_M), int((y + radius - first_bin[1]) / BIN_M)
    k0, k1 = int((low - first_bin[2]) / BIN_HEIGHT_M), int((high - first_bin[2]) / BIN_HEIGHT_M)
    for b in _bins_between(i0, i1, j0, j1, k0, k1, nx, ny, nz):
        for k in range(bins_start[b], bins_start[b + 1]):
            t = bins_of[k]
            if zs[t, 0] >= best or zs[t, 1] <= low:
                continue
            dx = max(0.0, zs[t, 2] - x, x - zs[t, 3])
            dy = max(0.0, zs[t, 4] - y, y - zs[t, 5])
            if dx * dx + dy * dy >= radius * radius:
                continue
            count = _cut(triangles[t], 3, 0.0, 0.0, 1.0, low, one)
            for m in range(count):
                n = (m + 1) % count
                # The part of an edge within the disc; its lower end counts.
                ax, ay, az = one[m, 0] - x, one[m, 1] - y, one[m, 2]
                ux, uy, uz = one[n, 0] - one[m, 0], one[n, 1] - one[m, 1], one[n, 2] - one[m, 2]
                size = ux * ux + uy * uy
                away = ax * ax + ay * ay - radius * radius
                if size < 1e-18:
                    if away < 0.0 and min(az, az + uz) < best:
                        best, found = min(az, az + uz), t
                    continue
                along = ax * ux + ay * uy
                root = along * along - size * away
                if root <= 0.0:
                    continue
                first = max(0.0, (-along - np.sqrt(root)) / size)
                last = min(1.0, (-along + np.sqrt(root)) / size)
                if first < last:
                    lower = az + (first if uz > 0.0 else last) * uz
                    if lower < best:
                        best, found = lower, t
            # Inside the disc a sloping face is lowest at its rim, a level one anywhere.
            height = _lowest_within(triangles[t], x, y, radius)
            if low < height < best:
                best, found = height, t
    return best, found


@numba.njit(cache=True, nogil=True)  # type: ignore[untyped-decorator]
def _lowest_within(triangle, x, y, radius):  # type: ignore[no-untyped-def]
    """Height of a face at the disc's point down its slope, or above all if that is not on it."""
    a, b, c = triangle[0], triangle[1], triangle[2]
    ux, uy, uz = b[0] - a[0], b[1] - a[1], b[2] - a[2]
    vx, vy, vz = c[0] - a[0], c[1] - a[1], c[2] - a[2]
    det = ux * vy - uy * vx
    if abs(det) < 1e-12:
        return 1e30
    gx = (uz * vy - vz * uy) / det
    gy = (vz * ux - uz * vx) / det
    steep = np.sqrt(gx * gx + gy * gy)
    px = x - a[0] - (gx / steep * radius if steep > 1e-9 else 0.0)
    py = y - a[1] - (gy / steep * radius if steep > 1e-9 else 0.0)
    s, r = (px * vy - py * vx) / det, (ux * py - uy * px) / det
    if s < 0.0 or r < 0.0 or s + r > 1.0:
        return 1e30
    return a[2] + s * uz + r * vz


@numba.njit(cache=True, nogil=True)  # type: ignore[untyped-decorator]
def _sides(points, lift, shoulder, height, reach, climb, grade, radius, spread, triangles, zs, first_bin, bin_count, bins_start, bins_of):  # type: ignore[no-untyped-def]
    """Room beside each point, what takes it, and which of nine places of its cell has most."""
    count = len(points)
    room, taker = np.empty(count), np.full(count, -1, dtype=np.int64)
    at = np.full(count, 4, dtype=np.uint8)
    hopeless = max(0.0, radius - 1.5 * spread)
    everywhere = np.zeros((0, 3))
    for p in range(count):
        foot = np.empty(2)
        x, y, z = points[p]
        if shoulder < height:
            _, found = _nearest(
                x, y, z + shoulder, z + height, 1.5 * spread, 0.0, 0.0, grade, everywhere,
                triangles, zs, first_bin, bin_count, bins_start, bins_of, foot,
            )  # fmt: skip
            if found >= 0:
                room[p], taker[p] = 0.0, found
                continue
        gap, found = _nearest(
            x, y, z + lift, z + shoulder, reach, hopeless, climb, grade, everywhere,
            triangles, zs, first_bin, bin_count, bins_start, bins_of, foot,
        )  # fmt: skip
        room[p], taker[p] = gap, found
        if gap >= radius or gap < hopeless:
            continue
        # The cell's middle is just too close to something; a little aside there may be room.
        for i in range(-1, 2):
            for j in range(-1, 2):
                if i == 0 and j == 0:
                    continue
                sx, sy = x + i * spread, y + j * spread
                gap, found = _nearest(
                    sx, sy, z + lift, z + shoulder, reach, hopeless, climb, grade, everywhere,
                    triangles, zs, first_bin, bin_count, bins_start, bins_of, foot,
                )  # fmt: skip
                if gap > room[p]:
                    room[p] = gap
                    at[p] = 3 * (j + 1) + i + 1
    return room, taker, at


@numba.njit(cache=True, nogil=True)  # type: ignore[untyped-decorator]
def _trodden(points, down, up, triangles, zs, first_bin, bin_count, bins_start, bins_of):  # type: ignore[no-untyped-def]
    """The highest upward face under each point, between so much below and above it; NaN for none; and which."""
    height, found = np.full(len(points), np.nan), np.full(len(points), -1, dtype=np.int64)
    nx, ny, nz = bin_count
    for p in range(len(points)):
        x, y, z = points[p]
        i, j = int((x - first_bin[0]) / BIN_M), int((y - first_bin[1]) / BIN_M)
        k0, k1 = int((z - down - first_bin[2]) / BIN_HEIGHT_M), int((z + up - first_bin[2]) / BIN_HEIGHT_M)
        for b in _bins_between(i, i, j, j, k0, k1, nx, ny, nz):
            for m in range(bins_start[b], bins_start[b + 1]):
                t = bins_of[m]
                if zs[t, 0] > z + up or zs[t, 1] < z - down:
                    continue
                a, bb, c = triangles[t, 0], triangles[t, 1], triangles[t, 2]
                ux, uy, uz = bb[0] - a[0], bb[1] - a[1], bb[2] - a[2]
                vx, vy, vz = c[0] - a[0], c[1] - a[1], c[2] - a[2]
                det = ux * vy - uy * vx
                if det < 1e-12:
                    continue
                px, py = x - a[0], y - a[1]
                s, r = (px * vy - py * vx) / det, (ux * py - uy * px) / det
                if s < -1e-9 or r < -1e-9 or s + r > 1.0 + 1e-9:
                    continue
                h = a[2] + s * uz + r * vz
                if z - down <= h <= z + up and not h <= height[p]:
                    height[p], found[p] = h, t
    return height, found


class Space:
    """The building's triangles, ready to be asked how much room there is somewhere."""

    def __init__(self, solids: Solids) -> None:
        self.solids = solids
        t = np.ascontiguousarray(solids.triangles)
        low, high = (t.min(axis=1), t.max(axis=1)) if len(t) else (np.zeros((0, 3)), np.zeros((0, 3)))
        # Lowest and highest, where it lies on plan, and how steep it is if one can stand on it.
        normal = np.cross(t[:, 1] - t[:, 0], t[:, 2] - t[:, 0])
        flat = np.hypot(normal[:, 0], normal[:, 1])
        slope = np.divide(flat, normal[:, 2], out=np.full(len(t), np.inf), where=normal[:, 2] > 0)
        reaches = np.ascontiguousarray(
            np.column_stack([low[:, 2], high[:, 2], low[:, 0], high[:, 0], low[:, 1], high[:, 1], slope])
        )
        self.low, self.high = (low.min(axis=0), high.max(axis=0)) if len(t) else (np.zeros(3), np.zeros(3))
        bins = bins_of(reaches)
        self._where = (t, reaches, bins.low, bins.count, bins.start, bins.of)

    def __len__(self) -> int:
        return len(self.solids.triangles)

    def around(self, place: tuple[int, int], size_m: float, margin_m: float) -> Ints:
        """The triangles over a square of the plan and so far around it."""
        reaches = self._where[1]
        x, y = place[0] * size_m, place[1] * size_m
        return np.flatnonzero(
            (reaches[:, 3] >= x - margin_m)
            & (reaches[:, 2] <= x + size_m + margin_m)
            & (reaches[:, 5] >= y - margin_m)
            & (reaches[:, 4] <= y + size_m + margin_m)
        )

    def _owners(self, triangles: npt.NDArray[np.int64]) -> npt.NDArray[np.int32]:
        out = np.full(len(triangles), NOBODY, dtype=np.int32)
        out[triangles >= 0] = self.solids.component[triangles[triangles >= 0]]
        return out

    def _whose(self, triangle: int) -> int:
        return int(self.solids.component[triangle]) if triangle >= 0 else NOBODY

    def beside(self, floors: Floors, body: Body, reach_m: float) -> tuple[Array, npt.NDArray[np.int32], npt.NDArray[np.uint8]]:
        """Room (n,) in metres beside each floor's place, up to ``reach_m``, what takes it, and where it is.

        The place is one of nine in three rows of three, a third of a cell apart; 4 is the middle.

        Where a ceiling is lower than the body is high there is none, and nothing is looked for.
        Where the middle of a cell is too close to something by less than half a cell, eight places
        around it are tried, so that no gap that a body fits through with 5 cm to spare is lost.
        """
        points = np.column_stack([floors.grid.centres(floors.cell), floors.height_m])
        upright = np.flatnonzero(floors.above_m >= body.height_m)
        climb = 1.0 if body.climbs else 0.0
        room, taker, at = np.zeros(len(points)), np.full(len(points), NOBODY), np.full(len(points), 4, np.uint8)
        room[upright], taker[upright], at[upright] = _sides(
            points[upright], body.step_up_m + 1e-3, body.shoulder_m, body.height_m, reach_m, climb, body.steepest, body.radius_m,
            floors.grid.cell_m / 3.0, *self._where,
        )  # fmt: skip
        return room, self._owners(taker), at

    def nearest(
        self,
        x_m: float,
        y_m: float,
        low_m: float,
        high_m: float,
        reach_m: float,
        halves: Array = EVERYWHERE,
        slope: float = -1.0,
    ) -> tuple[float, int, tuple[float, float]]:
        """The nearest thing between two heights: how far, which component (-1 for none in reach), and where.

        Each of ``halves`` (n, 3) with (a, b, c) asks only for what lies on ``a x + b y >= c``; floors no
        steeper than ``slope`` do not count.
        """
        foot = np.array([x_m, y_m])
        gap, found = _nearest(x_m, y_m, low_m, high_m, reach_m, 0.0, 0.0, slope, halves, *self._where, foot)
        return float(gap), self._whose(int(found)), (float(foot[0]), float(foot[1]))

    def lowest(
        self, x_m: float, y_m: float, low_m: float, high_m: float, radius_m: float
    ) -> tuple[float, int]:
        """The lowest height between two at which something reaches over a disc, and its component; else ``high_m``."""
        height, found = _lowest(x_m, y_m, low_m, high_m, radius_m, *self._where)
        return float(height), self._whose(int(found))

    def trodden(self, points: Array, down_m: float, up_m: float) -> Array:
        """The floor's own height (n,) under points (n, 3), looked for so far below and above them; NaN for none."""
        height, _ = _trodden(np.ascontiguousarray(points), down_m, up_m, *self._where)
        return np.asarray(height)
