"""Everybody who may sign in, for those who own the server."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from stairpath.core.federation.disciplines import CODES
from stairpath.core.people.naming import NotANameError
from stairpath.store import members, names, people
from stairpath.work.base.errors import UnfitError, WrongError
from stairpath.work.base.unit_of_work import Who, read_only, unit_of_work
from stairpath.work.people import links
from stairpath.work.people.held import held_person
from stairpath.work.people.names import in_all_projects
from stairpath.work.people.sign_ins import Signed, signed


@dataclass(frozen=True)
class PersonWish:
    """What is said of somebody, and what they may on this server."""

    name: str
    firm: str
    discipline: str
    owner: bool
    makes_projects: bool


@dataclass(frozen=True)
class Listed:
    """A person, whether they have set a password, and when they were seen last."""

    person: Signed
    begun: bool
    second_factor: bool
    seen_at: datetime | None


def listed() -> list[Listed]:
    """Everybody who may sign in, by the name that they sign in with."""
    with read_only() as look:
        seen = people.last_seen(look.session)
        return [
            Listed(signed(each), each.password is not None, each.code_on, seen.get(each.id))
            for each in people.people(look.session)
        ]


def change(who: Who, person_id: str, wish: PersonWish) -> Listed:
    """Change what is said of somebody and what they may on this server; somebody runs it at any time."""
    with unit_of_work(who) as act:
        owners = people.owners(act.session)
        person = held_person(act, person_id)
        if wish.discipline and wish.discipline not in CODES:
            raise WrongError(f"There is no discipline {wish.discipline}. Choose one of {', '.join(CODES)}.")
        try:
            before, person.name = person.name, links.free_name(act, wish.name, but=person.id)
        except NotANameError as error:
            raise WrongError(str(error)) from error
        if person.name != before:
            in_all_projects(act, before, person.name)
            # Files that were sent out before come back with the name of then.
            for project_id in members.projects_of(act.session, person.id):
                names.remember(act.session, project_id, before, person.id, who.said)
        person.firm = " ".join(wish.firm.split())
        person.firm_key, person.discipline = members.firm_key(person.firm), wish.discipline
        person.owner, person.makes_projects = wish.owner, wish.makes_projects
        if not any(each.owner and each.password for each in {person, *owners}):
            raise UnfitError("Somebody has to own the server. Make somebody else an owner first.")
        return Listed(signed(person), person.password is not None, person.code_on, None)
