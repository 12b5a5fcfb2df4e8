"""A view of a room from within: stand where the lens sees most of it, as a person would."""

from __future__ import annotations

import math

import numpy as np
import numpy.typing as npt
import shapely
from shapely import MultiPolygon, Polygon

from stairpath.core.camera.pose import Pose
from stairpath.core.geometry.plan import area_of, lies_in

Array = npt.NDArray[np.float64]

EYE_M = 1.6
_FROM_WALLS_M = (0.3, 0.1, 0.03)
"""So far from the walls one stands, less where a room is narrow."""
_STEP_M = 0.25
_GRAIN_M = 0.4
_CONVEX = 0.98
_MOST = 1600
"""So many places, and so many points to be seen, are looked at, at most."""


def room_outline(floor: Array) -> Polygon:
    """The outline of a room's floor, given as triangles on plan (n, 3, 2); its largest part where it has several.

    Raises ValueError with a sentence where there is no floor.
    """
    joined = area_of(floor).buffer(0.005, join_style="mitre")
    whole = joined.buffer(-0.005, join_style="mitre")
    if isinstance(whole, MultiPolygon):
        whole = max(whole.geoms, key=lambda part: part.area)
    if not isinstance(whole, Polygon) or whole.is_empty:
        raise ValueError("The room has no floor to stand on; fit something else.")
    return whole


def _places(outline: Polygon) -> Array:
    """Where one can stand (n, 2): along the walls, a little before them."""
    for margin in _FROM_WALLS_M:
        inner = outline.buffer(-margin, join_style="mitre")
        if inner.is_empty:
            continue
        if isinstance(inner, MultiPolygon):
            inner = max(inner.geoms, key=lambda part: part.area)
        ring = shapely.segmentize(inner.exterior, max(_STEP_M, inner.exterior.length / _MOST))
        return np.asarray(ring.coords)[:-1, :2]
    point = outline.representative_point()
    return np.array([[point.x, point.y]])


def _points(outline: Polygon) -> Array:
    """What is to be seen (m, 2): the floor in a grid, and its corners."""
    low_x, low_y, high_x, high_y = outline.bounds
    grain = max(_GRAIN_M, math.sqrt((high_x - low_x) * (high_y - low_y) / _MOST))
    x, y = np.meshgrid(np.arange(low_x + grain / 2, high_x, grain), np.arange(low_y + grain / 2, high_y, grain))
    grid = np.column_stack([x.ravel(), y.ravel()])
    grid = grid[lies_in(outline, grid)]
    return np.concatenate([grid, np.asarray(outline.exterior.coords)[:-1, :2]])


def _seen(places: Array, points: Array, outline: Polygon, forward: Array, half_deg: float) -> Array:
    """The share of the points that each place sees, by the lens's width and past the room's own corners."""
    way = points[None, :, :] - places[:, None, :]
    length = np.linalg.norm(way, axis=2)
    ahead = way @ forward
    within = ahead >= math.cos(math.radians(half_deg)) * length - 1e-9
    if outline.area < _CONVEX * outline.convex_hull.area:
        for k, place in enumerate(places):
            asked = np.flatnonzero(within[k])
            lines = shapely.linestrings(np.stack([np.broadcast_to(place, (len(asked), 2)), points[asked]], axis=1))
            within[k, asked] = shapely.covers(outline.buffer(1e-6), lines)
    return np.asarray(within.mean(axis=1))


def stand_in(floor: Array, low_m: float, high_m: float, bearing_deg: float, angle_deg: float, aspect: float) -> Pose:
    """The level view along a bearing from the place in a room from which the lens sees most of its floor.

    ``floor`` is triangles on plan (n, 3, 2); of places that see the same, the one whose line of sight runs through the
    middle of the room. The target is where the line of sight meets the far wall.
    """
    outline = room_outline(floor)
    forward = np.array([math.sin(math.radians(bearing_deg)), math.cos(math.radians(bearing_deg))])
    places, points = _places(outline), _points(outline)
    shares = _seen(places, points, outline, forward, angle_deg / 2)
    middle = np.array(outline.centroid.coords[0])
    aside = np.abs((places - middle) @ np.array([forward[1], -forward[0]]))
    best = int(np.lexsort([aside, -np.round(shares, 3)])[0])
    eye = places[best]
    height = min(EYE_M, 0.6 * (high_m - low_m))
    reach = _reach(outline, eye, forward)
    target = eye + forward * reach
    z = low_m + height
    return Pose(
        (float(eye[0]), float(eye[1]), z), (float(target[0]), float(target[1]), z), (0.0, 0.0, 1.0), "perspective",
        angle_deg, 2 * reach * math.tan(math.radians(angle_deg) / 2) / aspect, aspect,
    )  # fmt: skip


def _reach(outline: Polygon, eye: Array, forward: Array) -> float:
    """How far it is to the wall ahead."""
    far = eye + forward * (outline.length + 1.0)
    inside = shapely.intersection(outline, shapely.LineString([eye, far]))
    lines = [inside] if isinstance(inside, shapely.LineString) else list(getattr(inside, "geoms", []))
    nearest = min(
        (line for line in lines if line.length > 0), key=lambda line: line.distance(shapely.Point(eye)), default=None
    )
    return max(0.5, float(nearest.length)) if nearest is not None else 0.5
