"""QH-ARC: walls, doors, windows, glazed hall, ceilings, floors, ramp and rooms."""

from __future__ import annotations

import itertools
from functools import partial
from typing import Any

from stairpath.demo import building as b
from stairpath.demo.draft import Draft, Items, Measure, Site, Value, metres
from stairpath.demo.stairs import escape_stair
from stairpath.demo.stuff import (
    ALUMINIUM,
    CONCRETE,
    GLASS,
    MASONRY,
    MINERAL_TILE,
    PLASTERBOARD,
    ROOFING,
    SCREED,
    STAINLESS,
    TIMBER,
)

OUTSIDE_M = 0.25
INSIDE_M = 0.125
FACE_M = 0.2
DOOR_HEIGHT_M = 2.1
CEILED = {"office", "laboratory", "corridor", "wash", "seminar", "work"}

# The door whose leaf meets column C6 of Level 02: its opening starts 0.12 m from axis 6.
SWING_DOOR_X0_M = 30.12


def clear_height(storey: str) -> float:
    """From the floor finish to the underside of the slab above."""
    rise = 4.2 if storey == "Level B1" else 4.0
    return rise - b.SLAB_M - b.FLOOR_BUILDUP_M


def _wall_properties(external: bool, rating: str) -> dict[str, dict[str, Value]]:
    return {
        "Pset_WallCommon": {
            "IsExternal": external,
            "LoadBearing": False,
            "FireRating": rating,
            "ThermalTransmittance": Measure("IfcThermalTransmittanceMeasure", 0.21 if external else 1.4),
        }
    }


def _leaf(d: Draft, width: float, glazed: bool) -> Items:
    """Frame and leaf of a door in a wall of the usual thickness, opening from x = 0."""
    h, t = DOOR_HEIGHT_M, INSIDE_M
    frame = [
        d.box((0, 0, 0), (0.05, t, h)),
        d.box((width - 0.05, 0, 0), (0.05, t, h)),
        d.box((0.05, 0, h - 0.05), (width - 0.1, t, 0.05)),
    ]
    d.style(frame, ALUMINIUM)
    leaf = [d.box((0.05, 0.02, 0.01), (width - 0.1, 0.044, h - 0.07))]
    d.style(leaf, GLASS if glazed else TIMBER)
    handles = [d.rod((width - 0.13, y, 1.05), (-1, 0, 0), 0.13, 0.011) for y in (-0.03, 0.115)]
    d.style(handles, STAINLESS)
    return frame + leaf + handles


class _Doors:
    """Numbers doors and sets each into its wall."""

    def __init__(self, d: Draft) -> None:
        self.d = d
        self.count = 0

    def set(
        self,
        wall: Any,
        storey: str,
        at: tuple[float, float],
        turn_deg: float,
        width: float,
        into: str,
        rating: str = "",
        glazed: bool = False,
    ) -> None:
        d = self.d
        self.count += 1
        tag = f"D-{self.count:03d}"
        door = d.add(
            "IfcDoor",
            storey,
            f"Door {tag}",
            d.shared(f"door-{width:.2f}-{glazed}", lambda: _leaf(d, width, glazed)),
            tag=tag,
            description=f"Door to {into}",
            at=(*at, 0),
            turn_deg=turn_deg,
            kind=f"Door {width * 1000:.0f} x {DOOR_HEIGHT_M * 1000:.0f}",
            material=TIMBER,
            properties={
                "Pset_DoorCommon": {
                    "FireRating": rating or "-",
                    "IsExternal": False,
                    "FireExit": into == "Escape stair",
                }
            },
            quantities={"Width": width, "Height": DOOR_HEIGHT_M},
            OverallWidth=width * d.scale,
            OverallHeight=DOOR_HEIGHT_M * d.scale,
        )
        d.opening(wall, tag, [d.box((0, -0.2, 0), (width, INSIDE_M + 0.4, DOOR_HEIGHT_M))], (*at, 0), turn_deg, door)


