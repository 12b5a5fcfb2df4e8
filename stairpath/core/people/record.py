"""The record of a project: entries in a chain, so that one that was removed or edited shows."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from datetime import UTC, datetime

from stairpath.core.review.history import ChangedField

FIRST = "0" * 64
"""What stands before the first entry."""
OF_PEOPLE = ("person", "member", "sign_in")
"""Kinds whose titles are names of people, which may have to be forgotten."""


@dataclass(frozen=True)
class Done:
    """What somebody did, and from where. ``kind`` and ``thing_id`` say to what, ``title`` what that was called then."""

    at: datetime
    who: str
    person_id: str | None
    address: str
    browser: str
    token: str
    action: str
    kind: str
    thing_id: str
    title: str
    fields: Sequence[ChangedField] = field(default_factory=tuple)


def entry_hash(before: str, chain: str, number: int, done: Done) -> str:
    """The hash of an entry with all that stood before it (SHA-256, hexadecimal).

    A person counts by their id where there is one: their name may have to be forgotten, and the chain stays whole then.
    """
    named = done.person_id or done.who
    title = "" if done.kind in OF_PEOPLE else done.title
    said = [
        before, chain, number, done.at.astimezone(UTC).isoformat(), named, done.address, done.browser, done.token,
        done.action, done.kind, done.thing_id, title, [[each.field, each.old, each.new] for each in done.fields],
    ]  # fmt: skip
    return hashlib.sha256(json.dumps(said, ensure_ascii=False, separators=(",", ":")).encode()).hexdigest()


def broken_at(chain: str, entries: Iterable[tuple[int, Done, str]], last: int) -> int | None:
    """The number of the first entry that is missing or is not as it was written; None where the chain is whole.

    ``entries`` are in their order, each with its number and its hash; ``last`` is the number that the last has to have.
    """
    before, expected = FIRST, 1
    for number, done, kept in entries:
        if number != expected or entry_hash(before, chain, number, done) != kept:
            return expected
        before, expected = kept, expected + 1
    return None if expected == last + 1 else expected
