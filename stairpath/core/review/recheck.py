"""Topics of findings, and what became of them when the check is run again: gone, back, or another depth.

What is proposed is done by a person; nothing is settled by itself.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Ge, Le, Len

from stairpath.core.limits import Id, Word

Pair = tuple[Word, Word]
"""Two components by their GlobalIds, which newer issues keep; in order."""
Kind = Literal["overlap", "clearance"]
What = Literal["gone", "back", "other"]

_Size = Annotated[float, Ge(0), Le(1e6)]
TOLD_M = 0.001
"""A depth or distance that changed by less is the same."""


def pair(a: str, b: str) -> Pair:
    """Two components, whichever came first."""
    return (a, b) if a <= b else (b, a)


@dataclass(frozen=True)
class Measured:
    """How bad a finding is: so deep, or so near."""

    kind: Kind
    depth_m: _Size
    distance_m: _Size

    @property
    def badness_m(self) -> float:
        """Higher is worse: the depth of an overlap, less than nothing for what is apart."""
        return self.depth_m if self.kind == "overlap" else -self.distance_m


@dataclass(frozen=True)
class OfFinding:
    """The finding that a topic was made of: by which check, of which pairs, and how bad it was."""

    check: Id
    pairs: Annotated[tuple[Pair, ...], Len(1, 2000)]
    measured: Measured

    def __post_init__(self) -> None:
        object.__setattr__(self, "pairs", tuple(pair(a, b) for a, b in self.pairs))


@dataclass(frozen=True)
class Known:
    """A topic of a finding, and whether it has come to its end."""

    id: str
    of: OfFinding
    ended: bool


@dataclass(frozen=True)
class Proposal:
    """What a run tells of a topic: its finding is gone, back, or measures otherwise; what it was and what it is."""

    topic: str
    what: What
    was: Measured
    now: Measured | None


def worst(of: Iterable[Measured]) -> Measured | None:
    """The worst of several; None of none."""
    return max(of, key=lambda each: each.badness_m, default=None)


def proposals(topics: Sequence[Known], found: Mapping[Pair, Measured], whole: bool = True) -> list[Proposal]:
    """What a run proposes for topics of its check, in their order.

    ``found`` are the pairs of all findings; where these are not all (not ``whole``), nothing is proposed as gone.
    """
    out = []
    for topic in topics:
        now = worst(found[each] for each in topic.of.pairs if each in found)
        was = topic.of.measured
        if now is None:
            if not topic.ended and whole:
                out.append(Proposal(topic.id, "gone", was, None))
        elif topic.ended:
            out.append(Proposal(topic.id, "back", was, now))
        elif abs(now.badness_m - was.badness_m) >= TOLD_M:
            out.append(Proposal(topic.id, "other", was, now))
    return out
