"""Properties, quantities and descriptions of components as columns, one for each name that there is."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Literal, Protocol

import numpy as np
import numpy.typing as npt

from stairpath.core.reading.model import PropertyValue, Quantity

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int32]

Kind = Literal["property", "quantity"]
Name = tuple[str, str]
"""A set's name and the name in it."""


class Described(Protocol):
    """A component as far as facts are told of it."""

    @property
    def description(self) -> str:
        """What it is, in words."""

    @property
    def properties(self) -> Mapping[str, Mapping[str, PropertyValue]]:
        """Values by property set and name."""

    @property
    def quantities(self) -> Mapping[str, Mapping[str, Quantity]]:
        """Figures by quantity set and name."""


def text_of(value: PropertyValue) -> str:
    """A value as it is read.

    >>> text_of(True), text_of(Quantity(0.15, "m")), text_of(None)
    ('yes', '0.15 m', '')
    """
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, Quantity):
        return f"{value.value:.10g} {value.unit}".strip()
    return f"{value:.10g}" if isinstance(value, float) else str(value)


def plain(value: PropertyValue) -> str | float | int | bool | None:
    """A value as a document has it: a figure without its unit."""
    return value.value if isinstance(value, Quantity) else value


@dataclass(frozen=True, eq=False)
class Fact:
    """What components have of one name: the component ``owner[k]`` has ``values[value[k]]``; owners rise."""

    owner: Ints
    value: Ints
    values: tuple[PropertyValue, ...]

    @cached_property
    def texts(self) -> tuple[str, ...]:
        """The values as they are read."""
        return tuple(text_of(value) for value in self.values)

    @cached_property
    def figures(self) -> Array:
        """The values (u,) as figures in their units; NaN for what is none."""
        return np.array([_figure(value) for value in self.values], dtype=np.float64)

    @cached_property
    def units(self) -> tuple[str, ...]:
        """The values' units; empty where they have none."""
        return tuple(value.unit if isinstance(value, Quantity) else "" for value in self.values)


def _figure(value: PropertyValue) -> float:
    if isinstance(value, Quantity):
        return value.value
    if isinstance(value, bool) or value is None or isinstance(value, str):
        return float("nan")
    return float(value)


@dataclass(frozen=True, eq=False)
class Facts:
    """The facts of some components (n,), by kind and name."""

    count: int
    descriptions: tuple[str, ...]
    of: Mapping[Kind, Mapping[Name, Fact]]

    def named(self, kind: Kind, name: str) -> list[Fact]:
        """The facts that ``SET.NAME`` or ``NAME`` in any set means, without regard to case."""
        wanted = name.strip().casefold()
        by_name = self._by_name[kind]
        return by_name.get(wanted, [])

    @cached_property
    def _by_name(self) -> dict[Kind, dict[str, list[Fact]]]:
        found: dict[Kind, dict[str, list[Fact]]] = {}
        for kind, facts in self.of.items():
            names = found[kind] = {}
            for (group, name), fact in facts.items():
                for spoken in {name.casefold(), f"{group}.{name}".casefold()}:
                    names.setdefault(spoken, []).append(fact)
        return found


class _Growing:
    """A fact while components are gone through."""

    def __init__(self) -> None:
        self.owner: list[int] = []
        self.value: list[int] = []
        self.numbers: dict[tuple[type, PropertyValue], int] = {}

    def add(self, owner: int, value: PropertyValue) -> None:
        self.owner.append(owner)
        # True and 1 are the same to a dict, and are not the same here.
        self.value.append(self.numbers.setdefault((type(value), value), len(self.numbers)))

    def done(self) -> Fact:
        return Fact(
            np.array(self.owner, np.int32), np.array(self.value, np.int32), tuple(value for _, value in self.numbers)
        )


def facts_of(components: Iterable[Described]) -> Facts:
    """The facts of components, in their order."""
    growing: dict[Kind, dict[Name, _Growing]] = {"property": {}, "quantity": {}}
    descriptions: list[str] = []
    for number, component in enumerate(components):
        descriptions.append(component.description)
        sets: tuple[tuple[Kind, Mapping[str, Mapping[str, PropertyValue]]], ...] = (
            ("property", component.properties),
            ("quantity", component.quantities),
        )
        for kind, groups in sets:
            of_kind = growing[kind]
            for group, values in groups.items():
                for name, value in values.items():
                    of_kind.setdefault((group, name), _Growing()).add(number, value)
    return Facts(
        len(descriptions),
        tuple(descriptions),
        {kind: {name: each.done() for name, each in of_kind.items()} for kind, of_kind in growing.items()},
    )


def joined(parts: Sequence[Facts]) -> Facts:
    """The facts of several models as those of one building, in their order."""
    first = np.cumsum([0, *(part.count for part in parts)])
    of: dict[Kind, dict[Name, Fact]] = {"property": {}, "quantity": {}}
    for kind, names in of.items():
        for name in dict.fromkeys(name for part in parts for name in part.of[kind]):
            numbers: dict[tuple[type, PropertyValue], int] = {}
            owner, value = [], []
            for part, start in zip(parts, first.tolist(), strict=False):
                fact = part.of[kind].get(name)
                if fact is None:
                    continue
                into = [numbers.setdefault((type(v), v), len(numbers)) for v in fact.values]
                owner.append(fact.owner + start)
                value.append(np.array(into, np.int32)[fact.value])
            names[name] = Fact(
                np.concatenate(owner).astype(np.int32), np.concatenate(value), tuple(v for _, v in numbers)
            )
    return Facts(int(first[-1]), tuple(d for part in parts for d in part.descriptions), of)
