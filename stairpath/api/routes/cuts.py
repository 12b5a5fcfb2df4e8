"""What cuts go through."""

from __future__ import annotations

import numpy as np
from fastapi import APIRouter

from stairpath.api import schemas
from stairpath.api.http.door import asks
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.api.schemas.packed import packed
from stairpath.core.cutting.cuts import BoxCut
from stairpath.core.people.roles import Action
from stairpath.work.looking import cuts
from stairpath.work.looking.camera import Subject

router = APIRouter(prefix="/api/projects/{project_id}", tags=["cuts"], responses=ERROR_RESPONSES)


@router.post("/cuts/faces")
@asks(Action.LOOK)
def cut_faces(project_id: str, wish: schemas.CutRequest) -> schemas.CutFaces:
    """The faces that cuts leave of all components that are shown, and which of them are not closed."""
    found = cuts.cut_faces(
        project_id,
        wish.cuts,
        wish.rules,
        wish.whole,
    )
    known = found.components
    return schemas.CutFaces(
        version=found.version,
        faces=[
            schemas.CutFace(
                cut=cut.id,
                point_m=list(face.plane.point_m),
                normal=list(face.plane.normal),
                triangles=packed(face.triangles, "<f4"),
                of=packed(face.of, "<i4"),
                lines=packed(face.lines, "<f4"),
                line_of=packed(face.line_of, "<i4"),
                area_m2=face.area_m2,
                components=len(np.unique(face.of)),
                open=[
                    schemas.OpenComponent(
                        model=known.model_of(number),
                        global_id=known.global_id(number),
                        label=known.labels[number],
                        gap_m=gap,
                    )
                    for number, gap in zip(face.open_of.tolist(), face.gap_m.tolist(), strict=True)
                ],
            )
            for cut, face in found.faces
        ],
    )


@router.post("/cuts/box")
@asks(Action.LOOK)
def cut_box(project_id: str, wish: schemas.BoxRequest) -> BoxCut:
    """The cut box around components, a room or a level, turned with the building; around everything for nothing named."""
    named = None if wish.components is None else [(ref.model, ref.global_id) for ref in wish.components]
    subject = Subject(components=named, room=wish.room, level=wish.level)
    return cuts.box_of(project_id, subject, wish.margin_m)
