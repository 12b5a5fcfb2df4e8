"""Walking: the map's tiles, who walks and what stands in the way, stops and landings."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Literal

import numpy as np
import numpy.typing as npt
from annotated_types import Ge, Le

from stairpath.core.component_ref import NamedComponent
from stairpath.core.federation.disciplines import DISCIPLINES
from stairpath.core.federation.levels import level_at
from stairpath.core.geometry.vectors import Vector
from stairpath.core.limits import Name
from stairpath.core.walking import landing
from stairpath.core.walking.bodies import BODIES, Body
from stairpath.core.walking.place import NoPlaceError, at_point
from stairpath.core.walking.route_answer import RoomIndex
from stairpath.core.walking.stopped import Stop, spoken, why_stopped
from stairpath.core.walking.walkmap import NOWHERE, WalkMap
from stairpath.store import components, walks
from stairpath.store.documents import Walking
from stairpath.store.projects import building_of
from stairpath.store.tables import Project, WalkTile
from stairpath.work.base.errors import UnfitError, WrongError
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import UnitOfWork, Who, read_only, unit_of_work
from stairpath.work.walking.walkable_building import (
    WalkableBuilding,
    bodies_of,
    body_of,
    map_of,
    marks,
    named,
    walkable_building,
)

Array = npt.NDArray[np.float64]


@dataclass(frozen=True)
class MapNow:
    """The walk map as it is: whether it is that of the building as it stands, and one body's tiles."""

    project: Project
    walking: Walking
    current: bool
    origin_m: tuple[float, float, float]
    bodies: list[Body]
    tiles: list[WalkTile]


def map_now(project_id: str, body: str) -> MapNow:
    """The walk map of a project, and one body's tiles."""
    with read_only() as look:
        project = in_use(look, project_id)
        body_of(project, body)
        return MapNow(
            project,
            walks.walking_of(project),
            # While the building is put together anew its map is to be made anew as well.
            walks.is_current(project) and project.wanted == project.made,
            building_of(project).origin_m,
            list(bodies_of(project).values()),
            walks.tiles_of(look.session, project.id, body),
        )


def rule_now(project_id: str) -> tuple[Walking, list[str]]:
    """What stands in the way, how fine the map is and who walks; and the classes that the project has."""
    with read_only() as look:
        project = in_use(look, project_id)
        return walks.walking_of(project), components.classes_of(look.session, project.id)


def set_rule(
    who: Who, project_id: str, passable: Sequence[str], doors_locked: bool, cell_m: float, own: Sequence[Body]
) -> None:
    """Change what stands in the way, how fine the map is and who walks; the map is made again where that changes it."""
    names = [body.name for body in own]
    if len(set(names)) < len(names) or any(name in BODIES for name in names):
        raise WrongError(
            f"Two bodies have the same name. Choose names that differ from each other and from {', '.join(BODIES)}."
        )
    with unit_of_work(who) as act:
        project = in_use(act, project_id, hold=True)
        before = walks.walking_of(project)
        project.walking = replace(
            before,
            passable=tuple(sorted(set(passable))),
            doors_locked=doors_locked,
            cell_m=cell_m,
            bodies=tuple(own),
            revision=before.revision + 1,
        )
        project.trouble = ""
        act.map_walks(project.id)
        act.tell(project.id, "walking")


def _direction(walk: WalkMap, towards_m: Sequence[float]) -> Array:
    """A direction of the browser on plan (2,), along the map's axes."""
    towards: Array = (np.array(towards_m) @ walk.axes.turn)[:2]
    if not towards.any():
        raise WrongError("The direction has no length on plan; give one that has.")
    return towards


def _ready(act: UnitOfWork, project_id: str, body: str) -> tuple[WalkableBuilding, WalkMap]:
    project = in_use(act, project_id)
    who = body_of(project, body)
    ground = walkable_building(act, project)
    return ground, map_of(act, project, ground, who)


