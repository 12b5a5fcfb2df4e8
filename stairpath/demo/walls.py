"""Inside walls of the demo, with their doors."""

from __future__ import annotations

from typing import Any

from stairpath.demo import building as b
from stairpath.demo.draft import Draft, Measure, Value
from stairpath.demo.forms import Items
from stairpath.demo.stuff import (
    ALUMINIUM,
    GLASS,
    PLASTERBOARD,
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


def wall_properties(external: bool, rating: str) -> dict[str, dict[str, Value]]:
    """What a wall says of itself."""
    return {
        "Pset_WallCommon": {
            "IsExternal": external,
            "LoadBearing": False,
            "FireRating": rating,
            "ThermalTransmittance": Measure("IfcThermalTransmittanceMeasure", 0.21 if external else 1.4),
        }
    }


def _leaf(d: Draft, width: float, glazed: bool) -> Items:
    """Frame, threshold and leaf of a door in a wall of the usual thickness, opening from x = 0."""
    h, t = DOOR_HEIGHT_M, INSIDE_M
    frame = [
        d.box((0, 0, -b.FLOOR_BUILDUP_M), (width, t, b.FLOOR_BUILDUP_M)),
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


class Doors:
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


def corridor_walls(d: Draft, storey: str, rooms: list[b.Room], doors: Doors) -> None:
    """Walls along the corridor of a storey, each with the door of its room."""
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
            properties=wall_properties(False, rating),
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
        properties=wall_properties(False, "EI60"),
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
        properties=wall_properties(False, "EI60"),
        quantities={"Length": 2.0, "Height": height, "Width": INSIDE_M},
    )


def cross_walls(d: Draft, storey: str, rooms: list[b.Room]) -> None:
    """Walls between the rooms of a storey."""
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
            properties=wall_properties(False, "EI60" if 43 < x < 47 else "EI30"),
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
        properties=wall_properties(False, "EI60"),
        quantities={"Length": 2.875, "Height": height, "Width": INSIDE_M},
    )
