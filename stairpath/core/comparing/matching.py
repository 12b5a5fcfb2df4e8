"""Which component of one issue is which of another."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterable
from dataclasses import dataclass
from typing import Literal

import numpy as np
from scipy.spatial import cKDTree

from stairpath.core.comparing.issue import Issue, Listed

_KEPT_IDS = 0.05
"""A file that kept fewer of its GlobalIds than this share has new ones throughout."""
NEAR_M = 1.0
"""What is alike and has no tag of its own is the same only if it stands so near."""
_MOST_ALIKE = 2_000
"""Of more that are alike the nearest is taken one after the other, not the best for all together."""


@dataclass(frozen=True)
class Matches:
    """Pairs of places in the old and the new issue, by what they were matched, and who is left on either side."""

    by: Literal["global_id", "place"]
    pairs: tuple[tuple[int, int], ...]
    removed: tuple[int, ...]
    added: tuple[int, ...]


def matches(old: Issue, new: Issue) -> Matches:
    """Components of two issues by their GlobalIds; where a file has new ones throughout by tag, type and place."""
    shared = [(number, new.by_id[gid]) for gid, number in old.by_id.items() if gid in new.by_id]
    fewer = min(len(old.by_id), len(new.by_id))
    if not fewer or len(shared) > _KEPT_IDS * fewer:
        return _left("global_id", old, new, shared)
    return _left("place", old, new, _by_place(old, new))


def _left(by: Literal["global_id", "place"], old: Issue, new: Issue, pairs: Iterable[tuple[int, int]]) -> Matches:
    pairs = tuple(pairs)
    was, now = {a for a, _ in pairs}, {b for _, b in pairs}
    return Matches(
        by,
        pairs,
        tuple(k for k in range(len(old.components)) if k not in was),
        tuple(k for k in range(len(new.components)) if k not in now),
    )


def _grouped(issue: Issue, free: Iterable[int], key: Callable[[Listed], Hashable]) -> dict[Hashable, list[int]]:
    groups: dict[Hashable, list[int]] = {}
    for number in free:
        groups.setdefault(key(issue.components[number]), []).append(number)
    return groups


def _by_place(old: Issue, new: Issue) -> list[tuple[int, int]]:
    was, now = set(range(len(old.components))), set(range(len(new.components)))
    pairs: list[tuple[int, int]] = []

    def take(a: int, b: int) -> None:
        pairs.append((a, b))
        was.discard(a)
        now.discard(b)

    def of_tag(c: Listed) -> Hashable:
        return c.ifc_class, c.tag

    there = _grouped(new, sorted(now), of_tag)
    for key, numbers in _grouped(old, sorted(was), of_tag).items():
        others = there.get(key, [])
        if isinstance(key, tuple) and key[1] and len(numbers) == len(others) == 1:
            take(numbers[0], others[0])
    # From what is most alike to what is least: a part that has lost its type is still the one that stands there.
    steps: tuple[Callable[[Listed], Hashable], ...] = (
        lambda c: (c.ifc_class, c.tag, c.type_name, c.name),
        lambda c: (c.ifc_class, c.type_name),
        lambda c: c.ifc_class,
    )
    for step in steps:
        there = _grouped(new, sorted(now), step)
        for key, numbers in _grouped(old, sorted(was), step).items():
            for a, b in _nearest(old, numbers, new, there.get(key, [])):
                take(a, b)
    return sorted(pairs)


def _shaped(issue: Issue, numbers: list[int]) -> tuple[list[int], list[int]]:
    """Those of some that have a shape, and those that have none."""
    without = {k for k in numbers if np.isnan(issue.centres_m[k]).any()}
    return [k for k in numbers if k not in without], [k for k in numbers if k in without]


def _nearest(old: Issue, numbers: list[int], new: Issue, others: list[int]) -> list[tuple[int, int]]:
    """Who of some that are alike is who, by where they stand; without a shape they are told apart by their order."""
    (a, bare), (b, others_bare) = _shaped(old, numbers), _shaped(new, others)
    found = list(zip(bare, others_bare, strict=False))
    if not a or not b:
        return found
    one, other = old.centres_m[a], new.centres_m[b]
    if max(len(a), len(b)) <= _MOST_ALIKE:
        apart = np.linalg.norm(one[:, None] - other[None], axis=2)
        from scipy.optimize import linear_sum_assignment

        rows, columns = linear_sum_assignment(np.minimum(apart, NEAR_M))
        return found + [(a[i], b[j]) for i, j in zip(rows, columns, strict=True) if apart[i, j] < NEAR_M]
    distance, place = (np.asarray(each) for each in cKDTree(other).query(one))
    taken: set[int] = set()
    for i in np.argsort(distance, kind="stable").tolist():
        if distance[i] < NEAR_M and int(place[i]) not in taken:
            taken.add(int(place[i]))
            found.append((a[i], b[int(place[i])]))
    return found
