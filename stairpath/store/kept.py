"""The rows of viewpoints, routes, sets and tasks that were kept."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from stairpath.store.rows import by_id, readable
from stairpath.store.tables import (
    ComponentSet,
    Folder,
    Link,
    Project,
    SavedRoute,
    Task,
    Viewpoint,
    ViewpointBefore,
    ViewpointLook,
    now,
)


def viewpoints(session: Session, project_id: str) -> list[Viewpoint]:
    """The project's viewpoints that were not deleted, newest first."""
    return readable(
        session.scalars(
            select(Viewpoint)
            .where(Viewpoint.project_id == project_id, Viewpoint.removed_at.is_(None))
            .order_by(Viewpoint.created_at.desc())
        )
    )


def undrawn(session: Session, project_id: str) -> list[Viewpoint]:
    """The project's viewpoints whose pictures are still to be drawn, in the order of their folders."""
    wanted = select(Viewpoint).where(
        Viewpoint.project_id == project_id, Viewpoint.removed_at.is_(None), Viewpoint.undrawn
    )
    return readable(session.scalars(wanted.order_by(Viewpoint.folder, Viewpoint.place)))


def standing(session: Session, project_id: str) -> list[Viewpoint]:
    """The project's standing views, those that were deleted among them."""
    return readable(
        session.scalars(select(Viewpoint).where(Viewpoint.project_id == project_id, Viewpoint.standing.is_not(None)))
    )


def before(session: Session, viewpoint_id: str) -> ViewpointBefore | None:
    """What a viewpoint was before the last view was kept over it."""
    return next(iter(earlier(session, viewpoint_id)), None)


def earlier(session: Session, viewpoint_id: str) -> list[ViewpointBefore]:
    """What a viewpoint was before, the last first."""
    wanted = select(ViewpointBefore).where(ViewpointBefore.viewpoint_id == viewpoint_id)
    return readable(session.scalars(wanted.order_by(ViewpointBefore.at.desc())))


def looked(session: Session, project_id: str, who: str) -> datetime | None:
    """When somebody last went through the viewpoints of a project."""
    found = session.get(ViewpointLook, (project_id, who))
    return None if found is None else found.at


def look_at(session: Session, project_id: str, who: str) -> None:
    """Note that somebody went through the viewpoints of a project just now."""
    session.merge(ViewpointLook(project_id=project_id, who=who, at=now()))


def folders(session: Session, project_id: str) -> list[Folder]:
    """The project's folders that were not deleted, in the order that somebody gave them."""
    of_project = select(Folder).where(Folder.project_id == project_id, Folder.removed_at.is_(None))
    return list(session.scalars(of_project.order_by(Folder.place, Folder.created_at)))


def viewpoints_in(session: Session, folder_id: str) -> list[Viewpoint]:
    """The viewpoints of a folder that were not deleted, in their order."""
    inside = select(Viewpoint).where(Viewpoint.folder == folder_id, Viewpoint.removed_at.is_(None))
    return readable(session.scalars(inside.order_by(Viewpoint.place, Viewpoint.created_at)))


def viewpoint_by_id(session: Session, viewpoint_id: str) -> Viewpoint | None:
    """A viewpoint, deleted or not."""
    return by_id(session, Viewpoint, viewpoint_id)


def viewpoint_by_guid(session: Session, project_id: str, guid: str) -> Viewpoint | None:
    """A project's viewpoint by what exchange files call it, deleted or not."""
    return session.scalar(select(Viewpoint).where(Viewpoint.project_id == project_id, Viewpoint.guid == guid))


def viewpoints_by_guids(session: Session, project_id: str, guids: Sequence[str]) -> dict[str, Viewpoint]:
    """A project's viewpoints by what exchange files call them, deleted or not."""
    wanted = select(Viewpoint).where(Viewpoint.project_id == project_id, Viewpoint.guid.in_(guids))
    return {row.guid: row for row in session.scalars(wanted)}


def routes(session: Session, project_id: str) -> list[SavedRoute]:
    """The project's kept routes that were not deleted, newest first."""
    return readable(
        session.scalars(
            select(SavedRoute)
            .where(SavedRoute.project_id == project_id, SavedRoute.removed_at.is_(None))
            .order_by(SavedRoute.created_at.desc())
        )
    )


def sets(session: Session, project_id: str) -> list[ComponentSet]:
    """The project's sets that were not deleted, by name."""
    return readable(
        session.scalars(
            select(ComponentSet)
            .where(ComponentSet.project_id == project_id, ComponentSet.removed_at.is_(None))
            .order_by(ComponentSet.name, ComponentSet.created_at)
        )
    )


def tasks(session: Session, project_id: str) -> list[Task]:
    """The project's tasks that were not deleted, newest first."""
    return readable(
        session.scalars(
            select(Task)
            .where(Task.project_id == project_id, Task.removed_at.is_(None))
            .order_by(Task.created_at.desc())
        )
    )


def task_by_id(session: Session, task_id: str, hold: bool = False) -> Task | None:
    """A task, deleted or not; held until the transaction ends if so wanted."""
    return by_id(session, Task, task_id, hold)


def unfinished_tasks(session: Session) -> list[Task]:
    """Tasks that wait or run, of projects that are in use."""
    return readable(
        session.scalars(
            select(Task)
            .join(Project)
            .where(Task.status.in_(("waiting", "running")), Task.removed_at.is_(None), Project.removed_at.is_(None))
        )
    )


def add(session: Session, row: Viewpoint | ViewpointBefore | SavedRoute | Link | ComponentSet | Task | Folder) -> None:
    """Keep a new one."""
    session.add(row)
    session.flush()


def keep_link(session: Session, link: Link) -> None:
    """Keep a view that an address names, once."""
    if session.get(Link, (link.project_id, link.id)) is None:
        add(session, link)


def link_by_id(session: Session, project_id: str, key: str) -> Link | None:
    """A view that an address names."""
    return session.get(Link, (project_id, key))
