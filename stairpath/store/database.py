"""The connection to PostgreSQL and the session of one piece of work."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from functools import lru_cache

from sqlalchemy import Engine, create_engine, text
from sqlalchemy.orm import Session

from stairpath.settings import settings


@lru_cache
def engine() -> Engine:
    """The engine of this process."""
    url = settings().database_url.replace("postgresql://", "postgresql+psycopg://", 1)
    return create_engine(url, pool_size=10, max_overflow=20, pool_pre_ping=True)


@contextmanager
def transaction() -> Iterator[Session]:
    """A session whose writes are kept together, or not at all."""
    with Session(engine(), expire_on_commit=False) as session, session.begin():
        yield session


CHANNEL = "stairpath"


def tell(session: Session, project_id: str) -> None:
    """Tell everyone who has the project open, once the transaction is kept."""
    session.execute(text("SELECT pg_notify(:channel, :payload)"), {"channel": CHANNEL, "payload": project_id})
