"""QH-ARC: floors, ceilings, roof, ramp and rooms, and the walls that stand on them."""

from __future__ import annotations

import itertools

from stairpath.demo import building as b
from stairpath.demo.draft import Draft, metres
from stairpath.demo.facade import facade
from stairpath.demo.forms import Items
from stairpath.demo.frame import Site
from stairpath.demo.stairs import escape_stair
from stairpath.demo.stuff import (
    CONCRETE,
    MASONRY,
    MINERAL_TILE,
    ROOFING,
    SCREED,
    STAINLESS,
)
from stairpath.demo.walls import (
    CEILED,
    FACE_M,
    Doors,
    clear_height,
    corridor_walls,
    cross_walls,
    wall_properties,
)


def _rect_with_hole(
    d: Draft, room: b.Room, depth: float, z: float, hole: tuple[float, float, float, float] | None
) -> Items:
    # Between rooms it ends in the wall; outside it reaches the outside wall, or the glass.
    edge = 0.07
    x0 = room.x0 + edge if room.x0 > 0 else -FACE_M
    x1 = room.x1 - edge if room.x1 < b.LENGTH_M else b.LENGTH_M + FACE_M
    y0 = room.y0 + edge if room.y0 > 0 else -FACE_M
    y1 = room.y1 - edge if room.y1 < b.WIDTH_M else b.WIDTH_M + FACE_M
    if room.use == "stair" and room.storey != "Level B1":
        y1 = 14.6
    if room.use == "corridor":
        y0, y1 = room.y0, room.y1
    if room.use == "hall":
        y1 = room.y1  # open to the corridor
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
            properties=wall_properties(True, "-"),
        )
    house = [
        ((43.0, 13.0), (3.2, 0.2), "S"),
        ((43.0, 19.4), (3.2, 0.2), "N"),
        ((43.0, 13.2), (0.2, 6.2), "W"),
        ((46.0, 13.2), (0.2, 6.2), "E"),
    ]
    doors = Doors(d)
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
            properties=wall_properties(True, "EI60"),
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
        [
            d.box((18, -2.45, -0.45), (12, 2.0, 0.45)),
            # It reaches between the mullions to the hall's floor.
            d.box((18.06, -0.45, -0.1), (1.41, 0.45, 0.1)),
            d.box((19.53, -0.45, -0.1), (1.44, 0.45, 0.1)),
        ],
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
    doors = Doors(d)
    rooms = b.rooms()
    for storey in b.FLOORS:
        here = [room for room in rooms if room.storey == storey]
        corridor_walls(d, storey, here, doors)
        cross_walls(d, storey, here)
        if storey != "Level B1":
            facade(d, storey)
        for room in here:
            _finishes(d, room)
            d.space(room, clear_height(storey))
    _roof(d)
    _approach(d)
    _guards(d)
    escape_stair(d)
    return d
