"""Sheets: the job that draws one."""

from __future__ import annotations

from datetime import UTC, datetime

from stairpath.core.apart import Progress
from stairpath.core.cutting.cuts import planes_of
from stairpath.core.cutting.plane import NotAPlaneError
from stairpath.core.cutting.sheet.draw import draw
from stairpath.core.cutting.sheet.papers import NoPaperError
from stairpath.core.cutting.sheet.wish import SheetWish
from stairpath.core.files import scratch_folder
from stairpath.core.measuring.check import Group
from stairpath.store import components, kept
from stairpath.work.deed import WORKER, deed
from stairpath.work.refusals import UnfitError
from stairpath.work.results import ground_for, keep_results


def draw_sheet(errand_id: str, asked: int, report: Progress) -> None:
    """Draw a cut on a sheet and keep it as SVG, DXF and PDF; in a child process."""
    # What writes drawings takes a second to load, which no server should wait for.
    from stairpath.core.cutting.sheet.as_dxf import write_dxf
    from stairpath.core.cutting.sheet.as_pdf import pdf
    from stairpath.core.cutting.sheet.as_svg import svg

    with deed(WORKER) as act:
        ground = ground_for(act, errand_id)
        wish = ground.wish
        if not isinstance(wish, SheetWish):
            raise AssertionError("only a sheet is drawn")
        row = kept.errand_by_id(act.session, errand_id)
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
    with scratch_folder() as folder:
        path = folder / "sheet.dxf"
        write_dxf(sheet, path)
        dxf = path.read_bytes()
    keep_results(
        errand_id, asked, ground.version,
        {
            "svg": (svg(sheet).encode(), "image/svg+xml"),
            "dxf": (dxf, "image/vnd.dxf"),
            "pdf": (pdf(sheet), "application/pdf"),
        },
        f"1:{wish.scale:g} on {sheet.paper.name}",
    )  # fmt: skip
