"""All components of a building as bodies, made when they are asked for."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import numpy as np
import numpy.typing as npt
from cachetools import LRUCache

from stairpath.core.federation.placed import Placed
from stairpath.core.measuring.body import Body, body_of, joined

Array = npt.NDArray[np.float64]

_KEPT = 4096


class Things:
    """Components by their number, counted over all models in order, about a point (3,) near the building.

    ``swept`` is the room that some of them need beside their own body, such as a door's leaf, about the same point.
    """

    def __init__(self, parts: Sequence[Placed], about: Array, swept: Mapping[int, Body] | None = None) -> None:
        self._parts = parts
        self._about = np.asarray(about, dtype=np.float64)
        self._first = np.cumsum([0, *(len(p.bounds_m) for p in parts)])
        self._kept: LRUCache[int, Body] = LRUCache(_KEPT)
        bounds = [p.bounds_m for p in parts]
        self.bounds_m: Array = np.concatenate(bounds) - self._about if bounds else np.zeros((0, 2, 3))
        self._swept = swept or {}
        for number, room in self._swept.items():
            own = self.bounds_m[number]
            own[0], own[1] = np.fmin(own[0], room.bounds_m[0]), np.fmax(own[1], room.bounds_m[1])
        self.meant = np.concatenate([p.wanted for p in parts]) if parts else np.zeros(0, dtype=bool)

    def __len__(self) -> int:
        return len(self.bounds_m)

    def body(self, number: int) -> Body:
        """A component's body; raises NoBodyError where it has no shape."""
        found = self._kept.get(number)
        if found is None:
            model = int(np.searchsorted(self._first, number, side="right")) - 1
            found = body_of(self._parts[model], number - int(self._first[model]), self._about)
            if number in self._swept:
                found = joined(found, self._swept[number])
            self._kept[number] = found
        return found
