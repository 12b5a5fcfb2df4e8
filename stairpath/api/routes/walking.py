"""Walking: the map's tiles, who walks and what stands in the way, stops and landings."""

from __future__ import annotations

from dataclasses import asdict

from fastapi import APIRouter

from stairpath.api import schemas
from stairpath.api.http.caller import Asker
from stairpath.api.http.door import asks
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.core.geometry.origin import about
from stairpath.core.people.roles import Action
from stairpath.core.walking.bodies import BODIES, Body
from stairpath.core.walking.tile import TILE_M
from stairpath.work.base.errors import WrongError
from stairpath.work.walking import walk
from stairpath.work.walking.walk import LandingRequest

router = APIRouter(prefix="/api/projects/{project_id}/walking", tags=["walking"], responses=ERROR_RESPONSES)


def _body(body: Body) -> schemas.WalkingBody:
    return schemas.WalkingBody(**asdict(body), own=body.name not in BODIES)


@router.get("")
@asks(Action.LOOK)
def get_walking(project_id: str, body: str = "standing") -> schemas.Walking:
    """The walk map of a project, and one body's tiles; that of the building before is given until the new one is made."""
    now = walk.map_now(project_id, body)
    note = now.walking.map
    origin = now.origin_m
    made_about = note.origin_m if note else origin
    return schemas.Walking(
        current=now.current,
        making=None if now.current else now.project.making,
        trouble=now.project.trouble,
        cell_m=note.cell_m if note else now.walking.cell_m,
        tile_m=TILE_M,
        origin_m=about(made_about, origin).tolist(),
        bearing_deg=note.bearing_deg if note else 0.0,
        bodies=[_body(each) for each in now.bodies],
        stands=[
            schemas.Stand(
                room=stand.room,
                at_m=about(stand.at_m, origin).tolist(),
                bearing_deg=stand.bearing_deg,
            )
            for stand in (note.stands if note else ())
            if now.current
        ],
        tiles=[schemas.WalkTilePlace(x=row.x, y=row.y, sha256=row.sha256, size=row.size) for row in now.tiles],
    )


@router.get("/rule")
@asks(Action.LOOK)
def get_rule(project_id: str) -> schemas.WalkRuleNow:
    """What stands in the way, how fine the map is, and the project's own bodies."""
    rule, classes = walk.rule_now(project_id)
    return schemas.WalkRuleNow.model_validate(
        {
            "passable": sorted(rule.passable),
            "doors_locked": rule.doors_locked,
            "cell_cm": round(100 * rule.cell_m),
            "bodies": [_body(body) for body in rule.bodies],
            "classes": classes,
        }
    )


@router.put("/rule", status_code=204)
@asks(Action.SET_RULES)
def set_rule(who: Asker, project_id: str, wish: schemas.WalkRule) -> None:
    """Change what stands in the way and who walks; the map is made again where that changes it."""
    try:
        own = [Body(**body.model_dump(exclude={"own"})) for body in wish.bodies]
    except ValueError as error:
        raise WrongError(str(error)) from error
    walk.set_rule(who, project_id, wish.passable, wish.doors_locked, wish.cell_cm / 100, own)


@router.post("/stop")
@asks(Action.LOOK)
def why_stop(project_id: str, wish: schemas.StopRequest) -> schemas.Stop:
    """Why a body cannot go on, with the clear size found."""
    found = walk.why_stop(project_id, wish.body, wish.at_m, wish.towards_m)
    stop, component = found.stop, found.component
    return schemas.Stop(
        kind=stop.kind,
        sentence=found.sentence,
        component=component,
        found_m=None if stop.found_m is None else round(stop.found_m, 3),
        needed_m=stop.needed_m,
    )


@router.post("/landing")
@asks(Action.LOOK)
def come_to_stand(project_id: str, wish: LandingRequest) -> schemas.Landing:
    """Where a body comes to stand, and which way it looks."""
    found = walk.come_to_stand(
        project_id, LandingRequest(wish.body, wish.kind, wish.room, wish.at_m, wish.towards_m, wish.up)
    )
    return schemas.Landing(at_m=found.at_m, bearing_deg=found.bearing_deg, level=found.level)
