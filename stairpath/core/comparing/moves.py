"""Whether a component's shape is the same in two issues, and how it was moved and turned if it is."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
from scipy.spatial import cKDTree

from stairpath.core.comparing.issue import Issue

Array = npt.NDArray[np.float64]

SAME_M = 1e-4
"""Corners that lie no farther apart are the same: files round, and meshes are single precision."""
_SAME_DEG = 1e-3
_RIGID = 1e-6


@dataclass(frozen=True)
class Move:
    """How far the middle of a component went, along the project's axes, and how far it was turned."""

    by_m: tuple[float, float, float]
    turned_deg: float


def _same_points(one: Array, other: Array) -> bool:
    """Whether each of some points (n, 3) has one of the others beside it, and the other way round."""
    if (
        np.abs(one.min(axis=0) - other.min(axis=0)).max() > SAME_M
        or np.abs(one.max(axis=0) - other.max(axis=0)).max() > SAME_M
    ):
        return False
    if one.shape == other.shape and np.linalg.norm(one - other, axis=1).max() <= SAME_M:
        return True
    apart = [np.asarray(cKDTree(b).query(a)[0]).max() for a, b in ((one, other), (other, one))]
    return bool(max(apart) <= SAME_M)


def _fitted(one: Array, other: Array) -> Array:
    """The rigid motion (4, 4) that brings points (n, 3) nearest to others in the same order (Kabsch, 1976)."""
    middle, there = one.mean(axis=0), other.mean(axis=0)
    u, _, vt = np.linalg.svd((one - middle).T @ (other - there))
    turn = vt.T @ np.diag([1.0, 1.0, np.sign(np.linalg.det(vt.T @ u.T))]) @ u.T
    return _motion(turn, there - turn @ middle)


def _motion(turn: Array, shift: Array) -> Array:
    out = np.eye(4)
    out[:3, :3], out[:3, 3] = turn, shift
    return out


def _candidates(old: Issue, a: int, new: Issue, b: int, one: Array, other: Array, about: Array) -> Iterator[Array]:
    """Motions (4, 4) about a point that may have brought a component from where it was, the likeliest first."""
    yield _motion(np.eye(3), (other.min(axis=0) + other.max(axis=0) - one.min(axis=0) - one.max(axis=0)) / 2)
    # Programs mostly leave a shape as it is and place it elsewhere.
    was = old.placed.to @ old.placed.geometry.matrix[old.shapes_of(a)[0]]
    now = new.placed.to @ new.placed.geometry.matrix[new.shapes_of(b)[0]]
    moved_by = now @ np.linalg.inv(was)
    turn = moved_by[:3, :3]
    if abs(float(np.linalg.det(turn)) - 1) < _RIGID:  # neither mirrored nor scaled
        yield _motion(turn, turn @ about + moved_by[:3, 3] - about)
    if len(one) == len(other):
        yield _fitted(one, other)


def _turned_deg(turn: Array) -> float:
    # By sine and cosine: near nothing the cosine alone is good to a hundredth of a degree only.
    sine = np.linalg.norm([turn[2, 1] - turn[1, 2], turn[0, 2] - turn[2, 0], turn[1, 0] - turn[0, 1]]) / 2
    return math.degrees(math.atan2(float(sine), float(np.trace(turn) - 1) / 2))


def moved(old: Issue, a: int, new: Issue, b: int) -> Move | bool | None:
    """How a component was moved between two issues: a Move, True where it stands as it did, None where it was reshaped.

    ``a`` and ``b`` are its places in the two. Of what looks the same in several positions, such as a round bar about
    its axis, the one that turns it least is meant.
    """
    if old.prints[a] == new.prints[b]:
        return True
    one, other = old.points_of(a), new.points_of(b)
    if not len(one) or not len(other):
        return True if len(one) == len(other) else None
    about = one.mean(axis=0)
    one, other = one - about, other - about
    if _same_points(one, other):
        return True
    for motion in _candidates(old, a, new, b, one, other, about):
        turn, shift = motion[:3, :3], motion[:3, 3]
        if _same_points(one @ turn.T + shift, other):
            middle = (one.min(axis=0) + one.max(axis=0)) / 2
            x, y, z = (turn @ middle + shift - middle).tolist()
            angle = _turned_deg(turn)
            return Move((x, y, z), angle if angle > _SAME_DEG else 0.0)
    return None
