"""Whether two bodies' faces go through one another, and how far one must be shifted along a way to come free."""

from __future__ import annotations

import numba
import numpy as np

from stairpath.core.measuring.loops.tree import Tree, boxes_apart
from stairpath.core.measuring.loops.triangles import boxes_of_triangles_apart, pierces

TOUCHING = 1e-7
"""So small a share of an edge or a side beyond a face counts as touching it."""


@numba.njit(cache=True, nogil=True)
def crossings(a, tree_a, b, tree_b, most):
    """Points (k, 3), at most so many, where an edge of one body goes through a face of the other; of which triangles.

    What only touches does not go through. The triangles (k, 2) are one of ``a`` and one of ``b``.
    """
    found, triangles = np.empty((most, 3)), np.empty((most, 2), dtype=np.int64)
    count = 0
    at = np.empty(3)
    stack = np.empty((8192, 2), dtype=np.int64)
    stack[0, 0], stack[0, 1] = 0, 0
    top = 1
    while top and count < most:
        top -= 1
        i, j = stack[top, 0], stack[top, 1]
        if boxes_apart(tree_a.boxes[i], tree_b.boxes[j]) > 0.0:
            continue
        if tree_a.half[i] >= 0 and (tree_b.half[j] < 0 or tree_a.held[i] >= tree_b.held[j]):
            for k in range(2):
                stack[top, 0], stack[top, 1] = tree_a.half[i] + k, j
                top += 1
            continue
        if tree_b.half[j] >= 0:
            for k in range(2):
                stack[top, 0], stack[top, 1] = i, tree_b.half[j] + k
                top += 1
            continue
        for m in range(tree_a.first[i], tree_a.first[i] + tree_a.held[i]):
            s = tree_a.order[m]
            for n in range(tree_b.first[j], tree_b.first[j] + tree_b.held[j]):
                t = tree_b.order[n]
                if boxes_of_triangles_apart(a[s], b[t]) > 0.0:
                    continue
                for k in range(6):
                    one, other = (a[s], b[t]) if k < 3 else (b[t], a[s])
                    if count < most and pierces(one, k % 3, (k + 1) % 3, other, TOUCHING, at):
                        found[count, 0], found[count, 1], found[count, 2] = at[0], at[1], at[2]
                        triangles[count, 0], triangles[count, 1] = s, t
                        count += 1
    return found[:count], triangles[:count]


@numba.njit(cache=True, nogil=True)
def first_clear(a, tree_a, b, tree_b, direction, shifts, begin):
    """The place of the first of the shifts (k,) of ``a`` along a direction at which no faces go through one another.

    Looked for from ``begin`` on; ``len(shifts)`` where there is none. Two triangles that met at the shift before mostly
    still do, so they are asked first.
    """
    moved, boxes = np.empty_like(a), np.empty_like(tree_a.boxes)
    at = np.empty(3)
    s, t = -1, -1
    for m in range(begin, len(shifts)):
        for k in range(3):
            by = shifts[m] * direction[k]
            moved[:, :, k] = a[:, :, k] + by
            boxes[:, k] = tree_a.boxes[:, k] + by
            boxes[:, 3 + k] = tree_a.boxes[:, 3 + k] + by
        still = False
        for k in range(6):
            if s >= 0 and not still:
                one, other = (moved[s], b[t]) if k < 3 else (b[t], moved[s])
                still = pierces(one, k % 3, (k + 1) % 3, other, TOUCHING, at)
        if still:
            continue
        tree = Tree(boxes, tree_a.half, tree_a.first, tree_a.held, tree_a.order)
        triangles = crossings(moved, tree, b, tree_b, 1)[1]
        if len(triangles) == 0:
            return m
        s, t = triangles[0, 0], triangles[0, 1]
    return len(shifts)


