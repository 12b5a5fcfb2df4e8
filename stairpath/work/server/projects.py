"""All projects of the server, without what is in them: how large they are, who owns them, and what they may hold."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from stairpath.core.project_limits import ProjectLimits
from stairpath.store import members, people, projects, storage
from stairpath.store.projects import Counted
from stairpath.work.base import project_limits
from stairpath.work.base.errors import MissingError
from stairpath.work.base.unit_of_work import UnitOfWork, Who, read_only, unit_of_work
from stairpath.work.people.links import key_of


@dataclass(frozen=True)
class Listed:
    """A project as the owners of the server see it."""

    id: str
    name: str
    owners: list[str]
    models: int
    components: int
    storage_bytes: int
    limits: ProjectLimits
    own_limits: bool
    """Whether somebody set its limits; otherwise they are those of the server."""
    removed_at: datetime | None
    visited_at: datetime | None


def _listed(each: Counted, sizes: dict[str, int], owners: dict[str, list[str]], visited: dict[str, datetime]) -> Listed:
    project = each.project
    return Listed(
        project.id, project.name, owners.get(project.id, []), each.models, each.components, sizes.get(project.id, 0),
        project_limits.of(project), project.limits is not None, project.removed_at, visited.get(project.id),
    )  # fmt: skip


def _all(act: UnitOfWork, only: list[str] | None = None) -> list[Listed]:
    sizes, owners = storage.bytes_by_project(act.session), members.owners_by_project(act.session)
    visited = projects.visited(act.session)
    found = [each for binned in (False, True) for each in projects.counted(act.session, binned, only)]
    return [_listed(each, sizes, owners, visited) for each in found]


def listed() -> list[Listed]:
    """All projects, those in the bin last."""
    with read_only() as look:
        return _all(look)


def set_limits(who: Who, project_id: str, limits: ProjectLimits | None) -> Listed:
    """Say what a project may hold; None for what the server lets each project hold. What it holds already stays."""
    with unit_of_work(who) as act:
        project = act.project(project_id, hold=True)
        project.limits = limits
        act.tell(project.id, "project")
        act.session.flush()
        return _all(act, [project.id])[0]


def give_owner(who: Who, project_id: str, key: str) -> Listed:
    """Make somebody an owner of a project, as where the last one left the firm; the project's record says so."""
    with unit_of_work(who) as act:
        project = act.project(project_id, hold=True)
        person = people.person_by_key(act.session, key_of(key))
        if person is None:
            raise MissingError(f"Nobody signs in as {key.strip()}. Invite them on the page for people first.")
        row = members.member_named(act.session, project.id, "person", person.id)
        if row is None:
            members.put(act.session, project.id, "person", person.id, "own", who.said, person.name)
        else:
            row.role = "own"
        act.tell(project.id, "members")
        act.session.flush()
        return _all(act, [project.id])[0]
