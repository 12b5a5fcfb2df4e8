"""The tables of people: who may sign in, where they are signed in, and links that are good once."""

from __future__ import annotations

from datetime import datetime

from sqlalchemy import Boolean, ForeignKey, Index, String, Text
from sqlalchemy.orm import Mapped, mapped_column, relationship

from stairpath.store.tables import Base, new_id, now


class Person(Base):
    """Somebody who may sign in. ``key`` is the name that they sign in with."""

    __tablename__ = "person"
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    key: Mapped[str] = mapped_column(Text, unique=True)
    name: Mapped[str] = mapped_column(Text)
    firm: Mapped[str] = mapped_column(Text, default="", server_default="")
    discipline: Mapped[str] = mapped_column(Text, default="", server_default="")
    password: Mapped[str | None] = mapped_column(Text)
    """Its hash; none until they have set one."""
    owner: Mapped[bool] = mapped_column(Boolean, default=False, server_default="false")
    """Whether they run the server."""
    created_at: Mapped[datetime] = mapped_column(default=now)


class SignIn(Base):
    """A browser in which somebody is signed in. What the browser keeps is here only as its hash."""

    __tablename__ = "sign_in"
    __table_args__ = (Index("sign_ins_of_person", "person_id"),)
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    person_id: Mapped[str] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"))
    secret_hash: Mapped[str] = mapped_column(String(64), unique=True)
    made_at: Mapped[datetime] = mapped_column(default=now)
    used_at: Mapped[datetime] = mapped_column(default=now)
    ends_at: Mapped[datetime]
    address: Mapped[str] = mapped_column(Text, default="", server_default="")
    browser: Mapped[str] = mapped_column(Text, default="", server_default="")
    person: Mapped[Person] = relationship()


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
