"""One issue of a model, as it is compared."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Protocol

import numpy as np
import numpy.typing as npt

from stairpath.core.federation.placed import Placed
from stairpath.core.measuring.prints import Prints, prints_of
from stairpath.core.reading.model import PropertyValue, Quantity

Array = npt.NDArray[np.float64]


class Listed(Protocol):
    """A component with all that is said of it."""

    @property
    def global_id(self) -> str: ...
    @property
    def ifc_class(self) -> str: ...
    @property
    def name(self) -> str: ...
    @property
    def tag(self) -> str: ...
    @property
    def description(self) -> str: ...
    @property
    def type_name(self) -> str: ...
    @property
    def predefined(self) -> str: ...
    @property
    def storey(self) -> str | None: ...
    @property
    def material(self) -> str: ...
    @property
    def systems(self) -> Sequence[str]: ...
    @property
    def part_of(self) -> str: ...
    @property
    def hosted_in(self) -> str: ...
    @property
    def properties(self) -> Mapping[str, Mapping[str, PropertyValue]]: ...
    @property
    def quantities(self) -> Mapping[str, Mapping[str, Quantity]]: ...


@dataclass(frozen=True, eq=False)
class Issue:
    """A model as it was issued once: its components (n,), their shapes in project coordinates, its storeys by GlobalId."""

    components: Sequence[Listed]
    placed: Placed
    storeys: Mapping[str, str]

    @cached_property
    def by_id(self) -> dict[str, int]:
        """The place of each GlobalId; the first, where a file has one twice."""
        found: dict[str, int] = {}
        for number, component in enumerate(self.components):
            found.setdefault(component.global_id, number)
        return found

    @cached_property
    def prints(self) -> Prints:
        """A fingerprint (n,) of every component's shapes and place."""
        return prints_of([self.placed])

    @cached_property
    def centres_m(self) -> Array:
        """The middle (n, 3) of the box around each component; NaN where it has no shape."""
        middle: Array = self.placed.bounds_m.mean(axis=1)
        return middle

    @cached_property
    def _placed_of(self) -> dict[int, list[int]]:
        found: dict[int, list[int]] = {}
        for place, owner in enumerate(self.placed.geometry.owner.tolist()):
            if owner >= 0:
                found.setdefault(owner, []).append(place)
        return found

    def shapes_of(self, number: int) -> list[int]:
        """The places in the geometry of a component's shapes."""
        return self._placed_of.get(number, [])

    def points_of(self, number: int) -> Array:
        """The corners (k, 3) of a component's triangles in project coordinates, each shape's in its own order."""
        geometry, to = self.placed.geometry, self.placed.to
        parts = [geometry.points_of(place, to) for place in self.shapes_of(number)]
        return np.concatenate(parts) if parts else np.zeros((0, 3))
