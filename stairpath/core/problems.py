"""What is wrong with a model, said in one sentence each."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Problem:
    """A finding about a model: a stable code, a sentence, and the components it is about."""

    code: str
    text: str
    components: tuple[str, ...] = ()


class CannotReadError(Exception):
    """A file that cannot be read at all; the message is one sentence for the user."""
