"""What is made once and kept in memory: one policy for all of it.

Each cache has a size in bytes and a lock for each key: a caller who asks for something that is being made waits for it, and for
nothing else. A cache may name an owner for each key, such as a project; what an owner had before goes when it gets something new.
"""

from __future__ import annotations

import sys
from collections.abc import Callable, Hashable, Mapping
from itertools import islice
from threading import Lock
from typing import Generic, TypeVar

import numpy as np
from cachetools import LRUCache

Key = TypeVar("Key", bound=Hashable)
Made = TypeVar("Made")

_ENTRY_BYTES = 80
"""About what a short text takes with its place in a list."""
_SAMPLE = 64


def _parts(of: object) -> tuple[list[object], float]:
    """What something is made of, as far as that takes room, and how many times each of it counts."""
    held: list[object]
    if isinstance(of, Mapping):
        held = list(islice(of.values(), _SAMPLE))
    elif isinstance(of, (list, tuple, set, frozenset)):
        held = list(islice(of, _SAMPLE))
    elif hasattr(of, "__dict__"):
        return [value for value in vars(of).values() if not isinstance(value, type) and not callable(value)], 1.0
    else:
        return [], 1.0
    # Long lists are of one kind; the first of them tell for all.
    plain = all(isinstance(each, (str, int, float)) for each in held)
    return ([] if plain else held), max(1.0, len(of) / _SAMPLE)


def bytes_of(made: object) -> int:
    """About how many bytes something takes: its arrays exactly, long lists by their first entries.

    >>> bytes_of(np.zeros(1000)) >= 8000
    True
    """
    total, seen = 0.0, set[int]()
    left: list[tuple[object, float]] = [(made, 1.0)]
    while left:
        each, times = left.pop()
        if id(each) in seen:
            continue
        seen.add(id(each))
        if isinstance(each, np.ndarray):
            total += times * each.nbytes
        elif isinstance(each, (Mapping, list, tuple, set, frozenset)):
            total += times * _ENTRY_BYTES * len(each)
        else:
            total += times * sys.getsizeof(each)
        parts, more = _parts(each)
        left.extend((part, times * more) for part in parts)
    return int(total)


class _Making:
    """Something that is being made, and how many ask for it; the last one takes this away."""

    def __init__(self) -> None:
        self.lock, self.askers = Lock(), 0


class Cache(Generic[Key, Made]):
    """The last things that were made, each by what it was made of; several threads may ask at once."""

    def __init__(
        self,
        most_mb: float,
        owner_of: Callable[[Key], Hashable] | None = None,
        size_of: Callable[[Made], int] = bytes_of,
    ) -> None:
        """``size_of`` says in bytes what something counts, where its parts do not tell."""
        self._kept: LRUCache[Key, tuple[Made, int]] = LRUCache(most_mb * (1 << 20), getsizeof=lambda entry: entry[1])
        self._size_of = size_of
        self._owner_of = owner_of
        self._lock = Lock()
        self._making: dict[Key, _Making] = {}

    def peek(self, key: Key) -> Made | None:
        """What was made of a key, if it is kept."""
        with self._lock:
            found = self._kept.get(key)
        return None if found is None else found[0]

    def get(self, key: Key, make: Callable[[], Made]) -> Made:
        """What was made of a key, made now if it is not kept; what ``make`` raises is raised, and nothing is kept.

        Others who ask for the same key wait until it is made; those who ask for another one do not.
        """
        found = self.peek(key)
        if found is not None:
            return found
        with self._lock:
            making = self._making.setdefault(key, _Making())
            making.askers += 1
        try:
            with making.lock:
                found = self.peek(key)
                if found is None:
                    found = make()
                    self._put(key, found)
                return found
        finally:
            with self._lock:
                making.askers -= 1
                if not making.askers:
                    del self._making[key]

    def _put(self, key: Key, made: Made) -> None:
        size = self._size_of(made)
        with self._lock:
            if self._owner_of is not None:
                owner = self._owner_of(key)
                for other in [each for each in self._kept if self._owner_of(each) == owner]:
                    del self._kept[other]
            if size <= self._kept.maxsize:
                self._kept[key] = (made, size)

    def latest_of(self, owner: Hashable) -> Made | None:
        """What an owner had last, whatever it was made of."""
        with self._lock:
            found = next(
                (key for key in self._kept if self._owner_of is not None and self._owner_of(key) == owner), None
            )
            return None if found is None else self._kept[found][0]

    def forget(self, owner: Hashable) -> None:
        """Forget what an owner has."""
        with self._lock:
            for key in [each for each in self._kept if self._owner_of is not None and self._owner_of(each) == owner]:
                del self._kept[key]
