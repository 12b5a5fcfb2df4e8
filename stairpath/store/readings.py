"""Keeping what was read, and giving it back to be federated."""

from __future__ import annotations

from dataclasses import asdict
from typing import TYPE_CHECKING, Any

import numpy as np
from sqlalchemy import delete, insert
from sqlalchemy.orm import Session

from stairpath.core import columns
from stairpath.core.federation.outline import Outline, Room
from stairpath.core.reading.model import Component as ReadComponent
from stairpath.core.reading.pack import unpack
from stairpath.core.visibility.traits import BETWEEN, Words, words_of
from stairpath.store import blobs
from stairpath.store.documents import Details, Frame, RoomFloor
from stairpath.store.tables import Chunk, Component, Model

if TYPE_CHECKING:
    from stairpath.core.prepare import Prepared

GEOMETRY_TYPE = "application/vnd.stairpath.geometry"
COLUMNS_TYPE = "application/vnd.stairpath.columns"
SORTS_TYPE = "application/vnd.stairpath.sorts"
TRAITS_TYPE = "application/vnd.stairpath.traits"
_ASKED = ("classes", "types", "systems", "materials", "names", "tags")
_ROWS_AT_ONCE = 2000


def _frame(prepared: Prepared, named: str, sorts: str, traits: str) -> Frame:
    o = prepared.outline
    return Frame(
        schema=o.schema,
        length_unit=o.length_unit,
        storeys=o.storeys,
        rooms=tuple(RoomFloor(**{**asdict(r), "floor": r.floor.tolist()}) for r in o.rooms),
        grid_axes=o.grid_axes,
        map_conversion=o.map_conversion,
        true_north=o.true_north,
        problems=o.problems,
        triangles=o.geometry.triangle_count,
        components=len(o.global_ids),
        columns=named,
        sorts=sorts,
        traits=traits,
    )


def _row(model_id: str, ordinal: int, c: ReadComponent) -> dict[str, Any]:
    return {
        "model_id": model_id,
        "ordinal": ordinal,
        "global_id": c.global_id,
        "ifc_class": c.ifc_class,
        "name": c.name,
        "tag": c.tag,
        "type_class": c.type_class,
        "storey": c.storey,
        "systems": list(c.systems),
        "details": Details(
            c.description, c.type_name, c.predefined, c.operation, c.material, c.part_of, c.hosted_in,
            c.connected,            c.properties, c.quantities,
        ),
    }  # fmt: skip


def _keep_columns(session: Session, project_id: str, prepared: Prepared) -> tuple[str, str, str]:
    """What the browser needs of each component as read, what federating does, and what rules ask; their hashes."""
    o, words = prepared.outline, words_of(prepared.reading)
    named = columns.pack({"global_id": words.global_ids, "label": words.labels})
    traits = columns.pack({name: getattr(words, name) for name in _ASKED})
    sorts = columns.pack(
        {
            "class": o.classes,
            "type_class": o.type_classes,
            "systems": [BETWEEN.join(systems) for systems in o.systems],
            "operation": o.operations,
            "storey": [storey or "" for storey in o.component_storeys],
        }
    )
    return (
        blobs.keep(session, project_id, named, COLUMNS_TYPE),
        blobs.keep(session, project_id, sorts, SORTS_TYPE),
        blobs.keep(session, project_id, traits, TRAITS_TYPE),
    )


def keep_reading(session: Session, model: Model, prepared: Prepared) -> None:
    """Put a reading in the place of whatever was read of the model before."""
    session.execute(delete(Component).where(Component.model_id == model.id))
    session.execute(delete(Chunk).where(Chunk.model_id == model.id))
    read = prepared.reading.components
    for first in range(0, len(read), _ROWS_AT_ONCE):
        rows = [_row(model.id, first + k, c) for k, c in enumerate(read[first : first + _ROWS_AT_ONCE])]
        session.execute(insert(Component), rows)
    chunks = [
        {
            "model_id": model.id,
            "number": number,
            "sha256": blobs.keep(session, model.project_id, chunk.glb, "model/gltf-binary"),
            "centre_m": list(chunk.centre_m),
            "bounds_m": chunk.bounds_m.reshape(-1).tolist(),
            "storey": chunk.storey,
            "triangles": chunk.triangles,
            "size": len(chunk.glb),
        }
        for number, chunk in enumerate(prepared.chunks)
    ]
    if chunks:
        session.execute(insert(Chunk), chunks)
    model.frame = _frame(prepared, *_keep_columns(session, model.project_id, prepared))
    model.placed = None
    model.geometry = blobs.keep(session, model.project_id, prepared.geometry, GEOMETRY_TYPE)
    model.status, model.share, model.message = "read", 1.0, ""


def load_columns(session: Session, sha: str | None) -> dict[str, Any]:
    """Columns by their hash; LookupError if they are not kept."""
    kept = blobs.load(session, sha or "")
    if kept is None:
        raise LookupError("what is per component is not kept")
    return columns.unpack(kept[0])


def load_words(session: Session, frame: Frame) -> Words:
    """What rules ask of a model's components; LookupError if it is not kept."""
    named, asked = load_columns(session, frame.columns), load_columns(session, frame.traits)
    return Words(named["global_id"], named["label"], *(asked[name] for name in _ASKED))


def load_outline(session: Session, model: Model) -> Outline:
    """The outline of a model that was read; LookupError if it was not."""
    frame = model.frame
    kept = blobs.load(session, model.geometry or "")
    if frame is None or kept is None:
        raise LookupError(f"{model.name} has not been read")
    named, sorts = load_columns(session, frame.columns), load_columns(session, frame.sorts)
    geometry = unpack(kept[0])
    return Outline(
        name=model.name,
        schema=frame.schema,
        length_unit=frame.length_unit,
        storeys=frame.storeys,
        rooms=tuple(
            Room(
                r.global_id, r.number, r.name, r.storey,
                np.array(r.floor, dtype=np.float64).reshape(-1, 3, 2), r.low_m, r.high_m,
            )
            for r in frame.rooms
        ),
        grid_axes=frame.grid_axes,
        map_conversion=frame.map_conversion,
        true_north=frame.true_north,
        global_ids=tuple(named["global_id"]),
        classes=tuple(sorts["class"]),
        type_classes=tuple(sorts["type_class"]),
        systems=tuple(tuple(s.split(BETWEEN)) if s else () for s in sorts["systems"]),
        operations=tuple(sorts["operation"]),
        component_storeys=tuple(s or None for s in sorts["storey"]),
        geometry=geometry,
        bounds_own=geometry.bounds(frame.components),
        problems=frame.problems,
    )  # fmt: skip
