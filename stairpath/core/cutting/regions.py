"""What of a plane lies within each component: regions with holes, their area and their perimeter."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
import shapely
from manifold3d import CrossSection, FillRule

from stairpath.core.cutting.closing import GAP_M, close_up, lines_by_owner
from stairpath.core.cutting.outlines import Outlines

Array = npt.NDArray[np.float64]
Index = npt.NDArray[np.int64]
Mask = npt.NDArray[np.bool_]

LEAST_AREA_M2 = 1e-8
"""What is no larger is no region: a face of two sides, or a corner that is touched."""


@dataclass(frozen=True)
class Regions:
    """Of components that the plane goes through, by their ordinals ``owner`` (k,): area, perimeter and polygons.

    ``open_owner`` (m,) could not be closed, for a gap of ``gap_m`` (m,); they have no region.
    """

    owner: Index
    areas_m2: Array
    perimeters_m: Array
    polygons: npt.NDArray[np.object_]
    open_owner: Index
    gap_m: Array


def within(rings: Sequence[Array], by_crossing: bool = False) -> shapely.Geometry:
    """What rings enclose: where they wind round at all, or where they are crossed an odd number of times.

    Parts of one body that overlap count once; rings whose sense is not known are judged ``by_crossing``.
    """
    rule = FillRule.EvenOdd if by_crossing else FillRule.NonZero
    parts = CrossSection([ring for ring in rings if len(ring) > 2], rule).decompose()
    # Of each part the first outline goes round it and the others are its holes.
    polygons = [shapely.Polygon(outlines[0], outlines[1:]) for outlines in (part.to_polygons() for part in parts)]
    return polygons[0] if len(polygons) == 1 else shapely.MultiPolygon(polygons)


def _polygons(rings: Outlines) -> npt.NDArray[np.object_]:
    """Each closed outline as a polygon of its own."""
    counts = np.diff(rings.start)
    at = np.repeat(np.arange(len(counts)), counts + 1)
    points = np.insert(rings.points, rings.start[1:], rings.points[rings.start[:-1]], axis=0)
    made: npt.NDArray[np.object_] = shapely.polygons(shapely.linearrings(points, indices=at))
    return made


def _closed_only(outlines: Outlines, owners: Index) -> Outlines:
    """The closed outlines of components that are not among those."""
    keep = outlines.closed & ~np.isin(outlines.owner, owners) & (np.diff(outlines.start) > 2)
    counts = np.diff(outlines.start)
    return Outlines(
        outlines.points[np.repeat(keep, counts)], np.concatenate([[0], np.cumsum(counts[keep])]),
        outlines.owner[keep], outlines.closed[keep],
    )  # fmt: skip


def _same_owner(owner: Index) -> tuple[Index, Index]:
    """Each two outlines of one component; outlines are in order of their owners."""
    counts = np.unique(owner, return_counts=True)[1]
    first = np.repeat(np.cumsum(counts) - counts, counts)
    place = np.arange(len(owner)) - first
    i = np.repeat(np.arange(len(owner)), place)
    j = first[i] + (np.arange(len(i)) - np.repeat(np.cumsum(place) - place, place))
    return j.astype(np.int64), i.astype(np.int64)


def _plain(rings: Outlines, shapes: npt.NDArray[np.object_], signed: Array) -> tuple[Mask, Index]:
    """Which outlines are of components whose outlines are clear of one another, and the one that each hole is in.

    Clear are outlines apart, and holes within what they are holes of; all else is worked out from its parts.
    """
    count = len(rings)
    odd = ~shapely.is_valid(shapes) | (np.abs(signed) < LEAST_AREA_M2)
    around = np.full(count, -1, dtype=np.int64)
    i, j = _same_owner(rings.owner)
    if len(i):
        low = np.minimum.reduceat(rings.points, rings.start[:-1])
        high = np.maximum.reduceat(rings.points, rings.start[:-1])
        near = ((low[i] <= high[j]) & (low[j] <= high[i])).all(axis=1)
        i, j = i[near], j[near]
        large = np.abs(signed[i]) >= np.abs(signed[j])
        outer, inner = np.where(large, i, j), np.where(large, j, i)
        apart = shapely.disjoint(shapes[outer], shapes[inner])
        holds = shapely.contains_properly(shapes[outer], shapes[inner])
        hole = holds & (signed[outer] > 0) & (signed[inner] < 0)
        odd[outer[~apart & ~hole]] = True
        # A hole in two outlines lies in nested bodies.
        times = np.bincount(inner[hole], minlength=count)
        odd |= times > 1
        around[inner[hole]] = outer[hole]
    odd |= (signed < 0) & (around < 0)
    odd_owners = np.unique(rings.owner[odd])
    return ~np.isin(rings.owner, odd_owners), around


def _with_holes(rings: Outlines, of: Index, around: Index) -> shapely.Geometry:
    """One component's outlines ``of`` as polygons with their holes."""
    shells = [k for k in of.tolist() if around[k] < 0]
    made = [shapely.Polygon(rings[k], [rings[h] for h in of.tolist() if around[h] == k]) for k in shells]
    return made[0] if len(made) == 1 else shapely.MultiPolygon(made)


def regions(outlines: Outlines, tolerance_m: float = GAP_M) -> Regions:
    """The region of each component that is cut; see ``Regions``."""
    mended: dict[int, shapely.Geometry] = {}
    gaps: dict[int, float] = {}
    loose = lines_by_owner(outlines)
    for owner, lines in loose.items():
        closed = close_up(lines, tolerance_m)
        if closed.gap_m is not None:
            gaps[owner] = closed.gap_m
            continue
        own = np.flatnonzero((outlines.owner == owner) & outlines.closed)
        mended[owner] = within([*closed.rings, *(outlines[int(k)] for k in own)], by_crossing=True)
    rings = _closed_only(outlines, np.array(list(loose), dtype=np.int64))
    found: dict[int, tuple[float, float, shapely.Geometry]] = {}
    if len(rings):
        shapes, signed, lengths = _polygons(rings), rings.areas(), rings.lengths()
        plain, around = _plain(rings, shapes, signed)
        owners, first = np.unique(rings.owner, return_index=True)
        groups = np.split(np.arange(len(rings)), first[1:])
        areas, sides = np.add.reduceat(signed, first), np.add.reduceat(lengths, first)
        for owner, group, area, side in zip(owners.tolist(), groups, areas.tolist(), sides.tolist(), strict=True):
            if not plain[group[0]]:
                mended[owner] = within([rings[int(k)] for k in group])
            elif len(group) == 1:
                found[owner] = (area, side, shapes[group[0]])
            else:
                found[owner] = (area, side, _with_holes(rings, group, around))
    for owner, area_of in mended.items():
        found[owner] = (float(shapely.area(area_of)), float(shapely.length(area_of)), area_of)
    kept = sorted(owner for owner, (area, _, _) in found.items() if area > LEAST_AREA_M2)
    polygons = np.empty(len(kept), dtype=object)
    polygons[:] = [found[owner][2] for owner in kept]
    return Regions(
        np.array(kept, dtype=np.int64),
        np.array([found[o][0] for o in kept], dtype=np.float64),
        np.array([found[o][1] for o in kept], dtype=np.float64),
        polygons,
        np.array(sorted(gaps), dtype=np.int64),
        np.array([gaps[o] for o in sorted(gaps)], dtype=np.float64),
    )
