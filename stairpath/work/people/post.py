"""Mails to people: kept with what they tell of, and sent by a worker; without a server for mail the mailbox shows them."""

from __future__ import annotations

import smtplib
import ssl
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from email.message import EmailMessage
from email.utils import format_datetime

import structlog

from stairpath.core.people.letters import Letter, is_mail_address
from stairpath.settings import settings
from stairpath.store import mail
from stairpath.store.mail import Mail
from stairpath.store.person_tables import Person
from stairpath.work.base.unit_of_work import WORKER, UnitOfWork, read_only, unit_of_work

log = structlog.get_logger()

KEPT = timedelta(days=7)
"""As long as the links that they carry are good."""
_PATIENCE_S = 20.0
_MOST_TRIES = 12
_FIRST_PAUSE = timedelta(minutes=1)
_LONGEST_PAUSE = timedelta(hours=4)


@dataclass(frozen=True)
class Shown:
    """A mail as the mailbox shows it."""

    id: str
    to: str
    subject: str
    text: str
    made_at: datetime
    trouble: str


def is_sent() -> bool:
    """Whether there is a server for mail; otherwise the mailbox keeps what would be sent."""
    return bool(settings().smtp_host)


def address(path: str) -> str:
    """The whole address of a page, as people open it from elsewhere."""
    base = settings().address or f"http://{settings().host}:{settings().port}"
    return f"{base.rstrip('/')}{path}"


def welcome(secret: str) -> str:
    """Where one sets a password. What follows # is not sent by browsers, so that it stands in no log of a server."""
    return address(f"/welcome#{secret}")


def reaches(person: Person) -> bool:
    """Whether somebody signs in with a mail address."""
    return is_mail_address(person.key)


def send(act: UnitOfWork, letter: Letter) -> None:
    """Have a letter sent once what it tells of is kept."""
    mail.keep(act.session, letter.to, letter.subject, letter.text)


def mailbox() -> list[Shown]:
    """What was not sent, the newest first: all of it while there is no server for mail."""
    with read_only() as look:
        return [
            Shown(each.id, each.to, each.subject, "" if is_sent() else each.text, each.made_at, each.trouble)
            for each in mail.unsent(look.session)
        ]


def forget() -> None:
    """Delete mails whose links have ended."""
    with unit_of_work(WORKER) as act:
        mail.drop_older(act.session, datetime.now(UTC) - KEPT)


def send_waiting() -> int:
    """Send the mails whose time has come; how many were sent. One that cannot be sent is tried again, later each time."""
    if not is_sent():
        return 0
    with read_only() as look:
        ids = mail.waiting(look.session, datetime.now(UTC), _MOST_TRIES)
    return sum(_send_one(each) for each in ids)


def _send_one(mail_id: str) -> bool:
    """Send a mail; it is held until it is sent, so that of two workers one sends it."""
    with unit_of_work(WORKER) as act:
        row = mail.held(act.session, mail_id)
        if row is None:
            return False
        try:
            _hand_over(row)
        except (OSError, smtplib.SMTPException) as error:
            row.tries += 1
            row.next_at = datetime.now(UTC) + min(_FIRST_PAUSE * 2 ** (row.tries - 1), _LONGEST_PAUSE)
            row.trouble = f"{type(error).__name__}: {error}"[:300]
            log.warning("a mail could not be sent", mail=row.id, tries=row.tries, reason=type(error).__name__)
            return False
        row.sent_at, row.text, row.trouble = datetime.now(UTC), "", ""
        return True


def _hand_over(row: Mail) -> None:
    chosen = settings()
    message = EmailMessage()
    message["From"], message["To"], message["Subject"] = chosen.mail_from, row.to, row.subject
    message["Date"] = format_datetime(row.made_at)
    # The same at each try, so that who got it once is not told twice.
    message["Message-ID"] = f"<{row.id}@{chosen.mail_from.rpartition('@')[2]}>"
    message.set_content(row.text)
    context = ssl.create_default_context()
    if chosen.smtp_security == "tls":
        server: smtplib.SMTP = smtplib.SMTP_SSL(
            chosen.smtp_host, chosen.smtp_port, timeout=_PATIENCE_S, context=context
        )
    else:
        server = smtplib.SMTP(chosen.smtp_host, chosen.smtp_port, timeout=_PATIENCE_S)
    with server:
        if chosen.smtp_security == "starttls":
            server.starttls(context=context)
        if chosen.smtp_user:
            server.login(chosen.smtp_user, chosen.smtp_password)
        server.send_message(message)
