"""Room beside, above and under a point, against the same geometry by trimesh and shapely."""

import heapq

import numpy as np
import pytest
import shapely
import trimesh
from hypothesis import given
from hypothesis import strategies as st

from stairpath.core.walking.bodies import BODIES
from stairpath.core.walking.clearance import EVERYWHERE, NOBODY, Space
from stairpath.core.walking.floors import floors_of
from stairpath.core.walking.grid import Grid
from stairpath.core.walking.loops.heap import pop, push
from stairpath.core.walking.solids import Solids

LEVEL = (0, 0, 1)


def space_of(triangles) -> Space:
    return Space(Solids(np.asarray(triangles, float).reshape(-1, 3, 3), np.arange(len(triangles), dtype=np.int32)))


def between(triangle, low, high, *planes):
    """The part of a triangle between two heights and above planes of origin and normal, on plan."""
    mesh = trimesh.Trimesh(triangle, [[0, 1, 2]], process=False)
    for origin, normal in (((0, 0, low), LEVEL), ((0, 0, high), (0, 0, -1)), *planes):
        mesh = trimesh.intersections.slice_mesh_plane(mesh, normal, origin)
        if not len(mesh.faces):
            break
    # Not their union, which may lose one of two slivers that share an edge.
    return shapely.GeometryCollection([shapely.MultiPoint(face[:, :2]).convex_hull for face in mesh.triangles])


def gap_to(part, point):
    """How far a point is from a part on plan, infinitely from nothing."""
    return np.inf if part.is_empty else shapely.distance(part, point)


near = st.floats(-3, 3).map(lambda v: round(v, 2))
corner = st.tuples(near, near, st.floats(0, 3).map(lambda v: round(v, 2)))
triangle = st.tuples(corner, corner, corner).filter(
    lambda t: np.linalg.norm(np.cross(np.subtract(t[1], t[0]), np.subtract(t[2], t[0]))) > 0.05
)
triangles = st.lists(triangle, min_size=1, max_size=6)


@given(triangles, near, near)
def test_the_nearest_thing_between_two_heights_is_the_nearest_of_all_cut_to_them(given_triangles, x, y):
    low, high, reach = 0.31, 1.81, 2.5
    gap, whose, foot = space_of(given_triangles).nearest(x, y, low, high, reach)
    point = shapely.Point(x, y)
    gaps = [gap_to(between(t, low, high), point) for t in given_triangles]
    if min(gaps) >= reach - 1e-6:
        assert whose == NOBODY or gap == pytest.approx(reach, abs=1e-5)
        return
    assert gap == pytest.approx(min(gaps), abs=1e-6)
    assert gaps[whose] == pytest.approx(min(gaps), abs=1e-6)
    assert np.hypot(foot[0] - x, foot[1] - y) == pytest.approx(gap, abs=1e-6)


@given(triangles, st.floats(0, 2 * np.pi))
def test_what_does_not_lie_on_the_asked_side_is_left_out(given_triangles, angle):
    a, b = np.cos(angle), np.sin(angle)
    gap, whose, _ = space_of(given_triangles).nearest(0, 0, 0.5, 1.5, 2.0, np.array([[a, b, 0.0]]))
    # What lies in the very edge of the side may count or not.
    nearest = []
    for inside in (-1e-6, 1e-6):
        edge = ((inside * a, inside * b, 0), (a, b, 0))
        nearest.append(min(gap_to(between(t, 0.5, 1.5, edge), shapely.Point(0, 0)) for t in given_triangles))
    assert min(nearest[0], 2.0) - 1e-3 <= (gap if whose != NOBODY else 2.0) <= min(nearest[1], 2.0) + 1e-3


@given(triangles, near, near)
def test_the_lowest_over_a_disc_is_lower_than_all_that_is_seen_there(given_triangles, x, y):
    low, high, radius = 0.4, 2.6, 0.5
    height, whose = space_of(given_triangles).lowest(x, y, low, high, radius)
    share = np.linspace(0, 1, 81)
    s, r = (v.ravel() for v in np.meshgrid(share, share))
    s, r = s[s + r <= 1], r[s + r <= 1]
    seen = high
    for t in given_triangles:
        a, b, c = np.array(t)
        points = a + np.outer(s, b - a) + np.outer(r, c - a)
        over = np.hypot(points[:, 0] - x, points[:, 1] - y) < radius
        over &= points[:, 2] > low
        seen = min(seen, points[over, 2].min(initial=high))
    assert height <= seen + 1e-9
    if whose != NOBODY:
        # It is found on that very triangle: a little higher, the disc meets it.
        part = between(given_triangles[whose], height - 1e-6, height + 1e-3)
        if part.is_empty:  # slicing loses bands as thin as that of a triangle that is a line on plan
            a, b, c = np.array(given_triangles[whose])
            points = a + np.outer(s, b - a) + np.outer(r, c - a)
            near_it = points[np.abs(points[:, 2] - height) < 0.1]
            assert np.hypot(near_it[:, 0] - x, near_it[:, 1] - y).min() <= radius + 0.2
        else:
            assert shapely.distance(part, shapely.Point(x, y)) <= radius + 1e-3


def box(low, high):
    low, high = np.array(low, float), np.array(high, float)
    return trimesh.creation.box(high - low, trimesh.transformations.translation_matrix((low + high) / 2))


