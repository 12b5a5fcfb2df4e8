"""The queue, on the same PostgreSQL as everything else."""

from __future__ import annotations

from contextlib import suppress
from functools import lru_cache

from procrastinate import App, PsycopgConnector, SyncPsycopgConnector
from procrastinate.exceptions import AlreadyEnqueued

from stairpath.settings import settings

READING = "reading"
HEARTBEAT_LOST_S = 30.0

app = App(connector=PsycopgConnector(conninfo=settings().database_url), import_paths=["stairpath.jobs.tasks"])


@lru_cache
def defer_app() -> App:
    """The queue for code that is not asynchronous, to put jobs on by name."""
    opened = App(connector=SyncPsycopgConnector(conninfo=settings().database_url))
    opened.open()
    return opened


def defer(task: str, lock: str, priority: int = 0, **arguments: str) -> None:
    """Put a job on the queue unless the same one waits already; jobs of one lock never run side by side."""
    with suppress(AlreadyEnqueued):
        defer_app().configure_task(task, queue=READING, lock=lock, queueing_lock=lock, priority=priority).defer(
            **arguments
        )
