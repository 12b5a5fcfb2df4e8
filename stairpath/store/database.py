"""The connection to PostgreSQL and the session of one piece of work."""

from __future__ import annotations

import errno
import math
import re
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime, time
from functools import lru_cache
from time import monotonic

import psycopg
import psycopg_pool
from psycopg.abc import Buffer
from psycopg.types.datetime import TimestamptzLoader
from sqlalchemy import Engine, create_engine, event, text
from sqlalchemy.exc import DataError, IntegrityError, InterfaceError, OperationalError
from sqlalchemy.exc import TimeoutError as NoConnectionError
from sqlalchemy.orm import Session

from stairpath.core.dates import EARLIEST
from stairpath.settings import settings

__all__ = [
    "NOT_STORABLE",
    "UNREACHABLE",
    "Session",
    "answers",
    "engine",
    "is_busy",
    "is_full",
    "note_full",
    "transaction",
    "was_full",
    "without_waiting",
]

UNREACHABLE: tuple[type[Exception], ...] = (
    OperationalError,
    InterfaceError,
    NoConnectionError,
    psycopg.OperationalError,
    psycopg.InterfaceError,
    psycopg_pool.PoolTimeout,
)
"""What is raised while the database cannot be reached, is starting, or has ended a connection."""
NOT_STORABLE: tuple[type[Exception], ...] = (DataError,)
"""What PostgreSQL cannot keep, such as a NUL in a text or a number beyond its range."""
CONFLICTING: tuple[type[Exception], ...] = (IntegrityError,)
"""What somebody else did in the same moment makes impossible."""


_FULL_FOR_S = 60.0
_full_at = -math.inf


def is_full(error: BaseException | None) -> bool:
    """Whether something failed because a disk has no room left: the database's (SQLSTATE 53100) or this server's (ENOSPC)."""
    while error is not None:
        if isinstance(error, psycopg.errors.DiskFull) or (isinstance(error, OSError) and error.errno == errno.ENOSPC):
            return True
        error = getattr(error, "orig", None) or error.__cause__
    return False


_TAKEN = re.compile("too many (clients|connections)|remaining connection slots", re.I)


def is_busy(error: BaseException | None) -> bool:
    """Whether something failed because all connections are taken: those of this process, or the database's (SQLSTATE 53300)."""
    while error is not None:
        if isinstance(error, NoConnectionError | psycopg_pool.PoolTimeout | psycopg.errors.TooManyConnections):
            return True
        if isinstance(error, psycopg.OperationalError) and _TAKEN.search(str(error)):
            return True
        error = getattr(error, "orig", None) or error.__cause__
    return False


def note_full() -> None:
    """Note that a disk had no room left just now."""
    global _full_at
    _full_at = monotonic()


def was_full() -> bool:
    """Whether a disk had no room left within the last minute."""
    return monotonic() - _full_at < _FULL_FOR_S


class _KeptTimes(TimestamptzLoader):
    """Times as they are read: one that Python cannot hold is the first that is kept, and never takes a list with it."""

    def load(self, data: Buffer) -> datetime:
        """A time as the database writes it."""
        try:
            return super().load(data)
        except psycopg.DataError:
            return datetime.combine(EARLIEST, time(), UTC)


@lru_cache
def engine() -> Engine:
    """The engine of this process."""
    url = settings().database_url.replace("postgresql://", "postgresql+psycopg://", 1)
    made = create_engine(
        url,
        pool_size=10,
        max_overflow=20,
        pool_timeout=10,
        pool_pre_ping=True,
        hide_parameters=True,  # what people typed is in no message, and so in no log
        connect_args={"connect_timeout": 5, "application_name": "stairpath"},
    )

    @event.listens_for(made, "connect")
    def _read_times(connection: psycopg.Connection[object], _: object) -> None:
        connection.adapters.register_loader("timestamptz", _KeptTimes)

    return made


@contextmanager
def transaction() -> Iterator[Session]:
    """A session whose writes are kept together, or not at all."""
    with Session(engine(), expire_on_commit=False) as session, session.begin():
        yield session


def without_waiting(session: Session) -> None:
    """Do not wait for the disk when this transaction ends; what is kept after it in the usual way waits for it too.

    For one of many steps of which each may be done again: where the power fails in between, the last of them are lost.
    """
    session.execute(text("SET LOCAL synchronous_commit TO OFF"))


def answers() -> bool:
    """Whether the database answers."""
    try:
        with engine().connect() as connection:
            connection.execute(text("SELECT 1"))
    except UNREACHABLE:
        return False
    return True
