"""Who is in a project: adding, changing, removing, leaving, handing over. Somebody owns it at any time."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime
from typing import Literal, cast

from stairpath.core.federation.disciplines import CODES
from stairpath.core.people import letters
from stairpath.core.people.roles import LEAST, Action, Role, Tie, may
from stairpath.store import members, people
from stairpath.store.person_tables import Member
from stairpath.store.tables import Project
from stairpath.work.base.errors import MissingError, UnfitError, WrongError
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import UnitOfWork, Who, read_only, unit_of_work
from stairpath.work.people import links, post

MemberKind = Literal["person", "firm", "discipline"]


@dataclass(frozen=True)
class Entry:
    """A person, a firm or a discipline in a project. ``name`` is what people call it; a person has a key too."""

    id: str
    kind: MemberKind
    name: str
    role: Role
    added_by: str
    added_at: datetime
    key: str = ""
    firm: str = ""
    discipline: str = ""
    begun: bool = True
    """Of a person: whether they have set a password yet."""
    you: bool = False


def may_all(role: Role, *ties: Tie) -> list[Action]:
    """All that somebody with a role may do in a project, to a thing that they have some ties to."""
    return [action for action in LEAST if may(role, action, ties)]


def _entry(act: UnitOfWork, who: Who, row: Member) -> Entry:
    kind, role = cast("MemberKind", row.kind), cast("Role", row.role)
    if kind != "person":
        return Entry(row.id, kind, row.label, role, row.added_by, row.added_at)
    person = people.person_by_id(act.session, row.subject)
    if person is None:
        return Entry(row.id, kind, "Former member", role, row.added_by, row.added_at)
    return Entry(
        row.id, kind, person.name, role, row.added_by, row.added_at, person.key, person.firm, person.discipline,
        person.password is not None, person.id == who.person_id,
    )  # fmt: skip


def listed(who: Who, project_id: str) -> list[Entry]:
    """Who is in a project, in the order in which they came."""
    with read_only() as look:
        in_use(look, project_id)
        return [_entry(look, who, row) for row in members.members(look.session, project_id)]


@contextmanager
def _changing(who: Who, project_id: str) -> Iterator[tuple[UnitOfWork, Project]]:
    """Change who is in a project; refused where nobody would own it after that."""
    if who.person_id is None:
        raise UnfitError("Nobody signs in on this server yet. Who runs it adds the first person.")
    with unit_of_work(who) as act:
        # Held, so that of two owners who remove each other one stays.
        project = in_use(act, project_id, hold=True)
        yield act, project
        act.session.flush()
        if not members.owned_by_some_person(act.session, project_id):
            raise UnfitError("A project needs a person who owns it. Make somebody else its owner first.")
        act.tell(project_id, "members")


def _found(act: UnitOfWork, project_id: str, member_id: str) -> Member:
    row = members.member(act.session, project_id, member_id)
    if row is None:
        raise MissingError("That one is not in this project any more. Look at the list again.")
    return row


def add(
    who: Who, project_id: str, kind: MemberKind, named: str, role: Role, name: str = ""
) -> tuple[Entry, str | None]:
    """Have a person, all of a firm or all of a discipline in a project.

    A person is named by what they sign in with; for one who is not known yet there is a link with which they begin,
    which is told this once.
    """
    with _changing(who, project_id) as (act, project):
        secret, label, subject = None, "", " ".join(named.split())
        if kind == "person":
            person = people.person_by_key(act.session, links.key_of(named))
            if person is None:
                if not name.strip():
                    raise MissingError(f"Nobody signs in as {subject} yet. Give their name too, to invite them.")
                person, secret = links.invited(act, named, name, project=project.name)
            elif post.reaches(person) and person.id != who.person_id:
                link = post.address(f"/p/{project.id}")
                post.send(act, letters.let_into_project(person.key, person.name, who.said, project.name, link))
            subject, label = person.id, person.name
        elif kind == "discipline":
            if subject not in CODES:
                raise WrongError(f"There is no discipline {subject}. Choose one of {', '.join(CODES)}.")
            label = subject
        else:
            if not subject:
                raise WrongError("A firm needs a name. Type it as it stands in the list of people.")
            label, subject = subject, members.firm_key(subject)
        if members.member_named(act.session, project.id, kind, subject) is not None:
            raise UnfitError(f"{label or named.strip()} is in this project already. Change the role there.")
        row = members.put(act.session, project.id, kind, subject, role, who.said, label)
        return _entry(act, who, row), secret


def change(who: Who, project_id: str, member_id: str, role: Role) -> Entry:
    """Give somebody in a project another role."""
    with _changing(who, project_id) as (act, _):
        row = _found(act, project_id, member_id)
        row.role = role
        return _entry(act, who, row)


def remove(who: Who, project_id: str, member_id: str) -> None:
    """Take somebody out of a project."""
    with _changing(who, project_id) as (act, _):
        members.remove(act.session, _found(act, project_id, member_id))


def leave(who: Who, project_id: str) -> None:
    """Leave a project oneself."""
    with _changing(who, project_id) as (act, _):
        row = members.member_named(act.session, project_id, "person", who.person_id or "")
        if row is None:
            raise UnfitError(
                "You are in this project by your firm or discipline. Ask one of its owners to change that."
            )
        members.remove(act.session, row)


def hand_over(who: Who, project_id: str, member_id: str) -> Entry:
    """Make somebody else the owner of a project, and coordinate in it from now on."""
    with _changing(who, project_id) as (act, _):
        row = _found(act, project_id, member_id)
        own = members.member_named(act.session, project_id, "person", who.person_id or "")
        if row.kind != "person" or row is own:
            raise UnfitError("A project is handed over to another person. Choose one of the list.")
        row.role = "own"
        if own is not None:
            own.role = "coordinate"
        return _entry(act, who, row)
