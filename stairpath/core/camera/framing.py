"""Where the camera stands so that what is wanted fills the frame, tightly."""

from __future__ import annotations

import math

import numpy as np

from stairpath.core.camera.pose import (
    Array,
    Pose,
    Projection,
    axes,
    check_angle,
    vector,
)

SMALLEST_VIEW_M = 0.1
NEAREST_M = 0.05


class NothingToFrameError(ValueError):
    """There is no point to frame."""


def free_slopes(aspect: float, projection: Projection, angle_deg: float, margin: float) -> tuple[float, float]:
    """Tangents of half the angle that is free across the width and the height; zero in parallel."""
    if projection == "parallel":
        return 0.0, 0.0
    free = math.tan(math.radians(angle_deg) / 2.0) * (1.0 - 2.0 * margin)
    return free, free / aspect


def frame(
    points: Array,
    bearing_deg: float,
    tilt_deg: float,
    aspect: float,
    projection: Projection = "perspective",
    angle_deg: float = 30.0,
    margin: float = 0.05,
) -> Pose:
    """The pose that frames points (n, 3) seen along a bearing and tilt.

    Every point lies inside the frame less ``margin`` (the free share of the width and height
    on each side) and at least one on its edge. In perspective each side of the frame is a
    plane through the eye: a point's lateral offset may be at most its depth times the
    tangent of the half angle, which gives the nearest eye in closed form.

    Raises NothingToFrameError without points, ValueError for an impossible lens or frame.
    """
    check_angle(angle_deg)
    if not 0 <= margin < 0.5:
        raise ValueError("The margin must be at least 0 and less than 0.5.")
    if not aspect > 0:
        raise ValueError("The aspect must be above zero.")
    points = np.asarray(points, dtype=np.float64).reshape(-1, 3)
    points = points[np.isfinite(points).all(axis=1)]
    if not len(points):
        raise NothingToFrameError("There is nothing to frame.")

    right, up, forward = axes(bearing_deg, tilt_deg)
    base = points.mean(axis=0)
    own = (points - base) @ np.stack([right, up, forward], axis=1)
    free = 1.0 - 2.0 * margin
    tan_w = math.tan(math.radians(angle_deg) / 2.0)
    tan_h = tan_w / aspect
    low, high = own.min(axis=0), own.max(axis=0)

    if projection == "parallel":
        size = np.maximum(high[:2] - low[:2], 0.0)
        height = max(float(size[0]) / aspect, float(size[1]), SMALLEST_VIEW_M * free) / free
        middle = (low + high) / 2
        distance = height / (2.0 * tan_h)
        eye = np.array([middle[0], middle[1], low[2] - distance])
        depth = middle[2] - eye[2]
    else:
        t_w, t_h = free_slopes(aspect, projection, angle_deg, margin)
        x_max, x_min = (own[:, 0] - t_w * own[:, 2]).max(), (-own[:, 0] - t_w * own[:, 2]).max()
        y_max, y_min = (own[:, 1] - t_h * own[:, 2]).max(), (-own[:, 1] - t_h * own[:, 2]).max()
        back = min(-(x_max + x_min) / (2.0 * t_w), -(y_max + y_min) / (2.0 * t_h))
        across = (x_max - x_min) / 2.0
        if back > low[2] - NEAREST_M:
            # A wide lens would put the eye into the nearest point: step back and aside, so
            # that this point still touches the margin.
            back = low[2] - NEAREST_M
            across = x_max + t_w * back
        eye = np.array([across, (y_max - y_min) / 2.0, back])
        depth = max((low[2] + high[2]) / 2.0 - back, low[2] - back)
        height = 2.0 * depth * tan_h

    rotation = np.stack([right, up, forward])
    eye_m = base + eye @ rotation
    target_m = eye_m + forward * depth
    return Pose(vector(eye_m), vector(target_m), vector(up), projection, angle_deg, float(height), aspect)


def project(points: Array, pose: Pose) -> Array:
    """Where points (n, 3) fall in the frame: x and y from -1 to 1, and depth in metres."""
    eye, target = np.array(pose.eye_m), np.array(pose.target_m)
    forward = (target - eye) / np.linalg.norm(target - eye)
    right = np.cross(forward, np.array(pose.up))
    right /= np.linalg.norm(right)
    up = np.cross(right, forward)
    own = (np.asarray(points) - eye) @ np.stack([right, up, forward], axis=1)
    if pose.projection == "parallel":
        half = np.array([pose.height_m * pose.aspect / 2, pose.height_m / 2])
        return np.column_stack([own[:, :2] / half, own[:, 2]])
    tan_w = math.tan(math.radians(pose.angle_deg) / 2.0)
    half = own[:, 2:3] * np.array([tan_w, tan_w / pose.aspect])
    return np.column_stack([own[:, :2] / half, own[:, 2]])
