"""How the server is just now: what whoever runs it looks at."""

from __future__ import annotations

from dataclasses import dataclass

from stairpath.store import health, migrate
from stairpath.work.base.database import UNREACHABLE, was_full
from stairpath.work.base.unit_of_work import read_only


@dataclass(frozen=True)
class Now:
    """Jobs by their status, bytes that are kept, and how many are signed in."""

    jobs: dict[str, int]
    kept_bytes: int
    sign_ins: int


def look() -> Now | None:
    """How it is; None while the database is away."""
    try:
        with read_only() as act:
            return Now(health.jobs(act.session), health.kept_bytes(act.session), health.sign_ins(act.session))
    except UNREACHABLE:
        return None


def why_not_ready() -> str:
    """Why requests should not be sent here just now, in a sentence; empty where they may."""
    try:
        with read_only() as act:
            there = health.revision(act.session)
    except UNREACHABLE:
        return "The database cannot be reached. This is retried automatically."
    if there != migrate.newest():
        return "The database has the tables of another version. Run the migrations, or this version of the server."
    return "The server's disk is full. Free some space there." if was_full() else ""
