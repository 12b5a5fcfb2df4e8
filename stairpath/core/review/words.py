"""What the words of a topic file become in the project that imports it."""

from __future__ import annotations

from dataclasses import dataclass, field, fields
from typing import Annotated, Literal

from annotated_types import MaxLen

from stairpath.core.limits import Word

WordField = Literal["status", "kind", "priority", "people"]
_Words = Annotated[dict[Word, Word], MaxLen(500)]


@dataclass(frozen=True)
class Words:
    """By field, what a word of a file becomes; one that becomes nothing, or is not named, stays as it is."""

    status: _Words = field(default_factory=dict)
    kind: _Words = field(default_factory=dict)
    priority: _Words = field(default_factory=dict)
    people: _Words = field(default_factory=dict)

    def becomes(self, name: WordField, word: str) -> str:
        """What a word of a field becomes; nothing where it stays as it is."""
        known: dict[str, str] = getattr(self, name)
        return known.get(word.strip(), "")

    def joined(self, later: Words) -> Words:
        """These words with others over them.

        >>> Words(kind={"Issue": "problem"}).joined(Words(kind={"Issue": "", "RFI": "question"})).kind
        {'Issue': '', 'RFI': 'question'}
        """
        return Words(**{each.name: {**getattr(self, each.name), **getattr(later, each.name)} for each in fields(Words)})
