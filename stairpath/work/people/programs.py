"""Programs that may ask people to let them act for them, and what people let them do."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, datetime
from urllib.parse import urlsplit

from authlib.oauth2 import OAuth2Error

from stairpath.core.people.naming import NotANameError, name_of
from stairpath.store import programs, record
from stairpath.store.programs import Program
from stairpath.work.base.errors import MissingError, NotSignedInError, WrongError
from stairpath.work.base.unit_of_work import Who, read_only, unit_of_work
from stairpath.work.people import oauth
from stairpath.work.people.sign_ins import ASK_FIRST


@dataclass(frozen=True)
class Asked:
    """What a program asks somebody for."""

    name: str
    scope: str


@dataclass(frozen=True)
class Granted:
    """What somebody lets a program do."""

    id: str
    name: str
    scope: str
    made_at: datetime
    ends_at: datetime


def listed() -> list[Program]:
    """All programs that may ask, by name."""
    with read_only() as look:
        return list(programs.programs(look.session))


def add(who: Who, name: str, address: str) -> Program:
    """Let a program ask people. Its address takes their answers: https, or http on loopback."""
    try:
        called = name_of(name)
    except NotANameError as error:
        raise WrongError(f"A program needs a name. {error}") from error
    to = urlsplit(address.strip())
    loopback = to.hostname in ("127.0.0.1", "::1")
    if (
        not to.hostname
        or to.fragment
        or to.username
        or not (to.scheme == "https" or (to.scheme == "http" and loopback))
    ):
        raise WrongError("The address for answers begins with https://, or with http://127.0.0.1 for a program on the person's machine.")  # fmt: skip
    with unit_of_work(who) as act:
        row = Program(name=called, address=address.strip(), made_by=who.said)
        act.session.add(row)
        act.session.flush()
        record.note(act.session, record.SERVER, "added a program", "sign_in", row.id, called)
        return row


def remove(who: Who, program_id: str) -> None:
    """Let a program ask nobody any more; what it was let do ends."""
    with unit_of_work(who) as act:
        called = programs.end_program(act.session, program_id)
        if called is None:
            raise MissingError("There is no such program any more. Look at the list again.")
        record.note(act.session, record.SERVER, "removed a program", "sign_in", program_id, called)


def asked(who: Who, wish: Mapping[str, str]) -> Asked:
    """What a program asks somebody for; WrongError where it asks as it may not."""
    try:
        program, scope = oauth.asked(who, wish)
    except OAuth2Error as error:
        raise WrongError(_sentence(error)) from error
    return Asked(program.name, scope)


def answer(who: Who, wish: Mapping[str, str], allowed: bool) -> str:
    """Let a program act for somebody, or not; the address where their browser goes now."""
    try:
        return oauth.answered(who, wish, allowed)
    except OAuth2Error as error:
        raise WrongError(_sentence(error)) from error


def _sentence(error: OAuth2Error) -> str:
    why = (error.description or error.error or "").rstrip(".")
    return f"The program does not ask as it should ({why}). Go back to it and try again, or tell who runs it."


def granted(who: Who) -> list[Granted]:
    """What somebody lets programs do, the newest first."""
    if who.person_id is None:
        raise NotSignedInError(ASK_FIRST)
    with read_only() as look:
        return [
            Granted(row.id, row.program.name, row.scope, row.made_at, row.ends_at)
            for row in programs.grants_of(look.session, who.person_id, datetime.now(UTC))
        ]


def end(who: Who, grant_id: str) -> None:
    """End what a program may for somebody; what it opened closes within two seconds."""
    with unit_of_work(who) as act:
        program_id = programs.end_grant(act.session, grant_id, who.person_id or "")
        if program_id is None:
            raise MissingError("This program may nothing for you any more. Look at the list again.")
        found = programs.program(act.session, program_id)
        called = found.name if found else ""
        record.note(act.session, record.SERVER, "ended what a program may", "sign_in", grant_id, called)
