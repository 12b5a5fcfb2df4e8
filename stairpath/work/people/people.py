"""Everybody who may sign in, for those who own the server."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from stairpath.store import people
from stairpath.work.base.errors import NotAllowedError, NotSignedInError
from stairpath.work.base.unit_of_work import read_only
from stairpath.work.people import links
from stairpath.work.people.sign_ins import ASK_FIRST, Signed, signed


@dataclass(frozen=True)
class Listed:
    """A person, whether they have set a password, and when they were seen last."""

    person: Signed
    begun: bool
    seen_at: datetime | None


def check_owner(who: Signed | None) -> None:
    """Raises NotAllowedError for who does not own the server, NotSignedInError for nobody."""
    if who is None:
        raise NotSignedInError(ASK_FIRST)
    if not who.owner:
        raise NotAllowedError("Only those who own the server see and invite people. Ask one of them.")


def listed() -> list[Listed]:
    """Everybody who may sign in, by the name that they sign in with."""
    with read_only() as look:
        seen = people.last_seen(look.session)
        return [
            Listed(signed(each), each.password is not None, seen.get(each.id)) for each in people.people(look.session)
        ]


def invite(who: Signed | None, key: str, name: str, owner: bool) -> str:
    """Add somebody; the secret of the link with which they set their password."""
    check_owner(who)
    return links.add_person(key, name, owner)


def reset(who: Signed | None, key: str) -> str:
    """A new link for somebody to set a password, as one who has forgotten it needs."""
    check_owner(who)
    return links.for_password(key)
