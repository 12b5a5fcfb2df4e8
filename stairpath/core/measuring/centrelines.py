"""Centre lines of round and extruded parts."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
import shapely
from scipy.spatial import ConvexHull, QhullError

from stairpath.core.measuring.body import Body
from stairpath.core.measuring.facets import Facets

Array = npt.NDArray[np.float64]
Index = npt.NDArray[np.int64]

_SQUARE = math.sin(math.radians(0.5))
_ALONG = math.cos(math.radians(0.5))
_ODD_SHARE = 1e-3
"""So much of the faces may lie askew, such as a chamfer."""
_ROUND_SHARE = 0.02
_LEAST_SIDES = 8
_TRIED = 8
_PLATE = 8.0
"""What is so many times as wide as it is thick is a plate."""
_NO_LONGER = 1.001
_SAME_END_M = 1e-3
_MOST_PARTS = 64


@dataclass(frozen=True, eq=False)
class CentreLine:
    """A centre line's two ends (2, 3), and the radius of a round part; None for others."""

    ends: Array
    radius_m: float | None


def _directions(normals: Array, areas: Array) -> Array:
    """Directions (n, 3) along which a part may be extruded: those its largest faces look in, and square to all."""
    found: list[Array] = []
    for k in np.argsort(-areas, kind="stable"):
        if len(found) == _TRIED:
            break
        if all(abs(float(normals[k] @ d)) < _ALONG for d in found):
            found.append(normals[k])
    weighted = normals * np.sqrt(areas)[:, None]
    found.append(np.linalg.svd(weighted, full_matrices=False)[2][-1])
    return np.array(found)


def _across(points: Array, way: Array) -> tuple[Array, float | None] | None:
    """The middle (3,) of points seen along a direction, on the plane through the origin; the radius if they are round.

    None for what is not longer than wide, and for a plate: a wall or a slab has no centre line.
    """
    least = np.eye(3)[int(np.argmin(np.abs(way)))]
    u = np.cross(least, way)
    u /= np.linalg.norm(u)
    v = np.cross(way, u)
    flat = np.stack([points @ u, points @ v], axis=1)
    try:
        hull = flat[ConvexHull(flat).vertices]
    except QhullError:  # all of them on one line
        return None
    # The circle through points by least squares: |p|^2 = 2 c p + (r^2 - c^2).
    about = hull.mean(axis=0)
    p = hull - about
    solved = np.linalg.lstsq(np.column_stack([2 * p, np.ones(len(p))]), (p * p).sum(axis=1), rcond=None)[0]
    centre = solved[:2]
    away = np.linalg.norm(p - centre, axis=1)
    radius = float(away.mean())
    if len(hull) >= _LEAST_SIDES and np.ptp(away) <= _ROUND_SHARE * radius:
        centre = centre + about
        return centre[0] * u + centre[1] * v, radius
    frame = shapely.minimum_rotated_rectangle(shapely.Polygon(hull))
    sides = np.linalg.norm(np.diff(shapely.get_coordinates(frame)[:3], axis=0), axis=1)
    if sides.max() > min(_PLATE * sides.min(), _NO_LONGER * float(np.ptp(points @ way))):
        return None
    middle = (hull.min(axis=0) + hull.max(axis=0)) / 2
    return middle[0] * u + middle[1] * v, None


def _along(body: Body, facets: Facets, part: Index, way: Array) -> CentreLine | None:
    """The centre line of a part that is extruded along a direction; None for a plate."""
    corners, normals, areas = body.corners[part], facets.normals[part], facets.areas_m2[part]
    points = corners.reshape(-1, 3)
    along = points @ way
    across = _across(points, way)
    if across is None:
        return None
    middle, radius = across
    ends = []
    for at in (float(along.min()), float(along.max())):
        cap = (np.abs(corners @ way - at).max(axis=1) < _SAME_END_M) & (np.abs(normals @ way) > _ALONG)
        if radius is None and areas[cap].sum() > 0:
            centre = (corners[cap].mean(axis=1) * areas[cap, None]).sum(axis=0) / areas[cap].sum()
            ends.append(centre + (at - float(centre @ way)) * way)
        else:
            ends.append(middle + at * way)
    return CentreLine(np.array(ends), radius)


def _of_part(body: Body, facets: Facets, part: Index) -> CentreLine | None:
    normals, areas = facets.normals[part], facets.areas_m2[part]
    if areas.sum() <= 0:
        return None
    best: CentreLine | None = None
    for way in _directions(normals, areas):
        share = np.abs(normals @ way)
        if areas[(share > _SQUARE) & (share < _ALONG)].sum() > _ODD_SHARE * areas.sum():
            continue
        found = _along(body, facets, part, way)
        if found is not None and (best is None or _rank(found) > _rank(best)):
            best = found
    return best


def _rank(line: CentreLine) -> tuple[bool, float]:
    """Of several, the line of a round part counts first, then the longest."""
    return line.radius_m is not None, float(np.linalg.norm(line.ends[1] - line.ends[0]))


def centre_lines(facets: Facets) -> list[CentreLine]:
    """The centre line of each part of a body that is round, or extruded: its longest direction then."""
    body = facets.body
    found = (_of_part(body, facets, part) for part in body.shells[:_MOST_PARTS])
    return [line for line in found if line is not None]


def between_lines(one: Array, other: Array) -> tuple[Array, Array]:
    """The two points (3,) at which segments (2, 3) come nearest (Ericson, Real-Time Collision Detection, 5.1.9)."""
    d1, d2, r = one[1] - one[0], other[1] - other[0], one[0] - other[0]
    a, e, f = float(d1 @ d1), float(d2 @ d2), float(d2 @ r)
    if a == 0 or e == 0:
        point, line, d, l2 = (one[0], other, d2, e) if a == 0 else (other[0], one, d1, a)
        foot = line[0] if l2 == 0 else line[0] + np.clip((point - line[0]) @ d / l2, 0, 1) * d
        return (point, foot) if a == 0 else (foot, point)
    c, b = float(d1 @ r), float(d1 @ d2)
    denominator = a * e - b * b
    s = float(np.clip((b * f - c * e) / denominator, 0, 1)) if denominator > 1e-12 * a * e else _shared(one, other)
    t = (b * s + f) / e
    if not 0 <= t <= 1:
        t = float(np.clip(t, 0, 1))
        s = float(np.clip((b * t - c) / a, 0, 1))
    return one[0] + s * d1, other[0] + t * d2


def _shared(one: Array, other: Array) -> float:
    """Of parallel segments, where along the first the middle of what both run beside is, 0 to 1."""
    way = one[1] - one[0]
    shares = np.clip((other - one[0]) @ way / float(way @ way), 0, 1)
    return float(shares.mean())
