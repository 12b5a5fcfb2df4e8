"""The flat faces of a body, the smooth ones that they make together, and the edges between them."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt

from stairpath.core.measuring.body import Body
from stairpath.core.measuring.loops.groups import groups
from stairpath.core.mesh.surface import CREASE_DEG

Array = npt.NDArray[np.float64]
Index = npt.NDArray[np.int64]
Mask = npt.NDArray[np.bool_]

_FLAT_DEG = 0.2


@dataclass(frozen=True, eq=False)
class Facets:
    """The faces of a body."""

    body: Body

    @cached_property
    def _crossed(self) -> tuple[Array, Array]:
        corners = self.body.corners
        crossed = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
        return crossed, np.linalg.norm(crossed, axis=1)

    @property
    def areas_m2(self) -> Array:
        """The area (m,) of each triangle."""
        return self._crossed[1] / 2

    @cached_property
    def normals(self) -> Array:
        """The unit normal (m, 3) of each triangle; zero for one without area."""
        crossed, length = self._crossed
        return crossed / np.maximum(length, 1e-300)[:, None]

    @cached_property
    def _joints(self) -> tuple[Index, Index, Array]:
        """Edges (n, 2) by the body's points, two triangles at each (n, 2), -1 for none, and the cosine between them.

        Where more than two triangles meet, the edge has none for the second.
        """
        t = self.body.triangles
        pairs = np.sort(np.concatenate([t[:, [0, 1]], t[:, [1, 2]], t[:, [2, 0]]]), axis=1)
        face = np.tile(np.arange(len(t)), 3)
        edges, inverse, counts = np.unique(pairs, axis=0, return_inverse=True, return_counts=True)
        order = np.argsort(inverse.reshape(-1), kind="stable")
        first = np.cumsum(counts) - counts
        one = face[order[first]]
        other = np.where(counts == 2, face[order[np.minimum(first + 1, len(order) - 1)]], -1)
        cosine = np.where(other >= 0, np.einsum("ij,ij->i", self.normals[one], self.normals[other]), -1.0)
        return edges.astype(np.int64), np.stack([one, other], axis=1), cosine

    def _meeting(self, below_deg: float) -> Index:
        _, faces, cosine = self._joints
        return faces[(cosine >= math.cos(math.radians(below_deg))) & (faces[:, 1] >= 0)]

    @cached_property
    def flat(self) -> Index:
        """The flat face (m,) that each triangle is of."""
        label: Index = groups(len(self.body.triangles), *self._meeting(_FLAT_DEG).T)
        return label

    @cached_property
    def smooth(self) -> Index:
        """The smooth face (m,) that each triangle is of: flat ones that meet without a crease are one."""
        label: Index = groups(len(self.body.triangles), *self._meeting(CREASE_DEG).T)
        return label

    @cached_property
    def curved(self) -> Mask:
        """Which flat faces (f,) go on smoothly in another: they are strips of a curved one."""
        out = np.zeros(int(self.flat.max(initial=-1)) + 1, dtype=bool)
        pairs = self._meeting(CREASE_DEG)
        one, other = self.flat[pairs[:, 0]], self.flat[pairs[:, 1]]
        out[one[one != other]] = True
        out[other[one != other]] = True
        return out

    def face_of(self, triangle: int) -> Index:
        """The triangles (k,) of the face that a triangle is of: the curved one, else the flat one."""
        by = self.smooth if self.curved[self.flat[triangle]] else self.flat
        return np.flatnonzero(by == by[triangle])

    def creases(self) -> Index:
        """Edges (n, 2) by the body's points where faces meet at a crease, or end."""
        edges, _, cosine = self._joints
        found: Index = edges[cosine < math.cos(math.radians(CREASE_DEG))]
        return found

    def border(self, triangles: Index) -> Index:
        """The edges (n, 2) by the body's points around some triangles."""
        t = self.body.triangles[triangles]
        pairs = np.sort(np.concatenate([t[:, [0, 1]], t[:, [1, 2]], t[:, [2, 0]]]), axis=1)
        edges, counts = np.unique(pairs, axis=0, return_counts=True)
        around: Index = edges[counts == 1]
        return around

    def normal_of(self, triangles: Index) -> Array:
        """The mean unit normal (3,) of some triangles, by their areas."""
        total = self._crossed[0][triangles].sum(axis=0)
        out: Array = total / max(float(np.linalg.norm(total)), 1e-300)
        return out

    def centres(self) -> Array:
        """The centres (f, 3) of area of the flat faces that are no strips of curved ones."""
        count = len(self.curved)
        area = np.bincount(self.flat, self.areas_m2, count)
        middle = self.body.corners.mean(axis=1)
        centre = (
            np.stack([np.bincount(self.flat, self.areas_m2 * middle[:, k], count) for k in range(3)], axis=1)
            / np.maximum(area, 1e-300)[:, None]
        )
        return centre[~self.curved & (area > 0)]