@numba.njit(cache=True, nogil=True)
def _clipped(polygon, count, t, out):
    """The part of a convex polygon on plan that lies over a triangle (3, 3); how many corners it has.

    Sutherland and Hodgman (1974), with ``polygon`` and ``out`` (9, 2) in turn; the result is in ``polygon``.
    """
    turn = (t[1, 0] - t[0, 0]) * (t[2, 1] - t[0, 1]) - (t[1, 1] - t[0, 1]) * (t[2, 0] - t[0, 0])
    for e in range(3):
        p, q = (e, (e + 1) % 3) if turn > 0.0 else ((e + 1) % 3, e)
        ex, ey = t[q, 0] - t[p, 0], t[q, 1] - t[p, 1]
        kept = 0
        for k in range(count):
            m = (k + 1) % count
            here = ex * (polygon[k, 1] - t[p, 1]) - ey * (polygon[k, 0] - t[p, 0])
            there = ex * (polygon[m, 1] - t[p, 1]) - ey * (polygon[m, 0] - t[p, 0])
            if here >= 0.0:
                out[kept, 0], out[kept, 1] = polygon[k, 0], polygon[k, 1]
                kept += 1
            if (here > 0.0 and there < 0.0) or (here < 0.0 and there > 0.0):
                share = here / (here - there)
                out[kept, 0] = polygon[k, 0] + share * (polygon[m, 0] - polygon[k, 0])
                out[kept, 1] = polygon[k, 1] + share * (polygon[m, 1] - polygon[k, 1])
                kept += 1
        count = kept
        for k in range(count):
            polygon[k, 0], polygon[k, 1] = out[k, 0], out[k, 1]
        if count < 3:
            return 0
    return count


@numba.njit(cache=True, nogil=True)
def _height(t, x, y):
    """The height of a triangle's plane above a point on plan."""
    ux, uy, uz = t[1, 0] - t[0, 0], t[1, 1] - t[0, 1], t[1, 2] - t[0, 2]
    vx, vy, vz = t[2, 0] - t[0, 0], t[2, 1] - t[0, 1], t[2, 2] - t[0, 2]
    nx, ny, nz = uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx
    return t[0, 2] - (nx * (x - t[0, 0]) + ny * (y - t[0, 1])) / nz


@numba.njit(cache=True, nogil=True)
def shifts_up(a, b, limit, most):
    """Shifts (k,) of ``a`` upwards, at most to the limit, at which one of its undersides leaves a top of ``b``.

    Only at these can it come free. At most so many are told, those that there are first.
    """
    found = np.empty(most)
    count = 0
    polygon, out = np.empty((9, 2)), np.empty((9, 2))
    for s in range(len(a)):
        t = a[s]
        down = (t[1, 0] - t[0, 0]) * (t[2, 1] - t[0, 1]) - (t[1, 1] - t[0, 1]) * (t[2, 0] - t[0, 0])
        if down > -1e-12:
            continue
        x0, x1 = min(t[0, 0], t[1, 0], t[2, 0]), max(t[0, 0], t[1, 0], t[2, 0])
        y0, y1 = min(t[0, 1], t[1, 1], t[2, 1]), max(t[0, 1], t[1, 1], t[2, 1])
        z0, z1 = min(t[0, 2], t[1, 2], t[2, 2]), max(t[0, 2], t[1, 2], t[2, 2])
        for r in range(len(b)):
            u = b[r]
            up = (u[1, 0] - u[0, 0]) * (u[2, 1] - u[0, 1]) - (u[1, 1] - u[0, 1]) * (u[2, 0] - u[0, 0])
            if up < 1e-12 or max(u[0, 2], u[1, 2], u[2, 2]) < z0 or min(u[0, 2], u[1, 2], u[2, 2]) > z1 + limit:
                continue
            if max(u[0, 0], u[1, 0], u[2, 0]) < x0 or min(u[0, 0], u[1, 0], u[2, 0]) > x1:
                continue
            if max(u[0, 1], u[1, 1], u[2, 1]) < y0 or min(u[0, 1], u[1, 1], u[2, 1]) > y1:
                continue
            for k in range(3):
                polygon[k, 0], polygon[k, 1] = t[k, 0], t[k, 1]
            corners = _clipped(polygon, 3, u, out)
            for k in range(corners):
                shift = _height(u, polygon[k, 0], polygon[k, 1]) - _height(t, polygon[k, 0], polygon[k, 1])
                if 0.0 <= shift <= limit and count < most:
                    found[count] = shift
                    count += 1
    return found[:count]
