"""What interferes between groups: overlaps, what comes too near, what is left out and why, neighbours as one."""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from stairpath.core.measuring.check import pack_known, unpack_known
from stairpath.core.measuring.exclusions import Kin, NoSuchRuleError, codes_of, why_left_out
from stairpath.core.measuring.interference import interference, near_pairs
from stairpath.core.measuring.prints import prints_of
from stairpath.core.measuring.things import Things
from tests.core.solids import box, placed


def looked(meshes, a, b, kin=None, **wishes):
    """Interference between two groups of meshes, by their places in the list."""
    things = Things([placed(*meshes)], np.zeros(3))
    one, other = (np.isin(np.arange(len(meshes)), group) for group in (a, b))
    rows = kin or [Kin("M", str(k), "IfcBuildingElementProxy") for k in range(len(meshes))]
    return interference(things, rows, one, other, **wishes)


BEAM = box([0, 0, 3], [8, 0.3, 3.5])


def test_an_overlap_has_its_depth_volume_and_place():
    found = looked([BEAM, box([2, -1, 3.3], [2.4, 1, 3.7]), box([6, -1, 4], [6.4, 1, 4.4])], [0], [1, 2])
    assert found.checked == 1
    (pair,) = found.pairs
    assert (pair.a, pair.b, pair.kind, pair.left_out) == (0, 1, "overlap", None)
    assert pair.depth_m == pytest.approx(0.2, abs=1e-5)
    assert pair.volume_m3 == pytest.approx(0.4 * 0.3 * 0.2, rel=1e-5)
    assert pair.at_m == pytest.approx((2.2, 0.15, 3.4), abs=1e-5)
    assert [f.components for f in found.findings] == [(0, 1)]


def test_what_comes_too_near_is_told_with_its_distance():
    tray = box([0, 0.312, 3], [8, 0.4, 3.1])
    assert looked([BEAM, tray], [0], [1]).pairs == ()
    (pair,) = looked([BEAM, tray], [0], [1], clearance_m=0.05).pairs
    assert pair.kind == "clearance"
    assert pair.distance_m == pytest.approx(0.012, abs=1e-6)
    assert pair.depth_m == 0
    assert pair.at_m[1] == pytest.approx(0.306, abs=1e-6)


@pytest.mark.parametrize("gap", [-0.0008, 0.0, 0.0008])
def test_what_only_touches_is_left_out_and_says_so(gap):
    (pair,) = looked([BEAM, box([1, 0, 3.5 + gap], [2, 0.3, 4])], [0], [1]).pairs
    assert pair.left_out == "they only touch, within 1 mm"
    found = looked([BEAM, box([1, 0, 3.5 - 0.002], [2, 0.3, 4])], [0], [1])
    assert [p.left_out for p in found.pairs] == [None]
    assert looked([BEAM, box([1, 0, 3.5 - 0.002], [2, 0.3, 4])], [0], [1], touch_m=0.005).findings == ()


def test_pairs_that_belong_together_are_left_out_by_rules_that_can_be_switched_off():
    wall, door = Kin("ARC", "w", "IfcWall"), Kin("ARC", "d", "IfcDoor", hosted_in="w")
    meshes = [box([0, 0, 0], [5, 0.2, 3]), box([1, 0, 0], [2, 0.2, 2])]
    (pair,) = looked(meshes, [0], [1], [wall, door]).pairs
    assert pair.left_out == "one is hosted in the other"
    assert looked(meshes, [0], [1], [wall, door], codes=codes_of("assembly")).findings
    assert why_left_out(wall, Kin("STR", "d", "IfcDoor", hosted_in="w")) is None
    step = Kin("ARC", "s", "IfcMember", part_of="stair")
    assert why_left_out(step, Kin("ARC", "t", "IfcRailing", part_of="stair")) == "both are parts of one assembly"
    assert why_left_out(step, Kin("ARC", "stair", "IfcStair")) == "both are parts of one assembly"
    pipe, bend = Kin("WTR", "p", "IfcPipeSegment", ("Cold",)), Kin("WTR", "f", "IfcPipeFitting", ("Cold", "Hot"))
    assert why_left_out(pipe, bend) == "a fitting and what it joins, of one system"
    assert why_left_out(Kin("WTR", "p", "IfcPipeSegment", ("Waste",)), bend) is None
    assert why_left_out(pipe, Kin("WTR", "q", "IfcPipeSegment", ("Cold",))) is None
    assert codes_of("none") == frozenset()
    with pytest.raises(NoSuchRuleError, match="doors leaves no pairs out; give some of hosted, assembly, fitting"):
        codes_of("hosted, doors")


