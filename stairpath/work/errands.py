"""Errands: long work that somebody asks for, its progress, its end, and what came of it."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import replace
from datetime import UTC, datetime

import structlog

from stairpath.core.apart import CancelledError, Progress, UnfinishedError, run_apart
from stairpath.core.cutting.sheet.wish import SheetWish
from stairpath.core.exchange.wish import TopicsIn
from stairpath.core.measuring.check import Check
from stairpath.store import blobs, kept
from stairpath.store.tables import Errand
from stairpath.work import checking, drawing, exchange_in
from stairpath.work.deed import WORKER, Who, deed, looking
from stairpath.work.owned import TASK, find
from stairpath.work.projects import in_use
from stairpath.work.reading import limits
from stairpath.work.refusals import MissingError, UnfitError
from stairpath.work.trouble import why

Wish = Check | SheetWish | TopicsIn
log = structlog.get_logger()

_TELL_EVERY_S = 0.4
_DOERS: dict[str, Callable[..., None]] = {
    "check": checking.find_findings,
    "sheet": drawing.draw_sheet,
    "topics": exchange_in.take_in,
}


def listed(project_id: str) -> list[Errand]:
    """The project's checks and sheets, newest first."""
    with looking() as look:
        project = in_use(look, project_id)
        return kept.errands(look.session, project.id)


def ask(who: Who, project_id: str, name: str, wish: Check | SheetWish) -> Errand:
    """Ask for a check or a sheet; a job runs it."""
    with deed(who) as act:
        project = in_use(act, project_id)
        if project.federation is None:
            raise UnfitError("There is no model yet; add one and wait until it is read.")
        row = Errand(project_id=project.id, name=name.strip() or "Untitled", author=who.said, wish=wish)
        kept.add(act.session, row)
        act.run(row.id)
        act.tell(project.id, "errands", what=row.id)
        return row


def ask_again(who: Who, errand_id: str, wish: Wish | None = None) -> Errand:
    """Ask for a check or a sheet once more, of the building as it is now; or with another wish of the same kind."""
    with deed(who) as act:
        row = find(act, TASK, errand_id, hold=True, removed=True)
        if wish is not None:
            if wish.kind != row.wish.kind:
                raise UnfitError("A check stays a check and a sheet a sheet; ask for a new one.")
            if isinstance(wish, TopicsIn) and isinstance(row.wish, TopicsIn):
                # The file is the one that was sent; only where its views are may be corrected.
                wish = replace(row.wish, shift_m=wish.shift_m)
            row.wish = wish
        row.asked += 1
        row.status, row.share, row.message, row.stop = "waiting", 0.0, "", False
        act.run(row.id)
        act.tell(row.project_id, "errands", what=row.id)
        return row


def stop(who: Who, errand_id: str) -> None:
    """Have a check or a sheet that waits or runs stopped; what it came to before stays."""
    with deed(who) as act:
        row = find(act, TASK, errand_id, hold=True, removed=True)
        if row.status == "waiting":
            row.status, row.message = "stopped", _STOPPED
        elif row.status == "running":
            row.stop = True
        act.tell(row.project_id, "errands", what=row.id)


_STOPPED = "It was stopped; run it again when you want it."


def rename(who: Who, errand_id: str, name: str) -> None:
    """Call a check or a sheet otherwise."""
    with deed(who) as act:
        row = find(act, TASK, errand_id, removed=True)
        row.name = name.strip() or row.name
        act.tell(row.project_id, "errands", what=row.id)


def delete(who: Who, errand_id: str) -> None:
    """Delete a check or a sheet; it can be brought back."""
    with deed(who) as act:
        row = find(act, TASK, errand_id, hold=True, removed=True)
        row.removed_at = datetime.now(UTC)
        row.stop = row.status == "running"
        act.tell(row.project_id, "errands", what=row.id)


def bring_back(who: Who, errand_id: str) -> None:
    """Bring back one that was deleted."""
    with deed(who) as act:
        row = find(act, TASK, errand_id, hold=True, removed=True)
        row.removed_at = None
        act.tell(row.project_id, "errands", what=row.id)


def result(errand_id: str, name: str) -> tuple[bytes, str, str]:
    """What came of an errand by the name of the part: its bytes, their media type, and the errand's own name."""
    with looking() as look:
        row = find(look, TASK, errand_id, removed=True)
        found = blobs.load(look.session, row.results[name]) if name in row.results else None
        if found is None:
            raise MissingError("That is not made yet; wait until it is done, or run it again.")
        return found[0], found[1], row.name


def _teller(errand_id: str, asked: int) -> tuple[Progress, Callable[[], bool]]:
    """Progress to the row, and whether to stop: it was stopped, deleted or asked for anew."""
    last = 0.0
    ended = False

    def visit(said: tuple[float, str] | None) -> None:
        nonlocal last, ended
        now = time.monotonic()
        if now - last < _TELL_EVERY_S:
            return
        last = now
        with deed(WORKER) as act:
            row = kept.errand_by_id(act.session, errand_id, hold=True)
            ended = row is None or row.stop or row.removed_at is not None or row.asked != asked
            # What it came to may be kept by now; how far it was is of no use then.
            if row is not None and not ended and said is not None and row.status == "running":
                row.share, row.message = said
                act.tell(row.project_id, "errands", what=row.id)

    def stopped() -> bool:
        visit(None)
        return ended

    return lambda share, text: visit((share, text)), stopped


def _end(errand_id: str, asked: int, status: str, message: str) -> None:
    with deed(WORKER) as act:
        row = kept.errand_by_id(act.session, errand_id, hold=True)
        if row is not None and row.asked == asked:
            row.status, row.message, row.stop = status, message, False
            act.tell(row.project_id, "errands", what=row.id)


def run(errand_id: str) -> None:
    """Run an errand in a child process; where that does not end well it says why."""
    with deed(WORKER) as act:
        row = kept.errand_by_id(act.session, errand_id, hold=True)
        if row is None or row.removed_at is not None or row.status not in ("waiting", "running"):
            return
        row.status, row.share, row.message = "running", 0.0, ""
        asked, kind = row.asked, row.wish.kind
        act.tell(row.project_id, "errands", what=row.id)
    report, stopped = _teller(errand_id, asked)
    try:
        run_apart(_DOERS[kind], errand_id, asked, limits=limits(), on_progress=report, cancelled=stopped)
    except CancelledError:
        _end(errand_id, asked, "stopped", _STOPPED)
    except UnfitError as error:
        _end(errand_id, asked, "failed", str(error))
    except UnfinishedError as error:
        log.warning(
            "an errand did not end well", errand=errand_id, reason=str(error), trace=getattr(error, "trace", "")
        )
        _end(errand_id, asked, "failed", f"It came to no end: {why(error)}. Run it again, or ask for less.")
