"""What is around a component: which others come how near, and which hang together with it."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.measuring.body import Body
from stairpath.core.measuring.distance import Distance, between

Array = npt.NDArray[np.float64]
BodyOf = Callable[[int], Body | None]

TOUCHES_M = 0.005
"""Ends that are no farther apart than this are taken to be joined."""


@dataclass(frozen=True)
class Near:
    """A component, and how far it is away, from which point to which; nothing where they touch or share space."""

    component: int
    distance: Distance


def boxes_near(bounds_m: Array, component: int, within_m: float) -> npt.NDArray[np.intp]:
    """The other components whose boxes (n, 2, 3; NaN for none) come within a distance of one's box."""
    own = bounds_m[component]
    with np.errstate(invalid="ignore"):
        gap = np.maximum(np.maximum(bounds_m[:, 0] - own[1], own[0] - bounds_m[:, 1]), 0.0)
        near = np.linalg.norm(gap, axis=1) <= within_m
    near[component] = False
    return np.flatnonzero(near)


def around(bounds_m: Array, body_of: BodyOf, component: int, within_m: float, most: int) -> tuple[list[Near], int]:
    """Components within a distance of one, nearest first, at most so many; and how many there are."""
    own = body_of(component)
    if own is None:
        return [], 0
    found = []
    for other in boxes_near(bounds_m, component, within_m).tolist():
        body = body_of(other)
        distance = None if body is None else between(own, body, within_m)
        if distance is not None:
            found.append(Near(other, distance))
    found.sort(key=lambda near: (near.distance.distance_m, near.component))
    return found[:most], len(found)


def connected(
    start: int, links: Mapping[int, Iterable[int]], touching: Callable[[int], Iterable[int]], most: int
) -> tuple[list[int], bool]:
    """All that hangs together with a component, at most so many, and whether any of it is so by touching alone.

    ``links`` are connections that the files tell; what has none is joined to what ``touching`` says.
    """
    known = {start}
    waiting = [start]
    by_touch = False
    while waiting and len(known) < most:
        at = waiting.pop(0)
        told = links.get(at)
        by_touch = by_touch or not told
        for other in told or touching(at):
            if other not in known and len(known) < most:
                known.add(other)
                waiting.append(other)
    return sorted(known), by_touch
