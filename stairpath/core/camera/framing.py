"""Where the camera stands so that what is wanted fills the frame, tightly."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from stairpath.core.camera.pose import Pose, Projection, axes, check_angle, sight_axes
from stairpath.core.geometry.vectors import Array, vector

SMALLEST_VIEW_M = 0.1
NEAREST_M = 0.05
MOST_MARGIN = 0.2


class NothingToFrameError(ValueError):
    """There is no point to frame."""


@dataclass(frozen=True)
class Borders:
    """The shares of the frame's width and height that stay free at its sides, each from 0 to 1.

    >>> Borders.around(0.05, left=0.5)
    Borders(left=0.55, right=0.05, bottom=0.05, top=0.05)
    """

    left: float = 0.0
    right: float = 0.0
    bottom: float = 0.0
    top: float = 0.0

    @staticmethod
    def around(margin: float, left: float = 0.0, right: float = 0.0, bottom: float = 0.0, top: float = 0.0) -> Borders:
        """What covers the frame at its sides, and a margin around what that leaves, a fifth of it at most."""
        if not 0 <= margin < 0.5:
            raise ValueError("The margin must be at least 0 and less than 0.5.")
        across, up = (min(margin, MOST_MARGIN * (1.0 - a - b)) for a, b in ((left, right), (bottom, top)))
        return Borders(left + across, right + across, bottom + up, top + up)

    def check(self) -> None:
        """Raise ValueError with a sentence where they leave nothing of the frame."""
        sides = (self.left, self.right, self.bottom, self.top)
        if not min(sides) >= 0 or not self.left + self.right < 1 or not self.bottom + self.top < 1:
            raise ValueError("The borders must be at least 0 and leave something of the frame.")


ALL_AROUND = Borders.around(0.05)


@dataclass(frozen=True)
class Slopes:
    """Tangents of the angles from the line of sight to the sides of what is free of the frame; zero in parallel."""

    left: float = 0.0
    right: float = 0.0
    bottom: float = 0.0
    top: float = 0.0


def free_slopes(aspect: float, projection: Projection, angle_deg: float, borders: Borders) -> Slopes:
    """The slopes of the sides of what is free of the frame."""
    if projection == "parallel":
        return Slopes()
    wide = math.tan(math.radians(angle_deg) / 2.0)
    high = wide / aspect
    free = (1.0 - 2.0 * share for share in (borders.left, borders.right, borders.bottom, borders.top))
    left, right, bottom, top = free
    return Slopes(wide * left, wide * right, high * bottom, high * top)


def frame(
    points: Array,
    bearing_deg: float,
    tilt_deg: float,
    aspect: float,
    projection: Projection = "perspective",
    angle_deg: float = 30.0,
    borders: Borders = ALL_AROUND,
) -> Pose:
    """The pose that frames points (n, 3) seen along a bearing and tilt.

    Every point lies inside the frame less ``borders`` and at least one on its edge. In perspective each side of what
    is free is a plane through the eye: a point's lateral offset may be at most its depth times the side's slope,
    which gives the nearest eye in closed form.

    Raises NothingToFrameError without points, ValueError for an impossible lens or frame.
    """
    check_angle(angle_deg)
    borders.check()
    if not aspect > 0:
        raise ValueError("The aspect must be above zero.")
    points = np.asarray(points, dtype=np.float64).reshape(-1, 3)
    points = points[np.isfinite(points).all(axis=1)]
    if not len(points):
        raise NothingToFrameError("There is nothing to frame.")

    right, up, forward = axes(bearing_deg, tilt_deg)
    base = points.mean(axis=0)
    own = (points - base) @ np.stack([right, up, forward], axis=1)
    tan_h = math.tan(math.radians(angle_deg) / 2.0) / aspect
    low, high = own.min(axis=0), own.max(axis=0)

    if projection == "parallel":
        size = np.maximum(high[:2] - low[:2], 0.0)
        wide, tall = 1.0 - borders.left - borders.right, 1.0 - borders.bottom - borders.top
        height = max(float(size[0]) / aspect / wide, float(size[1]) / tall, SMALLEST_VIEW_M)
        middle = (low + high) / 2
        distance = height / (2.0 * tan_h)
        aside = np.array([(borders.right - borders.left) * aspect, borders.top - borders.bottom]) * height / 2.0
        eye = np.array([middle[0] + aside[0], middle[1] + aside[1], low[2] - distance])
        depth = middle[2] - eye[2]
    else:
        t = free_slopes(aspect, projection, angle_deg, borders)
        x_max, x_min = (own[:, 0] - t.right * own[:, 2]).max(), (-own[:, 0] - t.left * own[:, 2]).max()
        y_max, y_min = (own[:, 1] - t.top * own[:, 2]).max(), (-own[:, 1] - t.bottom * own[:, 2]).max()
        back = min(-(x_max + x_min) / (t.left + t.right), -(y_max + y_min) / (t.bottom + t.top))
        across = (x_max + t.right * back - x_min - t.left * back) / 2.0
        if back > low[2] - NEAREST_M:
            # A wide lens would put the eye into the nearest point: step back and aside, so
            # that this point still touches the border.
            back = low[2] - NEAREST_M
            across = x_max + t.right * back
        over = (y_max + t.top * back - y_min - t.bottom * back) / 2.0
        eye = np.array([across, over, back])
        depth = max((low[2] + high[2]) / 2.0 - back, low[2] - back)
        height = 2.0 * depth * tan_h

    rotation = np.stack([right, up, forward])
    eye_m = base + eye @ rotation
    target_m = eye_m + forward * depth
    return Pose(vector(eye_m), vector(target_m), vector(up), projection, angle_deg, float(height), aspect)


def frame_beside(
    points: Array,
    bearing_deg: float,
    tilt_deg: float,
    aspect: float,
    projection: Projection,
    angle_deg: float,
    ways: Sequence[Borders],
) -> Pose:
    """Of several ways to leave parts of the frame free, the pose that shows the points (n, 3) largest; see ``frame``."""
    poses = [frame(points, bearing_deg, tilt_deg, aspect, projection, angle_deg, borders) for borders in ways]
    return min(poses, key=lambda pose: pose.height_m)


def project(points: Array, pose: Pose) -> Array:
    """Where points (n, 3) fall in the frame: x and y from -1 to 1, and depth in metres."""
    right, up, forward = sight_axes(pose.eye_m, pose.target_m, pose.up)
    own = (np.asarray(points) - np.array(pose.eye_m)) @ np.stack([right, up, forward], axis=1)
    if pose.projection == "parallel":
        half = np.array([pose.height_m * pose.aspect / 2, pose.height_m / 2])
        return np.column_stack([own[:, :2] / half, own[:, 2]])
    tan_w = math.tan(math.radians(pose.angle_deg) / 2.0)
    half = own[:, 2:3] * np.array([tan_w, tan_w / pose.aspect])
    return np.column_stack([own[:, :2] / half, own[:, 2]])
