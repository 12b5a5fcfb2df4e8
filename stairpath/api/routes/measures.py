"""Measures, and what of a component the cursor catches."""

from __future__ import annotations

import numpy as np
from fastapi import APIRouter

from stairpath.api import schemas
from stairpath.api.http.door import asks
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.api.schemas.packed import packed
from stairpath.core.component_ref import ComponentRef
from stairpath.core.people.roles import Action
from stairpath.work.measuring import measures

router = APIRouter(prefix="/api/projects/{project_id}", tags=["measures"], responses=ERROR_RESPONSES)


@router.post("/measures")
@asks(Action.LOOK)
def measure(project_id: str, wish: schemas.MeasureRequest) -> schemas.MeasuresFound:
    """What measures come to in the building as it stands."""
    found = measures.measure(project_id, wish.measures, wish.rules)
    return schemas.MeasuresFound(
        version=found.version,
        found=[
            schemas.MeasureFound(
                id=each.measure.id,
                figures=list(each.found.figures) if each.found else [],
                dimensions=[
                    schemas.Dimension(line=d.line.tolist(), figure=d.figure)
                    for d in (each.found.dimensions if each.found else ())
                ],
                of=[schemas.PartMeasured(**vars(part), role=role) for role, part in each.of],
                note=each.found.note if each.found else "",
                trouble=each.trouble,
            )
            for each in found.results
        ],
    )


@router.post("/measures/point")
@asks(Action.LOOK)
def settle_point(project_id: str, wish: schemas.PointOn) -> schemas.PointSettled:
    """The exact point of a component's faces that was meant by one of the stage."""
    ref = ComponentRef(wish.of.model, wish.of.global_id)
    return schemas.PointSettled(point_m=measures.settle(project_id, ref, np.array(wish.point_m)).tolist())


@router.get("/models/{model_id}/catches/{global_id}")
@asks(Action.LOOK)
def get_catches(project_id: str, model_id: str, global_id: str) -> schemas.Catches:
    """What of a component the cursor catches: corners, edges and their middles, centres of faces, centre lines."""
    found = measures.features_of(project_id, ComponentRef(model_id, global_id))
    return schemas.Catches(
        corners=packed(found.corners, "<f8"),
        edges=packed(found.edges, "<f8"),
        middles=packed(found.middles, "<f8"),
        centres=packed(found.centres, "<f8"),
        lines=packed(found.lines, "<f8"),
    )
