"""What a component is."""

from __future__ import annotations

from fastapi import APIRouter, HTTPException
from sqlalchemy import select

from stairpath.api import shapes
from stairpath.api.lookups import Database, TheModel
from stairpath.core.federation.disciplines import CODES
from stairpath.store.tables import Component, Project

router = APIRouter(prefix="/api", tags=["components"])


@router.get("/models/{model_id}/components/{global_id}")
def get_component(database: Database, model: TheModel, global_id: str) -> shapes.Component:
    """Everything known of one component."""
    row = database.scalar(select(Component).where(Component.model_id == model.id, Component.global_id == global_id))
    if row is None:
        raise HTTPException(404, f"{model.name} holds no component {global_id}; it may have gone with a newer file.")
    federation = database.get_one(Project, model.project_id).federation or {}
    levels, rooms = federation.get("levels", []), federation.get("rooms", [])

    def ref(other: str) -> shapes.ComponentRef | None:
        return shapes.ComponentRef(model=model.id, global_id=other) if other else None

    room = None
    if row.room is not None and 0 <= row.room < len(rooms):
        room = f"{rooms[row.room]['number']} {rooms[row.room]['name']}".strip()
    details = row.details
    return shapes.Component(
        model_id=model.id,
        model=model.name,
        file_name=model.file_name,
        global_id=row.global_id,
        ifc_class=row.ifc_class,
        name=row.name,
        tag=row.tag,
        description=details["description"],
        type_name=details["type_name"],
        predefined=details["predefined"],
        material=details["material"],
        systems=row.systems,
        level=levels[row.level]["name"] if row.level is not None and 0 <= row.level < len(levels) else None,
        discipline=CODES[row.discipline] if row.discipline is not None else "OTH",
        room=room,
        part_of=ref(details["part_of"]),
        hosted_in=ref(details["hosted_in"]),
        bounds_m=row.bounds_m,
        properties=details["properties"],
        quantities=details["quantities"],
    )
