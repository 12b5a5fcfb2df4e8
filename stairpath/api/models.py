"""Model files: adding, cancelling, reading again, taking away, choosing alternatives."""

from __future__ import annotations

import tempfile
from datetime import UTC, datetime
from pathlib import PurePath
from typing import Annotated
from urllib.parse import unquote

from fastapi import APIRouter, Header, HTTPException, Request
from fastapi.concurrency import run_in_threadpool
from sqlalchemy import func, select

from stairpath.api import shapes
from stairpath.api.lookups import Database, TheModel, TheProject, model_of
from stairpath.core.federation.disciplines import CODES
from stairpath.core.problems import CannotReadError
from stairpath.core.reading.intake import Limits, megabytes, take_in
from stairpath.jobs.tasks import defer_federation, defer_reading
from stairpath.settings import settings
from stairpath.store.database import tell, transaction
from stairpath.store.federations import choose_alternative, live_models, set_discipline
from stairpath.store.files import add_file
from stairpath.store.tables import Component, Model, Project

router = APIRouter(prefix="/api", tags=["models"])


def _card(model: Model, components: int) -> shapes.ModelCard:
    placed, frame = model.placed or {}, model.frame or {}
    alternative = placed.get("alternative") or {}
    return shapes.ModelCard(
        id=model.id,
        name=model.name,
        file_name=model.file_name,
        file_size=model.file_size,
        status=model.status,
        share=model.share,
        message=model.message,
        added_by=model.added_by,
        added_at=model.added_at,
        schema_name=frame.get("schema"),
        length_unit=frame.get("length_unit"),
        components=components,
        triangles=frame.get("triangles", 0),
        discipline=placed.get("discipline"),
        discipline_set=model.discipline_rule is not None,
        alternative_what=alternative.get("what"),
        alternative_option=alternative.get("option"),
        stands=model.stands,
        aligned_by=placed.get("by"),
        aligned_reason=placed.get("reason"),
        rotation_deg=placed.get("rotation_deg"),
        shift_m=placed.get("shift_m"),
        problems=[shapes.Problem(**p) for p in placed.get("problems") or frame.get("problems") or []],
    )


@router.get("/projects/{project_id}/models")
def list_models(database: Database, project: TheProject) -> list[shapes.ModelCard]:
    """The project's models with their progress, alignment and problems."""
    rows = database.execute(
        select(Component.model_id, func.count())
        .join(Model)
        .where(Model.project_id == project.id)
        .group_by(Component.model_id)
    )
    counts = {model_id: count for model_id, count in rows.tuples()}
    return [_card(model, counts.get(model.id, 0)) for model in live_models(database, project.id)]


def _limits() -> Limits:
    return Limits(settings().largest_file_mb << 20, settings().largest_unpacked_mb << 20)


@router.post("/projects/{project_id}/models", status_code=201)
async def add_models(
    project_id: str,
    request: Request,
    x_file_name: Annotated[str, Header(description="The file's name, percent-encoded")],
    x_author: Annotated[str, Header(description="Who adds it, percent-encoded")] = "",
) -> list[shapes.ModelCard]:
    """Add one file, sent as the request's body; an .ifczip adds every model in it."""
    name = PurePath(unquote(x_file_name)).name or "unnamed.ifc"
    limits = _limits()
    with tempfile.SpooledTemporaryFile(max_size=32 << 20) as kept:
        size = 0
        async for piece in request.stream():
            size += len(piece)
            if size > limits.file_bytes:
                raise HTTPException(
                    413,
                    f"{name} is larger than the {megabytes(limits.file_bytes)} that this server takes; "
                    "split it or ask for a higher limit.",
                )
            kept.write(piece)
        kept.seek(0)

        def work() -> list[shapes.ModelCard]:
            try:
                files = take_in(name, kept, limits)
            except CannotReadError as error:
                raise HTTPException(422, str(error)) from error
            with transaction() as database:
                project = database.get(Project, project_id)
                if project is None:
                    raise HTTPException(404, "There is no such project; open it from the start page.")
                added = [add_file(database, project, inner, content, unquote(x_author)) for inner, content in files]
                cards = [_card(model, 0) for model in added]
                tell(database, project.id)
            for card in cards:
                defer_reading(card.id)
            return cards

        return await run_in_threadpool(work)


@router.post("/models/{model_id}/cancel", status_code=204)
def cancel_reading(database: Database, model: TheModel) -> None:
    """Stop reading a model; one that still waits is not begun."""
    if model.status == "waiting":
        model.status, model.message = "cancelled", f"{model.file_name} was cancelled; read it again when you want it."
    elif model.status == "reading":
        model.cancel = True
    else:
        raise HTTPException(409, f"{model.file_name} is not being read; there is nothing to cancel.")
    tell(database, model.project_id)


@router.post("/models/{model_id}/retry", status_code=204)
def read_again(model_id: str) -> None:
    """Read a model's file again."""
    with transaction() as database:
        model = database.get(Model, model_id)
        if model is None:
            raise HTTPException(404, "There is no such model; reload the page.")
        if model.status in ("waiting", "reading"):
            raise HTTPException(409, f"{model.file_name} is being read already; wait for it or cancel it.")
        model.status, model.share, model.message, model.cancel = "waiting", 0.0, "", False
        tell(database, model.project_id)
    defer_reading(model_id)


def _set_removed(model_id: str, removed: bool) -> None:
    with transaction() as database:
        model = database.get(Model, model_id)
        if model is None:
            raise HTTPException(404, "There is no such model; reload the page.")
        model.removed_at = datetime.now(UTC) if removed else None
        project_id = model.project_id
        tell(database, project_id)
    defer_federation(project_id)


@router.delete("/models/{model_id}", status_code=204)
def take_away(model_id: str) -> None:
    """Take a model out of the federation; it can be brought back."""
    _set_removed(model_id, removed=True)


@router.post("/models/{model_id}/restore", status_code=204)
def bring_back(model_id: str) -> None:
    """Bring back a model that was taken away."""
    _set_removed(model_id, removed=False)


@router.post("/models/{model_id}/stand", status_code=204)
def let_stand(model_id: str) -> None:
    """Let this alternative stand in the building, in place of the others for the same thing."""
    with transaction() as database:
        model = model_of(database, model_id)
        if not choose_alternative(database, model):
            raise HTTPException(409, f"{model.name} is not an alternative; it always stands.")
        project_id = model.project_id
        tell(database, project_id)
    defer_federation(project_id)  # the key plans show what stands


@router.put("/models/{model_id}/discipline", status_code=204)
def correct_discipline(database: Database, model: TheModel, wish: shapes.DisciplineWish) -> None:
    """Say which discipline a model is, for the whole project."""
    if wish.code is not None and wish.code not in CODES:
        raise HTTPException(422, f"{wish.code} is not a discipline; choose one of {', '.join(CODES)}.")
    if not model.is_read:
        raise HTTPException(409, f"{model.name} has not been read yet; wait for it.")
    set_discipline(database, model, wish.code)
    tell(database, model.project_id)
