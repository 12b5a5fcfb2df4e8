"""Surfaces, chunks and the GLB on the wire."""

import json
import struct
from dataclasses import replace

import meshoptimizer
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from stairpath.core.mesh.chunks import MOST_TRIANGLES, build_chunks
from stairpath.core.mesh.glb import FINE_M
from stairpath.core.mesh.surface import surface
from stairpath.core.reading.model import Shape
from stairpath.core.reading.read import read_model
from tests.samples import Sample, simple


def shape(vertices, triangles):
    return Shape.bare(np.array(vertices, dtype=float), np.array(triangles))


CUBE = shape(
    [[x, y, z] for x in (0, 1) for y in (0, 1) for z in (0, 1)],
    [
        [0, 1, 3],
        [0, 3, 2],
        [4, 6, 7],
        [4, 7, 5],
        [0, 4, 5],
        [0, 5, 1],
        [2, 3, 7],
        [2, 7, 6],
        [0, 2, 6],
        [0, 6, 4],
        [1, 5, 7],
        [1, 7, 3],
    ],
)


def tube(sides: int):
    angles = np.arange(sides) * 2 * np.pi / sides
    ring = np.column_stack([np.cos(angles), np.sin(angles), np.zeros(sides)])
    vertices = np.concatenate([ring, ring + np.array([0, 0, 2])])
    triangles = []
    for i in range(sides):
        j = (i + 1) % sides
        triangles += [[i, j, sides + j], [i, sides + j, sides + i]]
    return shape(vertices, triangles)


def test_a_cube_has_24_corners_and_12_edges():
    made = surface(CUBE)
    assert len(made.positions) == 24
    assert len(made.edges) == 12
    assert np.abs(made.normals).max(axis=1) == pytest.approx(np.ones(24))
    lengths = np.linalg.norm(made.positions[made.edges[:, 0]] - made.positions[made.edges[:, 1]], axis=1)
    assert lengths == pytest.approx(np.ones(12))


def test_a_round_tube_is_smooth_and_shows_only_its_rims():
    made = surface(tube(24))
    assert len(made.positions) == 48
    radial = made.positions[:, :2] / np.linalg.norm(made.positions[:, :2], axis=1, keepdims=True)
    assert made.normals[:, :2] == pytest.approx(radial, abs=0.02)
    assert len(made.edges) == 48


def test_a_coarse_tube_keeps_its_arrises():
    assert len(surface(tube(6)).edges) == 6 * 3


def test_triangles_without_area_are_left_out():
    made = surface(shape([[0, 0, 0], [1, 0, 0], [2, 0, 0], [0, 1, 0]], [[0, 1, 2], [0, 1, 3]]))
    assert len(made.triangles) == 1
    assert len(surface(shape([[0, 0, 0], [1, 0, 0], [2, 0, 0]], [[0, 1, 2]])).triangles) == 0


def decoded(glb: bytes):
    """Positions in metres, component ordinals and triangles of a chunk, by the open extensions alone."""
    length = struct.unpack_from("<I", glb, 12)[0]
    doc = json.loads(glb[20 : 20 + length])
    blob = glb[20 + length + 8 :]

    def view(index):
        ext = doc["bufferViews"][index]["extensions"]["EXT_meshopt_compression"]
        return ext, blob[ext["byteOffset"] : ext["byteOffset"] + ext["byteLength"]]

    mesh = doc["meshes"][0]
    first = mesh["primitives"][0]
    accessor = doc["accessors"][first["attributes"]["POSITION"]]
    ext, data = view(accessor["bufferView"])
    raw = meshoptimizer.decode_vertex_buffer(ext["count"], ext["byteStride"], data)
    raw = np.asarray(raw).view(np.uint8).reshape(ext["count"], ext["byteStride"])
    node = doc["nodes"][0]
    steps = np.ascontiguousarray(raw[:, :6]).view(np.uint16).reshape(-1, 3)
    positions = steps * np.array(node["scale"]) + np.array(node["translation"])
    components = np.ascontiguousarray(raw[:, 12:14]).view(np.uint16).reshape(-1)
    indices = doc["accessors"][first["indices"]]
    ext, data = view(indices["bufferView"])
    triangles = np.asarray(meshoptimizer.decode_index_buffer(ext["count"], 4, data)).reshape(-1, 3)
    return doc, positions, np.array(mesh["extras"]["ordinals"])[components], triangles


