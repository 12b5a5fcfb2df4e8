"""The jobs: reading a model, federating a project. Each is safe to run twice."""

from __future__ import annotations

import time
from collections.abc import Callable

import structlog
from procrastinate import JobContext
from procrastinate.manager import JobManager
from sqlalchemy import select

from stairpath.core.mesh.picture import draw_picture
from stairpath.core.mesh.prepare import prepare
from stairpath.core.problems import CannotReadError
from stairpath.core.reading.apart import Patience, ReadingCancelledError, read_apart
from stairpath.jobs.queue import HEARTBEAT_LOST_S, READING, app, defer
from stairpath.settings import settings
from stairpath.store import blobs, federations, readings, walks
from stairpath.store.database import tell, transaction
from stairpath.store.tables import Model, Project

log = structlog.get_logger()

_TELL_EVERY_S = 0.25


def _reporter(model_id: str, file_sha: str) -> tuple[Callable[[float, str], None], Callable[[], bool]]:
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
        with transaction() as session:
            model = session.get(Model, model_id)
            stop = model is None or model.cancel or model.removed_at is not None or model.file_sha != file_sha
            if model is not None and not stop and share is not None:
                model.share = share
                tell(session, model.project_id)

    def cancelled() -> bool:
        visit(None)
        return stop

    return lambda share, global_id: visit(share), cancelled


def _finish(model_id: str, file_sha: str, status: str, message: str) -> None:
    with transaction() as session:
        model = session.get(Model, model_id)
        if model is not None and model.file_sha == file_sha:
            model.status, model.message, model.cancel = status, message, False
            tell(session, model.project_id)


@app.task(name="read_model", queue=READING)
def read_model(model_id: str) -> None:
    """Read a model's file and keep what was read; a file that cannot be read says why."""
    with transaction() as session:
        model = session.get(Model, model_id)
        if model is None or model.removed_at is not None or model.status in ("read", "cancelled"):
            return
        kept = blobs.load(session, model.file_sha)
        if kept is None:
            model.status, model.message = "failed", f"{model.file_name} is no longer kept; add it again."
            return
        model.status, model.share, model.message = "reading", 0.0, ""
        name, file_sha, project_id = model.file_name, model.file_sha, model.project_id
        tell(session, project_id)
    report, cancelled = _reporter(model_id, file_sha)
    patience = Patience(settings().reading_total_s, settings().reading_silence_s)
    try:
        prepared = read_apart(name, kept[0], patience, report, cancelled, read=prepare)
    except CannotReadError as error:
        log.info("model cannot be read", model=name, reason=str(error))
        _finish(model_id, file_sha, "failed", str(error))
        return
    except ReadingCancelledError:
        _finish(model_id, file_sha, "cancelled", f"{name} was cancelled; read it again when you want it.")
        return
    with transaction() as session:
        model = session.get(Model, model_id, with_for_update=True)
        if model is None or model.removed_at is not None or model.file_sha != file_sha:
            return  # a newer file has a job of its own
        readings.keep_reading(session, model, prepared)
        tell(session, project_id)
    defer_federation(project_id)


@app.task(name="federate_project", queue=READING)
def federate_project(project_id: str) -> None:
    """Bring all models of a project together and draw its picture anew."""
    with transaction() as session:
        federation = federations.refederate(session, project_id)
        project = session.get(Project, project_id)
        if federation is None or project is None:
            return
        picture = draw_picture(federation)
        project.picture = None if picture is None else blobs.keep(session, picture, "image/png")
        tell(session, project_id)
    defer_walks(project_id)


@app.task(name="map_walks", queue=READING)
def map_walks(project_id: str) -> None:
    """Make the walk map's tiles that changed since they were made."""
    with transaction() as session:
        project = session.get(Project, project_id)
        if project is None or project.federation is None or walks.is_current(project):
            return
        made_for = walks.wanted_map(project)
        building = walks.load_building(session, project)
        bodies = list(walks.bodies_of(project).values())
        kept = walks.kept_prints(session, project_id)
    made = walks.make_tiles(building, bodies, kept)
    with transaction() as session:
        project = session.get(Project, project_id, with_for_update=True)
        if project is None or walks.wanted_map(project) != made_for:
            return  # what changed meanwhile has a job of its own
        walks.keep_map(session, project, building, made, made_for)
        tell(session, project_id)
    log.info("walk map made", project=project_id, made=len(made.tiles), kept=made.kept, seconds=round(made.seconds, 2))


def defer_reading(model_id: str) -> None:
    """Put the reading of a model on the queue, once."""
    defer("read_model", f"read-{model_id}", model_id=model_id)


def defer_federation(project_id: str) -> None:
    """Put federating on the queue; one that is waiting already will see this change too."""
    defer("federate_project", f"federate-{project_id}", priority=-1, project_id=project_id)


def defer_walks(project_id: str) -> None:
    """Put making the walk map on the queue, behind federating."""
    defer("map_walks", f"walks-{project_id}", priority=-2, project_id=project_id)


@app.periodic(cron="* * * * *")
@app.task(name="take_up_stalled", queue=READING, queueing_lock="take-up-stalled", pass_context=True)
async def take_up_stalled(context: JobContext, timestamp: int) -> None:
    """Run again what a worker left behind when it died."""
    await take_up(context.app.job_manager)


async def take_up(manager: JobManager) -> None:
    """Retry jobs whose worker's heart has stopped."""
    for job in await manager.get_stalled_jobs(seconds_since_heartbeat=HEARTBEAT_LOST_S):
        await manager.retry_job(job)


def defer_left_behind() -> None:
    """At a worker's start: models that wait or were being read, and projects federated by an older
    version, get a job.
    """
    with transaction() as session:
        waiting = session.scalars(
            select(Model.id).where(Model.status.in_(("waiting", "reading")), Model.removed_at.is_(None))
        ).all()
        outdated = federations.outdated_projects(session)
        unmapped = [project_id for project_id in walks.outdated_maps(session) if project_id not in outdated]
    for model_id in waiting:
        defer_reading(model_id)
    for project_id in outdated:
        defer_federation(project_id)
    for project_id in unmapped:
        defer_walks(project_id)
