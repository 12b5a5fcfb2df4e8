"""The rows of projects."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import ColumnElement, Integer, and_, cast, delete, func, or_, select, text
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from stairpath.store.documents import Building
from stairpath.store.storage import COMPONENTS
from stairpath.store.tables import Model, Project, ProjectVisit, now


@dataclass(frozen=True)
class Counted:
    """A project with how much there is in it."""

    project: Project
    models: int
    components: int
    reading: int


def counted(session: Session, binned: bool, only: Collection[str] | None = None) -> list[Counted]:
    """The projects that are in use, or those in the bin, newest first; of some ids, or all."""
    counts = (
        select(
            Model.project_id,
            func.count().label("models"),
            COMPONENTS.label("components"),
            func.count().filter(Model.status.in_(("waiting", "reading"))).label("reading"),
        )
        .where(Model.removed_at.is_(None))
        .group_by(Model.project_id)
        .subquery()
    )
    wanted: ColumnElement[bool] = Project.removed_at.is_not(None) if binned else Project.removed_at.is_(None)
    if only is not None:
        wanted = and_(wanted, Project.id.in_(only))
    rows = session.execute(
        select(Project, counts.c.models, counts.c.components, counts.c.reading)
        .outerjoin(counts, counts.c.project_id == Project.id)
        .where(wanted, Project.begun)
        .order_by(Project.created_at.desc())
    )
    return [Counted(p, models or 0, int(components or 0), reading or 0) for p, models, components, reading in rows]


# xmin is the transaction that wrote a row: another one, another state.
_STATE = text(
    "SELECT p.xmin::text || coalesce(string_agg(':' || m.id || m.xmin::text, '' ORDER BY m.position, m.id), '') "
    "FROM project p LEFT JOIN model m ON m.project_id = p.id WHERE p.id = :id GROUP BY p.id, p.xmin"
)


def state_of(session: Session, project_id: str) -> str:
    """What tells whether a project's row or one of its models' was written since; empty if there is no such project."""
    return session.scalar(_STATE, {"id": project_id}) or ""


def project_by_id(session: Session, project_id: str, hold: bool = False) -> Project | None:
    """A project; held until the transaction ends if wanted."""
    return session.get(Project, project_id, with_for_update=hold or None, populate_existing=hold)


def hold(session: Session, project_id: str) -> bool:
    """Hold a project that is in use until the transaction ends, without reading what it is; whether it is there."""
    wanted = select(Project.id).where(Project.id == project_id, Project.removed_at.is_(None)).with_for_update()
    return session.scalar(wanted) is not None


def add_project(session: Session, name: str, author: str, begun: bool) -> Project:
    """A new project."""
    project = Project(name=name, created_by=author, begun=begun)
    session.add(project)
    session.flush()
    return project


def to_federate(session: Session, summary: int) -> list[str]:
    """Projects that want a federation that was not made, or whose last one holds less than one holds now."""
    kept = cast(func.jsonb_extract_path_text(Project.federation, "summary"), Integer)
    older: ColumnElement[bool] = kept.is_distinct_from(summary)
    return list(
        session.scalars(
            select(Project.id).where(
                Project.trouble == "",
                or_(Project.wanted != Project.made, and_(Project.federation.is_not(None), older)),
            )
        )
    )


def federated_projects(session: Session) -> list[Project]:
    """Projects that were federated and have no trouble."""
    return list(session.scalars(select(Project).where(Project.federation.is_not(None), Project.trouble == "")))


def forget_unbegun(session: Session, before: datetime) -> None:
    """Delete projects that were made for files of which none was ever taken in."""
    session.execute(delete(Project).where(Project.begun.is_(False), Project.created_at < before))


def building_of(project: Project) -> Building:
    """The project's building as federated last; an empty one before."""
    return project.federation or Building()


def visit(session: Session, project_id: str, who: str) -> ProjectVisit | None:
    """When somebody was in a project; None for who never was."""
    return session.get(ProjectVisit, (project_id, who))


def note_visit(session: Session, project_id: str, who: str) -> None:
    """Note that somebody is in a project now; two at once under one name are one visit."""
    row = insert(ProjectVisit).values(project_id=project_id, who=who)
    session.execute(row.on_conflict_do_update(index_elements=["project_id", "who"], set_={"last_at": now()}))


def visitors(session: Session, project_id: str) -> set[str]:
    """The names of all who were ever in a project."""
    return set(session.scalars(select(ProjectVisit.who).where(ProjectVisit.project_id == project_id)))


def visited(session: Session) -> dict[str, datetime]:
    """When anybody was last in each project, by its id; without those where nobody was."""
    wanted = select(ProjectVisit.project_id, func.max(ProjectVisit.last_at)).group_by(ProjectVisit.project_id)
    return dict(session.execute(wanted).tuples().all())


def ids(session: Session) -> list[str]:
    """The ids of all projects that are in use."""
    return list(session.scalars(select(Project.id).where(Project.removed_at.is_(None)).order_by(Project.id)))
