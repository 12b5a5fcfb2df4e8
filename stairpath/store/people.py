"""The rows of people, of where they are signed in, and of links that are good once."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from datetime import datetime

from sqlalchemy import delete, exists, func, or_, select, update
from sqlalchemy.orm import Session, joinedload

from stairpath.store.person_tables import OneTimeLink, Person, SignIn


def any_people(session: Session) -> bool:
    """Whether anybody may sign in."""
    return bool(session.scalar(select(exists().where(Person.id.is_not(None)))))


def owners(session: Session) -> Sequence[Person]:
    """Who runs the server, held until the transaction ends: of two who stop at once one stays."""
    return session.scalars(select(Person).where(Person.owner).order_by(Person.id).with_for_update()).all()


def names(session: Session) -> Sequence[tuple[str, str]]:
    """Ids and names of everybody."""
    return session.execute(select(Person.id, Person.name)).tuples().all()


def people(session: Session) -> Sequence[Person]:
    """Everybody, by the name that they sign in with."""
    return session.scalars(select(Person).order_by(Person.key)).all()


def last_seen(session: Session) -> dict[str, datetime]:
    """When people asked for something last, by their ids; those alone who are signed in somewhere."""
    rows = session.execute(select(SignIn.person_id, func.max(SignIn.used_at)).group_by(SignIn.person_id))
    return {person_id: at for person_id, at in rows if person_id is not None}


def person_by_key(session: Session, key: str, hold: bool = False) -> Person | None:
    """Who signs in with a name."""
    wanted = select(Person).where(Person.key == key)
    return session.scalar(wanted.with_for_update() if hold else wanted)


def person_by_id(session: Session, person_id: str, hold: bool = False) -> Person | None:
    """A person by their id; held until the transaction ends if so wanted."""
    return session.get(Person, person_id, with_for_update=hold or None, populate_existing=hold)


def sign_ins_by_hash(
    session: Session, hashes: Collection[str], now: datetime, used_since: datetime
) -> Sequence[SignIn]:
    """Where people are signed in, with who it is; without those that have ended or were not used for long."""
    wanted = (
        select(SignIn)
        .options(joinedload(SignIn.person), joinedload(SignIn.guest))
        .where(
            SignIn.secret_hash.in_(hashes),
            SignIn.ends_at > now,
            or_(SignIn.used_at > used_since, SignIn.scope.is_not(None)),
        )
    )
    return session.scalars(wanted).all()


def note_use(session: Session, sign_in_id: str, at: datetime) -> None:
    """Note that somebody asked for something from there."""
    session.execute(update(SignIn).where(SignIn.id == sign_in_id).values(used_at=at))


def end_sign_in(session: Session, secret_hash: str) -> None:
    """End one."""
    session.execute(delete(SignIn).where(SignIn.secret_hash == secret_hash))


def end_sign_ins(session: Session, person_id: str, tokens: bool) -> None:
    """End all of a person; those of programs with a token too, or not."""
    wanted = delete(SignIn).where(SignIn.person_id == person_id)
    session.execute(wanted if tokens else wanted.where(SignIn.scope.is_(None)))


def tokens_of(session: Session, person_id: str, now: datetime) -> Sequence[SignIn]:
    """The tokens of a person that have not ended, the newest first."""
    wanted = select(SignIn).where(
        SignIn.person_id == person_id, SignIn.scope.is_not(None), SignIn.grant_id.is_(None), SignIn.ends_at > now
    )
    return session.scalars(wanted.order_by(SignIn.made_at.desc())).all()


def end_token(session: Session, person_id: str, token_id: str) -> str | None:
    """End a token of a person; what it was called, or None where there is none."""
    wanted = delete(SignIn).where(SignIn.id == token_id, SignIn.person_id == person_id, SignIn.scope.is_not(None))
    return session.scalar(wanted.returning(SignIn.token))


def drop_ended(session: Session, now: datetime, used_since: datetime) -> None:
    """Delete what has ended by time."""
    session.execute(
        delete(SignIn).where((SignIn.ends_at <= now) | (SignIn.scope.is_(None) & (SignIn.used_at <= used_since)))
    )


def link_by_hash(session: Session, secret_hash: str, now: datetime, hold: bool = False) -> OneTimeLink | None:
    """A link that was not used and has not ended."""
    wanted = select(OneTimeLink).where(
        OneTimeLink.secret_hash == secret_hash, OneTimeLink.ends_at > now, OneTimeLink.used_at.is_(None)
    )
    return session.scalar(wanted.with_for_update() if hold else wanted)


def end_links(session: Session, kind: str, person_id: str | None, now: datetime) -> None:
    """End the links of a kind to a person that were not used; only the newest is good."""
    of = OneTimeLink.person_id == person_id if person_id is not None else OneTimeLink.person_id.is_(None)
    session.execute(
        update(OneTimeLink).where(OneTimeLink.kind == kind, of, OneTimeLink.used_at.is_(None)).values(ends_at=now)
    )


def add(session: Session, row: Person | SignIn | OneTimeLink) -> None:
    """Keep a new row, and have its id."""
    session.add(row)
    session.flush()


def remove(session: Session, person_id: str) -> None:
    """Delete a person, with where they are signed in and their links."""
    session.execute(delete(Person).where(Person.id == person_id))


def sign_ins_of(session: Session, person_id: str) -> Sequence[SignIn]:
    """Where a person is signed in, and their tokens, the newest first."""
    return session.scalars(
        select(SignIn).where(SignIn.person_id == person_id).order_by(SignIn.made_at.desc(), SignIn.id)
    ).all()
