"""Model files: taking in, cancelling, reading again, taking out, correcting, choosing alternatives."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, datetime
from pathlib import PurePath
from typing import IO

import numpy as np

from stairpath.core.federation import alternatives
from stairpath.core.federation.alignment import Placement, by_points
from stairpath.core.federation.disciplines import CODES
from stairpath.core.geometry.origin import in_project
from stairpath.core.problems import CannotReadError
from stairpath.core.reading.intake import size_of, take_in
from stairpath.store import blobs, issues, models
from stairpath.store.projects import building_of
from stairpath.store.tables import Model as Model
from stairpath.store.tables import Project
from stairpath.work.base import project_limits
from stairpath.work.base.errors import UnfitError, WrongError
from stairpath.work.base.lookup import MODEL, find
from stairpath.work.base.project_rows import rows_of
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import UnitOfWork, Who, read_only, unit_of_work

_FARTHEST_M = 1e8


def listed(project_id: str, taken_out: bool = False) -> list[Model]:
    """The project's models, in order, or those that were taken out, the last first."""
    with read_only() as look:
        if taken_out:
            in_use(look, project_id)
            return models.removed_models(look.session, project_id)
        return rows_of(look, project_id).models


def _wait(model: Model) -> None:
    model.status, model.share, model.message, model.cancel = "waiting", 0.0, "", False


def _keep_file(act: UnitOfWork, project: Project, file_name: str, content: IO[bytes]) -> Model:
    name = PurePath(file_name).stem
    model = models.live_model_named(act.session, project.id, name)
    project_limits.room_for(act, project, file_name, size_of(content))
    sha, size = blobs.keep_stream(act.session, project.id, content, "application/x-step")
    if model is not None and model.file_sha == sha and model.status in ("waiting", "reading", "read"):
        return model  # the same file again: there is nothing to do that is not done or under way
    if model is None:
        model = models.add_model(act.session, project.id, name)
    elif model.status == "read":
        issues.keep_issue(act.session, model)
    model.file_name, model.file_sha, model.file_size = file_name, sha, size
    model.added_by, model.added_at = act.who.said, datetime.now(UTC)
    _wait(model)
    act.session.flush()
    act.read(model.id)
    return model


def keep_files(who: Who, project_id: str, files: Sequence[tuple[str, IO[bytes]]]) -> list[Model]:
    """Keep files that were looked at; a newer file of a model's name takes its place."""
    with unit_of_work(who) as act:
        project = in_use(act, project_id, hold=True)  # held, so that two at once do not become two models
        kept = [_keep_file(act, project, name, content) for name, content in files]
        project.begun = True
        act.tell(project.id, "models")
        return kept


def take_in_file(who: Who, project_id: str, file_name: str, content: IO[bytes]) -> list[Model]:
    """Look at a file as it arrived, and keep it and have it read; an archive gives every model in it.

    Raises WrongError with what is wrong with the file.
    """
    most = project_limits.limits_of(project_id).intake
    try:
        with take_in(file_name, content, most) as files:
            return keep_files(who, project_id, files)
    except CannotReadError as error:
        raise WrongError(str(error)) from error


def cancel(who: Who, model_id: str) -> None:
    """Stop reading a model; one that still waits is not begun."""
    with unit_of_work(who) as act:
        model = find(act, MODEL, model_id, hold=True, removed=True)
        if model.status == "waiting":
            model.status = "cancelled"
            model.message = f"{model.file_name} was cancelled; read it again when you want it."
        elif model.status == "reading":
            model.cancel = True
        else:
            raise UnfitError(f"{model.file_name} is not being read; there is nothing to cancel.")
        act.tell(model.project_id, "models", what=model.id)


def read_again(who: Who, model_id: str) -> None:
    """Read a model's file again."""
    with unit_of_work(who) as act:
        model = find(act, MODEL, model_id, hold=True, removed=True)
        if model.removed_at is not None:
            raise UnfitError(f"{model.name} was removed. Restore it first.")
        if model.status in ("waiting", "reading"):
            raise UnfitError(f"{model.file_name} is being read already; wait for it or cancel it.")
        _wait(model)
        act.read(model.id)
        act.tell(model.project_id, "models", what=model.id)


