"""The queue as a worker sees it, on the same PostgreSQL as everything else."""

from __future__ import annotations

from procrastinate import App, PsycopgConnector, RetryStrategy

from stairpath.settings import settings
from stairpath.store.database import UNREACHABLE
from stairpath.store.queue import QUEUE

__all__ = ["AGAIN", "QUEUE", "app"]

app = App(
    connector=PsycopgConnector(conninfo=settings().database_url, min_size=1, max_size=6, timeout=10),
    import_paths=["stairpath.jobs.tasks"],
)

AGAIN = RetryStrategy(max_attempts=20, linear_wait=2, retry_exceptions=list(UNREACHABLE))
"""A job that fails because the database went away is tried again, after growing pauses."""
