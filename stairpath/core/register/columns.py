"""What a register says beside each component: what it is called or belongs to, a property, or a quantity."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt

from stairpath.core.register.quantities import MeshFigures
from stairpath.core.register.schedule import Amounts, NotAScheduleError, amounts
from stairpath.core.visibility.attributes import WHATS, What
from stairpath.core.visibility.facts import Fact
from stairpath.core.visibility.traits import Traits

Ints = npt.NDArray[np.int64]


@dataclass(frozen=True, eq=False)
class TextColumn:
    """A text for each component (n,): ``texts[value]``, the first of which is the empty one."""

    texts: tuple[str, ...]
    value: Ints


Column = TextColumn | Amounts


def column_of(name: str, asked: Traits, mesh: Callable[[], MeshFigures]) -> Column:
    """What is said beside each component: one of WHATS, ``property:`` or ``quantity:`` and a name, or a sum's name.

    A property that is a figure in the same unit throughout is figures. Raises NotAScheduleError for what nothing has.
    """
    kind, colon, rest = name.strip().partition(":")
    what: What | None = next((w for w in WHATS if w == name.strip()), None)
    if what is not None:
        column = asked.columns[what]
        owners = range(asked.count) if column.owner is None else column.owner.tolist()
        return _said(asked.count, zip(owners, (column.values[v] for v in column.value.tolist()), strict=True))
    if colon and kind == "property":
        return _property(rest, asked)
    return amounts(rest if colon and kind == "quantity" else name, asked.facts, mesh)


def _property(name: str, asked: Traits) -> Column:
    found = asked.facts.named("property", name)
    if not found:
        raise NotAScheduleError(f"No component has a property {name}; take one that there is.")
    units = {unit for fact in found for unit in fact.units}
    if len(units) == 1 and all(np.isfinite(fact.figures).all() for fact in found):
        value = np.full(asked.count, np.nan)
        for fact in reversed(found):
            value[fact.owner] = fact.figures[fact.value]
        return Amounts(value, np.zeros(asked.count, dtype=bool), units.pop())
    return _said(asked.count, (pair for fact in found for pair in _pairs(fact)))


def _pairs(fact: Fact) -> Iterable[tuple[int, str]]:
    return zip(fact.owner.tolist(), (fact.texts[v] for v in fact.value.tolist()), strict=True)


def _said(count: int, pairs: Iterable[tuple[int, str]]) -> TextColumn:
    """Texts by their owners; different ones of one owner follow each other."""
    of: list[dict[str, None]] = [{} for _ in range(count)]
    for owner, text in pairs:
        if text:
            of[owner][text] = None
    numbers: dict[str, int] = {"": 0}
    value = np.array([numbers.setdefault(", ".join(texts), len(numbers)) for texts in of], dtype=np.int64)
    return TextColumn(tuple(numbers), value)


Origin = Literal["file", "worked out", ""]


def origin_of(column: Amounts, component: int) -> Origin:
    """Where a component's figure is from."""
    if np.isnan(column.value[component]):
        return ""
    return "worked out" if column.worked[component] else "file"
