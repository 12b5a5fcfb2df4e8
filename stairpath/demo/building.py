"""The Quillhaven Tide Laboratory's dimensions, in metres and building coordinates.

Building coordinates: x along the lettered axes (towards axis 9), y along the numbered
axes (towards axis F, the building's north), z up from the ground floor.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

LENGTH_M = 48.0
WIDTH_M = 24.0
BAY_M = 6.0

STOREYS_M: dict[str, float] = {
    "Level B1": -4.2,
    "Level 00": 0.0,
    "Level 01": 4.0,
    "Level 02": 8.0,
    "Roof": 12.0,
}
FLOORS = ("Level B1", "Level 00", "Level 01", "Level 02")

NUMBERED_AXES_M: dict[str, float] = {str(i + 1): i * BAY_M for i in range(9)}
LETTERED_AXES_M: dict[str, float] = {"A": 0.0, "B": 5.4, "C": 10.8, "D": 13.2, "E": 18.6, "F": 24.0}

FLOOR_BUILDUP_M = 0.10
SLAB_M = 0.22
CEILING_M = 2.75
CORRIDOR_Y_M = (10.8, 13.2)

MAP_EASTING_M = 412_300.0
MAP_NORTHING_M = 88_650.0
MAP_ROTATION_DEG = 17.0
"""Turn of the building's x axis from the map's easting, anticlockwise."""

STRUCTURE_LEVEL_02_LOW_M = 0.040
PIPE_OVER_NOSING_M = 1.86
PIPE_RADIUS_M = 0.057
TRAY_TO_BRANCH_M = 0.012
CORRIDOR_PINCH_M = 0.72


@dataclass(frozen=True)
class Room:
    """A room's clear rectangle on its storey."""

    number: str
    name: str
    storey: str
    x0: float
    x1: float
    y0: float
    y1: float
    use: str

    @property
    def floor_m(self) -> float:
        return STOREYS_M[self.storey]

    @property
    def area_m2(self) -> float:
        return (self.x1 - self.x0) * (self.y1 - self.y0)

    @property
    def centre(self) -> tuple[float, float]:
        return (self.x0 + self.x1) / 2, (self.y0 + self.y1) / 2


SOUTH = (0.0, CORRIDOR_Y_M[0])
NORTH = (CORRIDOR_Y_M[1], WIDTH_M)
ESCAPE_STAIR = (43.2, 46.0, 13.2, 19.2)
LIFT_SHAFT = (30.4, 32.4, 13.4, 15.8)
STAIR_OPENING = (25.6, 28.4, 4.5, 9.2)
HALL = (18.0, 30.0)

# x bounds, name and use of the rooms south and north of the corridor of each floor.
_PLAN: dict[str, tuple[list[tuple[float, float, str, str]], list[tuple[float, float, str, str]]]] = {
    "Level B1": (
        [
            (0, 12, "Sea-water pump room", "plant"),
            (12, 24, "Filter hall", "plant"),
            (24, 30, "Switch room", "electrical"),
            (30, 36, "Dive store", "store"),
            (36, 42, "Workshop", "work"),
            (42, 48, "Tank store", "store"),
        ],
        [
            (0, 12, "Reservoir hall", "aquaria"),
            (12, 18, "Chiller room", "plant"),
            (18, 30, "Cold archive", "store"),
            (32.6, 43.2, "Air plant room", "plant"),
        ],
    ),
    "Level 00": (
        [
            (0, 6, "Reception office", "office"),
            (6, 18, "Touch-pool hall", "aquaria"),
            (18, 30, "Entrance hall", "hall"),
            (30, 42, "Seminar room", "seminar"),
            (42, 48, "Pantry", "work"),
        ],
        [
            (0, 18, "Large aquaria hall", "aquaria"),
            (18, 24, "Wet laboratory", "laboratory"),
            (24, 30, "Washrooms", "wash"),
            (32.6, 43.2, "Quarantine laboratory", "laboratory"),
        ],
    ),
    "Level 01": (
        [
            (0, 9, "Plankton laboratory", "laboratory"),
            (9, 18, "Sediment laboratory", "laboratory"),
            (18, 30, "Gallery", "hall"),
            (30, 36, "Imaging room", "laboratory"),
            (36, 42, "Balance room", "laboratory"),
            (42, 48, "Chart office", "office"),
        ],
        [
            (0, 12, "Upper aquaria hall", "aquaria"),
            (12, 24, "Genetics laboratory", "laboratory"),
            (24, 30, "Washrooms", "wash"),
            (32.6, 43.2, "Shared office", "office"),
        ],
    ),
    "Level 02": (
        [
            (0, 6, "Director's office", "office"),
            (6, 12, "Survey office", "office"),
            (12, 18, "Reading room", "office"),
            (18, 30, "Upper gallery", "hall"),
            (30, 36, "Specimen store", "store"),
            (36, 48, "Chemistry laboratory", "laboratory"),
        ],
        [
            (0, 12, "Tide-model laboratory", "laboratory"),
            (12, 24, "Instrument laboratory", "laboratory"),
            (24, 30, "Washrooms", "wash"),
            (32.6, 43.2, "Data office", "office"),
        ],
    ),
}