def _door_place(room: b.Room) -> tuple[float, float]:
    """Where along x a room's corridor door opens, and how wide."""
    width = 1.2 if room.use in ("laboratory", "aquaria", "plant", "seminar") else 0.95
    if room.name == "Specimen store":
        return SWING_DOOR_X0_M, width
    return (room.x0 + min(1.2, (room.x1 - room.x0) / 3)), width


def _corridor_walls(d: Draft, storey: str, rooms: list[b.Room], doors: _Doors) -> None:
    height = clear_height(storey)
    for room in rooms:
        if room.use in ("corridor", "riser") or room.y0 > b.CORRIDOR_Y_M[1] + 0.5:
            continue
        south = room.y1 == b.CORRIDOR_Y_M[0]
        if room.use == "hall":
            continue  # open to the corridor
        y = b.CORRIDOR_Y_M[0] - INSIDE_M if south else b.CORRIDOR_Y_M[1]
        escape = room.use == "stair"
        rating = "EI60" if escape else "EI30"
        wall = d.add(
            "IfcWall",
            storey,
            f"Corridor wall at {room.number}",
            [d.box((room.x0, y, 0), (room.x1 - room.x0, INSIDE_M, height))],
            tag=f"W-{room.number}",
            description=f"Partition between corridor and {room.name}",
            kind="Partition 125",
            predefined="PARTITIONING",
            material=PLASTERBOARD,
            properties=_wall_properties(False, rating),
            quantities={"Length": room.x1 - room.x0, "Height": height, "Width": INSIDE_M},
        )
        x, width = _door_place(room)
        doors.set(wall, storey, (x, y), 0, width, room.name, rating if escape else "", glazed=room.use == "seminar")
    x0, x1 = 30.0, 32.6
    lift = d.add(
        "IfcWall",
        storey,
        "Corridor wall at lift",
        [d.box((x0, b.CORRIDOR_Y_M[1], 0), (x1 - x0, INSIDE_M, height))],
        tag=f"W-LIFT-{storey[-2:]}",
        description="Partition at the lift",
        kind="Partition 125",
        predefined="PARTITIONING",
        material=PLASTERBOARD,
        properties=_wall_properties(False, "EI60"),
        quantities={"Length": x1 - x0, "Height": height, "Width": INSIDE_M},
    )
    doors.set(lift, storey, (30.9, b.CORRIDOR_Y_M[1]), 0, 0.95, "Lift", "EI60")
    d.add(
        "IfcWall",
        storey,
        "Corridor wall at riser",
        [d.box((46.0, b.CORRIDOR_Y_M[1], 0), (2.0, INSIDE_M, height))],
        tag=f"W-RISER-{storey[-2:]}",
        description="Partition at the riser",
        kind="Partition 125",
        predefined="PARTITIONING",
        material=PLASTERBOARD,
        properties=_wall_properties(False, "EI60"),
        quantities={"Length": 2.0, "Height": height, "Width": INSIDE_M},
    )


