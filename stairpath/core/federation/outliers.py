"""Which components make up the building, and which stand so far away that no work is to depend on the distance."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import connected_components

Array = npt.NDArray[np.float64]
Mask = npt.NDArray[np.bool_]

GAP_M = 1000.0
"""Components with more than one to two such squares of empty ground between them are not one building."""
VAST_M = 4000.0
"""No component of a building reaches so far, along any axis."""
_OFF_M = 2000.0
"""So far above or below the middle of most nothing belongs to the building."""


def _squares(box: Array, low: Array) -> tuple[npt.NDArray[np.int64], npt.NDArray[np.int64]]:
    """The squares (k, 2) of the plan that boxes (n, 2, 2) lie on, and whose each is."""
    first = np.floor((box[:, 0] - low) / GAP_M).astype(np.int64)
    last = np.floor((box[:, 1] - low) / GAP_M).astype(np.int64)
    count = np.prod(last - first + 1, axis=1)
    owner = np.repeat(np.arange(len(box)), count)
    within = np.arange(len(owner)) - np.repeat(np.cumsum(count) - count, count)
    wide = (last - first + 1)[owner, 0]
    return first[owner] + np.column_stack([within % wide, within // wide]), owner


def apart(bounds_m: Array) -> Mask:
    """Which components (n,) stand apart from where most are, by their bounds (n, 2, 3); those without never do.

    >>> boxes = np.array([[[0, 0, 0], [9, 9, 3]], [[20, 0, 0], [29, 9, 3]], [[50_000, 0, 0], [50_009, 9, 3]]], float)
    >>> apart(boxes).tolist()
    [False, False, True]
    """
    out = np.zeros(len(bounds_m), dtype=bool)
    there = ~np.isnan(bounds_m).any(axis=(1, 2))
    if not there.any():
        return out
    heights = bounds_m[:, :, 2]
    with np.errstate(invalid="ignore"):
        off = (np.abs(heights - np.median(heights[there])) > _OFF_M).any(axis=1)
        out[there & (off | (np.ptp(bounds_m, axis=1) > VAST_M).any(axis=1))] = True
    known = np.flatnonzero(there & ~out)
    if not len(known):
        return out
    box = bounds_m[known][:, :, :2]
    low = box[:, 0].min(axis=0)
    if (box[:, 1].max(axis=0) - low < 2 * GAP_M).all():
        return out
    squares, owner = _squares(box, low)
    cells, cell_of = np.unique(squares, axis=0, return_inverse=True)
    cell_of = cell_of.reshape(-1)
    number = {(int(x), int(y)): k for k, (x, y) in enumerate(cells)}
    links = [
        (k, number[(x + dx, y + dy)])
        for (x, y), k in number.items()
        for dx, dy in ((1, -1), (1, 0), (1, 1), (0, 1))
        if (x + dx, y + dy) in number
    ]
    # What one component lies on belongs together, however far its ends are apart.
    order = np.argsort(owner, kind="stable")
    same = np.flatnonzero(owner[order][1:] == owner[order][:-1])
    joined = np.concatenate(
        [
            np.array(links, dtype=np.int64).reshape(-1, 2),
            np.column_stack([cell_of[order][same], cell_of[order][same + 1]]),
        ]
    )
    shape = (len(cells), len(cells))
    _, part = connected_components(coo_matrix((np.ones(len(joined)), (joined[:, 0], joined[:, 1])), shape), False)
    of_owner = np.zeros(len(box), dtype=np.int64)
    of_owner[owner] = part[cell_of]
    most = np.bincount(of_owner).argmax()
    out[known[of_owner != most]] = True
    return out