def take_out(who: Who, model_id: str) -> None:
    """Take a model out of the federation; it can be brought back."""
    with unit_of_work(who) as act:
        project = in_use(act, find(act, MODEL, model_id, removed=True).project_id, hold=True)
        model = find(act, MODEL, model_id, hold=True, removed=True)
        if model.removed_at is not None:
            return
        model.removed_at = datetime.now(UTC)
        act.federate(project)
        act.tell(project.id, "models", "federation", what=model.id)


def bring_back(who: Who, model_id: str) -> None:
    """Bring back a model that was taken out; one that was not read yet is read."""
    with unit_of_work(who) as act:
        project = in_use(act, find(act, MODEL, model_id, removed=True).project_id, hold=True)
        model = find(act, MODEL, model_id, hold=True, removed=True)
        if model.removed_at is None:
            return
        if models.live_model_named(act.session, project.id, model.name) is not None:
            raise UnfitError(f"There is another {model.name} now. Remove that one first.")
        model.removed_at = None
        if model.status in ("waiting", "reading"):
            _wait(model)
            act.read(model.id)
        act.federate(project)
        act.tell(project.id, "models", "federation", what=model.id)


def let_stand(who: Who, model_id: str) -> None:
    """Let an alternative stand in the building, in place of the others for the same thing."""
    with unit_of_work(who) as act:
        project = in_use(act, find(act, MODEL, model_id, removed=True).project_id, hold=True)
        model = find(act, MODEL, model_id, hold=True, removed=True)
        mine = alternatives.by_file_name(model.name)
        if mine is None:
            raise UnfitError(f"{model.name} is not an alternative. It is always in use.")
        for other in models.live_models(act.session, project.id):
            theirs = alternatives.by_file_name(other.name)
            if theirs is not None and theirs.what == mine.what:
                other.chosen = other.stands = other.id == model.id
        project.version += 1
        act.federate(project)  # the key plans and the walk map show what stands
        act.tell(project.id, "models", "federation", what=model.id)


def _of_read(act: UnitOfWork, model_id: str) -> tuple[Project, Model]:
    project = in_use(act, find(act, MODEL, model_id, removed=True).project_id, hold=True)
    model = find(act, MODEL, model_id, hold=True, removed=True)
    if not model.is_read:
        raise UnfitError(f"{model.name} has not been read yet; wait for it.")
    return project, model


def correct_discipline(who: Who, model_id: str, code: str | None) -> None:
    """Say which discipline a model is, for the whole project; None goes back to what its file says."""
    if code is not None and code not in CODES:
        raise WrongError(f"{code} is not a discipline; choose one of {', '.join(CODES)}.")
    with unit_of_work(who) as act:
        project, model = _of_read(act, model_id)
        model.discipline_rule = code
        act.federate(project)
        act.tell(project.id, "models", what=model.id)


def align(who: Who, model_id: str, placement: Placement | None) -> None:
    """Say how a model is aligned; None goes back to the evidence."""
    if placement is not None and not all(abs(v) <= _FARTHEST_M for v in (*placement.shift_m, placement.rotation_deg)):
        raise WrongError("The shift is larger than anything on earth; give metres in the project's coordinates.")
    with unit_of_work(who) as act:
        project, model = _of_read(act, model_id)
        if placement is not None and placement.by == "map" and (model.frame is None or not model.frame.map_conversion):
            raise UnfitError(f"{model.name} has no map conversion; choose another way to align it.")
        model.placement = placement
        act.federate(project)
        act.tell(project.id, "models", what=model.id)


def align_by_points(who: Who, model_id: str, own: list[list[float]], there: list[list[float]]) -> Placement:
    """Align a model by two of its points, as they stand now, and their places, both about the project's origin."""
    with read_only() as act:
        project, model = _of_read(act, model_id)
        if model.placed is None:
            raise UnfitError(f"{model.name} is being aligned. Try again in a moment.")
        matrix, origin = np.array(model.placed.matrix), building_of(project).origin_m
    back = (in_project(own, origin) - matrix[:3, 3]) @ matrix[:3, :3]
    try:
        turn, shift = by_points(back, in_project(there, origin))
    except ValueError as error:
        raise WrongError(str(error)) from error
    placement = Placement("hand", turn, shift, who.said)
    align(who, model_id, placement)
    return placement
