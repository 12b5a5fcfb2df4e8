"""A view of a room from within: stand and look so that its floor, doors and walls are recognised."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
import shapely
from shapely import MultiPolygon, Polygon

from stairpath.core.camera.framing import Borders, Slopes, free_slopes
from stairpath.core.camera.pose import INSIDE_ANGLE_DEG, Pose, axes
from stairpath.core.geometry.plan import area_of, lies_in
from stairpath.core.geometry.plane import Plane
from stairpath.core.geometry.vectors import vector

Array = npt.NDArray[np.float64]
Mask = npt.NDArray[np.bool_]

EYE_M = 1.6
_FROM_WALLS_M = (0.3, 0.1, 0.03)
"""So far from the walls one stands, less where a room is narrow."""
_STEP_M = 0.25
_MOST_PLACES = 80
_MOST_FLOOR, _MOST_WALL = 120, 48
"""So many points of the floor, and so many along the walls, are looked at, at most."""
_DOOR_WITHIN_M = 0.5
_DOOR_AT_M, _LEAST_RISE_M = 1.0, 0.3
_SQUARE_DEG, _OVER_DOORS_M, _BEHIND_WALL_M = 0.1, 2.2, 0.05
_WALL_HEIGHTS_M = (0.1, 1.1, 2.1)
_NEAREST_M = 0.3
_CONVEX = 0.98
_TILTS_DEG = (0.0, 8.0, 16.0)
_TURNS = 16
_LENSES_DEG = (INSIDE_ANGLE_DEG, 70.0, 80.0)
_PER_TURN, _PER_TILT, _PER_WIDER, _ASIDE = 0.25 / 180.0, 0.004, 0.005, 0.02
"""What a degree of turning away, of looking down and of a wider lens is worth of what is seen, and standing aside."""


@dataclass(frozen=True)
class Room:
    """A room to be looked at: its floor as triangles on plan (n, 3, 2), its heights, and where its doors are (k, 2)."""

    floor: Array
    low_m: float
    high_m: float
    doors: Array


def doors_beside(boxes_m: Array, low_m: float) -> Array:
    """Where the doors that reach over a floor are on plan (k, 2), by their boxes (n, 2, 3)."""
    at = low_m + _DOOR_AT_M
    reach = (boxes_m[:, 0, 2] < at) & (boxes_m[:, 1, 2] > at)
    return np.asarray(boxes_m[reach, :, :2].mean(axis=1)).reshape(-1, 2)


def opened_from_above(room: Room, planes: Sequence[Plane]) -> bool:
    """Whether cuts have taken the lid off a room, while the floor under it is still there.

    >>> room = Room(np.array([[[0.0, 0.0], [4.0, 0.0], [0.0, 4.0]]]), 0.0, 3.0, np.zeros((0, 2)))
    >>> opened_from_above(room, [Plane((0.0, 0.0, 2.2), (0.0, 0.0, 1.0))]), opened_from_above(room, [])
    (True, False)
    """
    x, y = room.floor.reshape(-1, 2).mean(axis=0)
    low, high = np.array([[x, y, room.low_m + _LEAST_RISE_M], [x, y, room.high_m]])
    return any(plane.heights(high) > 0 for plane in planes) and not any(plane.heights(low) > 0 for plane in planes)


def opening(room: Room, bearing_deg: float, tilt_deg: float) -> list[float] | None:
    """The point at which a parallel view is opened so that one sees into a room: straight down above its doors, level
    right behind its nearest wall; None for a view that is neither.

    >>> opening(Room(np.array([[[0.0, 0.0], [4.0, 0.0], [0.0, 4.0]]]), 0.0, 3.0, np.zeros((0, 2))), 0.0, 90.0)
    [0.0, 0.0, 2.2]
    """
    corners = room.floor.reshape(-1, 2)
    if tilt_deg > 90.0 - _SQUARE_DEG:
        x, y = corners[0].tolist()
        return [x, y, room.low_m + min(_OVER_DOORS_M, 0.75 * (room.high_m - room.low_m))]
    if abs(tilt_deg) > _SQUARE_DEG:
        return None
    forward = axes(bearing_deg, 0.0)[2][:2]
    x, y = (corners[np.argmin(corners @ forward)] + forward * _BEHIND_WALL_M).tolist()
    return [x, y, room.low_m]


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
        ring = shapely.segmentize(inner.exterior, max(_STEP_M, inner.exterior.length / _MOST_PLACES))
        return np.asarray(ring.coords)[:-1, :2]
    point = outline.representative_point()
    return np.array([[point.x, point.y]])


def _floor_points(outline: Polygon) -> Array:
    """The floor in a grid (m, 2)."""
    low_x, low_y, high_x, high_y = outline.bounds
    grain = max(_STEP_M, math.sqrt((high_x - low_x) * (high_y - low_y) / _MOST_FLOOR))
    x, y = np.meshgrid(np.arange(low_x + grain / 2, high_x, grain), np.arange(low_y + grain / 2, high_y, grain))
    grid = np.column_stack([x.ravel(), y.ravel()])
    found = grid[lies_in(outline, grid)]
    return found if len(found) else np.asarray(outline.representative_point().coords)[:, :2]


def _telling(outline: Polygon, room: Room) -> tuple[Array, Array]:
    """What a room is recognised by, as points (m, 3), and what each is worth: its floor, walls and doors alike."""
    low = room.low_m
    floor = _floor_points(outline)
    wall = shapely.segmentize(outline.exterior, max(_STEP_M, outline.exterior.length / _MOST_WALL))
    line = shapely.points(room.doors.reshape(-1, 2))
    near = line[shapely.distance(line, outline.exterior) <= _DOOR_WITHIN_M]
    # A door stands in the wall, beyond the edge of the floor.
    doors = shapely.line_interpolate_point(outline.exterior, shapely.line_locate_point(outline.exterior, near))
    heights = [low + up for up in _WALL_HEIGHTS_M if low + up < room.high_m] or [low]
    parts = [np.column_stack([floor, np.full(len(floor), low)])]
    for ring in (np.asarray(wall.coords)[:-1, :2], shapely.get_coordinates(doors)):
        if len(ring):
            parts.append(np.concatenate([np.column_stack([ring, np.full(len(ring), up)]) for up in heights]))
    worth = [np.full(len(part), 1.0 / len(part) / len(parts)) for part in parts]
    return np.concatenate(parts), np.concatenate(worth)


def _open(places: Array, points: Array, outline: Polygon) -> Mask:
    """Which points (m, 2) each place (n, 2) sees past the room's own corners, as (n, m)."""
    if outline.area >= _CONVEX * outline.convex_hull.area:
        return np.ones((len(places), len(points)), dtype=bool)
    edge = outline.buffer(1e-6)
    shapely.prepare(edge)
    ends = np.stack(np.broadcast_arrays(places[:, None, :], points[None, :, :]), axis=2)
    return np.asarray(shapely.covers(edge, shapely.linestrings(ends)), dtype=bool)


