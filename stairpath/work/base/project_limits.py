"""How much a project may hold and holds: its own limits where somebody set them, or those of the server."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

from stairpath.core.project_limits import OverLimitError, ProjectLimits, Used, check_components, check_room, check_tasks
from stairpath.settings import settings
from stairpath.store import health, storage
from stairpath.store.tables import Project
from stairpath.work.base.errors import TooLargeError
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import UnitOfWork, read_only


def of_server() -> ProjectLimits:
    """The limits of a project for which nobody set others."""
    chosen = settings()
    return ProjectLimits(
        chosen.largest_file_mb, chosen.largest_unpacked_mb, chosen.project_storage_mb, chosen.project_components,
        chosen.project_tasks,
    )  # fmt: skip


def of(project: Project) -> ProjectLimits:
    """The limits of a project."""
    return project.limits or of_server()


def used(act: UnitOfWork, project_id: str) -> Used:
    """What a project holds."""
    return Used(
        storage.bytes_of(act.session, project_id),
        storage.components_of(act.session, project_id),
        storage.tasks_of(act.session, project_id),
    )


def shown(project_id: str) -> tuple[ProjectLimits, Used]:
    """What a project may hold and holds."""
    with read_only() as look:
        project = in_use(look, project_id)
        return of(project), used(look, project.id)


def limits_of(project_id: str) -> ProjectLimits:
    """The limits of a project that is in use."""
    with read_only() as look:
        return of(in_use(look, project_id))


@contextmanager
def _in_a_sentence() -> Iterator[None]:
    try:
        yield
    except OverLimitError as error:
        raise TooLargeError(str(error)) from error


def room_for(act: UnitOfWork, project: Project, name: str, size_bytes: int) -> None:
    """Raises TooLargeError where a file that somebody sends does not fit into the project or onto the server."""
    with _in_a_sentence():
        most = of(project)
        check_room(name, size_bytes, storage.bytes_of(act.session, project.id), most.storage_mb)
        if settings().server_storage_mb:
            kept = health.kept_bytes(act.session)
            check_room(name, size_bytes, kept, settings().server_storage_mb, "this server")


def room_for_components(act: UnitOfWork, project: Project, model_id: str, name: str, count: int) -> None:
    """Raises OverLimitError where a model that was read has more components than the project may have."""
    check_components(name, count, storage.components_of(act.session, project.id, but=model_id), of(project).components)


def room_for_task(act: UnitOfWork, project: Project) -> None:
    """Raises TooLargeError where so much of a project is not done that no more is taken."""
    with _in_a_sentence():
        check_tasks(storage.tasks_of(act.session, project.id), of(project).tasks)
