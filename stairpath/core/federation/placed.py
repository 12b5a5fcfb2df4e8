"""Components of one geometry in their place: what cutting, measuring and framing work on."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.federation.federate import Federation
from stairpath.core.reading.model import Geometry

Array = npt.NDArray[np.float64]
Mask = npt.NDArray[np.bool_]


@dataclass(frozen=True)
class Placed:
    """A geometry moved by ``to``, the bounds (n, 2, 3) of its components there (NaN for none), and which are meant."""

    geometry: Geometry
    to: Array
    bounds_m: Array
    wanted: Mask


def all_placed(federation: Federation, wanted: Mask | None = None) -> list[Placed]:
    """Each model of a federation in project coordinates; ``wanted`` runs over the components of all models.

    Alternatives that do not stand are not meant.
    """
    counts = [len(m.outline.global_ids) for m in federation.models]
    masks: Sequence[Mask] = (
        [np.ones(n, dtype=bool) for n in counts] if wanted is None else np.split(wanted, np.cumsum(counts)[:-1])
    )
    return [
        Placed(m.outline.geometry, m.alignment.matrix, m.bounds_m, mask if m.stands else np.zeros_like(mask))
        for m, mask in zip(federation.models, masks, strict=True)
    ]


class NoSuchComponentError(LookupError):
    """The building has no component of that GlobalId."""


def component_named(federation: Federation, global_id: str) -> tuple[Placed, int]:
    """A component's placed model and its ordinal there, by its GlobalId; raises NoSuchComponentError.

    Where several models have it, that of a model that stands is meant.
    """
    models = federation.models
    for index in sorted(range(len(models)), key=lambda k: not models[k].stands):
        if global_id in models[index].outline.global_ids:
            return all_placed(federation)[index], models[index].outline.global_ids.index(global_id)
    raise NoSuchComponentError(f"There is no component {global_id}; give its GlobalId.")
