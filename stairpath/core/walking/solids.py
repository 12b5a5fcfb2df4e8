"""What a body meets: the triangles of everything solid in the building."""

from __future__ import annotations

import math
from dataclasses import dataclass, field

import numpy as np
import numpy.typing as npt
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import connected_components

from stairpath.core.federation.federate import Federation
from stairpath.core.geometry.axes import Axes
from stairpath.core.reading.model import Shape

Array = npt.NDArray[np.float64]

PASSABLE = frozenset({"IfcVirtualElement", "IfcAnnotation", "IfcGrid", "IfcOpeningElement"})
"""Classes that a body goes through."""

_TALL = 0.5
_NARROW = 0.2
_FULL = 0.5
_SAME_POINT_M = 1e-4
_ANCHOR_M = 1000.0


@dataclass(frozen=True)
class Rule:
    """Which classes stand in the way, and whether doors are locked."""

    passable: frozenset[str] = PASSABLE
    doors_locked: bool = False


@dataclass(frozen=True)
class Solids:
    """Triangles (n, 3, 3) in metres along the building's axes, and the component (n,) that each is of.

    Components are counted over all models of the federation, in order.
    """

    triangles: Array
    component: npt.NDArray[np.int32]
    axes: Axes = field(default_factory=Axes)

    def only(self, which: npt.NDArray[np.int64]) -> Solids:
        """Some of the triangles."""
        return Solids(self.triangles[which], self.component[which], self.axes)


def _volume(points: Array, triangles: npt.NDArray[np.int32]) -> float:
    a, b, c = (points[triangles[:, k]] for k in range(3))
    return abs(float(np.einsum("ij,ij->", a, np.cross(b, c)))) / 6.0


def frame_of(shape: Shape) -> npt.NDArray[np.bool_]:
    """Which triangles (m,) of a door are its frame, and so stay when it is opened.

    The shape falls apart into its bodies. A tall one that is solid and not narrow is a leaf; a tall
    narrow one is a jamb, a tall hollow one a frame in one piece, a wide low one the head or the
    threshold. Everything else is ironmongery, which moves with the leaf.
    """
    points = np.asarray(shape.vertices, dtype=np.float64)
    triangles = shape.triangles
    if not len(triangles):
        return np.zeros(0, dtype=bool)
    _, same = np.unique(np.round(points / _SAME_POINT_M).astype(np.int64), axis=0, return_inverse=True)
    corner = same.reshape(-1)[triangles]
    links = np.concatenate([corner[:, :2], corner[:, 1:]])
    count = int(same.max()) + 1
    _, part = connected_components(coo_matrix((np.ones(len(links)), (links[:, 0], links[:, 1])), (count, count)), False)
    part_of = part[corner[:, 0]]
    whole = np.ptp(points[triangles.reshape(-1)], axis=0)
    across = 0 if whole[0] >= whole[1] else 1
    out = np.zeros(len(triangles), dtype=bool)
    for each in np.unique(part_of):
        own = part_of == each
        corners = points[triangles[own].reshape(-1)]
        size = np.ptp(corners, axis=0)
        wide, tall = size[across] / max(whole[across], 1e-9), size[2] / max(whole[2], 1e-9)
        box = float(np.prod(size))
        solid = box > 0 and _volume(points - corners[0], triangles[own]) / box >= _FULL
        out[own] = (wide < _NARROW or not solid) if tall >= _TALL else wide >= _TALL
    return out


def building_axes(federation: Federation) -> Axes:
    """Along the building's grid, about a whole kilometre near it, so that they stay when a wing is added."""
    x, y, _ = (math.floor(v / _ANCHOR_M) * _ANCHOR_M for v in federation.origin_m)
    return Axes((x, y, 0.0), round(federation.building_north_deg, 6))


def solids_of(federation: Federation, rule: Rule | None = None) -> Solids:
    """Everything in the building that a body stands on or bumps into, along the building's own axes.

    Alternatives that do not stand are left out; of doors only the frames count unless they are locked.
    """
    rule = rule or Rule()
    axes = building_axes(federation)
    own = np.eye(4)
    own[:3, :3], own[:3, 3] = axes.turn.T, -axes.turn.T @ np.array(axes.origin_m)
    triangles: list[Array] = []
    component: list[npt.NDArray[np.int32]] = []
    first = 0
    for model in federation.models:
        outline = model.outline
        classes = np.array(outline.classes)
        if model.stands and len(classes):
            geometry = outline.geometry
            solid = ~np.isin(classes, sorted(rule.passable)) & ~model.apart
            doors = outline.of_class(("IfcDoor",)) & (not rule.doors_locked)
            to = own @ model.alignment.matrix
            frames: dict[int, npt.NDArray[np.bool_]] = {}
            for placed in geometry.placed_of(solid):
                owner, number = int(geometry.owner[placed]), int(geometry.shape[placed])
                shape = geometry.shapes[number]
                corners = shape.triangles
                if doors[owner]:
                    if number not in frames:
                        frames[number] = frame_of(shape)
                    corners = corners[frames[number]]
                if len(corners):
                    points = geometry.points_of(int(placed), to)
                    mirrored = np.linalg.det(geometry.matrix[placed][:3, :3]) < 0
                    triangles.append(points[corners[:, ::-1] if mirrored else corners])
                    component.append(np.full(len(corners), first + owner, dtype=np.int32))
        first += len(classes)
    if not triangles:
        return Solids(np.zeros((0, 3, 3)), np.zeros(0, dtype=np.int32), axes)
    return Solids(np.concatenate(triangles), np.concatenate(component), axes)
