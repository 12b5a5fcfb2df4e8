"""What two bodies share: volume, place, and the shortest shift that parts them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import reduce

import manifold3d
import numpy as np
import numpy.typing as npt
from scipy.spatial import ConvexHull, QhullError

from stairpath.core.measuring.body import Body
from stairpath.core.measuring.distance import Vector, between
from stairpath.core.measuring.loops.meeting import crossings, first_clear, shifts_up
from stairpath.core.measuring.volume import volume_m3

Array = npt.NDArray[np.float64]

LEAST_VOLUME_M3 = 1e-9
"""A cubic millimetre: what shares less only touches."""
_CONVEX = 1e-5
_MOST_SUMS = 200_000
_ROUND = 0.03
"""Sides whose directions differ by no more are tried once where there are very many."""
_SAME_SHIFT_M = 1e-6
_MOST_SHIFTS = 20_000
_TRIED_SHIFTS = 160
_WAYS = 14
_CROSSED = 6


@dataclass(frozen=True)
class Overlap:
    """What two bodies share. The volume is None where one of them is not closed.

    ``shift_m`` is the shortest shift of the first that parts them; it is as long as the overlap is deep.
    """

    depth_m: float
    volume_m3: float | None
    at_m: Vector
    shift_m: Vector


def _manifold(points: Array, triangles: npt.NDArray[np.int64]) -> manifold3d.Manifold | None:
    mesh = manifold3d.Mesh64(
        np.ascontiguousarray(points, dtype=np.float64), np.ascontiguousarray(triangles, dtype=np.uint64)
    )
    made = manifold3d.Manifold(mesh)
    if made.status() != manifold3d.Error.NoError:
        mesh.merge()
        made = manifold3d.Manifold(mesh)
    return made if made.status() == manifold3d.Error.NoError and not made.is_empty() else None


def solid_of(body: Body) -> manifold3d.Manifold | None:
    """A body's space: its parts joined, without what is hollow within them; None where it is not closed."""
    parts, hollows = [], []
    for shell in body.shells:
        triangles = body.triangles[shell]
        made = _manifold(body.points, triangles)
        if made is None:
            return None
        if made.volume() >= 0:
            parts.append(made)
        else:
            turned = _manifold(body.points, triangles[:, ::-1])
            if turned is None:
                return None
            hollows.append(turned)
    if not parts:  # a body whose faces all look inwards
        parts, hollows = hollows, []
    whole = parts[0] if len(parts) == 1 else manifold3d.Manifold.batch_boolean(parts, manifold3d.OpType.Add)
    return reduce(lambda solid, hollow: solid - hollow, hollows, whole)


def _vector(values: Array) -> Vector:
    x, y, z = (float(v) for v in values)
    return (x, y, z)


def _middle(solid: manifold3d.Manifold) -> Array:
    """The centre of a solid's volume."""
    mesh = solid.to_mesh64()
    points = np.asarray(mesh.vert_properties, dtype=np.float64)[:, :3]
    corners = points[np.asarray(mesh.tri_verts).astype(np.int64)]
    about: Array = points.mean(axis=0)
    local = corners - about
    six = np.einsum("ij,ij->i", local[:, 0], np.cross(local[:, 1], local[:, 2]))
    total = six.sum()
    if abs(total) < 1e-18:
        return about
    middle: Array = about + (local.sum(axis=1) / 4 * six[:, None]).sum(axis=0) / total
    return middle


def _hull(body: Body) -> ConvexHull | None:
    try:
        return ConvexHull(body.points)
    except QhullError:  # flat
        return None


def _is_convex(body: Body, hull: ConvexHull) -> bool:
    """Whether a body fills its hull."""
    return bool(hull.volume - volume_m3(body.corners) <= _CONVEX * hull.volume and len(body.shells) == 1)


def _parted_hulls(one: ConvexHull, other: ConvexHull) -> tuple[float, Array]:
    """The shortest shift of the first that parts two convex bodies, and its direction.

    Their difference, all of one's points less the other's, holds the origin; the shift leads to its nearest side.
    Of bodies of very many corners the sides are those that either has itself.
    """
    a, b = one.points[one.vertices], other.points[other.vertices]
    if len(a) * len(b) <= _MOST_SUMS:
        sides = ConvexHull((b[:, None] - a[None]).reshape(-1, 3)).equations
        nearest = int(np.argmin(-sides[:, 3]))
        return max(0.0, float(-sides[nearest, 3])), sides[nearest, :3]
    normals = np.concatenate([-one.equations[:, :3], other.equations[:, :3]])
    normals = normals[np.unique(np.round(normals / _ROUND), axis=0, return_index=True)[1]]
    reach = (normals @ b.T).max(axis=1) - (normals @ a.T).min(axis=1)
    nearest = int(np.argmin(reach))
    return max(0.0, float(reach[nearest])), normals[nearest]


def _told_apart(directions: Array, most: int) -> Array:
    """The first so many directions (n, 3) that are not the same as one before."""
    kept: list[Array] = []
    for direction in directions:
        if all(np.abs(direction @ k) < 1 - 1e-4 for k in kept):
            kept.append(direction)
            if len(kept) == most:
                break
    return np.array(kept).reshape(-1, 3)


