"""What somebody changed of a thing that people edit, field by field, and what of it is told."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

_FIELDS = {
    "absent": "people",
    "assigned_to": "assignee",
    "due": "due date",
    "ended_at": "end",
    "folder": "folder",
    "from_time": "times",
    "held_on": "date",
    "kind": "type",
    "next_on": "next meeting",
    "next_time": "next meeting",
    "present": "people",
    "related": "related topics",
    "to_time": "times",
    "topics": "agenda",
    "until": "due date",
    "who": "assignee",
    "within": "folder around it",
}


@dataclass(frozen=True)
class ChangedField:
    """A field that was changed, and from what to what; both empty where that is no text, such as for a view.

    Of a list ``old`` has what was taken away and ``new`` what was added, in lines.
    """

    field: str
    old: str = ""
    new: str = ""


def field_name(field: str) -> str:
    """What people call a field.

    >>> field_name("held_on"), field_name("title")
    ('date', 'title')
    """
    return _FIELDS.get(field, field)


def joined(words: Sequence[str]) -> str:
    """Words one after the other, the last two with "and".

    >>> joined(["title", "date", "agenda"])
    'title, date and agenda'
    """
    return " and ".join(filter(None, (", ".join(words[:-1]), *words[-1:])))


def what_changed(entries: Iterable[tuple[str, Sequence[ChangedField]]]) -> str:
    """Who changed what, in a few words; ``entries`` are the authors with the fields that they changed.

    >>> what_changed([("Tam Kerr", [ChangedField("held_on")]), ("Ida Fenn", [ChangedField("title", "A", "B")])])
    'Tam Kerr and Ida Fenn changed the date and title'
    >>> what_changed([("Ida Fenn", [ChangedField("deleted", "", "yes")])])
    'Ida Fenn deleted it'
    """
    who: dict[str, None] = {}
    what: dict[str, None] = {}
    verb = ""
    for author, fields in entries:
        who[author] = None
        for each in fields:
            if each.field == "deleted":
                verb = "deleted it" if each.new else "restored it"
            else:
                what[field_name(each.field)] = None
    done = [f"changed the {joined(list(what))}"] if what else []
    return f"{joined(list(who))} {joined([*done, *filter(None, [verb])])}"
