"""Schedules: components grouped by what they are and where they are, counted, and their quantities summed."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal, get_args

import numpy as np
import numpy.typing as npt

from stairpath.core.register.quantities import MeshFigures
from stairpath.core.visibility.attributes import WHATS, What
from stairpath.core.visibility.facts import Facts
from stairpath.core.visibility.traits import Mask, Traits

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]

Worked = Literal["length", "area", "volume"]
"""Quantities that are worked out from the triangles where the file has none."""
WORKED: tuple[Worked, ...] = get_args(Worked)
UNITS: Mapping[Worked, str] = {"length": "m", "area": "m²", "volume": "m³"}

IN_FILE: Mapping[Worked, tuple[str, ...]] = {
    "length": ("Length", "NominalLength"),
    "area": (
        "NetArea", "GrossArea", "NetSideArea", "GrossSideArea", "Area", "OuterSurfaceArea", "TotalSurfaceArea",
        "NetSurfaceArea", "GrossSurfaceArea",
    ),
    "volume": ("NetVolume", "GrossVolume", "Volume"),
}  # fmt: skip
"""Names of quantities in files (ISO 16739-1, the Qto sets), the one that counts first."""

NONE = ""


class NotAScheduleError(ValueError):
    """A schedule that cannot be made; the message says what to write."""


@dataclass(frozen=True, eq=False)
class Amounts:
    """A quantity of components (n,), NaN for those that have none; which were worked out from their triangles."""

    value: Array
    worked: Mask
    unit: str


@dataclass(frozen=True)
class ScheduleSum:
    """The sum of a quantity in a group, and of how many components it is from the file, and from the triangles.

    ``without`` counts those that have none.
    """

    value: float
    unit: str
    from_file: int
    from_mesh: int
    without: int


@dataclass(frozen=True, eq=False)
class Group:
    """Components that share what they are grouped by, in the steps' order; ``components`` are their numbers."""

    key: tuple[str, ...]
    components: Ints
    sums: Mapping[str, ScheduleSum]


def _in_file(facts: Facts, names: Sequence[str]) -> tuple[Array, str]:
    """The first of some quantities that each component (n,) has in its file, NaN for none, and their unit."""
    value = np.full(facts.count, np.nan)
    unit = ""
    for name in names:
        for fact in facts.named("quantity", name):
            open_ = np.isnan(value[fact.owner])
            value[fact.owner[open_]] = fact.figures[fact.value][open_]
            unit = unit or next((u for u in fact.units if u), "")
    return value, unit


def amounts(name: str, facts: Facts, mesh: Callable[[], MeshFigures]) -> Amounts:
    """A quantity of all components: length, area or volume, or one by the name that the file has for it.

    Raises NotAScheduleError for one that no component has.
    """
    worked: Worked | None = next((w for w in WORKED if w == name.strip().casefold()), None)
    if worked is None:
        value, unit = _in_file(facts, [name])
        if np.isnan(value).all():
            raise NotAScheduleError(
                f"No component has a quantity {name}; sum length, area, volume or one that there is."
            )
        return Amounts(value, np.zeros(facts.count, dtype=bool), unit)
    value, _ = _in_file(facts, IN_FILE[worked])
    missing = np.isnan(value)
    if missing.any():
        figures = mesh()
        by_mesh = {"length": figures.length_m, "area": figures.area_m2, "volume": figures.volume_m3}[worked]
        value = np.where(missing, by_mesh, value)
    return Amounts(value, missing & ~np.isnan(value), UNITS[worked])


def step_of(text: str) -> str:
    """One thing to group by; raises NotAScheduleError."""
    step = text.strip()
    kind, colon, name = step.partition(":")
    if step not in WHATS and not (colon and kind == "property" and name):
        known = ", ".join(w for w in WHATS if w != "global_id")
        raise NotAScheduleError(f"{step or 'Nothing'} cannot be grouped by; take {known} or property:NAME.")
    return step


def steps_of(text: str) -> tuple[str, ...]:
    """What to group by, as it is typed with commas between; raises NotAScheduleError.

    >>> steps_of("class, level")
    ('class', 'level')
    """
    steps = tuple(step_of(part) for part in text.split(",") if part.strip())
    if not steps:
        raise NotAScheduleError("There is nothing to group by; take class, type, level or another one.")
    return steps


def _keys(step: str, asked: Traits) -> tuple[list[str], Ints]:
    """The values of a step, in order of their reading, and which each component (n,) has; the first of several."""
    if step in WHATS:
        what: What = next(w for w in WHATS if w == step)
        column = asked.columns[what]
        texts = list(column.values)
        value = np.zeros(asked.count, dtype=np.int64)
        if column.owner is None:
            value[:] = column.value
        else:
            value[column.owner[::-1]] = column.value[::-1]
    else:
        texts, value = [NONE], np.zeros(asked.count, dtype=np.int64)
        for fact in asked.facts.named("property", step.partition(":")[2]):
            free = value[fact.owner] == 0
            value[fact.owner[free]] = (fact.value + len(texts))[free]
            texts += fact.texts
    # The same text from two sets is one; names in the order that people read, storeys from the ground up as they come.
    names = list(dict.fromkeys(texts)) if step == "level" else sorted(set(texts), key=_as_read)
    place = {text: k for k, text in enumerate(names)}
    return names, np.array([place[text] for text in texts], dtype=np.int64)[value]


def _as_read(text: str) -> tuple[bool, list[tuple[int, float, str]]]:
    """A name as it is sorted: figures in it by their size, nothing last."""
    import re

    parts = re.split(r"(\d+(?:\.\d+)?)", text.casefold())
    return text == NONE, [(0, float(p), "") if k % 2 else (1, 0.0, p) for k, p in enumerate(parts)]


def schedule(
    steps: Sequence[str],
    sums: Sequence[str],
    wanted: Mask,
    asked: Traits,
    mesh: Callable[[], MeshFigures],
) -> list[Group]:
    """The wanted components (n,) in groups by up to several steps, each with its count and sums, in reading order.

    A component of several systems counts once, with the first. Raises NotAScheduleError.
    """
    chosen = np.flatnonzero(wanted)
    keys = [_keys(step, asked) for step in steps]
    rows = np.stack([value[chosen] for _, value in keys], axis=1)
    amount = {name: amounts(name, asked.facts, mesh) for name in sums}
    if not len(chosen):
        return []
    unique, group = np.unique(rows, axis=0, return_inverse=True)
    order = np.argsort(group.reshape(-1), kind="stable")
    bounds = np.searchsorted(group.reshape(-1)[order], np.arange(len(unique) + 1))
    out = []
    for k, row in enumerate(unique.tolist()):
        components = chosen[order[bounds[k] : bounds[k + 1]]]
        out.append(
            Group(
                tuple(keys[s][0][value] for s, value in enumerate(row)),
                components,
                {name: _sum(each, components) for name, each in amount.items()},
            )
        )
    return out


def _sum(amount: Amounts, components: Ints) -> ScheduleSum:
    value, worked = amount.value[components], amount.worked[components]
    there = ~np.isnan(value)
    from_mesh = int((there & worked).sum())
    return ScheduleSum(
        float(value[there].sum()), amount.unit, int(there.sum()) - from_mesh, from_mesh, int((~there).sum())
    )
