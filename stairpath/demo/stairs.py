"""Stairs and railings: the hall stair's two alternatives and the escape stair."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from typing import Any

from stairpath.demo import building as b
from stairpath.demo.draft import Draft, metres
from stairpath.demo.forms import Stuff
from stairpath.demo.frame import Site
from stairpath.demo.stuff import CONCRETE, STAINLESS, STEEL, TIMBER

WAIST_M = 0.18


def _flight_profile(flights: b.Flights) -> list[tuple[float, float]]:
    """Side view of one flight, run from 0 along its direction, height from its foot."""
    count = flights.risers // 2
    points: list[tuple[float, float]] = [(0.0, 0.0)]
    for step in range(count):
        points.append((step * flights.going_m, (step + 1) * flights.riser_m))
        if step < count - 1:
            points.append(((step + 1) * flights.going_m, (step + 1) * flights.riser_m))
    run, top = points[-1]
    points.append((run + 0.05, top))
    points.append((run + 0.05, top - WAIST_M - flights.riser_m))
    points.append((WAIST_M * 1.2, 0.0))
    return points


def _flight(d: Draft, flights: b.Flights, x0: float, start_y: float, direction: int, z: float) -> Any:
    outline = [(direction * run, height) for run, height in _flight_profile(flights)]
    if direction < 0:
        outline.reverse()
    # Profile plane: x along the building's y, y up; pushed out along the building's x.
    return d.prism(outline, flights.width_m, (x0, start_y, z), axis=(1, 0, 0), x=(0, 1, 0))


def _railing(d: Draft, storey: str, tag: str, path: Sequence[Sequence[float]], material: Stuff) -> Any:
    """A handrail with a lower rail and a post every 0.9 m or so along each stretch."""
    top = [(p[0], p[1], p[2] + 1.0) for p in path]
    low = [(p[0], p[1], p[2] + 0.5) for p in path]
    items = [d.sweep(top, 0.022), d.sweep(low, 0.012)]
    for a, c in itertools.pairwise(path):
        length = sum((c[i] - a[i]) ** 2 for i in range(3)) ** 0.5
        posts = max(1, round(length / 0.9))
        for step in range(posts + 1):
            t = step / posts
            foot = tuple(a[i] + (c[i] - a[i]) * t for i in range(3))
            items.append(d.rod(foot, (0, 0, 1), 1.0, 0.016))
    return d.add(
        "IfcRailing",
        storey,
        f"Railing {tag}",
        d.style(items, material),
        tag=tag,
        description="Handrail at 1.00 m with posts",
        kind="Railing R100",
        predefined="GUARDRAIL",
        material=material,
        properties={"Pset_RailingCommon": {"Reference": "R100", "IsExternal": False, "Height": metres(1.0)}},
        quantities={
            "Length": sum(sum((c[i] - a[i]) ** 2 for i in range(3)) ** 0.5 for a, c in itertools.pairwise(path))
        },
    )


def stair(d: Draft, storey: str, tag: str, flights: b.Flights, material: Stuff, description: str) -> None:
    """A dog-leg stair from ``storey`` to the next: flights, half landing, railings."""
    s = flights
    first_x, second_x = s.x0, s.x0 + s.width_m + s.well_m
    half = s.rise_m / 2
    far = s.start_y + s.direction * s.run_m
    whole = d.add(
        "IfcStair",
        storey,
        f"Stair {tag}",
        [],
        tag=tag,
        description=description,
        kind=f"Dog-leg stair, {s.risers} risers",
        predefined="HALF_TURN_STAIR",
        properties={
            "Pset_StairCommon": {
                "Reference": tag,
                "NumberOfRiser": s.risers,
                "NumberOfTreads": s.risers - 2,
                "RiserHeight": metres(s.riser_m),
                "TreadLength": metres(s.going_m),
                "FireExit": tag.startswith("S2"),
            }
        },
    )
    parts = []
    for index, (x, start, direction, z) in enumerate(
        ((first_x, s.start_y, s.direction, 0.0), (second_x, far, -s.direction, half)), start=1
    ):
        parts.append(
            d.add(
                "IfcStairFlight",
                storey,
                f"Flight {tag}.{index}",
                d.style([_flight(d, s, x, start, direction, z)], material),
                tag=f"{tag}.{index}",
                description=f"{s.risers // 2} risers of {s.riser_m * 1000:.0f} mm",
                kind=f"Flight {s.width_m:.2f} wide",
                predefined="STRAIGHT",
                material=material,
                properties={"Pset_StairFlightCommon": {"NumberOfRiser": s.risers // 2, "Headroom": metres(2.0)}},
                quantities={"Length": s.run_m},
            )
        )
    low_y = far if s.direction > 0 else far - s.landing_m
    parts.append(
        d.add(
            "IfcSlab",
            storey,
            f"Half landing {tag}",
            d.style([d.box((s.x0, low_y, half - 0.2), (s.outer_m, s.landing_m, 0.2))], material),
            tag=f"{tag}.L",
            description="Half landing",
            kind="Landing 200",
            predefined="LANDING",
            material=material,
            quantities={"GrossArea": s.outer_m * s.landing_m},
        )
    )
    inner_1, inner_2 = first_x + s.width_m - 0.04, second_x + 0.04
    y0 = s.start_y
    parts.append(_railing(d, storey, f"{tag}.R1", [(inner_1, y0, s.riser_m), (inner_1, far, half)], STAINLESS))
    parts.append(
        _railing(d, storey, f"{tag}.R2", [(inner_2, far, half + s.riser_m), (inner_2, y0, s.rise_m)], STAINLESS)
    )
    d.aggregate(whole, parts, f"stair/{tag}/{storey}")


HALL_ALTERNATIVES: dict[str, tuple[b.Flights, Stuff, str]] = {
    "A": (
        b.Flights(25.6, 1.3, 0.2, 9.2, -1, 0.28, 24, 4.0, 1.62),
        STEEL,
        "Open dog-leg stair, steel, 24 risers",
    ),
    "B": (
        b.Flights(25.6, 1.2, 0.4, 9.2, -1, 0.28, 26, 4.0, 1.34),
        TIMBER,
        "Open dog-leg stair, oak on steel, 26 lower risers",
    ),
}


def hall_stair(alternative: str) -> Draft:
    """One proposal for the hall stair, as the file that is issued for it."""
    flights, material, description = HALL_ALTERNATIVES[alternative]
    d = Draft(
        f"QH-ARC-S1-ALT-{alternative}",
        f"Hall stair, alternative {alternative}",
        "Fenmoor Architects",
        "IFC4",
        "mm",
        Site(map_conversion=True),
    )
    for name, level in b.STOREYS_M.items():
        d.storey(name, level)
    for storey in ("Level 00", "Level 01"):
        stair(d, storey, f"S1-{storey[-2:]}{alternative}", flights, material, description)
    return d


def escape_stair(d: Draft) -> None:
    """The enclosed stair from the basement to the roof."""
    for storey in b.FLOORS:
        stair(d, storey, f"S2-{storey[-2:]}", b.escape_flights(storey), CONCRETE, "Enclosed escape stair")
