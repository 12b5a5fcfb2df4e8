"""Putting another name in the place of one, in what is kept of topics, views and changes."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from stairpath.core.review.topic import IMPORT

FORMER = "Former member"
"""What somebody is called who was removed."""
_NAMING = frozenset({"by", "author", "assigned_to", "to", "asked_by", "answered_by", "who", "added_by"})
"""The words under which documents name people."""
_CHANGED = frozenset({"assigned_to", "who", "present", "absent", "asked", "answered", "question", "name", "author"})
"""The fields whose change names people."""


def name_key(name: str) -> str:
    """A name as it is compared.

    >>> name_key(" Ida  Fenn ") == name_key("ida fenn")
    True
    """
    return " ".join(name.split()).casefold()


def renamed(document: Any, old: str, new: str) -> Any:
    r"""A document (JSON) with every person of the old name called by the new one; the same object where there is none.

    >>> renamed({"assigned_to": "Ida Fenn", "title": "Ida Fenn"}, "ida fenn", "Ida Oake")
    {'assigned_to': 'Ida Oake', 'title': 'Ida Fenn'}
    >>> renamed([{"field": "present", "old": "", "new": "Tam Kerr\nIda Fenn"}], "Ida Fenn", "Ida Oake")
    [{'field': 'present', 'old': '', 'new': 'Tam Kerr\nIda Oake'}]
    """
    key = name_key(old)

    def one(name: str) -> str:
        return new if name_key(name) == key else name

    return _in(document, one, lambda said: renamed_import(said, " ".join(old.split()), new))


def renamed_sentence(sentence: str, old: str, new: str) -> str:
    """A sentence that the application wrote of a topic, with a person called by another name: whom it asked, or who does it.

    >>> renamed_sentence("Asked Ida Fenn: Why?", "Ida Fenn", "Ida Oake")
    'Asked Ida Oake: Why?'
    >>> renamed_sentence("Monday: Lower it. (Ida Fenn, until 1 March)", "Ida Fenn", "Ida Oake")
    'Monday: Lower it. (Ida Oake, until 1 March)'
    """
    name = re.escape(old)
    asked = re.sub(rf"^Asked {name}(?=: )", lambda _: f"Asked {new}", sentence, flags=re.I)
    return re.sub(rf"\({name}(?=(, [^()]*)?\)$)", lambda _: f"({new}", asked, flags=re.I)


def renamed_import(sentence: str, old: str, new: str) -> str:
    """What an import said of values that differ, with a person called by another name: who wrote one, or was given it.

    >>> renamed_import("title: A here (Ida Fenn, 1 Dec), B there (Ida Fenn, 2 Dec)", "Ida Fenn", "Ida Oake")
    'title: A here (Ida Oake, 1 Dec), B there (Ida Oake, 2 Dec)'
    >>> renamed_import("assigned_to: nothing here (Tam Kerr, 1 Dec), Ida Fenn there (Bo, 2 Dec)", "Ida Fenn", "Ida Oake")
    'assigned_to: nothing here (Tam Kerr, 1 Dec), Ida Oake there (Bo, 2 Dec)'
    """
    name = re.escape(old)
    hands = re.sub(rf"(?<=here \(){name}(?=, )", lambda _: new, sentence, flags=re.I)
    given = rf"(assigned_to: (?:[^;]* here \([^)]*\), )?){name}(?= t?here \()"
    # Both sides may name the same person, and one search finds one of them.
    for _ in range(2):
        hands = re.sub(given, lambda found: found[1] + new, hands, flags=re.I)
    return hands


def _in(value: Any, one: Callable[[str], str], sentence: Callable[[str], str]) -> Any:
    if isinstance(value, list):
        items = [_in(each, one, sentence) for each in value]
        return items if any(a is not b for a, b in zip(items, value, strict=True)) else value
    if not isinstance(value, dict):
        return value
    changed = value.get("field") in _CHANGED
    brought = value.get("field") == IMPORT
    out = {}
    for word, held in value.items():
        if isinstance(held, str) and brought and word == "new":
            out[word] = sentence(held)
        elif isinstance(held, str) and (word in _NAMING or (changed and word in ("old", "new"))):
            # A list of names stands in lines.
            lines = [one(line) for line in held.split("\n")]
            out[word] = "\n".join(lines)
        else:
            out[word] = _in(held, one, sentence)
    return out if any(out[word] is not held and out[word] != held for word, held in value.items()) else value
