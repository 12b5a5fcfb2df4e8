"""Alembic's entry: runs migrations over the engine of this process."""

from __future__ import annotations

from alembic import context

from stairpath.store import person_tables  # noqa: F401 - so that its tables are known
from stairpath.store.database import engine
from stairpath.store.tables import Base


def include(name: str | None, kind: str, parents: object) -> bool:
    """Leave the queue's own tables alone."""
    return not (kind == "table" and (name or "").startswith("procrastinate"))


with engine().connect() as connection:
    context.configure(connection=connection, target_metadata=Base.metadata, include_name=include)
    with context.begin_transaction():
        context.run_migrations()
    connection.commit()
