"""Putting a project's models together: the job that follows whatever changes the building."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

import structlog

from stairpath.core.cutting.keyplan import document, draw_key_plan
from stairpath.core.federation.disciplines import CODES
from stairpath.core.federation.federate import Federation, federate
from stairpath.core.federation.outline import Outline
from stairpath.core.picture.building import draw_picture
from stairpath.core.sandbox import Progress, UnfinishedError, run_sandboxed
from stairpath.store import blobs, federations, kept, projects, readings
from stairpath.store.tables import Model, Project
from stairpath.work.base.failures import note_trouble
from stairpath.work.base.limits import limits
from stairpath.work.base.unit_of_work import WORKER, UnitOfWork, unit_of_work

log = structlog.get_logger()


@dataclass(frozen=True, eq=False)
class Together:
    """A project's models put together: the building, the hashes of its key plans, its picture, and what it answers."""

    models: list[Model]
    building: Federation
    plans: list[str]
    picture: bytes | None
    wanted: int


def together(act: UnitOfWork, project: Project, report: Progress, fresh: Mapping[str, Outline] = {}) -> Together:
    """Align all models that were read, place their components, draw key plans and picture.

    ``fresh`` are outlines of models that were read just now, by their ids, in place of what is kept.
    """
    wanted = project.wanted
    models = federations.read_models(act.session, project.id)
    building = federate(
        [fresh[m.id] if m.id in fresh else readings.load_outline(act.session, m) for m in models],
        {m.name: m.discipline_rule for m in models if m.discipline_rule in CODES},
        {m.name for m in models if m.chosen},
        {m.name: m.placement for m in models if m.placement is not None},
    )
    report(0.5, "")
    plans = []
    for level in range(len(building.levels)):
        drawn = document(draw_key_plan(building, level), building.origin_m)
        plans.append(federations.keep_plan(act.session, project.id, drawn))
        report(0.5 + 0.4 * (level + 1) / len(building.levels), "")
    return Together(models, building, plans, draw_picture(building), wanted)


def keep_together(act: UnitOfWork, project: Project, made: Together) -> None:
    """Keep what was put together, in place of what was, and ask for what follows from it; the project is held."""
    federations.keep_building(act.session, project, made.models, made.building, made.plans)
    project.picture = None if made.picture is None else blobs.keep(act.session, project.id, made.picture, "image/png")
    project.made = made.wanted
    project.trouble = ""
    if project.wanted != made.wanted:
        act.put_federation(project.id)
    act.map_walks(project.id)
    if any(row.removed_at is None for row in kept.standing(act.session, project.id)):
        act.make_standing(project.id)
    if kept.undrawn(act.session, project.id):
        act.draw_pictures(project.id)
    act.tell(project.id, "federation", "models", "walking")


def put_together(project_id: str, report: Progress) -> None:
    """Put a project's models together and keep the building; in a child process."""
    with unit_of_work(WORKER) as act:
        federations.hold(act.session, project_id)
        project = projects.project_by_id(act.session, project_id)
        if project is None:
            return
        made = together(act, project, report)
        # Held late, so that nobody waits for the work above.
        keep_together(act, act.project(project_id, hold=True), made)


def bring_together(project_id: str) -> None:
    """Put a project's models together in a child process; where that does not end well the project says why."""
    with unit_of_work(WORKER) as act:
        project = projects.project_by_id(act.session, project_id)
        if project is None:
            return
        wanted = project.wanted
    try:
        run_sandboxed(put_together, project_id, limits=limits())
    except UnfinishedError as error:
        note_trouble(project_id, wanted, "The models could not be put together", error)
