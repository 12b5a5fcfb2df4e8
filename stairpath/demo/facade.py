"""Outside walls of the demo: bays with windows, and the glazed hall."""

from __future__ import annotations

import itertools
from functools import partial
from typing import Any

from stairpath.demo import building as b
from stairpath.demo.draft import Draft, Measure
from stairpath.demo.forms import Items
from stairpath.demo.stuff import (
    ALUMINIUM,
    GLASS,
    MASONRY,
)
from stairpath.demo.walls import FACE_M, OUTSIDE_M, wall_properties


def _window(d: Draft, width: float, height: float) -> Items:
    bars = [
        d.box((0, 0, 0), (0.06, 0.09, height)),
        d.box((width - 0.06, 0, 0), (0.06, 0.09, height)),
        d.box((0.06, 0, 0), (width - 0.12, 0.09, 0.06)),
        d.box((0.06, 0, height - 0.06), (width - 0.12, 0.09, 0.06)),
        d.box((width / 2 - 0.025, 0, 0.06), (0.05, 0.09, height - 0.12)),
    ]
    pane = [d.box((0.06, 0.03, 0.06), (width - 0.12, 0.03, height - 0.12))]
    return d.style(bars, ALUMINIUM) + d.style(pane, GLASS)


def facade(d: Draft, storey: str) -> None:
    """Outside walls by bay, each with its windows; the hall's bays are glazed."""
    rise = 4.0
    number = 0
    lettered = list(b.LETTERED_AXES_M.values())
    sides: list[tuple[str, tuple[float, float], float, float]] = []
    for bay in range(8):
        sides.append(("south", (bay * b.BAY_M, -FACE_M - OUTSIDE_M), 0.0, b.BAY_M))
        sides.append(("north", ((bay + 1) * b.BAY_M, b.WIDTH_M + FACE_M + OUTSIDE_M), 180.0, b.BAY_M))
    for y0, y1 in itertools.pairwise(lettered):
        sides.append(("west", (-FACE_M - OUTSIDE_M, y1), -90.0, y1 - y0))
        sides.append(("east", (b.LENGTH_M + FACE_M + OUTSIDE_M, y0), 90.0, y1 - y0))
    for side, at, turn, length in sides:
        number += 1
        if side == "south" and b.HALL[0] <= at[0] < b.HALL[1] and storey in ("Level 00", "Level 01"):
            glazing(d, storey, at, number)
            continue
        tag = f"OW-{storey[-2:]}-{number:02d}"
        wall = d.add(
            "IfcWall",
            storey,
            f"Outside wall {tag}",
            [d.box((0, 0, -b.FLOOR_BUILDUP_M - b.SLAB_M), (length, OUTSIDE_M, rise))],
            tag=tag,
            description=f"Outside wall, {side}",
            at=(*at, 0),
            turn_deg=turn,
            kind="Outside wall 250",
            predefined="SOLIDWALL",
            material=MASONRY,
            properties=wall_properties(True, "REI60"),
            quantities={"Length": length, "Height": rise, "Width": OUTSIDE_M},
        )
        for index, offset in enumerate(_window_places(length)):
            set_window(d, wall, storey, side, at, turn, offset, f"{tag}-{index}")


def _window_places(length: float) -> list[float]:
    if length < 3:
        return [length / 2 - 0.6]
    return [0.75, length - 0.75 - 1.2] if length < 5.9 else [0.8, length / 2 + 0.35]


