"""QH-ELE: cable trays, luminaires, sockets and switchboards."""

from __future__ import annotations

from stairpath.demo import building as b
from stairpath.demo import fire
from stairpath.demo.draft import Draft, Measure, metres
from stairpath.demo.forms import Items, rod_side_m
from stairpath.demo.frame import Site
from stairpath.demo.services import Tags, grid_points, rooms_of
from stairpath.demo.stuff import POLYMER, STAINLESS, ZINC_TRAY

TRAY_Y_M, TRAY_Z_M = 11.86, 3.10
TRAY_M = (0.20, 0.06)

# The socket planted behind a tall cabinet of the Genetics laboratory on Level 01.
HIDDEN_SOCKET = "SO-199"
HIDDEN_SOCKET_AT = (12.07, 20.0, 0.30)


class _Electrical:
    def __init__(self, d: Draft) -> None:
        self.d = d
        self.trays = Tags("CT")
        self.lights = Tags("LU")
        self.sockets = Tags("SO")

    def tray(
        self,
        storey: str,
        at: tuple[float, float, float],
        axis: tuple[int, int, int],
        length: float,
        width: float,
        description: str,
    ) -> None:
        d = self.d
        w, h, t = width / 2, TRAY_M[1], 0.003
        section = [(-w, 0), (w, 0), (w, h), (w - t, h), (w - t, t), (-w + t, t), (-w + t, h), (-w, h)]
        across = (0, 1, 0) if axis[0] > 0 else (0, -1, 0) if axis[0] else (-axis[1], 0, 0)
        rungs = [
            d.box(
                (axis[0] * s - (0.01 if axis[0] else w), axis[1] * s - (0.01 if axis[1] else w), t),
                (0.02 if axis[0] else width, 0.02 if axis[1] else width, 0.012),
            )
            for s in [1.0 * i + 0.5 for i in range(int(length))]
        ]
        d.add(
            "IfcCableCarrierSegment",
            storey,
            f"Cable tray {width * 1000:.0f}",
            d.style([d.prism(section, length, axis=axis, x=across), *rungs], ZINC_TRAY),
            tag=self.trays.take(storey),
            description=description,
            at=at,
            kind=f"Cable tray {width * 1000:.0f} x 60",
            predefined="CABLETRAYSEGMENT",
            material=ZINC_TRAY,
            properties={
                "Pset_CableCarrierSegmentTypeCableTraySegment": {"HasCover": False, "NominalWidth": metres(width)}
            },
            quantities={"Length": length},
            system="Power distribution",
        )

    def luminaire(self, storey: str, x: float, y: float, z: float) -> None:
        d = self.d

        def build() -> Items:
            body = [d.box((-0.6, -0.15, 0), (1.2, 0.3, 0.06))]
            louvres = [d.box((-0.3 + i * 0.3, -0.13, -0.02), (0.012, 0.26, 0.02)) for i in range(3)]
            return d.style(body + louvres, POLYMER)

        d.add(
            "IfcLightFixture",
            storey,
            "Luminaire, linear",
            d.shared("luminaire", build),
            tag=self.lights.take(storey),
            description="Recessed linear luminaire, 38 W",
            at=(x, y, z),
            kind="Luminaire 1200 x 300",
            predefined="DIRECTIONSOURCE",
            material=POLYMER,
            properties={
                "Pset_LightFixtureTypeCommon": {"NumberOfSources": 1, "TotalWattage": Measure("IfcPowerMeasure", 38.0)}
            },
            system="Lighting",
        )

    def socket(self, storey: str, at: tuple[float, float, float], turn_deg: float, tag: str | None = None) -> None:
        d = self.d

        def build() -> Items:
            return d.style(
                [
                    d.box((-0.075, 0, -0.04), (0.15, 0.012, 0.08)),
                    d.box((-0.06, 0.012, -0.025), (0.05, 0.004, 0.05)),
                    d.box((0.01, 0.012, -0.025), (0.05, 0.004, 0.05)),
                ],
                POLYMER,
            )

        d.add(
            "IfcOutlet",
            storey,
            "Double socket",
            d.shared("socket", build),
            tag=tag or self.sockets.take(storey),
            description="Double socket outlet, 16 A",
            at=at,
            turn_deg=turn_deg,
            kind="Double socket 16 A",
            predefined="POWEROUTLET",
            material=POLYMER,
            properties={"Pset_OutletTypeCommon": {"IsPluggableOutlet": True, "NumberOfSockets": 2}},
            system="Small power",
        )

    def storey(self, storey: str) -> None:
        for bay in range(8):
            self.tray(
                storey,
                (bay * b.BAY_M + 0.02, TRAY_Y_M, TRAY_Z_M),
                (1, 0, 0),
                b.BAY_M - 0.04,
                TRAY_M[0],
                "Corridor cable tray",
            )
        for metre in range(2, 48, 4):
            self.luminaire(storey, metre + 0.4, 11.5, b.CEILING_M - 0.04)
        for room in rooms_of(storey):
            south = room.y1 <= b.CORRIDOR_Y_M[0]
            x = room.x0 + 0.45
            self.tray(
                storey,
                (x, TRAY_Y_M - 0.1 if south else TRAY_Y_M + 0.1, TRAY_Z_M + 0.1),
                (0, -1 if south else 1, 0),
                6.0,
                0.10,
                f"Cable tray to {room.name}",
            )
            for px, py in grid_points(room, 3.1):
                self.luminaire(storey, px + 0.9, py, b.CEILING_M - 0.04)
            count = max(2, int((room.y1 - room.y0) / 2.6))
            for index in range(count):
                y = room.y0 + 1.0 + index * (room.y1 - room.y0 - 2.0) / (count - 1)
                self.socket(storey, (room.x0 + 0.07, y, 0.30), -90.0)

    def boards(self) -> None:
        d = self.d
        for storey in b.FLOORS:
            for index, x in enumerate((5.0, 38.0), start=1):
                d.add(
                    "IfcElectricDistributionBoard",
                    storey,
                    f"Distribution board {storey[-2:]}.{index}",
                    d.shared(
                        "board",
                        lambda: d.style(
                            [
                                d.box((0, 0, 0.3), (0.8, 0.25, 1.7)),
                                d.box((0.05, -0.01, 0.4), (0.7, 0.01, 1.5)),
                                d.rod((0.7, -0.01, 1.1), (0, -1, 0), 0.03, 0.02),
                            ],
                            STAINLESS,
                        ),
                    ),
                    tag=f"DB-{storey[-2:]}.{index}",
                    description="Floor distribution board",
                    at=(x, 12.93, 0),
                    kind="Distribution board 250 A",
                    predefined="DISTRIBUTIONBOARD",
                    material=STAINLESS,
                    system="Power distribution",
                )
        for index in range(5):
            d.add(
                "IfcElectricDistributionBoard",
                "Level B1",
                f"Switchboard panel {index + 1}",
                d.shared(
                    "panel",
                    lambda: d.style(
                        [d.box((0, 0, 0.1), (0.8, 0.6, 2.0)), d.box((0.06, -0.015, 0.2), (0.68, 0.015, 1.8))], STAINLESS
                    ),
                ),
                tag=f"MSB-{index + 1}",
                description="Main switchboard panel",
                at=(24.8 + index * 0.82, 2.0, 0),
                kind="Switchboard panel 800",
                predefined="SWITCHBOARD",
                material=STAINLESS,
                system="Power distribution",
            )


def draft() -> Draft:
    """The electrical model: millimetres, with a map conversion."""
    d = Draft("QH-ELE-ZZ-ZZ-M3", "Electrical", "Curlew Electrical", "IFC4", "mm", Site(map_conversion=True))
    for name, level in b.STOREYS_M.items():
        d.storey(name, level)
    work = _Electrical(d)
    for storey in b.FLOORS:
        work.storey(storey)
    work.boards()
    work.socket("Level 01", HIDDEN_SOCKET_AT, -90.0, tag=HIDDEN_SOCKET)
    # The planted tray: its side stands 12 mm from the sprinkler branch.
    x0, x1 = fire.CLOSE_BRANCH_X_M
    y = fire.CLOSE_BRANCH_Y_M + rod_side_m(fire.BRANCH_RADIUS_M) + b.TRAY_TO_BRANCH_M + 0.15
    work.tray(
        "Level 02",
        (x0, y, fire.CLOSE_BRANCH_Z_M - 0.03),
        (1, 0, 0),
        x1 - x0,
        0.30,
        "Cable tray beside the sprinkler branch",
    )
    return d
