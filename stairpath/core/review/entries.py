"""How a list is changed by several people: each adds and takes away entries, and nobody's list takes the place of another's."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated

from annotated_types import MaxLen

from stairpath.core.limits import Word


@dataclass(frozen=True)
class Entries:
    """Entries that are added at the end of a list, and others that are taken away."""

    add: Annotated[tuple[Word, ...], MaxLen(2000)] = ()
    drop: Annotated[tuple[Word, ...], MaxLen(2000)] = ()

    def applied(self, before: Sequence[str]) -> list[str]:
        """A list with the change made, each entry once."""
        return list(dict.fromkeys([*(each for each in before if each not in self.drop), *self.add]))
