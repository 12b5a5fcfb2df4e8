"""What is kept of a person, for them to take along; and removing somebody, so that what they did stays without their name."""

from __future__ import annotations

from dataclasses import asdict, dataclass, replace
from datetime import datetime
from typing import Any

from stairpath.core.people.renaming import FORMER
from stairpath.store import mail, members, names, people, record
from stairpath.store.person_tables import Person
from stairpath.work.base.errors import NotSignedInError, UnfitError
from stairpath.work.base.unit_of_work import UnitOfWork, Who, read_only, unit_of_work
from stairpath.work.people.held import held_person
from stairpath.work.people.names import in_all_projects
from stairpath.work.people.second_factor import check_password
from stairpath.work.people.sign_ins import ASK_FIRST


@dataclass(frozen=True)
class SignedInAt:
    """A browser or program that is signed in."""

    token: str
    made_at: datetime
    used_at: datetime
    ends_at: datetime
    address: str
    browser: str


@dataclass(frozen=True)
class InProject:
    """A project that somebody is in by themselves."""

    project: str
    role: str
    added_by: str
    added_at: datetime


def kept(who: Who) -> dict[str, Any]:
    """All that is kept of who asks, without secrets: themselves, sign-ins, projects, what they made, and the record of it."""
    with read_only() as act:
        person = people.person_by_id(act.session, who.person_id or "")
        if person is None:
            raise NotSignedInError(ASK_FIRST)
        return {
            "person": {
                "id": person.id, "name": person.name, "signs_in_as": person.key, "firm": person.firm,
                "discipline": person.discipline, "initials": person.initials, "colour": person.colour,
                "units": person.units, "language": person.language, "owns_the_server": person.owner, "makes_projects": person.makes_projects,
                "since": person.created_at, "second_factor": person.code_on,
            },
            "sign_ins": [
                asdict(SignedInAt(s.token, s.made_at, s.used_at, s.ends_at, s.address, s.browser))
                for s in people.sign_ins_of(act.session, person.id)
            ],
            "projects": [
                asdict(InProject(name, row.role, row.added_by, row.added_at))
                for row, name in members.entries_of(act.session, person.id)
            ],
            "things_that_name_you": names.made_by(act.session, person.name),
            "record": [
                {
                    "chain": row.chain, "at": row.at, "action": row.action, "kind": row.kind, "thing_id": row.thing_id,
                    "title": row.title, "address": row.address, "browser": row.browser, "token": row.token,
                }
                for row in record.of_person(act.session, person.id)
            ],
        }  # fmt: skip


def remove(who: Who, person_id: str) -> None:
    """Remove somebody: they sign in no more, and whatever names them names a former member.

    Raises UnfitError where nobody else owns the server or one of their projects.
    """
    # Who removes themselves is no more called by their name in what is written of it.
    with unit_of_work(replace(who, name=FORMER) if who.person_id == person_id else who) as act:
        owners = people.owners(act.session)
        person = held_person(act, person_id)
        if person.owner and not any(each.owner and each.password and each is not person for each in owners):
            raise UnfitError("Somebody has to own the server. Make somebody else an owner first.")
        _check_projects(act, person)
        name, key = person.name, person.key
        # Without the row's own way into the record: that would write the name down again.
        act.session.expunge(person)
        people.remove(act.session, person_id)
        members.forget_person(act.session, person_id)
        mail.forget(act.session, key, name)
        in_all_projects(act, name, FORMER)
        record.forget_person(act.session, person_id, name, key, FORMER)
        if who.person_id != person_id:
            record.note(act.session, record.SERVER, "removed", "person", person_id, FORMER)


def _check_projects(act: UnitOfWork, person: Person) -> None:
    alone = members.owned_alone(act.session, person.id)
    if alone:
        one = "project" if len(alone) == 1 else "projects"
        raise UnfitError(f"Nobody else owns the {one} {', '.join(alone)}. Make somebody else an owner first.")


def remove_oneself(who: Who, password: str) -> None:
    """Be removed, with one's password."""
    with unit_of_work(who) as act:
        person_id = check_password(act, who, password).id
    remove(who, person_id)
