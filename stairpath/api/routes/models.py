"""Model files: adding, cancelling, reading again, taking away, aligning, choosing alternatives."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Header, Request
from fastapi.concurrency import run_in_threadpool

from stairpath.api import schemas
from stairpath.api.http.caller import Asker
from stairpath.api.http.door import asks
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.api.http.uploads import BODY, file_name, received
from stairpath.core.federation.alignment import Placement
from stairpath.core.people.roles import Action
from stairpath.work.base.project_limits import limits_of
from stairpath.work.models import models
from stairpath.work.models.models import Model

router = APIRouter(prefix="/api", tags=["models"], responses=ERROR_RESPONSES)


def _card(model: Model) -> schemas.ModelCard:
    placed, frame = model.placed, model.frame
    alternative = placed.alternative if placed else None
    problems = placed.problems if placed else frame.problems if frame else ()
    return schemas.ModelCard(
        id=model.id,
        name=model.name,
        file_name=model.file_name,
        file_size=model.file_size,
        status=model.status,
        share=model.share,
        message=model.message,
        added_by=model.added_by,
        added_at=model.added_at,
        schema_name=frame.schema if frame else None,
        length_unit=frame.length_unit if frame else None,
        components=frame.components if frame else 0,
        triangles=frame.triangles if frame else 0,
        discipline=placed.discipline if placed else None,
        discipline_set=model.discipline_rule is not None,
        alternative_what=alternative.what if alternative else None,
        alternative_option=alternative.option if alternative else None,
        stands=model.stands,
        elsewhere=placed.elsewhere if placed else False,
        aligned_by=placed.by if placed else None,
        aligned_reason=placed.reason if placed else None,
        aligned_set=model.placement.by if model.placement else None,
        has_map=bool(frame and frame.map_conversion),
        rotation_deg=placed.rotation_deg if placed else None,
        shift_m=list(placed.shift_m) if placed else None,
        problems=list(problems),
    )


@router.get("/projects/{project_id}/models")
@asks(Action.LOOK)
def list_models(project_id: str, bin: bool = False) -> list[schemas.ModelCard]:
    """The project's models with their progress, alignment and problems, or those that were taken out."""
    return [_card(model) for model in models.listed(project_id, taken_out=bin)]


@router.post(
    "/projects/{project_id}/models",
    status_code=201,
    openapi_extra=BODY,
)
@asks(Action.CHANGE_MODELS)
async def add_models(
    who: Asker,
    project_id: str,
    request: Request,
    x_file_name: Annotated[str, Header(description="The file's name, percent-encoded")],
) -> list[schemas.ModelCard]:
    """Add one file, sent as the request's body; an .ifczip adds every model in it."""
    name = file_name(x_file_name, "unnamed.ifc")
    most = await run_in_threadpool(limits_of, project_id)
    async with received(request, name, most.intake.file_bytes) as kept:
        added = await run_in_threadpool(models.take_in_file, who, project_id, name, kept)
    return [_card(model) for model in added]


@router.post("/models/{model_id}/cancel", status_code=204)
@asks(Action.CHANGE_MODELS)
def cancel_reading(who: Asker, model_id: str) -> None:
    """Stop reading a model; one that still waits is not begun."""
    models.cancel(who, model_id)


@router.post("/models/{model_id}/retry", status_code=204)
@asks(Action.CHANGE_MODELS)
def read_again(who: Asker, model_id: str) -> None:
    """Read a model's file again."""
    models.read_again(who, model_id)


@router.delete("/models/{model_id}", status_code=204)
@asks(Action.CHANGE_MODELS)
def take_away(who: Asker, model_id: str) -> None:
    """Take a model out of the federation; it can be brought back."""
    models.take_out(who, model_id)


@router.post("/models/{model_id}/restore", status_code=204)
@asks(Action.CHANGE_MODELS)
def bring_back(who: Asker, model_id: str) -> None:
    """Bring back a model that was taken away."""
    models.bring_back(who, model_id)


@router.post("/models/{model_id}/stand", status_code=204)
@asks(Action.CHANGE_MODELS)
def let_stand(who: Asker, model_id: str) -> None:
    """Let this alternative stand in the building, in place of the others for the same thing."""
    models.let_stand(who, model_id)


@router.put("/models/{model_id}/discipline", status_code=204)
@asks(Action.CHANGE_MODELS)
def correct_discipline(who: Asker, model_id: str, wish: schemas.DisciplineRequest) -> None:
    """Say which discipline a model is, for the whole project."""
    models.correct_discipline(who, model_id, wish.code)


@router.put("/models/{model_id}/alignment", status_code=204)
@asks(Action.CHANGE_MODELS)
def align_by_hand(who: Asker, model_id: str, wish: schemas.AlignmentRequest) -> None:
    """Say how a model is aligned: by another evidence, or with a turn and a shift; nothing goes back to the evidence."""
    x, y, z = wish.shift_m
    placement = None if wish.by is None else Placement(wish.by, wish.rotation_deg, (x, y, z), who.said)
    models.align(who, model_id, placement)


@router.put("/models/{model_id}/alignment/points", status_code=204)
@asks(Action.CHANGE_MODELS)
def align_by_points(who: Asker, model_id: str, wish: schemas.PointsRequest) -> None:
    """Align a model by two of its points as they stand now and their places, both about the project's origin."""
    models.align_by_points(who, model_id, [wish.first_m, wish.second_m], [wish.first_place_m, wish.second_place_m])
