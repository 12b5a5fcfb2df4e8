"""QH-FIR: sprinkler mains, branches and heads, hose reels and alarm points."""

from __future__ import annotations

from stairpath.demo import building as b
from stairpath.demo.draft import Draft, Measure, Value
from stairpath.demo.forms import Items
from stairpath.demo.frame import Site
from stairpath.demo.services import Tags, grid_points, pipe_run, rooms_of
from stairpath.demo.stuff import RED_STEEL, STAINLESS

MAIN_Y_M, MAIN_Z_M = 10.98, 3.24
BRANCH_Z_M = 3.24
BRANCH_RADIUS_M = 0.021

# The branch next to the cable tray, on Level 02 in the Instrument laboratory.
CLOSE_BRANCH_Y_M = 20.0
CLOSE_BRANCH_X_M = (13.0, 22.5)
CLOSE_BRANCH_Z_M = 3.05

_PROPERTIES: dict[str, dict[str, Value]] = {
    "Pset_PipeSegmentTypeCommon": {"Reference": "SPR", "WorkingPressure": Measure("IfcPressureMeasure", 1_200_000.0)}
}


def _head(d: Draft) -> Items:
    """A pendent sprinkler: drop, frame, deflector."""
    return d.style(
        [
            d.box((-0.0135, -0.0135, -0.005), (0.027, 0.027, 0.46)),
            d.box((-0.011, -0.003, -0.047), (0.022, 0.006, 0.042)),
            d.rod((0, 0, -0.05), (0, 0, 1), 0.003, 0.020),
        ],
        STAINLESS,
    )


class _Fire:
    def __init__(self, d: Draft) -> None:
        self.d = d
        self.pipes = Tags("SP")
        self.heads = Tags("SH")

    def head(self, storey: str, x: float, y: float, z: float) -> None:
        d = self.d
        d.add(
            "IfcFireSuppressionTerminal",
            storey,
            "Sprinkler, pendent",
            d.shared("head", lambda: _head(d)),
            tag=self.heads.take(storey),
            description="Pendent sprinkler head, 68 degrees",
            at=(x, y, z),
            kind="Pendent sprinkler K80",
            predefined="SPRINKLER",
            material=STAINLESS,
            properties={
                "Pset_FireSuppressionTerminalTypeSprinkler": {
                    "ActivationTemperature": Measure("IfcThermodynamicTemperatureMeasure", 341.15),
                    "CoverageArea": Measure("IfcAreaMeasure", 12.0),
                }
            },
            system="Sprinklers",
        )

    def storey(self, storey: str) -> None:
        d = self.d
        for bay in range(8):
            pipe_run(
                d,
                storey,
                self.pipes,
                [(bay * b.BAY_M + 0.02, MAIN_Y_M, MAIN_Z_M), ((bay + 1) * b.BAY_M - 0.02, MAIN_Y_M, MAIN_Z_M)],
                0.045,
                RED_STEEL,
                "Sprinklers",
                "Sprinkler main",
                _PROPERTIES,
            )
        for metre in range(3, 48, 4):
            self.head(storey, float(metre), 12.0, b.CEILING_M)
        for room in rooms_of(storey):
            points = grid_points(room, 3.4)
            for x in sorted({p[0] for p in points}):
                ys = [p[1] for p in points if p[0] == x]
                far = min(ys) if room.y1 <= b.CORRIDOR_Y_M[0] else max(ys)
                pipe_run(
                    d,
                    storey,
                    self.pipes,
                    [(x, MAIN_Y_M, BRANCH_Z_M), (x, far, BRANCH_Z_M)],
                    BRANCH_RADIUS_M,
                    RED_STEEL,
                    "Sprinklers",
                    f"Sprinkler branch, {room.name}",
                    _PROPERTIES,
                )
            for x, y in points:
                self.head(storey, x, y, b.CEILING_M)

    def reels(self) -> None:
        d = self.d
        for storey in b.FLOORS:
            for index, x in enumerate((4.2, 22.4, 41.0), start=1):
                d.add(
                    "IfcFireSuppressionTerminal",
                    storey,
                    "Hose reel",
                    d.shared(
                        "reel",
                        lambda: d.style(
                            [
                                d.box((-0.4, -0.12, 0.7), (0.8, 0.22, 0.8)),
                                d.rod((0, -0.14, 1.1), (0, 1, 0), 0.02, 0.3),
                                d.rod((0, -0.16, 1.1), (0, 1, 0), 0.02, 0.12),
                            ],
                            RED_STEEL,
                        ),
                    ),
                    tag=f"HR-{storey[-2:]}-{index}",
                    description="Hose reel in wall box",
                    at=(x, 13.0, 0),
                    kind="Hose reel 30 m",
                    predefined="HOSEREEL",
                    material=RED_STEEL,
                    system="Hose reels",
                )


def draft() -> Draft:
    """The fire-protection model: IFC2X3 in millimetres."""
    d = Draft("QH-FIR-ZZ-ZZ-M3", "Fire protection", "Saltmarsh Fire", "IFC2X3", "mm", Site())
    for name, level in b.STOREYS_M.items():
        d.storey(name, level)
    fire = _Fire(d)
    for storey in b.FLOORS:
        fire.storey(storey)
    fire.reels()
    x0, x1 = CLOSE_BRANCH_X_M
    pipe_run(
        d,
        "Level 02",
        fire.pipes,
        [(x0, CLOSE_BRANCH_Y_M, CLOSE_BRANCH_Z_M), (x1, CLOSE_BRANCH_Y_M, CLOSE_BRANCH_Z_M)],
        BRANCH_RADIUS_M,
        RED_STEEL,
        "Sprinklers",
        "Sprinkler branch beside the cable tray",
        _PROPERTIES,
    )
    return d
