"""The record: written by itself for each row that people make, change or delete, in the transaction that does so.

What a session did is gathered while it flushes and written just before it commits: a chain is held only for that moment,
however long the transaction was.
"""

from __future__ import annotations

import textwrap
from collections.abc import Callable, Iterator, Sequence
from dataclasses import asdict, dataclass
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import ColumnElement, event, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from stairpath.core.people.record import FIRST, OF_PEOPLE, Done, broken_at, entry_hash
from stairpath.core.people.renaming import name_key, renamed, renamed_sentence
from stairpath.core.review.history import ChangedField
from stairpath.store.history import EDITED, changed_fields
from stairpath.store.person_tables import GuestLink, Member, Person
from stairpath.store.record_tables import RecordEntry, RecordHead
from stairpath.store.tables import (
    Base,
    ComponentSet,
    Folder,
    Meeting,
    MeetingPoint,
    Model,
    Project,
    SavedRoute,
    Task,
    Topic,
    TopicFile,
    TopicNote,
    Viewpoint,
)

SERVER = "server"
"""The chain of what is done outside projects: people, and signing in."""
_WHAT, _CHAINS = "record", "record chains"


@dataclass(frozen=True)
class Doer:
    """Who works in a session, and from where."""

    who: str
    person_id: str | None = None
    address: str = ""
    browser: str = ""
    token: str = ""


@dataclass(frozen=True)
class _Kept:
    """How rows of a table stand in the record: what is noted of a change, what a row is called, and what it is a part of."""

    fields: tuple[str, ...]
    title: Callable[[Any], str]
    part_of: tuple[type[Base], str] | None = None


def _name(row: Any) -> str:
    return str(row.name)


def _beginning(row: Any) -> str:
    """The first words of a text."""
    return textwrap.shorten(row.text, 80, placeholder=" …")


_KEPT: dict[type[Base], _Kept] = {
    Project: _Kept(("name", "topic_rules", "home", "limits", "removed_at"), _name),
    Model: _Kept(("file_name", "discipline_rule", "chosen", "placement", "removed_at"), _name),
    Viewpoint: _Kept(EDITED[Viewpoint], _name),
    Folder: _Kept(EDITED[Folder], _name),
    ComponentSet: _Kept(EDITED[ComponentSet], _name),
    SavedRoute: _Kept(("removed_at",), _name),
    Task: _Kept(("name", "wish", "asked", "removed_at"), _name),
    Topic: _Kept(EDITED[Topic], lambda row: row.said.title),
    TopicFile: _Kept(("removed_at",), _name, (Topic, "topic_id")),
    TopicNote: _Kept(("text", "removed_at"), _beginning, (Topic, "topic_id")),
    Meeting: _Kept(EDITED[Meeting], lambda row: row.title),
    MeetingPoint: _Kept(EDITED[MeetingPoint], _beginning, (Meeting, "meeting_id")),
    Member: _Kept(("role",), lambda row: row.label),
    GuestLink: _Kept(("ends_at",), _name),
    Person: _Kept(("name", "firm", "discipline", "owner", "makes_projects"), _name),
}
"""What people make, change and delete; what follows from it, such as what was read of a model, is not theirs."""


def begin(session: Session, doer: Doer) -> None:
    """Say who works in a session; what they do is recorded from now on."""
    session.info["author"] = doer.who
    session.info[_WHAT] = doer


def _chain(session: Session, row: Any) -> str | None:
    if isinstance(row, Person):
        return SERVER
    if isinstance(row, Project):
        return row.id
    kept = _KEPT[type(row)]
    if kept.part_of is None:
        return str(row.project_id)
    table, key = kept.part_of
    whole: Any = session.get(table, getattr(row, key))
    return None if whole is None else str(whole.project_id)


def _noted(session: Session, row: Any, action: str, fields: Sequence[ChangedField] = ()) -> None:
    kept = _KEPT.get(type(row))
    if kept is None or (isinstance(row, TopicNote) and action == "made" and not (row.text or row.view)):
        return  # a change of a topic is noted of the topic itself
    deleted = next((each for each in fields if each.field == "deleted"), None)
    if deleted is not None:
        action, fields = ("deleted" if deleted.new else "restored"), [each for each in fields if each is not deleted]
    session.info.setdefault(_CHAINS, []).append((row, action, tuple(fields)))


@event.listens_for(Session, "before_flush")
def _gather(session: Session, *_: object) -> None:
    if _WHAT not in session.info:
        return
    with session.no_autoflush:
        for row in session.new:
            _noted(session, row, "made", [ChangedField("role", "", row.role)] if isinstance(row, Member) else ())
        for row in session.dirty:
            kept = _KEPT.get(type(row))
            fields = [] if kept is None else list(changed_fields(row, kept.fields))
            if fields:
                _noted(session, row, "changed", fields)
        for row in session.deleted:
            _noted(session, row, "deleted")


def note(session: Session, chain: str, action: str, kind: str, thing_id: str = "", title: str = "") -> None:
    """Have something recorded that changes no row: a sign-in, or what was refused."""
    session.info.setdefault(_CHAINS, []).append(((chain, kind, thing_id, title), action, ()))


