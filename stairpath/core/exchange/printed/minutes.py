"""Minutes as HTML and PDF: heading, who was there, each topic with picture and notes, open points by person."""

from __future__ import annotations

import base64
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, time
from pathlib import Path
from typing import Any, cast

from stairpath.core.exchange.printed.page import Paper, page_of, pdf_of
from stairpath.core.review.meeting import NotAMeetingError, Point, by_person

_MOST_ITEMS = 2000


@dataclass(frozen=True)
class Item:
    """A topic as it was dealt with: what it is, its picture as PNG or JPEG, what was noted, and its address."""

    reference: str
    title: str
    status: str = ""
    where: str = ""
    picture: bytes | None = None
    points: tuple[Point, ...] = ()
    link: str = ""


@dataclass(frozen=True)
class Minutes:
    """A meeting with everything that its minutes say."""

    project: str
    title: str
    held_on: date
    present: tuple[str, ...]
    items: tuple[Item, ...]
    by: str = ""
    link: str = ""
    absent: tuple[str, ...] = ()
    undone: tuple[tuple[str, str], ...] = ()
    """The topics of the agenda that nothing was noted of, by reference and title."""
    from_time: time | None = None
    to_time: time | None = None
    next_on: date | None = None
    next_time: time | None = None

    @property
    def hours(self) -> str:
        """From when to when it was held, as far as it is known."""
        return " ".join(
            f"{word} {at:%H:%M}" for word, at in (("from", self.from_time), ("to", self.to_time)) if at is not None
        )


def _said(of: Mapping[str, Any], name: str) -> str:
    value = of.get(name)
    if value is None:
        return ""
    if not isinstance(value, str):
        raise NotAMeetingError(f"{name} is {value!r}, not a text; write it in quotes.")
    return value


def _day(text: str, name: str) -> date | None:
    if not text:
        return None
    try:
        return date.fromisoformat(text[:10])
    except ValueError:
        raise NotAMeetingError(f"{name} is {text}, which is no date; write one such as 2026-03-06.") from None


def _clock(text: str, name: str) -> time | None:
    if not text:
        return None
    try:
        return time.fromisoformat(text)
    except ValueError:
        raise NotAMeetingError(f"{name} is {text}, which is no time; write one such as 09:30.") from None


def _listed(of: Mapping[str, Any], name: str) -> Sequence[Any]:
    value = of.get(name) or []
    if not isinstance(value, list):
        raise NotAMeetingError(f"{name} is no list; write it in brackets.")
    return value


def _record(value: object, name: str) -> Mapping[str, Any]:
    if not isinstance(value, dict):
        raise NotAMeetingError(f"{name} is {str(value)[:40]}, not a record; write it in braces.")
    return cast(Mapping[str, Any], value)


def _point(said: object) -> Point:
    of = _record(said, "A note")
    return Point(_said(of, "text"), bool(of.get("decision")), _said(of, "who"), _day(_said(of, "until"), "until"))


def _picture(said: str, folder: Path) -> bytes | None:
    if not said:
        return None
    if said.startswith("data:"):
        try:
            return base64.b64decode(said.partition(",")[2], validate=True)
        except ValueError:
            raise NotAMeetingError("A picture is no base64; give it as data:image/png;base64, or as a file.") from None
    try:
        return (folder / said).read_bytes()
    except OSError:
        raise NotAMeetingError(f"The picture {said} is not there; put it beside the file.") from None


def minutes_from(said: object, folder: Path) -> Minutes:
    """Minutes as a JSON document says them; pictures are data addresses, or files of a folder.

    Raises NotAMeetingError with a sentence.
    """
    of = _record(said, "The document")
    held_on = _day(_said(of, "date"), "date")
    if not _said(of, "title").strip() or held_on is None:
        raise NotAMeetingError("The minutes need a title and a date; add them.")
    items = []
    for each in _listed(of, "topics"):
        topic = _record(each, "A topic")
        if not _said(topic, "title").strip():
            raise NotAMeetingError("A topic needs a title; add one.")
        items.append(
            Item(
                _said(topic, "reference"),
                _said(topic, "title"),
                _said(topic, "status"),
                _said(topic, "where"),
                _picture(_said(topic, "picture"), folder),
                tuple(map(_point, _listed(topic, "notes"))),
                _said(topic, "link"),
            )
        )
    if len(items) > _MOST_ITEMS:
        raise NotAMeetingError(f"Minutes have at most {_MOST_ITEMS:,} topics; make two of them.")
    present, absent = (tuple(str(name) for name in _listed(of, key)) for key in ("present", "absent"))
    undone = [_record(each, "A topic") for each in _listed(of, "not_dealt_with")]
    return Minutes(
        _said(of, "project"), _said(of, "title"), held_on, present, tuple(items), _said(of, "by"), _said(of, "link"),
        absent, tuple((_said(each, "reference"), _said(each, "title")) for each in undone),
        _clock(_said(of, "from"), "from"), _clock(_said(of, "to"), "to"),
        _day(_said(of, "next"), "next"), _clock(_said(of, "next_time"), "next_time"),
    )  # fmt: skip


def html(minutes: Minutes, paper: Paper = "A4") -> str:
    """Minutes as one page of HTML that carries its pictures, fonts and style with it."""
    points = [(item.reference or item.title, point) for item in minutes.items for point in item.points]
    return page_of("minutes.html", paper, minutes=minutes, people=by_person(points))


def pdf(minutes: Minutes, paper: Paper = "A4") -> bytes:
    """Minutes as PDF."""
    return pdf_of(html(minutes, paper))
