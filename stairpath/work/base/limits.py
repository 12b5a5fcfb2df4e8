"""What work on somebody's file may take."""

from __future__ import annotations

from stairpath.core.sandbox import Limits
from stairpath.settings import settings


def limits() -> Limits:
    """What a piece of work on somebody's file may take."""
    chosen = settings()
    return Limits(chosen.reading_total_s, chosen.reading_silence_s, chosen.child_memory_mb)
