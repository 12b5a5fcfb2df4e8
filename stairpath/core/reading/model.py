"""What is read out of one model file, in metres and the file's own coordinates."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
import numpy.typing as npt

from stairpath.core.problems import Problem
from stairpath.core.reading.paint import Paints, is_see_through

Points = npt.NDArray[np.float64]


@dataclass(frozen=True)
class Storey:
    """A storey and the height of its placement."""

    global_id: str
    name: str
    elevation_m: float


@dataclass(frozen=True)
class GridAxis:
    """A straight grid axis on plan, as the model draws it."""

    grid: str
    tag: str
    start_m: tuple[float, float]
    end_m: tuple[float, float]


@dataclass(frozen=True)
class MapConversion:
    """IfcMapConversion in metres: own coordinates to those of a projected CRS.

    ``reading`` says in which unit its figures were taken and why, where the file does not say it plainly.
    """

    crs: str
    eastings_m: float
    northings_m: float
    height_m: float
    rotation_deg: float
    reading: str = ""


@dataclass(frozen=True)
class Quantity:
    """A figure with its unit: a quantity taken off a component, or a property that is a measure."""

    value: float
    unit: str


PropertyValue = str | float | int | bool | Quantity | None
PropertySets = dict[str, dict[str, PropertyValue]]


@dataclass(slots=True)
class Component:
    """One IfcElement that is not a feature element, with or without geometry."""

    global_id: str
    ifc_class: str
    name: str = ""
    tag: str = ""
    description: str = ""
    type_name: str = ""
    type_class: str = ""
    predefined: str = ""
    operation: str = ""
    """How a door or window opens, as IFC names it."""
    storey: str | None = None
    material: str = ""
    systems: tuple[str, ...] = ()
    part_of: str = ""
    hosted_in: str = ""
    connected: tuple[str, ...] = ()
    """What it is joined to, through ports or directly, by GlobalId."""
    properties: PropertySets = field(default_factory=dict)
    quantities: dict[str, dict[str, Quantity]] = field(default_factory=dict)


@dataclass(slots=True)
class Space:
    """A room: number, name, and the storey that it belongs to."""

    global_id: str
    number: str
    name: str
    storey: str | None


@dataclass(frozen=True)
class Shape:
    """Triangles that one or many components share, in the shape's own coordinates.

    ``vertices`` (n, 3) float32 metres; ``triangles`` (m, 3) int32; ``paints`` (m,) uint32, see ``paint``.
    """

    vertices: npt.NDArray[np.float32]
    triangles: npt.NDArray[np.int32]
    paints: Paints

    @classmethod
    def bare(cls, vertices: npt.NDArray[np.floating], triangles: npt.NDArray[np.integer]) -> Shape:
        """A shape to which the file gives no colour."""
        return cls(vertices.astype(np.float32), triangles.astype(np.int32), np.zeros(len(triangles), np.uint32))

    @property
    def see_through(self) -> npt.NDArray[np.bool_]:
        """Which triangles (m,) one looks through."""
        return is_see_through(self.paints)


@dataclass(frozen=True)
class Geometry:
    """Every shape once, and where it stands.

    ``owner`` (k,) is a component's ordinal, or ``-1 - i`` for the i-th space; ``shape`` (k,)
    indexes ``shapes``; ``matrix`` (k, 4, 4) float64 places a shape in the file's coordinates.
    """

    shapes: tuple[Shape, ...]
    owner: npt.NDArray[np.int32]
    shape: npt.NDArray[np.int32]
    matrix: npt.NDArray[np.float64]

    @classmethod
    def joined(cls, parts: Sequence[Geometry]) -> Geometry:
        """Several geometries as one, in order of their owners."""
        if not parts:
            return cls((), np.zeros(0, np.int32), np.zeros(0, np.int32), np.zeros((0, 4, 4)))
        before = np.cumsum([0, *(len(part.shapes) for part in parts)])
        owner = np.concatenate([part.owner for part in parts])
        shape = np.concatenate([part.shape + start for part, start in zip(parts, before, strict=False)])
        order = np.argsort(owner, kind="stable")
        return cls(
            tuple(shape for part in parts for shape in part.shapes),
            owner[order],
            shape[order].astype(np.int32),
            np.concatenate([part.matrix for part in parts])[order],
        )

    @property
    def triangle_count(self) -> int:
        """Triangles of all components, repeated shapes counted where they stand; spaces left out."""
        counts = np.array([len(shape.triangles) for shape in self.shapes], dtype=np.int64)
        return int(counts[self.shape[self.owner >= 0]].sum()) if len(counts) else 0

    def placed_of(self, wanted: npt.NDArray[np.bool_]) -> npt.NDArray[np.intp]:
        """Which placed shapes are of the components (n,) that are wanted; spaces never are."""
        of_components = np.flatnonzero(self.owner >= 0)
        return of_components[wanted[self.owner[of_components]]]

    def points_of(self, placed: int, to: npt.NDArray[np.float64] | None = None) -> Points:
        """Vertices of one placed shape in the file's coordinates, or moved on by the matrix ``to``."""
        matrix = self.matrix[placed] if to is None else to @ self.matrix[placed]
        points: Points = self.shapes[self.shape[placed]].vertices @ matrix[:3, :3].T + matrix[:3, 3]
        return points

    def bounds(self, count: int, to: npt.NDArray[np.float64] | None = None) -> npt.NDArray[np.float64]:
        """Bounds (count, 2, 3) per component; NaN where there is no geometry."""
        out = np.full((count, 2, 3), np.nan)
        for placed, owner in enumerate(self.owner):
            if owner >= 0:
                points = self.points_of(placed, to)
                out[owner, 0] = np.fmin(out[owner, 0], points.min(axis=0))
                out[owner, 1] = np.fmax(out[owner, 1], points.max(axis=0))
        return out


@dataclass(frozen=True)
class ModelReading:
    """All that was read from one file."""

    name: str
    schema: str
    length_unit: str
    storeys: tuple[Storey, ...]
    spaces: tuple[Space, ...]
    grid_axes: tuple[GridAxis, ...]
    map_conversion: MapConversion | None
    true_north: tuple[float, float] | None
    components: tuple[Component, ...]
    geometry: Geometry
    problems: tuple[Problem, ...]
