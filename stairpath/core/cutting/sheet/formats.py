"""The formats in which a sheet is written. A new one is a writer beside this and one line in the table."""

from __future__ import annotations

import io
from collections.abc import Callable
from dataclasses import dataclass

from stairpath.core.cutting.sheet.draw import Sheet


@dataclass(frozen=True)
class SheetFormat:
    """How a sheet is written, and the media type of that."""

    media_type: str
    write: Callable[[Sheet], bytes]


# What writes drawings takes a second to load: each loads it when it is called.
def _svg(sheet: Sheet) -> bytes:
    from stairpath.core.cutting.sheet.as_svg import svg

    return svg(sheet).encode()


def _pdf(sheet: Sheet) -> bytes:
    from stairpath.core.cutting.sheet.as_pdf import pdf

    return pdf(sheet)


def _dxf(sheet: Sheet) -> bytes:
    from stairpath.core.cutting.sheet.as_dxf import dxf

    document, out = dxf(sheet), io.StringIO()
    document.write(out)
    return bytes(document.encode(out.getvalue()))


FORMATS = {
    "svg": SheetFormat("image/svg+xml", _svg),
    "pdf": SheetFormat("application/pdf", _pdf),
    "dxf": SheetFormat("image/vnd.dxf", _dxf),
}
