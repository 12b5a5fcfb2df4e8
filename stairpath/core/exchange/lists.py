"""Topics as a list for a spreadsheet, with a small picture each."""

from __future__ import annotations

import io
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from stairpath.core.exchange.pictures import checked
from stairpath.core.register.table import Cell, Layout, as_csv, as_xlsx

HEADING = (
    "reference", "title", "description", "status", "kind", "priority", "assigned to", "due", "overdue", "level", "room",
    "labels", "made by", "made on", "changed on", "comments", "what was said", "link",
)  # fmt: skip
_PICTURE_PX = (160, 100)
_WIDTHS = (24, 14, 44, 44, 12, 14, 12, 18, 12, 9, 10, 20, 20, 16, 12, 12, 10, 60, 40)
_LONGEST_CELL = 32_000
"""A spreadsheet's cell holds 32,767 letters."""


@dataclass(frozen=True)
class Line:
    """A topic in a list; comments are whole texts, the oldest first, ``picture`` is PNG or JPEG."""

    reference: str
    title: str
    description: str
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
    comments: tuple[str, ...]
    link: str
    picture: bytes | None = None


def _cells(line: Line) -> list[Cell]:
    return [
        line.reference, line.title, _short(line.description), line.status, line.kind, line.priority, line.assigned_to,
        line.due or "", "yes" if line.overdue else "", line.level, line.room, ", ".join(line.labels), line.author,
        line.made_on, line.changed_on, len(line.comments), _short("\n".join(reversed(line.comments))), line.link,
    ]  # fmt: skip


def _short(text: str) -> str:
    """A text as long as a cell holds; of comments the newest stand first, so that the oldest are left out."""
    return text if len(text) <= _LONGEST_CELL else f"{text[:_LONGEST_CELL]} …"


def csv_of(lines: Sequence[Line]) -> str:
    """Topics as CSV, without their pictures."""
    return as_csv([list(HEADING), *map(_cells, lines)])


def xlsx_of(lines: Sequence[Line]) -> bytes:
    """Topics as a spreadsheet, each with its picture, the heading kept in sight."""
    rows: list[list[Cell]] = [["picture", *HEADING], *(["", *_cells(line)] for line in lines)]
    small = {number: _small(line.picture) for number, line in enumerate(lines, 1) if line.picture}
    pictures = {number: picture for number, picture in small.items() if picture}
    return as_xlsx(rows, Layout("Topics", kept=2, widths=_WIDTHS, pictures=pictures))


def _small(picture: bytes) -> bytes | None:
    """A picture as small as it is shown in a row, as PNG; None for one that cannot be read."""
    from PIL import Image

    try:
        checked(picture)  # of one that was kept before there was a limit
        with Image.open(io.BytesIO(picture)) as image:
            plain = image.convert("RGB")
    except (OSError, SyntaxError, ValueError):
        return None
    plain.thumbnail(_PICTURE_PX)
    out = io.BytesIO()
    plain.save(out, "PNG")
    return out.getvalue()
