"""Down two trees at once: the nearest points of two bodies, and the triangles that meet."""

from __future__ import annotations

import numba
import numpy as np

from stairpath.core.measuring.loops.tree import boxes_apart, size_of
from stairpath.core.measuring.loops.triangles import between, boxes_of_triangles_apart, onto_triangle


@numba.njit(cache=True, nogil=True)
def nearest(a, tree_a, b, tree_b, enough, limit):
    """How far triangles (n, 3, 3) and (m, 3, 3) are apart squared, up to a limit, with the two points (2, 3).

    Of each two boxes the larger is halved, and the nearer half looked into first; the search ends at ``enough``.
    """
    points = np.zeros((2, 3))
    at, there, one, other = np.empty(3), np.empty(3), np.empty(3), np.empty(3)
    best = limit
    stack = np.empty((4096, 2), dtype=np.int64)
    gaps = np.empty(4096)
    stack[0, 0], stack[0, 1] = 0, 0
    gaps[0] = boxes_apart(tree_a.boxes[0], tree_b.boxes[0])
    top = 1
    while top and best > enough:
        top -= 1
        if gaps[top] >= best:
            continue
        i, j = stack[top, 0], stack[top, 1]
        leaf_a, leaf_b = tree_a.half[i] < 0, tree_b.half[j] < 0
        if leaf_a and leaf_b:
            for m in range(tree_a.first[i], tree_a.first[i] + tree_a.held[i]):
                s = tree_a.order[m]
                for n in range(tree_b.first[j], tree_b.first[j] + tree_b.held[j]):
                    t = tree_b.order[n]
                    if boxes_of_triangles_apart(a[s], b[t]) >= best:
                        continue
                    gap = between(a[s], b[t], at, there, one, other)
                    if gap < best:
                        best = gap
                        for k in range(3):
                            points[0, k], points[1, k] = at[k], there[k]
            continue
        size_a, size_b = size_of(tree_a.boxes[i]), size_of(tree_b.boxes[j])
        into_a = leaf_b or (not leaf_a and size_a >= size_b)
        for k in range(2):
            x, y = (tree_a.half[i] + k, j) if into_a else (i, tree_b.half[j] + k)
            gap = boxes_apart(tree_a.boxes[x], tree_b.boxes[y])
            if gap < best:
                stack[top, 0], stack[top, 1], gaps[top] = x, y, gap
                top += 1
        # What was put last is looked into first.
        if top >= 2 and gaps[top - 1] > gaps[top - 2]:
            x, y, gap = stack[top - 1, 0], stack[top - 1, 1], gaps[top - 1]
            stack[top - 1, 0], stack[top - 1, 1], gaps[top - 1] = stack[top - 2, 0], stack[top - 2, 1], gaps[top - 2]
            stack[top - 2, 0], stack[top - 2, 1], gaps[top - 2] = x, y, gap
    return best, points


@numba.njit(cache=True, nogil=True)
def nearest_to(point, b, tree_b, limit):
    """How far a point (3,) is from triangles squared, up to a limit, and the nearest point of them (3,)."""
    at, found = np.empty(3), np.zeros(3)
    best, which = limit, -1
    box = np.empty(6)
    box[:3], box[3:] = point, point
    stack = np.empty(512, dtype=np.int64)
    stack[0], top = 0, 1
    while top:
        top -= 1
        j = stack[top]
        if boxes_apart(box, tree_b.boxes[j]) >= best:
            continue
        half = tree_b.half[j]
        if half < 0:
            for n in range(tree_b.first[j], tree_b.first[j] + tree_b.held[j]):
                gap = onto_triangle(point[0], point[1], point[2], b[tree_b.order[n]], at)
                if gap < best:
                    best, which = gap, tree_b.order[n]
                    found[0], found[1], found[2] = at[0], at[1], at[2]
            continue
        near, far = half, half + 1
        if boxes_apart(box, tree_b.boxes[far]) < boxes_apart(box, tree_b.boxes[near]):
            near, far = far, near
        stack[top], stack[top + 1] = far, near
        top += 2
    return best, which, found


@numba.njit(cache=True, nogil=True)
def turns_around(point, corners):
    """How often triangles (n, 3, 3) go round a point: the solid angle that they take up over that of a whole sphere.

    Van Oosterom and Strackee, The Solid Angle of a Plane Triangle (1983).
    """
    total = 0.0
    px, py, pz = point[0], point[1], point[2]
    for t in range(len(corners)):
        ax, ay, az = corners[t, 0, 0] - px, corners[t, 0, 1] - py, corners[t, 0, 2] - pz
        bx, by, bz = corners[t, 1, 0] - px, corners[t, 1, 1] - py, corners[t, 1, 2] - pz
        cx, cy, cz = corners[t, 2, 0] - px, corners[t, 2, 1] - py, corners[t, 2, 2] - pz
        la = np.sqrt(ax * ax + ay * ay + az * az)
        lb = np.sqrt(bx * bx + by * by + bz * bz)
        lc = np.sqrt(cx * cx + cy * cy + cz * cz)
        top = ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx)
        ab, bc, ca = ax * bx + ay * by + az * bz, bx * cx + by * cy + bz * cz, cx * ax + cy * ay + cz * az
        total += 2.0 * np.arctan2(top, la * lb * lc + ab * lc + bc * la + ca * lb)
    return total / (4.0 * np.pi)