@event.listens_for(Session, "before_commit")
def _write(session: Session) -> None:
    doer: Doer | None = session.info.get(_WHAT)
    if doer is None:
        return
    session.flush()
    by_chain: dict[str, list[Done]] = {}
    at = datetime.now(UTC)
    with session.no_autoflush:
        for row, action, fields in session.info.pop(_CHAINS, ()):
            if isinstance(row, tuple):
                chain, kind, thing_id, title = row
            else:
                chain, kind, thing_id = _chain(session, row), type(row).__tablename__, row.id
                title = _KEPT[type(row)].title(row)
            if chain is not None:
                by_chain.setdefault(chain, []).append(
                    Done(
                        at, doer.who, doer.person_id, doer.address, doer.browser, doer.token, action, kind, thing_id,
                        title, fields,
                    )
                )  # fmt: skip
    # In one order, so that two who write into the same two never wait for each other.
    for chain in sorted(by_chain):
        _append(session, chain, by_chain[chain])


def _append(session: Session, chain: str, all_done: Sequence[Done]) -> None:
    session.execute(insert(RecordHead).values(chain=chain, number=0, hash=FIRST).on_conflict_do_nothing())
    head = session.get_one(RecordHead, chain, with_for_update=True, populate_existing=True)
    for done in all_done:
        number = head.number + 1
        head.hash = entry_hash(head.hash, chain, number, done)
        head.number = number
        session.add(
            RecordEntry(chain=chain, number=number, hash=head.hash, **{**vars(done), "fields": list(done.fields)})
        )


@dataclass(frozen=True)
class Wanted:
    """Which entries of a chain are meant: by whom, of which kinds and thing, from when until when, before which number."""

    who: str = ""
    kind: str = ""
    thing_id: str = ""
    since: datetime | None = None
    until: datetime | None = None
    before: int | None = None


def _tests(chain: str, wanted: Wanted) -> Iterator[ColumnElement[bool]]:
    yield RecordEntry.chain == chain
    for column, value in (
        (RecordEntry.who, wanted.who), (RecordEntry.kind, wanted.kind), (RecordEntry.thing_id, wanted.thing_id),
    ):  # fmt: skip
        if value:
            yield column == value
    if wanted.since is not None:
        yield RecordEntry.at >= wanted.since
    if wanted.until is not None:
        yield RecordEntry.at < wanted.until
    if wanted.before is not None:
        yield RecordEntry.number < wanted.before


def entries(session: Session, chain: str, wanted: Wanted, most: int) -> Sequence[RecordEntry]:
    """Entries of a chain, the last first."""
    found = select(RecordEntry).where(*_tests(chain, wanted)).order_by(RecordEntry.number.desc()).limit(most)
    return session.scalars(found).all()


def oldest_first(session: Session, chain: str, wanted: Wanted) -> Iterator[RecordEntry]:
    """All entries of a chain that are meant, in their order, a few in memory at a time."""
    found = select(RecordEntry).where(*_tests(chain, wanted)).order_by(RecordEntry.number)
    yield from session.scalars(found.execution_options(yield_per=500))


def doers(session: Session, chain: str) -> Sequence[str]:
    """Who stands in a chain, by the alphabet."""
    return session.scalars(select(RecordEntry.who).where(RecordEntry.chain == chain).distinct().order_by("who")).all()


def chains(session: Session) -> Sequence[str]:
    """Every chain that has begun."""
    return session.scalars(select(RecordHead.chain).order_by(RecordHead.chain)).all()


def done_of(row: RecordEntry) -> Done:
    """What an entry says."""
    return Done(
        row.at, row.who, row.person_id, row.address, row.browser, row.token, row.action, row.kind, row.thing_id, row.title,
        row.fields,
    )  # fmt: skip


def broken(session: Session, chain: str) -> int | None:
    """The number of the first entry of a chain that is missing or was changed; None where it is whole."""
    head = session.get(RecordHead, chain)
    held = ((row.number, done_of(row), row.hash) for row in oldest_first(session, chain, Wanted()))
    return broken_at(chain, held, head.number if head is not None else 0)


def of_person(session: Session, person_id: str) -> Sequence[RecordEntry]:
    """What a person did, in all chains, in its order."""
    wanted = select(RecordEntry).where(RecordEntry.person_id == person_id)
    return session.scalars(wanted.order_by(RecordEntry.at, RecordEntry.chain, RecordEntry.number)).all()


def forget_person(session: Session, person_id: str, name: str, key: str, former: str) -> None:
    """Call somebody who was removed a former member, wherever the record names them.

    Who did something counts in a chain by their id, so that it stays whole. Where what was changed names them, the chain is
    made anew from there, and its last entry says so with the hash that it had before.
    """
    for chain in chains(session):
        head = session.get_one(RecordHead, chain, with_for_update=True, populate_existing=True)
        had, before, anew = head.hash, FIRST, False
        for row in oldest_first(session, chain, Wanted()):
            anew |= _forget_in(row, person_id, name, key, former)
            if anew:
                row.hash = entry_hash(before, chain, row.number, done_of(row))
            before = row.hash
        head.hash = before
        session.flush()
        if anew:
            note(session, chain, f"replaced the name of a former member; the hash was {had}", "record")


def _forget_in(row: RecordEntry, person_id: str, name: str, key: str, former: str) -> bool:
    """Replace somebody in an entry; whether something changed that counts in the chain."""
    counts = False
    if row.person_id == person_id:
        row.who = former
    elif name_key(row.who) == name_key(name):
        row.who, counts = former, True
    if row.title in (name, key):
        counts |= row.kind not in OF_PEOPLE
        row.title = former
    title = renamed_sentence(row.title, name, former)
    if title != row.title:
        row.title, counts = title, True
    told = [asdict(each) for each in row.fields]
    changed = renamed(renamed(told, name, former), key, former)
    if changed is not told:
        row.fields, counts = [ChangedField(**each) for each in changed], True
    return counts
