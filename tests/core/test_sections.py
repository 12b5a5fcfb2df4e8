"""Sections of bodies against closed form: regions with holes, area, perimeter; open ones said, never guessed."""

import math

import numpy as np
import pytest
import shapely
import trimesh
from hypothesis import assume, given
from hypothesis import strategies as st

from stairpath.core.cutting.cut import cut, rings_of
from stairpath.core.geometry.plane import NotAPlaneError, level_plane, plane, through_points, upright_plane
from stairpath.core.measuring.volume import volume_above_m3, volume_m3
from tests.core.solids import (
    bend,
    box,
    extruded,
    i_profile,
    joined,
    placed,
    regular_area,
    regular_length,
)

BOX = trimesh.creation.box((4, 2, 3))
CYLINDER = trimesh.creation.cylinder(0.5, 4.0, sections=64)
PIPE = trimesh.creation.annulus(0.4, 0.5, 4.0, sections=64)
TILT = math.radians(30)
OBLIQUE = (math.sin(TILT), 0.0, math.cos(TILT))
NEAR = 1e-6


def one(mesh, at=(0.0, 0.0, 0.0), normal=(0.0, 0.0, 1.0)):
    """The only region that a plane has in a body: area, perimeter and polygons."""
    (part,) = cut([placed(mesh)], plane(at, normal)).parts
    assert not len(part.open_owner)
    assert list(part.owner) == [0]
    return float(part.areas_m2[0]), float(part.perimeters_m[0]), part.polygons[0]


def test_a_box_at_right_and_at_oblique_angles():
    assert one(BOX)[:2] == pytest.approx((8, 12))
    # Tilted about y the section is as wide as before, and longer by the cosine.
    assert one(BOX, normal=OBLIQUE)[:2] == pytest.approx((8 / math.cos(TILT), 2 * (4 / math.cos(TILT) + 2)), rel=NEAR)
    # Square to a corner's diagonal a cube is cut in a regular hexagon.
    area, around, polygon = one(trimesh.creation.box((2, 2, 2)), normal=(1, 1, 1))
    assert area == pytest.approx(3 * math.sqrt(3), rel=NEAR)
    assert around == pytest.approx(6 * math.sqrt(2), rel=NEAR)
    assert len(polygon.exterior.coords) == 7


def test_a_cylinder_is_cut_in_a_circle_and_an_ellipse_of_its_facets():
    area, around, _ = one(CYLINDER)
    assert area == pytest.approx(regular_area(64, 0.5), rel=NEAR)
    assert around == pytest.approx(regular_length(64, 0.5), rel=NEAR)
    assert area == pytest.approx(math.pi / 4, rel=2e-3)  # the facets' own error
    assert one(CYLINDER, normal=OBLIQUE)[0] == pytest.approx(regular_area(64, 0.5) / math.cos(TILT), rel=NEAR)
    # Along its axis: a rectangle.
    assert one(CYLINDER, normal=(0, 1, 0))[:2] == pytest.approx((4, 10), rel=NEAR)


def test_a_hollow_pipe_has_a_hole():
    area, around, polygon = one(PIPE)
    assert area == pytest.approx(regular_area(64, 0.5) - regular_area(64, 0.4), rel=NEAR)
    assert around == pytest.approx(regular_length(64, 0.5) + regular_length(64, 0.4), rel=NEAR)
    assert len(polygon.interiors) == 1
    assert one(PIPE, normal=OBLIQUE)[0] == pytest.approx(area / math.cos(TILT), rel=NEAR)
    # Along its axis: two bars.
    area, around, polygon = one(PIPE, normal=(0, 1, 0))
    assert area == pytest.approx(2 * 0.1 * 4, rel=NEAR)
    assert around == pytest.approx(2 * (2 * 4 + 0.2), rel=NEAR)
    assert len(polygon.geoms) == 2
    assert {hole for hole, _ in rings_of(polygon)} == {False}


def test_a_cone_shrinks_with_its_height():
    cone = trimesh.creation.cone(1.0, 2.0, sections=64)
    for height in (0.25, 0.5, 1.5):
        radius = 1.0 - height / 2.0
        area, around, _ = one(cone, at=(0, 0, height))
        assert area == pytest.approx(regular_area(64, radius), rel=1e-5)
        assert around == pytest.approx(regular_length(64, radius), rel=1e-5)
    # Upright through its tip: a triangle.
    assert one(cone, normal=(0, 1, 0))[:2] == pytest.approx((2, 2 + 2 * math.sqrt(5)), rel=1e-5)


def test_a_bend_is_cut_in_its_tube_and_level_in_a_quarter_ring():
    elbow = bend(1.0, 0.1, sections=32, steps=24)
    # At 45 degrees the plane meets a ring of the mesh.
    assert one(elbow, normal=(-1, 1, 0))[0] == pytest.approx(regular_area(32, 0.1), rel=1e-5)
    area = one(elbow)[0]
    mesh_share = 24 / 2 * math.sin(math.pi / 48)  # a quarter circle of 24 chords
    assert area == pytest.approx((1.1**2 - 0.9**2) * mesh_share, rel=1e-5)
    assert area == pytest.approx(math.pi / 4 * (1.1**2 - 0.9**2), rel=2e-3)


