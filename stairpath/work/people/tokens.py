"""Tokens: with one another program does what a person may, as far as the token lets it, until a day."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Literal

from stairpath.core.people.naming import NotANameError, name_of
from stairpath.store import people, record
from stairpath.store.person_tables import SignIn
from stairpath.work.base.errors import MissingError, NotSignedInError, WrongError
from stairpath.work.base.unit_of_work import Who, read_only, unit_of_work
from stairpath.work.people.secrets import fingerprint, new_secret
from stairpath.work.people.sign_ins import ASK_FIRST

Scope = Literal["look", "comment", "coordinate"]
LONGEST_DAYS = 366


@dataclass(frozen=True)
class Token:
    """A token as its owner sees it: what it is called, how far it goes, until when, and when it was used last."""

    id: str
    name: str
    scope: str
    made_at: datetime
    ends_at: datetime
    used_at: datetime | None


def _shown(row: SignIn) -> Token:
    return Token(
        row.id, row.token, row.scope or "look", row.made_at, row.ends_at,
        row.used_at if row.used_at > row.made_at else None,
    )  # fmt: skip


def _person(who: Who) -> str:
    if who.person_id is None:
        raise NotSignedInError(ASK_FIRST)
    return who.person_id


def listed(who: Who) -> Sequence[Token]:
    """The tokens of somebody that have not ended, the newest first."""
    with read_only() as look:
        return [_shown(row) for row in people.tokens_of(look.session, _person(who), datetime.now(UTC))]


def make(who: Who, name: str, scope: Scope, days: int) -> tuple[Token, str]:
    """Make a token for some days; its secret is told this once."""
    try:
        called = name_of(name)
    except NotANameError as error:
        raise WrongError(f"A token needs a name, such as what the program is called. {error}") from error
    if not 1 <= days <= LONGEST_DAYS:
        raise WrongError(f"A token lasts 1 to {LONGEST_DAYS} days. Change the number of days.")
    with unit_of_work(who) as act:
        at, secret = datetime.now(UTC), new_secret()
        row = SignIn(
            person_id=_person(who), secret_hash=fingerprint(secret), made_at=at, used_at=at,
            ends_at=at + timedelta(days=days), token=called, scope=scope,
        )  # fmt: skip
        people.add(act.session, row)
        record.note(act.session, record.SERVER, "made a token", "sign_in", row.id, called)
        return _shown(row), secret


def end(who: Who, token_id: str) -> None:
    """End a token: what it opened closes within two seconds."""
    with unit_of_work(who) as act:
        called = people.end_token(act.session, _person(who), token_id)
        if called is None:
            raise MissingError("There is no such token any more. Look at the list again.")
        record.note(act.session, record.SERVER, "ended a token", "sign_in", token_id, called)
