"""Outlines of meshes that do not quite meet: closed where the gap is small, else said how wide it is."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
from scipy.spatial import cKDTree

from stairpath.core.cutting.outlines import Outlines

Array = npt.NDArray[np.float64]

GAP_M = 0.002
"""What is no farther apart is taken as meeting: half a millimetre of a modeller's care, and the facets' own error."""


@dataclass(frozen=True)
class Closed:
    """Rings of one component that were closed by joining lines, or the widest gap that remains."""

    rings: tuple[Array, ...]
    gap_m: float | None


def _pairs(ends: Array, limit_m: float) -> tuple[dict[int, int], list[int]]:
    """Ends (2k, 2) joined two by two, nearest first, within a limit; and those that stay alone."""
    partner: dict[int, int] = {}
    near = cKDTree(ends).query_pairs(limit_m, output_type="ndarray")
    if len(near):
        apart = np.linalg.norm(ends[near[:, 0]] - ends[near[:, 1]], axis=1)
        for i, j in near[np.lexsort((near[:, 1], near[:, 0], apart))].tolist():
            if i not in partner and j not in partner:
                partner[i], partner[j] = j, i
    return partner, [k for k in range(len(ends)) if k not in partner]


def _widest(ends: Array) -> float:
    """The widest of the gaps from each end (n, 2) to the nearest other one."""
    gaps = np.asarray(cKDTree(ends).query(ends, k=2)[0])
    return float(gaps[:, 1].max())


def close_up(lines: list[Array], tolerance_m: float = GAP_M) -> Closed:
    """Join the open lines (n, 2) of one component into rings, whichever way they run.

    Nothing is closed over more than the tolerance: then there are no rings, and the widest gap is told.
    """
    ends = np.array([p for line in lines for p in (line[0], line[-1])])
    partner, alone = _pairs(ends, tolerance_m)
    if alone:
        return Closed((), _widest(ends[alone]))
    rings: list[Array] = []
    left = set(range(len(lines)))
    while left:
        begin = min(left)
        at, parts = 2 * begin, []
        while at // 2 in left:
            left.remove(at // 2)
            line = lines[at // 2]
            parts.append(line if at % 2 == 0 else line[::-1])
            at = partner[at ^ 1]
        rings.append(np.concatenate(parts))
    return Closed(tuple(rings), None)


def lines_by_owner(outlines: Outlines) -> dict[int, list[Array]]:
    """The open lines of each component that has any."""
    found: dict[int, list[Array]] = {}
    for i in np.flatnonzero(~outlines.closed):
        found.setdefault(int(outlines.owner[i]), []).append(outlines[int(i)])
    return found
