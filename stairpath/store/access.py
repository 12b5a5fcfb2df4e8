"""Who asks, for what, and with which roles: read in one query, since every request asks it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from functools import cache
from typing import Any

from sqlalchemy import ColumnElement, Select, Text, and_, bindparam, cast, func, literal, null, or_, select, true

from stairpath.store.database import engine
from stairpath.store.person_tables import GuestLink, Member, Person, SignIn


@dataclass(frozen=True)
class ThingRow:
    """Where a thing is found: its table, the column that an address names it by, what of its row is wanted, and the table and
    column of the whole that it is a part of.
    """

    table: type[Any]
    column: str = "id"
    part_of: tuple[type[Any], str] | None = None
    held: Sequence[str] = ()


@dataclass(frozen=True)
class Asked:
    """What was found: the sign-in with its person or guest link, the thing, the project, and the roles there."""

    sign_in_id: str
    used_at: datetime
    token: str
    scope: str | None
    person: dict[str, Any] | None
    """What is asked of the person, by the names of ``_PERSON``."""
    guest: tuple[str, str, str] | None
    """Id, name and project of the link."""
    project_id: str | None
    roles: Sequence[str]
    held: dict[str, Any] | None
    """What was wanted of the thing; None where there is no such thing."""


_PERSON = (
    "id",
    "name",
    "key",
    "firm",
    "discipline",
    "owner",
    "makes_projects",
    "initials",
    "colour",
    "units",
    "language",
)
_GUEST = ("id", "name", "project_id")


def member_is(person: Any) -> ColumnElement[bool]:
    """Whether an entry of a project is about a person: by themselves, by their firm, or by their discipline."""
    entry = Member.__table__.c
    return or_(
        and_(entry.kind == "person", entry.subject == person.id),
        and_(entry.kind == "firm", entry.subject == person.firm_key, person.firm_key != ""),
        and_(entry.kind == "discipline", entry.subject == person.discipline, person.discipline != ""),
    )


@cache
def _query(thing: ThingRow | None, in_project: bool) -> Select[Any]:
    """The query for a kind of thing; made once, as making it takes as long as asking it."""
    sign_in, person, guest = SignIn.__table__.c, Person.__table__.c, GuestLink.__table__.c
    entry = Member.__table__.c
    of_all = (
        SignIn.__table__.outerjoin(Person.__table__, sign_in.person_id == person.id)
        .outerjoin(GuestLink.__table__, sign_in.guest_id == guest.id)
    )  # fmt: skip
    project: ColumnElement[Any] = bindparam("project", type_=Text) if in_project else cast(null(), Text)
    held: list[ColumnElement[Any]] = []
    if thing is not None:
        table = thing.table.__table__
        whole, key = thing.part_of or (thing.table, "id")
        start = table if thing.part_of is None else table.join(whole.__table__, table.c[key] == whole.__table__.c.id)
        wanted = (
            select(literal(1).label("there"), whole.__table__.c.project_id, *(table.c[name] for name in thing.held))
            .select_from(start)
            .where(table.c[thing.column] == bindparam("value", type_=Text))
        )
        if in_project:
            wanted = wanted.where(whole.__table__.c.project_id == project)
        found = wanted.limit(1).subquery("thing")
        of_all = of_all.outerjoin(found, true())
        project = func.coalesce(found.c.project_id, project)
        held = [found.c.there, *(found.c[name] for name in thing.held)]
    roles = (
        select(func.array_agg(entry.role))
        .where(entry.project_id == project, member_is(person))
        .correlate(Person.__table__, *([found] if thing is not None else []))
        .scalar_subquery()
    )
    return (
        select(
            sign_in.id, sign_in.used_at, sign_in.token, sign_in.scope, *(person[name] for name in _PERSON), *(guest[name] for name in _GUEST),
            project.label("project"), roles.label("roles"), *held,
        )
        .select_from(of_all)
        .where(
            sign_in.secret_hash == bindparam("secret_hash"), sign_in.ends_at > bindparam("now"),
            or_(sign_in.used_at > bindparam("used_since"), sign_in.scope.is_not(None)),
        )
    )  # fmt: skip


def asked(
    secret_hash: str,
    now: datetime,
    used_since: datetime,
    project_id: str | None = None,
    thing: ThingRow | None = None,
    value: str = "",
) -> Asked | None:
    """Who is signed in, and what they are in the project of a thing; None for a sign-in that has ended or was not used for long.

    With a project the thing is looked for in it alone.
    """
    given: dict[str, Any] = {"secret_hash": secret_hash, "now": now, "used_since": used_since}
    if project_id is not None:
        given["project"] = project_id
    if thing is not None:
        given["value"] = value
    # One query needs no transaction, which would take as long again to begin and to end.
    with engine().connect().execution_options(isolation_level="AUTOCOMMIT") as connection:
        row = connection.execute(_query(thing, project_id is not None), given).first()
    if row is None:
        return None
    people, rest = row[4 : 4 + len(_PERSON)], row[4 + len(_PERSON) :]
    guest, (project, roles, *more) = rest[: len(_GUEST)], rest[len(_GUEST) :]
    there = thing is not None and more[0] is not None
    return Asked(
        row[0],
        row[1],
        row[2],
        row[3],
        None if people[0] is None else dict(zip(_PERSON, people, strict=True)),
        None if guest[0] is None else tuple(guest),
        project,
        roles or (),
        dict(zip(thing.held, more[1:], strict=True)) if thing is not None and there else None,
    )
