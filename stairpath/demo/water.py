"""QH-WTR: sea-water supply and return, waste pipes, pumps and filters."""

from __future__ import annotations

from typing import Any

from stairpath.demo import building as b
from stairpath.demo.draft import Draft, Measure, Value, metres
from stairpath.demo.forms import Items
from stairpath.demo.frame import Site
from stairpath.demo.services import Tags, pipe_run, rooms_of
from stairpath.demo.stuff import HDPE, STAINLESS

# A pipe's place in the corridor: distance across, height.
SUPPLY = (12.10, 3.20)
RETURN = (12.26, 3.20)
WASTE = (11.95, 2.92)

_PROPERTIES: dict[str, dict[str, Value]] = {
    "Pset_PipeSegmentTypeCommon": {"Reference": "SW", "WorkingPressure": Measure("IfcPressureMeasure", 600_000.0)}
}

_INSULATED: dict[str, dict[str, Value]] = {
    **_PROPERTIES,
    "QH_Insulation": {"Insulation": "Closed-cell foam", "Thickness": metres(0.019)},
}
"""Sea water is colder than the rooms; what carries it is insulated."""
BARE = ("Sediment laboratory", "Imaging room")
"""Rooms on Level 01 to which the sea-water branches were forgotten."""


def _properties(system: str, room: b.Room | None = None) -> dict[str, dict[str, Value]]:
    forgotten = room is not None and room.storey == "Level 01" and room.name in BARE
    return _INSULATED if system.startswith("Sea-water") and not forgotten else _PROPERTIES


