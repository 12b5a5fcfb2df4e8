"""Routes: finding one, and keeping it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
import numpy.typing as npt
from pydantic import TypeAdapter

from stairpath.core.walking.place import NoPlaceError, Place, at_point, in_room
from stairpath.core.walking.report import other_document, route_document
from stairpath.core.walking.route import Limits, route
from stairpath.core.walking.route import others as route_others
from stairpath.core.walking.route_answer import OtherWay, RouteAnswer, RoutePlace, RouteRequest
from stairpath.core.walking.walkmap import WalkMap
from stairpath.store import kept
from stairpath.store.projects import building_of
from stairpath.store.tables import Project
from stairpath.store.tables import SavedRoute as SavedRoute
from stairpath.work.base.errors import WrongError
from stairpath.work.base.lookup import ROUTE
from stairpath.work.base.lookup import find as find_row
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import UnitOfWork, Who, read_only, unit_of_work
from stairpath.work.walking.walkable_building import WalkableBuilding, body_of, map_of, marks, named, walkable_building

Array = npt.NDArray[np.float64]
T = Any

_ANSWER: TypeAdapter[RouteAnswer] = TypeAdapter(RouteAnswer)
_POINTS = {"at_m", "nearest_m", "point_m", "points_m"}


def _place(ground: WalkableBuilding, walk: WalkMap, wish: RoutePlace) -> Place:
    if wish.room is not None:
        return in_room(walk, ground.room(walk, wish.room))
    if wish.point_m is None:
        raise WrongError("A route needs a place to begin and one to end; give a room or a point for both.")
    return at_point(walk, ground.own(walk, wish.point_m), wish.label or "that point")


@dataclass(frozen=True)
class _Asked:
    """A wish with what it takes to answer it."""

    ground: WalkableBuilding
    walk: WalkMap
    start: Place
    end: Place
    limits: Limits
    marks: npt.NDArray[np.float32]


def _asked(act: UnitOfWork, project: Project, wish: RouteRequest) -> _Asked:
    body = body_of(project, wish.body)
    ground = walkable_building(act, project)
    walk = map_of(act, project, ground, body)
    try:
        limits = Limits(wish.width_limit_m, wish.height_limit_m)
        start, end = _place(ground, walk, wish.start), _place(ground, walk, wish.end)
    except (NoPlaceError, ValueError) as error:
        raise WrongError(str(error.args[0])) from error
    return _Asked(ground, walk, start, end, limits, marks(ground, body))


def _found(act: UnitOfWork, project: Project, wish: RouteRequest) -> RouteAnswer:
    asked = _asked(act, project, wish)
    ground = asked.ground
    answer = route(asked.walk, ground.space, asked.start, asked.end, wish.step_free, asked.limits, asked.marks)
    known = named(act, ground, answer.involved)
    document = route_document(answer, ground.about(asked.walk), known.__getitem__)
    return _ANSWER.validate_python({**document, "version": ground.version})


_OTHER: TypeAdapter[OtherWay] = TypeAdapter(OtherWay)


def others(project_id: str, wish: RouteRequest) -> list[OtherWay]:
    """The next best ways, the quickest first, each with what of the quickest it keeps away from."""
    with read_only() as act:
        asked = _asked(act, in_use(act, project_id), wish)
        ground = asked.ground
        found = route_others(
            asked.walk, ground.space, asked.start, asked.end, wish.step_free, asked.limits, asked.marks
        )
        known = named(act, ground, [c for o in found for c in (*o.avoids.components, *o.route.involved)])
        documents = [other_document(other, ground.about(asked.walk), known.__getitem__) for other in found]
        return [_OTHER.validate_python({**d, "answer": {**d["answer"], "version": ground.version}}) for d in documents]


def find(project_id: str, wish: RouteRequest) -> RouteAnswer:
    """The quickest way from one place to another for a body, or why there is none; about the project's origin."""
    with read_only() as act:
        return _found(act, in_use(act, project_id), wish)


def _moved(document: Any, by: Array) -> Any:
    """What is asked for or answered, with all its points moved: the browser counts about the project's origin."""
    if isinstance(document, list):
        return [_moved(value, by) for value in document]
    if not isinstance(document, dict):
        return document
    out = {key: _moved(value, by) for key, value in document.items()}
    for key in _POINTS & document.keys():
        if document[key]:
            out[key] = np.round(np.array(document[key]) + by, 4).tolist()
    return out


def moved(document: Any, kind: type[T], by: Array) -> T:
    """A wish or an answer with all its points moved."""
    adapter: TypeAdapter[T] = TypeAdapter(kind)
    return adapter.validate_python(_moved(adapter.dump_python(document, mode="json"), by))


def _origin(project: Project) -> Array:
    return np.array(building_of(project).origin_m)


def about_origin(row: SavedRoute, project: Project) -> SavedRoute:
    """A kept route as the browser counts: a copy about the project's origin."""
    return SavedRoute(
        id=row.id,
        project_id=row.project_id,
        name=row.name,
        author=row.author,
        created_at=row.created_at,
        wish=moved(row.wish, RouteRequest, -_origin(project)),
        answer=moved(row.answer, RouteAnswer, -_origin(project)),
    )


def listed(project_id: str) -> list[SavedRoute]:
    """The project's kept routes about its origin, newest first."""
    with read_only() as look:
        project = in_use(look, project_id)
        return [about_origin(row, project) for row in kept.routes(look.session, project.id)]


def keep(who: Who, project_id: str, name: str, wish: RouteRequest) -> SavedRoute:
    """Keep a route with its answer as of now, in the project's own coordinates, whatever its origin is later."""
    with unit_of_work(who) as act:
        project = in_use(act, project_id)
        answer = _found(act, project, wish)
        row = SavedRoute(
            project_id=project.id,
            name=name.strip() or "Untitled",
            author=who.said,
            wish=moved(wish, RouteRequest, _origin(project)),
            answer=moved(answer, RouteAnswer, _origin(project)),
        )
        kept.add(act.session, row)
        act.tell(project.id, "routes", what=row.id)
        return about_origin(row, project)


def one(route_id: str) -> tuple[SavedRoute, str]:
    """A kept route in the project's coordinates, and the project's name."""
    with read_only() as look:
        found = find_row(look, ROUTE, route_id)
        return found, look.project(found.project_id).name