def _in_frame(away: Array, slopes: Slopes) -> Mask:
    """Which points lie in what is free of the frame, by their place from the eye: right, up and forward (..., 3)."""
    across, over, ahead = away[..., 0], away[..., 1], away[..., 2]
    within: Mask = (
        (ahead >= _NEAREST_M)
        & (across >= -slopes.left * ahead)
        & (across <= slopes.right * ahead)
        & (over >= -slopes.bottom * ahead)
        & (over <= slopes.top * ahead)
    )
    return within


def stand_in(room: Room, bearing_deg: float, aspect: float, ways: Sequence[Borders] = (Borders(),)) -> Pose:
    """The view from the place in a room from which most of its floor, walls and doors lies in what is free of the frame.

    One looks along the bearing, level and through the lens for rooms, or otherwise where that shows much more: turned,
    a little down, or through a wider lens. Of several ways to leave borders of the frame free the best counts. The
    target is where the line of sight meets the far wall. Raises ValueError with a sentence where there is no floor.
    """
    outline = room_outline(room.floor)
    places = _places(outline)
    points, worth = _telling(outline, room)
    free = _open(places, points[:, :2], outline)
    height = room.low_m + min(EYE_M, 0.6 * (room.high_m - room.low_m))
    away = points[None, :, :] - np.column_stack([places, np.full(len(places), height)])[:, None, :]
    middle, size = np.array(outline.centroid.coords[0]), math.sqrt(outline.area)
    best, found = -math.inf, (0, bearing_deg, 0.0, INSIDE_ANGLE_DEG)
    for turn, tilt in itertools.product(range(_TURNS), _TILTS_DEG):
        turned = (turn + _TURNS // 2) % _TURNS - _TURNS // 2
        looked = bearing_deg + turned * 360.0 / _TURNS
        own = away @ np.stack(axes(looked, tilt), axis=1)
        right = axes(looked, 0.0)[0][:2]
        aside = _ASIDE * np.abs((places - middle) @ right) / size
        cost = _PER_TURN * abs(turned) * 360.0 / _TURNS + _PER_TILT * tilt + aside
        for wide, borders in itertools.product(_LENSES_DEG, ways):
            slopes = free_slopes(aspect, "perspective", wide, borders)
            score = (_in_frame(own, slopes) & free) @ worth - cost - _PER_WIDER * (wide - INSIDE_ANGLE_DEG)
            at = int(np.argmax(score))
            if score[at] > best + 1e-9:
                best, found = float(score[at]), (at, looked, tilt, wide)
    at, looked, tilt, wide = found
    eye = np.array([*places[at], height])
    _, up, forward = axes(looked, tilt)
    level = axes(looked, 0.0)[2][:2]
    reach = _reach(outline, places[at], level)
    return Pose(
        vector(eye), vector(eye + forward * reach), vector(up), "perspective",
        wide, 2 * reach * math.tan(math.radians(wide) / 2) / aspect, aspect,
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
