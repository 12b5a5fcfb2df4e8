"""Length, area and volume of components, worked out from their triangles where the file has no such quantity."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.reading.model import Geometry

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]

_SAME_POINT_M = 1e-6
_FLAT = 1 / 3
"""What is so much thinner than it is wide is flat: its area is that of one side."""
_FACING = np.cos(np.radians(45.0))
_BATCH = 2_000_000
"""So many triangles at once."""


@dataclass(frozen=True, eq=False)
class MeshFigures:
    """What the triangles of components (n,) come to, NaN where they come to nothing.

    The length is that of the box around the component along the way in which least of its surface looks: a bar's, a
    pipe's and a duct's own, however short, and the longest side of a full box. The area is that of one side of what is
    flat, such as a wall, a slab or a door, and the whole surface of anything else. The volume is that of closed parts,
    and none if any part is open; what parts share counts in each.
    """

    length_m: Array
    area_m2: Array
    volume_m3: Array


def _open_shapes(geometry: Geometry) -> npt.NDArray[np.bool_]:
    """Which shapes have an edge that is not met from its other side."""
    out = np.zeros(len(geometry.shapes), dtype=bool)
    counts = np.array([len(shape.triangles) for shape in geometry.shapes], dtype=np.int64)
    first = 0
    while first < len(counts):
        last = first + max(1, int(np.searchsorted(np.cumsum(counts[first:]), _BATCH, side="right")))
        shapes = geometry.shapes[first:last]
        sizes = [len(shape.vertices) for shape in shapes]
        of_point = np.repeat(np.arange(len(shapes)), sizes)
        points = np.concatenate([shape.vertices for shape in shapes]).astype(np.float64)
        cells = np.column_stack([of_point, np.round(points / _SAME_POINT_M).astype(np.int64)])
        number = np.unique(cells, axis=0, return_inverse=True)[1].reshape(-1)
        starts = np.cumsum([0, *sizes])
        triangles = np.concatenate([s.triangles.astype(np.int64) + k for s, k in zip(shapes, starts[:-1], strict=True)])
        t = number[triangles]
        of_triangle = np.repeat(np.arange(len(shapes)), counts[first:last])
        whole = (t[:, 0] != t[:, 1]) & (t[:, 1] != t[:, 2]) & (t[:, 2] != t[:, 0])
        t, of_triangle = t[whole], of_triangle[whole]
        a, b = (np.concatenate([t[:, k] for k in order]) for order in ((0, 1, 2), (1, 2, 0)))
        # Each edge once up and once down: what is left over is open.
        up = a < b
        edge = np.where(up, a * len(number) + b, b * len(number) + a)
        edges, place = np.unique(edge, return_inverse=True)
        left = np.bincount(place.reshape(-1), np.where(up, 1.0, -1.0), len(edges))
        of_edge = np.tile(of_triangle, 3)
        out[first + np.unique(of_edge[left[place.reshape(-1)] != 0])] = True
        first = last
    return out


def _summed(owner: Ints, values: Array, count: int) -> Array:
    """Sums (count, ...) of values (k, ...) by their owners."""
    flat = values.reshape(len(values), -1)
    sums = np.zeros((count, flat.shape[1]))
    for column in range(flat.shape[1]):
        sums[:, column] = np.bincount(owner, flat[:, column], count)
    return sums.reshape(count, *values.shape[1:])


def mesh_figures(geometry: Geometry, count: int) -> MeshFigures:
    """What the triangles of a model's components (count,) come to."""
    length, area, volume = (np.full(count, np.nan) for _ in range(3))
    placed = np.flatnonzero(geometry.owner >= 0)
    if not len(placed):
        return MeshFigures(length, area, volume)
    order = placed[np.argsort(geometry.owner[placed], kind="stable")]
    counts = np.array([len(geometry.shapes[geometry.shape[k]].triangles) for k in order], dtype=np.int64)
    owners = geometry.owner[order].astype(np.int64)
    is_open = _open_shapes(geometry)[geometry.shape[order]]
    first = 0
    while first < len(order):
        last = first + max(1, int(np.searchsorted(np.cumsum(counts[first:]), _BATCH, side="right")))
        while last < len(order) and owners[last] == owners[last - 1]:  # a component is not parted
            last += 1
        some = order[first:last]
        corners = np.concatenate(
            [geometry.points_of(int(k))[geometry.shapes[geometry.shape[k]].triangles] for k in some]
        )
        mirrored = np.linalg.det(geometry.matrix[some][:, :3, :3]) < 0
        which, owner = np.unique(np.repeat(owners[first:last], counts[first:last]), return_inverse=True)
        sign = np.repeat(np.where(mirrored, -1.0, 1.0), counts[first:last])
        got = _figures(corners, owner.reshape(-1), len(which), sign)
        for into, values in zip((length, area, volume), got, strict=True):
            into[which] = values
        volume[np.unique(owners[first:last][is_open[first:last]])] = np.nan
        first = last
    return MeshFigures(length, area, volume)


