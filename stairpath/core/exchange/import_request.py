"""What is asked for when a file of topics comes in."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from stairpath.core.geometry.vectors import Vector
from stairpath.core.limits import Key, Word


@dataclass(frozen=True)
class TopicsIn:
    """A file of topics that was sent, by its hash and name, and by how much its views are moved."""

    file: Key = ""
    file_name: Word = ""
    shift_m: Vector = (0.0, 0.0, 0.0)
    kind: Literal["topics"] = "topics"
