"""How the server is, for its owners: versions, storage, jobs, what failed and why, and the last backup."""

from __future__ import annotations

import platform
import shutil
import tempfile
from dataclasses import dataclass
from datetime import datetime
from importlib import metadata

import structlog

from stairpath.core.clock import ClockWatch
from stairpath.settings import settings
from stairpath.store import health, people, record
from stairpath.store.health import Failure as Failure
from stairpath.store.record import SERVER, Wanted
from stairpath.work.base.unit_of_work import WORKER, read_only, unit_of_work
from stairpath.work.server.certificate import good_until

log = structlog.get_logger()

_MOST_FAILURES = 100
_BACKUP = "backup"


@dataclass(frozen=True)
class Backup:
    """The last backup: when it was made, and where it was written to."""

    at: datetime
    to: str


@dataclass(frozen=True)
class State:
    """How the server is; sizes in bytes, ``kept_most`` 0 where only the disk is a limit."""

    versions: dict[str, str]
    database_bytes: int
    kept_bytes: int
    kept_most_bytes: int
    free_bytes: int
    people: int
    sign_ins: int
    jobs: dict[str, int]
    failures: list[Failure]
    backup: Backup | None
    certificate_until: datetime | None
    """Until when the certificate is good that browsers see; None where the address has none, or cannot be reached from here."""
    clock_back_s: float
    """By how much the clock of the machine was set back since the server started; 0 where it was not."""


CLOCK = ClockWatch()
"""The clock of this process's machine, looked at once a second by who looks after open pages."""


def look_at_clock() -> None:
    """Notice a clock that was set back, and say so in the log."""
    moved = CLOCK.look()
    if moved:
        log.warning(
            "the clock of this machine was set back; sign-ins and links last longer by as much", by_s=round(moved)
        )


def look() -> State:
    """How it is now."""
    certificate = good_until(settings().address)
    with read_only() as act:
        backups = record.entries(act.session, SERVER, Wanted(kind=_BACKUP), 1)
        versions = {
            "Stair Path": metadata.version("stairpath"),
            "Tables": health.revision(act.session),
            "PostgreSQL": health.database_version(act.session),
            "Python": platform.python_version(),
            "IfcOpenShell": metadata.version("ifcopenshell"),
        }
        return State(
            versions,
            health.database_bytes(act.session),
            health.kept_bytes(act.session),
            settings().server_storage_mb << 20,
            shutil.disk_usage(tempfile.gettempdir()).free,
            len(people.names(act.session)),
            health.sign_ins(act.session),
            health.jobs(act.session),
            health.failures(act.session, _MOST_FAILURES),
            Backup(backups[0].at, backups[0].title) if backups else None,
            certificate,
            CLOCK.back_s,
        )


def note_backup(to: str) -> None:
    """Have it recorded that a backup was made, and where it was written to."""
    with unit_of_work(WORKER) as act:
        record.note(act.session, SERVER, "made a backup", _BACKUP, title=to)
