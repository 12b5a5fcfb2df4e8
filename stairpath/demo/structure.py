"""QH-STR: foundations, columns, beams and slabs; its Level 02 stands 40 mm low."""

from __future__ import annotations

import itertools
from functools import partial

from stairpath.demo import building as b
from stairpath.demo.draft import Draft
from stairpath.demo.forms import Items
from stairpath.demo.frame import Site
from stairpath.demo.stuff import CONCRETE, STEEL

Rect = tuple[float, float, float, float]

TRIMMER_X_M = (25.3, 28.7)

STAIR_OPENING: Rect = b.STAIR_OPENING
ESCAPE_OPENING: Rect = (43.2, 46.0, 14.6, 19.2)
LIFT_OPENING: Rect = b.LIFT_SHAFT
RISER_OPENING: Rect = (46.5, 47.5, 14.0, 18.0)


def _ring(rect: Rect) -> list[tuple[float, float]]:
    x0, x1, y0, y1 = rect
    return [(x0, y0), (x1, y0), (x1, y1), (x0, y1)]


def _structure_level(storey: str) -> float:
    level = b.STOREYS_M[storey]
    return level - b.STRUCTURE_LEVEL_02_LOW_M if storey == "Level 02" else level


def slab_openings(storey: str) -> list[Rect]:
    """The holes in the slab on which ``storey`` stands."""
    if storey == "Level B1":
        return []
    holes = [ESCAPE_OPENING, RISER_OPENING]
    if storey != "Roof":
        holes.append(LIFT_OPENING)
    if storey in ("Level 01", "Level 02"):
        holes.append(STAIR_OPENING)
    return holes


def _foundations(d: Draft) -> None:
    for x_tag, x in b.NUMBERED_AXES_M.items():
        for y_tag, y in b.LETTERED_AXES_M.items():
            d.add(
                "IfcFooting",
                "Level B1",
                f"Pad footing {y_tag}{x_tag}",
                d.shared("footing", lambda: [d.box((-1.1, -1.1, -0.95), (2.2, 2.2, 0.6))]),
                tag=f"F-{y_tag}{x_tag}",
                description="Reinforced pad footing",
                at=(x, y, 0),
                kind="Pad footing 2200 x 2200 x 600",
                predefined="PAD_FOOTING",
                material=CONCRETE,
                properties={"Pset_FootingCommon": {"Reference": "PF-22", "LoadBearing": True}},
                quantities={"GrossVolume": 2.2 * 2.2 * 0.6},
            )


def _concrete_column(d: Draft, height: float) -> Items:
    return [d.box((-0.2, -0.2, -0.35), (0.4, 0.4, height + 0.35))]


def _steel_column(d: Draft, height: float) -> Items:
    return [d.i_section((0, 0, -b.FLOOR_BUILDUP_M), (0, 0, 1), (1, 0, 0), height + 0.1, 0.30, 0.30)]


def _columns(d: Draft) -> None:
    tops = {"Level B1": "Level 00", "Level 00": "Level 01", "Level 01": "Level 02", "Level 02": "Roof"}
    for storey in b.FLOORS:
        height = _structure_level(tops[storey]) - _structure_level(storey) - b.SLAB_M - b.FLOOR_BUILDUP_M
        below = storey == "Level B1"
        for x_tag, x in b.NUMBERED_AXES_M.items():
            for y_tag, y in b.LETTERED_AXES_M.items():
                if below:
                    items = d.shared("column-rc", partial(_concrete_column, d, height))
                else:
                    items = d.shared(f"column-{storey}", partial(_steel_column, d, height))
                d.add(
                    "IfcColumn",
                    storey,
                    f"Column {y_tag}{x_tag}",
                    items,
                    tag=f"C-{y_tag}{x_tag}",
                    description="In-situ concrete column" if below else "Rolled steel column",
                    at=(x, y, 0),
                    kind="RC 400 x 400" if below else "I 300 x 300",
                    predefined="COLUMN",
                    material=CONCRETE if below else STEEL,
                    properties={
                        "Pset_ColumnCommon": {
                            "Reference": "RC40" if below else "SC30",
                            "LoadBearing": True,
                            "FireRating": "R60",
                        }
                    },
                    quantities={"Length": height},
                )


def _main_spans(storey: str, y_tag: str, bay: int) -> list[tuple[float, float]]:
    """Where a main beam runs in a bay: all of it, stubs beside the hall stair, or nowhere."""
    x = bay * b.BAY_M
    if y_tag == "E" and bay == 7:
        return []  # the escape stair
    if y_tag == "B" and bay == 4 and storey in ("Level 01", "Level 02"):
        return [(x, TRIMMER_X_M[0]), (TRIMMER_X_M[1], x + b.BAY_M)]
    return [(x, x + b.BAY_M)]