def test_a_wall_with_a_window_is_cut_in_two_and_around_it():
    front = shapely.box(0, 0, 6, 3).difference(shapely.box(2, 1, 3.5, 2.2))
    wall = extruded(front, 0.3)  # stands along z here, as a profile is drawn up
    # Across the window: the wall on either side of it.
    area, around, region = one(wall, at=(0, 1.5, 0), normal=(0, 1, 0))
    assert area == pytest.approx((6 - 1.5) * 0.3, rel=NEAR)
    assert around == pytest.approx(2 * (2 + 0.3) + 2 * (2.5 + 0.3), rel=NEAR)
    assert len(region.geoms) == 2
    # Within the wall: its face with a hole.
    area, around, region = one(wall, at=(0, 0, 0.1))
    assert area == pytest.approx(18 - 1.5 * 1.2, rel=NEAR)
    assert around == pytest.approx(18 + 2 * (1.5 + 1.2), rel=NEAR)
    assert [hole for hole, _ in rings_of(region)] == [False, True]


def test_an_i_beam():
    profile = i_profile(0.3, 0.15, 0.007, 0.011)
    beam = extruded(profile, 5.0)
    assert one(beam, at=(0, 0, 2))[:2] == pytest.approx((profile.area, profile.length), rel=1e-5)
    assert one(beam, at=(0, 0, 2), normal=OBLIQUE)[0] == pytest.approx(profile.area / math.cos(TILT), rel=1e-5)
    # Through the flanges alone, beside the web.
    assert one(beam, at=(0.05, 0, 0), normal=(1, 0, 0))[0] == pytest.approx(2 * 0.011 * 5, rel=1e-5)


def test_parts_of_one_component_that_overlap_touch_or_lie_in_one_another_count_once():
    overlapping = joined(box([0, 0, 0], [2, 2, 2]), box([1, 1, 0], [3, 3, 2]))
    assert one(overlapping, at=(0, 0, 1))[:2] == pytest.approx((7, 12))
    touching = joined(box([0, 0, 0], [2, 2, 2]), box([2, 0, 0], [4, 2, 2]))
    assert one(touching, at=(0, 0, 1))[:2] == pytest.approx((8, 12))
    nested = joined(box([0, 0, 0], [4, 4, 4]), box([1, 1, 0], [2, 2, 4]))
    assert one(nested, at=(0, 0, 1))[:2] == pytest.approx((16, 16))
    hollow = joined(PIPE, trimesh.creation.cylinder(0.2, 4.0, sections=64))
    area, _, region = one(hollow)
    wanted = regular_area(64, 0.5) - regular_area(64, 0.4) + regular_area(64, 0.2)
    assert area == pytest.approx(wanted, rel=NEAR)
    assert sorted(hole for hole, _ in rings_of(region)) == [False, False, True]


def test_faces_turned_the_wrong_way_change_nothing():
    for every in (2, 3, 5):
        faces = PIPE.faces.copy()
        faces[::every] = faces[::every, ::-1]
        turned = trimesh.Trimesh(PIPE.vertices, faces, process=False)
        assert one(turned)[:2] == pytest.approx(one(PIPE)[:2], rel=NEAR)
    inside_out = trimesh.Trimesh(BOX.vertices, BOX.faces[:, ::-1], process=False)
    assert one(inside_out)[:2] == pytest.approx((8, 12))


def slotted(gap_m: float) -> trimesh.Trimesh:
    """A box one of whose sides does not reach the corner."""
    mesh = trimesh.Trimesh(BOX.vertices, BOX.faces, process=False)
    corners = mesh.triangles.copy()
    side = np.all(np.isclose(corners[:, :, 0], 2.0), axis=1)
    corners[side] = np.where(
        np.isclose(corners[side], [2.0, 1.0, np.inf]) & np.array([False, True, False]), 1.0 - gap_m, corners[side]
    )
    return trimesh.Trimesh(corners.reshape(-1, 3), np.arange(3 * len(corners)).reshape(-1, 3), process=False)


def test_a_small_gap_is_closed_and_a_wide_one_is_said():
    area, _, _ = one(slotted(0.001))
    assert area == pytest.approx(8, rel=1e-3)
    (part,) = cut([placed(slotted(0.02))], level_plane(0)).parts
    assert not len(part.owner)
    assert list(part.open_owner) == [0]
    assert part.gap_m == pytest.approx([0.02], rel=1e-3)


def test_a_sheet_is_open_by_all_of_its_length_and_hides_no_neighbour():
    sheet = trimesh.Trimesh([[9, 0, 0], [13, 0, 0], [13, 0, 3], [9, 0, 3]], [[0, 1, 2], [0, 2, 3]])
    (part,) = cut([placed(sheet, BOX)], level_plane(1)).parts
    assert list(part.open_owner) == [0]
    assert part.gap_m == pytest.approx([4])
    assert list(part.owner) == [1]


