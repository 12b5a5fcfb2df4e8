"""Bytes in pieces."""

from __future__ import annotations

import hashlib
import io
from collections.abc import Iterator
from typing import IO

from sqlalchemy import select, update
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from stairpath.store.tables import Blob, BlobPiece, ProjectBlob

PIECE_BYTES = 1 << 20


def keep_stream(session: Session, project_id: str, stream: IO[bytes], media_type: str) -> tuple[str, int]:
    """Keep what a stream holds for a project; its SHA-256 and size. Never more than a piece of it is in memory."""
    stream.seek(0)
    digest, size = hashlib.sha256(), 0
    while part := stream.read(PIECE_BYTES):
        digest.update(part)
        size += len(part)
    sha = digest.hexdigest()
    row = insert(Blob).values(sha256=sha, size=size, media_type=media_type).on_conflict_do_nothing()
    if session.execute(row.returning(Blob.sha256)).scalar_one_or_none() is not None:
        stream.seek(0)
        number = 0
        while part := stream.read(PIECE_BYTES):
            session.execute(insert(BlobPiece), [{"sha256": sha, "number": number, "data": part}])
            number += 1
    else:
        # Nothing removes them any more; no row is held where there is nothing to note.
        noted = update(Blob).where(Blob.sha256 == sha, Blob.unused_since.is_not(None))
        session.execute(noted.values(unused_since=None))
    session.execute(insert(ProjectBlob).values(project_id=project_id, sha256=sha).on_conflict_do_nothing())
    return sha, size


def keep(session: Session, project_id: str, data: bytes, media_type: str) -> str:
    """Keep bytes for a project and return their SHA-256; the same bytes are kept once."""
    return keep_stream(session, project_id, io.BytesIO(data), media_type)[0]


def pieces(session: Session, sha: str) -> Iterator[bytes]:
    """The bytes piece by piece."""
    number = 0
    while True:
        found = piece(session, sha, number)
        if found is None:
            return
        yield found
        number += 1


def piece(session: Session, sha: str, number: int) -> bytes | None:
    """One piece of a blob, PIECE_BYTES long but for the last."""
    wanted = select(BlobPiece.data).where(BlobPiece.sha256 == sha, BlobPiece.number == number)
    return session.scalar(wanted)


def is_kept(session: Session, sha: str) -> bool:
    """Whether the bytes of a hash are there."""
    return session.get(Blob, sha) is not None


def size_of(session: Session, sha: str) -> int | None:
    """How many bytes are kept under a hash; None where none are."""
    blob = session.get(Blob, sha)
    return None if blob is None else blob.size


def load(session: Session, sha: str) -> tuple[bytes, str] | None:
    """The bytes and their media type, or None."""
    blob = session.get(Blob, sha)
    if blob is None:
        return None
    found = session.scalars(select(BlobPiece.data).where(BlobPiece.sha256 == sha).order_by(BlobPiece.number))
    return b"".join(found), blob.media_type


def data_of(session: Session, sha: str) -> bytes | None:
    """The bytes alone, or None."""
    found = load(session, sha)
    return found[0] if found else None


def load_in(session: Session, project_id: str, sha: str) -> tuple[bytes, str] | None:
    """The bytes that a project was given and their media type; None where it was given none of this hash."""
    return load(session, sha) if session.get(ProjectBlob, (project_id, sha)) is not None else None


def data_in(session: Session, project_id: str, sha: str) -> bytes | None:
    """The bytes alone that a project was given, or None."""
    found = load_in(session, project_id, sha)
    return found[0] if found else None
