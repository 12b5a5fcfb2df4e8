"""Bodies to measure: the triangles of one component about a point near it, and a tree over them."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt

from stairpath.core.federation.placed import Placed
from stairpath.core.measuring.loops.groups import groups
from stairpath.core.measuring.loops.tree import Tree, build

Array = npt.NDArray[np.float64]
Index = npt.NDArray[np.int64]

_SAME_POINT_M = 1e-6


class NoBodyError(ValueError):
    """A component without a shape; the message says so."""


@dataclass(frozen=True, eq=False)
class Body:
    """Triangles: corner points (n, 3) and which three each has (m, 3), counter-clockwise from outside.

    Points that are the same are one.
    """

    points: Array
    triangles: Index

    @cached_property
    def corners(self) -> Array:
        """The triangles' corners (m, 3, 3)."""
        return np.ascontiguousarray(self.points[self.triangles])

    @cached_property
    def tree(self) -> Tree:
        """The boxes around its triangles."""
        return Tree(*build(self.corners))

    @cached_property
    def bounds_m(self) -> Array:
        """The box (2, 3) around it."""
        return np.stack([self.points.min(axis=0), self.points.max(axis=0)])

    @cached_property
    def shells(self) -> list[Index]:
        """The triangles (k,) of each part that hangs together."""
        a, b = self.triangles[:, [0, 1]].ravel(), self.triangles[:, [1, 2]].ravel()
        of = groups(len(self.points), a, b)[self.triangles[:, 0]]
        if not of.any():
            return [np.arange(len(of))]
        order = np.argsort(of, kind="stable")
        parts = np.split(order, np.searchsorted(of[order], np.arange(1, of.max() + 1)))
        return [part for part in parts if len(part)]

    def moved(self, by: Array) -> Body:
        """The body shifted."""
        return Body(self.points + by, self.triangles)


def body(points: Array, triangles: npt.NDArray[np.integer]) -> Body:
    """A body of corner points (n, 3) and triangles (m, 3); points in one place become one, empty triangles go."""
    cells = np.round((points - points.mean(axis=0)) / _SAME_POINT_M).astype(np.int64)
    _, first, number = np.unique(cells, axis=0, return_index=True, return_inverse=True)
    merged = number.reshape(-1)[np.asarray(triangles, dtype=np.int64)]
    whole = (merged[:, 0] != merged[:, 1]) & (merged[:, 1] != merged[:, 2]) & (merged[:, 2] != merged[:, 0])
    return Body(np.ascontiguousarray(points[first], dtype=np.float64), merged[whole])


def joined(one: Body, other: Body) -> Body:
    """Two bodies as one of two parts."""
    return Body(
        np.concatenate([one.points, other.points]),
        np.concatenate([one.triangles, other.triangles + len(one.points)]),
    )


def body_of(placed: Placed, owner: int, about: Array) -> Body:
    """The body of a component of a placed model, about a point (3,); raises NoBodyError where it has no shape."""
    geometry = placed.geometry
    to = np.array(placed.to, dtype=np.float64)
    to[:3, 3] -= about
    points, triangles, first = [], [], 0
    for at in np.flatnonzero(geometry.owner == owner).tolist():
        shape = geometry.shapes[geometry.shape[at]]
        mirrored = np.linalg.det((to @ geometry.matrix[at])[:3, :3]) < 0
        points.append(geometry.points_of(at, to))
        triangles.append((shape.triangles[:, ::-1] if mirrored else shape.triangles) + first)
        first += len(shape.vertices)
    if not points:
        raise NoBodyError("This component has no shape to measure. Select one that is drawn.")
    return body(np.concatenate(points), np.concatenate(triangles))
