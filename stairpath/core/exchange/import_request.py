"""What is asked for when a file of topics comes in."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from stairpath.core.geometry.vectors import Vector


@dataclass(frozen=True)
class TopicsIn:
    """A file of topics that was sent, by its hash and name, and by how much its views are moved."""

    file: str
    file_name: str
    shift_m: Vector = (0.0, 0.0, 0.0)
    kind: Literal["topics"] = "topics"
