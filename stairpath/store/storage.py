"""How much is kept: bytes by project, components, and work that is not done."""

from __future__ import annotations

from sqlalchemy import Integer, cast, func, select
from sqlalchemy.orm import Session

from stairpath.store.tables import Blob, Model, ProjectBlob, Task

COMPONENTS = func.coalesce(func.sum(cast(func.jsonb_extract_path_text(Model.frame, "components"), Integer)), 0)
"""How many components some models have, as a sum over their rows."""


def bytes_by_project(session: Session) -> dict[str, int]:
    """The bytes that each project was given, by its id. What two projects were given counts for both."""
    wanted = select(ProjectBlob.project_id, func.sum(Blob.size)).join(Blob, Blob.sha256 == ProjectBlob.sha256)
    return {key: int(size) for key, size in session.execute(wanted.group_by(ProjectBlob.project_id))}


def bytes_of(session: Session, project_id: str) -> int:
    """The bytes that a project was given."""
    wanted = select(func.coalesce(func.sum(Blob.size), 0)).join(ProjectBlob, Blob.sha256 == ProjectBlob.sha256)
    return int(session.scalar(wanted.where(ProjectBlob.project_id == project_id)) or 0)


def components_of(session: Session, project_id: str, but: str = "") -> int:
    """How many components the models of a project have that were not removed; without one of them if so wanted."""
    wanted = select(COMPONENTS).where(Model.project_id == project_id, Model.removed_at.is_(None), Model.id != but)
    return int(session.scalar(wanted) or 0)


def tasks_of(session: Session, project_id: str) -> int:
    """How many tasks of a project wait or run."""
    wanted = select(func.count()).where(
        Task.project_id == project_id, Task.status.in_(("waiting", "running")), Task.removed_at.is_(None)
    )
    return session.scalar(wanted) or 0
