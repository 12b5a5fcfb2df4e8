"""What is said of a topic, how it may be changed, and how it stands."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, fields, replace
from datetime import date
from typing import Annotated, Any

from annotated_types import MaxLen

from stairpath.core.dates import NotADayError, kept_day
from stairpath.core.limits import Text, Word
from stairpath.core.review.statuses import Statuses
from stairpath.core.texts import plain, trimmed

Value = str | tuple[str, ...] | date | None
"""What a field of a topic holds."""

LONGEST_TITLE = 200
LONGEST_TEXT = 20_000
MOST_LABELS = 40


class NotATopicError(ValueError):
    """A topic, or a change to one, that cannot be; the message says what to do."""


@dataclass(frozen=True)
class TopicFields:
    """What is said of a topic: one problem, who has it, and by when it is to be settled."""

    title: Word
    description: Text = ""
    kind: Word = ""
    status: Word = ""
    priority: Word = ""
    assigned_to: Word = ""
    due: date | None = None
    labels: Annotated[tuple[Word, ...], MaxLen(200)] = ()
    stage: Word = ""


FIELDS: tuple[str, ...] = tuple(each.name for each in fields(TopicFields))


IMPORT = "import"
"""Where a change says what the import of a file did, in words, and not what a field was and is."""


@dataclass(frozen=True)
class TopicChange:
    """A field of a topic that was changed, and from what to what."""

    field: str
    old: Value
    new: Value


def tidy(said: TopicFields, statuses: Statuses) -> TopicFields:
    """What is said without space around it, each label once, with the first status where there is none.

    Raises NotATopicError for a topic without a title or with too much of something, NotAStatusError for a status that
    the project does not have.
    """
    title = trimmed(" ".join(plain(said.title).split()))
    if not title:
        raise NotATopicError("A topic needs a title; type what it is about.")
    if len(title) > LONGEST_TITLE:
        raise NotATopicError(f"A title has at most {LONGEST_TITLE} letters; put the rest into the description.")
    if len(said.description) > LONGEST_TEXT:
        raise NotATopicError(f"A description has at most {LONGEST_TEXT:,} letters; attach the rest as a file.")
    if said.due is not None:
        try:
            kept_day(said.due, "due date")
        except NotADayError as error:
            raise NotATopicError(str(error)) from error
    labels = tuple(dict.fromkeys(trimmed(label) for label in map(plain, said.labels) if trimmed(label)))
    if len(labels) > MOST_LABELS:
        raise NotATopicError(f"A topic has at most {MOST_LABELS} labels; take some away.")
    status = statuses.named(said.status).name if said.status.strip() else statuses.first
    texts = ("description", "kind", "priority", "assigned_to", "stage")
    tidied: dict[str, Any] = {name: trimmed(plain(getattr(said, name))) for name in texts}
    return replace(said, title=title, labels=labels, status=status, **tidied)


def changes(before: TopicFields, after: TopicFields) -> list[TopicChange]:
    """The fields in which two differ, in their order."""
    pairs = ((name, getattr(before, name), getattr(after, name)) for name in FIELDS)
    return [TopicChange(name, old, new) for name, old, new in pairs if old != new]


def changed(before: TopicFields, wish: Mapping[str, Value], statuses: Statuses) -> TopicFields:
    """A topic with some fields as they are wished for; its status may only follow where the project lets it."""
    unknown = [name for name in wish if name not in FIELDS]
    if unknown:
        raise NotATopicError(f"A topic has no {unknown[0]}; it has {', '.join(FIELDS)}.")
    if "status" not in wish:
        # One that came from elsewhere may be none of the project's; it stays until somebody chooses another.
        return replace(tidy(replace(before, **{**wish, "status": ""}), statuses), status=before.status)  # type: ignore[arg-type]
    after = tidy(replace(before, **wish), statuses)  # type: ignore[arg-type]
    return replace(after, status=statuses.followed(before.status, after.status))


@dataclass(frozen=True)
class Merged:
    """What two changes of the same topic come to, and the fields in which they contradict each other."""

    said: TopicFields
    contradicted: tuple[TopicChange, ...]


def merged(base: TopicFields, ours: TopicFields, theirs: TopicFields) -> Merged:
    """One topic that was changed on two sides, field by field.

    What one side changed counts; labels of both sides are joined, less those that one side took away; where both sides
    changed a field otherwise, ours stays and theirs is told (``old`` is ours, ``new`` theirs), so that nothing is lost.
    """
    out: dict[str, Value] = {}
    contradicted = []
    for name in FIELDS:
        was, one, other = (getattr(side, name) for side in (base, ours, theirs))
        if name == "labels":
            out[name] = _joined(was, one, other)
        elif other in (one, was):
            out[name] = one
        elif one == was:
            out[name] = other
        else:
            out[name] = one
            contradicted.append(TopicChange(name, one, other))
    return Merged(TopicFields(**out), tuple(contradicted))  # type: ignore[arg-type]


def _joined(base: Sequence[str], ours: Sequence[str], theirs: Sequence[str]) -> tuple[str, ...]:
    gone = {label for label in base if label not in ours or label not in theirs}
    return tuple(sorted({*ours, *theirs} - gone, key=str.casefold))


def overdue(said: TopicFields, today: date, statuses: Statuses) -> bool:
    """Whether it should have been settled before today and is not."""
    if said.due is None or said.due >= today:
        return False
    return not any(status.name == said.status and status.end for status in statuses.all)
