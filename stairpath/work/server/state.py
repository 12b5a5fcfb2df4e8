"""How the server is, for whoever runs it: versions, storage, jobs, what failed and why, and the last backup."""

from __future__ import annotations

import platform
import shutil
import tempfile
from dataclasses import dataclass
from datetime import datetime
from importlib import metadata

from stairpath.settings import settings
from stairpath.store import health, people, record
from stairpath.store.health import Failure as Failure
from stairpath.store.record import SERVER, Wanted
from stairpath.work.base.unit_of_work import WORKER, read_only, unit_of_work

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


def look() -> State:
    """How it is now."""
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
        )


def note_backup(to: str) -> None:
    """Have it recorded that a backup was made, and where it was written to."""
    with unit_of_work(WORKER) as act:
        record.note(act.session, SERVER, "made a backup", _BACKUP, title=to)