def test_neighbours_that_share_a_component_are_one_finding_and_the_deepest_comes_first():
    ducts = [box([x, -1, 3.3], [x + 0.2, 1, 3.7]) for x in (1.0, 1.5, 6.0)]
    deep = box([4, -1, 2.9], [4.2, 1, 3.6])
    found = looked([BEAM, *ducts, deep], [0], [1, 2, 3, 4])
    assert [sorted(f.components) for f in found.findings] == [[0, 4], [0, 1, 2], [0, 3]]
    together = found.findings[1]
    assert together.at_m[0] == pytest.approx((1.1 + 1.6) / 2, abs=1e-5)
    assert len(looked([BEAM, *ducts], [0], [1, 2, 3], together_m=0.2).findings) == 3


def test_a_group_against_itself_has_each_pair_once():
    cubes = [box([x, 0, 0], [x + 1, 1, 1]) for x in (0.0, 0.5, 4.0)]
    found = looked(cubes, [0, 1, 2], [0, 1, 2])
    assert [(p.a, p.b) for p in found.pairs] == [(0, 1)]
    assert [(p.a, p.b) for p in looked(cubes, [0, 1], [1, 2]).pairs] == [(0, 1)]
    assert [(p.a, p.b) for p in looked(cubes, [1], [0]).pairs] == [(1, 0)]


def test_it_says_how_far_it_is_and_can_be_stopped():
    class Stopped(Exception):
        pass

    def stop(share, text):
        raise Stopped

    with pytest.raises(Stopped):
        looked([BEAM, box([2, -1, 3.3], [2.4, 1, 3.7])], [0], [1], on_progress=stop)


@settings(max_examples=30)
@given(st.lists(st.tuples(*[st.floats(0, 6)] * 3), min_size=2, max_size=12), st.floats(0, 0.5))
def test_near_pairs_are_those_whose_boxes_come_near(places, within):
    low = np.array(places)
    bounds = np.stack([low, low + 1], axis=1)
    a = np.arange(len(low)) % 2 == 0
    gap = np.maximum(low[:, None] - low[None] - 1, low[None] - low[:, None] - 1).max(axis=2)
    clear = np.abs(gap - within) > 1e-9
    wanted = {(i, j) for i in np.flatnonzero(a) for j in np.flatnonzero(~a) if gap[i, j] <= within and clear[i, j]}
    found = {(i, j) for i, j in near_pairs(bounds, a, ~a, within).tolist() if clear[i, j]}
    assert found == wanted


def test_what_did_not_change_is_not_measured_again_and_comes_to_the_same():
    meshes = [BEAM, box([2, -1, 3.3], [2.4, 1, 3.7]), box([6, -1, 3.49], [6.4, 1, 4.4]), box([4, 0, 3.5], [5, 1, 4])]
    kin = [Kin("M", str(k), "IfcBuildingElementProxy") for k in range(len(meshes))]

    def run(those, known=None):
        parts = [placed(*those)]
        one, other = np.array([True, False, False, False]), np.array([False, True, True, True])
        return interference(Things(parts, np.zeros(3)), kin, one, other, 0.05, prints=prints_of(parts), known=known)

    first = run(meshes)
    assert (first.checked, first.anew) == (3, 3)
    again = run(meshes, unpack_known(pack_known(first.known, 0.05, 0.001), 0.05, 0.001))
    assert again.anew == 0
    assert (again.pairs, again.findings) == (first.pairs, first.findings)
    moved = [*meshes[:2], box([6, -1, 3.45], [6.4, 1, 4.4]), meshes[3]]
    after = run(moved, unpack_known(pack_known(first.known, 0.05, 0.001), 0.05, 0.001))
    assert after.anew == 1
    assert after.pairs == run(moved).pairs
    # Other limits say something else of the same pairs.
    assert unpack_known(pack_known(first.known, 0.05, 0.001), 0.06, 0.001) == {}


def test_a_fingerprint_is_that_of_shape_and_place_whatever_the_order():
    meshes = [BEAM, box([0, 0, 0], [1, 1, 1])]
    one, other = prints_of([placed(*meshes)]), prints_of([placed(*reversed(meshes))])
    assert one.tolist() == other[::-1].tolist()
    shifted = np.eye(4)
    shifted[0, 3] = 0.001
    assert not set(prints_of([placed(*meshes, to=shifted)]).tolist()) & set(one.tolist())
    assert prints_of([]).shape == (0,)
