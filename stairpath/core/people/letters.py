"""What is written to people by mail: plain texts, each with why it came and what to do where it came in error."""

from __future__ import annotations

import re
from dataclasses import dataclass

_ADDRESS = re.compile(r"[^@\s<>,;:\"()\[\]\\]{1,64}@[^@\s<>,;:\"()\[\]\\]+\.[^@\s<>,;:\"()\[\]\\.]+")


@dataclass(frozen=True)
class Letter:
    """A mail to one person."""

    to: str
    subject: str
    text: str


def is_mail_address(name: str) -> bool:
    """Whether a name to sign in with is a mail address, as far as one can see (RFC 5321, 2.3.11).

    >>> is_mail_address("ida.fenn@quillhaven.example"), is_mail_address("ida.fenn"), is_mail_address("a@b@c.example")
    (True, False, False)
    """
    return _ADDRESS.fullmatch(name) is not None


def invitation(to: str, name: str, by: str, link: str, project: str = "") -> Letter:
    """An invitation to the server, and to a project if it was by one; with the link that sets a password."""
    where = f"the project {project} in Stair Path" if project else "Stair Path"
    return Letter(
        to,
        f"{by} invites you to {where}",
        f"Hello {name},\n\n"
        f"{by} invites you to {where}. Open this link and choose a password:\n\n{link}\n\n"
        "The link is good once, for a week. If it has ended, ask for a new one on the page for signing in.\n"
        "If you do not know what this is about, you need not do anything.\n",
    )


def let_into_project(to: str, name: str, by: str, project: str, link: str) -> Letter:
    """What tells somebody who signs in already that they are in a project now."""
    return Letter(
        to,
        f"{by} added you to the project {project}",
        f"Hello {name},\n\n{by} added you to the project {project} in Stair Path:\n\n{link}\n",
    )


def new_password(to: str, name: str, link: str) -> Letter:
    """The link that somebody asked for who has forgotten their password."""
    return Letter(
        to,
        "A new password for Stair Path",
        f"Hello {name},\n\n"
        f"somebody asked for a new password for you. Open this link and choose one:\n\n{link}\n\n"
        "The link is good once, for a week. If it was not you who asked, you need not do anything: "
        "your password stays as it is.\n",
    )


def told(to: str, name: str, what: str, link: str) -> Letter:
    """What tells somebody of a change to how they sign in, so that they notice one that was not theirs (ASVS 2.2.3)."""
    return Letter(
        to,
        f"Stair Path: {what}",
        f"Hello {name},\n\n{what}. If this was you, you need not do anything.\n\n"
        f"If it was not you, ask for a new password at once:\n\n{link}\n",
    )
