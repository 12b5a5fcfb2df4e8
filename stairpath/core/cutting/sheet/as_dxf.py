"""A sheet as DXF: the building in model space, in metres or millimetres, and the sheet in paper space, to scale.

A layer for each discipline and kind of line, with its width; hatches are hatches, tags of grid lines are blocks.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal

import ezdxf
import numpy as np
from ezdxf import bbox, units
from ezdxf.document import Drawing
from ezdxf.enums import TextEntityAlignment
from ezdxf.layouts import BaseLayout

from stairpath.core.cutting.sheet.draw import BUBBLE_MM, SHEET, TAG_MM, Area, Array, Line, Sheet, Text
from stairpath.core.cutting.sheet.pens import FINE, PENS, THIN, Pen, shift_of
from stairpath.core.palette import INK

DxfUnit = Literal["m", "mm"]
_PER_M: dict[DxfUnit, float] = {"m": 1.0, "mm": 1000.0}
_STYLE = "LETTERING"
_BUBBLE = "GRID-BUBBLE"
_PAPER = "Sheet"


class _Writer:
    """Puts what is on a sheet into a document."""

    def __init__(self, sheet: Sheet, unit: DxfUnit) -> None:
        self.sheet = sheet
        self.per_m = _PER_M[unit]
        self.per_mm = self.per_m / sheet.on.per_m
        """Units of the drawing to a millimetre of paper."""
        document = self.document = ezdxf.new("R2013")
        document.units = units.M if unit == "m" else units.MM
        # Dashes keep their length on paper, whatever the scale of the view.
        document.header["$LWDISPLAY"] = document.header["$PSLTSCALE"] = 1
        document.styles.add(_STYLE, font="isocp.shx")
        for pen in PENS.values():
            if pen.dashes_mm:
                # Dashes are above zero, gaps below.
                pattern = [sum(pen.dashes_mm), *(v if k % 2 == 0 else -v for k, v in enumerate(pen.dashes_mm))]
                document.linetypes.add(f"{pen.name.upper()}-DASHES", pattern, description=pen.name)
        self.model: BaseLayout = document.modelspace()
        document.layouts.rename("Layout1", _PAPER)
        self.paper = document.paperspace(_PAPER)
        size = (sheet.paper.width_mm, sheet.paper.height_mm)
        self.paper.page_setup(size=size, margins=(0, 0, 0, 0), units="mm", name=sheet.paper.name)

    def layer(self, name: str, pen: Pen) -> str:
        """The layer of a kind of line, made when it is first drawn on."""
        full = f"{name}-{pen.name.upper()}"
        if full not in self.document.layers:
            linetype = f"{pen.name.upper()}-DASHES" if pen.dashes_mm else "CONTINUOUS"
            self.document.layers.add(full, lineweight=round(pen.width_mm * 100), linetype=linetype)
        return full

    def where(self, of: str, paper_mm: Array) -> tuple[BaseLayout, Array, float]:
        """The space that something of a layer belongs to, its points there, and that space's units to a millimetre."""
        if of == SHEET:
            return self.paper, np.asarray(paper_mm), 1.0
        return self.model, self.sheet.on.building(paper_mm) * self.per_m, self.per_mm

    def line(self, line: Line) -> None:
        """A line, open or closed."""
        space, points, _ = self.where(line.layer, line.points)
        space.add_lwpolyline(points.tolist(), close=line.closed, dxfattribs={"layer": self.layer(line.layer, line.pen)})

    def hatch(self, area: Area, name: str, definition: Sequence[object] | None) -> None:
        """An area filled, or hatched by sets of lines."""
        layer = self.layer(area.layer.replace("-CUT", "-HATCH"), FINE)
        space = self.where(area.layer, np.zeros(2))[0]
        hatch = space.add_hatch(dxfattribs={"layer": layer})
        if definition is None:
            hatch.set_solid_fill()
        else:
            hatch.set_pattern_fill(name, definition=definition)
        for hole, ring in area.rings:
            points = self.where(area.layer, ring)[1]
            hatch.paths.add_polyline_path(points.tolist(), is_closed=True, flags=16 if hole else 1)

    def area(self, area: Area) -> None:
        """What is cut, hatched by its material; of the sheet's own areas those in ink."""
        if area.layer == SHEET:
            if area.ground == INK:
                self.hatch(area, "SOLID", None)
            return
        if not area.hatch:
            return
        lines: list[object] = []
        for number, (angle_deg, apart_mm) in enumerate(area.hatch):
            angle = np.radians(angle_deg - self.sheet.on.turn_deg)
            across = np.array([-np.sin(angle), np.cos(angle)]) * apart_mm * self.per_mm
            start = across * shift_of(area.hatch, number)
            lines.append([float(np.degrees(angle)), start.tolist(), across.tolist(), []])
        self.hatch(area, "-".join(f"{angle:g}-{apart:g}" for angle, apart in area.hatch), lines)

    def text(self, text: Text) -> None:
        """Words; of the building they are upright on the sheet."""
        space, at, per_mm = self.where(text.layer, np.array(text.at))
        if "LETTERING" not in self.document.layers:
            self.document.layers.add("LETTERING", lineweight=25)
        attributes = {"style": _STYLE, "layer": "LETTERING"}
        made = space.add_text(text.words, height=text.height_mm * per_mm, dxfattribs=attributes)
        if space is self.model:
            made.dxf.rotation = -self.sheet.on.turn_deg
        align = TextEntityAlignment.LEFT if text.starts else TextEntityAlignment.MIDDLE_CENTER
        made.set_placement(at.tolist(), align=align)

    def bubbles(self) -> None:
        """The tags of grid lines, each a block with its tag as an attribute."""
        block = self.document.blocks.new(_BUBBLE)
        block.add_circle((0, 0), BUBBLE_MM, dxfattribs={"layer": self.layer("GRID", THIN)})
        tag = block.add_attdef("TAG", height=TAG_MM, dxfattribs={"style": _STYLE})
        tag.set_placement((0, 0), align=TextEntityAlignment.MIDDLE_CENTER)
        for bubble in self.sheet.bubbles:
            at = self.where("GRID", np.array(bubble.at))[1]
            size = {"xscale": self.per_mm, "yscale": self.per_mm, "zscale": self.per_mm}
            attributes = {"layer": self.layer("GRID", THIN), "rotation": -self.sheet.on.turn_deg, **size}
            self.model.add_blockref(_BUBBLE, at.tolist(), dxfattribs=attributes).add_auto_attribs({"TAG": bubble.tag})

    def view(self) -> None:
        """The view of the building on the sheet, to scale."""
        low, high = self.sheet.window_mm
        middle = self.where("", (low + high) / 2)[1]
        wide, tall = (high - low).tolist()
        view = self.paper.add_viewport(
            center=((low + high) / 2).tolist(), size=(wide, tall),
            view_center_point=(self.sheet.on.turn @ middle).tolist(), view_height=tall * self.per_mm,
        )  # fmt: skip
        view.dxf.view_twist_angle = self.sheet.on.turn_deg
        view.dxf.layer = "VIEW"
        self.document.layers.add("VIEW").dxf.plot = 0


def dxf(sheet: Sheet, unit: DxfUnit = "m") -> Drawing:
    """The sheet as a DXF document (R2013), the building in a unit."""
    writer = _Writer(sheet, unit)
    for area in sheet.areas:
        writer.area(area)
    for line in sheet.lines:
        # The strokes of a hatch are in the hatch.
        if line.pen is not FINE:
            writer.line(line)
    for circle in sheet.circles:
        space, at, per_mm = writer.where(circle.layer, np.array(circle.at))
        attributes = {"layer": writer.layer(circle.layer, circle.pen)}
        space.add_circle(at.tolist(), circle.radius_mm * per_mm, dxfattribs=attributes)
    for text in sheet.texts:
        writer.text(text)
    writer.bubbles()
    writer.view()
    drawn = bbox.extents(writer.model, fast=True)
    if drawn.has_data:
        writer.document.modelspace().reset_extents(drawn.extmin, drawn.extmax)
    writer.paper.reset_extents((0, 0, 0), (sheet.paper.width_mm, sheet.paper.height_mm, 0))
    return writer.document
