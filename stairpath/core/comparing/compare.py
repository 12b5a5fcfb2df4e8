"""What became of a model from one issue to the next."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

from stairpath.core.comparing.issue import Issue, Listed
from stairpath.core.comparing.matching import matches
from stairpath.core.comparing.moves import Move, moved
from stairpath.core.reading.model import PropertyValue, Quantity

_SAME = 1e-6
"""Figures that differ by no more than this share are the same, written by another program."""


@dataclass(frozen=True)
class FieldChange:
    """One thing that is said of a component, before and after; None where it was not said."""

    name: str
    old: PropertyValue
    new: PropertyValue


@dataclass(frozen=True)
class Changed:
    """A component of the new issue of which other things are said than before."""

    component: int
    fields: tuple[FieldChange, ...]


@dataclass(frozen=True)
class Compared:
    """Two issues side by side. ``removed`` are places in the old one, all others in the new.

    ``pairs`` are the places in both of those that are in both; a component may be moved or reshaped, and changed too.
    """

    matched_by: Literal["global_id", "place"]
    pairs: tuple[tuple[int, int], ...]
    same: int
    added: tuple[int, ...]
    removed: tuple[int, ...]
    moved: tuple[tuple[int, Move], ...]
    reshaped: tuple[int, ...]
    changed: tuple[Changed, ...]


def _alike(one: PropertyValue, other: PropertyValue) -> bool:
    if isinstance(one, Quantity) and isinstance(other, Quantity):
        return one.unit == other.unit and _alike(one.value, other.value)
    if isinstance(one, bool) or isinstance(other, bool):
        return one is other
    if isinstance(one, int | float) and isinstance(other, int | float):
        return math.isclose(one, other, rel_tol=_SAME, abs_tol=1e-12)
    return one == other


def _said(component: Listed, issue: Issue, renamed: Mapping[str, str]) -> Iterator[tuple[str, PropertyValue]]:
    """All that is said of a component, by its name; nothing for what is empty."""
    storey = issue.storeys.get(component.storey or "", component.storey)
    host, whole = (renamed.get(gid, gid) for gid in (component.hosted_in, component.part_of))
    for name, text in (
        ("class", component.ifc_class), ("predefined type", component.predefined), ("name", component.name),
        ("tag", component.tag), ("description", component.description), ("type", component.type_name),
        ("level", storey), ("material", component.material), ("system", ", ".join(sorted(component.systems))),
        ("hosted in", host), ("part of", whole),
    ):  # fmt: skip
        if text:
            yield name, text
    groups: tuple[Mapping[str, Mapping[str, PropertyValue]], ...] = (component.properties, component.quantities)
    for sets in groups:
        for group, values in sets.items():
            for name, value in values.items():
                if value is not None and value != "":
                    yield f"{group}.{name}", value


def compare(old: Issue, new: Issue) -> Compared:
    """What was added, removed, moved, reshaped and changed from an issue of a model to a newer one.

    By GlobalId; where the file has new GlobalIds throughout, by tag, type and place.
    """
    found = matches(old, new)
    renamed = {old.components[a].global_id: new.components[b].global_id for a, b in found.pairs}
    moves: list[tuple[int, Move]] = []
    reshaped: list[int] = []
    changed: list[Changed] = []
    same = 0
    for a, b in found.pairs:
        how = moved(old, a, new, b)
        if how is None:
            reshaped.append(b)
        elif isinstance(how, Move):
            moves.append((b, how))
        was = dict(_said(old.components[a], old, renamed))
        now = dict(_said(new.components[b], new, {}))
        fields = tuple(
            FieldChange(name, was.get(name), now.get(name))
            for name in dict.fromkeys([*was, *now])
            if not _alike(was.get(name), now.get(name))
        )
        if fields:
            changed.append(Changed(b, fields))
        same += how is True and not fields
    return Compared(
        found.by, found.pairs, same, found.added, found.removed, tuple(moves), tuple(reshaped), tuple(changed)
    )
