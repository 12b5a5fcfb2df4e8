"""Figures of the whole database."""

from __future__ import annotations

from datetime import UTC, datetime

from sqlalchemy import func, select, text
from sqlalchemy.orm import Session

from stairpath.store.person_tables import SignIn
from stairpath.store.tables import Blob

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
