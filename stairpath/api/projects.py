"""Projects: the start page, the federation to draw, and what changed."""

from __future__ import annotations

import asyncio
from collections.abc import AsyncIterator

import psycopg
from fastapi import APIRouter, HTTPException, Request
from fastapi.responses import StreamingResponse
from sqlalchemy import func, select

from stairpath.api import shapes
from stairpath.api.lookups import Database, TheProject
from stairpath.core.federation.disciplines import DISCIPLINES
from stairpath.core.visibility.colours import base_colour
from stairpath.settings import settings
from stairpath.store.database import CHANNEL, tell
from stairpath.store.federations import live_models
from stairpath.store.tables import Chunk, Component, Model, Project

router = APIRouter(prefix="/api/projects", tags=["projects"])

_BEAT_S = 15.0


@router.get("")
def list_projects(database: Database) -> list[shapes.ProjectCard]:
    """Every project, newest first."""
    counts = (
        select(
            Model.project_id,
            func.count(func.distinct(Model.id)).label("models"),
            func.count(Component.ordinal).label("components"),
            func.count(func.distinct(Model.id)).filter(Model.status.in_(("waiting", "reading"))).label("reading"),
        )
        .outerjoin(Component, Component.model_id == Model.id)
        .where(Model.removed_at.is_(None))
        .group_by(Model.project_id)
        .subquery()
    )
    rows = database.execute(
        select(Project, counts.c.models, counts.c.components, counts.c.reading)
        .outerjoin(counts, counts.c.project_id == Project.id)
        .order_by(Project.created_at.desc())
    )
    return [
        shapes.ProjectCard(
            id=project.id,
            name=project.name,
            created_at=project.created_at,
            created_by=project.created_by,
            picture=project.picture,
            models=models or 0,
            components=components or 0,
            reading=reading or 0,
        )
        for project, models, components, reading in rows
    ]


@router.post("", status_code=201)
def make_project(database: Database, wish: shapes.NewProject) -> shapes.ProjectCard:
    """Make an empty project; its models are added to it one file at a time."""
    name = wish.name.strip()
    if not name:
        raise HTTPException(422, "A project needs a name; type one.")
    project = Project(name=name, created_by=wish.author)
    database.add(project)
    database.flush()
    return shapes.ProjectCard(
        id=project.id, name=project.name, created_at=project.created_at, created_by=project.created_by,
        picture=None, models=0, components=0, reading=0,
    )  # fmt: skip


def _rows_of(matrix: list[list[float]], centre: list[float], origin: list[float]) -> list[float]:
    """Row-major 3 x 4: a chunk's own zero to the project's origin, worked out in double precision."""
    out: list[float] = []
    for row in range(3):
        turn = matrix[row][:3]
        shift = matrix[row][3] + sum(turn[i] * centre[i] for i in range(3)) - origin[row]
        out += [*turn, shift]
    return out


@router.get("/{project_id}/federation")
def get_federation(database: Database, project: TheProject) -> shapes.Federation:
    """What the stage draws: models, components by dense number, chunks to fetch."""
    kept = project.federation or {
        "origin_m": [0, 0, 0], "bounds_m": None, "building_north_deg": 0.0, "true_north_deg": None, "levels": [], "rooms": [],
    }  # fmt: skip
    origin: list[float] = kept["origin_m"]
    colours: dict[str, int] = {}
    models: list[shapes.FederatedModel] = []
    first = 0
    for model in live_models(database, project.id):
        placed = model.placed
        if placed is None:
            continue
        rows = database.execute(
            select(
                Component.global_id,
                Component.tag,
                Component.name,
                Component.ifc_class,
                Component.level,
                Component.discipline,
            )
            .where(Component.model_id == model.id)
            .order_by(Component.ordinal)
        ).all()
        chunks = database.scalars(select(Chunk).where(Chunk.model_id == model.id).order_by(Chunk.number)).all()
        alternative = placed["alternative"] or {"what": None, "option": None}
        models.append(
            shapes.FederatedModel(
                id=model.id,
                name=model.name,
                first=first,
                stands=model.stands,
                alternative_what=alternative["what"],
                alternative_option=alternative["option"],
                global_ids=[r.global_id for r in rows],
                labels=[r.tag or r.name or r.ifc_class for r in rows],
                level=[-1 if r.level is None else r.level for r in rows],
                discipline=[r.discipline or 0 for r in rows],
                colour=[colours.setdefault(base_colour(r.discipline or 0, r.ifc_class), len(colours)) for r in rows],
                chunks=[
                    shapes.ChunkPlace(
                        sha256=c.sha256,
                        matrix=_rows_of(placed["matrix"], c.centre_m, origin),
                        bounds_m=c.bounds_m,
                        triangles=c.triangles,
                        size=c.size,
                    )
                    for c in chunks
                ],
            )
        )
        first += len(rows)
    return shapes.Federation(
        id=project.id,
        name=project.name,
        version=project.version,
        origin_m=origin,
        bounds_m=kept["bounds_m"],
        building_north_deg=kept["building_north_deg"],
        true_north_deg=kept["true_north_deg"],
        disciplines=[shapes.Discipline(code=d.code, name=d.name, colour=d.colour) for d in DISCIPLINES],
        levels=[shapes.Level(**level) for level in kept["levels"]],
        rooms=[shapes.RoomLabel(number=r["number"], name=r["name"], level=r["level"]) for r in kept["rooms"]],
        colours=list(colours),
        models=models,
        home=shapes.Home.model_validate(project.home) if project.home else None,
    )


@router.put("/{project_id}/home", status_code=204)
def set_home(database: Database, project: TheProject, home: shapes.Home) -> None:
    """Say which view everybody comes home to."""
    project.home = home.model_dump(mode="json")
    tell(database, project.id)


@router.delete("/{project_id}/home", status_code=204)
def forget_home(database: Database, project: TheProject) -> None:
    """Let the front view be home again."""
    project.home = None
    tell(database, project.id)


@router.get("/{project_id}/events")
async def follow(project_id: str, request: Request) -> StreamingResponse:
    """Server-sent events: ``changed`` whenever something of the project was written."""

    async def stream() -> AsyncIterator[str]:
        async with await psycopg.AsyncConnection.connect(settings().database_url, autocommit=True) as connection:
            await connection.execute(f"LISTEN {CHANNEL}")
            yield "event: changed\ndata: {}\n\n"
            while not await request.is_disconnected():
                heard = False
                async for note in connection.notifies(timeout=_BEAT_S, stop_after=1):
                    heard = note.payload == project_id
                yield "event: changed\ndata: {}\n\n" if heard else ": beat\n\n"
                await asyncio.sleep(0.1)

    return StreamingResponse(stream(), media_type="text/event-stream", headers={"Cache-Control": "no-store"})
