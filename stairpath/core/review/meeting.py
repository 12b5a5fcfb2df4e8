"""A meeting as it is held: what is dealt with in which order, what was decided, and what stays open."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from datetime import date
from typing import Literal

from stairpath.core.dates import NotADayError, kept_day

Why = Literal["left open", "overdue", "new", "chosen"]

LONGEST_NOTE = 4000


class NotAMeetingError(ValueError):
    """Something of a meeting that cannot be; the message says what to do."""


def held_on(day: date) -> date:
    """A day of a meeting; NotAMeetingError outside the years that are kept."""
    try:
        return kept_day(day)
    except NotADayError as error:
        raise NotAMeetingError(str(error)) from error


@dataclass(frozen=True)
class Point:
    """Something that was noted of a topic: a decision, or what was said; who does what, until when."""

    text: str
    decision: bool = False
    who: str = ""
    until: date | None = None

    def __post_init__(self) -> None:
        if not self.text.strip():
            raise NotAMeetingError("There is nothing in the note; type what was said or decided.")
        if self.until is not None:
            held_on(self.until)
        if len(self.text) > LONGEST_NOTE:
            raise NotAMeetingError(f"A note has at most {LONGEST_NOTE:,} letters; write the rest as another one.")


@dataclass(frozen=True)
class Known:
    """What an agenda asks of a topic."""

    id: str
    ended: bool
    overdue: bool
    new: bool


@dataclass(frozen=True)
class Listed:
    """A topic of an agenda, and why it is on it."""

    id: str
    why: Why


def agenda(topics: Sequence[Known], left_open: Collection[str], chosen: Sequence[str] = ()) -> list[Listed]:
    """What is dealt with, each topic once: what the last meeting left open, what is overdue, what is new, what was chosen.

    ``left_open`` are the topics with a point of the last meeting that somebody was to see to; one that has come to its
    end since is done with, unless it was chosen.
    """
    reasons: dict[Why, list[str]] = {"left open": [], "overdue": [], "new": [], "chosen": []}
    for topic in topics:
        if topic.ended:
            continue
        if topic.id in left_open:
            reasons["left open"].append(topic.id)
        elif topic.overdue:
            reasons["overdue"].append(topic.id)
        elif topic.new:
            reasons["new"].append(topic.id)
    there = {topic.id for topic in topics}
    reasons["chosen"] = [each for each in chosen if each in there]
    found: dict[str, Why] = {}
    for why, ids in reasons.items():
        for each in ids:
            found.setdefault(each, why)
    return [Listed(each, why) for each, why in found.items()]


def by_person(points: Sequence[tuple[str, Point]]) -> list[tuple[str, list[tuple[str, Point]]]]:
    """What is to be seen to, by who does it and by when; each is a reference with its point. Nobody's stand last."""
    found: dict[str, list[tuple[str, Point]]] = {}
    for reference, point in points:
        if point.who.strip() or point.until is not None:
            found.setdefault(point.who.strip(), []).append((reference, point))
    for those in found.values():
        those.sort(key=lambda each: (each[1].until or date.max, each[0]))
    return sorted(found.items(), key=lambda each: (each[0] == "", each[0].casefold()))
