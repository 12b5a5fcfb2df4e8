"""What somebody sets of themselves: their initials and colour, the unit that they measure in, and their password."""

from __future__ import annotations

import re
from dataclasses import dataclass

from stairpath.core.people.passwords import NotAPasswordError, check_password
from stairpath.core.texts import plain
from stairpath.store import people, record
from stairpath.store.person_tables import Person
from stairpath.work.base.errors import NotSignedInError, WrongError
from stairpath.work.base.unit_of_work import UnitOfWork, Who, read_only, unit_of_work
from stairpath.work.people import second_factor
from stairpath.work.people.sign_ins import ASK_FIRST, Signed, begin, set_password, signed

MOST_INITIALS = 3
UNITS = ("", "m", "mm", "ft", "ft_decimal")
_LANGUAGE = re.compile("[a-z]{2,3}-[A-Z]{2}")
_COLOUR = re.compile("#[0-9a-f]{6}")


@dataclass(frozen=True)
class Account:
    """Somebody as they see themselves; ``recovery_left`` are recovery codes that were not used."""

    name: str
    key: str
    firm: str
    discipline: str
    initials: str
    colour: str
    units: str
    language: str
    has_password: bool
    """Not so for the people of the demo."""
    second_factor: bool
    recovery_left: int


@dataclass(frozen=True)
class AccountWish:
    """What somebody sets of themselves; empty for what goes by the name or the browser."""

    initials: str
    colour: str
    units: str
    language: str = ""


def _of(person: Person) -> Account:
    return Account(
        person.name, person.key, person.firm, person.discipline, person.initials, person.colour, person.units, person.language,
        person.password is not None, person.code_on, len(person.recovery),
    )  # fmt: skip


def _own(act: UnitOfWork, who: Who, hold: bool = False) -> Person:
    person = people.person_by_id(act.session, who.person_id or "", hold)
    if person is None:
        raise NotSignedInError(ASK_FIRST)
    return person


def look(who: Who) -> Account:
    """Who asks, as they see themselves."""
    with read_only() as act:
        return _of(_own(act, who))


def change(who: Who, wish: AccountWish) -> Account:
    """Set one's own initials, colour and unit."""
    initials = "".join(plain(wish.initials).split())
    if len(initials) > MOST_INITIALS:
        raise WrongError(f"Initials have at most {MOST_INITIALS} letters; shorten them.")
    if wish.colour and not _COLOUR.fullmatch(wish.colour):
        raise WrongError("A colour is written as # and six digits, such as #8fb8b5.")
    if wish.units not in UNITS:
        raise WrongError(f"Choose one of {', '.join(UNITS[1:])}, or none.")
    if wish.language and not _LANGUAGE.fullmatch(wish.language):
        raise WrongError("A language is written as de-DE: language and country.")
    with unit_of_work(who) as act:
        person = _own(act, who, hold=True)
        person.language = wish.language
        person.initials, person.colour, person.units = initials, wish.colour, wish.units
        return _of(person)


def change_password(who: Who, old: str, new: str) -> tuple[str, Signed]:
    """Set another password; everywhere else one is signed out. The secret that this browser keeps from now on."""
    with unit_of_work(who) as act:
        person = second_factor.check_password(act, who, old)
        try:
            check_password(new, person.key, person.name)
        except NotAPasswordError as error:
            raise WrongError(str(error)) from error
        set_password(act, person, new)
        record.note(act.session, record.SERVER, "changed their password", "sign_in", person.id, person.key)
        return begin(act, person, who.where), signed(person)
