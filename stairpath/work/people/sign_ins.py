"""Signing in and out, and who it is that a browser belongs to."""

from __future__ import annotations

import math
import time
from collections.abc import Collection
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta

from stairpath.core.people import letters
from stairpath.core.people.naming import NotANameError, sign_in_name
from stairpath.core.people.passwords import MOST
from stairpath.core.people.roles import ROLES, Role, highest
from stairpath.store import access, people, record
from stairpath.store.access import Asked, ThingRow
from stairpath.store.person_tables import GuestLink, Person, SignIn
from stairpath.work.base.errors import NotSignedInError
from stairpath.work.base.unit_of_work import WORKER, UnitOfWork, Where, Who, read_only, unit_of_work
from stairpath.work.people import post, second_factor, slow_down
from stairpath.work.people.secrets import fingerprint, hashed, matches, new_secret

LASTS = timedelta(days=30)
UNUSED = timedelta(days=7)
"""A sign-in ends so long after it was made, and so long after it was used last (ASVS 3.3.2)."""
_NOTED_EVERY = timedelta(minutes=1)
_LONGEST_BROWSER = 200
WRONG = "Name and password do not fit. Check both and try again."
ASK_FIRST = "Sign in first."


@dataclass(frozen=True)
class Signed:
    """A person who is signed in; or a guest, who looks at one project by a link and is called as that is."""

    id: str
    name: str
    key: str
    firm: str
    discipline: str
    owner: bool
    makes_projects: bool = False
    guest_of: str | None = None
    """For a guest: the project that the link is for."""
    scope: Role | None = None
    """For a program with a token: the highest role that it may use."""
    initials: str = ""
    colour: str = ""
    units: str = ""
    language: str = ""


class _Anybody:
    """Whether there are people. Once there are it stays so; that there are none is asked again after a moment."""

    AGAIN_S = 1.0

    def __init__(self) -> None:
        self.some, self.asked_at = False, -math.inf

    def look(self) -> bool:
        """Ask, where that is not known."""
        if not self.some and time.monotonic() - self.asked_at > self.AGAIN_S:
            with read_only() as look:
                self.some = people.any_people(look.session)
            self.asked_at = time.monotonic()
        return self.some


ANYBODY = _Anybody()


def anybody() -> bool:
    """Whether there are people, so that everybody has to sign in."""
    return ANYBODY.look()


def signed(person: Person) -> Signed:
    """A person as others see them."""
    return Signed(
        person.id, person.name, person.key, person.firm, person.discipline, person.owner, person.makes_projects,
        initials=person.initials, colour=person.colour, units=person.units, language=person.language,
    )  # fmt: skip


def sign_in(name: str, password: str, where: Where, code: str = "") -> tuple[str, Signed] | None:
    """Sign somebody in: the secret that their browser keeps, and who it is; None where a code is asked for too.

    Raises NotSignedInError with the same sentence for a wrong name and a wrong password, TooOftenError after too many tries.
    """
    try:
        key = sign_in_name(name)
    except NotANameError as error:
        raise NotSignedInError(WRONG) from error
    slow_down.count_try(key, where.address)
    with read_only() as look:
        found = people.person_by_key(look.session, key)
        kept = found.password if found is not None else None
    # What is too long for a password is not worth its time.
    good, anew = matches(password[: MOST + 1], kept)
    if not good or found is None:
        # What was typed is not written down where it is nobody's name: it may have been a password.
        named = (found.name, found.id, found.key) if found else ("Somebody", "", "an unknown name")
        _note_refused(*named, where)
        raise NotSignedInError(WRONG)
    with unit_of_work(Who(found.name, person_id=found.id, where=where)) as act:
        person = people.person_by_key(act.session, key, hold=True)
        if person is None or person.password != kept:
            raise NotSignedInError(WRONG)  # it was changed meanwhile
        if person.code_on and not code.strip():
            return None
        if not person.code_on or second_factor.takes(person, code):
            return _signed_in(act, person, where, anew)
    _note_refused(found.name, found.id, key, where)
    raise NotSignedInError(second_factor.CODE_WRONG)


def _note_refused(name: str, person_id: str, title: str, where: Where) -> None:
    with unit_of_work(Who(name, where=where)) as act:
        record.note(act.session, record.SERVER, "was refused", "sign_in", person_id, title)