def _beams(d: Draft) -> None:
    number = 0

    def beam(storey: str, name: str, start: tuple[float, float], length: float, main: bool, use: str) -> None:
        nonlocal number
        number += 1
        depth, width = (0.36, 0.17) if main else (0.28, 0.15)
        along, across = ((1, 0, 0), (0, 1, 0)) if main else ((0, 1, 0), (1, 0, 0))
        gap = 0.16 if main else 0.10
        d.add(
            "IfcBeam",
            storey,
            f"Beam {name}",
            d.shared(
                f"beam-{main}-{length:.3f}",
                lambda: [
                    d.i_section(
                        (gap * along[0], gap * along[1], -depth / 2), along, across, length - 2 * gap, depth, width
                    )
                ],
            ),
            tag=f"B-{number:03d}",
            description=use,
            at=(*start, -b.FLOOR_BUILDUP_M - b.SLAB_M),
            kind=f"I {depth * 1000:.0f} x {width * 1000:.0f}",
            predefined="BEAM",
            material=STEEL,
            properties={
                "Pset_BeamCommon": {"Reference": "MB36" if main else "CB28", "LoadBearing": True, "FireRating": "R60"}
            },
            quantities={"Length": length - 2 * gap},
        )

    for storey in (*b.FLOORS[1:], "Roof"):
        for y_tag, y in b.LETTERED_AXES_M.items():
            for bay in range(8):
                for x0, x1 in _main_spans(storey, y_tag, bay):
                    beam(storey, f"{y_tag}/{bay + 1}-{bay + 2}", (x0, y), x1 - x0, True, "Main beam")
        rows = list(b.LETTERED_AXES_M.items())
        for x_tag, x in b.NUMBERED_AXES_M.items():
            for (tag_0, y0), (tag_1, y1) in itertools.pairwise(rows):
                beam(storey, f"{x_tag}/{tag_0}-{tag_1}", (x, y0), y1 - y0, False, "Cross beam")
        if storey in ("Level 01", "Level 02"):
            for x in TRIMMER_X_M:
                beam(storey, f"trimmer {x:.1f}", (x, 0.0), 10.8, False, "Trimmer beside the hall stair")


def _slabs(d: Draft) -> None:
    for storey in (*b.FLOORS, "Roof"):
        base = storey == "Level B1"
        thickness = 0.35 if base else b.SLAB_M
        outline = [(-0.2, -0.2), (b.LENGTH_M + 0.2, -0.2), (b.LENGTH_M + 0.2, b.WIDTH_M + 0.2), (-0.2, b.WIDTH_M + 0.2)]
        slab = d.add(
            "IfcSlab",
            storey,
            f"Slab {storey}",
            [d.prism(outline, thickness)],
            tag=f"S-{storey.removeprefix('Level ')}",
            description="Base slab" if base else "Composite floor slab",
            at=(0, 0, -b.FLOOR_BUILDUP_M - thickness),
            kind=f"Slab {thickness * 1000:.0f}",
            predefined="BASESLAB" if base else "FLOOR",
            material=CONCRETE,
            properties={"Pset_SlabCommon": {"Reference": "SL", "LoadBearing": True, "FireRating": "REI60"}},
            quantities={"GrossArea": (b.LENGTH_M + 0.4) * (b.WIDTH_M + 0.4), "Depth": thickness},
        )
        for index, hole in enumerate(slab_openings(storey)):
            d.opening(
                slab,
                f"slab/{storey}/{index}",
                [d.prism(_ring(hole), thickness + 0.4)],
                (0, 0, -b.FLOOR_BUILDUP_M - thickness - 0.2),
                0.0,
            )


def _retaining_walls(d: Draft) -> None:
    height = 4.2 - b.FLOOR_BUILDUP_M - b.SLAB_M
    runs = {
        "south": ((-0.2, -0.2), (b.LENGTH_M + 0.4, 0.3)),
        "north": ((-0.2, b.WIDTH_M - 0.1), (b.LENGTH_M + 0.4, 0.3)),
        "west": ((-0.2, 0.1), (0.3, b.WIDTH_M - 0.2)),
        "east": ((b.LENGTH_M - 0.1, 0.1), (0.3, b.WIDTH_M - 0.2)),
    }
    for side, (corner, size) in runs.items():
        d.add(
            "IfcWall",
            "Level B1",
            f"Retaining wall {side}",
            [d.box((*corner, -0.1), (*size, height + 0.1))],
            tag=f"RW-{side[0].upper()}",
            description="Water-retaining concrete wall",
            kind="RC wall 300",
            predefined="SOLIDWALL",
            material=CONCRETE,
            properties={"Pset_WallCommon": {"IsExternal": True, "LoadBearing": True, "FireRating": "REI90"}},
            quantities={"Width": 0.3, "Height": height},
        )


def _shaft(d: Draft) -> None:
    x0, x1, y0, y1 = b.LIFT_SHAFT
    for storey in b.FLOORS:
        rise = 4.2 if storey == "Level B1" else 4.0
        sides = {
            "west": ((x0 - 0.2, y0), (0.2, y1 - y0)),
            "east": ((x1, y0), (0.2, y1 - y0)),
            "north": ((x0 - 0.2, y1), (x1 - x0 + 0.4, 0.2)),
        }
        for side, (corner, size) in sides.items():
            d.add(
                "IfcWall",
                storey,
                f"Lift shaft wall {side}",
                [d.box((*corner, -0.1), (*size, rise - b.SLAB_M))],
                tag=f"LS-{side[0].upper()}",
                description="Lift shaft, concrete",
                kind="RC wall 200",
                predefined="SOLIDWALL",
                material=CONCRETE,
                properties={"Pset_WallCommon": {"IsExternal": False, "LoadBearing": True, "FireRating": "REI90"}},
                quantities={"Width": 0.2, "Height": rise - b.SLAB_M},
            )


def draft() -> Draft:
    """The structure model: metres, at national-grid coordinates."""
    d = Draft(
        "QH-STR-ZZ-ZZ-M3",
        "Structure",
        "Brackwater Engineers",
        "IFC4",
        "m",
        Site(b.MAP_ROTATION_DEG, (b.MAP_EASTING_M, b.MAP_NORTHING_M, 0.0)),
    )
    for name in b.STOREYS_M:
        d.storey(name, _structure_level(name))
    _foundations(d)
    _columns(d)
    _beams(d)
    _slabs(d)
    _retaining_walls(d)
    _shaft(d)
    return d
