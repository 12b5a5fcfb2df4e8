"""The queue's rows: putting a job on it within a transaction, and taking up what was left behind."""

from __future__ import annotations

from functools import lru_cache
from typing import Any

from procrastinate import App, SyncPsycopgConnector
from procrastinate.exceptions import AlreadyEnqueued, UniqueViolation
from sqlalchemy import text
from sqlalchemy.orm import Session

from stairpath.settings import settings

QUEUE = "stairpath"
_TRIES = 5


@lru_cache
def _app() -> App:
    # Never opened: jobs are put on the caller's connection.
    return App(connector=SyncPsycopgConnector(conninfo=settings().database_url))


_HOLD_WAITING = text("SELECT id FROM procrastinate_jobs WHERE queueing_lock = :lock AND status = 'todo' FOR UPDATE")
_ALIVE = text("SELECT EXISTS (SELECT 1 FROM procrastinate_jobs WHERE lock = :lock AND status IN ('todo', 'doing'))")


def put(session: Session, task: str, lock: str, priority: int = 0, **arguments: Any) -> None:
    """Put a job on the queue in this transaction; jobs of one lock never run side by side.

    Where the same one waits already it is held until this transaction ends, so that it begins after it and sees
    what was written here.
    """
    session.flush()
    for _ in range(_TRIES):
        if session.execute(_HOLD_WAITING, {"lock": lock}).first() is not None:
            return
        try:
            with session.begin_nested():
                raw: Any = session.connection().connection.driver_connection
                _app().configure_task(
                    task, queue=QUEUE, lock=lock, queueing_lock=lock, priority=priority, connection=raw
                ).defer(**arguments)
            return
        except (AlreadyEnqueued, UniqueViolation):
            continue  # somebody else put it on in this moment; it is held on the next round
    raise RuntimeError(f"The job {lock} could neither be put on the queue nor found on it.")


def is_alive(session: Session, lock: str) -> bool:
    """Whether a job of this lock waits or runs."""
    return bool(session.scalar(_ALIVE, {"lock": lock}))


_STALLED = text(
    """
    SELECT job.id, job.queueing_lock FROM procrastinate_jobs job
    LEFT JOIN procrastinate_workers worker ON worker.id = job.worker_id
    WHERE job.status = 'doing' AND (
        worker.id IS NULL OR worker.last_heartbeat < now() - make_interval(secs => :silence)
        OR (job.worker_id = :worker AND NOT job.id = ANY(:running)))
    ORDER BY job.id FOR UPDATE OF job SKIP LOCKED
    """
)
_WAITS = text("SELECT 1 FROM procrastinate_jobs WHERE queueing_lock = :lock AND status = 'todo'")
_AGAIN = text("SELECT procrastinate_retry_job_v2(:id, now(), NULL, NULL, NULL)")
_END = text("SELECT procrastinate_finish_job_v1(:id, 'failed', false)")


def take_up(session: Session, silence_s: float, worker: int | None, running: list[int]) -> int:
    """Put back what a dead worker had, and what this one no longer knows of; returns how many there were.

    A job whose like waits already is ended instead: the one that waits does its work.
    """
    stalled = session.execute(_STALLED, {"silence": silence_s, "worker": worker or -1, "running": running}).all()
    for job_id, lock in stalled:
        waits = lock is not None and session.execute(_WAITS, {"lock": lock}).first() is not None
        session.execute(_END if waits else _AGAIN, {"id": job_id})
    return len(stalled)


_FORGET = text(
    """
    DELETE FROM procrastinate_jobs WHERE status IN ('succeeded', 'failed', 'cancelled', 'aborted')
    AND id NOT IN (SELECT job_id FROM procrastinate_events WHERE at > now() - make_interval(hours => :hours))
    """
)


def forget_old(session: Session, hours: int) -> None:
    """Delete jobs that ended so long ago."""
    session.execute(_FORGET, {"hours": hours})


_HEARTBEAT = text("SELECT EXTRACT(EPOCH FROM now() - last_heartbeat) FROM procrastinate_workers WHERE id = :worker")


def heartbeat_age_s(session: Session, worker: int) -> float | None:
    """How long ago a worker gave a sign of life; None if the queue knows no such worker."""
    age = session.scalar(_HEARTBEAT, {"worker": worker})
    return None if age is None else float(age)
