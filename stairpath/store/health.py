"""Figures of the whole database."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime

from sqlalchemy import func, literal, select, text
from sqlalchemy.orm import Session

from stairpath.store.person_tables import SignIn
from stairpath.store.tables import Blob, Model, Project, Task

STATUSES = ("todo", "doing", "succeeded", "failed", "cancelled", "aborted")


def jobs(session: Session) -> dict[str, int]:
    """How many jobs the queue has of each status."""
    found = session.execute(text("SELECT status::text, count(*) FROM procrastinate_jobs GROUP BY status"))
    return dict.fromkeys(STATUSES, 0) | {str(status): int(count) for status, count in found}


def kept_bytes(session: Session) -> int:
    """How many bytes are kept by their hash."""
    return int(session.scalar(select(func.coalesce(func.sum(Blob.size), 0))) or 0)


def sign_ins(session: Session) -> int:
    """How many browsers and programs are signed in."""
    return session.scalar(select(func.count()).where(SignIn.ends_at > datetime.now(UTC))) or 0


def revision(session: Session) -> str:
    """The last migration that was made."""
    return str(session.scalar(text("SELECT version_num FROM alembic_version")) or "")


def database_bytes(session: Session) -> int:
    """How many bytes the database takes on its disk."""
    return int(session.scalar(text("SELECT pg_database_size(current_database())")) or 0)


def database_version(session: Session) -> str:
    """The version of PostgreSQL."""
    return str(session.scalar(text("SHOW server_version")) or "").split(" ")[0]


@dataclass(frozen=True)
class Failure:
    """Something of a project that failed: what it was, what it is called, why, and since when it was wanted."""

    project: str
    project_id: str
    what: str
    name: str
    why: str
    at: datetime


def failures(session: Session, most: int) -> list[Failure]:
    """What failed in projects that are in use and was not mended since, the newest first."""
    of = (Project.name, Project.id)
    models = (
        select(*of, literal("model"), Model.file_name, Model.message, Model.added_at)
        .join(Model, Model.project_id == Project.id)
        .where(Model.status == "failed", Model.removed_at.is_(None))
    )
    tasks = (
        select(*of, literal("check, sheet or import"), Task.name, Task.message, Task.created_at)
        .join(Task, Task.project_id == Project.id)
        .where(Task.status == "failed", Task.removed_at.is_(None))
    )
    buildings = select(*of, literal("building"), Project.name, Project.trouble, Project.created_at).where(
        Project.trouble != ""
    )
    found = [
        Failure(*row.tuple())
        for wanted in (models, tasks, buildings)
        for row in session.execute(wanted.where(Project.removed_at.is_(None)).limit(most))
    ]
    return sorted(found, key=lambda each: each.at, reverse=True)[:most]