@dataclass(frozen=True)
class Stopped:
    """A stop, in one line, and what stands in the way."""

    stop: Stop
    sentence: str
    component: NamedComponent | None


def _called(component: NamedComponent | None) -> str:
    """The name of what is in the way, with its model and its discipline."""
    if component is None:
        return "Something without a name"
    discipline = next((d.name.lower() for d in DISCIPLINES if d.code == component.discipline), "")
    return ", ".join(part for part in (f"{component.label} of {component.model_name}", discipline) if part)


def why_stop(project_id: str, body: str, at_m: Sequence[float], towards_m: Sequence[float]) -> Stopped:
    """Why a body cannot go on, with the clear size found and what stands in the way."""
    with read_only() as act:
        ground, walk = _ready(act, project_id, body)
        at = ground.own(walk, at_m)
        floor = walk.under(float(at[0]), float(at[1]), float(at[2]), fitting=True)
        if floor == NOWHERE:
            raise WrongError("There is no free floor there. Choose another point.")
        stop = why_stopped(walk, ground.space, floor, at[:2], _direction(walk, towards_m))
        component = named(act, ground, [stop.component]).get(stop.component)
        return Stopped(stop, spoken(stop, _called(component)), component)


@dataclass(frozen=True)
class LandingRequest:
    """Where to come to stand; see ``come_to_stand``."""

    body: Name
    kind: Literal["room", "floor", "storey", "behind"]
    room: RoomIndex | None = None
    at_m: Vector = (0.0, 0.0, 0.0)
    towards_m: Vector = (0.0, 1.0, 0.0)
    up: Annotated[int, Ge(-100), Le(100)] = 0


@dataclass(frozen=True)
class Landed:
    """A point of the floor about the project's origin, the bearing to look along, and the storey."""

    at_m: list[float]
    bearing_deg: float | None
    level: int


def _landing(ground: WalkableBuilding, walk: WalkMap, wish: LandingRequest) -> landing.Landing:
    federation = ground.federation
    at = ground.own(walk, wish.at_m)
    if wish.kind == "room":
        return landing.in_the_room(walk, ground.room(walk, wish.room))
    if wish.kind == "storey":
        level = level_at(federation.levels, float(at[2])) + wish.up
        if not 0 <= level < len(federation.levels):
            way = "above" if wish.up > 0 else "below"
            raise WrongError(f"There is no storey {way} this one; go the other way.")
        return landing.on_storey(walk, at, federation.levels[level].elevation_m)
    if wish.kind == "behind":
        return landing.behind(walk, at, _direction(walk, wish.towards_m), float(at[2]))
    place = at_point(walk, at, "that point")
    if not place.fits:
        raise NoPlaceError(f"There is no room for {wish.body} there; take another point or a smaller body.")
    return landing.Landing(int(place.floors[0]))


def come_to_stand(project_id: str, wish: LandingRequest) -> Landed:
    """Where a body comes to stand in a room, at a point of a floor, a storey up or down, or behind a wall."""
    with read_only() as act:
        ground, walk = _ready(act, project_id, wish.body)
        try:
            found = _landing(ground, walk, wish)
        except NoPlaceError as error:
            raise WrongError(str(error.args[0])) from error
        foot = walk.place(found.floor)
        return Landed(
            ground.about(walk).to_project(foot).round(4).tolist(),
            found.bearing_deg(walk),
            level_at(ground.federation.levels, float(foot[2])),
        )


def make_ready(project_id: str, body: str) -> None:
    """Have everything in memory that a route needs, so that the first one does not wait for it."""
    with read_only() as act:
        project = in_use(act, project_id)
        who = body_of(project, body)
        try:
            ground = walkable_building(act, project)
            map_of(act, project, ground, who)
        except UnfitError:
            return  # there is nothing to have ready yet
        marks(ground, who)


def check_body(project_id: str, body: str) -> None:
    """Refuse a body that walks in no such project."""
    with read_only() as look:
        body_of(in_use(look, project_id), body)
