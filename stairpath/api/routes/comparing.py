"""What differs between issues of a model, and between alternatives."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Query

from stairpath.api import schemas
from stairpath.api.http.door import asks
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.api.schemas.packed import packed
from stairpath.core.comparing.gone import Gone
from stairpath.core.component_ref import ComponentRef
from stairpath.core.people.roles import Action
from stairpath.core.visibility.traits import label_of
from stairpath.work.building import comparing
from stairpath.work.building.comparing import Listing

router = APIRouter(prefix="/api", tags=["compare"], responses=ERROR_RESPONSES)

_Id = Annotated[str | None, Query(max_length=40)]


@router.get("/models/{model_id}/issues")
@asks(Action.LOOK)
def list_issues(model_id: str) -> list[schemas.EarlierIssue]:
    """The earlier issues of a model, newest first."""
    return [
        schemas.EarlierIssue(
            id=row.id, file_name=row.file_name, added_by=row.added_by, added_at=row.added_at, components=row.components
        )
        for row in comparing.earlier(model_id)
    ]


def _about(listing: Listing, number: int, model: str) -> dict[str, object]:
    component = listing.components[number]
    return {
        "ref": ComponentRef(model=model, global_id=component.global_id),
        "label": label_of(component.name, component.tag, component.ifc_class),
        "ifc_class": component.ifc_class,
    }


@router.get("/models/{model_id}/changes")
@asks(Action.LOOK)
def list_changes(model_id: str, issue: _Id = None, other: _Id = None) -> schemas.Changes:
    """What differs in a model from an earlier issue of it (the last one, where none is named), or from another model."""
    found = comparing.changes(model_id, issue, other)
    compared, new = found.compared, found.new

    def there(number: int) -> dict[str, object]:
        return _about(new, number, found.model)

    return schemas.Changes(
        matched_by=compared.matched_by,
        same=compared.same,
        added=[schemas.Differing.model_validate(there(k)) for k in compared.added],
        removed=[schemas.Differing.model_validate(_about(found.old, k, found.old_model)) for k in compared.removed],
        moved=[
            schemas.MovedComponent.model_validate({**there(k), "by_m": move.by_m, "turned_deg": move.turned_deg})
            for k, move in compared.moved
        ],
        reshaped=[schemas.Differing.model_validate(there(k)) for k in compared.reshaped],
        changed=[
            schemas.ChangedComponent.model_validate(
                {
                    **there(each.component),
                    "fields": list(each.fields),
                }
            )
            for each in compared.changed
        ],
    )


def _bodies(found: Gone, listing: Listing, model: str) -> schemas.GoneBodies:
    return schemas.GoneBodies(
        components=[
            schemas.GoneComponent.model_validate(
                {**_about(listing, number, model), "low_m": box[0].tolist(), "high_m": box[1].tolist()}
            )
            for number, box in zip(found.components.tolist(), found.boxes_m, strict=True)
        ],
        triangles=packed(found.triangles, "<f4"),
        edges=packed(found.edges, "<f4"),
        left_out=found.left_out,
    )


@router.get("/models/{model_id}/gone")
@asks(Action.LOOK)
def draw_gone(model_id: str, issue: _Id = None, other: _Id = None) -> schemas.Gone:
    """What an earlier issue, or another model, had that is not there any more, and where it had what has moved."""
    found = comparing.gone_from(model_id, issue, other)
    return schemas.Gone(
        removed=_bodies(found.removed, found.old, found.old_model),
        moved=_bodies(found.moved, found.old, found.old_model),
    )