def test_a_chunk_decodes_to_what_was_read():
    sample = simple()
    storey = sample.ifc.by_type("IfcBuildingStorey")[0]
    sample.box(storey, (10, 0, 1), (2, 2, 2))
    reading = read_model("a.ifc", sample.content())
    (chunk,) = build_chunks(reading)
    doc, positions, ordinals, triangles = decoded(chunk.glb)
    positions = positions + np.array(chunk.centre_m)
    bounds = reading.geometry.bounds(2)
    for ordinal in (0, 1):
        own = positions[ordinals == ordinal]
        assert own.min(axis=0) == pytest.approx(bounds[ordinal, 0], abs=2e-4)
        assert own.max(axis=0) == pytest.approx(bounds[ordinal, 1], abs=2e-4)
    assert len(triangles) == 24
    assert (ordinals[triangles] == ordinals[triangles][:, :1]).all()
    assert doc["meshes"][0]["extras"]["kinds"] == ["opaque", "edges"]
    assert doc["extensionsRequired"] == ["KHR_mesh_quantization", "EXT_meshopt_compression"]


def test_short_edges_are_kept_apart():
    sample = simple()
    storey = sample.ifc.by_type("IfcBuildingStorey")[0]
    sample.box(storey, (10, 0, 1), (2, 2, FINE_M * 0.9))
    (chunk,) = build_chunks(read_model("a.ifc", sample.content()))
    doc, _, _, _ = decoded(chunk.glb)
    mesh = doc["meshes"][0]
    counts = {
        kind: doc["accessors"][primitive["indices"]]["count"] // 2
        for kind, primitive in zip(mesh["extras"]["kinds"], mesh["primitives"], strict=True)
        if "edges" in kind
    }
    assert counts == {"edges": 12 + 8, "fine edges": 4}


def test_chunks_are_by_storey_bounded_and_the_same_every_time():
    sample = Sample()
    for level in range(3):
        storey = sample.storey(f"Level 0{level}", level * 4.0)
        for x in range(4):
            sample.box(storey, (x * 60, 0, 0), (1, 1, 1))
    reading = read_model("a.ifc", sample.content())
    chunks = build_chunks(reading)
    assert len(chunks) > 3  # a storey 180 m long is cut into neighbourhoods
    assert len({c.storey for c in chunks}) == 3
    assert sum(c.triangles for c in chunks) == 12 * 12
    assert max(c.triangles for c in chunks) <= MOST_TRIANGLES
    assert [c.sha256 for c in chunks] == [c.sha256 for c in build_chunks(reading)]


@pytest.mark.parametrize(("boxes", "chunks"), [(4_900, 1), (5_100, 2)])
def test_a_chunk_has_at_most_sixty_thousand_triangles(boxes, chunks, monkeypatch):
    """A box has 12 triangles: 5,000 of them are as many as a chunk may have."""
    made: list[int] = []
    monkeypatch.setattr("stairpath.core.mesh.chunks._chunk", lambda storey, group: made.append(len(group)))
    sample = Sample()
    storey = sample.storey("Level 00", 0.0)
    sample.box(storey, (0, 0, 0), (1, 1, 1))
    reading = read_model("a.ifc", sample.content())
    one = reading.geometry
    many = replace(
        one, owner=np.zeros(boxes, one.owner.dtype), shape=np.zeros(boxes, one.shape.dtype),
        matrix=np.repeat(one.matrix[:1], boxes, axis=0),
    )  # fmt: skip
    build_chunks(replace(reading, geometry=many))
    assert (len(made), sum(made)) == (chunks, boxes)


@given(turn=st.floats(0, 360), x=st.floats(-1e6, 1e6))
def test_chunks_are_sharp_wherever_the_model_stands(turn, x):
    reading = read_model("a.ifc", simple().content())
    c, s = np.cos(np.radians(turn)), np.sin(np.radians(turn))
    reading.geometry.matrix[0, :2, :2] = [[c, -s], [s, c]]
    reading.geometry.matrix[0, :3, 3] = [x, -x, 3.0]
    (chunk,) = build_chunks(reading)
    _, positions, _, _ = decoded(chunk.glb)
    bounds = reading.geometry.bounds(1)[0] - np.array(chunk.centre_m)
    assert positions.min(axis=0) == pytest.approx(bounds[0], abs=2e-4)
    assert positions.max(axis=0) == pytest.approx(bounds[1], abs=2e-4)
