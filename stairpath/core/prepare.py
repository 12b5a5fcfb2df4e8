"""Reading a file and cutting it into chunks, the work that one child process does."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

from stairpath.core.federation.outline import Outline, outline
from stairpath.core.mesh.chunks import Chunk, build_chunks
from stairpath.core.reading.model import ModelReading
from stairpath.core.reading.pack import pack
from stairpath.core.reading.read import LONGEST_SILENCE_S, read_model
from stairpath.core.sandbox import Progress

_KERNEL_SHARE = 0.85


@dataclass(frozen=True)
class Prepared:
    """A reading, what it draws, its geometry as it is kept, and its outline."""

    reading: ModelReading
    outline: Outline
    chunks: list[Chunk]
    geometry: bytes


def prepare(
    name: str, source: bytes | Path, on_progress: Progress, longest_silence_s: float = LONGEST_SILENCE_S
) -> Prepared:
    """Read, cut and pack one file; raises CannotReadError."""
    reading = read_model(name, source, lambda share, at: on_progress(share * _KERNEL_SHARE, at), longest_silence_s)
    chunks = build_chunks(reading)
    on_progress(0.97, "")
    return Prepared(reading, outline(reading), chunks, pack(reading.geometry))