def _cross_walls(d: Draft, storey: str, rooms: list[b.Room]) -> None:
    height = clear_height(storey)
    runs: set[tuple[float, float, float]] = set()
    for room in rooms:
        if room.use == "corridor":
            continue
        outer = b.WIDTH_M + FACE_M if room.y1 == b.WIDTH_M else room.y1
        low = b.CORRIDOR_Y_M[1] + INSIDE_M if room.y0 >= b.CORRIDOR_Y_M[1] else -FACE_M
        inner = b.CORRIDOR_Y_M[0] - INSIDE_M if room.y1 == b.CORRIDOR_Y_M[0] else outer
        for x in (room.x0, room.x1):
            if 0 < x < b.LENGTH_M and not (low > 13 and 30.0 < x < 33.0):
                runs.add((x, low, inner))
    runs = {run for run in runs if not (run[0] in (43.2, 46.0, 46.2) and run[2] < 20)}
    runs |= {(43.2, 13.325, 24.2), (46.2, 13.325, 24.2), (32.5, 16.0, 24.2)}
    for index, (x, y0, y1) in enumerate(sorted(runs), start=1):
        tag = f"P-{storey[-2:]}-{index:02d}"
        d.add(
            "IfcWall",
            storey,
            f"Partition {tag}",
            [d.box((x - INSIDE_M / 2, y0, 0), (INSIDE_M, y1 - y0, height))],
            tag=tag,
            description="Partition between rooms",
            kind="Partition 125",
            predefined="PARTITIONING",
            material=PLASTERBOARD,
            properties=_wall_properties(False, "EI60" if 43 < x < 47 else "EI30"),
            quantities={"Length": y1 - y0, "Height": height, "Width": INSIDE_M},
        )
    d.add(
        "IfcWall",
        storey,
        "Escape stair end wall",
        [d.box((43.2625, 19.2, 0), (46.1375 - 43.2625, INSIDE_M, height))],
        tag=f"P-{storey[-2:]}-S2",
        description="Partition behind the escape stair",
        kind="Partition 125",
        predefined="PARTITIONING",
        material=PLASTERBOARD,
        properties=_wall_properties(False, "EI60"),
        quantities={"Length": 2.875, "Height": height, "Width": INSIDE_M},
    )


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


def _facade(d: Draft, storey: str) -> None:
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
            _glazing(d, storey, at, number)
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
            properties=_wall_properties(True, "REI60"),
            quantities={"Length": length, "Height": rise, "Width": OUTSIDE_M},
        )
        for index, offset in enumerate(_window_places(length)):
            _set_window(d, wall, storey, side, at, turn, offset, f"{tag}-{index}")


def _window_places(length: float) -> list[float]:
    if length < 3:
        return [length / 2 - 0.6]
    return [0.75, length - 0.75 - 1.2] if length < 5.9 else [0.8, length / 2 + 0.35]


def _set_window(
    d: Draft, wall: Any, storey: str, side: str, at: tuple[float, float], turn: float, offset: float, key: str
) -> None:
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


def _glazing(d: Draft, storey: str, at: tuple[float, float], number: int) -> None:
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


def _rect_with_hole(
    d: Draft, room: b.Room, depth: float, z: float, hole: tuple[float, float, float, float] | None
) -> Items:
    edge = 0.07
    x0, x1, y0, y1 = room.x0 + edge, room.x1 - edge, room.y0 + edge, room.y1 - edge
    if room.use == "stair" and room.storey != "Level B1":
        y1 = 14.6
    if room.use == "corridor":
        y0, y1 = room.y0, room.y1
    ring = [(x0, y0), (x1, y0), (x1, y1), (x0, y1)]
    holes = []
    if hole:
        hx0, hx1, hy0, hy1 = hole
        holes = [[(hx0, hy0), (hx1, hy0), (hx1, hy1), (hx0, hy1)]]
    return [d.prism(ring, depth, (0, 0, z), holes)]


def _finishes(d: Draft, room: b.Room) -> None:
    if room.use == "riser":
        return
    hole = b.STAIR_OPENING if room.use == "hall" and room.storey in ("Level 01", "Level 02") else None
    d.add(
        "IfcCovering",
        room.storey,
        f"Floor finish {room.number}",
        _rect_with_hole(d, room, b.FLOOR_BUILDUP_M, -b.FLOOR_BUILDUP_M, hole),
        tag=f"FF-{room.number}",
        description=f"Floor finish of {room.name}",
        kind="Screed 100",
        predefined="FLOORING",
        material=SCREED,
        properties={"Pset_CoveringCommon": {"Finish": "Resin, sea grey", "FragilityRating": "-"}},
        quantities={"GrossArea": room.area_m2},
    )
    if room.use in CEILED:
        d.add(
            "IfcCovering",
            room.storey,
            f"Ceiling {room.number}",
            d.style(_rect_with_hole(d, room, 0.02, b.CEILING_M, None), MINERAL_TILE),
            tag=f"CE-{room.number}",
            description=f"Suspended ceiling of {room.name}",
            kind="Suspended ceiling 600 grid",
            predefined="CEILING",
            material=MINERAL_TILE,
            properties={"Pset_CoveringCommon": {"Finish": "White", "AcousticRating": "0.85"}},
            quantities={"GrossArea": room.area_m2},
        )