def test_one_treads_on_the_highest_upward_face_within_reach():
    parts = [box((0, 0, -0.2), (4, 4, 0)), box((1, 1, 0), (2, 2, 0.15)), box((3, 0, 1), (4, 4, 1.2))]
    component = np.repeat(np.arange(3), 12).astype(np.int32)
    space = Space(Solids(np.concatenate([p.triangles for p in parts]), component))
    points = np.array([[0.51, 0.52, 0], [1.51, 1.52, 0], [3.51, 2.02, 0], [3.51, 2.02, 1.1], [9, 9, 0]])
    heights, whose = space.trodden_by(points, 0.3, 0.3)
    assert heights == pytest.approx([0, 0.15, 0, 1.2, np.nan], nan_ok=True)
    assert whose.tolist() == [0, 1, 0, 2, NOBODY]


def test_a_way_between_two_walls_is_as_wide_as_it_is_whichever_way_one_goes():
    # Walls 0.72 m apart, turned by 30 degrees.
    turn = trimesh.transformations.rotation_matrix(np.radians(30), LEVEL)
    walls = [box((-3, 0.36, 0), (3, 0.5, 2.5)), box((-3, -0.5, 0), (3, -0.36, 2.5))]
    for wall in walls:
        wall.apply_transform(turn)
    space = Space(Solids(np.concatenate([w.triangles for w in walls]), np.repeat([0, 1], 12).astype(np.int32)))
    ways = np.radians([30, 25, 40, 210])
    left = np.column_stack([-np.sin(ways), np.cos(ways)])
    # Beside the middle, too: the nearer wall first, then across.
    for aside in (0.0, 0.1):
        at = np.tile([-0.5 * aside, np.cos(np.radians(30)) * aside, 0.0], (len(ways), 1))
        widths, sides = space.widths(at, left, np.zeros(len(ways)), BODIES["standing"], 2.0, 2.0)
        assert widths == pytest.approx([0.72] * 4, abs=1e-6)
        assert {frozenset(pair) for pair in sides.tolist()} == {frozenset({0, 1})}


def test_a_gap_wider_than_asked_for_is_not_measured():
    walls = [box((-3, 1.0, 0), (3, 1.2, 2.5)), box((-3, -1.2, 0), (3, -1.0, 2.5))]
    space = Space(Solids(np.concatenate([w.triangles for w in walls]), np.repeat([0, 1], 12).astype(np.int32)))
    widths, _ = space.widths(np.zeros((1, 3)), np.array([[0.0, 1.0]]), np.zeros(1), BODIES["standing"], 1.5, 1.5)
    assert np.isinf(widths).all()


def test_nothing_is_near_where_nothing_is():
    space = space_of([])
    assert space.nearest(0, 0, 0, 2, 1.0, EVERYWHERE)[:2] == (1.0, NOBODY)
    assert space.lowest(0, 0, 0, 2.0, 0.3) == (2.0, NOBODY)
    assert len(space.around((0, 0), 3.2, 0.5)) == 0


def test_around_a_tile_is_what_lies_over_it_and_its_margin():
    places = [(0.5, 0.5), (2.9, 0.5), (3.6, 0.5), (3.9, 0.5), (-0.2, -0.2), (9, 9)]
    space = space_of([[(x, y, 0), (x + 0.05, y, 0), (x, y + 0.05, 1)] for x, y in places])
    assert space.around((0, 0), 3.2, 0.5).tolist() == [0, 1, 2, 4]


@given(st.lists(st.floats(0, 1e6), min_size=1, max_size=300))
def test_the_heap_gives_the_least_first_however_it_was_filled(keys):
    heap_keys, heap_nodes, size = np.empty(2), np.empty(2, dtype=np.int64), 0
    reference: list[float] = []
    for node, key in enumerate(keys):
        heap_keys, heap_nodes, size = push(heap_keys, heap_nodes, size, key, node)
        heapq.heappush(reference, key)
        if node % 3 == 2:
            node_out, key_out, size = pop(heap_keys, heap_nodes, size)
            assert key_out == heapq.heappop(reference) == keys[node_out]
    while size:
        _, key_out, size = pop(heap_keys, heap_nodes, size)
        assert key_out == heapq.heappop(reference)
    assert not reference


def test_floors_are_upward_faces_under_the_sky_or_a_ceiling_and_in_no_body():
    parts = [
        box((0, 0, -0.3), (4, 4, 0)),  # a slab
        box((1, 1, -0.1), (2, 2, 0.8)),  # a plinth that stands in it
        box((0, 3, 0.5), (4, 4, 0.6)),  # a shelf, too low to be under
        box((2.5, 0, 2.4), (4, 2, 2.6)),  # a ceiling
    ]
    component = np.repeat(np.arange(4), 12).astype(np.int32)
    grid = Grid(0.1, (0, 0), 40, 40)
    floors = floors_of(Solids(np.concatenate([p.triangles for p in parts]), component), grid)

    def at(x, y):
        cell = grid.cell_at(x, y)
        some = slice(floors.start[cell], floors.start[cell + 1])
        return floors.height_m[some].round(3).tolist(), floors.above_m[some].round(3).tolist()

    assert at(0.55, 0.55) == ([0.0], [np.inf])
    assert at(1.55, 1.55) == ([0.8], [np.inf])  # not the slab within the plinth
    assert at(0.55, 3.55) == ([0.6], [np.inf])  # not the slab under the shelf
    assert at(3.05, 1.05) == ([0.0, 2.6], [2.4, np.inf])
