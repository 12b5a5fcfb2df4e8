"""Models of a project in their place, with their triangles; the last few kept in memory."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from stairpath.core.cache import Cache
from stairpath.core.federation.placed import Placed
from stairpath.core.geometry.origin import about, placed_about
from stairpath.core.reading.model import Geometry
from stairpath.core.reading.pack import unpack
from stairpath.store import blobs, federations
from stairpath.store.tables import Model
from stairpath.work.base.unit_of_work import UnitOfWork

Array = npt.NDArray[np.float64]
Mask = npt.NDArray[np.bool_]

_geometries: Cache[str, Geometry] = Cache(1024)


def geometry_of(act: UnitOfWork, sha: str) -> Geometry | None:
    """A model's geometry, the last few kept in memory."""

    def load() -> Geometry:
        kept = blobs.load(act.session, sha)
        if kept is None:
            raise LookupError(sha)
        return unpack(kept[0])

    try:
        return _geometries.get(sha, load)
    except LookupError:
        return None


def count_of(model: Model) -> int:
    """How many components a model has."""
    return model.frame.components if model.frame else 0


def placed_of(act: UnitOfWork, model: Model, origin: Array, wanted: Mask) -> Placed | None:
    """A model about an origin, with what is meant of it; None where it is not there, or has just changed."""
    geometry = geometry_of(act, model.geometry or "")
    if geometry is None or model.placed is None or len(wanted) != count_of(model):
        return None
    bounds = about(federations.places(act.session, model)["bounds_m"], origin)
    return Placed(geometry, placed_about(model.placed.matrix, origin), bounds, wanted)
