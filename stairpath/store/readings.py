"""Keeping what was read, and giving it back to be federated."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

import numpy as np
from pydantic import TypeAdapter
from sqlalchemy import delete, insert, select
from sqlalchemy.orm import Session

from stairpath.core.federation.outline import Outline, Room
from stairpath.core.mesh.prepare import Prepared
from stairpath.core.problems import Problem
from stairpath.core.reading.model import GridAxis, MapConversion, Quantity, Storey
from stairpath.core.reading.pack import unpack
from stairpath.store import blobs
from stairpath.store.tables import Chunk, Component, Json, Model

_STOREYS = TypeAdapter(tuple[Storey, ...])
_AXES = TypeAdapter(tuple[GridAxis, ...])
_CONVERSION = TypeAdapter(MapConversion | None)
_PROBLEMS = TypeAdapter(tuple[Problem, ...])

GEOMETRY_TYPE = "application/vnd.stairpath.geometry"


def _frame(prepared: Prepared) -> Json:
    o = prepared.outline
    return {
        "schema": o.schema,
        "length_unit": o.length_unit,
        "storeys": [asdict(s) for s in o.storeys],
        "rooms": [{**asdict(r), "floor": r.floor.tolist()} for r in o.rooms],
        "grid_axes": [asdict(a) for a in o.grid_axes],
        "map_conversion": asdict(o.map_conversion) if o.map_conversion else None,
        "true_north": o.true_north,
        "problems": [asdict(p) for p in o.problems],
        "triangles": o.geometry.triangle_count,
    }


def keep_reading(session: Session, model: Model, prepared: Prepared) -> None:
    """Put a reading in the place of whatever was read of the model before."""
    session.execute(delete(Component).where(Component.model_id == model.id))
    session.execute(delete(Chunk).where(Chunk.model_id == model.id))
    rows: list[dict[str, Any]] = []
    for ordinal, c in enumerate(prepared.reading.components):
        rows.append(
            {
                "model_id": model.id,
                "ordinal": ordinal,
                "global_id": c.global_id,
                "ifc_class": c.ifc_class,
                "name": c.name,
                "tag": c.tag,
                "type_class": c.type_class,
                "storey": c.storey,
                "systems": list(c.systems),
                "details": {
                    "description": c.description,
                    "type_name": c.type_name,
                    "predefined": c.predefined,
                    "operation": c.operation,
                    "material": c.material,
                    "part_of": c.part_of,
                    "hosted_in": c.hosted_in,
                    "properties": {
                        name: {key: asdict(v) if isinstance(v, Quantity) else v for key, v in values.items()}
                        for name, values in c.properties.items()
                    },
                    "quantities": {
                        name: {key: asdict(q) for key, q in values.items()} for name, values in c.quantities.items()
                    },
                },
            }
        )
    if rows:
        session.execute(insert(Component), rows)
    chunks = [
        {
            "model_id": model.id,
            "number": number,
            "sha256": blobs.keep(session, chunk.glb, "model/gltf-binary"),
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
    model.frame = _frame(prepared)
    model.placed = None
    model.geometry = blobs.keep(session, prepared.geometry, GEOMETRY_TYPE)
    model.status, model.share, model.message = "read", 1.0, ""


def load_outline(session: Session, model: Model) -> Outline:
    """The outline of a model that was read."""
    frame = model.frame
    kept = blobs.load(session, model.geometry or "")
    if frame is None or kept is None:
        raise LookupError(f"{model.name} has not been read")
    rows = session.execute(
        select(
            Component.global_id,
            Component.ifc_class,
            Component.type_class,
            Component.systems,
            Component.storey,
            Component.details["operation"].astext.label("operation"),
        )
        .where(Component.model_id == model.id)
        .order_by(Component.ordinal)
    ).all()
    geometry = unpack(kept[0])
    return Outline(
        name=model.name,
        schema=frame["schema"],
        length_unit=frame["length_unit"],
        storeys=_STOREYS.validate_python(frame["storeys"]),
        rooms=tuple(
            Room(
                r["global_id"], r["number"], r["name"], r["storey"],
                np.array(r["floor"], dtype=np.float64).reshape(-1, 3, 2), r["low_m"], r["high_m"],
            )
            for r in frame["rooms"]
        ),
        grid_axes=_AXES.validate_python(frame["grid_axes"]),
        map_conversion=_CONVERSION.validate_python(frame["map_conversion"]),
        true_north=tuple(frame["true_north"]) if frame["true_north"] else None,
        global_ids=tuple(r.global_id for r in rows),
        classes=tuple(r.ifc_class for r in rows),
        type_classes=tuple(r.type_class for r in rows),
        systems=tuple(tuple(r.systems) for r in rows),
        operations=tuple(r.operation or "" for r in rows),
        component_storeys=tuple(r.storey for r in rows),
        geometry=geometry,
        bounds_own=geometry.bounds(len(rows)),
        problems=_PROBLEMS.validate_python(frame["problems"]),
    )  # fmt: skip
