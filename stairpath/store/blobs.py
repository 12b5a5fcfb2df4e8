"""Bytes in pieces."""

from __future__ import annotations

import hashlib

from sqlalchemy import select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from stairpath.store.tables import Blob, BlobPiece

PIECE_BYTES = 1 << 20


def keep(session: Session, data: bytes, media_type: str) -> str:
    """Keep bytes and return their SHA-256; the same bytes are kept once."""
    sha = hashlib.sha256(data).hexdigest()
    row = insert(Blob).values(sha256=sha, size=len(data), media_type=media_type).on_conflict_do_nothing()
    if session.execute(row.returning(Blob.sha256)).scalar_one_or_none() is not None:
        pieces = [
            {"sha256": sha, "number": n, "data": data[at : at + PIECE_BYTES]}
            for n, at in enumerate(range(0, len(data), PIECE_BYTES))
        ]
        if pieces:
            session.execute(insert(BlobPiece), pieces)
    return sha


def load(session: Session, sha: str) -> tuple[bytes, str] | None:
    """The bytes and their media type, or None."""
    blob = session.get(Blob, sha)
    if blob is None:
        return None
    pieces = session.scalars(select(BlobPiece.data).where(BlobPiece.sha256 == sha).order_by(BlobPiece.number))
    return b"".join(pieces), blob.media_type
