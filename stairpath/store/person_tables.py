"""The tables of people: who may sign in, where they are signed in, in which projects they are, and links."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import ARRAY, BigInteger, Boolean, ForeignKey, Index, String, Text, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column, relationship

from stairpath.store.tables import Base, new_id, now


class Person(Base):
    """Somebody who may sign in. ``key`` is the name that they sign in with."""

    __tablename__ = "person"
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    key: Mapped[str] = mapped_column(Text, unique=True)
    name: Mapped[str] = mapped_column(Text)
    firm: Mapped[str] = mapped_column(Text, default="", server_default="")
    firm_key: Mapped[str] = mapped_column(Text, default="", server_default="")
    """The firm as it is compared."""
    discipline: Mapped[str] = mapped_column(Text, default="", server_default="")
    password: Mapped[str | None] = mapped_column(Text)
    """Its hash; none until they have set one."""
    owner: Mapped[bool] = mapped_column(Boolean, default=False, server_default="false")
    """Whether they run the server."""
    makes_projects: Mapped[bool] = mapped_column(Boolean, default=False, server_default="false")
    """Whether they may make projects; who runs the server may in any case."""
    created_at: Mapped[datetime] = mapped_column(default=now)
    initials: Mapped[str] = mapped_column(Text, default="", server_default="")
    """What they are called where there is little room; empty for those of the name."""
    colour: Mapped[str] = mapped_column(Text, default="", server_default="")
    """The colour that they are shown in; empty for one that goes by the name."""
    units: Mapped[str] = mapped_column(Text, default="", server_default="")
    """The unit that they measure in; empty for that of each browser."""
    language: Mapped[str] = mapped_column(Text, default="", server_default="")
    """In whose way dates and numbers are written for them, such as de-DE; empty for that of each browser."""
    code_secret: Mapped[str] = mapped_column(Text, default="", server_default="")
    """The secret of their second factor."""
    code_on: Mapped[bool] = mapped_column(Boolean, default=False, server_default="false")
    """Whether codes are asked for; not before one of them was right."""
    code_step: Mapped[int] = mapped_column(BigInteger, default=0, server_default="0")
    """The step of time whose code was used last."""
    elsewhere: Mapped[str] = mapped_column(Text, default="", server_default="")
    """Who they are at the provider of accounts, once they came from there: its address and their id there."""
    recovery: Mapped[list[str]] = mapped_column(ARRAY(Text), default=list, server_default="{}")
    """The hashes of their recovery codes that were not used."""


class SignIn(Base):
    """A browser in which somebody is signed in, or looks by a guest link; or a program with a token. The secret is here as its hash."""

    __tablename__ = "sign_in"
    __table_args__ = (
        Index("sign_ins_of_person", "person_id"),
        Index("sign_ins_of_guest", "guest_id"),
        Index("sign_ins_of_grant", "grant_id"),
    )
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    person_id: Mapped[str | None] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"))
    guest_id: Mapped[str | None] = mapped_column(ForeignKey("guest_link.id", ondelete="CASCADE"))
    secret_hash: Mapped[str] = mapped_column(String(64), unique=True)
    made_at: Mapped[datetime] = mapped_column(default=now)
    used_at: Mapped[datetime] = mapped_column(default=now)
    ends_at: Mapped[datetime]
    address: Mapped[str] = mapped_column(Text, default="", server_default="")
    browser: Mapped[str] = mapped_column(Text, default="", server_default="")
    token: Mapped[str] = mapped_column(Text, default="", server_default="")
    """For a program that was given a token: what that is called. It comes in a head, and never as a cookie."""
    scope: Mapped[str | None] = mapped_column(String(16))
    """The highest role that a token lets its program use."""
    grant_id: Mapped[str | None] = mapped_column(ForeignKey("program_grant.id", ondelete="CASCADE"))
    """For a program that somebody let act for them: what they let it do."""
    person: Mapped[Person | None] = relationship()
    guest: Mapped[GuestLink | None] = relationship()


class Member(Base):
    """Who is in a project, and with which role: a person, all of a firm, or all of a discipline.

    ``subject`` is a person's id, a firm's name as it is compared, or a discipline's code.
    """

    __tablename__ = "member"
    __table_args__ = (
        UniqueConstraint("project_id", "kind", "subject", name="member_once"),
        Index("projects_of_member", "kind", "subject"),
    )
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    project_id: Mapped[str] = mapped_column(ForeignKey("project.id", ondelete="CASCADE"))
    kind: Mapped[str] = mapped_column(String(16))
    subject: Mapped[str] = mapped_column(Text)
    label: Mapped[str] = mapped_column(Text, default="", server_default="")
    """What they are called: of a person the name when they came."""
    role: Mapped[str] = mapped_column(String(16))
    added_by: Mapped[str] = mapped_column(Text)
    added_at: Mapped[datetime] = mapped_column(default=now)


class GuestLink(Base):
    """A link with which people without an account look at a project until its end. ``name`` is what they are called there."""

    __tablename__ = "guest_link"
    __table_args__ = (Index("guest_links_of_project", "project_id"),)
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    project_id: Mapped[str] = mapped_column(ForeignKey("project.id", ondelete="CASCADE"))
    name: Mapped[str] = mapped_column(Text)
    secret_hash: Mapped[str] = mapped_column(String(64), unique=True)
    made_by: Mapped[str] = mapped_column(Text)
    made_at: Mapped[datetime] = mapped_column(default=now)
    ends_at: Mapped[datetime]
    used_at: Mapped[datetime | None]


class OneTimeLink(Base):
    """A link that is good once and until its end: to become the first owner, or to set a password."""

    __tablename__ = "one_time_link"
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    kind: Mapped[str] = mapped_column(Text)
    secret_hash: Mapped[str] = mapped_column(String(64), unique=True)
    person_id: Mapped[str | None] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"))
    made_at: Mapped[datetime] = mapped_column(default=now)
    ends_at: Mapped[datetime]
    used_at: Mapped[datetime | None]
    person: Mapped[Person | None] = relationship()
