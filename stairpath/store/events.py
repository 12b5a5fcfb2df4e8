"""What happened, told to every server process once the transaction is kept."""

from __future__ import annotations

import json
from collections.abc import AsyncIterator
from dataclasses import dataclass
from typing import Literal

import psycopg
from sqlalchemy import text
from sqlalchemy.orm import Session

from stairpath.settings import settings

CHANNEL = "stairpath"
_LISTEN_S = 10.0

Kind = Literal[
    "project",
    "models",
    "federation",
    "walking",
    "viewpoints",
    "routes",
    "sets",
    "tasks",
    "topics",
    "meetings",
    "members",
]


@dataclass(frozen=True)
class Event:
    """Something of a project changed: of which kind, which one, and a number that grows."""

    project: str
    kind: Kind
    id: str
    version: int


_TELL = text(
    "SELECT pg_notify(:channel, json_build_object('project', CAST(:project AS text), 'kind', CAST(:kind AS text), "
    "'id', CAST(:id AS text), 'version', CAST(CAST(pg_current_xact_id() AS text) AS bigint))::text)"
)


def tell(session: Session, project_id: str, kind: Kind, what: str = "") -> None:
    """Tell everyone who has the project open, once the transaction is kept; ``what`` is the one that changed."""
    session.execute(_TELL, {"channel": CHANNEL, "project": project_id, "kind": kind, "id": what or project_id})


async def listen() -> AsyncIterator[Event | None]:
    """Events as they come, and None at the beginning, before anything could be missed, and at every beat.

    Raises psycopg.OperationalError when the connection is lost.
    """
    connection = await psycopg.AsyncConnection.connect(
        settings().database_url, autocommit=True, connect_timeout=5, application_name="stairpath events"
    )
    async with connection:
        await connection.execute(f"LISTEN {CHANNEL}")
        yield None
        while True:
            async for note in connection.notifies(timeout=_LISTEN_S):
                yield Event(**json.loads(note.payload))
            await connection.execute("SELECT 1")
