"""Buildings of boxes and prisms whose every number is known, for walking in."""

from __future__ import annotations

import numpy as np
import trimesh

from stairpath.core.walking.bodies import BODIES, Body
from stairpath.core.walking.clearance import Space
from stairpath.core.walking.place import Place, at_point
from stairpath.core.walking.route import Limits, others, route
from stairpath.core.walking.solids import Solids
from stairpath.core.walking.walkmap import WalkMap, build


class Blocks:
    """Solids one by one; each is a component of its own, numbered in order and known by a name."""

    def __init__(self) -> None:
        self.parts: list[np.ndarray] = []
        self.names: list[str] = []

    def mesh(self, name: str, mesh: trimesh.Trimesh) -> Blocks:
        self.parts.append(mesh.triangles)
        self.names.append(name)
        return self

    def box(self, name: str, low, high) -> Blocks:
        low, high = np.array(low, float), np.array(high, float)
        return self.mesh(
            name, trimesh.creation.box(high - low, trimesh.transformations.translation_matrix((low + high) / 2))
        )

    def flight(self, name: str, at, risers: int, riser: float, going: float, width: float, towards: int = 1) -> Blocks:
        """Treads up along x from a point, as solid steps down to its height; the last riser leads onto what is there."""
        x, y, z = at
        for k in range(risers - 1):
            a, b = x + towards * k * going, x + towards * (k + 1) * going
            self.box(name, (min(a, b), y, z), (max(a, b), y + width, z + (k + 1) * riser))
        return self

    def ramp(self, name: str, x0: float, x1: float, z0: float, z1: float, width: float, y: float = 0.0) -> Blocks:
        corners = [(x, y, z) for y in (y, y + width) for x, z in ((x0, -0.3), (x1, -0.3), (x0, z0), (x1, z1))]
        return self.mesh(name, trimesh.convex.convex_hull(np.array(corners)))

    def room(self, x0, y0, x1, y1, height: float = 3.0, thick: float = 0.2, floor: float = 0.0) -> Blocks:
        """A closed room with a floor and four walls, no ceiling."""
        t = thick
        self.box("floor", (x0 - t, y0 - t, floor - 0.3), (x1 + t, y1 + t, floor))
        self.box("south wall", (x0 - t, y0 - t, floor), (x1 + t, y0, floor + height))
        self.box("north wall", (x0 - t, y1, floor), (x1 + t, y1 + t, floor + height))
        self.box("west wall", (x0 - t, y0, floor), (x0, y1, floor + height))
        self.box("east wall", (x1, y0, floor), (x1 + t, y1, floor + height))
        return self

    def solids(self) -> Solids:
        component = np.repeat(np.arange(len(self.parts)), [len(p) for p in self.parts]).astype(np.int32)
        return Solids(np.concatenate(self.parts), component)

    def walk(self, body: str | Body = "standing", cell_m: float = 0.1) -> Walk:
        return Walk(self, BODIES[body] if isinstance(body, str) else body, cell_m)


class Walk:
    """A body in a building of blocks."""

    def __init__(self, blocks: Blocks, body: Body, cell_m: float) -> None:
        self.names = blocks.names
        self.map: WalkMap
        self.space: Space
        self.map, self.space = build(blocks.solids(), body, cell_m)

    def place(self, point) -> Place:
        return at_point(self.map, np.array(point, float), str(point))

    def route(self, start, end, step_free: bool = False, limits: Limits | None = None):
        return route(self.map, self.space, self.place(start), self.place(end), step_free, limits)

    def others(self, start, end, step_free: bool = False):
        return others(self.map, self.space, self.place(start), self.place(end), step_free)

    def named(self, components) -> set[str]:
        return {self.names[c] for c in components}
