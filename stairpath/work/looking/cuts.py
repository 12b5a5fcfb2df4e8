"""What cuts of a view go through in a project's building."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from stairpath.core.cutting.cuts import BoxCut, Cut, NothingToBoxError, active_planes, box_around
from stairpath.core.cutting.faces import Face, faces
from stairpath.core.geometry.origin import in_project
from stairpath.core.geometry.plane import NotAPlaneError
from stairpath.core.visibility.rules import SHOWN, Rule, resolve, simplified
from stairpath.core.visibility.selectors import These
from stairpath.core.visibility.traits import Traits
from stairpath.store.federations import ChangedError
from stairpath.work.base.errors import UnfitError, WrongError
from stairpath.work.base.project_rows import rows_of
from stairpath.work.base.unit_of_work import read_only
from stairpath.work.building.placed import placed_of
from stairpath.work.building.visibility import traits_of
from stairpath.work.looking.camera import Subject, subject_points


@dataclass(frozen=True)
class CutFaces:
    """The faces of cuts, about the project's origin, for one version of its building; components by their numbers."""

    version: int
    faces: list[tuple[Cut, Face]]
    components: Traits


def cut_faces(project_id: str, cuts: Sequence[Cut], rules: Sequence[Rule], whole: These) -> CutFaces:
    """The faces that cuts leave of what rules show, but for what stays whole."""
    with read_only() as look:
        rows, asked = traits_of(look, project_id)
        origin = np.array(rows.building.origin_m)
        shown = resolve(asked, simplified(rules)).state == SHOWN
        for key, ids in whole.of.items():
            shown[asked.numbers_of(key, ids)] = False
        by_key = {model.id: model for model in rows.models}
        bounds = [*asked.first.tolist(), asked.count]
        try:
            parts = [
                placed_of(look, by_key[key], origin, shown[bounds[k] : bounds[k + 1]])
                for k, key in enumerate(asked.keys)
            ]
        except ChangedError:
            raise UnfitError("The building is being put together again. Try again in a moment.") from None
    there = [part for part in parts if part is not None]
    if len(there) < len(parts):
        raise UnfitError("A model is being read again; its faces follow when it is there.")
    try:
        active = active_planes(cuts)
    except NotAPlaneError as error:
        raise WrongError(str(error)) from error
    here = [each.moved(-origin) for _, each in active]
    made = faces(there, here)
    return CutFaces(rows.project.version, [(cut, face) for (cut, _), face in zip(active, made, strict=True)], asked)


def box_of(project_id: str, subject: Subject, margin_m: float) -> BoxCut:
    """The cut box around a subject that is turned with the building."""
    with read_only() as look:
        building = rows_of(look, project_id).building
    # Seen level along the building's north, the points that decide are those farthest along its axes.
    points = subject_points(project_id, subject, building.building_north_deg, 0.0, []).points
    try:
        return box_around(in_project(points, building.origin_m), building.building_north_deg, margin_m)
    except NothingToBoxError as error:
        raise UnfitError(str(error)) from error
