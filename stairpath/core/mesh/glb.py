"""Encoding a chunk as GLB, quantised and compressed.

Open extensions only: KHR_mesh_quantization and EXT_meshopt_compression. A vertex takes 16
bytes before compression: position 3 x uint16, normal 3 x int8, component uint16, paint uint16.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import meshoptimizer
import numpy as np
import numpy.typing as npt
import pygltflib as gltf

from stairpath.core.reading.paint import Paints

_VERTEX = np.dtype(
    {
        "names": ["position", "normal", "component", "paint"],
        "formats": ["<3u2", "3i1", "<u2", "<u2"],
        "offsets": [0, 8, 12, 14],
        "itemsize": 16,
    }
)
_MESHOPT = "EXT_meshopt_compression"
_STEPS = 65535
_MOST_PAINTS = 65536
FINE_M = 0.06
"""Edges shorter than this are drawn only from near by, where they are more than a speck."""


@dataclass(frozen=True)
class ChunkMesh:
    """What a chunk draws; ``components`` numbers each vertex's entry in ``ordinals``, ``paints`` are its colours."""

    positions: npt.NDArray[np.float64]
    normals: npt.NDArray[np.float64]
    components: npt.NDArray[np.integer]
    ordinals: list[int]
    paints: Paints
    opaque: npt.NDArray[np.integer]
    see_through: npt.NDArray[np.integer]
    edges: npt.NDArray[np.integer]


class _Builder:
    """Appends compressed buffer views to a document."""

    def __init__(self) -> None:
        self.doc = gltf.GLTF2(
            extensionsUsed=["KHR_mesh_quantization", _MESHOPT],
            extensionsRequired=["KHR_mesh_quantization", _MESHOPT],
        )
        self.blob = bytearray()
        self.plain = 0

    def view(self, data: bytes, count: int, stride: int, mode: str, target: int) -> int:
        self.blob += b"\0" * (-len(self.blob) % 4)
        packed: dict[str, Any] = {
            "buffer": 0,
            "byteOffset": len(self.blob),
            "byteLength": len(data),
            "byteStride": stride,
            "count": count,
            "mode": mode,
        }
        self.doc.bufferViews.append(
            gltf.BufferView(
                buffer=1,
                byteOffset=self.plain,
                byteLength=count * stride,
                byteStride=stride if mode == "ATTRIBUTES" else None,
                target=target,
                extensions={_MESHOPT: packed},
            )
        )
        self.blob += data
        self.plain += count * stride + (-count * stride % 4)
        return len(self.doc.bufferViews) - 1

    def accessor(self, view: int, kind: int, count: int, form: str, **more: Any) -> int:
        self.doc.accessors.append(gltf.Accessor(bufferView=view, componentType=kind, count=count, type=form, **more))
        return len(self.doc.accessors) - 1

    def indices(self, values: npt.NDArray[np.uint32], mode: str, vertex_count: int) -> int:
        flat = np.ascontiguousarray(values.reshape(-1), dtype=np.uint32)
        if mode == "TRIANGLES":
            data = meshoptimizer.encode_index_buffer(flat, len(flat), vertex_count)
        else:
            data = meshoptimizer.encode_index_sequence(flat, len(flat), vertex_count)
        view = self.view(data, len(flat), 4, mode, gltf.ELEMENT_ARRAY_BUFFER)
        return self.accessor(view, gltf.UNSIGNED_INT, len(flat), gltf.SCALAR)

    def bytes(self) -> bytes:
        self.blob += b"\0" * (-len(self.blob) % 4)
        self.doc.buffers = [
            gltf.Buffer(byteLength=len(self.blob)),
            gltf.Buffer(byteLength=self.plain, extensions={_MESHOPT: {"fallback": True}}),
        ]
        self.doc.set_binary_blob(bytes(self.blob))
        return b"".join(self.doc.save_to_bytes())


def _cached(triangles: npt.NDArray[np.integer], vertex_count: int) -> npt.NDArray[np.uint32]:
    flat = np.ascontiguousarray(triangles.reshape(-1), dtype=np.uint32)
    if not len(flat):
        return flat
    out = np.empty_like(flat)
    meshoptimizer.optimize_vertex_cache(out, flat, len(flat), vertex_count)
    return out


