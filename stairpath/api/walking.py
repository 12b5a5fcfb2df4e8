"""Walking: the map's tiles, who walks and what stands in the way, stops and landings."""

from __future__ import annotations

from dataclasses import asdict

import numpy as np
import numpy.typing as npt
from fastapi import APIRouter, HTTPException
from sqlalchemy import select

from stairpath.api import shapes
from stairpath.api.buildings import body_of, ground_of, map_of, named
from stairpath.api.lookups import Database, TheProject
from stairpath.core.federation.federate import Federation
from stairpath.core.walking import landing
from stairpath.core.walking.bodies import BODIES, Body
from stairpath.core.walking.grid import CELL_M
from stairpath.core.walking.place import NoPlaceError, at_point
from stairpath.core.walking.solids import Rule
from stairpath.core.walking.stopped import why_stopped
from stairpath.core.walking.tile import TILE_M
from stairpath.core.walking.walkmap import NOWHERE, WalkMap
from stairpath.jobs.tasks import defer_walks
from stairpath.store import walks
from stairpath.store.database import tell, transaction
from stairpath.store.tables import Component, Model, Project

router = APIRouter(prefix="/api/projects/{project_id}/walking", tags=["walking"])


def _bodies(project: Project) -> list[shapes.WalkingBody]:
    return [shapes.WalkingBody(**asdict(b), own=b.name not in BODIES) for b in walks.bodies_of(project).values()]


@router.get("")
def get_walking(database: Database, project: TheProject, body: str = "standing") -> shapes.Walking:
    """The walk map of a project, and one body's tiles."""
    body_of(project, body)
    made = walks.map_of(project)
    current = walks.is_current(project)
    origin: list[float] = (project.federation or {}).get("origin_m", [0.0, 0.0, 0.0])
    made_about: list[float] = made.get("origin_m", origin)
    return shapes.Walking(
        current=current,
        cell_m=made.get("cell_m", CELL_M),
        tile_m=TILE_M,
        origin_m=[a - b for a, b in zip(made_about, origin, strict=True)],
        bearing_deg=made.get("bearing_deg", 0.0),
        bodies=_bodies(project),
        stands=[
            shapes.Stand(
                room=stand["room"],
                at_m=[a - b for a, b in zip(stand["at_m"], origin, strict=True)],
                bearing_deg=stand["bearing_deg"],
            )
            for stand in made.get("stands", [])
            if current
        ],
        tiles=[
            shapes.WalkTilePlace(x=row.x, y=row.y, sha256=row.sha256, size=row.size)
            for row in walks.tiles_of(database, project.id, body)
        ],
    )


@router.get("/rule")
def get_rule(database: Database, project: TheProject) -> shapes.WalkRuleNow:
    """What stands in the way, how fine the map is, and the project's own bodies."""
    rule = walks.rule_of(project)
    return shapes.WalkRuleNow.model_validate(
        {
            "passable": sorted(rule.passable),
            "doors_locked": rule.doors_locked,
            "cell_cm": round(100 * walks.cell_of(project)),
            "bodies": [body for body in _bodies(project) if body.own],
            "classes": sorted(
                database.scalars(
                    select(Component.ifc_class)
                    .join(Model)
                    .where(Model.project_id == project.id, Model.removed_at.is_(None))
                    .distinct()
                )
            ),
        }
    )


@router.put("/rule", status_code=204)
def set_rule(project_id: str, wish: shapes.WalkRule) -> None:
    """Change what stands in the way and who walks; the map is made again where that changes it."""
    try:
        own = [Body(**body.model_dump(exclude={"own"})) for body in wish.bodies]
    except ValueError as error:
        raise HTTPException(422, str(error)) from error
    names = [body.name for body in own]
    if len(set(names)) < len(names) or any(name in BODIES for name in names):
        raise HTTPException(422, f"There is somebody called so already; besides {', '.join(BODIES)}, names differ.")
    with transaction() as database:
        project = database.get(Project, project_id, with_for_update=True)
        if project is None:
            raise HTTPException(404, "There is no such project; open it from the start page.")
        walks.set_walking(project, Rule(frozenset(wish.passable), wish.doors_locked), wish.cell_cm / 100, own)
        tell(database, project.id)
    defer_walks(project_id)


def _direction(walk: WalkMap, towards_m: list[float]) -> npt.NDArray[np.float64]:
    """A direction of the browser on plan (2,), along the map's axes."""
    towards: npt.NDArray[np.float64] = (np.array(towards_m) @ walk.axes.turn)[:2]
    if not towards.any():
        raise HTTPException(422, "The direction has no length on plan; give one that has.")
    return towards


@router.post("/stop")
def why_stop(database: Database, project: TheProject, wish: shapes.StopWish) -> shapes.Stop:
    """Why a body cannot go on, with the clear size found."""
    ground = ground_of(database, project)
    walk = map_of(database, project, ground, body_of(project, wish.body))
    at = ground.own(walk, wish.at_m)
    floor = walk.under(float(at[0]), float(at[1]), float(at[2]), fitting=True)
    if floor == NOWHERE:
        raise HTTPException(422, "Nobody can stand there; give a point of a free floor.")
    towards = _direction(walk, wish.towards_m)
    stop = why_stopped(walk, ground.building.space, floor, at[:2], towards)
    return shapes.Stop(
        kind=stop.kind,
        component=named(database, ground, [stop.component]).get(stop.component),
        found_m=None if stop.found_m is None else round(stop.found_m, 3),
        needed_m=stop.needed_m,
    )


def level_at(federation: Federation, height_m: float) -> int:
    """The highest level that begins at a height or below, else the lowest."""
    below = [k for k, level in enumerate(federation.levels) if level.elevation_m <= height_m + 0.5]
    return below[-1] if below else 0


@router.post("/landing")
def come_to_stand(database: Database, project: TheProject, wish: shapes.LandingWish) -> shapes.Landing:
    """Where a body comes to stand, and which way it looks."""
    ground = ground_of(database, project)
    federation = ground.building.federation
    walk = map_of(database, project, ground, body_of(project, wish.body))
    at = ground.own(walk, wish.at_m)
    try:
        if wish.kind == "room":
            found = landing.in_the_room(walk, ground.room(walk, wish.room))
        elif wish.kind == "storey":
            level = level_at(federation, float(at[2])) + wish.up
            if not 0 <= level < len(federation.levels):
                way = "above" if wish.up > 0 else "below"
                raise HTTPException(422, f"There is no storey {way} this one; go the other way.")
            found = landing.on_storey(walk, at, federation.levels[level].elevation_m)
        elif wish.kind == "behind":
            found = landing.behind(walk, at, _direction(walk, wish.towards_m), float(at[2]))
        else:
            place = at_point(walk, at, "that point")
            if not place.fits:
                raise NoPlaceError(f"There is no room for {wish.body} there; take another point or a smaller body.")
            found = landing.Landing(int(place.floors[0]))
    except NoPlaceError as error:
        raise HTTPException(422, str(error.args[0])) from error
    foot = walk.place(found.floor)
    return shapes.Landing(
        at_m=ground.about(walk).to_project(foot).round(4).tolist(),
        bearing_deg=found.bearing_deg(walk),
        level=level_at(federation, float(foot[2])),
    )
