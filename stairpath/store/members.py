"""The rows of who is in which project, and of guest links."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from datetime import datetime

from sqlalchemy import delete, exists, select, tuple_
from sqlalchemy.orm import Session

from stairpath.store.access import member_is
from stairpath.store.person_tables import GuestLink, Member, Person
from stairpath.store.tables import Project


def firm_key(firm: str) -> str:
    """A firm's name as it is compared."""
    return " ".join(firm.split()).casefold()


_IN = member_is(Person.__table__.c)


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


def owners_by_project(session: Session) -> dict[str, list[str]]:
    """The names of the persons who own each project, by its id."""
    found: dict[str, list[str]] = {}
    wanted = select(Member.project_id, Person.name).join(Person, Person.id == Member.subject)
    for project_id, name in session.execute(
        wanted.where(Member.kind == "person", Member.role == "own").order_by(Person.name)
    ):
        found.setdefault(project_id, []).append(name)
    return found


def put(session: Session, project_id: str, kind: str, subject: str, role: str, by: str, label: str = "") -> Member:
    """Have somebody in a project with a role."""
    row = Member(project_id=project_id, kind=kind, subject=subject, role=role, added_by=by, label=label)
    session.add(row)
    session.flush()
    return row


def remove(session: Session, row: Member) -> None:
    """Delete an entry."""
    session.delete(row)


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


def persons_in(session: Session, project_id: str) -> Sequence[Person]:
    """The persons who are in a project, by themselves, their firm or their discipline, by name."""
    wanted = select(Person).join(Member, _IN).where(Member.project_id == project_id).distinct().order_by(Person.name)
    return session.scalars(wanted).all()


def entries_of(session: Session, person_id: str) -> Sequence[tuple[Member, str]]:
    """The entries of a person by themselves, each with the name of the project."""
    wanted = select(Member, Project.name).join(Project, Project.id == Member.project_id)
    found = session.execute(wanted.where(Member.kind == "person", Member.subject == person_id).order_by(Project.name))
    return found.tuples().all()


def owned_alone(session: Session, person_id: str) -> Sequence[str]:
    """The names of the projects that a person owns and no other person does."""
    owns = select(Member.project_id).where(Member.kind == "person", Member.role == "own")
    alone = select(Project.name).where(
        Project.id.in_(owns.where(Member.subject == person_id)),
        Project.id.not_in(owns.where(Member.subject != person_id)),
    )
    return session.scalars(alone.order_by(Project.name)).all()


def forget_person(session: Session, person_id: str) -> None:
    """Take a person out of all projects."""
    session.execute(delete(Member).where(Member.kind == "person", Member.subject == person_id))
