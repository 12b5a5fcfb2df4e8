"""Noting that a building could not be put together or mapped, so that it is said and not tried for ever."""

from __future__ import annotations

import structlog

from stairpath.core.sandbox import CrashedError, TooLongError, TooMuchMemoryError, UnfinishedError
from stairpath.store import projects
from stairpath.work.base.unit_of_work import WORKER, unit_of_work

log = structlog.get_logger()


def why(error: UnfinishedError) -> str:
    """Why work did not come to its end, as part of a sentence."""
    match error:
        case TooMuchMemoryError():
            return f"that needs more than the {error.limit_mb} MB of memory that it may take"
        case TooLongError():
            return f"that took longer than allowed ({error.seconds:.0f} s)"
        case CrashedError():
            return f"the process that did it died{f' ({error.signal_name})' if error.signal_name else ''}"
    return str(error)


_ADVICE: dict[type[UnfinishedError], str] = {
    CrashedError: "It was tried several times. Try again, and free memory on the server if it happens again.",
    TooMuchMemoryError: "Remove a model, or ask for a higher limit.",
    TooLongError: "Remove a model, or ask for a higher limit.",
}
_OTHERWISE = "Remove the model that was added last, or align it another way."


def note_trouble(project_id: str, wanted: int, what: str, error: UnfinishedError) -> None:
    """Keep why a project's building could not be made, unless it is wanted otherwise by now."""
    log.warning(what, project=project_id, reason=str(error), trace=getattr(error, "trace", ""))
    with unit_of_work(WORKER) as act:
        project = projects.project_by_id(act.session, project_id, hold=True)
        if project is None or project.wanted != wanted:
            return
        project.trouble = f"{what}: {why(error)}. {_ADVICE.get(type(error), _OTHERWISE)}"
        project.making = None
        act.tell(project_id, "project", "walking")
