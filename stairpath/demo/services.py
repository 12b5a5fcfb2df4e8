"""What the service models share: runs of duct, pipe and tray along corridors and into rooms."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

from stairpath.demo import building as b
from stairpath.demo.draft import Draft, Value
from stairpath.demo.forms import Stuff

Point3 = tuple[float, float, float]


@dataclass
class Tags:
    """Running numbers behind a prefix, hundreds by storey as an office would."""

    prefix: str
    _next: dict[str, int] = field(default_factory=dict)

    def take(self, storey: str) -> str:
        base = {"Level B1": 900, "Level 00": 0, "Level 01": 100, "Level 02": 200, "Roof": 300}[storey]
        self._next[storey] = self._next.get(storey, 0) + 1
        return f"{self.prefix}-{base + self._next[storey]:03d}"


def rooms_of(storey: str) -> list[b.Room]:
    """The rooms of a storey that services branch into."""
    return [
        room
        for room in b.rooms()
        if room.storey == storey and room.use not in ("corridor", "riser", "stair") and room.area_m2 > 12
    ]


def subtract(a: Sequence[float], c: Sequence[float]) -> Point3:
    return a[0] - c[0], a[1] - c[1], a[2] - c[2]


def unit(v: Sequence[float]) -> Point3:
    size = math.sqrt(sum(c * c for c in v))
    return v[0] / size, v[1] / size, v[2] / size


def grid_points(room: b.Room, spacing: float) -> list[tuple[float, float]]:
    """An even grid of points over a room, at most ``spacing`` apart."""
    nx = max(1, round((room.x1 - room.x0) / spacing))
    ny = max(1, round((room.y1 - room.y0) / spacing))
    dx, dy = (room.x1 - room.x0) / nx, (room.y1 - room.y0) / ny
    points = [(room.x0 + (i + 0.5) * dx, room.y0 + (j + 0.5) * dy) for i in range(nx) for j in range(ny)]
    if room.use == "hall" and room.storey != "Level 02":
        x0, x1, y0, y1 = b.STAIR_OPENING
        points = [(x, y) for x, y in points if not (x0 - 0.3 < x < x1 + 0.3 and y0 - 0.3 < y < y1 + 0.3)]
    return points


def pipe_run(
    d: Draft,
    storey: str,
    tags: Tags,
    path: Sequence[Point3],
    radius: float,
    material: Stuff,
    system: str,
    description: str,
    properties: dict[str, dict[str, Value]],
) -> list[Any]:
    """Straight pipes along a path with an elbow at each turn, each joined to the next; from the first to the last."""
    reach = radius * 3
    made: list[Any] = []

    def add(*args: Any, **kwargs: Any) -> None:
        made.append(d.add(*args, **kwargs))
        if len(made) > 1:
            d.join(made[-2], made[-1])

    for index, (a, c) in enumerate(itertools.pairwise(path)):
        way = unit(subtract(c, a))
        start = tuple(a[i] + (way[i] * reach if index else 0.0) for i in range(3))
        last = index == len(path) - 2
        end = tuple(c[i] - (0.0 if last else way[i] * reach) for i in range(3))
        length = math.dist(start, end)
        add(
            "IfcPipeSegment",
            storey,
            f"Pipe DN {radius * 2000:.0f}",
            d.style([d.rod((0, 0, 0), way, length, radius)], material),
            tag=tags.take(storey),
            description=description,
            at=start,
            kind=f"Pipe DN {radius * 2000:.0f}, {material.name}",
            predefined="RIGIDSEGMENT",
            material=material,
            properties=properties,
            quantities={"Length": length, "OuterDiameter": 2 * radius},
            system=system,
        )
        if not last:
            out = unit(subtract(path[index + 2], c))
            add(
                "IfcPipeFitting",
                storey,
                f"Elbow DN {radius * 2000:.0f}",
                d.style([d.bend((0, 0, 0), way, out, reach, d.round_section(radius * 1.08))], material),
                tag=tags.take(storey),
                description=f"Elbow, {description.lower()}",
                at=c,
                kind=f"Elbow DN {radius * 2000:.0f}, {material.name}",
                predefined="BEND",
                material=material,
                system=system,
            )
    return made
