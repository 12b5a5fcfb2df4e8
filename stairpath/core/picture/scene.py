"""What there is to be drawn of a building: its triangles, whose each is, and in which colour."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
import numpy.typing as npt

from stairpath.core.federation.federate import FederatedModel, Federation
from stairpath.core.visibility.colours import base_colour

Array = npt.NDArray[np.float64]


@dataclass(frozen=True, eq=False)
class Scene:
    """Triangles (n, 3, 3) in project coordinates, the component of each by its number, which are glass, and the colours of
    components (m, 3) from 0 to 255.

    Components are numbered through the models in their order.
    """

    corners_m: Array
    owner: npt.NDArray[np.int32]
    glass: npt.NDArray[np.bool_]
    colours: npt.NDArray[np.float32]

    def only(self, components: npt.NDArray[np.bool_]) -> Scene:
        """What is left of it of some components (m,)."""
        left = components[self.owner]
        return replace(self, corners_m=self.corners_m[left], owner=self.owner[left], glass=self.glass[left])


def rgb(colour: str) -> tuple[int, int, int]:
    """A colour such as ``#e08a1e`` as figures from 0 to 255."""
    return int(colour[1:3], 16), int(colour[3:5], 16), int(colour[5:7], 16)


def scene_of(models: Sequence[FederatedModel]) -> Scene:
    """What there is of models in their places, less what stands far from the building."""
    corners, owners, glass, colours = [], [], [], []
    first = 0
    for model in models:
        geometry, classes = model.outline.geometry, model.outline.classes
        for placed, owner in enumerate(geometry.owner):
            if owner < 0 or model.apart[owner]:
                continue
            shape = geometry.shapes[geometry.shape[placed]]
            corners.append(geometry.points_of(placed, model.alignment.matrix)[shape.triangles])
            owners.append(np.full(len(shape.triangles), first + owner, dtype=np.int32))
            glass.append(shape.see_through)
        colours += [rgb(base_colour(int(d), name)) for d, name in zip(model.discipline_of, classes, strict=True)]
        first += len(classes)
    found = np.array(colours, dtype=np.float32).reshape(-1, 3)
    if not corners:
        return Scene(np.zeros((0, 3, 3)), np.zeros(0, np.int32), np.zeros(0, np.bool_), found)
    return Scene(np.concatenate(corners), np.concatenate(owners), np.concatenate(glass), found)


def standing(federation: Federation) -> npt.NDArray[np.bool_]:
    """Which components (m,) stand in the building, alternatives that do not left out."""
    parts = [np.full(len(model.outline.classes), model.stands) for model in federation.models]
    return np.concatenate(parts) if parts else np.zeros(0, np.bool_)
