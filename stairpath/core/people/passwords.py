"""What a password may be (OWASP ASVS 4.0.3, 2.1)."""

from __future__ import annotations

LEAST, MOST = 12, 128
"""How many characters a password has (ASVS 2.1.1 and 2.1.2)."""
_LEAST_DIFFERENT = 5


class NotAPasswordError(ValueError):
    """It is no password that keeps others out; the message says what to do."""


def check_password(password: str, *names: str) -> None:
    """Raises NotAPasswordError for a password that is too short, too long, one of the person's names or too plain.

    Any character counts, spaces too, and nothing is cut off (ASVS 2.1.3, 2.1.4); which kinds of characters there are is
    not asked (2.1.9).
    """
    if len(password) < LEAST:
        raise NotAPasswordError(f"A password has at least {LEAST} characters; a few words are easy to remember.")
    if len(password) > MOST:
        raise NotAPasswordError(f"A password has at most {MOST} characters; shorten it.")
    folded = password.casefold()
    if any(name and folded == name.casefold() for name in names):
        raise NotAPasswordError("A password is not one's own name; choose another one.")
    if len(set(folded)) < _LEAST_DIFFERENT:
        raise NotAPasswordError(f"A password has at least {_LEAST_DIFFERENT} different characters; choose another one.")
