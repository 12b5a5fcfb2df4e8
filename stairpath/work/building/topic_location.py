"""Where topics are, as the components tell that their views have picked."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.exchange.views import Known
from stairpath.core.federation.disciplines import CODES
from stairpath.core.geometry.vectors import Vector, vector
from stairpath.core.review.recheck import Pair, pair
from stairpath.core.review.reference import concerned
from stairpath.core.review.view import View
from stairpath.core.visibility.attributes import What
from stairpath.core.visibility.traits import Traits
from stairpath.store import federations
from stairpath.store.federations import ChangedError
from stairpath.work.base.errors import UnfitError
from stairpath.work.base.unit_of_work import UnitOfWork
from stairpath.work.building.visibility import traits_of

Array = npt.NDArray[np.float64]


@dataclass(frozen=True)
class Place:
    """The disciplines concerned, level and room, the point that marks it, and the two components that it is about, if it is two."""

    disciplines: tuple[str, ...] = ()
    level: str = ""
    room: str = ""
    at_m: Vector | None = None
    pair: Pair | None = None


@dataclass(frozen=True, eq=False)
class ComponentBoxes:
    """What a project's components are and where, for views that come and go."""

    traits: Traits
    bounds_m: Array
    """Corners (n, 2, 3) in project coordinates; not a number where a component has no shape."""

    def numbers(self, view: View) -> list[int]:
        """The components that a view has picked and the building has."""
        return [n for key, ids in view.picked.of.items() for n in self.traits.numbers_of(key, ids)]

    def middle(self, numbers: Sequence[int]) -> Vector | None:
        """The middle of some components; None where none of them has a shape."""
        boxes = self.bounds_m[list(numbers)] if numbers else np.zeros((0, 2, 3))
        boxes = boxes[np.isfinite(boxes).all(axis=(1, 2))]
        return vector(boxes.mean(axis=(0, 1))) if len(boxes) else None

    def value(self, what: What, numbers: Sequence[int]) -> str:
        """What most of some components are or where, such as their level."""
        column = self.traits.columns[what]
        if not numbers or column.owner is not None:
            return ""
        counts = np.bincount(column.value[list(numbers)], minlength=len(column.values))
        return column.values[int(np.argmax(counts))]

    def known(self) -> Known:
        """What files are compared with."""

        def number(global_id: str) -> int | None:
            return next(iter(self.traits.numbers_of("", [global_id])), None)

        def model_of(global_id: str) -> str | None:
            found = number(global_id)
            return None if found is None else self.traits.model_of(found)

        def centre_of(ids: Sequence[str]) -> Vector | None:
            return self.middle(self.traits.numbers_of("", ids))

        return Known(model_of, centre_of)


def component_boxes(act: UnitOfWork, project_id: str) -> ComponentBoxes:
    """The project's components with their boxes; UnfitError while a model is being read again."""
    rows, traits = traits_of(act, project_id)
    by_id = {model.id: model for model in rows.models}
    try:
        parts = [
            np.asarray(federations.places(act.session, by_id[key])["bounds_m"], dtype=np.float64) for key in traits.keys
        ]
    except ChangedError as error:
        raise UnfitError(f"{error}; try again in a moment.") from error
    return ComponentBoxes(traits, np.concatenate(parts) if parts else np.zeros((0, 2, 3)))


def place_of(boxes: ComponentBoxes, views: Sequence[View]) -> Place:
    """Where something is that has these views: by what the first of them has picked that picks anything."""
    for view in views:
        numbers = boxes.numbers(view)
        if numbers:
            column = boxes.traits.columns["discipline"]
            codes = [column.values[int(column.value[n])] for n in numbers]
            return Place(
                concerned(codes, CODES), boxes.value("level", numbers), boxes.value("room", numbers),
                boxes.middle(numbers), picked_pair(views),
            )  # fmt: skip
    return Place(at_m=views[0].eye.target_m, pair=picked_pair(views)) if views else Place()


def picked_pair(views: Sequence[View]) -> Pair | None:
    """The two components that the first view has picked that picks anything, whether the building has them or not."""
    for view in views:
        ids = sorted({each for ids in view.picked.of.values() for each in ids})
        if ids:
            return pair(*ids) if len(ids) == 2 else None
    return None
