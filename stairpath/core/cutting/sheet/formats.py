"""The formats in which a sheet is written. A new one is a writer beside this and one line in the table."""

from __future__ import annotations

import io
from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING

from stairpath.core.cutting.sheet.draw import Sheet

if TYPE_CHECKING:
    from stairpath.core.cutting.sheet.as_dxf import DxfUnit


@dataclass(frozen=True)
class SheetFormat:
    """How a sheet is written, the media type of that, what people call it, and how its files end if not as it is named."""

    media_type: str
    write: Callable[[Sheet], bytes]
    name: str
    ends: str | None = None


# What writes drawings takes a second to load: each loads it when it is called.
def _svg(sheet: Sheet) -> bytes:
    from stairpath.core.cutting.sheet.as_svg import svg

    return svg(sheet).encode()


def _pdf(sheet: Sheet) -> bytes:
    from stairpath.core.cutting.sheet.as_pdf import pdf

    return pdf(sheet)


def _dxf(unit: DxfUnit) -> Callable[[Sheet], bytes]:
    def write(sheet: Sheet) -> bytes:
        from stairpath.core.cutting.sheet.as_dxf import dxf

        document, out = dxf(sheet, unit), io.StringIO()
        document.write(out)
        return bytes(document.encode(out.getvalue()))

    return write


FORMATS = {
    "svg": SheetFormat("image/svg+xml", _svg, "SVG"),
    "pdf": SheetFormat("application/pdf", _pdf, "PDF"),
    "dxf": SheetFormat("image/vnd.dxf", _dxf("m"), "DXF, in metres"),
    "dxf_mm": SheetFormat("image/vnd.dxf", _dxf("mm"), "DXF, in millimetres", "dxf"),
}
