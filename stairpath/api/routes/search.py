"""Finding components by a few letters and by conditions, and sets of them."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Query

from stairpath.api import schemas
from stairpath.api.http.caller import Asker, Editor
from stairpath.api.http.door import asks
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.api.schemas.packed import packed
from stairpath.core.people.roles import Action
from stairpath.core.register.scale import Scale
from stairpath.core.visibility.attributes import What
from stairpath.core.visibility.condition import spoken
from stairpath.core.visibility.traits import Traits
from stairpath.work.base import deleting
from stairpath.work.base.lookup import SET
from stairpath.work.building import search, sets
from stairpath.work.building.search import Askable
from stairpath.work.building.sets import ComponentSet

Colour = Annotated[str, Query(pattern="^#[0-9a-fA-F]{6}$")]

router = APIRouter(prefix="/api", tags=["find"], responses=ERROR_RESPONSES)


def _value(asked: Traits, what: What, component: int) -> str:
    column = asked.columns[what]
    return column.values[int(column.value[component])]


@router.get("/projects/{project_id}/find")
@asks(Action.LOOK)
def find_components(
    project_id: str,
    typed: Annotated[str, Query(max_length=200)],
    limit: Annotated[int, Query(ge=1, le=200)] = 20,
) -> schemas.ComponentsFound:
    """Components by a few letters of their tag, name, description, GlobalId or properties; a wrong letter is forgiven."""
    found = search.find(project_id, typed, limit)
    return schemas.ComponentsFound(
        version=found.version,
        count=found.count,
        found=[
            schemas.ComponentFound(
                model=found.asked.model_of(hit.component),
                global_id=found.asked.global_id(hit.component),
                label=found.asked.labels[hit.component],
                name=_value(found.asked, "name", hit.component),
                ifc_class=_value(found.asked, "class", hit.component),
                level=_value(found.asked, "level", hit.component),
                room=_value(found.asked, "room", hit.component),
                discipline=_value(found.asked, "discipline", hit.component),
                field=hit.field,
                text=hit.text,
            )
            for hit in found.hits
        ],
    )


@router.post("/projects/{project_id}/where")
@asks(Action.LOOK)
def meet_conditions(project_id: str, wish: schemas.ConditionsRequest) -> schemas.ConditionsMet:
    """Which components meet conditions, all of which must hold."""
    found = search.matching(project_id, wish.conditions)
    return schemas.ConditionsMet(version=found.version, count=int(found.met.sum()), met=packed(found.met, "u1"))


@router.get("/projects/{project_id}/highlights")
@asks(Action.LOOK)
def check_highlights(
    project_id: str,
    background: Colour,
    colours: Annotated[list[Colour], Query(max_length=20, default_factory=list)],
) -> list[schemas.Highlight]:
    """How the colours offered for what is picked, and others, stand out from the building and its background."""
    return [
        schemas.Highlight(
            colour=found.colour, nearest=found.nearest, difference=found.difference, stands_out=found.stands_out,
            says=found.says,
        )
        for found in search.highlights(project_id, background, colours)
    ]  # fmt: skip


@router.get("/projects/{project_id}/scale")
@asks(Action.LOOK)
def get_scale(project_id: str, what: Annotated[str, Query(max_length=400, pattern="^(property|quantity):.+")]) -> Scale:
    """The figures that components have of a property or quantity, parted into a few steps."""
    return search.scale_of(project_id, what)


@router.get("/projects/{project_id}/askable")
@asks(Action.LOOK)
def list_askable(project_id: str) -> list[Askable]:
    """Every property and quantity that components of the building have."""
    return search.askable(project_id)


def _shape(row: ComponentSet) -> schemas.ComponentSet:
    return schemas.ComponentSet(
        id=row.id,
        name=row.name,
        author=row.author,
        created_at=row.created_at,
        conditions=list(row.conditions),
        says=" and ".join(map(spoken, row.conditions)),
        steps=row.steps,
        sums=row.sums,
        columns=row.columns,
    )


def _layout(wish: schemas.SetRequest) -> sets.Layout:
    return sets.Layout(tuple(wish.steps), tuple(wish.sums), tuple(wish.columns))


@router.get("/projects/{project_id}/sets")
@asks(Action.LOOK)
def list_sets(project_id: str) -> list[schemas.ComponentSet]:
    """The project's sets, by name."""
    return [_shape(row) for row in sets.listed(project_id)]


@router.post("/projects/{project_id}/sets", status_code=201)
@asks(Action.ARRANGE)
def keep_set(who: Asker, project_id: str, wish: schemas.SetRequest) -> schemas.ComponentSet:
    """Keep conditions as a set."""
    return _shape(sets.keep(who, project_id, wish.name, wish.conditions, _layout(wish)))


@router.put("/sets/{set_id}")
@asks(Action.ARRANGE)
def change_set(who: Editor, set_id: str, wish: schemas.SetRequest) -> schemas.ComponentSet:
    """Give a set another name or other conditions."""
    return _shape(sets.change(who, set_id, wish.name, wish.conditions, _layout(wish)))


@router.delete("/sets/{set_id}", status_code=204)
@asks(Action.ARRANGE)
def delete_set(who: Editor, set_id: str) -> None:
    """Delete a set; it can be brought back."""
    deleting.delete(who, SET, set_id)


@router.post("/sets/{set_id}/restore")
@asks(Action.ARRANGE)
def restore_set(who: Editor, set_id: str) -> schemas.ComponentSet:
    """Bring back a deleted set."""
    return _shape(deleting.restore(who, SET, set_id))
