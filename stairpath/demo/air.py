"""QH-AIR: air handling on the roof and in the basement, ducts, bends and terminals."""

from __future__ import annotations

import itertools

from stairpath.demo import building as b
from stairpath.demo.draft import Draft, Measure, Value, metres
from stairpath.demo.forms import Items
from stairpath.demo.frame import Site
from stairpath.demo.services import Tags, grid_points, rooms_of
from stairpath.demo.stuff import GALVANISED, POLYMER

SUPPLY_Y_M = 11.45
EXTRACT_Y_M = 12.65
MAIN_Z_M = 3.08
SUPPLY_M = (0.60, 0.28)
EXTRACT_M = (0.50, 0.25)
BRANCH_M = (0.32, 0.20)

# The duct planted through beam 2/A-B over the Plankton laboratory.
PLANTED_DUCT = "AD-199"
PLANTED_Y_M = 3.2
PLANTED_Z_M = 3.45

# Hangers of the mains, along each bay; the one before the escape stair on Level 01 hangs lower than the others.
HANGERS_M = (0.85, 4.3)
HANGER_M = 0.03
STRAP_M = 0.003
LOW_HANGER_M = 0.065
LOW_HANGER_AT_M = (42.85, EXTRACT_Y_M)

_PROPERTIES: dict[str, dict[str, Value]] = {
    "Pset_DuctSegmentTypeCommon": {
        "Reference": "RD",
        "WorkingPressure": Measure("IfcPressureMeasure", 500.0),
        "NominalThickness": metres(0.0008),
    }
}


