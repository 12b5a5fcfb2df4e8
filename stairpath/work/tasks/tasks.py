"""Tasks: long work that somebody asks for, its progress, its end, and what came of it."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import replace
from datetime import UTC, datetime

import structlog

from stairpath.core.exchange.import_request import TopicsIn
from stairpath.core.measuring.check import Check
from stairpath.core.people.roles import Action
from stairpath.core.review.sheet_request import SheetRequest
from stairpath.core.sandbox import CancelledError, Progress, UnfinishedError, run_sandboxed
from stairpath.core.texts import trimmed
from stairpath.store import blobs, kept
from stairpath.store.tables import Task as Task
from stairpath.work.base import project_limits
from stairpath.work.base.errors import MissingError, UnfitError
from stairpath.work.base.failures import why
from stairpath.work.base.limits import limits
from stairpath.work.base.lookup import TASK, find
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import WORKER, Who, read_only, unit_of_work
from stairpath.work.exchange import importing
from stairpath.work.people import access
from stairpath.work.tasks import checks, sheets

TaskRequest = Check | SheetRequest | TopicsIn
log = structlog.get_logger()

_TELL_EVERY_S = 0.4
_ACTIONS = {"check": Action.RUN_TASKS, "sheet": Action.RUN_TASKS, "topics": Action.EXCHANGE}
_DOERS: dict[str, Callable[..., None]] = {
    "check": checks.find_findings,
    "sheet": sheets.draw_sheet,
    "topics": importing.take_in,
}


def listed(project_id: str) -> list[Task]:
    """The project's checks and sheets, newest first."""
    with read_only() as look:
        project = in_use(look, project_id)
        return kept.tasks(look.session, project.id)


def ask(who: Who, project_id: str, name: str, wish: Check | SheetRequest) -> Task:
    """Ask for a check or a sheet; a job runs it."""
    with unit_of_work(who) as act:
        project = in_use(act, project_id)
        if project.federation is None:
            raise UnfitError("There is no model yet; add one and wait until it is read.")
        project_limits.room_for_task(act, project)
        row = Task(
            project_id=project.id, name=trimmed(name) or "Untitled", author=who.said, asked_by=who.person_id, wish=wish
        )
        kept.add(act.session, row)
        act.run(row.id)
        act.tell(project.id, "tasks", what=row.id)
        return row


def ask_again(who: Who, task_id: str, wish: TaskRequest | None = None) -> Task:
    """Ask for a check or a sheet again, of the present building, or with another request of the same kind."""
    with unit_of_work(who) as act:
        row = find(act, TASK, task_id, hold=True, removed=True)
        if wish is not None:
            if wish.kind != row.wish.kind:
                raise UnfitError("A check cannot become a sheet, nor a sheet a check. Make a new one.")
            if isinstance(wish, TopicsIn) and isinstance(row.wish, TopicsIn):
                # The file is the one that was sent; how it is imported may be another.
                words = row.wish.words.joined(wish.words)
                wish = replace(row.wish, shift_m=wish.shift_m, preview=wish.preview, words=words)
            row.wish = wish
        if row.status not in ("waiting", "running"):
            project_limits.room_for_task(act, act.project(row.project_id))
        row.asked += 1
        row.asked_by = who.person_id
        row.status, row.share, row.message, row.stop = "waiting", 0.0, "", False
        act.run(row.id)
        act.tell(row.project_id, "tasks", what=row.id)
        return row


def stop(who: Who, task_id: str) -> None:
    """Have a check or a sheet that waits or runs stopped; what it came to before stays."""
    with unit_of_work(who) as act:
        row = find(act, TASK, task_id, hold=True, removed=True)
        if row.status == "waiting":
            row.status, row.message = "stopped", _STOPPED
        elif row.status == "running":
            row.stop = True
        act.tell(row.project_id, "tasks", what=row.id)


_STOPPED = "It was stopped. Run it again when you need it."


def rename(who: Who, task_id: str, name: str) -> None:
    """Call a check or a sheet otherwise."""
    with unit_of_work(who) as act:
        row = find(act, TASK, task_id, removed=True)
        row.name = trimmed(name) or row.name
        act.tell(row.project_id, "tasks", what=row.id)


def delete(who: Who, task_id: str) -> None:
    """Delete a check or a sheet; it can be brought back."""
    with unit_of_work(who) as act:
        row = find(act, TASK, task_id, hold=True, removed=True)
        row.removed_at = datetime.now(UTC)
        row.stop = row.status == "running"
        act.tell(row.project_id, "tasks", what=row.id)


def result(task_id: str, name: str) -> tuple[bytes, str, str]:
    """What came of a task by the name of the part: its bytes, their media type, and the task's own name."""
    with read_only() as look:
        row = find(look, TASK, task_id, removed=True)
        found = blobs.load(look.session, row.results[name]) if name in row.results else None
        if found is None:
            raise MissingError("There is no result yet. Wait until it is done, or run it again.")
        return found[0], found[1], row.name


def _teller(task_id: str, asked: int) -> tuple[Progress, Callable[[], bool]]:
    """Progress to the row, and whether to stop: it was stopped, deleted or asked for anew."""
    last = 0.0
    ended = False

    def visit(said: tuple[float, str] | None) -> None:
        nonlocal last, ended
        now = time.monotonic()
        if now - last < _TELL_EVERY_S:
            return
        last = now
        with unit_of_work(WORKER) as act:
            row = kept.task_by_id(act.session, task_id, hold=True)
            ended = row is None or row.stop or row.removed_at is not None or row.asked != asked
            # What it came to may be kept by now; how far it was is of no use then.
            if row is not None and not ended and said is not None and row.status == "running":
                row.share, row.message = said
                act.tell(row.project_id, "tasks", what=row.id)

    def stopped() -> bool:
        visit(None)
        return ended

    return lambda share, text: visit((share, text)), stopped


def _end(task_id: str, asked: int, status: str, message: str) -> None:
    with unit_of_work(WORKER) as act:
        row = kept.task_by_id(act.session, task_id, hold=True)
        if row is not None and row.asked == asked:
            row.status, row.message, row.stop = status, message, False
            act.tell(row.project_id, "tasks", what=row.id)


def run(task_id: str) -> None:
    """Run a task in a child process; where that does not end well it says why."""
    with unit_of_work(WORKER) as act:
        row = kept.task_by_id(act.session, task_id, hold=True)
        if row is None or row.removed_at is not None or row.status not in ("waiting", "running"):
            return
        if not access.still_may(act, row.asked_by, row.project_id, _ACTIONS[row.wish.kind]):
            row.status, row.message = "failed", "Who asked for it may not run it any more. Somebody else runs it again."
            act.tell(row.project_id, "tasks", what=row.id)
            return
        row.status, row.share, row.message = "running", 0.0, ""
        asked, kind = row.asked, row.wish.kind
        act.tell(row.project_id, "tasks", what=row.id)
    report, stopped = _teller(task_id, asked)
    try:
        run_sandboxed(_DOERS[kind], task_id, asked, limits=limits(), on_progress=report, cancelled=stopped)
    except CancelledError:
        _end(task_id, asked, "stopped", _STOPPED)
    except UnfitError as error:
        _end(task_id, asked, "failed", str(error))
    except UnfinishedError as error:
        log.warning("a task did not end well", task=task_id, reason=str(error), trace=getattr(error, "trace", ""))
        _end(task_id, asked, "failed", f"It did not finish: {why(error)}. Run it again, or narrow it.")
