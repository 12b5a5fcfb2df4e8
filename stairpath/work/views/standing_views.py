"""A project's standing views: made by a job when somebody asks for them, and again when its models change."""

from __future__ import annotations

import hashlib

import structlog
from pydantic import TypeAdapter

from stairpath.core.federation.federate import Federation
from stairpath.core.review.standing import FOLDER, Standing, standing_views
from stairpath.core.review.view import View
from stairpath.core.sandbox import Progress, UnfinishedError, run_sandboxed
from stairpath.store import federations, kept, projects
from stairpath.store.federations import ChangedError
from stairpath.store.tables import Folder, Viewpoint, now
from stairpath.work.base.errors import UnfitError
from stairpath.work.base.limits import limits
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import WORKER, UnitOfWork, Who, read_only, unit_of_work
from stairpath.work.views.thumbnails import coming_picture

log = structlog.get_logger()
_VIEW: TypeAdapter[View] = TypeAdapter(View)


def digest_of(name: str, view: View) -> str:
    """What tells whether a view is still as it was made."""
    return hashlib.sha256(name.encode() + b"\n" + _VIEW.dump_json(view)).hexdigest()


def ask(who: Who, project_id: str) -> None:
    """Have the standing views made, those that somebody deleted among them."""
    with unit_of_work(who) as act:
        project = in_use(act, project_id)
        if project.federation is None:
            raise UnfitError("There is no model yet; add one and wait until it is read.")
        for row in kept.standing(act.session, project.id):
            if row.removed_at is not None:
                # What was deleted by hand is wanted again.
                row.standing = None
        act.make_standing(project.id)


def _folder(act: UnitOfWork, project_id: str) -> Folder:
    folders = kept.folders(act.session, project_id)
    found = next((each for each in folders if each.name == FOLDER), None)
    if found is None:
        place = max((each.place for each in folders), default=-1) + 1
        found = Folder(project_id=project_id, name=FOLDER, author=WORKER.said, place=place)
        kept.add(act.session, found)
    return found


def _keep(act: UnitOfWork, project_id: str, wanted: list[Standing]) -> int:
    """Keep the views that are wanted, less what people changed or deleted; how many are new or other."""
    known = {row.standing: row for row in kept.standing(act.session, project_id) if row.standing}
    picture, other = coming_picture(act, project_id), 0
    folder: Folder | None = None
    for place, each in enumerate(wanted):
        digest = digest_of(each.name, each.view)
        row = known.pop(each.key, None)
        if row is None:
            folder = folder or _folder(act, project_id)
            kept.add(
                act.session,
                Viewpoint(
                    project_id=project_id, name=each.name, author=WORKER.said, changed_by=WORKER.said, picture=picture,
                    view=each.view, undrawn=True, folder=folder.id, place=place, standing=each.key, digest=digest,
                ),
            )  # fmt: skip
            other += 1
        elif row.removed_at is None and row.digest == digest_of(row.name, row.view):
            # Nobody changed it. What is seen may be other though its eye is where it was.
            if row.digest != digest:
                row.name, row.view, row.digest, row.changed_at = each.name, each.view, digest, now()
            row.undrawn = True
            other += 1
    for row in known.values():
        if row.removed_at is None and row.digest == digest_of(row.name, row.view):
            # The level or room is gone, and so is its view; should it come back there is another one.
            row.removed_at, row.standing = now(), None
            other += 1
    return other


def make(project_id: str, report: Progress) -> None:
    """Make a project's standing views of its building as it is; in a child process."""
    with read_only() as look:
        project = projects.project_by_id(look.session, project_id)
        if project is None or project.federation is None:
            return
        try:
            building: Federation = federations.load_building(look.session, project)
        except ChangedError:
            return  # they are made when it is put together
    report(0.3, "")
    wanted = standing_views(building)
    report(0.9, "")
    with unit_of_work(WORKER) as act:
        in_use(act, project_id, hold=True)
        if _keep(act, project_id, wanted):
            act.draw_pictures(project_id)
            act.tell(project_id, "viewpoints")


def make_standing(project_id: str) -> None:
    """Make the standing views in a child process; where that does not end well those that there are stay."""
    try:
        run_sandboxed(make, project_id, limits=limits())
    except UnfinishedError as error:
        log.warning("standing views were not made", project=project_id, why=str(error))
