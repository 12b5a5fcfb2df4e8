"""Mails that are to be sent, as rows written with what they tell of; what was sent is without its text."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime

from sqlalchemy import Text, delete, or_, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from stairpath.store.tables import Base, new_id, now


class Mail(Base):
    """A mail to one person. Its text may carry a link that is good once; once it is sent the text is empty."""

    __tablename__ = "mail"
    id: Mapped[str] = mapped_column(primary_key=True, default=new_id)
    to: Mapped[str] = mapped_column("recipient", Text)
    subject: Mapped[str] = mapped_column(Text)
    text: Mapped[str] = mapped_column(Text)
    made_at: Mapped[datetime] = mapped_column(default=now)
    sent_at: Mapped[datetime | None]
    tries: Mapped[int] = mapped_column(default=0)
    next_at: Mapped[datetime] = mapped_column(default=now)
    trouble: Mapped[str] = mapped_column(Text, default="")
    """Why it could not be sent the last time."""


def keep(session: Session, to: str, subject: str, text: str) -> None:
    """Have a mail sent, or shown in the mailbox."""
    session.add(Mail(to=to, subject=subject, text=text))


def waiting(session: Session, at: datetime, most_tries: int) -> Sequence[str]:
    """Mails whose time has come to be sent."""
    wanted = select(Mail.id).where(Mail.sent_at.is_(None), Mail.next_at <= at, Mail.tries < most_tries)
    return session.scalars(wanted.order_by(Mail.made_at)).all()


def held(session: Session, mail_id: str) -> Mail | None:
    """A mail that was not sent yet, held until the transaction ends; None for one that was, or that is being sent."""
    wanted = select(Mail).where(Mail.id == mail_id, Mail.sent_at.is_(None))
    return session.scalar(wanted.with_for_update(skip_locked=True))


def unsent(session: Session) -> Sequence[Mail]:
    """Mails that were not sent, the newest first."""
    return session.scalars(select(Mail).where(Mail.sent_at.is_(None)).order_by(Mail.made_at.desc())).all()


def drop_older(session: Session, before: datetime) -> None:
    """Delete mails that were made before a time: their links have ended."""
    session.execute(delete(Mail).where(Mail.made_at < before))


def forget(session: Session, to: str, name: str) -> None:
    """Delete the mails to somebody, and those that tell of them."""
    told = or_(Mail.subject.contains(name, autoescape=True), Mail.text.contains(name, autoescape=True))
    session.execute(delete(Mail).where(or_(Mail.to == to, told)))