def test_what_is_not_meant_or_not_met_is_not_cut():
    two = placed(box([0, 0, 0], [1, 1, 1]), box([5, 0, 0], [6, 1, 1]))
    assert list(cut([two], plane((0.5, 0, 0), (1, 0, 0))).parts[0].owner) == [0]
    assert not len(cut([two], plane((3, 0, 0), (1, 0, 0))).parts[0].owner)
    assert not len(cut([two], level_plane(1.5)).parts[0].owner)


def test_a_body_far_from_zero_is_cut_as_one_at_zero():
    to = np.eye(4)
    to[:3, 3] = (412_300.25, 88_650.5, 12.0)
    (part,) = cut([placed(PIPE, to=to)], plane((412_300.25, 88_650.5, 12.0), OBLIQUE)).parts
    assert part.areas_m2 == pytest.approx([one(PIPE, normal=OBLIQUE)[0]], rel=1e-6)
    assert part.polygons[0].centroid.coords[0] == pytest.approx((0, 0), abs=1e-6)


@pytest.mark.parametrize("side", ["top", "bottom"])
def test_a_plane_in_a_face_gives_the_face_or_nothing(side):
    turned = trimesh.creation.box((4, 2, 3), trimesh.transformations.rotation_matrix(0.3, [1, 1, 0]))
    normal = trimesh.transformations.rotation_matrix(0.3, [1, 1, 0])[:3, 2]
    at = normal * (1.5 if side == "top" else -1.5)
    (part,) = cut([placed(turned)], plane(tuple(at), tuple(normal))).parts
    assert not len(part.open_owner)
    assert [round(a, 5) for a in part.areas_m2] in ([8.0], [])


def test_rings_lie_in_the_plane_and_on_the_body():
    at, normal = (0.1, 0.2, 0.3), (0.3, -0.5, 0.9)
    cut_at = plane(at, normal)
    _, _, region = one(BOX, at, normal)
    for _, ring in rings_of(region):
        points = cut_at.placed(ring)
        assert cut_at.heights(points) == pytest.approx(0, abs=1e-9)
        assert np.abs(np.abs(points) / [2, 1, 1.5]).max(axis=1) == pytest.approx(1, abs=1e-5)


def test_planes():
    seen = upright_plane((3.0, 4.0), 90.0)
    assert seen.normal == pytest.approx((-1, 0, 0))
    assert seen.axes[0] == pytest.approx([0, -1, 0])  # looking east, south is to the right
    assert level_plane(2.0).axes == pytest.approx(np.eye(3))
    assert np.linalg.det(plane((0, 0, 0), (0.2, 0.7, -0.4)).axes) == pytest.approx(1)
    assert through_points((0, 0, 2), (1, 0, 2), (0, -1, 2)).normal == pytest.approx((0, 0, 1))
    with pytest.raises(NotAPlaneError, match="no length"):
        plane((0, 0, 0), (0, 0, 0))
    with pytest.raises(NotAPlaneError, match="one line"):
        through_points((0, 0, 0), (1, 1, 1), (3, 3, 3))
    with pytest.raises(NotAPlaneError, match="finite"):
        plane((0, math.nan, 0), (0, 0, 1))


BODIES = [BOX, CYLINDER, PIPE, bend(1.0, 0.2), extruded(i_profile(0.3, 0.15, 0.02, 0.02), 2.0)]
unit = st.floats(-1, 1)


@given(st.sampled_from(BODIES), st.tuples(unit, unit, unit), st.floats(-1.5, 1.5))
def test_both_sides_of_a_cut_body_are_the_whole(mesh, normal, offset):
    assume(np.linalg.norm(normal) > 0.1)
    through = plane(tuple(np.array(normal) / np.linalg.norm(normal) * offset), normal)
    other = plane(through.point_m, tuple(-np.array(through.normal)))
    corners = mesh.triangles
    above, below = volume_above_m3(corners, through), volume_above_m3(corners, other)
    assert above + below == pytest.approx(abs(mesh.volume), rel=1e-9, abs=1e-12)
    assert volume_m3(corners) == pytest.approx(abs(mesh.volume), rel=1e-9)


@given(st.tuples(unit, unit, unit), st.floats(-0.4, 0.4))
def test_the_volume_above_grows_by_the_area_as_the_plane_sinks(normal, offset):
    assume(np.linalg.norm(normal) > 0.1)
    unit_normal = np.array(normal) / np.linalg.norm(normal)
    step = 1e-4
    low, high = (plane(tuple(unit_normal * (offset + s)), normal) for s in (-step, step))
    grown = volume_above_m3(BOX.triangles, low) - volume_above_m3(BOX.triangles, high)
    (part,) = cut([placed(BOX)], plane(tuple(unit_normal * offset), normal)).parts
    assert grown / (2 * step) == pytest.approx(float(part.areas_m2.sum()), rel=1e-3)
