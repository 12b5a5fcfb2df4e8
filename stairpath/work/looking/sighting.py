"""From where what meets at a place of a project is seen with what is around it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from stairpath.core.camera import sighting as core
from stairpath.core.component_ref import ComponentRef
from stairpath.core.cutting.cuts import BoxCut
from stairpath.work.base.errors import UnfitError
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import read_only
from stairpath.work.walking.walkable_building import standing_of


@dataclass(frozen=True)
class Sighting:
    """A direction of view in project coordinates, what is around the place as a box, and whether it has to be cut by it."""

    bearing_deg: float
    tilt_deg: float
    around: BoxCut
    boxed: bool


def sighting(project_id: str, parts: Sequence[ComponentRef], at_m: tuple[float, float, float]) -> Sighting:
    """How components that meet at a place, in project coordinates, are looked at; refused where they do not stand."""
    with read_only() as look:
        standing = standing_of(look, in_use(look, project_id))
    number = {name: k for k, name in enumerate(standing.names)}
    wanted = [number.get((part.model, part.global_id)) for part in parts]
    solids = standing.space.solids
    place = solids.axes.to_own(np.array(at_m, dtype=np.float64))
    known = [k for k in wanted if k is not None]
    if len(known) < len(wanted):
        raise UnfitError("Not all of its components stand in the building. Run the check again.")
    try:
        found = core.sighting(solids.triangles, solids.component, known, place)
    except ValueError as error:
        raise UnfitError(str(error)) from error
    size = 2 * np.array(core.HALF_M)
    bearing_deg = solids.axes.bearing_deg
    box = BoxCut(at_m, (size[0], size[1], size[2]), bearing_deg % 360.0)
    return Sighting((found.bearing_deg + bearing_deg) % 360.0, found.tilt_deg, box, found.boxed)
