"""What stands in the way: by class, by alternative, and of a door only its frame."""

import numpy as np
import pytest
import trimesh

from stairpath.core.federation.federate import federate
from stairpath.core.federation.outline import outline
from stairpath.core.reading.model import Shape
from stairpath.core.reading.read import read_model
from stairpath.core.walking.solids import Rule, building_axes, frame_of, solids_of
from tests.samples import Sample


def federated(**files: Sample):
    return federate([outline(read_model(f"{name}.ifc", file.content())) for name, file in files.items()])


def in_the_way(federation, rule=None) -> set[str]:
    """The classes and models of what is solid."""
    of = [(m.outline.name, cls) for m in federation.models for cls in m.outline.classes]
    return {word for c in solids_of(federation, rule).component for word in of[c]}


@pytest.fixture
def house() -> Sample:
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    for k, cls in enumerate(
        ("IfcWall", "IfcSlab", "IfcStairFlight", "IfcRailing", "IfcFurniture", "IfcVirtualElement")
    ):
        sample.box(storey, (3 * k, 0, 0), (1, 1, 1), cls, Name=cls)
    sample.room(storey, "0.01", "Room", (0, 0, 0), (20, 9, 3))
    return sample


def test_everything_solid_counts_but_rooms_and_what_is_not_there(house):
    assert in_the_way(federated(one=house)) == {
        "one",
        "IfcWall",
        "IfcSlab",
        "IfcStairFlight",
        "IfcRailing",
        "IfcFurniture",
    }


def test_a_class_is_let_through_by_the_rule(house):
    rule = Rule(frozenset({"IfcFurniture", "IfcRailing"}))
    assert in_the_way(federated(one=house), rule) == {
        "one",
        "IfcWall",
        "IfcSlab",
        "IfcStairFlight",
        "IfcVirtualElement",
    }


def test_alternatives_that_do_not_stand_are_not_in_the_way(house):
    stairs = {}
    for option in "AB":
        stair = Sample()
        stair.box(stair.storey("Level 00", 0.0), (0, 5, 0), (1, 1, 1), Name=f"Stair {option}")
        stairs[f"T-ARC-S1-ALT-{option}"] = stair
    standing = in_the_way(federated(base=house, **stairs))
    assert "T-ARC-S1-ALT-A" in standing
    assert "T-ARC-S1-ALT-B" not in standing


def test_nothing_solid_is_an_empty_space():
    sample = Sample()
    sample.room(sample.storey("Level 00", 0.0), "0.01", "Room", (0, 0, 0), (2, 2, 3))
    found = solids_of(federated(one=sample))
    assert found.triangles.shape == (0, 3, 3)
    assert len(found.component) == 0


def test_the_building_s_axes_run_along_its_grid_and_stay_when_a_wing_is_added():
    def wing(x: float) -> Sample:
        sample = Sample()
        sample.move_site((412_300, 88_600, 0), -17)
        sample.grid({"1": 0.0, "2": 8.0}, {"A": 0.0, "B": 8.0})
        sample.box(sample.storey("Level 00", 0.0), (x, 0, 0), (4, 0.2, 3))
        return sample

    one = building_axes(federated(one=wing(0)))
    both = building_axes(federated(one=wing(0), two=wing(40)))
    assert one == both
    assert one.origin_m[2] == 0
    triangles = solids_of(federated(one=wing(0))).triangles
    # Along its own axes the wall is a box: two values of each coordinate.
    assert [len(np.unique(triangles[:, :, k].round(4))) for k in range(3)] == [2, 2, 2]


def shape(*parts: trimesh.Trimesh) -> tuple[Shape, np.ndarray]:
    """A door's shape, and which part each triangle is of."""
    mesh = trimesh.util.concatenate(parts)
    part = np.repeat(np.arange(len(parts)), [len(p.faces) for p in parts])
    triangles = np.asarray(mesh.faces, np.int32)
    return Shape.bare(np.asarray(mesh.vertices), triangles), part


def box(low, high) -> trimesh.Trimesh:
    low, high = np.array(low, float), np.array(high, float)
    return trimesh.creation.box(high - low, trimesh.transformations.translation_matrix((low + high) / 2))


LEAF = box((0.06, 0.04, 0.0), (0.94, 0.08, 2.04))
JAMBS = [box((0, 0, 0), (0.06, 0.12, 2.1)), box((0.94, 0, 0), (1.0, 0.12, 2.1))]
HEAD = box((0.06, 0, 2.04), (0.94, 0.12, 2.1))
THRESHOLD = box((0.06, 0, 0), (0.94, 0.12, 0.02))
HANDLE = box((0.85, -0.04, 1.0), (0.9, 0.16, 1.04))


def test_of_a_door_in_pieces_jambs_head_and_threshold_stay_and_leaf_and_handle_go():
    door, part = shape(LEAF, *JAMBS, HEAD, THRESHOLD, HANDLE)
    frame = frame_of(door)
    stays = [bool(frame[part == k].all()) for k in range(6)]
    assert stays == [False, True, True, True, True, False]
    assert not frame[part == 0].any()
    assert not frame[part == 5].any()


def test_a_frame_in_one_piece_stays_however_wide():
    # Jambs and head meet corner to corner, and so are one body.
    whole = trimesh.util.concatenate(
        [box((0, 0, 0), (0.06, 0.12, 2.04)), box((0.94, 0, 0), (1, 0.12, 2.04)), box((0, 0, 2.04), (1, 0.12, 2.1))]
    )
    door, part = shape(whole, LEAF)
    frame = frame_of(door)
    assert frame[part == 0].all()
    assert not frame[part == 1].any()


def test_two_leaves_both_open_and_a_door_along_y_is_as_one_along_x():
    left, right = box((0.06, 0.04, 0), (0.5, 0.08, 2.04)), box((0.5, 0.04, 0), (0.94, 0.08, 2.04))
    parts = [left, right, *JAMBS, HEAD]
    door, part = shape(*parts)
    frame = frame_of(door)
    assert [bool(frame[part == k].all()) for k in range(5)] == [False, False, True, True, True]
    for each in parts:
        each.apply_transform(trimesh.transformations.rotation_matrix(np.pi / 2, (0, 0, 1)))
    assert (frame_of(shape(*parts)[0]) == frame).all()


def test_a_door_without_a_shape_has_no_frame():
    empty = Shape.bare(np.zeros((0, 3)), np.zeros((0, 3), np.int32))
    assert len(frame_of(empty)) == 0
