"""What is removed for good by rule: things that lay in the bin for long, and bytes that nothing refers to any more."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime
from functools import cache

from sqlalchemy import text
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import Session

from stairpath.store.documents import Document
from stairpath.store.record_tables import RecordEntry
from stairpath.store.tables import Base, Blob, BlobPiece, Component, ProjectBlob

_NAMES_NONE = (Component, RecordEntry)
"""Tables whose documents name no bytes that are needed: what was read of a file, and what was done once."""
_GO_WITH_BYTES = (BlobPiece, ProjectBlob)
"""Tables whose rows go with the bytes, not the other way round."""
_BLOBS_AT_ONCE = 500


def _selects() -> Iterator[str]:
    for mapper in Base.registry.mappers:
        name = mapper.class_.__tablename__
        if mapper.class_ in _GO_WITH_BYTES:
            continue
        for column in mapper.local_table.columns:
            if any(key.column.table is Blob.__table__ for key in column.foreign_keys):
                yield f"SELECT {column.name} AS sha256 FROM {name} WHERE {column.name} IS NOT NULL"
            elif isinstance(column.type, JSONB | Document) and mapper.class_ not in _NAMES_NONE:
                # Any sixty-four such digits count as a hash: rather keep what is none than remove what is needed.
                hashes = f"regexp_matches({name}.{column.name}::text, '[0-9a-f]{{64}}', 'g')"
                yield f"SELECT found[1] AS sha256 FROM {name}, {hashes} AS found"


@cache
def _unnamed() -> str:
    """A condition of a blob: no row names it, by a key of the database or anywhere within a document."""
    return f"NOT EXISTS (SELECT FROM ({' UNION ALL '.join(_selects())}) named WHERE named.sha256 = blob.sha256)"


def note_unused(session: Session, at: datetime) -> None:
    """Note of bytes that no row names since when that is so, and of those that a row names again that they are needed.

    Those that somebody works with just now are left for the next time.
    """
    noted = {f"unused_since IS NULL AND {_unnamed()}": at, f"unused_since IS NOT NULL AND NOT {_unnamed()}": None}
    for those, since in noted.items():
        free = f"SELECT sha256 FROM blob WHERE {those} FOR UPDATE SKIP LOCKED"
        session.execute(text(f"UPDATE blob SET unused_since = :at WHERE sha256 IN ({free})"), {"at": since})


def remove_unused(session: Session, before: datetime) -> tuple[int, int]:
    """Remove some bytes that no row has named since a time; how many hashes and how many bytes there were.

    Who keeps the same bytes again has noted that they are needed, or holds their row, so that they stay; or waits for the
    end of this, and keeps them anew.
    """
    old = f"SELECT sha256 FROM blob WHERE unused_since < :before AND {_unnamed()} LIMIT {_BLOBS_AT_ONCE} FOR UPDATE SKIP LOCKED"
    found = session.execute(
        text(f"DELETE FROM blob WHERE sha256 IN ({old}) RETURNING size"), {"before": before}
    ).scalars()
    sizes = list(found)
    return len(sizes), sum(sizes)


_IN_BIN = {
    "topic_file": "true",
    "meeting_point": "true",
    "meeting": "true",
    # Minutes stay as they were given out, with all that they tell of.
    "topic": """NOT EXISTS (SELECT FROM meeting WHERE topic.id = ANY (meeting.topics))
        AND NOT EXISTS (SELECT FROM meeting_point WHERE meeting_point.topic_id = topic.id)""",
    # A topic, a comment or minutes that stay show their view.
    "viewpoint": """NOT EXISTS (SELECT FROM topic WHERE viewpoint.id = ANY (topic.views))
        AND NOT EXISTS (SELECT FROM topic_note WHERE topic_note.view = viewpoint.id)
        AND NOT EXISTS (SELECT FROM meeting_point WHERE meeting_point.view = viewpoint.id)""",
    "folder": "true",
    "component_set": "true",
    "saved_route": "true",
    "task": "true",
    "model": "true",
}
"""Tables of what is found in the bin, parts first, and when nothing that stays needs such a row."""
_PROJECT_OF = {
    "topic_file": "(SELECT project_id FROM topic WHERE topic.id = topic_file.topic_id)",
    "meeting_point": "(SELECT project_id FROM meeting WHERE meeting.id = meeting_point.meeting_id)",
}


def empty_bins(session: Session, before: datetime) -> dict[str, int]:
    """Remove what was deleted before a time, for good; how many things of which projects."""
    found: dict[str, int] = {}
    for table, when in _IN_BIN.items():
        project = _PROJECT_OF.get(table, "project_id")
        gone = session.execute(
            text(f"DELETE FROM {table} WHERE removed_at < :before AND {when} RETURNING {project}"), {"before": before}
        )
        for (project_id,) in gone:
            found[project_id] = found.get(project_id, 0) + 1
    return found


def empty_bin_of_projects(session: Session, before: datetime) -> list[tuple[str, str]]:
    """Remove projects that were deleted before a time, with all that is in them; their ids and names."""
    gone = session.execute(
        text("DELETE FROM project WHERE removed_at < :before RETURNING id, name"), {"before": before}
    ).all()
    ids = [each.id for each in gone]
    session.execute(text("DELETE FROM project_blob WHERE project_id = ANY (:ids)"), {"ids": ids})
    return [(each.id, each.name) for each in gone]


def hold_alone(session: Session) -> bool:
    """Be the only one of several workers that removes anything, until the transaction ends; False where another one is."""
    return bool(session.scalar(text("SELECT pg_try_advisory_xact_lock(hashtext('stairpath emptying'))")))
