"""Schedules, as lists and as files."""

from __future__ import annotations

from typing import Literal

import numpy as np
from fastapi import APIRouter
from fastapi.responses import Response

from stairpath.api import schemas
from stairpath.api.http.door import asks
from stairpath.api.http.downloads import named
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.api.schemas.packed import packed
from stairpath.core.people.roles import Action
from stairpath.core.register.columns import Column, TextColumn
from stairpath.core.register.schedule import NotAScheduleError, step_of
from stairpath.core.register.table import CSV_ENCODING, as_csv, as_xlsx, rows_of, rows_of_each
from stairpath.core.visibility.wording import class_name
from stairpath.work.base.errors import WrongError
from stairpath.work.building.register import Scheduled, scheduled
from stairpath.work.building.search import Wanted

router = APIRouter(prefix="/api/projects/{project_id}", tags=["schedule"], responses=ERROR_RESPONSES)

_CSV, _XLSX = "text/csv; charset=utf-8", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"


def _made(project_id: str, wish: schemas.ScheduleRequest) -> Scheduled:
    try:
        steps = [step_of(step) for step in wish.steps]
    except NotAScheduleError as error:
        raise WrongError(str(error)) from error
    # What is summed is also said of each, but only once.
    beside = dict.fromkeys([*wish.sums, *wish.columns])
    return scheduled(project_id, steps, wish.sums, list(beside), Wanted(wish.conditions, wish.shown_by))


def _column(what: str, column: Column) -> schemas.ColumnOfTexts | schemas.ColumnOfFigures:
    if isinstance(column, TextColumn):
        return schemas.ColumnOfTexts(what=what, texts=list(column.texts), value=packed(column.value, "<i4"))
    return schemas.ColumnOfFigures(
        what=what, unit=column.unit, figures=packed(column.value, "<f8"), worked=packed(column.worked, "u1")
    )


@router.post("/schedule")
@asks(Action.LOOK)
def make_schedule(project_id: str, wish: schemas.ScheduleRequest) -> schemas.Schedule:
    """Components in groups, counted, with sums of their quantities, and what is said beside each of them."""
    found = _made(project_id, wish)
    steps = [step_of(step) for step in wish.steps]
    group_of = np.full(found.asked.count, -1, dtype=np.int32)
    for place, group in enumerate(found.groups):
        group_of[group.components] = place
    return schemas.Schedule(
        version=found.version,
        groups=[
            schemas.ScheduleGroup(
                key=list(group.key),
                says=[class_name(key) if step == "class" else key for step, key in zip(steps, group.key, strict=True)],
                count=len(group.components),
                sums=list(group.sums.values()),
            )
            for group in found.groups
        ],
        group_of=packed(group_of, "<i4"),
        columns=[_column(what, column) for what, column in found.columns.items()],
    )


@router.post(
    "/schedule/{form}",
    response_class=Response,
    responses={200: {"description": "The schedule as a file", "content": {_CSV: {}, _XLSX: {}}}},
)
@asks(Action.LOOK)
def write_schedule(project_id: str, form: Literal["csv", "xlsx"], wish: schemas.ScheduleRequest) -> Response:
    """A schedule as a table for a spreadsheet: a row for each group, or for each component where there are columns."""
    made = _made(project_id, wish)
    if wish.columns:
        rows = rows_of_each(wish.steps, made.columns, made.groups, made.asked)
    else:
        rows = rows_of(wish.steps, wish.sums, made.groups)
    data, kind = (as_csv(rows).encode(CSV_ENCODING), _CSV) if form == "csv" else (as_xlsx(rows), _XLSX)
    return Response(data, media_type=kind, headers=named(f"schedule.{form}"))
