"""What differs between issues of a model, and between alternatives."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Query

from stairpath.api import shapes
from stairpath.api.components import value_shape
from stairpath.api.refused import REFUSALS
from stairpath.core.visibility.traits import label_of
from stairpath.store.issues import Listing
from stairpath.work import comparing

router = APIRouter(prefix="/api", tags=["compare"], responses=REFUSALS)

_Id = Annotated[str | None, Query(max_length=40)]


@router.get("/models/{model_id}/issues")
def list_issues(model_id: str) -> list[shapes.EarlierIssue]:
    """The earlier issues of a model, newest first."""
    return [
        shapes.EarlierIssue(
            id=row.id, file_name=row.file_name, added_by=row.added_by, added_at=row.added_at, components=row.components
        )
        for row in comparing.earlier(model_id)
    ]


def _about(listing: Listing, number: int, model: str) -> dict[str, object]:
    component = listing.components[number]
    return {
        "ref": shapes.ComponentRef(model=model, global_id=component.global_id),
        "label": label_of(component.name, component.tag, component.ifc_class),
        "ifc_class": component.ifc_class,
    }


@router.get("/models/{model_id}/changes")
def list_changes(model_id: str, issue: _Id = None, other: _Id = None) -> shapes.Changes:
    """What differs in a model from an earlier issue of it (the last one, where none is named), or from another model."""
    found = comparing.between_models(model_id, other) if other else comparing.since_issue(model_id, issue)
    compared, new = found.compared, found.new

    def there(number: int) -> dict[str, object]:
        return _about(new, number, found.model)

    return shapes.Changes(
        matched_by=compared.matched_by,
        same=compared.same,
        added=[shapes.Differing.model_validate(there(k)) for k in compared.added],
        removed=[shapes.Differing.model_validate(_about(found.old, k, found.old_model)) for k in compared.removed],
        moved=[
            shapes.MovedComponent.model_validate({**there(k), "by_m": move.by_m, "turned_deg": move.turned_deg})
            for k, move in compared.moved
        ],
        reshaped=[shapes.Differing.model_validate(there(k)) for k in compared.reshaped],
        changed=[
            shapes.ChangedComponent.model_validate(
                {
                    **there(each.component),
                    "fields": [
                        {"name": f.name, "old": value_shape(f.old), "new": value_shape(f.new)} for f in each.fields
                    ],
                }
            )
            for each in compared.changed
        ],
    )
