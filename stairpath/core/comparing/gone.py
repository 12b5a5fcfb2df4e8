"""What stands no longer where it stood: components of an older issue as they were, to be drawn beside the newer one."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.comparing.issue import Issue
from stairpath.core.mesh.surface import surfaces

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]

MOST_TRIANGLES = 400_000
"""So many are drawn; what is beyond is counted."""


@dataclass(frozen=True, eq=False)
class Gone:
    """Components as they stood: triangles (m, 3, 3) and edges (k, 2, 3) in metres, and the box (n, 2, 3) around each.

    ``components`` (n,) are their places in the older issue; ``left_out`` counts those that were too many.
    """

    components: Ints
    boxes_m: Array
    triangles: Array
    edges: Array
    left_out: int


def gone(old: Issue, numbers: Iterable[int], origin_m: Array) -> Gone:
    """Components of an older issue as they stood, about an origin; those without a shape are not among them."""
    geometry, to = old.placed.geometry, old.placed.to
    wanted = [number for number in numbers if old.shapes_of(number)]
    used = sorted({int(geometry.shape[place]) for number in wanted for place in old.shapes_of(number)})
    drawn = dict(zip(used, surfaces([geometry.shapes[k] for k in used]), strict=True))
    triangles: list[Array] = []
    edges: list[Array] = []
    there: list[int] = []
    count = 0
    for number in wanted:
        if count > MOST_TRIANGLES:
            break
        for place in old.shapes_of(number):
            surface = drawn[int(geometry.shape[place])]
            matrix = to @ geometry.matrix[place]
            points = surface.positions @ matrix[:3, :3].T + matrix[:3, 3] - origin_m
            triangles.append(points[surface.triangles])
            count += len(surface.triangles)
            edges.append(points[surface.edges])
        there.append(number)
    return Gone(
        np.array(there, dtype=np.int64),
        old.placed.bounds_m[there] - origin_m,
        np.concatenate(triangles) if triangles else np.zeros((0, 3, 3)),
        np.concatenate(edges) if edges else np.zeros((0, 2, 3)),
        len(wanted) - len(there),
    )
