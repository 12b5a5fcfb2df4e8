"""What a component is."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated

from fastapi import APIRouter, Query

from stairpath.api import schemas
from stairpath.api.http.door import asks
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.core.component_ref import ComponentRef
from stairpath.core.people.roles import Action
from stairpath.core.register.common import Common
from stairpath.core.visibility.selectors import These
from stairpath.core.visibility.wording import class_name
from stairpath.work.building import components, search
from stairpath.work.measuring import neighbours
from stairpath.work.measuring.neighbours import Run

router = APIRouter(prefix="/api", tags=["components"], responses=ERROR_RESPONSES)


@router.get("/models/{model_id}/components/{global_id}")
@asks(Action.LOOK)
def get_component(model_id: str, global_id: str) -> schemas.Component:
    """Everything known of one component."""
    found = components.known(model_id, global_id)
    row, details = found.row, found.row.details

    def ref(other: str) -> ComponentRef | None:
        return ComponentRef(model=found.model.id, global_id=other) if other else None

    def refs(others: Sequence[str]) -> list[ComponentRef]:
        return [ComponentRef(model=found.model.id, global_id=other) for other in others]

    return schemas.Component(
        model_id=found.model.id,
        model=found.model.name,
        file_name=found.model.file_name,
        global_id=row.global_id,
        ifc_class=row.ifc_class,
        class_name=class_name(row.ifc_class),
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
        hosts=refs(found.hosts),
        parts=refs(found.parts),
        connected=refs(details.connected),
        place=neighbours.place_in_words(found),
        bounds_m=found.bounds_m,
        properties=details.properties,
        quantities=details.quantities,
    )


@router.get("/models/{model_id}/components/{global_id}/around")
@asks(Action.LOOK)
def list_neighbours(
    model_id: str, global_id: str, within_m: Annotated[float, Query(ge=0, le=20, allow_inf_nan=False)] = 0.5
) -> schemas.Neighbours:
    """What stands within a distance of a component, nearest first."""
    found = neighbours.neighbours(components.project_of(model_id), ComponentRef(model_id, global_id), within_m)
    return schemas.Neighbours(
        count=found.count,
        found=[
            schemas.Neighbour(
                model=near.component.model,
                global_id=near.component.global_id,
                label=near.component.label,
                discipline=near.component.discipline,
                distance_m=near.distance_m,
            )
            for near in found.found
        ],
    )


@router.get("/models/{model_id}/components/{global_id}/run")
@asks(Action.LOOK)
def get_run(model_id: str, global_id: str) -> Run:
    """All that hangs together with a component, as its file connects it, else by ends that touch."""
    return neighbours.run(components.project_of(model_id), ComponentRef(model_id, global_id))


@router.post("/projects/{project_id}/common")
@asks(Action.LOOK)
def tell_common(project_id: str, these: These) -> list[Common]:
    """What components have in common."""
    return search.common(project_id, these)