def rooms() -> list[Room]:
    """Every room of the building, numbered storey by storey from the south-west."""
    found: list[Room] = []
    for storey, (south, north) in _PLAN.items():
        prefix = storey.removeprefix("Level ").lstrip("0") or "0"
        count = 0

        def add(
            name: str,
            use: str,
            x: tuple[float, float],
            y: tuple[float, float],
            storey: str = storey,
            prefix: str = prefix,
        ) -> None:
            nonlocal count
            count += 1
            found.append(Room(f"{prefix}.{count:02d}", name, storey, x[0], x[1], y[0], y[1], use))

        for x0, x1, name, use in south:
            add(name, use, (x0, x1), SOUTH)
        add("Corridor", "corridor", (0, LENGTH_M), CORRIDOR_Y_M)
        for x0, x1, name, use in north:
            add(name, use, (x0, x1), NORTH)
        add("Lift lobby store", "store", (30.0, 32.4), (LIFT_SHAFT[3] + 0.2, WIDTH_M))
        add("Escape stair", "stair", ESCAPE_STAIR[:2], ESCAPE_STAIR[2:])
        add("Riser", "riser", (46.2, LENGTH_M), NORTH)
    return found


@dataclass(frozen=True)
class Flights:
    """A dog-leg stair between two floors: the figures that its steps follow from.

    The first flight runs along ``direction`` (+1 or -1 on y) from ``start_y``, the second
    comes back beside it.
    """

    x0: float
    width_m: float
    well_m: float
    start_y: float
    direction: int
    going_m: float
    risers: int
    rise_m: float
    landing_m: float

    @property
    def riser_m(self) -> float:
        return self.rise_m / self.risers

    @property
    def run_m(self) -> float:
        """Plan length of one flight: one going less than it has risers."""
        return (self.risers // 2 - 1) * self.going_m

    @property
    def outer_m(self) -> float:
        return 2 * self.width_m + self.well_m

    def nosing_z(self, y: float) -> float:
        """Height of the first flight's nosing line above the lower floor at ``y``."""
        return self.riser_m * (1 + self.direction * (y - self.start_y) / self.going_m)


def escape_flights(storey: str) -> Flights:
    """The escape stair's flights up from ``storey``."""
    rise = 4.2 if storey == "Level B1" else 4.0
    risers = 26 if storey == "Level B1" else 24
    going = 0.27 if storey == "Level B1" else 0.28
    return Flights(43.2, 1.3, 0.2, 14.6, 1, going, risers, rise, 1.36)


PIPE_OVER_STAIR_Y_M = 16.28


def pipe_over_stair_z() -> float:
    """Centre height above Level 00 of the pipe planted over the escape stair.

    The nearest vertical distance from a sloped line to a circle lies off its bottom, so the
    radius counts with the slope's secant.
    """
    flights = escape_flights("Level 00")
    secant = math.hypot(1.0, flights.riser_m / flights.going_m)
    return flights.nosing_z(PIPE_OVER_STAIR_Y_M) + PIPE_OVER_NOSING_M + PIPE_RADIUS_M * secant
