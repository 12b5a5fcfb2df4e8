"""Columns as bytes and back: one array or one list of texts under each name, for a browser to read as they lie.

The layout, little-endian: ``COLS``, the length of a JSON header, the header ``[{"name", "kind", "count", "at", "bytes"}]``,
then the columns at ``at`` counted from the end of the header, each at a multiple of 8. Texts are UTF-8, parted by NUL.
"""

from __future__ import annotations

import gzip
import json
import struct
from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np
import numpy.typing as npt

_MAGIC = b"COLS"
_HEAD = struct.Struct("<4sI")
_KINDS = ("uint8", "uint16", "int16", "int32", "float32", "float64")
TEXT = "text"

Column = npt.NDArray[Any] | Sequence[str]


def pack(columns: Mapping[str, Column], level: int = 6) -> bytes:
    """Columns as gzipped bytes, the same for the same columns; ``level`` says how hard they are pressed, 1 to 9.

    Raises ValueError for an array of another kind than uint8, uint16, int16, int32, float32 or float64.

    >>> unpack(pack({"level": np.array([0, -1], np.int32), "label": ["W-1", "Tür"]}))["label"]
    ['W-1', 'Tür']
    """
    entries: list[dict[str, str | int]] = []
    parts: list[bytes] = []
    at = 0
    for name, column in columns.items():
        if isinstance(column, np.ndarray):
            kind, data = str(column.dtype), np.ascontiguousarray(column).tobytes()
            if kind not in _KINDS:
                raise ValueError(f"A column of {kind} is not kept; give one of {', '.join(_KINDS)}.")
            count = column.size
        else:
            kind, count = TEXT, len(column)
            data = "\0".join(text.replace("\0", "") for text in column).encode("utf-8", errors="replace")
        entries.append({"name": name, "kind": kind, "count": int(count), "at": at, "bytes": len(data)})
        parts += [data, b"\0" * (-len(data) % 8)]
        at += len(data) + (-len(data) % 8)
    head = json.dumps(entries, separators=(",", ":")).encode()
    head += b" " * (-(len(head) + _HEAD.size) % 8)
    return gzip.compress(b"".join([_HEAD.pack(_MAGIC, len(head)), head, *parts]), level, mtime=0)


def unpack(data: bytes) -> dict[str, Any]:
    """The columns that ``pack`` made: arrays (n,), and lists of texts."""
    raw = gzip.decompress(data)
    magic, size = _HEAD.unpack_from(raw)
    if magic != _MAGIC:
        raise ValueError("These bytes are no columns.")
    begin = _HEAD.size + size
    out: dict[str, Any] = {}
    for entry in json.loads(raw[_HEAD.size : begin]):
        at = begin + entry["at"]
        if entry["kind"] == TEXT:
            texts = raw[at : at + entry["bytes"]].decode().split("\0")
            out[entry["name"]] = texts if entry["count"] else []
        else:
            out[entry["name"]] = np.frombuffer(raw, dtype=entry["kind"], count=entry["count"], offset=at)
    return out
