"""A sheet as SVG: one unit is a millimetre of paper, so that it prints to scale."""

from __future__ import annotations

from itertools import groupby
from xml.sax.saxutils import escape, quoteattr

import numpy as np
import numpy.typing as npt

from stairpath.core.cutting.sheet.draw import Line, Sheet
from stairpath.core.cutting.sheet.pens import PENS
from stairpath.core.palette import INK

Array = npt.NDArray[np.float64]

_CAPITALS = 0.7
"""Capitals are so high as a share of the size of their type."""


def svg(sheet: Sheet) -> str:
    """The sheet as an SVG document."""
    high = sheet.paper.height_mm

    def d(points: Array, closed: bool) -> str:
        way = "L".join(f"{x:.3f},{high - y:.3f}" for x, y in points)
        return f"M{way}{'Z' if closed else ''}"

    def of(line: Line) -> tuple[str, str]:
        return line.layer, line.pen.name

    body: list[str] = []
    for area in sheet.areas:
        rings = "".join(d(ring, True) for _, ring in area.rings)
        body.append(
            f'<path class="area" data-layer={quoteattr(area.layer)} fill="{area.ground}" fill-rule="evenodd" d="{rings}"/>'
        )
    for (layer, pen), lines in groupby(sorted(sheet.lines, key=of), key=of):
        body.append(f'<g class="{pen}" data-layer={quoteattr(layer)}>')
        body += [f'<path d="{d(line.points, line.closed)}"/>' for line in lines]
        body.append("</g>")
    for circle in sheet.all_circles:
        x, y = circle.at
        body.append(
            f'<circle class="{circle.pen.name}" data-layer={quoteattr(circle.layer)} cx="{x:.3f}" cy="{high - y:.3f}" '
            f'r="{circle.radius_mm:g}"/>'
        )
    for text in sheet.all_texts:
        x, y = text.at
        size = text.height_mm / _CAPITALS
        weight = ' font-weight="600"' if text.bold else ""
        anchor = "" if text.starts else ' text-anchor="middle"'
        down = 0.0 if text.starts else text.height_mm / 2
        body.append(
            f'<text x="{x:.3f}" y="{high - y + down:.3f}" font-size="{size:.3f}"{weight}{anchor}>{escape(text.words)}</text>'
        )
    style = "".join(
        f".{pen.name}{{fill:none;stroke:{pen.ink};stroke-width:{pen.width_mm}"
        + (f";stroke-dasharray:{' '.join(f'{v:g}' for v in pen.dashes_mm)}" if pen.dashes_mm else "")
        + "}"
        for pen in PENS.values()
    )
    width = sheet.paper.width_mm
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:g}mm" height="{high:g}mm" viewBox="0 0 {width:g} {high:g}">'
        f"<title>{escape(sheet.title)}</title>"
        f"<style>{style}text{{font-family:Barlow,Arial,sans-serif;fill:{INK};paint-order:stroke;stroke:#fff;stroke-width:.9;stroke-linejoin:round}}</style>"
        f'<rect width="{width:g}" height="{high:g}" fill="#fff"/>' + "".join(body) + "</svg>\n"
    )
