"""What people are called: the name that others read, and the one that they sign in with."""

from __future__ import annotations

import unicodedata

from stairpath.core.texts import plain, trimmed

LONGEST_NAME = 80


class NotANameError(ValueError):
    """It can be no name; the message says why."""


def name_of(text: str) -> str:
    """The name that others read, as it is kept; raises NotANameError for one that is empty, too long or cannot be seen."""
    name = " ".join(trimmed(plain(text)).split())
    if not name:
        raise NotANameError("A person needs a name that others can read; type it.")
    if len(name) > LONGEST_NAME:
        raise NotANameError(f"A name has at most {LONGEST_NAME} letters; shorten it.")
    return name


def sign_in_name(text: str) -> str:
    """The name to sign in with, the same however it is typed (Unicode TR 15, NFKC, and case folded).

    Raises NotANameError for one that is empty, too long, or has spaces or signs that cannot be seen.

    >>> sign_in_name(" Ida.Fenn@Quillhaven.example ")
    'ida.fenn@quillhaven.example'
    """
    name = unicodedata.normalize("NFKC", text.strip()).casefold()
    if not name:
        raise NotANameError("A name to sign in with is needed; type one, such as a mail address.")
    if len(name) > LONGEST_NAME:
        raise NotANameError(f"A name to sign in with has at most {LONGEST_NAME} letters; shorten it.")
    if any(unicodedata.category(each)[0] in "ZC" for each in name):
        raise NotANameError("A name to sign in with has no spaces; leave them out.")
    return name
