"""The record as people read it: of a project, and of the server; filtered, and as a file."""

from __future__ import annotations

import json
from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import UTC
from typing import Literal

from stairpath.core.people.roles import Action, may
from stairpath.core.register.table import as_csv
from stairpath.core.review.history import field_name
from stairpath.store import record
from stairpath.store.record import SERVER as SERVER
from stairpath.store.record import Wanted as Wanted
from stairpath.store.record_tables import RecordEntry
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import UnitOfWork, Who, read_only

MOST = 200
"""So many entries are shown at once."""
Form = Literal["csv", "jsonl"]
_COLUMNS = (
    "number",
    "at",
    "who",
    "action",
    "kind",
    "thing",
    "id",
    "field",
    "from",
    "to",
    "address",
    "browser",
    "token",
)


@dataclass(frozen=True)
class Page:
    """Entries, the last first; whether there are earlier ones; and who stands in the record at all."""

    entries: list[RecordEntry]
    more: bool
    people: list[str]


def _there(look: UnitOfWork, chain: str) -> None:
    if chain != SERVER:
        in_use(look, chain)


def _open_to(who: Who, chain: str, row: RecordEntry) -> RecordEntry:
    """An entry without from where somebody asked, for who does not own the project."""
    if chain == SERVER or may(who.role, Action.OWN_MEMBERS):
        return row
    row.address = row.browser = row.token = ""
    return row


def known(chain: str) -> None:
    """Raises MissingError or GoneError for the record of a project that is not in use."""
    with read_only() as look:
        _there(look, chain)


def page(who: Who, chain: str, wanted: Wanted) -> Page:
    """Entries of a project's record, or of the server's, as they are filtered."""
    with read_only() as look:
        _there(look, chain)
        found = list(record.entries(look.session, chain, wanted, MOST + 1))
        people = list(record.doers(look.session, chain))
        look.session.expunge_all()
    return Page([_open_to(who, chain, row) for row in found[:MOST]], len(found) > MOST, people)


def _lines(who: Who, chain: str, wanted: Wanted) -> Iterator[dict[str, object]]:
    with read_only() as look:
        _there(look, chain)
        for row in record.oldest_first(look.session, chain, replace(wanted, before=None)):
            look.session.expunge(row)
            shown = _open_to(who, chain, row)
            yield {
                "number": row.number, "at": row.at.astimezone(UTC).isoformat(), "who": row.who, "action": row.action,
                "kind": row.kind, "thing": row.title, "id": row.thing_id,
                "fields": [{"field": field_name(f.field), "from": f.old, "to": f.new} for f in row.fields],
                "address": shown.address, "browser": shown.browser, "token": shown.token, "hash": row.hash,
            }  # fmt: skip


def written(who: Who, chain: str, wanted: Wanted, form: Form) -> Iterator[str]:
    """The record as a file, the first entry first: a line of JSON for each, or a row of CSV for each field that was changed.

    A cell of the CSV is never taken for a formula by what opens it.
    """
    if form == "jsonl":
        for line in _lines(who, chain, wanted):
            yield json.dumps(line, ensure_ascii=False) + "\n"
        return
    yield as_csv([list(_COLUMNS)])
    for line in _lines(who, chain, wanted):
        fields = line.pop("fields")
        assert isinstance(fields, list)
        for each in fields or [{"field": "", "from": "", "to": ""}]:
            cells = line | each
            yield as_csv([[str(cells[name]) for name in _COLUMNS]])


def broken() -> dict[str, int]:
    """Chains of which an entry is missing or was changed, with the number of the first."""
    with read_only() as look:
        found = {chain: record.broken(look.session, chain) for chain in record.chains(look.session)}
    return {chain: number for chain, number in found.items() if number is not None}
