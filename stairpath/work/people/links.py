"""Links that are good once: for the first owner, and for setting a password."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Literal, cast

from stairpath.core.people import letters
from stairpath.core.people.naming import NotANameError, name_of, sign_in_name
from stairpath.core.people.passwords import NotAPasswordError, check_password
from stairpath.store import members, people, record
from stairpath.store.person_tables import OneTimeLink, Person
from stairpath.work.base.errors import GoneError, MissingError, UnfitError, WrongError
from stairpath.work.base.unit_of_work import WORKER, UnitOfWork, Where, Who, read_only, unit_of_work
from stairpath.work.people import post, second_factor, slow_down
from stairpath.work.people.secrets import fingerprint, new_secret
from stairpath.work.people.sign_ins import Signed, begin, set_password, signed

LinkKind = Literal["first_owner", "password"]
GOOD_FOR = timedelta(days=7)
_USED = "This link was used or has ended. Ask for a new one."


@dataclass(frozen=True)
class Invited:
    """What a link is for, and to whom it was given; the first owner is not known yet."""

    kind: LinkKind
    name: str = ""
    key: str = ""
    asks_code: bool = False
    """Whether a code of their second factor is asked for too."""


def _made(act: UnitOfWork, kind: LinkKind, person_id: str | None) -> str:
    at, secret = datetime.now(UTC), new_secret()
    people.end_links(act.session, kind, person_id, at)
    people.add(
        act.session,
        OneTimeLink(kind=kind, secret_hash=fingerprint(secret), person_id=person_id, ends_at=at + GOOD_FOR),
    )
    return secret


def for_first_owner() -> str | None:
    """A new link for who is to own the server; None where there are people already. An older one ends."""
    with unit_of_work(WORKER) as act:
        return None if people.any_people(act.session) else _made(act, "first_owner", None)


def for_password(name: str, who: Who = WORKER) -> str:
    """A new link for a person to set a password; an older one ends. Raises MissingError for who is not known."""
    with unit_of_work(who) as act:
        person = people.person_by_key(act.session, key_of(name), hold=True)
        if person is None:
            raise MissingError(f"Nobody signs in as {name.strip()}; look at the list of people.")
        record.note(act.session, record.SERVER, "made a link to set a password", "person", person.id, person.name)
        return _made(act, "password", person.id)


def add_person(key: str, name: str, owner: bool = False, who: Who = WORKER) -> str:
    """Add somebody who may sign in; the secret of the link with which they set their password."""
    with unit_of_work(who) as act:
        return _made(act, "password", _added(act, key, name, owner).id)


def invited(act: UnitOfWork, key: str, name: str, owner: bool = False, project: str = "") -> tuple[Person, str | None]:
    """Somebody who may sign in from now on, and was invited by mail.

    Where their name to sign in with is no mail address, also the secret of the link with which they set their password.
    """
    person = _added(act, key, name, owner)
    secret = _made(act, "password", person.id)
    if not post.reaches(person):
        return person, secret
    link = post.welcome(secret)
    post.send(act, letters.invitation(person.key, person.name, act.who.said, link, project))
    return person, None


def invite(who: Who, key: str, name: str, owner: bool) -> tuple[str, str | None]:
    """Invite somebody to the server; their name to sign in with, and a secret as ``invited`` tells it."""
    with unit_of_work(who) as act:
        person, secret = invited(act, key, name, owner)
        return person.key, secret


def ask_for_new_password(name: str, where: Where) -> None:
    """Have a link mailed to somebody who has forgotten their password, if there is such a person.

    Whether there is one is looked up by a job, so that neither the answer nor its time tells.
    """
    try:
        key = sign_in_name(name)
    except NotANameError as error:
        raise WrongError(str(error)) from error
    slow_down.count_asked(key, where.address)
    with unit_of_work(WORKER) as act:
        act.mail_new_password(key)


def mail_new_password(key: str) -> None:
    """Mail a link to set a password to who signs in with a name, if that is a mail address."""
    with unit_of_work(WORKER) as act:
        person = people.person_by_key(act.session, key, hold=True)
        if person is None or not post.reaches(person):
            return
        link = post.welcome(_made(act, "password", person.id))
        post.send(act, letters.new_password(person.key, person.name, link))
        record.note(act.session, record.SERVER, "asked for a new password", "person", person.id, person.name)


def key_of(text: str) -> str:
    """The name that somebody signs in with, as it is kept; WrongError for what can be none."""
    try:
        return sign_in_name(text)
    except NotANameError as error:
        raise WrongError(str(error)) from error


def free_name(act: UnitOfWork, text: str, but: str = "") -> str:
    """A name that others read, which nobody else has: topics and comments say by it whose they are.

    Raises NotANameError for what can be no name, UnfitError for one that somebody else has.
    """
    name = name_of(text)
    if any(key != but and other.casefold() == name.casefold() for key, other in people.names(act.session)):
        raise UnfitError(f"Somebody is called {name} already; add what tells them apart, such as the firm.")
    return name


def _added(act: UnitOfWork, key: str, name: str, owner: bool) -> Person:
    try:
        person = Person(key=sign_in_name(key), name=free_name(act, name), owner=owner)
    except NotANameError as error:
        raise WrongError(str(error)) from error
    if people.person_by_key(act.session, person.key) is not None:
        raise UnfitError(f"Somebody signs in as {person.key} already; choose another name.")
    people.add(act.session, person)
    if owner:
        # Somebody has to let the others in: projects of the time before people signed in are theirs.
        for project_id in members.projects_without_owner(act.session):
            members.put(act.session, project_id, "person", person.id, "own", person.name, person.name)
    return person


def look_at(secret: str) -> Invited:
    """What a link is for; GoneError where it was used or has ended."""
    with read_only() as look:
        found = people.link_by_hash(look.session, fingerprint(secret), datetime.now(UTC))
        if found is None:
            raise GoneError(_USED)
        kind = cast("LinkKind", found.kind)
        person = found.person
        return Invited(kind, person.name, person.key, person.code_on) if person else Invited(kind)


def use(secret: str, password: str, where: Where, key: str = "", name: str = "", code: str = "") -> tuple[str, Signed]:
    """Set a password by a link and be signed in; the first owner says by which name too.

    Raises GoneError for a link that is good no more, WrongError for a name or password that cannot be; the link stays good
    then.
    """
    with unit_of_work(WORKER) as act:
        link = people.link_by_hash(act.session, fingerprint(secret), datetime.now(UTC), hold=True)
        if link is None or (link.person is None and people.any_people(act.session)):
            raise GoneError(_USED)
        person = link.person or _added(act, key, name, owner=True)
        try:
            check_password(password, person.key, person.name)
        except NotAPasswordError as error:
            raise WrongError(str(error)) from error
        if person.code_on:
            slow_down.count_try(person.key, where.address)
            if not second_factor.takes(person, code):
                raise WrongError(second_factor.CODE_WRONG)
        record.begin(act.session, Who(person.name, person_id=person.id, where=where).doer)
        set_password(act, person, password)
        link.used_at = datetime.now(UTC)
        record.note(act.session, record.SERVER, "set a password and signed in", "sign_in", person.id, person.key)
        return begin(act, person, where), signed(person)
