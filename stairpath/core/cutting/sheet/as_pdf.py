"""A sheet as PDF: lines and areas as vectors, so that it is sharp at any size and prints to scale."""

from __future__ import annotations

import io

from reportlab.lib.colors import HexColor
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from stairpath.core.cutting.sheet.draw import Sheet
from stairpath.core.palette import INK

_CAPITALS = 0.72
"""Capitals of Helvetica are so high as a share of the size of their type."""


def pdf(sheet: Sheet) -> bytes:
    """The sheet as a PDF document of one page."""
    out = io.BytesIO()
    page = Canvas(out, pagesize=(sheet.paper.width_mm * mm, sheet.paper.height_mm * mm), invariant=1)
    page.setTitle(sheet.title)
    page.setLineJoin(1)
    page.setLineCap(1)
    for area in sheet.areas:
        path = page.beginPath()
        for _, ring in area.rings:
            path.moveTo(*(ring[0] * mm))
            for point in ring[1:]:
                path.lineTo(*(point * mm))
            path.close()
        page.setFillColor(HexColor(area.ground))
        page.drawPath(path, stroke=0, fill=1, fillMode=0)
    for line in sheet.lines:
        page.setStrokeColor(HexColor(line.pen.ink))
        page.setLineWidth(line.pen.width_mm * mm)
        page.setDash([v * mm for v in line.pen.dashes_mm])
        path = page.beginPath()
        path.moveTo(*(line.points[0] * mm))
        for point in line.points[1:]:
            path.lineTo(*(point * mm))
        if line.closed:
            path.close()
        page.drawPath(path, stroke=1, fill=0)
    page.setDash([])
    for circle in sheet.all_circles:
        page.setStrokeColor(HexColor(circle.pen.ink))
        page.setLineWidth(circle.pen.width_mm * mm)
        page.circle(circle.at[0] * mm, circle.at[1] * mm, circle.radius_mm * mm)
    page.setStrokeColor(HexColor("#ffffff"))
    page.setLineWidth(0.9 * mm)
    for text in sheet.all_texts:
        x, y = text.at[0] * mm, text.at[1] * mm
        font, size = "Helvetica-Bold" if text.bold else "Helvetica", text.height_mm / _CAPITALS * mm
        if not text.starts:
            x, y = x - stringWidth(text.words, font, size) / 2, y - text.height_mm / 2 * mm
        # White around the words first, so that they are read over lines.
        for mode, colour in ((1, "#ffffff"), (0, INK)):
            words = page.beginText(x, y)
            words.setFont(font, size)
            words.setTextRenderMode(mode)
            words.setFillColor(HexColor(colour))
            words.textOut(text.words)
            page.drawText(words)
    page.showPage()
    page.save()
    return out.getvalue()