def set_window(
    d: Draft, wall: Any, storey: str, side: str, at: tuple[float, float], turn: float, offset: float, key: str
) -> None:
    """A window of an outside wall, in its opening."""
    width = 1.2 if side in ("west", "east") else 1.85
    sill, height = 0.9, 1.8
    step = {0.0: (1, 0), 180.0: (-1, 0), -90.0: (0, -1), 90.0: (0, 1)}[turn]
    inward = {0.0: (0, 1), 180.0: (0, -1), -90.0: (1, 0), 90.0: (-1, 0)}[turn]
    corner = (at[0] + step[0] * offset, at[1] + step[1] * offset)
    place = (corner[0] + inward[0] * 0.08, corner[1] + inward[1] * 0.08, sill)
    window = d.add(
        "IfcWindow",
        storey,
        f"Window {key[3:]}",
        d.shared(f"window-{width}", lambda: _window(d, width, height)),
        tag=f"WN-{key[3:]}",
        description=f"Window, {side}, two lights",
        at=place,
        turn_deg=turn,
        kind=f"Window {width * 1000:.0f} x {height * 1000:.0f}",
        material=ALUMINIUM,
        properties={
            "Pset_WindowCommon": {
                "IsExternal": True,
                "ThermalTransmittance": Measure("IfcThermalTransmittanceMeasure", 0.9),
                "GlazingAreaFraction": 0.86,
            }
        },
        quantities={"Width": width, "Height": height},
        OverallWidth=width * d.scale,
        OverallHeight=height * d.scale,
    )
    d.opening(
        wall,
        f"window/{key}",
        [d.box((0, -0.2, 0), (width, OUTSIDE_M + 0.4, height))],
        (*corner, sill),
        turn,
        window,
    )


def _transom(d: Draft, cell: float, over_entrance: bool) -> Items:
    start, length = (2 * cell, 2 * cell - 0.06) if over_entrance else (0.06, b.BAY_M - 0.12)
    return d.style([d.box((start, 0, 0), (length, 0.12, 0.06))], ALUMINIUM)


def glazing(d: Draft, storey: str, at: tuple[float, float], number: int) -> None:
    """One bay of the hall's curtain wall: mullions, transoms and panes."""
    columns, rows = 4, 3
    cell, step = b.BAY_M / columns, 4.0 / rows
    base = -b.FLOOR_BUILDUP_M - b.SLAB_M
    entrance = storey == "Level 00" and at[0] == 18.0
    whole = d.add(
        "IfcCurtainWall",
        storey,
        f"Glazed hall bay {number}",
        [],
        tag=f"CW-{storey[-2:]}-{number:02d}",
        description="Curtain wall of the hall",
        kind="Curtain wall CW50",
        properties={
            "Pset_CurtainWallCommon": {
                "IsExternal": True,
                "ThermalTransmittance": Measure("IfcThermalTransmittanceMeasure", 0.8),
            }
        },
    )
    parts = []
    for column in range(columns + 1):
        x = min(max(column * cell - 0.03, 0.0), b.BAY_M - 0.06)
        parts.append(
            d.add(
                "IfcMember",
                storey,
                f"Mullion {number}.{column}",
                d.shared("mullion", lambda: d.style([d.box((0, 0, base), (0.06, 0.14, 4.0))], ALUMINIUM)),
                tag=f"MU-{storey[-2:]}-{number:02d}.{column}",
                description="Mullion",
                at=(at[0] + x, at[1] + 0.06, 0),
                kind="Mullion 60 x 140",
                predefined="MULLION",
                material=ALUMINIUM,
            )
        )
    for row in range(rows + 1):
        z = base + min(max(row * step - 0.03, 0.0), 4.0 - 0.06)
        skip = entrance and row == 1
        parts.append(
            d.add(
                "IfcMember",
                storey,
                f"Transom {number}.{row}",
                d.shared(f"transom-{skip}", partial(_transom, d, cell, skip)),
                tag=f"TR-{storey[-2:]}-{number:02d}.{row}",
                description="Transom",
                at=(at[0], at[1] + 0.07, z),
                kind="Transom 60 x 120",
                predefined="MULLION",
                material=ALUMINIUM,
            )
        )
    for column in range(columns):
        for row in range(rows):
            if entrance and column < 2 and row < 2:
                continue  # the entrance stands open
            parts.append(
                d.add(
                    "IfcPlate",
                    storey,
                    f"Pane {number}.{column}.{row}",
                    d.shared(
                        "pane", lambda: d.style([d.box((0.03, 0, 0.03), (cell - 0.06, 0.032, step - 0.06))], GLASS)
                    ),
                    tag=f"PA-{storey[-2:]}-{number:02d}.{column}{row}",
                    description="Insulating glass unit",
                    at=(at[0] + column * cell, at[1] + 0.1, base + row * step),
                    kind="Glass unit 32",
                    predefined="CURTAIN_PANEL",
                    material=GLASS,
                    properties={"Pset_PlateCommon": {"IsExternal": True, "AcousticRating": "38 dB"}},
                )
            )
    d.aggregate(whole, parts, f"glazing/{storey}/{number}")
