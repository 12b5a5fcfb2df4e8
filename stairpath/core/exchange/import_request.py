"""What is asked for when a file of topics comes in."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

from stairpath.core.geometry.vectors import Vector
from stairpath.core.limits import Key, Word
from stairpath.core.review.words import Words


@dataclass(frozen=True)
class TopicsIn:
    """A file of topics that was sent, by its hash and name, by how much its views are moved, and what its words become.

    With ``preview`` it is looked through and told, and nothing is imported.
    """

    file: Key = ""
    file_name: Word = ""
    shift_m: Vector = (0.0, 0.0, 0.0)
    kind: Literal["topics"] = "topics"
    preview: bool = False
    words: Words = field(default_factory=Words)
