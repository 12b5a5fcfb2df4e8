"""QH-FIT: laboratory benches, tanks, desks, shelves and the equipment of the rooms."""

from __future__ import annotations

from collections.abc import Callable

from stairpath.demo import building as b
from stairpath.demo.draft import Draft
from stairpath.demo.electrical import HIDDEN_SOCKET_AT
from stairpath.demo.forms import Items
from stairpath.demo.frame import Site
from stairpath.demo.services import Tags, rooms_of
from stairpath.demo.stuff import ACRYLIC, CONCRETE, LAMINATE, STAINLESS, TIMBER

Build = Callable[[Draft], Items]


def _bench(d: Draft) -> Items:
    """A laboratory bench 2.4 x 0.75 m with cupboards, a shelf and taps."""
    top = d.style([d.box((0, 0, 0.87), (2.4, 0.75, 0.03)), d.box((0, 0.65, 1.35), (2.4, 0.1, 0.03))], LAMINATE)
    under = d.style([d.box((0.03 + 0.6 * i, 0.05, 0.1), (0.54, 0.6, 0.76)) for i in range(4)], TIMBER)
    metal = d.style(
        [d.box((x, 0.66, 0), (0.04, 0.04, 1.9)) for x in (0.02, 1.18, 2.34)]
        + [d.box((0.59 + i * 0.9, 0.6, 0.9), (0.024, 0.024, 0.25)) for i in range(2)]
        + [d.box((0.59 + i * 0.9, 0.47, 1.13), (0.024, 0.13, 0.02)) for i in range(2)]
        + [d.box((0.12 + 0.6 * i, 0.04, 0.7), (0.3, 0.015, 0.02)) for i in range(4)],
        STAINLESS,
    )
    return top + under + metal


def _tank(d: Draft) -> Items:
    """A rectangular exhibition tank 2.4 x 1.1 x 1.2 m on a plinth."""
    base = d.style([d.box((0, 0, 0), (2.4, 1.1, 0.5))], CONCRETE)
    t = 0.04
    ring = [(0, 0), (2.4, 0), (2.4, 1.1), (0, 1.1)]
    inner = [(t, t), (2.4 - t, t), (2.4 - t, 1.1 - t), (t, 1.1 - t)]
    glass = d.style([d.prism(ring, 1.2, (0, 0, 0.5), [inner])], ACRYLIC)
    rim = d.style(
        [d.prism([(-0.03, -0.03), (2.43, -0.03), (2.43, 1.13), (-0.03, 1.13)], 0.06, (0, 0, 1.7), [inner])], STAINLESS
    )
    return base + glass + rim


def _round_tank(d: Draft) -> Items:
    """A round holding tank of 2.2 m with rim and drain."""
    return (
        d.style([d.rod((0, 0, 0), (0, 0, 1), 0.3, 1.15)], CONCRETE)
        + d.style([d.rod((0, 0, 0.3), (0, 0, 1), 1.3, 1.1, 0.04)], ACRYLIC)
        + d.style(
            [d.rod((0, 0, 1.6), (0, 0, 1), 0.06, 1.14, 0.1), d.box((-0.05, -0.05, 0.3), (0.1, 0.1, 1.1))], STAINLESS
        )
    )


def _desk(d: Draft) -> Items:
    top = d.style([d.box((0, 0, 0.71), (1.6, 0.8, 0.03)), d.box((0.2, 0.62, 0.78), (0.6, 0.03, 0.38))], LAMINATE)
    legs = d.style([d.box((x, y, 0), (0.05, 0.05, 0.71)) for x in (0.06, 1.49) for y in (0.06, 0.69)], STAINLESS)
    return top + legs + d.style([d.box((1.15, 0.1, 0.05), (0.4, 0.55, 0.55))], TIMBER)


def _chair(d: Draft) -> Items:
    seat = d.style(
        [d.box((-0.24, -0.24, 0.43), (0.48, 0.48, 0.06)), d.box((-0.22, -0.26, 0.6), (0.44, 0.05, 0.42))], TIMBER
    )
    metal = [d.box((-0.025, -0.025, 0.1), (0.05, 0.05, 0.33))]
    metal += [d.box((-0.27, -0.02, 0.0), (0.54, 0.04, 0.1)), d.box((-0.02, -0.27, 0.0), (0.04, 0.54, 0.1))]
    metal += [d.box((-0.03, -0.25, 0.49), (0.06, 0.02, 0.12))]
    return seat + d.style(metal, STAINLESS)


