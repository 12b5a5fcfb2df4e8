"""Schedules, as lists and as files."""

from __future__ import annotations

from typing import Literal

import numpy as np
from fastapi import APIRouter
from fastapi.responses import Response

from stairpath.api import shapes
from stairpath.api.documents import conditions_from, packed, rules_from, shape_of
from stairpath.api.refused import REFUSALS
from stairpath.api.saved import named
from stairpath.core.register.columns import Column, Said
from stairpath.core.register.schedule import NotAScheduleError, step_of
from stairpath.core.register.table import as_csv, as_xlsx, rows_of, rows_of_each
from stairpath.core.visibility.spoken import class_name
from stairpath.work.finding import Wanted
from stairpath.work.refusals import WrongError
from stairpath.work.scheduling import Scheduled, scheduled

router = APIRouter(prefix="/api/projects/{project_id}", tags=["schedule"], responses=REFUSALS)

_CSV, _XLSX = "text/csv; charset=utf-8", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"


def _made(project_id: str, wish: shapes.ScheduleWish) -> Scheduled:
    try:
        steps = [step_of(step) for step in wish.steps]
    except NotAScheduleError as error:
        raise WrongError(str(error)) from error
    shown_by = None if wish.shown_by is None else rules_from(wish.shown_by)
    # What is summed is also said of each, but only once.
    beside = dict.fromkeys([*wish.sums, *wish.columns])
    return scheduled(project_id, steps, wish.sums, list(beside), Wanted(conditions_from(wish.conditions), shown_by))


def _column(what: str, column: Column) -> shapes.ColumnOfTexts | shapes.ColumnOfFigures:
    if isinstance(column, Said):
        return shapes.ColumnOfTexts(what=what, texts=list(column.texts), value=packed(column.value, "<i4"))
    return shapes.ColumnOfFigures(
        what=what, unit=column.unit, figures=packed(column.value, "<f8"), worked=packed(column.worked, "u1")
    )


@router.post("/schedule")
def make_schedule(project_id: str, wish: shapes.ScheduleWish) -> shapes.Schedule:
    """Components in groups, counted, with sums of their quantities, and what is said beside each of them."""
    found = _made(project_id, wish)
    steps = [step_of(step) for step in wish.steps]
    group_of = np.full(found.asked.count, -1, dtype=np.int32)
    for place, group in enumerate(found.groups):
        group_of[group.components] = place
    return shapes.Schedule(
        version=found.version,
        groups=[
            shapes.ScheduleGroup(
                key=list(group.key),
                says=[class_name(key) if step == "class" else key for step, key in zip(steps, group.key, strict=True)],
                count=len(group.components),
                sums=[shape_of(shapes.ScheduleSum, each) for each in group.sums.values()],
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
def write_schedule(project_id: str, form: Literal["csv", "xlsx"], wish: shapes.ScheduleWish) -> Response:
    """A schedule as a table for a spreadsheet: a row for each group, or for each component where there are columns."""
    made = _made(project_id, wish)
    if wish.columns:
        rows = rows_of_each(wish.steps, made.columns, made.groups, made.asked)
    else:
        rows = rows_of(wish.steps, wish.sums, made.groups)
    data, kind = (as_csv(rows).encode("utf-8-sig"), _CSV) if form == "csv" else (as_xlsx(rows), _XLSX)
    return Response(data, media_type=kind, headers=named(f"schedule.{form}"))
