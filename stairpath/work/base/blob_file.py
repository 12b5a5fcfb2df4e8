"""Kept bytes read like a file, a piece at a time, so that they need not be written to disk again."""

from __future__ import annotations

import io
from typing import IO, cast

from stairpath.store import blobs
from stairpath.work.base.errors import MissingError
from stairpath.work.base.unit_of_work import read_only

NO_LONGER_KEPT = "The file is no longer kept. Send it again."


class _Pieces(io.RawIOBase):
    def __init__(self, sha: str, size: int) -> None:
        self._sha, self._size, self._at = sha, size, 0
        self._number, self._piece = -1, b""

    def readable(self) -> bool:
        return True

    def seekable(self) -> bool:
        return True

    def tell(self) -> int:
        return self._at

    def seek(self, offset: int, whence: int = io.SEEK_SET) -> int:
        self._at = max(0, offset + {io.SEEK_SET: 0, io.SEEK_CUR: self._at, io.SEEK_END: self._size}[whence])
        return self._at

    def readinto(self, into: bytearray | memoryview) -> int:  # type: ignore[override]
        number, start = divmod(self._at, blobs.PIECE_BYTES)
        if self._at >= self._size:
            return 0
        if number != self._number:
            # A transaction for each piece: none stays open for as long as a large file takes.
            with read_only() as look:
                piece = blobs.piece(look.session, self._sha, number)
            if piece is None:
                raise MissingError(NO_LONGER_KEPT)
            self._number, self._piece = number, piece
        part = self._piece[start : start + len(into)]
        into[: len(part)] = part
        self._at += len(part)
        return len(part)


def blob_file(sha: str) -> IO[bytes]:
    """What is kept under a hash as a file to be read; MissingError where nothing is."""
    with read_only() as look:
        size = blobs.size_of(look.session, sha)
    if size is None:
        raise MissingError(NO_LONGER_KEPT)
    return cast(IO[bytes], io.BufferedReader(_Pieces(sha, size), blobs.PIECE_BYTES))