def _shelves(d: Draft) -> Items:
    boards = d.style([d.box((0, 0, 0.1 + 0.38 * i), (1.2, 0.45, 0.025)) for i in range(6)], LAMINATE)
    posts = d.style([d.box((x, y, 0), (0.04, 0.04, 2.1)) for x in (0, 1.16) for y in (0, 0.41)], STAINLESS)
    jars = d.style(
        [d.rod((0.2 + 0.35 * i, 0.22, 0.125 + 0.38 * s), (0, 0, 1), 0.22, 0.049) for i in range(2) for s in (1, 3)],
        ACRYLIC,
    )
    return boards + posts + jars


def _cabinet(d: Draft) -> Items:
    body = d.style(
        [
            d.box((0, 0, 0), (0.6, 1.2, 2.05)),
            d.box((0.6, 0.02, 0.05), (0.02, 0.57, 1.95)),
            d.box((0.6, 0.61, 0.05), (0.02, 0.57, 1.95)),
        ],
        LAMINATE,
    )
    return body + d.style(
        [d.rod((0.64, 0.55, 0.9), (0, 0, 1), 0.3, 0.01), d.rod((0.64, 0.65, 0.9), (0, 0, 1), 0.3, 0.01)], STAINLESS
    )


def _basin(d: Draft) -> Items:
    return d.style(
        [
            d.box((0, 0, 0.78), (0.6, 0.45, 0.04)),
            d.rod((0.3, 0.2, 0.66), (0, 0, 1), 0.13, 0.18, 0.01),
            d.rod((0.3, 0.4, 0.82), (0, 0, 1), 0.15, 0.015),
            d.rod((0.3, 0.4, 0.97), (0, -1, 0), 0.13, 0.012),
        ],
        STAINLESS,
    )


