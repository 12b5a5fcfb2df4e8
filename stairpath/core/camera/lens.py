"""Changing the lens of a view: its angle, its projection, its scale, and making it level."""

from __future__ import annotations

import math
import re
from dataclasses import replace

import numpy as np

from stairpath.core.camera.pose import LARGEST_ANGLE_DEG, SMALLEST_ANGLE_DEG, Pose, Projection, angle_deg, check_angle
from stairpath.core.geometry.vectors import Array, Vector, vector

_TYPED = re.compile(r"^\s*(?P<figure>\d+(?:[.,]\d+)?)\s*(?P<unit>mm|deg|degrees|°)?\s*$", re.IGNORECASE)
_LEAST_DEPTH_M = 0.05
_ROUNDING = 1e-9


def typed_angle(text: str) -> float:
    """The angle of view that was typed: ``60``, ``60°`` or ``60 deg``, or a focal length, ``35 mm``.

    Raises ValueError with a sentence for anything else and for angles a lens cannot have.

    >>> round(typed_angle("35 mm"), 2)
    54.43
    """
    match = _TYPED.match(text)
    if match is None:
        raise ValueError(
            f"{text.strip() or 'Nothing'} is not a lens; type an angle such as 60 or a length such as 35 mm."
        )
    figure = float(match["figure"].replace(",", "."))
    if (match["unit"] or "").lower() == "mm":
        figure = angle_deg(figure) if figure > 0 else 180.0
    return checked_angle(figure)


def checked_angle(angle: float) -> float:
    """The angle itself, rid of the rounding of a conversion; ValueError with a sentence if no lens has it."""
    nearest = min(max(angle, SMALLEST_ANGLE_DEG), LARGEST_ANGLE_DEG)
    if not abs(nearest - angle) <= _ROUNDING:  # a figure that is none compares with nothing
        check_angle(angle)
    return nearest


def _forward(pose: Pose) -> Array:
    look: Array = np.subtract(pose.target_m, pose.eye_m)
    unit: Array = look / np.linalg.norm(look)
    return unit


def depth_of(pose: Pose, point_m: Vector) -> float:
    """How far a point lies along the line of sight, in metres."""
    return float(np.dot(np.subtract(point_m, pose.eye_m), _forward(pose)))


def height_at(pose: Pose, depth_m: float) -> float:
    """Height in metres of what is seen at a depth, in perspective."""
    return 2.0 * depth_m * math.tan(math.radians(pose.angle_deg) / 2.0) / pose.aspect


def with_angle(pose: Pose, angle: float, keep: str = "eye") -> Pose:
    """The view through another angle of view.

    ``keep="eye"``: the eye stays and sees more or less. ``keep="subject"``: what is at the
    target keeps its size, and the eye moves along the line of sight instead.
    """
    angle = checked_angle(angle)
    depth = depth_of(pose, pose.target_m)
    if keep == "subject":
        before = math.tan(math.radians(pose.angle_deg) / 2.0)
        moved = depth * before / math.tan(math.radians(angle) / 2.0)
        eye = np.subtract(pose.target_m, _forward(pose) * moved)
        return replace(pose, eye_m=vector(eye), angle_deg=angle)
    turned = replace(pose, angle_deg=angle)
    return turned if pose.projection == "parallel" else replace(turned, height_m=height_at(turned, depth))


def with_projection(pose: Pose, projection: Projection, pivot_m: Vector | None = None) -> Pose:
    """The view in another projection, what is at the pivot (else the target) keeping its size and place.

    To perspective, the eye stands where the pivot is as large as it was in the parallel view.
    """
    if projection == pose.projection:
        return pose
    pivot = pivot_m or pose.target_m
    depth = max(depth_of(pose, pivot), _LEAST_DEPTH_M)
    forward = _forward(pose)
    aside = np.subtract(pivot, pose.eye_m) - forward * depth_of(pose, pivot)
    if projection == "parallel":
        # In perspective the offset of the pivot on screen is in proportion to its depth, in a
        # parallel view to nothing; as the size there is kept, so is its place.
        return replace(pose, projection="parallel", height_m=height_at(pose, depth))
    stand = pose.height_m * pose.aspect / (2.0 * math.tan(math.radians(pose.angle_deg) / 2.0))
    eye = np.array(pivot) - aside - forward * stand
    target = eye + forward * stand
    return replace(pose, projection="perspective", eye_m=vector(eye), target_m=vector(target))


def levelled(pose: Pose) -> Pose:
    """The view from the same eye with the line of sight level and upright, so that verticals are vertical.

    Looking straight up or down, the direction that is up on screen is looked along.
    """
    look = np.subtract(pose.target_m, pose.eye_m)
    reach = float(np.linalg.norm(look)) or 1.0
    flat = np.array([look[0], look[1], 0.0])
    if np.linalg.norm(flat) < 1e-6 * reach:
        sign = -1.0 if look[2] > 0 else 1.0
        flat = np.array([pose.up[0], pose.up[1], 0.0]) * sign
    if not np.linalg.norm(flat):
        flat = np.array([0.0, 1.0, 0.0])  # nothing says where; north is as good as any
    flat /= np.linalg.norm(flat)
    return replace(pose, target_m=vector(np.add(pose.eye_m, flat * reach)), up=(0.0, 0.0, 1.0))


def scale_of(height_m: float, height_px: float, pixel_mm: float) -> float:
    """The n of 1:n that a parallel view has on a screen with pixels of ``pixel_mm``."""
    return height_m * 1000.0 / (height_px * pixel_mm)


def height_for_scale(scale: float, height_px: float, pixel_mm: float) -> float:
    """Height in metres of a parallel view that is drawn at 1:``scale``."""
    if not scale > 0:
        raise ValueError("A scale is a number above zero; type 50 for 1:50.")
    return scale * height_px * pixel_mm / 1000.0
