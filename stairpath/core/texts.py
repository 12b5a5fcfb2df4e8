"""Texts as they are kept and written: without the characters that no document can hold."""

from __future__ import annotations

import re

_NOT_XML = re.compile("[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\U00010000-\U0010ffff]")
"""What XML 1.0 (2.2, Char) leaves out: control characters, halves of surrogates, and two that are no characters."""


def plain(text: str) -> str:
    r"""A text without what XML cannot hold, its lines ended by one character.

    >>> plain("a\x1bb\r\nc")
    'ab\nc'
    """
    return _NOT_XML.sub("", text).replace("\r\n", "\n").replace("\r", "\n")
