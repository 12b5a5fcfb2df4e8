"""The figures that components have of something, parted into a few steps that a scale shows."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.units import OtherUnitError, converted
from stairpath.core.visibility.facts import Fact, Facts

Array = npt.NDArray[np.float64]

MOST_STEPS = 6
_DIGITS = 2


class NotAScaleError(ValueError):
    """Something of which components have no figures; the message says what to choose."""


@dataclass(frozen=True)
class ScaleStep:
    """Figures from ``low`` up to ``high``, which belongs to the next step, to the last one's both ends do; how many."""

    low: float
    high: float
    count: int


@dataclass(frozen=True)
class Scale:
    """The figures of something in a unit, by steps that rise, and how many components have none."""

    what: str
    unit: str
    steps: tuple[ScaleStep, ...]
    without: int


def _rounded(value: float) -> float:
    return float(f"{value:.{_DIGITS}g}")


def _limits(figures: Array) -> list[float]:
    """Limits between about equally many figures, rounded so that they can be read, from the least to the greatest."""
    inner = np.quantile(figures, np.linspace(0, 1, MOST_STEPS + 1)[1:-1])
    low, high = float(figures.min()), float(figures.max())
    return [low, *sorted({r for r in map(_rounded, inner.tolist()) if low < r < high}), high]


def _figures(facts: list[Fact], unit: str) -> Array:
    """The figures of the components that have one, each converted to a unit; those of other kinds are left out."""
    found = []
    for fact in facts:
        of_values = fact.figures.copy()
        for k, own in enumerate(fact.units):
            if own and unit and own != unit and np.isfinite(of_values[k]):
                try:
                    of_values[k] = converted(float(of_values[k]), own, unit)
                except OtherUnitError:
                    of_values[k] = np.nan
        found.append(of_values[fact.value])
    figures = np.concatenate(found)
    return np.asarray(figures[np.isfinite(figures)])


def scale(facts: Facts, what: str) -> Scale:
    """The scale of ``property:`` or ``quantity:`` and a name; NotAScaleError where nothing has figures of it.

    Few figures are a step each; of many, each step holds about as many.
    """
    kind, _, name = what.partition(":")
    named = facts.named("property" if kind == "property" else "quantity", name)
    units = [
        unit for fact in named for unit, figure in zip(fact.units, fact.figures, strict=True) if np.isfinite(figure)
    ]
    unit = max(sorted(set(units)), key=units.count, default="")
    figures = _figures(named, unit) if named else np.zeros(0)
    if not len(figures):
        raise NotAScaleError(f"No component has a figure of {name or what}; choose something that is a number.")
    distinct, counts = np.unique(figures, return_counts=True)
    without = facts.count - len(figures)
    if len(distinct) <= MOST_STEPS:
        each = (ScaleStep(v, v, c) for v, c in zip(distinct.tolist(), counts.tolist(), strict=True))
        return Scale(what, unit, tuple(each), without)
    limits = _limits(figures)
    in_step = np.clip(np.searchsorted(limits, figures, side="right") - 1, 0, len(limits) - 2)
    per_step = np.bincount(in_step, minlength=len(limits) - 1).tolist()
    steps = tuple(ScaleStep(low, high, n) for low, high, n in zip(limits, limits[1:], per_step, strict=False))
    return Scale(what, unit, steps, without)
