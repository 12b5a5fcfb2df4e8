"""A key plan as an SVG drawing, in millimetres of paper at a scale."""

from __future__ import annotations

import math
from xml.sax.saxutils import escape

import numpy as np
import numpy.typing as npt

from stairpath.core.cutting.keyplan import KeyPlan
from stairpath.core.palette import INK, SOFT

Array = npt.NDArray[np.float64]

_BORDER_MM = 10.0
_STYLE = f"""
.solid{{fill:{INK};fill-rule:evenodd;stroke:none}}
.thin{{fill:none;stroke:{INK};stroke-width:.18}}
.swing{{fill:none;stroke:{SOFT};stroke-width:.13}}
.tread{{fill:none;stroke:{SOFT};stroke-width:.13}}
.way{{fill:none;stroke:{INK};stroke-width:.2;marker-end:url(#up)}}
.axis{{stroke:#b5ab98;stroke-width:.13;stroke-dasharray:4 1 .5 1}}
.tag{{font:2.6px Barlow,sans-serif;fill:{SOFT};text-anchor:middle}}
.room{{font:600 2.4px Barlow,sans-serif;fill:{INK};text-anchor:middle}}
.number{{font:2.1px 'IBM Plex Mono',monospace;fill:{SOFT};text-anchor:middle}}
"""


def svg(plan: KeyPlan, north_deg: float = 0.0, scale: float = 200.0) -> str:
    """The drawing, 1:``scale`` in millimetres, with the bearing ``north_deg`` up the sheet."""
    turn = math.radians(north_deg)
    c, s = math.cos(turn), math.sin(turn)
    per_m = 1000.0 / scale
    everything = [*plan.solid, *plan.thin, *(ring for room in plan.rooms for ring in room.outlines)]
    if not everything:
        everything = [np.zeros((1, 2))]

    def turned(points: Array) -> Array:
        x, y = np.asarray(points, dtype=np.float64).reshape(-1, 2).T
        return np.column_stack([c * x - s * y, -(s * x + c * y)]) * per_m

    corners = np.concatenate([turned(line) for line in everything])
    low, high = corners.min(axis=0) - _BORDER_MM, corners.max(axis=0) + _BORDER_MM
    width, height = high - low

    def path(points: Array) -> str:
        return "M" + "L".join(f"{x:.2f},{y:.2f}" for x, y in turned(points) - low)

    def text(kind: str, at: tuple[float, float], words: str, down: float = 0.0) -> str:
        ((x, y),) = turned(np.array([at])) - low
        return f'<text class="{kind}" x="{x:.2f}" y="{y + down:.2f}">{escape(words)}</text>'

    def line(kind: str, points: Array) -> str:
        return f'<path class="{kind}" d="{path(points)}"/>'

    body = [line("axis", np.array([a.start, a.end])) for a in plan.axes]
    body += [text("tag", a.end, a.tag) for a in plan.axes]
    body += [line("tread", edge) for flight in plan.flights for edge in flight.edges]
    body += [line("way", flight.way_up) for flight in plan.flights]
    if plan.solid:
        body.append(f'<path class="solid" d="{" ".join(path(ring) + "Z" for ring in plan.solid)}"/>')
    body += [line("thin", outline) for outline in plan.thin]
    body += [line("swing", np.vstack([[swing.hinge], swing.arc])) for swing in plan.swings]
    for room in plan.rooms:
        body.append(text("room", room.label, room.name))
        body.append(text("number", room.label, room.number, 3.0))
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:.1f}mm" height="{height:.1f}mm" '
        f'viewBox="0 0 {width:.2f} {height:.2f}">\n<title>{escape(plan.storey)}, cut at {plan.cut_m:+.2f} m, '
        f"1:{scale:g}</title>\n<style>{_STYLE}</style>\n"
        '<defs><marker id="up" viewBox="0 0 6 6" refX="5" refY="3" markerWidth="9" markerHeight="9" orient="auto">'
        '<path d="M0,1 5,3 0,5" fill="none" stroke="' + INK + '"/></marker></defs>\n' + "\n".join(body) + "\n</svg>\n"
    )
