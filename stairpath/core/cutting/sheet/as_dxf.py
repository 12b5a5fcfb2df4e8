"""A sheet as DXF: one unit is a millimetre of paper; a layer for each discipline and kind of line, with its width."""

from __future__ import annotations

import ezdxf
from ezdxf import units
from ezdxf.document import Drawing
from ezdxf.enums import TextEntityAlignment

from stairpath.core.cutting.sheet.draw import Sheet
from stairpath.core.cutting.sheet.pens import PENS, Pen

_STYLE = "LETTERING"


def _layer(document: Drawing, name: str, pen: Pen) -> str:
    """The layer of a kind of line, made when it is first drawn on."""
    full = f"{name}-{pen.name.upper()}"
    if full not in document.layers:
        linetype = f"{pen.name.upper()}-DASHES" if pen.dashes_mm else "CONTINUOUS"
        document.layers.add(full, lineweight=round(pen.width_mm * 100), linetype=linetype)
    return full


def dxf(sheet: Sheet) -> Drawing:
    """The sheet as a DXF document (R2013)."""
    document = ezdxf.new("R2013")
    document.units = units.MM
    document.header["$LWDISPLAY"] = 1
    document.styles.add(_STYLE, font="isocp.shx")
    for pen in PENS.values():
        if pen.dashes_mm:
            # Dashes are above zero, gaps below.
            pattern = [sum(pen.dashes_mm), *(v if k % 2 == 0 else -v for k, v in enumerate(pen.dashes_mm))]
            document.linetypes.add(f"{pen.name.upper()}-DASHES", pattern, description=pen.name)
    space = document.modelspace()
    for line in sheet.lines:
        attributes = {"layer": _layer(document, line.layer, line.pen)}
        space.add_lwpolyline(line.points.tolist(), close=line.closed, dxfattribs=attributes)
    for circle in sheet.circles:
        space.add_circle(circle.at, circle.radius_mm, dxfattribs={"layer": _layer(document, circle.layer, circle.pen)})
    if sheet.texts:
        document.layers.add("LETTERING", lineweight=25)
    for text in sheet.texts:
        made = space.add_text(text.words, height=text.height_mm, dxfattribs={"style": _STYLE, "layer": "LETTERING"})
        made.set_placement(
            text.at, align=TextEntityAlignment.LEFT if text.starts else TextEntityAlignment.MIDDLE_CENTER
        )
    return document
