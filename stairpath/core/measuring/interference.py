"""What interferes between two groups of components: overlaps, and what comes too near; neighbours as one finding."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal

import numpy as np
import numpy.typing as npt
import shapely

from stairpath.core.measuring.body import NoBodyError
from stairpath.core.measuring.distance import Vector, between
from stairpath.core.measuring.exclusions import CODES, Code, Kin, touching, why_left_out
from stairpath.core.measuring.loops.groups import groups
from stairpath.core.measuring.overlap import overlap
from stairpath.core.measuring.prints import Prints, pair_prints
from stairpath.core.measuring.things import Things

Array = npt.NDArray[np.float64]
Index = npt.NDArray[np.int64]
Mask = npt.NDArray[np.bool_]
OnProgress = Callable[[float, str], None]

TOUCH_M = 0.001
TOGETHER_M = 1.0
"""Pairs of one component whose places lie no farther apart are one finding."""
_SAY_EVERY = 64


@dataclass(frozen=True)
class Pair:
    """Two components that overlap, or are nearer than they should; ``a`` and ``b`` by their numbers.

    ``left_out`` says why the pair is no finding, if it is none. The volume is None where a body is not closed.
    """

    a: int
    b: int
    kind: Literal["overlap", "clearance"]
    depth_m: float
    volume_m3: float | None
    distance_m: float
    at_m: Vector
    left_out: str | None = None


@dataclass(frozen=True)
class Near:
    """How two components lie that overlap or come near: what a pair is made of, whatever their numbers are.

    ``touches`` says that it is no more than a touch.
    """

    kind: Literal["overlap", "clearance"]
    depth_m: float
    volume_m3: float | None
    distance_m: float
    at_m: Vector
    touches: bool = False


@dataclass(frozen=True)
class Finding:
    """Pairs, by their places in the list, that share components and lie near one another; where, and of what."""

    pairs: tuple[int, ...]
    at_m: Vector
    components: tuple[int, ...]


@dataclass(frozen=True)
class Interference:
    """How many pairs were looked at, those that interfere, and the findings that they make.

    ``known`` is what was found of each pair by its fingerprint, None for nothing, and ``anew`` how many of them were
    measured in this run.
    """

    checked: int
    pairs: tuple[Pair, ...]
    findings: tuple[Finding, ...]
    known: Mapping[int, Near | None] = field(default_factory=dict)
    anew: int = 0


def near_pairs(bounds_m: Array, a: Mask, b: Mask, within_m: float) -> Index:
    """Pairs (n, 2) of one of each group whose boxes come so near, each once, in order."""
    known = ~np.isnan(bounds_m).any(axis=(1, 2))
    first, second = np.flatnonzero(a & known), np.flatnonzero(b & known)
    if not len(first) or not len(second):
        return np.zeros((0, 2), dtype=np.int64)
    low, high = bounds_m[:, 0], bounds_m[:, 1]
    tree = shapely.STRtree(shapely.box(low[second, 0], low[second, 1], high[second, 0], high[second, 1]))
    i, j = tree.query(
        shapely.box(
            low[first, 0] - within_m, low[first, 1] - within_m, high[first, 0] + within_m, high[first, 1] + within_m
        )
    )
    one, other = first[i], second[j]
    level = (low[one, 2] - within_m <= high[other, 2]) & (low[other, 2] - within_m <= high[one, 2]) & (one != other)
    one, other = one[level], other[level]
    # Where both groups have both of a pair, it is met from either side.
    twice = (a[other] & b[one]) & (one > other)
    return np.unique(np.stack([one[~twice], other[~twice]], axis=1), axis=0).astype(np.int64)


def _near(things: Things, a: int, b: int, clearance_m: float, touch_m: float) -> Near | None:
    """What there is to say of two components; None where they are far enough apart, or one has no shape."""
    try:
        one, other = things.body(a), things.body(b)
    except NoBodyError:
        return None
    near = between(one, other, max(clearance_m, touch_m))
    if near is None:
        return None
    x, y, z = np.mean([near.from_m, near.to_m], axis=0).tolist()
    if near.distance_m == 0:
        shared = overlap(one, other)
        if shared is not None and shared.depth_m > touch_m:
            return Near("overlap", shared.depth_m, shared.volume_m3, 0.0, shared.at_m)
    if near.distance_m <= touch_m:
        kind: Literal["overlap", "clearance"] = "clearance" if clearance_m > touch_m else "overlap"
        return Near(kind, 0.0, 0.0, near.distance_m, (x, y, z), touches=True)
    return Near("clearance", 0.0, 0.0, near.distance_m, (x, y, z))


def _findings(pairs: Sequence[Pair], together_m: float) -> tuple[Finding, ...]:
    """Pairs that are not left out, joined where they share a component and lie near one another."""
    kept = [k for k, pair in enumerate(pairs) if pair.left_out is None]
    if not kept:
        return ()
    at = np.array([pairs[k].at_m for k in kept])
    of: dict[int, list[int]] = {}
    for place, k in enumerate(kept):
        for component in (pairs[k].a, pairs[k].b):
            of.setdefault(component, []).append(place)
    links: list[tuple[int, int]] = []
    for places in of.values():
        for n, one in enumerate(places):
            links += [(one, other) for other in places[n + 1 :] if np.linalg.norm(at[one] - at[other]) <= together_m]
    rows, columns = np.array(links, dtype=np.int64).reshape(-1, 2).T
    label = groups(len(kept), rows, columns)
    by: dict[int, list[int]] = {}
    for k, group in zip(kept, label.tolist(), strict=True):
        by.setdefault(group, []).append(k)

    def finding(group: list[int]) -> Finding:
        x, y, z = np.mean([pairs[k].at_m for k in group], axis=0).tolist()
        return Finding(
            tuple(group), (x, y, z), tuple(dict.fromkeys(c for k in group for c in (pairs[k].a, pairs[k].b)))
        )

    def severity(group: list[int]) -> tuple[float, float]:
        return -max(pairs[k].depth_m for k in group), min(pairs[k].distance_m for k in group)

    return tuple(finding(group) for group in sorted(by.values(), key=severity))


def interference(
    things: Things, kin: Sequence[Kin], a: Mask, b: Mask, clearance_m: float = 0.0, touch_m: float = TOUCH_M,
    codes: Collection[Code] = CODES, together_m: float = TOGETHER_M, on_progress: OnProgress = lambda share, text: None,
    prints: Prints | None = None, known: Mapping[int, Near | None] | None = None,
) -> Interference:  # fmt: skip
    """What of group ``a`` (n,) interferes with what of group ``b`` (n,): overlaps, and below a clearance what is near.

    What overlaps or is apart by no more than ``touch_m`` touches, and is left out, as are pairs that belong together by
    the rules in ``codes``. Findings come deepest first. To stop it, raise from ``on_progress``.

    With the components' ``prints``, pairs that are ``known`` by their fingerprints from a run of the same clearance and
    touch are not measured again.
    """
    looked_at = near_pairs(things.bounds_m, a & things.meant, b & things.meant, max(clearance_m, touch_m))
    keys = pair_prints(prints, looked_at).tolist() if prints is not None else list(range(len(looked_at)))
    before = known if known is not None and prints is not None else {}
    pairs: list[Pair] = []
    seen: dict[int, Near | None] = {}
    anew = 0
    for k, ((one, other), key) in enumerate(zip(looked_at.tolist(), keys, strict=True)):
        if k % _SAY_EVERY == 0:
            on_progress(k / len(looked_at), f"{k} of {len(looked_at)} pairs")
        if key in before:
            near = before[key]
        else:
            near = _near(things, one, other, clearance_m, touch_m)
            anew += 1
        seen[key] = near
        if near is not None:
            why = touching(touch_m) if near.touches else why_left_out(kin[one], kin[other], codes)
            pairs.append(Pair(one, other, near.kind, near.depth_m, near.volume_m3, near.distance_m, near.at_m, why))
    return Interference(len(looked_at), tuple(pairs), _findings(pairs, together_m), seen, anew)
