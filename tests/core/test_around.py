"""Where a component is in words, what is near it, and what hangs together with it."""

import numpy as np
import pytest
import trimesh

from stairpath.core.federation.grid import Axis
from stairpath.core.measuring.around import around, boxes_near, connected
from stairpath.core.measuring.body import body
from stairpath.core.reading.read import read_model
from stairpath.core.register.place import in_words, nearest_lines
from tests.samples import Sample

GRID = [
    Axis("A", (0, -5), (0, 50)),
    Axis("B", (6, -5), (6, 50)),
    Axis("1", (-5, 0), (50, 0)),
    Axis("2", (-5, 8), (50, 8)),
]


def test_the_nearest_line_of_each_direction_is_told_nearest_first():
    found = nearest_lines(GRID, np.array([5.4, 1.0]))
    assert [near.tag for near in found] == ["B", "1"]
    assert [near.distance_m for near in found] == pytest.approx([0.6, 1.0])


def test_a_place_below_its_level_and_without_a_grid_is_told_as_well():
    assert in_words("Level 00", None, -0.4, []) == "Level 00, 0.40 m below the level"
    assert in_words("Level 00", "0.01 Hall", 0.0, []) == "Level 00, room 0.01 Hall, on its floor"


def cubes(*places):
    """Bodies of 1 m about places, and their boxes."""
    made = []
    for place in places:
        mesh = trimesh.creation.box((1, 1, 1))
        made.append(body(mesh.vertices + np.array(place), mesh.faces))
    return made, np.stack([each.bounds_m for each in made])


def test_what_is_within_a_distance_comes_nearest_first():
    bodies, bounds = cubes((0, 0, 0), (1.7, 0, 0), (0, 1.2, 0), (1.6, 1.6, 0), (9, 0, 0))
    found, count = around(bounds, bodies.__getitem__, 0, 0.75, 10)
    assert [near.component for near in found] == [2, 1]
    assert [near.distance.distance_m for near in found] == pytest.approx([0.2, 0.7])
    assert count == 2
    # The box of the one across the corner comes nearer than 0.9, its corner does not come nearer than 0.85.
    assert boxes_near(bounds, 0, 0.86).tolist() == [1, 2, 3]
    assert around(bounds, bodies.__getitem__, 0, 0.84, 10)[1] == 2
    assert len(around(bounds, bodies.__getitem__, 0, 0.9, 1)[0]) == 1


def test_what_the_file_connects_is_followed_and_what_it_does_not_connect_is_joined_by_touch():
    links = {0: [1], 1: [0, 2], 2: [1]}
    assert connected(0, links, lambda at: [], 100) == ([0, 1, 2], False)
    beside = {3: [4], 4: [3, 5], 5: [4]}
    assert connected(4, {}, lambda at: beside.get(at, ()), 100) == ([3, 4, 5], True)
    assert connected(4, {}, lambda at: beside.get(at, ()), 2) == ([3, 4], True)


def test_ports_and_direct_connections_are_read():
    sample = Sample()
    storey = sample.storey("Level 00", 0)
    pipes = [sample.box(storey, (x, 0, 0), (1, 0.1, 0.1), "IfcPipeSegment") for x in range(3)]
    ports = [sample.root("IfcDistributionPort", Name=str(k)) for k in range(2)]
    sample.relate("IfcRelNests", RelatingObject=pipes[0], RelatedObjects=[ports[0]])
    sample.relate("IfcRelConnectsPortToElement", RelatingPort=ports[1], RelatedElement=pipes[1])
    sample.relate("IfcRelConnectsPorts", RelatingPort=ports[0], RelatedPort=ports[1])
    sample.relate("IfcRelConnectsElements", RelatingElement=pipes[1], RelatedElement=pipes[2])
    read = read_model("a.ifc", sample.content()).components
    ids = [c.global_id for c in read]
    assert [c.connected for c in read] == [(ids[1],), (ids[0], ids[2]), (ids[1],)]
