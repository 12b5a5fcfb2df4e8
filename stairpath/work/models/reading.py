"""Reading a model: the job that a file which was taken in waits for."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path

import structlog

from stairpath.core.files import scratch_folder
from stairpath.core.prepare import prepare
from stairpath.core.problems import CannotReadError
from stairpath.core.project_limits import OverLimitError
from stairpath.core.reading.sandboxed import why_not
from stairpath.core.sandbox import CancelledError, Progress, UnfinishedError, run_sandboxed
from stairpath.store import blobs, federations, models, readings
from stairpath.work.base import project_limits
from stairpath.work.base.limits import limits
from stairpath.work.base.unit_of_work import WORKER, UnitOfWork, unit_of_work
from stairpath.work.models.federating import keep_together, together

log = structlog.get_logger()

_TELL_EVERY_S = 0.25


def _reporter(model_id: str, file_sha: str) -> tuple[Progress, Callable[[], bool]]:
    """Progress to the row, at most four times a second; back from it, whether to stop.

    Reading stops when the user cancels it, takes the model out, or sends a newer file.
    """
    last = 0.0
    stop = False

    def visit(share: float | None) -> None:
        nonlocal last, stop
        now = time.monotonic()
        if now - last < _TELL_EVERY_S:
            return
        last = now
        with unit_of_work(WORKER) as act:
            model = models.model_by_id(act.session, model_id)
            stop = model is None or model.cancel or model.removed_at is not None or model.file_sha != file_sha
            if model is not None and not stop and share is not None and share > model.share:
                model.share = share
                act.tell(model.project_id, "models", what=model.id)

    def cancelled() -> bool:
        visit(None)
        return stop

    return lambda share, global_id: visit(share), cancelled


def _finish(model_id: str, file_sha: str, status: str, message: str) -> None:
    with unit_of_work(WORKER) as act:
        model = models.model_by_id(act.session, model_id, hold=True)
        if model is not None and model.file_sha == file_sha:
            model.status, model.message, model.cancel = status, message, False
            act.tell(model.project_id, "models", what=model.id)


def read_and_keep(name: str, source: Path, model_id: str, file_sha: str, silence_s: float, report: Progress) -> None:
    """Read a file and keep what was read, in a child process.

    What is read first is put on the queue to be put together with the others; what takes the place of an earlier issue
    is put together at once, so that the earlier one stands in the building until the newer one does.
    """
    prepared = prepare(name, source, report, silence_s)
    with unit_of_work(WORKER) as act:
        known = models.model_by_id(act.session, model_id)
        if known is None:
            return
        project_id, made = known.project_id, None
        try:
            count = len(prepared.reading.components)
            project_limits.room_for_components(act, act.project(project_id), model_id, name, count)
        except OverLimitError as error:
            raise CannotReadError(str(error)) from error
        if known.is_read:
            federations.hold(act.session, project_id)
            fresh = {model_id: replace(prepared.outline, name=known.name)}
            made = together(act, act.project(project_id), lambda share, at: report(1.0, at), fresh)
        project = act.project(project_id, hold=True)
        model = act.model(model_id, hold=True)
        if model.removed_at is not None or model.file_sha != file_sha:
            return  # a newer file has a job of its own
        readings.keep_reading(act.session, model, prepared)
        if made is None:
            act.federate(project)
        else:
            project.wanted += 1
            keep_together(act, project, replace(made, wanted=made.wanted + 1))
        act.tell(project.id, "models", "project", what=model.id)


def _spooled(act: UnitOfWork, sha: str, into: Path) -> bool:
    """Write a kept file to disk, a piece at a time; False if it is no longer kept."""
    if not blobs.is_kept(act.session, sha):
        return False
    with into.open("wb") as out:
        for piece in blobs.pieces(act.session, sha):
            out.write(piece)
    return True


def read(model_id: str) -> None:
    """Read a model's file and keep what was read; a file that cannot be read says why."""
    with scratch_folder() as folder:
        path = folder / "model.ifc"
        with unit_of_work(WORKER) as act:
            model = models.model_by_id(act.session, model_id, hold=True)
            if model is None or model.removed_at is not None or model.status not in ("waiting", "reading"):
                return
            if not _spooled(act, model.file_sha, path):
                model.status, model.message = "failed", f"{model.file_name} is no longer kept; add it again."
                act.tell(model.project_id, "models", what=model.id)
                return
            model.status, model.share, model.message = "reading", 0.0, ""
            name, file_sha = model.file_name, model.file_sha
            act.tell(model.project_id, "models", what=model.id)
        report, cancelled = _reporter(model_id, file_sha)
        try:
            allowed = limits()
            run_sandboxed(
                read_and_keep, name, path, model_id, file_sha, allowed.silence_s,
                limits=allowed, on_progress=report, cancelled=cancelled,
            )  # fmt: skip
        except CannotReadError as error:
            _finish(model_id, file_sha, "failed", str(error))
        except CancelledError:
            _finish(model_id, file_sha, "cancelled", f"{name} was cancelled; read it again when you want it.")
        except UnfinishedError as error:
            log.warning("reading did not end well", model=name, reason=str(error), trace=getattr(error, "trace", ""))
            _finish(model_id, file_sha, "failed", why_not(name, error))
