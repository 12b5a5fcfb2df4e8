"""What a password may be (OWASP ASVS 4.0.3, 2.1)."""

from __future__ import annotations

import re

from zxcvbn import zxcvbn

LEAST, MOST = 12, 128
"""How many characters a password has (ASVS 2.1.1 and 2.1.2)."""
_LEAST_SCORE = 3
"""Of 0 to 4: it takes more than a hundred million guesses by who knows what people choose."""
_LOOKED_AT = 72
"""So many characters of it are looked at; what is longer is good enough by them."""


class NotAPasswordError(ValueError):
    """It is no password that keeps others out; the message says what to do."""


def check_password(password: str, *names: str) -> None:
    """Raises NotAPasswordError for a password that is too short, too long, one of the person's names or easy to guess.

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
    # Known passwords, words and names of many people, rows of keys and dates count as what they are (ASVS 2.1.7).
    known = [*names, *(part for name in names for part in re.split(r"\W+", name) if part), "stair", "path", "stairpath"]
    if zxcvbn(password[:_LOOKED_AT], user_inputs=known)["score"] < _LEAST_SCORE:
        raise NotAPasswordError("This password is easy to guess. Choose a few words that nobody would put together.")
