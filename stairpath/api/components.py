"""What a component is."""

from __future__ import annotations

from fastapi import APIRouter

from stairpath.api import shapes
from stairpath.api.refused import REFUSALS
from stairpath.core.reading.model import PropertyValue, Quantity
from stairpath.work import components

router = APIRouter(prefix="/api", tags=["components"], responses=REFUSALS)


def _figure(quantity: Quantity) -> shapes.Figure:
    return shapes.Figure(value=quantity.value, unit=quantity.unit)


def _value(value: PropertyValue) -> shapes.PropertyValue:
    return _figure(value) if isinstance(value, Quantity) else value


@router.get("/models/{model_id}/components/{global_id}")
def get_component(model_id: str, global_id: str) -> shapes.Component:
    """Everything known of one component."""
    found = components.known(model_id, global_id)
    row, details = found.row, found.row.details

    def ref(other: str) -> shapes.ComponentRef | None:
        return shapes.ComponentRef(model=found.model.id, global_id=other) if other else None

    return shapes.Component(
        model_id=found.model.id,
        model=found.model.name,
        file_name=found.model.file_name,
        global_id=row.global_id,
        ifc_class=row.ifc_class,
        name=row.name,
        tag=row.tag,
        description=details.description,
        type_name=details.type_name,
        predefined=details.predefined,
        material=details.material,
        systems=row.systems,
        level=found.level,
        discipline=found.discipline,
        room=found.room,
        part_of=ref(details.part_of),
        hosted_in=ref(details.hosted_in),
        bounds_m=found.bounds_m,
        properties={
            name: {key: _value(value) for key, value in values.items()} for name, values in details.properties.items()
        },
        quantities={
            name: {key: _figure(value) for key, value in values.items()} for name, values in details.quantities.items()
        },
    )