class _Air:
    def __init__(self, d: Draft) -> None:
        self.d = d
        self.ducts = Tags("AD")
        self.fittings = Tags("AF")
        self.terminals = Tags("AT")
        self.hangers = Tags("AH")

    def duct(
        self,
        storey: str,
        a: tuple[float, float, float],
        axis: tuple[int, int, int],
        length: float,
        size: tuple[float, float],
        system: str,
        tag: str | None = None,
    ) -> None:
        d = self.d
        across = (0, 1, 0) if axis[0] else (1, 0, 0)
        width, height = size
        d.add(
            "IfcDuctSegment",
            storey,
            f"Duct {width * 1000:.0f} x {height * 1000:.0f}",
            d.style([d.rect_tube((0, 0, 0), axis, across, length, width, height)], GALVANISED),
            tag=tag or self.ducts.take(storey),
            description=f"{system} duct, rectangular {width * 1000:.0f} x {height * 1000:.0f}",
            at=a,
            kind=f"Rectangular duct {width * 1000:.0f} x {height * 1000:.0f}",
            predefined="RIGIDSEGMENT",
            material=GALVANISED,
            properties=_PROPERTIES,
            quantities={"Length": length, "Width": width, "Height": height},
            system=system,
        )

    def fitting(self, storey: str, name: str, at: tuple[float, float, float], items: Items, system: str) -> None:
        d = self.d
        d.add(
            "IfcDuctFitting",
            storey,
            name,
            d.style(items, GALVANISED),
            tag=self.fittings.take(storey),
            description=f"{name}, {system.lower()}",
            at=at,
            kind=name,
            predefined="BEND" if "bend" in name else "JUNCTION",
            material=GALVANISED,
            system=system,
        )

    def terminal(self, storey: str, at: tuple[float, float, float], system: str) -> None:
        d = self.d

        def build() -> Items:
            plate = d.box((-0.3, -0.3, 0.0), (0.6, 0.6, 0.02))
            rings = [
                d.box((-size, -size, -0.02 - drop), (2 * size, 2 * size, 0.02))
                for size, drop in ((0.22, 0.0), (0.12, 0.02))
            ]
            neck = d.box((-0.1, -0.1, 0.02), (0.2, 0.2, 0.16))
            return d.style([plate, *rings], POLYMER) + d.style([neck], GALVANISED)

        d.add(
            "IfcAirTerminal",
            storey,
            "Swirl diffuser 600",
            d.shared("terminal", build),
            tag=self.terminals.take(storey),
            description=f"{system} terminal, 600 x 600",
            at=at,
            kind="Diffuser 600 x 600",
            predefined="DIFFUSER",
            material=POLYMER,
            properties={"Pset_AirTerminalTypeCommon": {"Reference": "DF6", "FaceType": "FOURWAYPATTERN"}},
            system=system,
        )

    def hanger(self, storey: str, x: float, y: float, size: tuple[float, float], system: str) -> None:
        """A bar under a main duct and a strap up either side to the slab above."""
        d = self.d
        half, under = size[0] / 2, size[1] / 2 + HANGER_M
        if (storey, x, y) == ("Level 01", *LOW_HANGER_AT_M):
            under += LOW_HANGER_M
        slab = 4.0 - b.FLOOR_BUILDUP_M - b.SLAB_M - (b.STRUCTURE_LEVEL_02_LOW_M if storey == "Level 01" else 0.0)
        if storey == "Level B1":
            slab += b.STOREYS_M["Level 00"] - b.STOREYS_M["Level B1"] - 4.0
        bar = d.box((-HANGER_M / 2, -half - HANGER_M, -under), (HANGER_M, 2 * (half + HANGER_M), HANGER_M))
        straps = [
            d.box((-HANGER_M / 2, side, -under), (HANGER_M, STRAP_M, under + slab - MAIN_Z_M))
            for side in (-half - STRAP_M, half)
        ]
        d.add(
            "IfcDiscreteAccessory",
            storey,
            "Duct hanger",
            d.style([bar, *straps], GALVANISED),
            tag=self.hangers.take(storey),
            description=f"Hanger of the {system.lower()} main",
            at=(x, y, MAIN_Z_M),
            kind=f"Strap hanger {size[0] * 1000:.0f}",
            material=GALVANISED,
            quantities={"Length": slab - MAIN_Z_M + under},
            system=system,
        )

    def storey(self, storey: str) -> None:
        d = self.d
        for system, y, size in (("Supply air 1", SUPPLY_Y_M, SUPPLY_M), ("Extract air 1", EXTRACT_Y_M, EXTRACT_M)):
            for bay in range(8):
                x0, x1 = bay * b.BAY_M + 0.15, (bay + 1) * b.BAY_M - (0.15 if bay < 7 else 0.9)
                self.duct(storey, (x0, y, MAIN_Z_M), (1, 0, 0), x1 - x0, size, system)
                for along in HANGERS_M:
                    if bay * b.BAY_M + along < x1:
                        self.hanger(storey, bay * b.BAY_M + along, y, size, system)
                if bay:
                    self.fitting(
                        storey,
                        "Duct joint",
                        (bay * b.BAY_M - 0.15, y, MAIN_Z_M),
                        [d.rect_tube((0, 0, 0), (1, 0, 0), (0, 1, 0), 0.3, size[0] + 0.06, size[1] + 0.06)],
                        system,
                    )
            # Both mains turn up into the riser at the east end.
            self.fitting(
                storey,
                "Duct bend 90",
                (47.1 + 0.35, y, MAIN_Z_M),
                [d.bend((0, 0, 0), (1, 0, 0), (0, 1, 0), 0.35, d.rect_section(size[0] * 0.9, size[1]))],
                system,
            )
        for room in rooms_of(storey):
            self.room(storey, room)

    def room(self, storey: str, room: b.Room) -> None:
        d = self.d
        system, y, size = ("Supply air 1", SUPPLY_Y_M, SUPPLY_M)
        south = room.y1 <= b.CORRIDOR_Y_M[0]
        start = y - size[0] / 2 if south else y + size[0] / 2
        step = -1 if south else 1
        x = room.x0 + (room.x1 - room.x0) * 0.55
        z = MAIN_Z_M
        far = room.y0 + 2.0 if south else room.y1 - 2.0
        ends = [start, (start + far) / 2, far]
        for a, c in itertools.pairwise(ends):
            self.duct(storey, (x, a, z), (0, step, 0), abs(c - a) - 0.02, BRANCH_M, system)
        across = max(1.0, (room.x1 - room.x0) / 2 - 1.0)
        self.fitting(storey, "Duct end box", (x, far, z), [d.box((-0.2, -0.2, -0.15), (0.4, 0.4, 0.3))], system)
        if room.x1 - room.x0 >= 9:
            for side in (-1, 1):
                self.duct(storey, (x + side * 0.2, far, z), (side, 0, 0), across - 1.2, (0.25, 0.18), system)
        for index, (px, py) in enumerate(grid_points(room, 4.2)):
            self.terminal(storey, (px, py, b.CEILING_M - 0.02), "Supply air 1" if index % 2 == 0 else "Extract air 1")

    def units(self) -> None:
        d = self.d
        for index, (x, y) in enumerate(((6.0, 6.0), (6.0, 14.0), (18.0, 6.0), (18.0, 14.0)), start=1):
            feet = [d.box((i * 1.4 + 0.2, j * 1.6 + 0.1, -0.3), (0.2, 0.2, 0.3)) for i in range(4) for j in (0, 1)]
            casing = [
                d.box((0, 0, 0), (4.8, 2.0, 1.9)),
                d.box((4.8, 0.4, 0.4), (0.6, 1.2, 1.1)),
                d.box((1.6, -0.02, 0.15), (0.04, 0.02, 1.6)),
            ]
            slats = [d.box((-0.06, 0.15, 0.2 + 0.12 * s), (0.06, 1.7, 0.05)) for s in range(13)]
            fan = [d.rod((2.4, 1.0, 1.9), (0, 0, 1), 0.25, 0.6, 0.03)]
            d.add(
                "IfcUnitaryEquipment",
                "Roof",
                f"Air handling unit {index}",
                d.style([*feet, *casing, *slats, *fan], GALVANISED),
                tag=f"AHU-{index}",
                description="Air handling unit, roof plant",
                at=(x, y, 0.3),
                kind="AHU 12 000 m3/h",
                predefined="AIRHANDLER",
                material=GALVANISED,
                properties={
                    "Pset_UnitaryEquipmentTypeAirHandler": {
                        "AirHandlerConstruction": "MANUFACTUREDITEM",
                        "AirFlowRate": Measure("IfcVolumetricFlowRateMeasure", 3.333),
                    }
                },
                system="Supply air 1" if index % 2 else "Extract air 1",
            )
            self.duct("Roof", (x + 5.4, y + 1.0, 1.2), (1, 0, 0), 6.2, (0.7, 0.5), "Supply air 1")
        for index in range(2):
            y = 6.9 + index * 8.2
            for bay in range(4):
                x = 30.2 + bay * 4.0
                # The last one of the second run ends before the stair's roof house.
                length = 0.6 if index == 1 and bay == 3 else 3.9
                self.duct(
                    "Roof",
                    (x, y, 1.2),
                    (1, 0, 0),
                    length,
                    (0.8, 0.6),
                    "Supply air 1" if index == 0 else "Extract air 1",
                )
        for index in range(6):
            x = 8 + index * 5.2
            d.add(
                "IfcFan",
                "Roof",
                f"Fume extract fan {index + 1}",
                d.style(
                    [
                        d.rod((0, 0, 0), (0, 0, 1), 0.5, 0.35, 0.01),
                        d.rod((0, 0, 0.5), (0, 0, 1), 0.35, 0.28),
                        d.rod((0, 0, 0.85), (0, 0, 1), 2.0, 0.16, 0.006),
                        d.rod((0, 0, 2.85), (0, 0, 1), 0.05, 0.26),
                    ],
                    GALVANISED,
                ),
                tag=f"EF-{index + 1}",
                description="Fume extract fan with stack",
                at=(x, 21.0, 0.0),
                kind="Roof fan 400",
                predefined="CENTRIFUGALAIRFOIL",
                material=GALVANISED,
                system="Fume extract",
            )
        for index in range(2):
            d.add(
                "IfcUnitaryEquipment",
                "Level B1",
                f"Air handling unit B{index + 1}",
                d.style(
                    [
                        d.box((0, 0, 0.1), (3.6, 1.8, 1.8)),
                        *[d.box((0.3 + i * 0.8, -0.02, 0.3), (0.6, 0.02, 1.4)) for i in range(4)],
                    ],
                    GALVANISED,
                ),
                tag=f"AHU-B{index + 1}",
                description="Air handling unit, basement",
                at=(34.2, 15.6 + index * 3.6, 0),
                kind="AHU 8 000 m3/h",
                predefined="AIRHANDLER",
                material=GALVANISED,
                system="Supply air 1",
            )


def draft() -> Draft:
    """The air model: IFC2X3 in feet, in the building's own axes."""
    d = Draft("QH-AIR-ZZ-ZZ-M3", "Air", "Gannet Services", "IFC2X3", "ft", Site())
    for name, level in b.STOREYS_M.items():
        d.storey(name, level)
    air = _Air(d)
    for storey in b.FLOORS:
        air.storey(storey)
    air.units()
    air.duct("Level 01", (3.0, PLANTED_Y_M, PLANTED_Z_M), (1, 0, 0), 5.4, (0.5, 0.3), "Supply air 1", tag=PLANTED_DUCT)
    return d