def _faces_near(body: Body, low: Array, high: Array) -> tuple[Array, Array]:
    """Normals of a body's faces within a box, the largest first, and their longest edges' directions."""
    corners = body.corners
    near = ((corners.min(axis=1) <= high) & (corners.max(axis=1) >= low)).all(axis=1)
    corners = corners[near]
    normal = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    size = np.linalg.norm(normal, axis=1)
    order = np.argsort(-size, kind="stable")
    order = order[size[order] > 1e-12]
    edges = (np.roll(corners, -1, axis=1) - corners).reshape(-1, 3)
    length = np.linalg.norm(edges, axis=1)
    longest = np.argsort(-length, kind="stable")
    longest = longest[length[longest] > 1e-9]
    return normal[order] / size[order, None], edges[longest] / length[longest, None]


def _ways(one: Body, other: Body) -> Array:
    """Directions (n, 3) worth trying: square to faces where the bodies meet, and to an edge of each."""
    low = np.maximum(one.bounds_m[0], other.bounds_m[0]) - 1e-6
    high = np.minimum(one.bounds_m[1], other.bounds_m[1]) + 1e-6
    normals, edges = zip(*(_faces_near(b, low, high) for b in (one, other)), strict=True)
    faces = np.concatenate([_told_apart(n, _WAYS) for n in normals])
    a, b = (_told_apart(e, _CROSSED) for e in edges)
    crossed = np.cross(a[:, None], b[None]).reshape(-1, 3)
    length = np.linalg.norm(crossed, axis=1)
    crossed = crossed[length > 1e-3] / length[length > 1e-3, None]
    ways = _told_apart(np.concatenate([faces, crossed]), 2 * _WAYS + _CROSSED**2)
    return np.concatenate([ways, -ways])


def _upwards(directions: Array) -> Array:
    """Turns (n, 3, 3) after which each of the directions (n, 3) is up."""
    least = np.eye(3)[np.abs(directions).argmin(axis=1)]
    across = np.cross(least, directions)
    across /= np.linalg.norm(across, axis=1)[:, None]
    return np.stack([across, np.cross(directions, across), directions], axis=1)


class _Parting:
    """Two bodies, and whether they are apart when the first is shifted."""

    def __init__(self, one: Body, other: Body, solids: Sequence[manifold3d.Manifold | None]) -> None:
        self.one, self.other = one, other
        self.first, self.second = solids

    def _free(self, shift: Array) -> bool:
        """Whether they share nothing, or only touch, at a shift at which no faces go through one another."""
        moved = self.one.moved(shift)
        found = between(moved, self.other)
        if found is None or found.distance_m > 0:
            return True
        if self.first is None or self.second is None:
            return True
        return bool((self.first.translate(_vector(shift)) ^ self.second).volume() < LEAST_VOLUME_M3)

    def along(self, turn: Array, limit_m: float) -> float:
        """The shortest shift along a direction that parts them, if that is below the limit; else the limit.

        The ``turn`` (3, 3) has the direction up.
        """
        direction = turn[2]
        a, b = self.one.corners @ turn.T, self.other.corners @ turn.T
        shifts = np.unique(np.round(shifts_up(a, b, limit_m, _MOST_SHIFTS) / _SAME_SHIFT_M)) * _SAME_SHIFT_M
        shifts = shifts[shifts + _SAME_SHIFT_M < limit_m]
        if len(shifts) > _TRIED_SHIFTS:
            shifts = shifts[np.linspace(0, len(shifts) - 1, _TRIED_SHIFTS).astype(int)]
        one, other = self.one, self.other
        at = 0
        while at < len(shifts):
            at = first_clear(one.corners, one.tree, other.corners, other.tree, direction, shifts + _SAME_SHIFT_M, at)
            if at < len(shifts) and self._free(direction * (shifts[at] + _SAME_SHIFT_M)):
                return float(shifts[at])
            at += 1
        return limit_m


def _depth(one: Body, other: Body, solids: Sequence[manifold3d.Manifold | None]) -> tuple[float, Array]:
    """How deep two bodies that overlap do, and the direction of the shortest shift that parts them.

    Exact for two convex bodies. Of others it is the shortest along directions that a shortest shift mostly has:
    square to faces where they meet, or to an edge of each.
    """
    hulls = _hull(one), _hull(other)
    if hulls[0] is not None and hulls[1] is not None:
        best, way = _parted_hulls(hulls[0], hulls[1])
        if _is_convex(one, hulls[0]) and _is_convex(other, hulls[1]):
            return best, way
    else:  # a sheet: any shift as long as both together parts them
        best = float(np.linalg.norm(np.ptp(np.concatenate([one.points, other.points]), axis=0)))
        way = np.array([0.0, 0.0, 1.0])
    parting = _Parting(one, other, solids)
    for turn in _upwards(_ways(one, other)):
        found = parting.along(turn, best)
        if found < best:
            best, way = found, turn[2]
    return best, way


def overlap(one: Body, other: Body) -> Overlap | None:
    """What two bodies share; None where they are apart or only touch."""
    low = np.maximum(one.bounds_m[0], other.bounds_m[0])
    high = np.minimum(one.bounds_m[1], other.bounds_m[1])
    if (high - low < 0).any():
        return None
    solids = solid_of(one), solid_of(other)
    if solids[0] is None or solids[1] is None:
        points, _ = crossings(one.corners, one.tree, other.corners, other.tree, 64)
        if not len(points):
            return None
        depth, way = _depth(one, other, solids)
        return Overlap(depth, None, _vector(points.mean(axis=0)), _vector(way * depth))
    shared = solids[0] ^ solids[1]
    volume = float(shared.volume())
    if volume < LEAST_VOLUME_M3:
        return None
    depth, way = _depth(one, other, solids)
    return Overlap(depth, volume, _vector(_middle(shared)), _vector(way * depth))
