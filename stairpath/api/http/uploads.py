"""Files that come as the body of a request, spooled to disk as they come."""

from __future__ import annotations

import tempfile
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import PurePath
from typing import IO, Any
from urllib.parse import unquote

from fastapi import Request
from fastapi.concurrency import run_in_threadpool

from stairpath.core.reading.intake import megabytes
from stairpath.work.base.errors import TooLargeError

_IN_MEMORY = 1 << 20
_LONGEST_NAME = 200
BODY: dict[str, Any] = {
    "requestBody": {
        "required": True,
        "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
    }
}
"""What a route says of its body that takes a file."""


def file_name(sent: str, otherwise: str) -> str:
    """A file's name as a header carries it, percent-encoded, without folders."""
    return PurePath(unquote(sent, errors="replace").replace("\0", "")).name[-_LONGEST_NAME:] or otherwise


@asynccontextmanager
async def received(request: Request, name: str, most: int) -> AsyncIterator[IO[bytes]]:
    """The body of a request; TooLargeError as soon as it is larger than is taken."""
    with tempfile.SpooledTemporaryFile(max_size=_IN_MEMORY) as kept:
        size = 0
        async for piece in request.stream():
            size += len(piece)
            if size > most:
                raise TooLargeError(
                    f"{name} is larger than the {megabytes(most)} that this server takes; "
                    "split it or ask for a higher limit."
                )
            if size > _IN_MEMORY:
                await run_in_threadpool(kept.write, piece)
            else:
                kept.write(piece)
        yield kept
