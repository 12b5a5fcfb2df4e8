"""Where a plane goes through components: outlines in the plane, all components at once."""

from __future__ import annotations

from dataclasses import dataclass

import numba
import numpy as np
import numpy.typing as npt

from stairpath.core.reading.model import Geometry

Array = npt.NDArray[np.float64]
Index = npt.NDArray[np.int64]

_SAME_POINT_M = 1e-5
_IN_PLANE_M = 1e-6
"""A corner so near to the plane lies in it: coordinates of shapes are kept to about as much."""
_STRAIGHT = 1e-6
"""Sine under which a corner counts as none."""


@dataclass(frozen=True)
class Outlines:
    """Outlines in the plane, counter-clockwise about material and clockwise about holes.

    ``points`` (n, 2) metres; outline ``i`` is ``points[start[i]:start[i + 1]]``, closed if
    ``closed[i]``, of the component with ordinal ``owner[i]``.
    """

    points: Array
    start: Index
    owner: Index
    closed: npt.NDArray[np.bool_]

    def __len__(self) -> int:
        return len(self.owner)

    def __getitem__(self, i: int) -> Array:
        return self.points[self.start[i] : self.start[i + 1]]

    def lines(self) -> list[Array]:
        """Every outline as a line (n, 2), closed ones ending where they began."""
        if not len(self):
            return []
        closing = self.points[self.start[:-1][self.closed]]
        points = np.insert(self.points, self.start[1:][self.closed], closing, axis=0)
        return np.split(points, (self.start[1:] + np.cumsum(self.closed))[:-1])

    def areas(self) -> Array:
        """Area (k,) that each outline goes round, below zero for holes; open ones have none."""
        x, y = self.points[:, 0], self.points[:, 1]
        nx, ny = self._next(x), self._next(y)
        cross = np.concatenate([[0.0], np.cumsum(x * ny - nx * y)])
        return np.where(self.closed, (cross[self.start[1:]] - cross[self.start[:-1]]) / 2.0, 0.0)

    def lengths(self) -> Array:
        """Length (k,) of each outline, the closing side included."""
        x, y = self.points[:, 0], self.points[:, 1]
        steps = np.hypot(self._next(x) - x, self._next(y) - y)
        if len(steps):
            steps[self.start[1:][~self.closed] - 1] = 0.0
        total = np.concatenate([[0.0], np.cumsum(steps)])
        out: Array = total[self.start[1:]] - total[self.start[:-1]]
        return out

    def _next(self, values: Array) -> Array:
        """Each value's successor in its outline, the first after the last."""
        after = np.roll(values, -1)
        if len(values):
            after[self.start[1:] - 1] = values[self.start[:-1]]
        return after


def _segments(geometry: Geometry, placed: Index, to: Array) -> tuple[Array, Array, Index]:
    """Directed segments (n, 2), (n, 2) in which the plane meets triangles, and which placed shape each is of.

    A vertex in the plane counts as above it, so that what is closed is cut in closed outlines.
    """
    matrices = to @ geometry.matrix[placed]
    shapes = [geometry.shapes[i] for i in geometry.shape[placed]]
    counts = np.array([len(s.vertices) for s in shapes])
    first = np.cumsum(counts) - counts
    local = np.concatenate([s.vertices for s in shapes]).astype(np.float64)
    of_vertex = np.repeat(np.arange(len(placed)), counts)
    height = np.einsum("ij,ij->i", matrices[of_vertex, 2, :3], local) + matrices[of_vertex, 2, 3]
    height[np.abs(height) < _IN_PLANE_M] = 0.0
    triangles = np.concatenate([s.triangles + at for s, at in zip(shapes, first, strict=True)]).astype(np.int64)
    above = height >= 0.0
    up = above[triangles]
    number = up.sum(axis=1)
    crossing = (number == 1) | (number == 2)
    triangles, up, number = triangles[crossing], up[crossing], number[crossing]
    # Each triangle's lone vertex first, the others after it in order.
    alone = np.argmax(up == (number == 1)[:, None], axis=1)
    rows = np.arange(len(triangles))
    a, b, c = (triangles[rows, (alone + k) % 3] for k in range(3))
    of = of_vertex[a]

    used, inverse = np.unique(np.concatenate([a, b, c]), return_inverse=True)
    plan = np.empty((len(used), 2))
    for axis in range(2):
        turned = matrices[of_vertex[used], axis]
        plan[:, axis] = np.einsum("ij,ij->i", turned[:, :3], local[used]) + turned[:, 3]
    at = dict(zip("abc", np.split(inverse, 3), strict=True))

    def meet(p: Index, q: Index, on_p: Index, on_q: Index) -> Array:
        """Where an edge meets the plane, worked out from its lower vertex so that both its triangles agree."""
        low_first = p < q
        h0, h1 = np.where(low_first, height[p], height[q]), np.where(low_first, height[q], height[p])
        k0, k1 = np.where(low_first, on_p, on_q), np.where(low_first, on_q, on_p)
        share = h0 / (h0 - h1)
        met: Array = plan[k0] + share[:, None] * (plan[k1] - plan[k0])
        return met

    ab, ca = meet(a, b, at["a"], at["b"]), meet(a, c, at["a"], at["c"])
    mirrored = np.linalg.det(matrices[:, :3, :3]) < 0
    forwards = ((number == 1) != mirrored[of])[:, None]
    return np.where(forwards, ab, ca), np.where(forwards, ca, ab), of