def _in_order_of_use(
    parts: list[npt.NDArray[np.uint32]], vertex_count: int
) -> tuple[npt.NDArray[np.intp], list[npt.NDArray[np.uint32]]]:
    """Vertices in the order in which they are first used, and the parts renumbered."""
    used = np.concatenate(parts)
    unique, first = np.unique(used, return_index=True)
    order = unique[np.argsort(first, kind="stable")].astype(np.intp)
    number = np.zeros(vertex_count, dtype=np.uint32)
    number[order] = np.arange(len(order), dtype=np.uint32)
    return order, [number[part] for part in parts]


def encode(mesh: ChunkMesh) -> bytes:
    """A chunk as GLB: primitives for opaque and see-through faces, edges and fine edges, in that order.

    ``extras`` of the mesh say which is which and list the components' ordinals and the paints
    (0xRRGGBBAA) that its vertices have.
    """
    meshoptimizer.encode_vertex_version(0)
    meshoptimizer.encode_index_version(1)
    count = len(mesh.positions)
    parts = [_cached(mesh.opaque, count), _cached(mesh.see_through, count)]
    # Edges sorted by their first vertex pack far better.
    edges = np.sort(mesh.edges, axis=1)
    order, renumbered = _in_order_of_use([*parts, edges.reshape(-1).astype(np.uint32)], count)
    lines = renumbered[2].reshape(-1, 2)
    lines = lines[np.lexsort((lines[:, 1], lines[:, 0]))]
    fine = np.linalg.norm(np.diff(mesh.positions[order[lines]], axis=1)[:, 0], axis=1) < FINE_M

    positions = mesh.positions[order]
    low = positions.min(axis=0)
    step = max(float((positions.max(axis=0) - low).max()) / _STEPS, 1e-9)
    vertices = np.zeros(len(order), dtype=_VERTEX)
    vertices["position"] = np.round((positions - low) / step).astype(np.uint16)
    vertices["normal"] = np.round(mesh.normals[order] * 127).astype(np.int8)
    vertices["component"] = mesh.components[order].astype(np.uint16)

    palette, of_palette = np.unique(mesh.paints[order], return_inverse=True)
    if len(palette) > _MOST_PAINTS:
        raise ValueError(f"a chunk has {len(palette)} colours, more than {_MOST_PAINTS}")
    vertices["paint"] = of_palette.astype(np.uint16)

    out = _Builder()
    raw = np.ascontiguousarray(vertices).view(np.uint8).reshape(len(order), _VERTEX.itemsize)
    packed = meshoptimizer.encode_vertex_buffer(raw, len(order), _VERTEX.itemsize)
    view = out.view(packed, len(order), _VERTEX.itemsize, "ATTRIBUTES", gltf.ARRAY_BUFFER)
    corner = vertices["position"]
    attributes = gltf.Attributes(
        POSITION=out.accessor(
            view, gltf.UNSIGNED_SHORT, len(order), gltf.VEC3, byteOffset=0,
            min=corner.min(axis=0).tolist(), max=corner.max(axis=0).tolist(),
        ),
        NORMAL=out.accessor(view, gltf.BYTE, len(order), gltf.VEC3, byteOffset=8, normalized=True),
    )  # fmt: skip
    attributes._COMPONENT = out.accessor(view, gltf.UNSIGNED_SHORT, len(order), gltf.SCALAR, byteOffset=12)
    attributes._PAINT = out.accessor(view, gltf.UNSIGNED_SHORT, len(order), gltf.SCALAR, byteOffset=14)

    primitives, kinds = [], []
    for kind, values, mode in (
        ("opaque", renumbered[0], "TRIANGLES"),
        ("see-through", renumbered[1], "TRIANGLES"),
        ("edges", lines[~fine], "INDICES"),
        ("fine edges", lines[fine], "INDICES"),
    ):
        if len(values):
            drawn = gltf.TRIANGLES if mode == "TRIANGLES" else gltf.LINES
            primitives.append(
                gltf.Primitive(attributes=attributes, indices=out.indices(values, mode, len(order)), mode=drawn)
            )
            kinds.append(kind)
    doc = out.doc
    extras = {"kinds": kinds, "ordinals": mesh.ordinals, "paints": palette.tolist()}
    doc.meshes = [gltf.Mesh(primitives=primitives, extras=extras)]
    doc.nodes = [gltf.Node(mesh=0, translation=low.tolist(), scale=[step, step, step])]
    doc.scenes = [gltf.Scene(nodes=[0])]
    doc.scene = 0
    return out.bytes()
