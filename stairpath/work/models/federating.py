"""Putting a project's models together: the job that follows whatever changes the building."""

from __future__ import annotations

import structlog

from stairpath.core.cutting.keyplan import document, draw_key_plan
from stairpath.core.federation.disciplines import CODES
from stairpath.core.federation.federate import Federation, federate
from stairpath.core.picture.building import draw_picture
from stairpath.core.sandbox import Progress, UnfinishedError, run_sandboxed
from stairpath.store import blobs, federations, kept, projects
from stairpath.store.tables import Model
from stairpath.work.base.failures import note_trouble
from stairpath.work.base.limits import limits
from stairpath.work.base.unit_of_work import WORKER, UnitOfWork, unit_of_work

log = structlog.get_logger()


def _together(act: UnitOfWork, models: list[Model]) -> Federation:
    return federate(
        federations.outlines(act.session, models),
        {m.name: m.discipline_rule for m in models if m.discipline_rule in CODES},
        {m.name for m in models if m.chosen},
        {m.name: m.placement for m in models if m.placement is not None},
    )


def put_together(project_id: str, report: Progress) -> None:
    """Align all models that were read, place their components, draw key plans and picture; in a child process."""
    with unit_of_work(WORKER) as act:
        federations.hold(act.session, project_id)
        project = projects.project_by_id(act.session, project_id)
        if project is None:
            return
        wanted = project.wanted
        models = federations.read_models(act.session, project_id)
        building = _together(act, models)
        report(0.5, "")
        plans = []
        for level in range(len(building.levels)):
            drawn = document(draw_key_plan(building, level), building.origin_m)
            plans.append(federations.keep_plan(act.session, drawn))
            report(0.5 + 0.4 * (level + 1) / len(building.levels), "")
        picture = draw_picture(building)
        project = act.project(project_id, hold=True)  # held late, so that nobody waits for the work above
        federations.keep_building(act.session, project, models, building, plans)
        project.picture = None if picture is None else blobs.keep(act.session, picture, "image/png")
        project.made = wanted
        project.trouble = ""
        if project.wanted != wanted:
            act.put_federation(project_id)
        act.map_walks(project_id)
        if any(row.removed_at is None for row in kept.standing(act.session, project_id)):
            act.make_standing(project_id)
        if kept.undrawn(act.session, project_id):
            act.draw_pictures(project_id)
        act.tell(project_id, "federation", "models", "walking")


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
