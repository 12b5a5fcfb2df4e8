"""What federating needs to know of a model: its frame, and where its components are."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
import numpy.typing as npt

from stairpath.core.problems import Problem
from stairpath.core.reading.model import Geometry, GridAxis, MapConversion, ModelReading, Storey

Array = npt.NDArray[np.float64]


def around(bounds: Array) -> Array | None:
    """One box (2, 3) around boxes (n, 2, 3); NaN boxes do not count; None if there is none."""
    if not len(bounds) or np.isnan(bounds).all():
        return None
    return np.stack([np.nanmin(bounds[:, 0], axis=0), np.nanmax(bounds[:, 1], axis=0)])


@dataclass(frozen=True)
class Room:
    """A space: its floor as triangles on plan (n, 3, 2) and its heights, own coordinates."""

    global_id: str
    number: str
    name: str
    storey: str | None
    floor: Array
    low_m: float
    high_m: float


@dataclass(frozen=True)
class Outline:
    """One model as federating sees it; columns run over its components."""

    name: str
    schema: str
    length_unit: str
    storeys: tuple[Storey, ...]
    rooms: tuple[Room, ...]
    grid_axes: tuple[GridAxis, ...]
    map_conversion: MapConversion | None
    true_north: tuple[float, float] | None
    global_ids: tuple[str, ...]
    classes: tuple[str, ...]
    type_classes: tuple[str, ...]
    systems: tuple[tuple[str, ...], ...]
    operations: tuple[str, ...]
    component_storeys: tuple[str | None, ...]
    geometry: Geometry
    bounds_own: Array
    problems: tuple[Problem, ...]

    @cached_property
    def _classes_once(self) -> tuple[list[str], npt.NDArray[np.intp]]:
        """Every class once, and which of them each component has."""
        names, number = np.unique(np.array(self.classes, dtype=np.str_), return_inverse=True)
        return names.tolist(), number

    def of_class(self, stems: tuple[str, ...]) -> npt.NDArray[np.bool_]:
        """Which components (n,) have a class that begins with one of the stems."""
        if not self.classes:
            return np.zeros(0, dtype=bool)
        names, number = self._classes_once
        found: npt.NDArray[np.bool_] = np.array([name.startswith(stems) for name in names])[number]
        return found

    @property
    def bounds_own_m(self) -> Array | None:
        """Bounds (2, 3) of everything, before alignment."""
        return around(self.bounds_own)


def _rooms(reading: ModelReading) -> tuple[Room, ...]:
    floors: dict[int, list[Array]] = {}
    heights: dict[int, tuple[float, float]] = {}
    geometry = reading.geometry
    for placed, owner in enumerate(geometry.owner):
        if owner >= 0:
            continue
        points = geometry.points_of(placed)
        corners = points[geometry.shapes[geometry.shape[placed]].triangles]
        normal_z = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])[:, 2]
        low, high = float(points[:, 2].min()), float(points[:, 2].max())
        facing = corners[normal_z < -1e-6]
        index = -1 - int(owner)
        floors.setdefault(index, []).append(facing[:, :, :2])
        before = heights.get(index, (low, high))
        heights[index] = (min(low, before[0]), max(high, before[1]))
    return tuple(
        Room(s.global_id, s.number, s.name, s.storey, np.concatenate(floors[i]), *heights[i])
        for i, s in enumerate(reading.spaces)
        if i in floors
    )


def outline(reading: ModelReading) -> Outline:
    """The outline of a reading."""
    components = reading.components
    return Outline(
        name=reading.name,
        schema=reading.schema,
        length_unit=reading.length_unit,
        storeys=reading.storeys,
        rooms=_rooms(reading),
        grid_axes=reading.grid_axes,
        map_conversion=reading.map_conversion,
        true_north=reading.true_north,
        global_ids=tuple(c.global_id for c in components),
        classes=tuple(c.ifc_class for c in components),
        type_classes=tuple(c.type_class for c in components),
        systems=tuple(c.systems for c in components),
        operations=tuple(c.operation for c in components),
        component_storeys=tuple(c.storey for c in components),
        geometry=reading.geometry,
        bounds_own=reading.geometry.bounds(len(components)),
        problems=reading.problems,
    )
