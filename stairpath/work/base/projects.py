"""Projects: making, naming, throwing away and bringing back; home."""

from __future__ import annotations

from collections.abc import Collection
from datetime import UTC, datetime

from stairpath.core.review.view import Home, View
from stairpath.core.texts import trimmed
from stairpath.store import members, projects
from stairpath.store.projects import Counted as Counted
from stairpath.store.tables import Project
from stairpath.work.base.errors import GoneError, MissingError, UnfitError, WrongError
from stairpath.work.base.unit_of_work import UnitOfWork, Who, read_only, unit_of_work


def listed(binned: bool = False, only: Collection[str] | None = None) -> list[Counted]:
    """The projects in use, or those in the bin, newest first, with how much there is in each; of some ids, or all."""
    with read_only() as look:
        return projects.counted(look.session, binned, only)


def in_use(act: UnitOfWork, project_id: str, hold: bool = False) -> Project:
    """A project that is not in the bin; MissingError or GoneError otherwise."""
    project = act.project(project_id, hold)
    if project.removed_at is not None:
        raise GoneError(f"{project.name} is in the bin. Restore it from the start page.")
    return project


def known(project_id: str) -> None:
    """MissingError or GoneError for a project that nobody has open."""
    with read_only() as look:
        in_use(look, project_id)


def _named(text: str) -> str:
    name = trimmed(text)
    if not name:
        raise WrongError("A project needs a name; type one.")
    return name


def _card(act: UnitOfWork, project: Project) -> Counted:
    act.session.flush()
    found = projects.counted(act.session, project.removed_at is not None, [project.id])
    return found[0] if found else Counted(project, 0, 0, 0)


def make(who: Who, name: str, for_files: bool = False) -> Counted:
    """A new project, which its maker owns; one that is made for files is seen once the first of them was taken in."""
    with unit_of_work(who) as act:
        made = projects.add_project(act.session, _named(name), who.said, begun=not for_files)
        if who.person_id is not None:
            members.put(act.session, made.id, "person", who.person_id, "own", who.said, who.said)
        return Counted(made, 0, 0, 0)


def rename(who: Who, project_id: str, name: str) -> Counted:
    """Give a project another name."""
    with unit_of_work(who) as act:
        project = in_use(act, project_id, hold=True)
        project.name = _named(name)
        act.tell(project.id, "project")
        return _card(act, project)


def visit(who: Who, project_id: str) -> datetime | None:
    """Note that somebody is in a project now; when they were last there before, None for who never was."""
    with unit_of_work(who) as act:
        project = in_use(act, project_id)
        before = projects.visit(act.session, project.id, who.said)
        last = before.last_at if before else None
        projects.note_visit(act.session, project.id, who.said)
        return last


def throw_away(who: Who, project_id: str) -> None:
    """Move a project to the bin."""
    with unit_of_work(who) as act:
        project = in_use(act, project_id, hold=True)
        project.removed_at = datetime.now(UTC)
        act.tell(project.id, "project")


def bring_back(who: Who, project_id: str) -> Counted:
    """Take a project out of the bin."""
    with unit_of_work(who) as act:
        project = act.project(project_id, hold=True)
        if project.removed_at is None:
            raise UnfitError(f"{project.name} is not in the bin; open it from the start page.")
        project.removed_at = None
        if project.wanted != project.made:
            act.put_federation(project.id)
        act.tell(project.id, "project")
        return _card(act, project)


def put_together(who: Who, project_id: str) -> None:
    """Have the building put together anew, as after it could not be."""
    with unit_of_work(who) as act:
        project = in_use(act, project_id, hold=True)
        act.federate(project)
        act.tell(project.id, "project", "federation")


def set_home(who: Who, project_id: str, view: View | None) -> None:
    """Say which view everybody comes home to; None for the front view."""
    with unit_of_work(who) as act:
        project = in_use(act, project_id, hold=True)
        project.home = None if view is None else Home(view, who.said)
        act.tell(project.id, "project")


def is_there(project_id: str) -> bool:
    """Whether there is such a project."""
    try:
        with read_only() as look:
            in_use(look, project_id)
    except (MissingError, GoneError):
        return False
    return True
