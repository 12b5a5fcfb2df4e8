"""Topics as a list for a spreadsheet, with a small picture each."""

from __future__ import annotations

import io
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from stairpath.core.register.table import Cell, as_csv

HEADING = (
    "reference", "title", "status", "kind", "priority", "who has it", "due", "overdue", "level", "room", "labels",
    "made by", "made on", "changed on", "comments", "link",
)  # fmt: skip
_PICTURE_PX = (160, 100)
_ROW_POINTS = 78.0


@dataclass(frozen=True)
class Line:
    """A topic in a list; ``picture`` is PNG or JPEG."""

    reference: str
    title: str
    status: str
    kind: str
    priority: str
    assigned_to: str
    due: date | None
    overdue: bool
    level: str
    room: str
    labels: tuple[str, ...]
    author: str
    made_on: date
    changed_on: date
    comments: int
    link: str
    picture: bytes | None = None


def _cells(line: Line) -> list[Cell]:
    return [
        line.reference, line.title, line.status, line.kind, line.priority, line.assigned_to,
        line.due.isoformat() if line.due else "", "yes" if line.overdue else "", line.level, line.room,
        ", ".join(line.labels), line.author, line.made_on.isoformat(), line.changed_on.isoformat(), line.comments, line.link,
    ]  # fmt: skip


def csv_of(lines: Sequence[Line]) -> str:
    """Topics as CSV, without their pictures."""
    return as_csv([list(HEADING), *map(_cells, lines)])


def xlsx_of(lines: Sequence[Line]) -> bytes:
    """Topics as a spreadsheet, each with its picture, the heading kept in sight."""
    from openpyxl import Workbook
    from openpyxl.drawing.image import Image as Drawn
    from openpyxl.styles import Alignment, Font
    from PIL import Image, UnidentifiedImageError

    book = Workbook()
    sheet = book.active
    if sheet is None:
        raise AssertionError("a new book has a sheet")
    sheet.title = "Topics"
    sheet.append(["picture", *HEADING])
    for cell in sheet[1]:
        cell.font = Font(bold=True)
    sheet.freeze_panes = "C2"
    for number, line in enumerate(lines, 2):
        for column, value in enumerate(_cells(line), 2):
            cell = sheet.cell(row=number, column=column, value=value)
            if isinstance(value, str):
                cell.data_type = "s"  # never a formula
            cell.alignment = Alignment(vertical="top", wrap_text=True)
        if line.picture is None:
            continue
        try:
            with Image.open(io.BytesIO(line.picture)) as image:
                small = image.convert("RGB")
        except (UnidentifiedImageError, OSError, ValueError):
            continue
        small.thumbnail(_PICTURE_PX)
        held = io.BytesIO()
        small.save(held, "PNG")
        drawn = Drawn(held)
        sheet.add_image(drawn, f"A{number}")
        sheet.row_dimensions[number].height = _ROW_POINTS
    for letter, width in zip("ABCDEFGHIJK", (24, 14, 44, 12, 14, 12, 18, 12, 9, 10, 20), strict=True):
        sheet.column_dimensions[letter].width = width
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()
