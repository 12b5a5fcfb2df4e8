"""Tries to sign in by a provider of accounts: what was begun in which browser."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import String, Text, delete, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from stairpath.store.person_tables import Person
from stairpath.store.tables import Base


class ElsewhereTry(Base):
    """Somebody is on their way to the provider and back. State and browser are here as hashes."""

    __tablename__ = "elsewhere_try"
    state_hash: Mapped[str] = mapped_column(String(64), primary_key=True)
    browser_hash: Mapped[str] = mapped_column(String(64))
    nonce: Mapped[str] = mapped_column(Text)
    verifier: Mapped[str] = mapped_column(Text)
    back_to: Mapped[str] = mapped_column(Text)
    ends_at: Mapped[datetime]


def begin(session: Session, row: ElsewhereTry, now: datetime) -> None:
    """Keep a try; those that have ended go."""
    session.execute(delete(ElsewhereTry).where(ElsewhereTry.ends_at <= now))
    session.add(row)


def take(session: Session, state_hash: str, browser_hash: str, now: datetime) -> ElsewhereTry | None:
    """The try of a browser, which is good once; None where there is none."""
    wanted = select(ElsewhereTry).where(
        ElsewhereTry.state_hash == state_hash, ElsewhereTry.browser_hash == browser_hash, ElsewhereTry.ends_at > now
    )
    row = session.scalar(wanted.with_for_update())
    if row is not None:
        session.delete(row)
    return row


def person_of(session: Session, elsewhere: str) -> Person | None:
    """Who came from the provider as somebody before."""
    return session.scalar(select(Person).where(Person.elsewhere == elsewhere).with_for_update())
