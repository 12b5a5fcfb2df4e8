"""The record."""

from __future__ import annotations

from datetime import datetime

from pydantic import BaseModel

from stairpath.api.schemas.common import ChangedField


class RecordEntry(BaseModel):
    """Something that was done: by whom, when, from where, and to what; ``title`` is what that was called then.

    Where from is empty for who does not own the project.
    """

    number: int
    at: datetime
    who: str
    action: str
    kind: str
    thing_id: str
    title: str
    fields: list[ChangedField]
    address: str
    browser: str
    token: str


class Record(BaseModel):
    """Entries, the last first; whether there are earlier ones; and who stands in the record at all."""

    entries: list[RecordEntry]
    more: bool
    people: list[str]
