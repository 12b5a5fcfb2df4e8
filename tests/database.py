"""A PostgreSQL of the tests' own, started once a run and thrown away."""

from __future__ import annotations

import os
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from stairpath.start.postgres import Cluster


@contextmanager
def database() -> Iterator[str]:
    """The address of an empty, migrated database."""
    folder = Path(tempfile.mkdtemp(prefix="stairpath-test-", dir="/var/tmp"))
    folder.chmod(0o755)
    cluster = Cluster(folder / "postgres", fast=True)
    cluster.start()
    os.environ["STAIRPATH_DATABASE_URL"] = cluster.url
    try:
        from stairpath.settings import settings
        from stairpath.store.database import engine
        from stairpath.store.migrate import migrate

        settings.cache_clear()
        engine.cache_clear()
        migrate()
        yield cluster.url
        engine().dispose()
    finally:
        cluster.remove()
        folder.rmdir()
