"""Routes: finding one, keeping it, and handing it on in open formats."""

from __future__ import annotations

import csv
import io
import json
from datetime import UTC, datetime
from typing import Any, Literal
from urllib.parse import quote

import numpy as np
import numpy.typing as npt
from fastapi import APIRouter, BackgroundTasks, HTTPException
from fastapi.responses import Response
from sqlalchemy import select
from sqlalchemy.orm import Session

from stairpath.api import shapes
from stairpath.api.buildings import Ground, body_of, ground_of, make_ready, map_of, marks, named
from stairpath.api.lookups import Database, TheProject
from stairpath.core.walking.place import NoPlaceError, Place, at_point, in_room
from stairpath.core.walking.report import route_document
from stairpath.core.walking.route import Limits, route
from stairpath.core.walking.walkmap import WalkMap
from stairpath.store.database import tell
from stairpath.store.tables import Project, SavedRoute

router = APIRouter(prefix="/api", tags=["routes"])

Array = npt.NDArray[np.float64]

_POINTS = {"at_m", "nearest_m", "point_m", "points_m"}


def _place(ground: Ground, walk: WalkMap, wish: shapes.RoutePlace) -> Place:
    if wish.room is not None:
        return in_room(walk, ground.room(walk, wish.room))
    if wish.point_m is None:
        raise HTTPException(422, "A route needs a place to begin and one to end; give a room or a point for both.")
    return at_point(walk, ground.own(walk, wish.point_m), wish.label or "that point")


def _found(database: Session, project: Project, wish: shapes.RouteWish) -> shapes.RouteAnswer:
    body = body_of(project, wish.body)
    ground = ground_of(database, project)
    walk = map_of(database, project, ground, body)
    try:
        limits = Limits(wish.width_limit_m, wish.height_limit_m)
        start, end = _place(ground, walk, wish.start), _place(ground, walk, wish.end)
    except (NoPlaceError, ValueError) as error:
        raise HTTPException(422, str(error.args[0])) from error
    answer = route(walk, ground.building.space, start, end, wish.step_free, limits, marks(ground, body))
    known = named(database, ground, answer.involved)
    document = route_document(answer, ground.about(walk), known.__getitem__)
    return shapes.RouteAnswer.model_validate({**document, "version": project.version})


@router.post("/projects/{project_id}/routes/find")
def find_route(database: Database, project: TheProject, wish: shapes.RouteWish) -> shapes.RouteAnswer:
    """The quickest way from one place to another for a body, or why there is none."""
    return _found(database, project, wish)


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


def _origin(project: Project) -> Array:
    return np.array((project.federation or {}).get("origin_m", [0.0, 0.0, 0.0]))


@router.post("/projects/{project_id}/routes/ready", status_code=202)
def get_ready(project: TheProject, background: BackgroundTasks, body: str = "standing") -> None:
    """Say that routes will be asked for: the map is brought into memory meanwhile."""
    body_of(project, body)
    background.add_task(make_ready, project.id, body)


def _shape(kept: SavedRoute, project: Project) -> shapes.SavedRoute:
    return shapes.SavedRoute(
        id=kept.id,
        name=kept.name,
        author=kept.author,
        created_at=kept.created_at,
        wish=shapes.RouteWish.model_validate(_moved(kept.wish, -_origin(project))),
        answer=shapes.RouteAnswer.model_validate(_moved(kept.answer, -_origin(project))),
    )


@router.get("/projects/{project_id}/routes")
def list_routes(database: Database, project: TheProject) -> list[shapes.SavedRoute]:
    """The project's kept routes, newest first."""
    rows = database.scalars(
        select(SavedRoute)
        .where(SavedRoute.project_id == project.id, SavedRoute.removed_at.is_(None))
        .order_by(SavedRoute.created_at.desc())
    )
    return [_shape(row, project) for row in rows]