def _signed_in(act: UnitOfWork, person: Person, where: Where, anew: str | None) -> tuple[str, Signed]:
    if anew is not None:
        person.password = anew
    secret = begin(act, person, where)
    slow_down.forget(person.key)
    record.note(act.session, record.SERVER, "signed in", "sign_in", person.id, person.key)
    return secret, signed(person)


def begin(act: UnitOfWork, person: Person, where: Where) -> str:
    """Begin a sign-in of a person who is known; the secret that their browser keeps. Where now on everybody signs in."""
    ANYBODY.some = True
    return _begun(act, where, datetime.now(UTC) + LASTS, person_id=person.id)


def begin_guest(act: UnitOfWork, link: GuestLink, where: Where) -> str:
    """Begin to look by a guest link, until that ends; the secret that the browser keeps."""
    return _begun(act, where, min(link.ends_at, datetime.now(UTC) + LASTS), guest_id=link.id)


def _begun(
    act: UnitOfWork, where: Where, ends_at: datetime, person_id: str | None = None, guest_id: str | None = None
) -> str:
    at, secret = datetime.now(UTC), new_secret()
    people.drop_ended(act.session, at, at - UNUSED)
    people.add(
        act.session,
        SignIn(
            person_id=person_id, guest_id=guest_id, secret_hash=fingerprint(secret), ends_at=ends_at,
            address=where.address, browser=where.browser[:_LONGEST_BROWSER],
        ),
    )  # fmt: skip
    return secret


def _of(found: SignIn) -> Signed | None:
    if found.guest is not None:
        return _guest(found.guest.id, found.guest.name, found.guest.project_id)
    return None if found.person is None else replace(signed(found.person), scope=scope_of(found.scope))


def _guest(link_id: str, name: str, project_id: str) -> Signed:
    return Signed(link_id, name, "", "", "", owner=False, guest_of=project_id)


def asked(secret: str, project_id: str | None, thing: ThingRow | None, value: str) -> Asked | None:
    """Who is signed in with a secret, and what they are in the project of a thing; None where nobody is, or no more."""
    at = datetime.now(UTC)
    found = access.asked(fingerprint(secret), at, at - UNUSED, project_id, thing, value)
    if found is not None and at - found.used_at > _NOTED_EVERY:
        with unit_of_work(WORKER) as act:
            people.note_use(act.session, found.sign_in_id, at)
    return found


def signed_as(found: Asked) -> Signed | None:
    """Who it is that was found."""
    if found.guest is not None:
        return _guest(*found.guest)
    return None if found.person is None else replace(Signed(**found.person), scope=scope_of(found.scope))


def scope_of(kept: str | None) -> Role | None:
    """A token's scope as it is kept; the least for one that is not known."""
    return None if kept is None else highest((kept,)) or ROLES[0]


def that_hold(look: UnitOfWork, secrets: Collection[str]) -> dict[str, Signed]:
    """Who is signed in with which of some secrets; those are left out whose sign-in has ended."""
    at = datetime.now(UTC)
    by_hash = {fingerprint(secret): secret for secret in secrets}
    found = people.sign_ins_by_hash(look.session, list(by_hash), at, at - UNUSED) if by_hash else ()
    return {by_hash[each.secret_hash]: who for each in found if (who := _of(each)) is not None}


def sign_out(secret: str, who: Who = WORKER) -> None:
    """End a sign-in."""
    with unit_of_work(who) as act:
        people.end_sign_in(act.session, fingerprint(secret))
        if who.person_id is not None:
            record.note(act.session, record.SERVER, "signed out", "sign_in", who.person_id, who.name)


def sign_out_everywhere(who: Who, secret: str) -> None:
    """End all sign-ins of a person; a guest has that of this browser alone."""
    if who.person_id is None:
        sign_out(secret, who)
        return
    with unit_of_work(who) as act:
        people.end_sign_ins(act.session, who.person_id, tokens=False)
        record.note(act.session, record.SERVER, "signed out everywhere", "sign_in", who.person_id, who.name)


def set_password(act: UnitOfWork, person: Person, password: str) -> None:
    """Give a person a password; wherever they were signed in, they are not any more, and their tokens end (ASVS 3.3.3)."""
    if person.password is not None and post.reaches(person):
        # Who did not do this themselves is to notice (ASVS 2.2.3).
        post.send(act, letters.told(person.key, person.name, "Your password was changed", post.address("/")))
    person.password = hashed(password)
    people.end_sign_ins(act.session, person.id, tokens=True)
