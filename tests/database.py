"""A PostgreSQL of the tests' own, started once a run and thrown away."""

from __future__ import annotations

import os
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from stairpath.start.postgres import FIRST_PORT, Cluster


def run_beside() -> int:
    """Which of the runs side by side this is: 0, 1 and so on."""
    return int(os.environ.get("PYTEST_XDIST_WORKER", "gw0").removeprefix("gw"))


@contextmanager
def database() -> Iterator[str]:
    """The address of an empty, migrated database."""
    folder = Path(tempfile.mkdtemp(prefix="stairpath-test-", dir="/var/tmp"))
    folder.chmod(0o755)
    # Tests that run side by side do not try the same ports.
    cluster = Cluster(folder / "postgres", fast=True, first_port=FIRST_PORT + 200 * run_beside())
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
