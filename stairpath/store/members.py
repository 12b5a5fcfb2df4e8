"""The rows of who is in which project, and of guest links."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import and_, delete, exists, or_, select, tuple_
from sqlalchemy.orm import Session

from stairpath.store.person_tables import GuestLink, Member, Person
from stairpath.store.tables import Project


def firm_key(firm: str) -> str:
    """A firm's name as it is compared."""
    return " ".join(firm.split()).casefold()


_IN = or_(
    and_(Member.kind == "person", Member.subject == Person.id),
    and_(Member.kind == "firm", Member.subject == Person.firm_key, Person.firm_key != ""),
    and_(Member.kind == "discipline", Member.subject == Person.discipline, Person.discipline != ""),
)
"""Whether an entry is about a person: by themselves, by their firm, or by their discipline."""


def roles(session: Session, pairs: Collection[tuple[str, str]]) -> dict[tuple[str, str], list[str]]:
    """The roles of persons in projects, for pairs of a person's id and a project's; none for who is not in it."""
    found: dict[tuple[str, str], list[str]] = {}
    if not pairs:
        return found
    wanted = select(Person.id, Member.project_id, Member.role).join(Member, _IN)
    for person_id, project_id, role in session.execute(
        wanted.where(tuple_(Person.id, Member.project_id).in_(list(pairs)))
    ):
        found.setdefault((person_id, project_id), []).append(role)
    return found


def projects_of(session: Session, person_id: str) -> dict[str, list[str]]:
    """The projects that a person is in, by their ids, each with the roles there."""
    found: dict[str, list[str]] = {}
    wanted = select(Member.project_id, Member.role).join(Person, _IN).where(Person.id == person_id)
    for project_id, role in session.execute(wanted):
        found.setdefault(project_id, []).append(role)
    return found


def members(session: Session, project_id: str) -> Sequence[Member]:
    """Who is in a project, in the order in which they came."""
    return session.scalars(
        select(Member).where(Member.project_id == project_id).order_by(Member.added_at, Member.id)
    ).all()


def member(session: Session, project_id: str, member_id: str) -> Member | None:
    """One entry of a project."""
    return session.scalar(select(Member).where(Member.project_id == project_id, Member.id == member_id))


def member_named(session: Session, project_id: str, kind: str, subject: str) -> Member | None:
    """The entry of a person, a firm or a discipline in a project."""
    return session.scalar(
        select(Member).where(Member.project_id == project_id, Member.kind == kind, Member.subject == subject)
    )


def owned_by_some_person(session: Session, project_id: str) -> bool:
    """Whether somebody who can sign in owns a project by themselves: a group may lose its last person unseen."""
    owns = exists().where(
        Member.project_id == project_id, Member.kind == "person", Member.role == "own", Member.subject == Person.id
    )
    return bool(session.scalar(select(owns)))


def projects_without_owner(session: Session) -> Sequence[str]:
    """The projects that no person owns."""
    owned = select(Member.project_id).where(Member.kind == "person", Member.role == "own")
    return session.scalars(select(Project.id).where(Project.id.not_in(owned))).all()


def put(session: Session, project_id: str, kind: str, subject: str, role: str, by: str, label: str = "") -> Member:
    """Have somebody in a project with a role."""
    row = Member(project_id=project_id, kind=kind, subject=subject, role=role, added_by=by, label=label)
    session.add(row)
    session.flush()
    return row


def remove(session: Session, member_id: str) -> None:
    """Delete an entry."""
    session.execute(delete(Member).where(Member.id == member_id))


def add_guest_link(session: Session, row: GuestLink) -> None:
    """Keep a guest link, and have its id."""
    session.add(row)
    session.flush()


def end_guest_link(session: Session, row: GuestLink) -> None:
    """Delete a guest link, and with it where guests look by it."""
    session.delete(row)


def guest_links(session: Session, project_id: str, now: datetime) -> Sequence[GuestLink]:
    """The guest links of a project that have not ended, the newest first."""
    wanted = select(GuestLink).where(GuestLink.project_id == project_id, GuestLink.ends_at > now)
    return session.scalars(wanted.order_by(GuestLink.made_at.desc())).all()


def guest_link(session: Session, project_id: str, link_id: str) -> GuestLink | None:
    """One guest link of a project."""
    return session.scalar(select(GuestLink).where(GuestLink.project_id == project_id, GuestLink.id == link_id))


def guest_link_by_hash(session: Session, secret_hash: str, now: datetime) -> GuestLink | None:
    """A guest link that has not ended."""
    return session.scalar(select(GuestLink).where(GuestLink.secret_hash == secret_hash, GuestLink.ends_at > now))


@dataclass(frozen=True)
class Belongs:
    """To which project a thing belongs, and what else was asked of its row."""

    project_id: str
    held: dict[str, Any]


def belongs(
    session: Session, table: Any, by: dict[str, str], held: Sequence[str], part_of: tuple[Any, str] | None = None
) -> Belongs | None:
    """To which project a thing belongs, by columns of its row or of the project, with some other columns of it.

    ``part_of`` is as in ``rows.removed``. Nothing else of the row is read.
    """
    whole, key = part_of or (table, "id")
    wanted = select(whole.project_id, *(getattr(table, name) for name in held)).select_from(table)
    if part_of is not None:
        wanted = wanted.join(whole, getattr(table, key) == whole.id)
    for name, value in by.items():
        wanted = wanted.where(getattr(whole if name == "project_id" else table, name) == value)
    found = session.execute(wanted).first()
    return None if found is None else Belongs(found[0], dict(zip(held, found[1:], strict=True)))
