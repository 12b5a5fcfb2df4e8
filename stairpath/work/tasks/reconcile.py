"""What nobody asks for: whatever is wanted and has no job gets one, and what is long over is forgotten."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

from stairpath.core.files import sweep
from stairpath.store import kept, models, projects, queue, walks
from stairpath.store.federations import SUMMARY
from stairpath.work.base.unit_of_work import WORKER, unit_of_work

_FORGET_JOBS_H = 48
_FORGET_UNBEGUN = timedelta(days=1)


def find_work() -> int:
    """Give a job to every model or task that waits, every building that is wanted otherwise, and every old map.

    Whatever lost its job, by a kill, a restore or a fault, is found by what the rows say. Returns how many there were.
    """
    with unit_of_work(WORKER) as act:
        found = 0
        for model_id in models.unfinished(act.session):
            if not queue.is_alive(act.session, f"read-{model_id}"):
                act.read(model_id)
                found += 1
        wanted = projects.to_federate(act.session, SUMMARY)
        for project_id in wanted:
            if not queue.is_alive(act.session, f"federate-{project_id}"):
                act.put_federation(project_id)
                found += 1
        for project in projects.federated_projects(act.session):
            if project.id in wanted or walks.is_current(project):
                continue
            if not queue.is_alive(act.session, f"walks-{project.id}"):
                act.map_walks(project.id)
                found += 1
        for task in kept.unfinished_tasks(act.session):
            if not queue.is_alive(act.session, f"task-{task.id}"):
                act.run(task.id)
                found += 1
        return found


def forget() -> None:
    """Forget jobs that ended long ago, projects made for files that never came, and files of processes that are gone."""
    sweep()
    with unit_of_work(WORKER) as act:
        queue.forget_old(act.session, _FORGET_JOBS_H)
        projects.forget_unbegun(act.session, datetime.now(UTC) - _FORGET_UNBEGUN)


def take_up(silence_s: float, worker: int | None, running: list[int]) -> int:
    """Put back the jobs of workers that are dead, and what this worker has by the queue but not in hand."""
    with unit_of_work(WORKER) as act:
        return queue.take_up(act.session, silence_s, worker, running)


def is_known_alive(worker: int, silence_s: float) -> bool:
    """Whether the queue still counts a worker as alive."""
    with unit_of_work(WORKER) as act:
        age = queue.heartbeat_age_s(act.session, worker)
        return age is not None and age < silence_s
