"""A thing by its id, together with the project that it belongs to: the one place where both are asked for.

Nothing is answered or changed by an id alone: the project must be in use, and where it is known already, the same.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Any, Generic

from stairpath.store import rows
from stairpath.store.events import Kind as Event
from stairpath.store.rows import Row
from stairpath.store.tables import (
    ComponentSet,
    Folder,
    Meeting,
    MeetingPoint,
    Model,
    SavedRoute,
    Task,
    Topic,
    TopicFile,
    Viewpoint,
)
from stairpath.work.base import versions
from stairpath.work.base.errors import GoneError, MissingError, WrongError
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import UnitOfWork


@dataclass(frozen=True)
class Kind(Generic[Row]):
    """A kind of thing: its rows, what people call it, the name of one of them, and the thing that it is a part of."""

    table: type[Row]
    noun: str
    title: Callable[[Row], str]
    event: Event
    """Of which kind a change to one is told."""
    whole: tuple[Kind[Any], str] | None = None
    """For a part: the kind of the whole, and the column with the whole's id."""


MODEL = Kind(Model, "model", lambda row: row.name, "models")
VIEWPOINT = Kind(Viewpoint, "viewpoint", lambda row: row.name, "viewpoints")
FOLDER = Kind(Folder, "folder", lambda row: row.name, "viewpoints")
SET = Kind(ComponentSet, "set", lambda row: row.name, "sets")
ROUTE = Kind(SavedRoute, "route", lambda row: row.name, "routes")
TASK = Kind(Task, "check or sheet", lambda row: row.name, "tasks")
TOPIC = Kind(Topic, "topic", lambda row: row.said.title, "topics")
TOPIC_FILE = Kind(TopicFile, "file", lambda row: row.name, "topics", (TOPIC, "topic_id"))
MEETING = Kind(Meeting, "meeting", lambda row: row.title, "meetings")
MEETING_POINT = Kind(MeetingPoint, "note", lambda row: row.text[:40], "meetings", (MEETING, "meeting_id"))


def find(
    act: UnitOfWork, kind: Kind[Row], row_id: str, within: str | None = None, hold: bool = False, removed: bool = False
) -> Row:
    """A thing of a project that is in use, held until the transaction ends if so wanted.

    MissingError for one that is not there or belongs to another project than ``within``; GoneError where the project
    is in the bin, or where the thing was deleted and deleted ones are not wanted; StaleError for one that
    is held to be changed and has no longer the version that the request names.
    """
    found: Any = rows.by_id(act.session, kind.table, row_id, hold)
    missing = MissingError(f"There is no such {kind.noun}. It may have been made in another project.")
    if found is None:
        raise missing
    if kind.whole is not None:
        whole, key = kind.whole
        find(act, whole, getattr(found, key), within, removed=removed)
    else:
        if within not in (None, found.project_id):
            raise missing
        in_use(act, found.project_id)
    if found.removed_at is not None and not removed:
        raise GoneError(f"The {kind.noun} {kind.title(found)} was deleted. Restore it first.")
    if hold:
        versions.check(act, row_id)
    row: Row = found
    return row


def all_within(act: UnitOfWork, kind: Kind[Any], ids: Iterable[str], project_id: str) -> list[str]:
    """Ids of things of a project, each once; WrongError where one is not there, was deleted or is of another project."""
    wanted = list(dict.fromkeys(ids))
    for each in wanted:
        try:
            find(act, kind, each, within=project_id)
        except (MissingError, GoneError):
            raise WrongError(f"One of the {kind.noun}s is not in this project any more. Choose again.") from None
    return wanted
