"""Setting up, using and removing a second factor."""

from __future__ import annotations

import time
from dataclasses import dataclass

import segno

from stairpath.core.people import second_factor
from stairpath.core.people.second_factor import new_recovery_codes, recovery_code
from stairpath.store import people, record
from stairpath.store.person_tables import Person
from stairpath.work.base.errors import NotSignedInError, UnfitError, WrongError
from stairpath.work.base.unit_of_work import UnitOfWork, Who, unit_of_work
from stairpath.work.people import slow_down
from stairpath.work.people.held import held_person
from stairpath.work.people.secrets import fingerprint, matches

CODE_WRONG = "The code does not fit. Type the one that is shown now, or a recovery code."
_TOLD = "sign_in"


@dataclass(frozen=True)
class Begun:
    """What an authenticator takes in: the secret, its address, and that as a picture of dots (SVG)."""

    secret: str
    address: str
    picture: str


def takes(person: Person, code: str) -> bool:
    """Whether a code is good for somebody who has a second factor; used so, it is good no more.

    The person's row is held by the caller.
    """
    step = second_factor.step_of(person.code_secret, code, time.time(), person.code_step)
    if step is not None:
        person.code_step = step
        return True
    hashed = fingerprint(recovery_code(code))
    if hashed in person.recovery:
        person.recovery = [each for each in person.recovery if each != hashed]
        return True
    return False


def _own(act: UnitOfWork, who: Who) -> Person:
    person = people.person_by_id(act.session, who.person_id or "", hold=True)
    if person is None:
        raise NotSignedInError("Sign in first.")
    return person


def check_password(act: UnitOfWork, who: Who, password: str) -> Person:
    """Who asks, where the password is theirs; WrongError where it is not, TooOftenError after too many tries."""
    person = _own(act, who)
    slow_down.count_try(person.key, who.where.address)
    good, _ = matches(password, person.password)
    if not good:
        raise WrongError("This is not your password. Type the one that you sign in with.")
    slow_down.forget(person.key)
    return person


def begin(who: Who, password: str) -> Begun:
    """A new secret for who asks; it counts once a code of it was typed. UnfitError where one is in use."""
    with unit_of_work(who) as act:
        person = check_password(act, who, password)
        if person.code_on:
            raise UnfitError("A second factor is set up already. Remove it first to set up another one.")
        person.code_secret, person.code_step = second_factor.new_secret(), 0
        address = second_factor.address(person.code_secret, person.key)
        return Begun(person.code_secret, address, segno.make(address, error="m").svg_data_uri(scale=4, border=2))


def confirm(who: Who, code: str) -> list[str]:
    """Have codes asked for from now on, where one of them is right; the recovery codes, told this once."""
    with unit_of_work(who) as act:
        person = _own(act, who)
        if person.code_on or not person.code_secret:
            raise UnfitError("No second factor is being set up. Begin anew.")
        slow_down.count_try(person.key, who.where.address)
        step = second_factor.step_of(person.code_secret, code, time.time(), person.code_step)
        if step is None:
            raise WrongError(
                "The code does not fit. Look whether the clock of your device is right, and type the next one."
            )
        slow_down.forget(person.key)
        person.code_on, person.code_step = True, step
        record.note(act.session, record.SERVER, "set up a second factor", _TOLD, person.id, person.key)
        return _recovery(person)


def _recovery(person: Person) -> list[str]:
    codes = new_recovery_codes()
    person.recovery = [fingerprint(recovery_code(each)) for each in codes]
    return codes


def new_codes(who: Who, password: str) -> list[str]:
    """New recovery codes for who asks; those before are good no more."""
    with unit_of_work(who) as act:
        person = check_password(act, who, password)
        if not person.code_on:
            raise UnfitError("No second factor is set up.")
        record.note(act.session, record.SERVER, "made new recovery codes", _TOLD, person.id, person.key)
        return _recovery(person)


def remove(who: Who, password: str) -> None:
    """Ask who asks for no codes any more."""
    with unit_of_work(who) as act:
        _removed(act, check_password(act, who, password))


def remove_of(who: Who, person_id: str) -> None:
    """Ask somebody for no codes any more who has lost their device and the recovery codes; for the owners of the server."""
    with unit_of_work(who) as act:
        person = held_person(act, person_id)
        _removed(act, person)


def _removed(act: UnitOfWork, person: Person) -> None:
    if not person.code_on:
        raise UnfitError("No second factor is set up.")
    person.code_secret, person.code_on, person.code_step, person.recovery = "", False, 0, []
    record.note(act.session, record.SERVER, "removed a second factor", _TOLD, person.id, person.key)