class _Water:
    def __init__(self, d: Draft) -> None:
        self.d = d
        self.sea = Tags("SW")
        self.waste = Tags("WP")
        self.valves = Tags("V")
        self.mains: dict[tuple[str, str], list[list[Any]]] = {}
        """The parts of the mains of a storey and system, bay by bay."""

    def valve(self, storey: str, at: tuple[float, float, float], system: str, on: Any) -> None:
        """An isolating valve on a pipe."""
        d = self.d

        def build() -> Items:
            return d.style(
                [
                    d.rod((-0.1, 0, 0), (1, 0, 0), 0.2, 0.045),
                    d.box((-0.11, -0.08, -0.08), (0.03, 0.16, 0.16)),
                    d.box((0.08, -0.08, -0.08), (0.03, 0.16, 0.16)),
                    d.rod((0, 0, 0), (0, 0, -1), 0.16, 0.015),
                    d.rod((0, 0, -0.16), (0, 0, -1), 0.02, 0.049),
                ],
                STAINLESS,
            )

        made = d.add(
            "IfcValve",
            storey,
            "Isolating valve",
            d.shared("valve", build),
            tag=self.valves.take(storey),
            description=f"Isolating valve, {system.lower()}",
            at=at,
            kind="Gate valve DN 80",
            predefined="ISOLATING",
            material=STAINLESS,
            system=system,
        )
        d.join(on, made)

    def branch_off(self, storey: str, system: str, x: float, branch: list[Any]) -> None:
        """Join a branch to the main that it leaves."""
        mains = self.mains[storey, system]
        self.d.join(mains[min(int(x / b.BAY_M), len(mains) - 1)][0], branch[0])

    def storey(self, storey: str) -> None:
        d = self.d
        for system, (y, z), radius, tags in (
            ("Sea-water supply", SUPPLY, 0.057, self.sea),
            ("Sea-water return", RETURN, 0.057, self.sea),
            ("Waste water", WASTE, 0.055, self.waste),
        ):
            mains = self.mains.setdefault((storey, system), [])
            for bay in range(8):
                x0, x1 = bay * b.BAY_M, (bay + 1) * b.BAY_M
                path = [(x0 + 0.02, y, z), (x1, y, z)]
                if bay == 7:
                    path = [(x0 + 0.02, y, z), (47.0, y, z), (47.0, 14.6 + 0.3 * (y - 12), z)]
                made = pipe_run(d, storey, tags, path, radius, HDPE, system, f"{system} main", _properties(system))
                if mains:
                    d.join(mains[-1][-1], made[0])
                mains.append(made)
            self.valve(storey, (1.0, y, z), system, mains[0][0])
        for room in rooms_of(storey):
            if room.use in ("laboratory", "aquaria", "plant"):
                self.sea_branch(storey, room)
            if room.use in ("laboratory", "wash", "work"):
                self.waste_branch(storey, room)
        rise = 4.2 if storey == "Level B1" else 4.0
        for system, x, radius in (
            ("Sea-water supply", 46.75, 0.08),
            ("Sea-water return", 47.0, 0.08),
            ("Waste water", 47.25, 0.1),
        ):
            tags = self.waste if system == "Waste water" else self.sea
            riser = pipe_run(
                d,
                storey,
                tags,
                [(x, 16.5, 0.0), (x, 16.5, rise)],
                radius,
                HDPE,
                system,
                f"{system} riser",
                _properties(system),
            )
            d.join(self.mains[storey, system][-1][-1], riser[0])

    def sea_branch(self, storey: str, room: b.Room) -> None:
        south = room.y1 <= b.CORRIDOR_Y_M[0]
        wall = room.y0 + 0.4 if south else room.y1 - 0.4
        for index, x in enumerate((room.x0 + 1.0, room.x1 - 1.2)):
            y, z = SUPPLY if index == 0 else RETURN
            system = "Sea-water supply" if index == 0 else "Sea-water return"
            path = [(x, y, z + 0.0), (x, wall, z), (x, wall, 0.9)]
            branch = pipe_run(
                self.d,
                storey,
                self.sea,
                path,
                0.03,
                HDPE,
                system,
                f"{system} to {room.name}",
                _properties(system, room),
            )
            self.branch_off(storey, system, x, branch)
            self.valve(storey, (x, wall, 1.2), system, branch[-1])

    def waste_branch(self, storey: str, room: b.Room) -> None:
        south = room.y1 <= b.CORRIDOR_Y_M[0]
        wall = room.y0 + 0.25 if south else room.y1 - 0.25
        x = room.centre[0] + 0.4
        path = [(x, WASTE[0], WASTE[1]), (x, wall, WASTE[1]), (x, wall, 0.15)]
        system = "Waste water"
        branch = pipe_run(self.d, storey, self.waste, path, 0.045, HDPE, system, f"Waste from {room.name}", _PROPERTIES)
        self.branch_off(storey, system, x, branch)

    def planted_pipe(self) -> None:
        """Across the first flight of the escape stair at Level 00, then up its well."""
        z = b.pipe_over_stair_z()
        well_x = b.ESCAPE_STAIR[0] + 1.3 + 0.1
        path = [
            (43.0, b.PIPE_OVER_STAIR_Y_M, z),
            (well_x, b.PIPE_OVER_STAIR_Y_M, z),
            (well_x, b.PIPE_OVER_STAIR_Y_M, 3.98),
        ]
        pipe_run(
            self.d,
            "Level 00",
            self.waste,
            path,
            b.PIPE_RADIUS_M,
            HDPE,
            "Waste water",
            "Vent pipe across the escape stair",
            _PROPERTIES,
        )

    def pump_room(self) -> None:
        d = self.d

        def pump() -> Items:
            return d.style(
                [
                    d.box((-0.6, -0.3, 0), (1.4, 0.6, 0.12)),
                    d.rod((-0.45, 0, 0.45), (1, 0, 0), 0.6, 0.22),
                    d.rod((0.15, 0, 0.45), (1, 0, 0), 0.12, 0.05),
                    d.rod((0.27, 0, 0.45), (1, 0, 0), 0.22, 0.28),
                    d.rod((0.38, 0, 0.45), (0, 0, 1), 0.5, 0.07),
                    d.rod((0.38, 0, 0.92), (0, 0, 1), 0.03, 0.12),
                    *[d.box((-0.4 + i * 0.08, -0.24, 0.3), (0.02, 0.48, 0.3)) for i in range(6)],
                ],
                STAINLESS,
            )

        for index in range(4):
            d.add(
                "IfcPump",
                "Level B1",
                f"Sea-water pump {index + 1}",
                d.shared("pump", pump),
                tag=f"SWP-{index + 1}",
                description="Sea-water duty pump" if index < 3 else "Sea-water stand-by pump",
                at=(2.5 + index * 2.4, 4.0, 0),
                kind="End-suction pump 45 m3/h",
                predefined="ENDSUCTION",
                material=STAINLESS,
                properties={"Pset_PumpTypeCommon": {"Reference": "SWP", "FlowRateRange": "20-45 m3/h"}},
                system="Sea-water supply",
            )
            x = 2.88 + index * 2.4
            pipe_run(
                d,
                "Level B1",
                self.sea,
                [(x, 4.0, 0.95), (x, 4.0, 3.0), (x, 11.6, 3.0)],
                0.07,
                HDPE,
                "Sea-water supply",
                "Pump discharge",
                _PROPERTIES,
            )
        for index in range(5):
            d.add(
                "IfcFilter" if d.schema != "IFC2X3" else "IfcFlowTreatmentDevice",
                "Level B1",
                f"Sand filter {index + 1}",
                d.shared(
                    "filter",
                    lambda: d.style(
                        [
                            d.rod((0, 0, 0.3), (0, 0, 1), 1.5, 0.55),
                            d.rod((0, 0, 1.8), (0, 0, 1), 0.12, 0.4),
                            *[
                                d.box((0.45 * i - 0.05, 0.45 * j - 0.05, 0), (0.1, 0.1, 0.35))
                                for i in (-1, 1)
                                for j in (-1, 1)
                            ],
                        ],
                        STAINLESS,
                    ),
                ),
                tag=f"SF-{index + 1}",
                description="Pressure sand filter",
                at=(13.5 + index * 2.2, 4.0, 0),
                kind="Sand filter 1100",
                predefined="WATERFILTER",
                material=STAINLESS,
                system="Sea-water supply",
            )


def draft() -> Draft:
    """The water model: metres, its own axes turned 31 degrees against the building's grid."""
    d = Draft("QH-WTR-ZZ-ZZ-M3", "Water", "Gannet Services", "IFC4", "m", Site(31.0, (220.0, -75.0, 0.0)))
    for name, level in b.STOREYS_M.items():
        d.storey(name, level)
    water = _Water(d)
    for storey in b.FLOORS:
        water.storey(storey)
    water.planted_pipe()
    water.pump_room()
    return d
