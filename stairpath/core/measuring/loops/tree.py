"""A tree of boxes around triangles: each box holds those of its two halves."""

from __future__ import annotations

from typing import NamedTuple

import numba
import numpy as np
import numpy.typing as npt

LEAF = 4
"""So few triangles are looked at one by one."""


class Tree(NamedTuple):
    """Boxes (n, 6), low before high; the halves of box ``i`` are ``half[i]`` and the one after it.

    A leaf has no halves (-1) and holds the triangles ``order[first[i]:first[i] + held[i]]``.
    """

    boxes: npt.NDArray[np.float64]
    half: npt.NDArray[np.int64]
    first: npt.NDArray[np.int64]
    held: npt.NDArray[np.int64]
    order: npt.NDArray[np.int64]


@numba.njit(cache=True, nogil=True)
def build(corners):
    """The tree over triangles (n, 3, 3), halved where their middles are spread most."""
    n = len(corners)
    middle = np.empty((n, 3))
    for t in range(n):
        for k in range(3):
            middle[t, k] = (corners[t, 0, k] + corners[t, 1, k] + corners[t, 2, k]) / 3.0
    order = np.arange(n)
    most = max(1, 2 * n)
    boxes = np.empty((most, 6))
    half = np.full(most, -1, dtype=np.int64)
    first = np.zeros(most, dtype=np.int64)
    count = np.zeros(most, dtype=np.int64)
    count[0] = n
    made, at = 1, 0
    while at < made:
        begin, size = first[at], count[at]
        for k in range(3):
            boxes[at, k], boxes[at, 3 + k] = np.inf, -np.inf
        low, high = np.full(3, np.inf), np.full(3, -np.inf)
        for m in range(begin, begin + size):
            t = order[m]
            for k in range(3):
                for c in range(3):
                    v = corners[t, c, k]
                    boxes[at, k], boxes[at, 3 + k] = min(boxes[at, k], v), max(boxes[at, 3 + k], v)
                low[k], high[k] = min(low[k], middle[t, k]), max(high[k], middle[t, k])
        if size > LEAF:
            axis = np.argmax(high - low)
            part = order[begin : begin + size].copy()
            keys = np.empty(size)
            for m in range(size):
                keys[m] = middle[part[m], axis]
            ranked = np.argsort(keys)
            for m in range(size):
                order[begin + m] = part[ranked[m]]
            half[at] = made
            first[made], count[made] = begin, size // 2
            first[made + 1], count[made + 1] = begin + size // 2, size - size // 2
            made += 2
        at += 1
    return boxes[:made], half[:made], first[:made], count[:made], order


@numba.njit(cache=True, nogil=True)
def boxes_apart(a, b):
    """The distance squared between two boxes (6,)."""
    total = 0.0
    for k in range(3):
        gap = max(0.0, a[k] - b[3 + k], b[k] - a[3 + k])
        total += gap * gap
    return total


@numba.njit(cache=True, nogil=True)
def size_of(box):
    """How long, wide and high a box (6,) is, together."""
    return box[3] - box[0] + box[4] - box[1] + box[5] - box[2]
