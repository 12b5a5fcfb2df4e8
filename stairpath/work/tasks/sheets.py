"""Sheets: the job that draws one."""

from __future__ import annotations

from datetime import UTC, datetime

from stairpath.core.cutting.cuts import planes_of
from stairpath.core.cutting.sheet.draw import draw
from stairpath.core.cutting.sheet.formats import FORMATS
from stairpath.core.cutting.sheet.papers import NoPaperError
from stairpath.core.geometry.plane import NotAPlaneError
from stairpath.core.measuring.check import Group
from stairpath.core.review.sheet_request import SheetRequest
from stairpath.core.sandbox import Progress
from stairpath.store import components, kept
from stairpath.work.base.errors import UnfitError
from stairpath.work.base.unit_of_work import WORKER, unit_of_work
from stairpath.work.results.results import building_for, keep_results


def draw_sheet(task_id: str, asked: int, report: Progress) -> None:
    """Draw a cut on a sheet and keep it in every format; in a child process."""
    with unit_of_work(WORKER) as act:
        ground = building_for(act, task_id)
        wish = ground.wish
        if not isinstance(wish, SheetRequest):
            raise AssertionError("only a sheet is drawn")
        row = kept.task_by_id(act.session, task_id)
        title = row.name if row is not None else ""
        materials = components.materials_of(act.session, ground.models)
    report(0.05, "cutting, and finding what lies behind")
    shown = ground.in_order(Group(rules=wish.rules).members(ground.traits))
    try:
        plane = planes_of(wish.shape)[0]
        sheet = draw(
            ground.federation, plane, materials, shown, wish.scale, wish.depth_m, wish.paper, title,
            ground.project_name, datetime.now(UTC).date().isoformat(),
        )  # fmt: skip
    except (NoPaperError, NotAPlaneError) as error:
        raise UnfitError(str(error)) from error
    report(0.7, "writing it")
    keep_results(
        task_id, asked, ground.version,
        {name: (form.write(sheet), form.media_type) for name, form in FORMATS.items()},
        f"1:{wish.scale:g} on {sheet.paper.name}",
    )  # fmt: skip