@numba.njit(cache=True)  # type: ignore[untyped-decorator]
def _chains(following: Index, led: npt.NDArray[np.bool_]) -> tuple[Index, Index, npt.NDArray[np.bool_]]:
    """Follow segments from one to the next: their order, where each chain starts, whether it closes.

    Chains that begin somewhere are followed first; what is left are rings.
    """
    count = len(following)
    order = np.empty(count, np.int64)
    starts = np.empty(count + 1, np.int64)
    closed = np.empty(count, np.bool_)
    seen = np.zeros(count, np.bool_)
    done = 0
    chains = 0
    for ring in (False, True):
        for begin in range(count):
            if seen[begin] or (led[begin] and not ring):
                continue
            starts[chains] = done
            at = begin
            while at >= 0 and not seen[at]:
                seen[at] = True
                order[done] = at
                done += 1
                at = following[at]
            closed[chains] = ring
            chains += 1
    starts[chains] = done
    return order, starts[: chains + 1], closed[:chains]


def _linked(begin: Array, end: Array, of: Index) -> tuple[Index, npt.NDArray[np.bool_]]:
    """For each segment the one of the same shape that begins where it ends, -1 for none; whether one ends at it."""
    count = len(begin)
    cells = np.round(np.concatenate([begin, end]) / _SAME_POINT_M).astype(np.int64)
    order = np.lexsort((cells[:, 1], cells[:, 0], np.tile(of, 2)))
    rows = np.column_stack([np.tile(of, 2), cells])[order]
    number = np.empty(2 * count, dtype=np.int64)
    number[order] = np.cumsum(np.concatenate([[False], (rows[1:] != rows[:-1]).any(axis=1)]))

    def ranked(keys: Index) -> Index:
        """Each key with its rank among equal ones, so that meeting segments pair off one to one."""
        order = np.argsort(keys, kind="stable")
        sorted_keys = keys[order]
        rank = np.arange(len(keys)) - np.searchsorted(sorted_keys, sorted_keys)
        out = np.empty(len(keys), dtype=np.int64)
        out[order] = sorted_keys * (count + 1) + rank
        return out

    begins, ends = ranked(number[:count]), ranked(number[count:])
    order = np.argsort(begins)
    place = np.minimum(np.searchsorted(begins[order], ends), max(count - 1, 0))
    matched = begins[order][place] == ends
    following = np.where(matched, order[place], -1)
    led = np.zeros(count, dtype=bool)
    led[following[matched]] = True
    return following, led


def _without_straight_corners(found: Outlines) -> Outlines:
    """Leave out points that lie on the straight line between their neighbours."""
    p = found.points
    if not len(p):
        return found
    after = np.column_stack([found._next(p[:, 0]), found._next(p[:, 1])])
    before = np.empty_like(p)
    ends, begins = found.start[1:] - 1, found.start[:-1]
    before[1:] = p[:-1]
    before[begins] = p[ends]
    one, two = p - before, after - p
    sine = one[:, 0] * two[:, 1] - one[:, 1] * two[:, 0]
    forwards = np.einsum("ij,ij->i", one, two) > 0
    keep = (np.abs(sine) > _STRAIGHT * np.linalg.norm(one, axis=1) * np.linalg.norm(two, axis=1)) | ~forwards
    for at in (begins[~found.closed], ends[~found.closed]):
        keep[at] = True
    counts = np.add.reduceat(keep.astype(np.int64), begins)
    enough = counts >= 2
    keep &= np.repeat(enough, np.diff(found.start))
    return Outlines(
        p[keep], np.concatenate([[0], np.cumsum(counts[enough])]), found.owner[enough], found.closed[enough]
    )


def cut_level(geometry: Geometry, to: Array, height_m: float, wanted: npt.NDArray[np.bool_] | None = None) -> Outlines:
    """Cut components at a height; ``to`` (4, 4) brings the geometry's coordinates to those of the height."""
    lowered = np.array(to, dtype=np.float64)
    lowered[2, 3] -= height_m
    return section(geometry, lowered, wanted)


def section(geometry: Geometry, to: Array, wanted: npt.NDArray[np.bool_] | None = None) -> Outlines:
    """Cut components where ``to`` (4, 4) brings them to the height zero.

    ``wanted`` says for each component whether to cut it. Outlines are in order of their owners; those of what is not
    closed are open lines.
    """
    placed = np.flatnonzero(geometry.owner >= 0) if wanted is None else geometry.placed_of(wanted)
    empty = Outlines(np.zeros((0, 2)), np.zeros(1, np.int64), np.zeros(0, np.int64), np.zeros(0, bool))
    if not len(placed):
        return empty
    begin, end, of = _segments(geometry, placed, to)
    long = np.abs(np.round(begin / _SAME_POINT_M) - np.round(end / _SAME_POINT_M)).max(axis=1, initial=0) > 0
    begin, end, of = begin[long], end[long], of[long]
    if not len(begin):
        return empty
    following, led = _linked(begin, end, of)
    order, start, closed = _chains(following, led)
    owners = geometry.owner[placed][of[order[start[:-1]]]].astype(np.int64)
    # An open chain has one point more than it has segments.
    points = begin[order]
    open_ends = end[order[start[1:] - 1]]
    if not closed.all():
        points = np.insert(points, start[1:][~closed], open_ends[~closed], axis=0)
        start = start + np.concatenate([[0], np.cumsum(~closed)])
    ranked = np.argsort(owners, kind="stable")
    pick = np.concatenate([np.arange(start[i], start[i + 1]) for i in ranked])
    counts = np.diff(start)[ranked]
    found = Outlines(points[pick], np.concatenate([[0], np.cumsum(counts)]), owners[ranked], closed[ranked])
    return _without_straight_corners(found)