def _first_largest(owner: Ints, count: int, size: Array) -> Ints:
    """The place of the first of the largest sizes (k,) of each owner (count,); owners rise, and each has some."""
    most = np.maximum.reduceat(size, np.flatnonzero(np.diff(owner, prepend=-1)))
    at = np.flatnonzero(size >= most[owner])
    first: Ints = at[np.unique(owner[at], return_index=True)[1]]
    return first


def _own_axes(owner: Ints, count: int, normal: Array, size: Array) -> Array:
    """The axes (count, 3, 3), in columns, of the box along each owner's faces.

    Square to its largest face, square to the largest of what looks across that, and square to both.
    """
    first = normal[_first_largest(owner, count, size)]
    across = normal - np.einsum("ki,ki->k", normal, first[owner])[:, None] * first[owner]
    at = _first_largest(owner, count, size * np.linalg.norm(across, axis=1))
    second = across[at]
    flat = np.linalg.norm(second, axis=1) < 1e-6  # a sheet: any way along it
    second[flat] = np.cross(first[flat], np.eye(3)[np.abs(first[flat]).argmin(axis=1)])
    second /= np.linalg.norm(second, axis=1)[:, None]
    return np.stack([first, second, np.cross(first, second)], axis=2)


def _figures(corners: Array, owner: Ints, count: int, sign: Array) -> tuple[Array, Array, Array]:
    """Length, area and volume (count,) of triangles (k, 3, 3) by their owners, each of which has some."""
    middle = corners.mean(axis=1)
    about = _summed(owner, middle, count) / np.bincount(owner, minlength=count)[:, None]
    local = corners - about[owner][:, None]
    crossed = np.cross(local[:, 1] - local[:, 0], local[:, 2] - local[:, 0])
    double = np.linalg.norm(crossed, axis=1)
    normal = crossed / np.maximum(double, 1e-300)[:, None]
    volume = (
        np.abs(_summed(owner, sign * np.einsum("ij,ij->i", local[:, 0], np.cross(local[:, 1], local[:, 2])), count)) / 6
    )
    axes = _own_axes(owner, count, normal, double)
    along = np.einsum("kci,kia->kca", local, axes[owner])
    begin = np.flatnonzero(np.diff(owner, prepend=-1))
    low, high = (f.reduceat(along, begin, axis=0) for f in (np.minimum, np.maximum))
    size = high.max(axis=1) - low.min(axis=1)
    thin = size.argmin(axis=1)
    ranked = np.sort(size, axis=1)
    across = axes[np.arange(count), :, thin]
    facing_it = np.abs(np.einsum("ki,ki->k", normal, across[owner])) > _FACING
    side = np.bincount(owner, double * facing_it, count) / 4
    looking = _summed(owner, double[:, None] * np.abs(np.einsum("ki,kia->ka", normal, axes[owner])), count)
    length = size[np.arange(count), looking.argmin(axis=1)]
    whole = np.bincount(owner, double, count) / 2
    return length, np.where(ranked[:, 0] < _FLAT * ranked[:, 1], side, whole), volume


def all_figures(parts: Sequence[MeshFigures]) -> MeshFigures:
    """The figures of several models as those of one building, in their order."""

    def joined(*each: Array) -> Array:
        return np.concatenate(each) if each else np.zeros(0)

    return MeshFigures(
        joined(*(p.length_m for p in parts)), joined(*(p.area_m2 for p in parts)), joined(*(p.volume_m3 for p in parts))
    )