@router.post("/projects/{project_id}/routes", status_code=201)
def keep_route(database: Database, project: TheProject, wish: shapes.NewRoute) -> shapes.SavedRoute:
    """Keep a route with its answer as of now, in the project's own coordinates, whatever its origin is later."""
    answer = _found(database, project, wish.wish)
    kept = SavedRoute(
        project_id=project.id,
        name=wish.name.strip() or "Untitled",
        author=wish.author,
        wish=_moved(wish.wish.model_dump(mode="json"), _origin(project)),
        answer=_moved(answer.model_dump(mode="json"), _origin(project)),
    )
    database.add(kept)
    database.flush()
    tell(database, project.id)
    return _shape(kept, project)


def _kept(database: Session, route_id: str) -> SavedRoute:
    found = database.get(SavedRoute, route_id)
    if found is None or found.removed_at is not None:
        raise HTTPException(404, "There is no such route; it may have been deleted.")
    return found


@router.delete("/routes/{route_id}", status_code=204)
def delete_route(database: Database, route_id: str) -> None:
    """Delete a kept route; it can be restored."""
    found = _kept(database, route_id)
    found.removed_at = datetime.now(UTC)
    tell(database, found.project_id)


@router.post("/routes/{route_id}/restore", status_code=204)
def restore_route(database: Database, route_id: str) -> None:
    """Bring back a route that was deleted."""
    found = database.get(SavedRoute, route_id)
    if found is None:
        raise HTTPException(404, "There is no such route; it may have been made in another project.")
    found.removed_at = None
    tell(database, found.project_id)


def _feature(kind: str, coordinates: list[Any], properties: dict[str, Any]) -> dict[str, Any]:
    return {
        "type": "Feature",
        "geometry": {"type": kind, "coordinates": coordinates},
        "properties": properties,
    }


def _ids(document: dict[str, Any]) -> list[str]:
    return [c["global_id"] for c in document["components"]]


def _geojson(answer: dict[str, Any], about: dict[str, Any]) -> str:
    """The way and its pinches as GeoJSON features, or where it ends and why; coordinates in the project's own metres."""
    if blocked := answer["blocked"]:
        ends = {**about, "kind": blocked["kind"], "needs": blocked["needs"], "components": _ids(blocked)}
        features = [_feature("Point", blocked["nearest_m"], ends)]
    else:
        figures = {key: answer[key] for key in ("length_m", "rise_m", "descent_m", "risers", "time_s")}
        features = [_feature("LineString", answer["points_m"], {**about, **figures})]
    for pinch in answer["pinches"]:
        tight = {"what": pinch["what"], "size_m": pinch["size_m"], "components": _ids(pinch)}
        features.append(_feature("Point", pinch["at_m"], tight))
    return json.dumps({"type": "FeatureCollection", "features": features}, ensure_ascii=False)


def _csv(answer: dict[str, Any]) -> str:
    out = io.StringIO()
    rows = csv.writer(out)
    rows.writerow(["what", "size_m", "along_m", "x_m", "y_m", "z_m", "components", "global_ids"])
    for pinch in answer["pinches"]:
        labels = "; ".join(f"{c['label']} ({c['model_name']})" for c in pinch["components"])
        rows.writerow(
            [pinch["what"], pinch["size_m"], pinch["along_m"], *pinch["at_m"], labels, "; ".join(_ids(pinch))]
        )
    return out.getvalue()


_TYPES = {"json": "application/json", "geojson": "application/geo+json", "csv": "text/csv; charset=utf-8"}


@router.get("/routes/{route_id}/{form}", response_class=Response)
def hand_on_route(database: Database, route_id: str, form: Literal["json", "geojson", "csv"]) -> Response:
    """A kept route as JSON, as GeoJSON, or its pinches as CSV; coordinates are those of the project."""
    kept = _kept(database, route_id)
    project = database.get_one(Project, kept.project_id)
    answer = kept.answer
    about = {"name": kept.name, "author": kept.author, "project": project.name, "body": kept.wish["body"]}
    if form == "json":
        text = json.dumps({**about, "wish": kept.wish, **answer}, ensure_ascii=False)
    elif form == "geojson":
        text = _geojson(answer, about)
    else:
        text = _csv(answer)
    name = quote(f"{kept.name}.{form}")
    return Response(
        text, media_type=_TYPES[form], headers={"Content-Disposition": f"attachment; filename*=UTF-8''{name}"}
    )
