"""The swing of a door on plan: its leaf standing open, and the arc it turns through."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.federation.outline import Outline

Array = npt.NDArray[np.float64]

_ARC_STEP_DEG = 7.5
_DOUBLE = {"DOUBLE_DOOR_SINGLE_SWING", "DOUBLE_DOOR_DOUBLE_SWING", "DOUBLE_SWING_LEFT_RIGHT"}
_LEFT = {"SINGLE_SWING_LEFT", "DOUBLE_SWING_LEFT", "SWING_FIXED_LEFT"}
_RIGHT = {"SINGLE_SWING_RIGHT", "DOUBLE_SWING_RIGHT", "SWING_FIXED_RIGHT"}


@dataclass(frozen=True)
class Swing:
    """A leaf: where it is hung, where its edge is when it stands open, and the arc (n, 2) to where it shuts."""

    hinge: tuple[float, float]
    open: tuple[float, float]
    arc: Array


def _leaf(matrix: Array, x_hinge: float, x_shut: float, y: float) -> Swing:
    reach = x_shut - x_hinge
    count = max(2, math.ceil(90.0 / _ARC_STEP_DEG) + 1)
    turn = np.linspace(math.pi / 2.0, 0.0, count)
    local = np.column_stack([x_hinge + reach * np.cos(turn), y + abs(reach) * np.sin(turn)])
    points = np.vstack([[x_hinge, y], local])
    plan = points @ matrix[:2, :2].T + matrix[:2, 3]
    return Swing((float(plan[0, 0]), float(plan[0, 1])), (float(plan[1, 0]), float(plan[1, 1])), plan[1:])


def swings(operation: str, bounds_m: Array, matrix: Array) -> list[Swing]:
    """The leaves of a door, given its own bounds (2, 3) and the matrix (4, 4) that places it.

    As IFC's IfcDoorTypeOperationEnum has it: looking along the door's y axis, a leaf that
    swings left is hung at the left and opens towards y. Doors that slide, fold, turn or do
    not say have no swing.
    """
    low, high = float(bounds_m[0, 0]), float(bounds_m[1, 0])
    y = float(bounds_m[1, 1])
    if operation in _LEFT:
        return [_leaf(matrix, low, high, y)]
    if operation in _RIGHT:
        return [_leaf(matrix, high, low, y)]
    if operation in _DOUBLE:
        middle = (low + high) / 2.0
        return [_leaf(matrix, low, middle, y), _leaf(matrix, high, middle, y)]
    return []


def swings_of(outline: Outline, to: Array, doors: npt.NDArray[np.bool_]) -> dict[int, list[Swing]]:
    """The leaves of each of a model's doors (n,), placed by ``to`` (4, 4), by the door's ordinal."""
    geometry = outline.geometry
    own: dict[int, tuple[Array, Array]] = {}
    for placed in geometry.placed_of(doors):
        owner = int(geometry.owner[placed])
        vertices = geometry.shapes[geometry.shape[placed]].vertices
        bounds = np.stack([vertices.min(axis=0), vertices.max(axis=0)]).astype(np.float64)
        before = own.get(owner)
        if before is not None:
            bounds = np.stack([np.minimum(bounds[0], before[0][0]), np.maximum(bounds[1], before[0][1])])
        own[owner] = (bounds, to @ geometry.matrix[placed])
    return {owner: swings(outline.operations[owner], bounds, matrix) for owner, (bounds, matrix) in sorted(own.items())}
