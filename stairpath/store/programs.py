"""Programs of others that people let act for them (OAuth 2.0): which there are, and who let which of them do what."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime

from sqlalchemy import ForeignKey, String, Text, delete, select
from sqlalchemy.orm import Mapped, Session, mapped_column, relationship

from stairpath.store.person_tables import Person
from stairpath.store.tables import Base, new_id, now


class Program(Base):
    """A program that may ask people to let it act for them. ``address`` is where it takes their answer."""

    __tablename__ = "program"
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    name: Mapped[str] = mapped_column(Text)
    address: Mapped[str] = mapped_column(Text)
    made_by: Mapped[str] = mapped_column(Text)
    made_at: Mapped[datetime] = mapped_column(default=now)


class ProgramGrant(Base):
    """That somebody lets a program act for them. Code and refresh token are here as hashes."""

    __tablename__ = "program_grant"
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    program_id: Mapped[str] = mapped_column(ForeignKey("program.id", ondelete="CASCADE"))
    person_id: Mapped[str] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"))
    scope: Mapped[str] = mapped_column(String(16))
    made_at: Mapped[datetime] = mapped_column(default=now)
    ends_at: Mapped[datetime]
    code_hash: Mapped[str] = mapped_column(String(64), unique=True)
    code_ends_at: Mapped[datetime]
    code_used: Mapped[bool] = mapped_column(default=False)
    challenge: Mapped[str] = mapped_column(Text)
    redirect_uri: Mapped[str] = mapped_column(Text)
    refresh_hash: Mapped[str | None] = mapped_column(String(64), unique=True)
    refresh_before: Mapped[str | None] = mapped_column(String(64))
    """The refresh token before: who brings it again has stolen one of the two."""
    program: Mapped[Program] = relationship()
    person: Mapped[Person] = relationship()


def programs(session: Session) -> Sequence[Program]:
    """All programs, by name."""
    return session.scalars(select(Program).order_by(Program.name, Program.id)).all()


def program(session: Session, program_id: str) -> Program | None:
    """A program by its id."""
    return session.get(Program, program_id)


def end_program(session: Session, program_id: str) -> str | None:
    """Delete a program with all that people let it do; what it was called, or None where there is none."""
    return session.scalar(delete(Program).where(Program.id == program_id).returning(Program.name))


def grants_of(session: Session, person_id: str, at: datetime) -> Sequence[ProgramGrant]:
    """What somebody lets programs do that use it, the newest first."""
    wanted = select(ProgramGrant).where(
        ProgramGrant.person_id == person_id, ProgramGrant.ends_at > at, ProgramGrant.refresh_hash.is_not(None)
    )
    return session.scalars(wanted.order_by(ProgramGrant.made_at.desc())).all()


def by_code(session: Session, code_hash: str) -> ProgramGrant | None:
    """What a code is for, held until the transaction ends."""
    return session.scalar(select(ProgramGrant).where(ProgramGrant.code_hash == code_hash).with_for_update())


def by_refresh(session: Session, refresh_hash: str) -> ProgramGrant | None:
    """What a refresh token is for, also one that was used before; held until the transaction ends."""
    wanted = select(ProgramGrant).where(
        (ProgramGrant.refresh_hash == refresh_hash) | (ProgramGrant.refresh_before == refresh_hash)
    )
    return session.scalar(wanted.with_for_update())


def end_grant(session: Session, grant_id: str, person_id: str | None = None) -> str | None:
    """End what a program may, with its tokens; of a person alone if so wanted. The program's id, or None."""
    wanted = delete(ProgramGrant).where(ProgramGrant.id == grant_id)
    if person_id is not None:
        wanted = wanted.where(ProgramGrant.person_id == person_id)
    return session.scalar(wanted.returning(ProgramGrant.program_id))


def drop_ended(session: Session, at: datetime) -> None:
    """Delete what has ended, and codes that nobody came for."""
    session.execute(
        delete(ProgramGrant).where(
            (ProgramGrant.ends_at <= at) | (ProgramGrant.refresh_hash.is_(None) & (ProgramGrant.code_ends_at <= at))
        )
    )
