"""``python -m stairpath.store.migrate``: bring the database to this version's tables."""

from __future__ import annotations

from functools import cache
from pathlib import Path

from alembic import command
from alembic.config import Config
from alembic.script import ScriptDirectory
from procrastinate import App, SyncPsycopgConnector
from sqlalchemy import text

from stairpath.settings import settings
from stairpath.store.database import transaction


def _config() -> Config:
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    return config


def migrate() -> None:
    """Create or update our tables and the queue's."""
    command.upgrade(_config(), "head")
    with transaction() as session:
        queue_there = session.scalar(text("SELECT to_regclass('procrastinate_jobs') IS NOT NULL"))
    if not queue_there:
        with App(connector=SyncPsycopgConnector(conninfo=settings().database_url)).open() as queue:
            queue.schema_manager.apply_schema()


@cache
def newest() -> str:
    """The migration that this version's tables are of."""
    return ScriptDirectory.from_config(_config()).get_current_head() or ""


def new_revision(message: str) -> None:
    """Write a migration for what changed in the tables."""
    command.revision(_config(), message, autogenerate=True)


if __name__ == "__main__":
    migrate()
