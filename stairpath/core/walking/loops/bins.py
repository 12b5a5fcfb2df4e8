"""Triangles sorted into bins by where they are."""

from __future__ import annotations

from typing import NamedTuple

import numba
import numpy as np
import numpy.typing as npt

BIN_M = 0.5
BIN_HEIGHT_M = 1.0


class Layout(NamedTuple):
    """Where bins are kept: those along x, y and z, pages along x and y, and the number of each page, -1 for none.

    A page is a block of 16 x 16 x 8 bins; only those into which something reaches are kept, so that bins take
    memory by what there is, whatever lies between.
    """

    nx: int
    ny: int
    nz: int
    px: int
    py: int
    page: npt.NDArray[np.int32]


PAGE_BINS = 16 * 16 * 8


class Binned(NamedTuple):
    """Triangles (n, 3, 3) and where to find those near a point.

    ``reaches`` (n, 7) are the lowest and highest z, x and y of each, and its slope as rise over run, infinite
    where it does not face upwards; the triangles of a slot are ``of[start[slot]:start[slot + 1]]``.
    """

    triangles: npt.NDArray[np.float64]
    reaches: npt.NDArray[np.float64]
    low: npt.NDArray[np.float64]
    layout: Layout
    start: npt.NDArray[np.int64]
    of: npt.NDArray[np.int64]


@numba.njit(cache=True, nogil=True)
def slot(layout, i, j, k):
    """Where a bin is kept, or -1 if nothing reaches into its page."""
    page = layout.page[((k >> 3) * layout.py + (j >> 4)) * layout.px + (i >> 4)]
    return -1 if page < 0 else page * PAGE_BINS + ((k & 7) << 8) + ((j & 15) << 4) + (i & 15)


@numba.njit(cache=True, nogil=True)
def pages_of(reaches, low, count, size, height):
    """The pages into which triangles reach, numbered: the table of them, and how many."""
    px, py, pz = (count[0] + 15) >> 4, (count[1] + 15) >> 4, (count[2] + 7) >> 3
    page = np.full(px * py * pz, -1, dtype=np.int32)
    used = 0
    for t in range(len(reaches)):
        i0, i1 = int((reaches[t, 2] - low[0]) / size) >> 4, int((reaches[t, 3] - low[0]) / size) >> 4
        j0, j1 = int((reaches[t, 4] - low[1]) / size) >> 4, int((reaches[t, 5] - low[1]) / size) >> 4
        k0, k1 = int((reaches[t, 0] - low[2]) / height) >> 3, int((reaches[t, 1] - low[2]) / height) >> 3
        for k in range(k0, k1 + 1):
            for j in range(j0, j1 + 1):
                for i in range(i0, i1 + 1):
                    at = (k * py + j) * px + i
                    if page[at] < 0:
                        page[at] = used
                        used += 1
    return px, py, page, used


@numba.njit(cache=True, nogil=True)
def paged(reaches, low, layout, used, size, height):
    """Which triangles reach into each kept bin: where those of a slot begin, and which they are."""
    start = np.zeros(used * PAGE_BINS + 1, dtype=np.int64)
    of = np.zeros(0, dtype=np.int64)
    place = np.zeros(0, dtype=np.int64)
    for fill in range(2):
        if fill:
            start[1:] = np.cumsum(start[:-1])
            start[0] = 0
            of = np.empty(start[-1], dtype=np.int64)
            place = start[:-1].copy()
        for t in range(len(reaches)):
            i0, i1 = int((reaches[t, 2] - low[0]) / size), int((reaches[t, 3] - low[0]) / size)
            j0, j1 = int((reaches[t, 4] - low[1]) / size), int((reaches[t, 5] - low[1]) / size)
            k0, k1 = int((reaches[t, 0] - low[2]) / height), int((reaches[t, 1] - low[2]) / height)
            for k in range(k0, k1 + 1):
                for j in range(j0, j1 + 1):
                    for i in range(i0, i1 + 1):
                        b = slot(layout, i, j, k)
                        if fill:
                            of[place[b]] = t
                            place[b] += 1
                        else:
                            start[b] += 1
    return start, of


@numba.njit(cache=True, nogil=True)
def bins_between(i0, i1, j0, j1, k0, k1, layout):
    """The slots of the bins in a range along x, y and z, as far as they are kept."""
    i0, j0, k0 = max(0, i0), max(0, j0), max(0, k0)
    i1, j1, k1 = min(layout.nx - 1, i1), min(layout.ny - 1, j1), min(layout.nz - 1, k1)
    out = np.empty(max(0, i1 - i0 + 1) * max(0, j1 - j0 + 1) * max(0, k1 - k0 + 1), dtype=np.int64)
    n = 0
    for k in range(k0, k1 + 1):
        for j in range(j0, j1 + 1):
            for i in range(i0, i1 + 1):
                b = slot(layout, i, j, k)
                if b >= 0:
                    out[n] = b
                    n += 1
    return out[:n]


@numba.njit(cache=True, nogil=True)
def meets(halves, first_bin, i, j):
    """Whether a bin has anything on the right side of half-planes."""
    x, y = first_bin[0] + i * BIN_M, first_bin[1] + j * BIN_M
    for k in range(len(halves)):
        a, b, c = halves[k]
        if a * (x + BIN_M if a > 0.0 else x) + b * (y + BIN_M if b > 0.0 else y) < c:
            return False
    return True


@numba.njit(cache=True, nogil=True)
def gather(low, high, grade, seen, stamp, near, binned):
    """Which triangles come into a box, into ``near``; how many."""
    _, zs, first_bin, layout, bins_start, bins_of = binned
    count = 0
    i0, i1 = int((low[0] - first_bin[0]) / BIN_M), int((high[0] - first_bin[0]) / BIN_M)
    j0, j1 = int((low[1] - first_bin[1]) / BIN_M), int((high[1] - first_bin[1]) / BIN_M)
    k0, k1 = int((low[2] - first_bin[2]) / BIN_HEIGHT_M), int((high[2] - first_bin[2]) / BIN_HEIGHT_M)
    for b in bins_between(i0, i1, j0, j1, k0, k1, layout):
        for m in range(bins_start[b], bins_start[b + 1]):
            t = bins_of[m]
            if seen[t] == stamp:
                continue
            seen[t] = stamp
            if zs[t, 1] <= low[2] or zs[t, 0] >= high[2] or zs[t, 6] <= grade:
                continue
            if zs[t, 3] < low[0] or zs[t, 2] > high[0] or zs[t, 5] < low[1] or zs[t, 4] > high[1]:
                continue
            near[count] = t
            count += 1
    return count