def _roof(d: Draft) -> None:
    d.add(
        "IfcCovering",
        "Roof",
        "Roof build-up",
        [
            d.prism(
                [(-0.2, -0.2), (48.2, -0.2), (48.2, 24.2), (-0.2, 24.2)],
                0.1,
                (0, 0, -0.1),
                [
                    [(43.2, 14.6), (46.0, 14.6), (46.0, 19.2), (43.2, 19.2)],
                    [(46.5, 14.0), (47.5, 14.0), (47.5, 18.0), (46.5, 18.0)],
                ],
            )
        ],
        tag="RF-01",
        description="Flat roof build-up",
        kind="Roof build-up",
        predefined="ROOFING",
        material=ROOFING,
        quantities={"GrossArea": 48.4 * 24.4},
    )
    runs = [
        ((-0.45, -0.45), (48.9, 0.25)),
        ((-0.45, 24.2), (48.9, 0.25)),
        ((-0.45, -0.2), (0.25, 24.4)),
        ((48.2, -0.2), (0.25, 24.4)),
    ]
    for index, (corner, size) in enumerate(runs, start=1):
        d.add(
            "IfcWall",
            "Roof",
            f"Parapet {index}",
            [d.box((*corner, -0.32), (*size, 1.0))],
            tag=f"PP-{index}",
            description="Parapet",
            kind="Parapet 250",
            predefined="PARAPET",
            material=MASONRY,
            properties=_wall_properties(True, "-"),
        )
    house = [
        ((43.0, 13.0), (3.2, 0.2), "S"),
        ((43.0, 19.4), (3.2, 0.2), "N"),
        ((43.0, 13.2), (0.2, 6.2), "W"),
        ((46.0, 13.2), (0.2, 6.2), "E"),
    ]
    doors = _Doors(d)
    doors.count = 300
    for corner, size, side in house:
        wall = d.add(
            "IfcWall",
            "Roof",
            f"Stair house wall {side}",
            [d.box((*corner, 0), (*size, 2.8))],
            tag=f"SH-{side}",
            description="Wall of the stair's roof house",
            kind="Outside wall 200",
            predefined="SOLIDWALL",
            material=MASONRY,
            properties=_wall_properties(True, "EI60"),
        )
        if side == "S":
            doors.set(wall, "Roof", (43.8, 13.0), 0, 0.95, "Roof")
    d.add(
        "IfcSlab",
        "Roof",
        "Stair house roof",
        [d.box((42.9, 12.9, 2.8), (3.4, 6.8, 0.2))],
        tag="SH-R",
        description="Roof of the stair house",
        kind="Slab 200",
        predefined="ROOF",
        material=CONCRETE,
    )


