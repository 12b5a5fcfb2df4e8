"""Pictures of kept views that nobody's browser drew: the job draws them from the views themselves."""

from __future__ import annotations

import structlog

from stairpath.core.geometry.origin import in_project
from stairpath.core.measuring.words import spoken
from stairpath.core.picture.drawing import as_png, blank
from stairpath.core.picture.scene import Scene, scene_of
from stairpath.core.picture.view import Dimension, draw_view
from stairpath.core.review.view import View
from stairpath.core.sandbox import Progress, UnfinishedError, run_sandboxed
from stairpath.core.visibility.traits import Traits
from stairpath.store import blobs, federations, kept, projects
from stairpath.store.federations import ChangedError
from stairpath.work.base.errors import UnfitError
from stairpath.work.base.limits import limits
from stairpath.work.base.unit_of_work import WORKER, UnitOfWork, read_only, unit_of_work
from stairpath.work.building.visibility import traits_of
from stairpath.work.measuring.measures import measure

log = structlog.get_logger()

SIZE = (720, 450)
COMING = "The picture is drawn\nwhen the building is there"
_AT_ONCE = 8


def coming_picture(act: UnitOfWork, project_id: str) -> str:
    """The hash of the picture that stands until a view's own is drawn."""
    return blobs.keep(act.session, project_id, as_png(blank(COMING, SIZE)), "image/png")


def _ground(project_id: str) -> tuple[Scene, Traits] | None:
    with read_only() as look:
        project = projects.project_by_id(look.session, project_id)
        if project is None or project.federation is None:
            return None
        ids = project.federation.models
        try:
            building = federations.load_building(look.session, project)
            _, traits = traits_of(look, project_id)
        except (ChangedError, UnfitError):
            return None  # it is being put together; the pictures follow then
    by_id = dict(zip(ids, building.models, strict=True))
    if any(key not in by_id for key in traits.keys):
        return None
    return scene_of([by_id[key] for key in traits.keys]), traits


def dimensions_of(project_id: str, view: View) -> list[Dimension]:
    """What a view's measures come to, to be drawn; those that come to nothing are left out, as on the stage."""
    if not view.measures:
        return []
    found = measure(project_id, view.measures, view.rules)
    return [
        Dimension(
            in_project(each.line, found.origin_m),
            "" if each.figure is None else spoken(result.found.figures[each.figure]),
        )
        for result in found.results
        if result.found is not None
        for each in result.found.dimensions
    ]


def draw_undrawn(project_id: str, report: Progress) -> None:
    """Draw the pictures of a project's views that have none yet, a few kept at once; in a child process."""
    with read_only() as look:
        wanted = [view.id for view in kept.undrawn(look.session, project_id)]
    ground = _ground(project_id) if wanted else None
    if ground is None:
        return
    scene, traits = ground
    for start in range(0, len(wanted), _AT_ONCE):
        drawn = []
        for key in wanted[start : start + _AT_ONCE]:
            with read_only() as look:
                row = kept.viewpoint_by_id(look.session, key)
                view = row.view if row is not None and row.undrawn else None
            if view is not None:
                drawn.append((key, view, as_png(draw_view(scene, traits, view, SIZE, dimensions_of(project_id, view)))))
        with unit_of_work(WORKER) as act:
            for key, view, picture in drawn:
                row = kept.viewpoint_by_id(act.session, key)
                if row is not None and row.undrawn and row.view == view:
                    row.picture, row.undrawn = blobs.keep(act.session, project_id, picture, "image/png"), False
            act.tell(project_id, "viewpoints")
        report(min(1.0, (start + _AT_ONCE) / len(wanted)), "")


def draw_pictures(project_id: str) -> None:
    """Draw what is undrawn in a child process; where that does not end well the views keep what stands for their pictures."""
    try:
        run_sandboxed(draw_undrawn, project_id, limits=limits())
    except UnfinishedError as error:
        log.warning("pictures were not drawn", project=project_id, why=str(error))
