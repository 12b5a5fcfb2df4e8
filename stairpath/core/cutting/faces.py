"""The faces that cuts leave: what of each plane lies within components, and is not taken away by the other planes."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
import shapely

from stairpath.core.cutting.cut import cut
from stairpath.core.federation.placed import Placed
from stairpath.core.geometry.plane import Plane

Array = npt.NDArray[np.float64]
Index = npt.NDArray[np.int64]

_FAR_M = 1e5


@dataclass(frozen=True)
class Face:
    """The cut face of one plane, about no origin: triangles (n, 3, 3) and lines (m, 2, 3), metres.

    ``of`` (n,) and ``line_of`` (m,) are the components, counted over all models; ``open_of`` (k,) could not be closed,
    by a gap of ``gap_m`` (k,).
    """

    plane: Plane
    triangles: Array
    of: Index
    lines: Array
    line_of: Index
    area_m2: float
    open_of: Index
    gap_m: Array


def left_on(plane: Plane, others: Sequence[Plane]) -> shapely.Polygon | None:
    """What other planes leave of a plane, in its own coordinates; None where they leave all of it.

    The part that they leave is convex; it may be empty.
    """
    if not others:
        return None
    left = shapely.box(-_FAR_M, -_FAR_M, _FAR_M, _FAR_M)
    for other in others:
        slope = plane.axes[:2] @ np.array(other.normal)
        above = float(other.heights(np.array(plane.point_m)))
        size = float(np.hypot(*slope))
        if size < 1e-9 or abs(above) > size * _FAR_M:  # it meets the plane nowhere near: it leaves all or nothing
            if above > 0:
                return shapely.Polygon()
            continue
        ahead, along = slope / size, np.array([-slope[1], slope[0]]) / size
        foot = -ahead * above / size
        corners = [foot + along * _FAR_M, foot - along * _FAR_M]
        corners += [c - ahead * 2 * _FAR_M for c in corners[::-1]]
        left = shapely.intersection(left, shapely.Polygon(corners))
    return left


def _triangles(polygons: npt.NDArray[np.object_], of: Index) -> tuple[Array, Index]:
    """Polygons as triangles on plan (n, 3, 2), counter-clockwise, and which polygon's component each is of."""
    parts, at = shapely.get_parts(shapely.constrained_delaunay_triangles(polygons), return_index=True)
    if not len(parts):
        return np.zeros((0, 3, 2)), np.zeros(0, dtype=np.int64)
    corners = shapely.get_coordinates(parts).reshape(-1, 4, 2)[:, :3]
    one, two = corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
    clockwise = one[:, 0] * two[:, 1] - one[:, 1] * two[:, 0] < 0
    corners[clockwise] = corners[clockwise][:, ::-1]
    return corners, of[at]


def triangles_of(polygons: npt.NDArray[np.object_]) -> Array:
    """Polygons as triangles on plan (n, 3, 2), counter-clockwise."""
    return _triangles(polygons, np.zeros(len(polygons), dtype=np.int64))[0]


def _lines(polygons: npt.NDArray[np.object_], of: Index) -> tuple[Array, Index]:
    """The sides of polygons (n, 2, 2), and the component of each."""
    rings, at = shapely.get_rings(polygons, return_index=True)
    points, ring = shapely.get_coordinates(rings, return_index=True)
    same = ring[1:] == ring[:-1]
    return np.stack([points[:-1][same], points[1:][same]], axis=1), of[at[ring[:-1][same]]]


def face(parts: Sequence[Placed], plane: Plane, others: Sequence[Plane] = ()) -> Face:
    """What a plane goes through of what is meant, less what other planes take away."""
    found = cut(parts, plane)
    first = np.cumsum([0, *(len(p.bounds_m) for p in parts)])
    of = np.concatenate([np.zeros(0, np.int64), *(r.owner + f for r, f in zip(found.parts, first, strict=False))])
    polygons = np.concatenate([np.zeros(0, object), *(r.polygons for r in found.parts)])
    left = left_on(plane, others)
    if left is not None:
        polygons = shapely.intersection(polygons, left)
    areas = shapely.area(polygons)
    polygons, of = polygons[areas > 0], of[areas > 0]
    # What two planes meet in may also leave lines and points.
    polygons, at = shapely.get_parts(polygons, return_index=True)
    solid = shapely.get_type_id(polygons) == shapely.GeometryType.POLYGON
    polygons, of = polygons[solid], of[at[solid]]
    triangles, triangle_of = _triangles(polygons, of)
    lines, line_of = _lines(polygons, of)
    open_of = [r.open_owner + f for r, f in zip(found.parts, first, strict=False)]
    return Face(
        plane, plane.placed(triangles), triangle_of, plane.placed(lines), line_of, float(areas.sum()),
        np.concatenate([np.zeros(0, np.int64), *open_of]),
        np.concatenate([np.zeros(0), *(r.gap_m for r in found.parts)]),
    )  # fmt: skip


def faces(parts: Sequence[Placed], planes: Sequence[Plane]) -> list[Face]:
    """The cut face of each of several planes that cut at once, their coordinates counted from near the parts."""
    boxes = np.concatenate([np.zeros((0, 2, 3)), *(p.bounds_m for p in parts)])
    known = boxes[~np.isnan(boxes).any(axis=(1, 2))]
    middle = known.mean(axis=(0, 1)) if len(known) else np.zeros(3)
    planes = [each.about(middle) for each in planes]
    return [face(parts, each, [o for o in planes if o is not each]) for each in planes]