def _approach(d: Draft) -> None:
    """The quay in front of the hall: landing, steps and a 1:12 ramp up from 0.45 m below."""
    d.add(
        "IfcSlab",
        "Level 00",
        "Quay",
        [d.box((-6, -9, -0.65), (60, 8.55, 0.2))],
        tag="Q-01",
        description="Paved quay",
        kind="Paving 200",
        predefined="FLOOR",
        material=CONCRETE,
    )
    d.add(
        "IfcSlab",
        "Level 00",
        "Entrance landing",
        [d.box((18, -2.45, -0.45), (12, 2.0, 0.45))],
        tag="Q-02",
        description="Landing before the entrance",
        kind="Landing",
        predefined="LANDING",
        material=CONCRETE,
    )
    ramp = d.add(
        "IfcRamp",
        "Level 00",
        "Entrance ramp",
        [],
        tag="RA-01",
        description="Ramp 1:12, 5.40 m long",
        kind="Straight ramp",
        predefined="STRAIGHT_RUN_RAMP",
        properties={"Pset_RampCommon": {"Reference": "RA", "RequiredSlope": 4.76, "HandicapAccessible": True}},
    )
    flight = d.add(
        "IfcRampFlight",
        "Level 00",
        "Ramp flight",
        [d.prism([(12.6, -0.45), (18.0, -0.45), (18.0, 0.0)], 1.5, (0, -0.75, 0), axis=(0, -1, 0), x=(1, 0, 0))],
        tag="RA-01.1",
        description="Ramp flight, 0.45 m up",
        kind="Ramp flight",
        predefined="STRAIGHT",
        material=CONCRETE,
    )
    d.aggregate(ramp, [flight], "ramp")
    d.add(
        "IfcStairFlight",
        "Level 00",
        "Entrance steps",
        [
            d.prism(
                [
                    (30, -0.45),
                    (30.9, -0.45),
                    (30.9, -0.3),
                    (30.6, -0.3),
                    (30.6, -0.15),
                    (30.3, -0.15),
                    (30.3, 0),
                    (30, 0),
                ],
                1.9,
                (0, -0.5, 0),
                axis=(0, -1, 0),
                x=(1, 0, 0),
            )
        ],
        tag="ST-01",
        description="Three risers of 150 mm",
        kind="Steps",
        predefined="STRAIGHT",
        material=CONCRETE,
    )


def _guards(d: Draft) -> None:
    """Guard rails round the hall stair's openings on the upper floors."""
    x0, x1, y0, y1 = b.STAIR_OPENING
    for storey in ("Level 01", "Level 02"):
        path = [(x1 + 0.05, y1, 0.0), (x1 + 0.05, y0 - 0.05, 0.0), (x0 - 0.05, y0 - 0.05, 0.0), (x0 - 0.05, y1, 0.0)]
        top = [(p[0], p[1], 1.1) for p in path]
        posts = []
        for a, c in itertools.pairwise(path):
            count = round((abs(c[0] - a[0]) + abs(c[1] - a[1])) / 0.15)
            posts += [
                d.rod((a[0] + (c[0] - a[0]) * i / count, a[1] + (c[1] - a[1]) * i / count, 0), (0, 0, 1), 1.1, 0.008)
                for i in range(count + 1)
            ]
        d.add(
            "IfcRailing",
            storey,
            f"Guard rail {storey[-2:]}",
            d.style([d.sweep(top, 0.024), *posts], STAINLESS),
            tag=f"GR-{storey[-2:]}",
            description="Guard rail round the stair opening",
            kind="Guard 1100",
            predefined="GUARDRAIL",
            material=STAINLESS,
            properties={"Pset_RailingCommon": {"Reference": "G110", "Height": metres(1.1), "IsExternal": False}},
        )


def draft() -> Draft:
    """The architecture model: millimetres, with a map conversion."""
    d = Draft("QH-ARC-ZZ-ZZ-M3", "Architecture", "Fenmoor Architects", "IFC4", "mm", Site(map_conversion=True))
    for name, level in b.STOREYS_M.items():
        d.storey(name, level)
    doors = _Doors(d)
    rooms = b.rooms()
    for storey in b.FLOORS:
        here = [room for room in rooms if room.storey == storey]
        _corridor_walls(d, storey, here, doors)
        _cross_walls(d, storey, here)
        if storey != "Level B1":
            _facade(d, storey)
        for room in here:
            _finishes(d, room)
            d.space(room, clear_height(storey))
    _roof(d)
    _approach(d)
    _guards(d)
    escape_stair(d)
    return d
