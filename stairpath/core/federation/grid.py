"""The building's grid: that of the first model that has one, in project coordinates."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from stairpath.core.federation.federate import Federation


class NoSuchAxisError(LookupError):
    """The building's grid has no axis of that tag."""


@dataclass(frozen=True)
class Axis:
    """A grid axis on plan, metres."""

    tag: str
    start: tuple[float, float]
    end: tuple[float, float]


def axes_of(federation: Federation) -> list[Axis]:
    """The axes of the building's grid; none where no model has one."""
    for model in federation.models:
        if model.outline.grid_axes:
            ends = np.array([[(*a.start_m, 0.0), (*a.end_m, 0.0)] for a in model.outline.grid_axes])
            placed = model.alignment.apply(ends)[..., :2].tolist()
            return [
                Axis(axis.tag, (s[0], s[1]), (e[0], e[1]))
                for axis, (s, e) in zip(model.outline.grid_axes, placed, strict=True)
            ]
    return []


def axis_named(federation: Federation, tag: str) -> Axis:
    """The axis of a tag; raises NoSuchAxisError with those there are."""
    there = axes_of(federation)
    for axis in there:
        if axis.tag.casefold() == tag.strip().casefold():
            return axis
    names = ", ".join(axis.tag for axis in there) or "none"
    raise NoSuchAxisError(f"There is no grid axis {tag}; the building has {names}.")
