"""What of a component the cursor catches: corners, edges and their middles, centres of faces, centre lines."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.measuring.body import Body
from stairpath.core.measuring.centrelines import centre_lines
from stairpath.core.measuring.facets import Facets
from stairpath.core.measuring.loops.groups import groups
from stairpath.core.mesh.surface import CREASE_DEG

Array = npt.NDArray[np.float64]
Index = npt.NDArray[np.int64]

_STRAIGHT_DEG = 0.5
_MOST_EDGES = 20_000


@dataclass(frozen=True, eq=False)
class Features:
    """Corners (c, 3), whole straight edges (e, 2, 3), centres (f, 3) and centre lines (l, 2, 3) of a component.

    ``middles`` (m, 3) are those of edges that are no piece of a curve; ``centres`` are those of flat faces.
    """

    corners: Array
    edges: Array
    middles: Array
    centres: Array
    lines: Array


def _chains(points: Array, edges: Index) -> tuple[Index, Index]:
    """Straight edges (n, 2) made of edges (k, 2) that go on in a line, and the turn at each point of all: 0 none,
    1 a curve's, 2 a corner's.
    """
    ends = edges.reshape(-1)
    order = np.argsort(ends, kind="stable")
    degree = np.bincount(ends, minlength=len(points))
    first = np.cumsum(degree) - degree
    way = points[edges[:, 1]] - points[edges[:, 0]]
    way /= np.maximum(np.linalg.norm(way, axis=1), 1e-300)[:, None]
    turn = np.where(degree > 0, 2, 0)
    pass_at = np.flatnonzero(degree == 2)
    one, other = order[first[pass_at]], order[first[pass_at] + 1]
    # Both ways away from the point: straight on is a cosine of -1.
    cosine = np.einsum(
        "ij,ij->i", way[one // 2] * np.where(one % 2, -1, 1)[:, None], way[other // 2] * np.where(other % 2, -1, 1)[:, None]
    )  # fmt: skip
    straight = cosine < -math.cos(math.radians(_STRAIGHT_DEG))
    turn[pass_at[cosine < -math.cos(math.radians(CREASE_DEG))]] = 1
    turn[pass_at[straight]] = 0
    of = groups(len(edges), one[straight] // 2, other[straight] // 2)
    count = int(of.max(initial=-1)) + 1
    outer = turn[ends] > 0
    whole = np.full((count, 2), -1, dtype=np.int64)
    chain = np.repeat(of, 2)[outer]
    at = ends[outer]
    by = np.argsort(chain, kind="stable")
    chain, at = chain[by], at[by]
    starts = np.searchsorted(chain, np.arange(count))
    stops = np.searchsorted(chain, np.arange(count), side="right")
    two = stops - starts == 2
    whole[two] = np.stack([at[starts[two]], at[starts[two] + 1]], axis=1)
    return whole[two], turn


def features(body: Body) -> Features:
    """What of a body the cursor catches; of very many edges the longest."""
    facets = Facets(body)
    points = body.points
    edges, turn = _chains(points, facets.creases())
    ends = points[edges]
    length = np.linalg.norm(ends[:, 1] - ends[:, 0], axis=1)
    if len(edges) > _MOST_EDGES:
        longest = np.sort(np.argsort(-length, kind="stable")[:_MOST_EDGES])
        edges, ends = edges[longest], ends[longest]
    corners = np.unique(edges)
    own = (turn[edges] == 2).any(axis=1)
    lines = [line.ends for line in centre_lines(facets)]
    return Features(
        points[corners[turn[corners] == 2]],
        ends,
        ends[own].mean(axis=1),
        facets.centres()[:_MOST_EDGES],
        np.array(lines).reshape(-1, 2, 3),
    )
