"""Routes: finding one, keeping it, and handing it on in open formats."""

from __future__ import annotations

import json
from dataclasses import asdict
from typing import Any, Literal

from fastapi import APIRouter, BackgroundTasks
from fastapi.responses import Response

from stairpath.api import schemas
from stairpath.api.http.caller import Asker
from stairpath.api.http.door import asks
from stairpath.api.http.downloads import named
from stairpath.api.http.errors import ERROR_RESPONSES
from stairpath.core.people.roles import Action
from stairpath.core.register.table import CSV_ENCODING, Cell, as_csv
from stairpath.core.walking.route_answer import OtherWay, RouteAnswer, RouteRequest
from stairpath.work.base import deleting
from stairpath.work.base.lookup import ROUTE
from stairpath.work.walking import routes, walk
from stairpath.work.walking.routes import SavedRoute

router = APIRouter(prefix="/api", tags=["routes"], responses=ERROR_RESPONSES)


@router.post("/projects/{project_id}/routes/find")
@asks(Action.LOOK)
def find_route(project_id: str, wish: RouteRequest) -> RouteAnswer:
    """The quickest way from one place to another for a body, or why there is none."""
    return routes.find(project_id, wish)


@router.post("/projects/{project_id}/routes/others")
@asks(Action.LOOK)
def find_others(project_id: str, wish: RouteRequest) -> list[OtherWay]:
    """The next best ways, the quickest first, and what of the quickest each keeps away from."""
    return routes.others(project_id, wish)


@router.post("/projects/{project_id}/routes/ready", status_code=202)
@asks(Action.LOOK)
def get_ready(project_id: str, background: BackgroundTasks, body: str = "standing") -> None:
    """Say that routes will be asked for: the map is loaded into memory."""
    walk.check_body(project_id, body)
    background.add_task(walk.make_ready, project_id, body)


def _shape(kept: SavedRoute) -> schemas.SavedRoute:
    return schemas.SavedRoute(
        id=kept.id,
        name=kept.name,
        author=kept.author,
        created_at=kept.created_at,
        wish=kept.wish,
        answer=kept.answer,
    )


@router.get("/projects/{project_id}/routes")
@asks(Action.LOOK)
def list_routes(project_id: str) -> list[schemas.SavedRoute]:
    """The project's kept routes, newest first."""
    return [_shape(row) for row in routes.listed(project_id)]


@router.post("/projects/{project_id}/routes", status_code=201)
@asks(Action.ARRANGE)
def keep_route(who: Asker, project_id: str, wish: schemas.NewRoute) -> schemas.SavedRoute:
    """Keep a route with its answer as of now."""
    return _shape(routes.keep(who, project_id, wish.name, wish.wish))


@router.delete("/routes/{route_id}", status_code=204)
@asks(Action.ARRANGE)
def delete_route(who: Asker, route_id: str) -> None:
    """Delete a kept route; it can be restored."""
    deleting.delete(who, ROUTE, route_id)


@router.post("/routes/{route_id}/restore", status_code=204)
@asks(Action.ARRANGE)
def restore_route(who: Asker, route_id: str) -> None:
    """Bring back a route that was deleted."""
    deleting.restore(who, ROUTE, route_id)


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


def _csv(answer: dict[str, Any]) -> bytes:
    rows: list[list[Cell]] = [["what", "size_m", "along_m", "x_m", "y_m", "z_m", "components", "global_ids"]]
    for pinch in answer["pinches"]:
        labels = "; ".join(f"{c['label']} ({c['model_name']})" for c in pinch["components"])
        rows.append([pinch["what"], pinch["size_m"], pinch["along_m"], *pinch["at_m"], labels, "; ".join(_ids(pinch))])
    return as_csv(rows).encode(CSV_ENCODING)


_TYPES = {"json": "application/json", "geojson": "application/geo+json", "csv": "text/csv; charset=utf-8"}


@router.get(
    "/routes/{route_id}/{form}",
    response_class=Response,
    responses={200: {"content": {kind: {} for kind in _TYPES.values()}, "description": "The route in that form."}},
)
@asks(Action.LOOK)
def hand_on_route(route_id: str, form: Literal["json", "geojson", "csv"]) -> Response:
    """A kept route as JSON, as GeoJSON, or its pinches as CSV; coordinates are those of the project."""
    kept, project = routes.one(route_id)
    answer, wish = asdict(kept.answer), asdict(kept.wish)
    about = {"name": kept.name, "author": kept.author, "project": project, "body": kept.wish.body}
    text: str | bytes
    if form == "json":
        text = json.dumps({**about, "wish": wish, **answer}, ensure_ascii=False)
    elif form == "geojson":
        text = _geojson(answer, about)
    else:
        text = _csv(answer)
    return Response(text, media_type=_TYPES[form], headers=named(f"{kept.name}.{form}"))
