"""A schedule as a table, for a spreadsheet: the same figures in every file."""

from __future__ import annotations

import csv
import io
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, datetime, time

from stairpath.core.register.columns import Column, TextColumn, origin_of
from stairpath.core.register.schedule import Group
from stairpath.core.texts import plain
from stairpath.core.visibility.traits import Traits

Cell = str | int | float | date
CSV_ENCODING = "utf-8-sig"
"""With a byte order mark, spreadsheets read letters beyond ASCII as they are."""
_AS_A_DATE = "mm-dd-yy"
"""The built-in format that a spreadsheet shows as the date of who reads it (ECMA-376, 18.8.30, number 14)."""
PICTURE_ROW_POINTS = 78.0
"""How high a row with a picture is; about 100 pixels fit."""


def rows_of(steps: Sequence[str], sums: Sequence[str], groups: Sequence[Group]) -> list[list[Cell]]:
    """The heading and a row for each group: its key, its count, and of each sum its figure and where it is from."""
    units = {name: groups[0].sums[name].unit if groups else "" for name in sums}
    heading: list[Cell] = [_heading(step) for step in steps]
    heading.append("count")
    for name in sums:
        heading += [f"{name} ({units[name]})" if units[name] else name, f"{name}: from file", f"{name}: worked out"]
    rows = [heading]
    for group in groups:
        row: list[Cell] = [*group.key, len(group.components)]
        for name in sums:
            each = group.sums[name]
            row += [_figure(each.value), each.from_file, each.from_mesh]
        rows.append(row)
    return rows


def rows_of_each(
    steps: Sequence[str], columns: Mapping[str, Column], groups: Sequence[Group], asked: Traits
) -> list[list[Cell]]:
    """The heading and a row for each component: its group's key, how it is called, and what its columns say of it."""
    heading: list[Cell] = [*map(_heading, steps), "tag", "name", "GlobalId"]
    for name, column in columns.items():
        if isinstance(column, TextColumn):
            heading.append(_heading(name))
        else:
            unit = f" ({column.unit})" if column.unit else ""
            heading += [f"{_heading(name)}{unit}", f"{_heading(name)}: from"]
    own = [asked.columns[what] for what in ("tag", "name", "global_id")]
    rows = [heading]
    for group in groups:
        for component in group.components.tolist():
            row: list[Cell] = [*group.key, *(each.values[each.value[component]] for each in own)]
            for column in columns.values():
                if isinstance(column, TextColumn):
                    row.append(column.texts[column.value[component]])
                else:
                    origin = origin_of(column, component)
                    row += [_figure(float(column.value[component])) if origin else "", origin]
            rows.append(row)
    return rows


def _heading(name: str) -> str:
    return name.removeprefix("property:").removeprefix("quantity:")


def _figure(value: float) -> float:
    """A figure as both tables have it: a spreadsheet keeps fifteen digits."""
    return float(f"{value:.15g}")


def _plain(cell: Cell) -> Cell:
    """A text that a spreadsheet would work out is one that it reads."""
    return f"'{cell}" if isinstance(cell, str) and cell.startswith(("=", "+", "-", "@", "\t", "\r")) else cell


def as_csv(rows: Sequence[Sequence[Cell]]) -> str:
    """A table as CSV (RFC 4180): commas between, figures with a point and all their digits."""
    out = io.StringIO()
    csv.writer(out).writerows([[_plain(cell) for cell in row] for row in rows])
    return out.getvalue()


@dataclass(frozen=True)
class Layout:
    """How a table is laid out as a spreadsheet: how many columns stay in sight, how wide each is and, by the number of its row, a PNG
    that stands in the first one.
    """

    title: str = "Schedule"
    kept: int = 0
    widths: Sequence[float] = ()
    pictures: Mapping[int, bytes] = field(default_factory=dict)


def as_xlsx(rows: Sequence[Sequence[Cell]], layout: Layout = Layout()) -> bytes:
    """A table as a spreadsheet (Office Open XML), its heading kept in sight and with filters."""
    from openpyxl import Workbook
    from openpyxl.cell import WriteOnlyCell
    from openpyxl.drawing.image import Image
    from openpyxl.styles import Alignment, Font
    from openpyxl.utils import get_column_letter

    book = Workbook(write_only=True)
    sheet = book.create_sheet(layout.title)
    sheet.freeze_panes = f"{get_column_letter(layout.kept + 1)}2"
    for column, width in enumerate(layout.widths or _widths(rows)):
        sheet.column_dimensions[get_column_letter(column + 1)].width = width
    for number, row in enumerate(rows):
        if number in layout.pictures:
            sheet.add_image(Image(io.BytesIO(layout.pictures[number])), f"A{number + 1}")
            sheet.row_dimensions[number + 1].height = PICTURE_ROW_POINTS
        cells = []
        for value in row:
            cell = WriteOnlyCell(sheet, value=_written(value))
            if isinstance(value, str):
                cell.data_type = "s"  # never a formula
            elif isinstance(value, date):
                cell.number_format = _AS_A_DATE
            if number == 0:
                cell.font = Font(bold=True)
            elif layout.widths:
                cell.alignment = Alignment(vertical="top", wrap_text=True)
            cells.append(cell)
        sheet.append(cells)
    if rows and rows[0]:
        sheet.auto_filter.ref = f"A1:{get_column_letter(len(rows[0]))}{len(rows)}"
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def _written(cell: Cell) -> str | float | datetime:
    if isinstance(cell, str):
        return plain(cell)
    return datetime.combine(cell, time()) if isinstance(cell, date) else cell


def _widths(rows: Sequence[Sequence[Cell]]) -> list[float]:
    return [min(60.0, 2.0 + max(len(str(cell)) for cell in column)) for column in zip(*rows[:500], strict=True)]
