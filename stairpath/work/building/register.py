"""Schedules of a project's building."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import partial

from stairpath.core.cache import Cache
from stairpath.core.register.columns import Column, column_of
from stairpath.core.register.quantities import MeshFigures, all_figures, mesh_figures
from stairpath.core.register.schedule import Group, NotAScheduleError, schedule
from stairpath.core.visibility.conditions import all_met
from stairpath.core.visibility.rules import HIDDEN, resolve, simplified
from stairpath.core.visibility.traits import Traits
from stairpath.store.tables import Model
from stairpath.work.base.errors import UnfitError, WrongError
from stairpath.work.base.unit_of_work import UnitOfWork, read_only
from stairpath.work.building.placed import count_of, geometry_of
from stairpath.work.building.search import Wanted, checked
from stairpath.work.building.visibility import traits_of

_figures: Cache[str, MeshFigures] = Cache(128)


@dataclass(frozen=True)
class Scheduled:
    """A schedule of one version of a building; ``columns`` are what is said beside each component."""

    version: int
    groups: list[Group]
    columns: Mapping[str, Column]
    asked: Traits


def _figures_of(look: UnitOfWork, models: Sequence[Model]) -> MeshFigures:
    """What the triangles of the components of models come to; those of the last few kept in memory."""
    return all_figures([_figures.get(model.geometry or "", partial(_figures_in, look, model)) for model in models])


def _figures_in(look: UnitOfWork, model: Model) -> MeshFigures:
    geometry = geometry_of(look, model.geometry or "")
    if geometry is None:
        raise UnfitError(f"{model.name} is being read again; its quantities follow when it is there.")
    return mesh_figures(geometry, count_of(model))


def scheduled(
    project_id: str, steps: Sequence[str], sums: Sequence[str], beside: Sequence[str], wanted: Wanted
) -> Scheduled:
    """What is wanted of a project's building in groups, with sums of quantities, and what is said beside each of it."""
    with read_only() as look:
        rows, asked = traits_of(look, project_id)
        members = all_met(checked(wanted.conditions, asked), asked) & asked.stands
        if wanted.shown_by is not None:
            members &= resolve(asked, simplified(wanted.shown_by)).state != HIDDEN
        models = [model for key in asked.keys for model in rows.models if model.id == key]
        mesh = partial(_figures_of, look, models)
        try:
            groups = schedule(steps, sums, members, asked, mesh)
            columns = {name: column_of(name, asked, mesh) for name in beside}
        except NotAScheduleError as error:
            raise WrongError(str(error)) from error
    return Scheduled(rows.project.version, groups, columns, asked)