class _FitOut:
    def __init__(self, d: Draft) -> None:
        self.d = d
        self.tags = {
            key: Tags(prefix)
            for key, prefix in {
                "bench": "LB",
                "tank": "TK",
                "round": "RT",
                "desk": "DK",
                "chair": "CH",
                "shelves": "SL",
                "cabinet": "CB",
                "basin": "WB",
            }.items()
        }
        self.catalogue: dict[str, tuple[Build, str, str, str, str]] = {
            "bench": (
                _bench,
                "IfcFurniture",
                "Laboratory bench",
                "Laboratory bench 2400 with shelf and taps",
                "Bench 2400 x 750",
            ),
            "tank": (_tank, "IfcTank", "Exhibition tank", "Exhibition tank, acrylic, 3.2 m3", "Tank 2400 x 1100"),
            "round": (_round_tank, "IfcTank", "Holding tank", "Round holding tank, 4.9 m3", "Round tank 2200"),
            "desk": (_desk, "IfcFurniture", "Desk", "Desk with pedestal and screen", "Desk 1600 x 800"),
            "chair": (_chair, "IfcFurniture", "Chair", "Swivel chair", "Chair"),
            "shelves": (
                _shelves,
                "IfcFurniture",
                "Specimen shelving",
                "Shelving with specimen jars",
                "Shelving 1200 x 450",
            ),
            "cabinet": (
                _cabinet,
                "IfcFurniture",
                "Tall cabinet",
                "Tall cabinet, two doors",
                "Cabinet 1200 x 600 x 2050",
            ),
            "basin": (_basin, "IfcSanitaryTerminal", "Wash basin", "Wash basin with tap", "Basin 600"),
        }

    def put(self, what: str, room: b.Room, x: float, y: float, turn_deg: float = 0.0) -> None:
        build, cls, name, description, kind = self.catalogue[what]
        self.d.add(
            cls,
            room.storey,
            name,
            self.d.shared(what, lambda: build(self.d)),
            tag=self.tags[what].take(room.storey),
            description=f"{description}, {room.name}",
            at=(x, y, 0),
            turn_deg=turn_deg,
            kind=kind,
            material=LAMINATE,
            properties={
                "Pset_FurnitureTypeCommon" if cls == "IfcFurniture" else "Pset_ManufacturerTypeInformation": {
                    "Reference": kind,
                    "Room": room.number,
                }
            },
        )

    def furnish(self, room: b.Room) -> None:
        width, depth = room.x1 - room.x0, room.y1 - room.y0
        # Rooms north of the corridor have their door at y0: what stands there leaves the way in free.
        way_in = 0.8 if room.y0 == b.CORRIDOR_Y_M[1] else 0.0
        if room.use == "laboratory":
            rows = max(1, int((depth - 3.0) / 2.4))
            for row in range(rows):
                for column in range(max(1, int((width - 1.6) / 2.6))):
                    x, y = room.x0 + 0.8 + column * 2.6, room.y0 + 1.4 + way_in + row * 2.4
                    self.put("bench", room, x, y)
                    self.put("chair", room, x + 1.2, y - 0.5, 180.0)
            self.put("cabinet", room, room.x0 + 0.08, room.y1 - 2.4)
        elif room.use == "office":
            for row in range(max(1, int((depth - 2.5) / 2.6))):
                for column in range(max(1, int((width - 1.0) / 2.4))):
                    x, y = room.x0 + 0.7 + column * 2.4, room.y0 + 1.6 + way_in + row * 2.6
                    self.put("desk", room, x, y)
                    self.put("chair", room, x + 0.8, y - 0.5)
        elif room.use == "aquaria":
            for column in range(int((width - 1.5) / 4.0)):
                self.put("tank", room, room.x0 + 1.0 + column * 4.0, room.y0 + 3.0)
                self.put("round", room, room.x0 + 2.6 + column * 4.0, room.y0 + 7.0)
        elif room.use == "store":
            for row in range(max(1, int((depth - 3.2) / 1.7))):
                for column in range(max(1, int((width - 2.4) / 1.25))):
                    self.put("shelves", room, room.x0 + 1.0 + column * 1.25, room.y0 + 1.0 + way_in + row * 1.7)
        elif room.use == "seminar":
            for row in range(5):
                for column in range(9):
                    self.put("chair", room, room.x0 + 1.5 + column * 1.1, room.y0 + 2.0 + row * 1.2, 180.0)
        elif room.use == "wash":
            for column in range(5):
                self.put("basin", room, room.x0 + 0.6 + column * 0.9, room.y1 - 0.55)

    def planted(self) -> None:
        d = self.d
        genetics = next(room for room in b.rooms() if room.name == "Genetics laboratory")
        self.put("cabinet", genetics, HIDDEN_SOCKET_AT[0] + 0.03, HIDDEN_SOCKET_AT[1] - 0.6)
        # Equipment that leaves 0.72 m of the basement corridor, before the Cold archive.
        depth = b.CORRIDOR_Y_M[1] - b.CORRIDOR_Y_M[0] - b.CORRIDOR_PINCH_M
        d.add(
            "IfcUnitaryEquipment",
            "Level B1",
            "Ice machine",
            d.style(
                [
                    d.box((0, 0.02, 0), (2.2, depth - 0.02, 1.9)),
                    d.box((0.2, 0, 0.9), (0.8, 0.02, 0.6)),
                    d.box((1.2, 0, 0.9), (0.8, 0.02, 0.6)),
                ],
                STAINLESS,
            ),
            tag="IM-1",
            description="Ice machine standing in the corridor",
            at=(19.2, b.CORRIDOR_Y_M[1] - depth, 0),
            kind="Ice machine 1 t/day",
            predefined="NOTDEFINED",
            material=STAINLESS,
        )


def draft() -> Draft:
    """The fit-out model: metres, its site placed on the map, without a grid or conversion."""
    d = Draft(
        "QH-FIT-ZZ-ZZ-M3",
        "Fit-out",
        "Fenmoor Architects",
        "IFC4",
        "m",
        Site(b.MAP_ROTATION_DEG, (b.MAP_EASTING_M, b.MAP_NORTHING_M, 0.0), grid=False),
    )
    for name, level in b.STOREYS_M.items():
        d.storey(name, level)
    work = _FitOut(d)
    for storey in b.FLOORS:
        for room in rooms_of(storey):
            work.furnish(room)
    work.planted()
    return d
