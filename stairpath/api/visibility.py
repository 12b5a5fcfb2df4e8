"""What of a building rules show, fade, hide and tint, and views that addresses name."""

from __future__ import annotations

from typing import Literal

from fastapi import APIRouter

from stairpath.api import shapes
from stairpath.api.documents import packed, rules_from, shape_of, view_from, view_shape
from stairpath.api.lookups import Asker
from stairpath.api.refused import REFUSALS
from stairpath.core.visibility.rules import NO_TINT
from stairpath.work import visibility

router = APIRouter(prefix="/api/projects/{project_id}", tags=["views"], responses=REFUSALS)


@router.post("/resolve")
def resolve_rules(project_id: str, wish: shapes.RulesWish) -> shapes.Seen:
    """How every component appears under rules, and the rules in plain words.

    Rules that later ones leave nothing of, or that change nothing, are left out of the answer.
    """
    seen = visibility.see(project_id, rules_from(wish.rules))
    found = seen.resolved
    return shapes.Seen(
        version=seen.version,
        done=seen.done,
        rules=[
            shapes.RuleLine(
                rule=shape_of(shapes.Rule, line.rule),
                done=line.done,
                says=line.says,
                selects=line.selects,
                decides=line.decides,
                gone=line.gone,
            )
            for line in seen.rules
        ],
        **found.counts(),
        states=packed(found.state, "u1"),
        reasons=packed(found.reason(), "<i2"),
        tints=packed(found.tint, "<i4") if (found.tint != NO_TINT).any() else "",
    )


@router.get("/values/{what}")
def list_values(project_id: str, what: Literal["system", "type", "class", "material"]) -> list[str]:
    """What components of the building have for their system, type, class or material."""
    return visibility.values_of(project_id, what)


@router.post("/links", status_code=201)
def make_link(who: Asker, project_id: str, view: shapes.View) -> shapes.LinkMade:
    """Keep a view for an address to name; the same view has the same id."""
    return shapes.LinkMade(id=visibility.link(who, project_id, view_from(view)))


@router.get("/links/{link_id}")
def open_link(project_id: str, link_id: str) -> shapes.View:
    """The view that an address names."""
    return view_shape(visibility.linked(project_id, link_id))
