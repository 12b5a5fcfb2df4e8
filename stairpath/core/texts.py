"""Texts as they are kept and written: without the characters that no document can hold."""

from __future__ import annotations

import re
import unicodedata

_NOT_XML = re.compile("[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\U00010000-\U0010ffff]")
"""What XML 1.0 (2.2, Char) leaves out: control characters, halves of surrogates, and two that are no characters."""


def plain(text: str) -> str:
    r"""A text without what XML cannot hold, its lines ended by one character.

    >>> plain("a\x1bb\r\nc")
    'ab\nc'
    """
    return _NOT_XML.sub("", text).replace("\r\n", "\n").replace("\r", "\n")


_BLANK = frozenset("\u115f\u1160\u2800\u3164\uffa0")
"""Letters and signs that have a width and no ink."""


def trimmed(text: str) -> str:
    r"""A text without space around it; nothing where there is nothing to be seen in it, such as marks of direction alone.

    >>> trimmed("  West wall "), trimmed("\u200b\u202e "), trimmed("\u2800")
    ('West wall', '', '')
    """
    short = text.strip()
    seen = any(unicodedata.category(c)[0] not in "ZC" and c not in _BLANK for c in short)
    return short if seen else ""
