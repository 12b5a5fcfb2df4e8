"""The walk map of a project: making its tiles, keeping them, and putting them together again."""

from __future__ import annotations

import hashlib
import time
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import asdict, dataclass
from os import cpu_count

import numpy as np
import numpy.typing as npt
from sqlalchemy import delete, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from stairpath.core.federation.federate import Federation
from stairpath.core.walking.axes import Axes
from stairpath.core.walking.bodies import BODIES, Body
from stairpath.core.walking.clearance import Space
from stairpath.core.walking.grid import CELL_M
from stairpath.core.walking.landing import in_every_room
from stairpath.core.walking.solids import PASSABLE, Rule, solids_of
from stairpath.core.walking.tile import (
    VERSION,
    Place,
    Tile,
    ground_print,
    margin_m,
    pack,
    places,
    tile_print,
    tiles_at,
    unpack,
)
from stairpath.core.walking.walkmap import WalkMap, join
from stairpath.store import blobs
from stairpath.store.federations import federated
from stairpath.store.tables import Json, Model, Project, WalkTile

Ints = npt.NDArray[np.int64]

TILE_TYPE = "application/vnd.stairpath.walk-tile"


@dataclass(frozen=True)
class Building:
    """A project's building as one walks in it, in cells so large; ``models`` are its models' ids, in their order."""

    models: tuple[str, ...]
    cell_m: float
    federation: Federation
    space: Space


@dataclass(frozen=True)
class Made:
    """Tiles that were made and how many could be kept as they were."""

    axes: Axes
    cell_m: float
    seconds: float
    tiles: dict[tuple[str, Place], tuple[str, bytes]]
    kept: int
    wanted: frozenset[tuple[str, Place]]


def rule_of(project: Project) -> Rule:
    """What stands in the way in a project."""
    kept = project.walking or {}
    return Rule(frozenset(kept.get("passable", PASSABLE)), bool(kept.get("doors_locked", False)))


def bodies_of(project: Project) -> dict[str, Body]:
    """Who walks in a project: the usual bodies, and its own."""
    own = [Body(**body) for body in (project.walking or {}).get("bodies", [])]
    return {**BODIES, **{body.name: body for body in own}}


def cell_of(project: Project) -> float:
    """How large a cell of the project's walk map is to be, in metres."""
    return float((project.walking or {}).get("cell_m", CELL_M))


def set_walking(project: Project, rule: Rule, cell_m: float, own: Sequence[Body]) -> None:
    """Change what stands in the way, how fine the map is and who walks; the map is to be made again."""
    before = project.walking or {}
    project.walking = {
        **before,
        "passable": sorted(rule.passable),
        "doors_locked": rule.doors_locked,
        "cell_m": cell_m,
        "bodies": [asdict(body) for body in own],
        "revision": int(before.get("revision", 0)) + 1,
    }


def wanted_map(project: Project) -> list[int]:
    """What the map is to be made for: the federation's version, the rule's, and that of how tiles are made."""
    return [project.version, int((project.walking or {}).get("revision", 0)), VERSION]


def map_of(project: Project) -> Json:
    """What is known of the walk map that was made last; empty before there was one."""
    return (project.walking or {}).get("map") or {}


def is_current(project: Project) -> bool:
    """Whether the walk map is that of the building as it stands."""
    return bool(map_of(project).get("made_for") == wanted_map(project))


def outdated_maps(session: Session) -> list[str]:
    """Projects that were federated and whose walk map is not of that federation."""
    projects = session.scalars(select(Project).where(Project.federation.is_not(None)))
    return [project.id for project in projects if not is_current(project)]


def load_building(session: Session, project: Project) -> Building:
    """The project's building from what was read of its models."""
    models, federation = federated(session, project.id)
    space = Space(solids_of(federation, rule_of(project)))
    return Building(tuple(m.id for m in models), cell_of(project), federation, space)


def component_names(building: Building) -> list[tuple[str, str]]:
    """Model and GlobalId of every component, counted over all models."""
    return [
        (model_id, global_id)
        for model_id, model in zip(building.models, building.federation.models, strict=True)
        for global_id in model.outline.global_ids
    ]


def _hashes(names: Sequence[tuple[str, str]]) -> Ints:
    """A number for each component that stays whatever the order of models."""
    digests = (hashlib.blake2b(f"{a}/{b}".encode(), digest_size=8).digest() for a, b in names)
    return np.frombuffer(b"".join(digests), dtype=np.int64)


def kept_prints(session: Session, project_id: str) -> dict[tuple[str, Place], str]:
    """What the tiles that are kept were made of."""
    rows = session.scalars(select(WalkTile).where(WalkTile.project_id == project_id))
    return {(row.body, (row.x, row.y)): row.made_of for row in rows}


def make_tiles(building: Building, bodies: Sequence[Body], kept: dict[tuple[str, Place], str]) -> Made:
    """Make the tiles that changed, over all processors."""
    before = time.perf_counter()
    space = building.space
    names = component_names(building)
    hashes = _hashes(names)
    cell_m = building.cell_m
    margins = {body.name: margin_m([body], cell_m) for body in bodies}

    def make(place: Place) -> list[tuple[tuple[str, Place], str, bytes | None]]:
        grounds = {margin: ground_print(space, place, margin, hashes, cell_m) for margin in set(margins.values())}
        prints = {body.name: tile_print(grounds[margins[body.name]], body, cell_m) for body in bodies}
        changed = [body for body in bodies if kept.get((body.name, place)) != prints[body.name]]
        made = tiles_at(space, place, changed, cell_m) if changed else []
        packed = {
            body.name: pack(tile, [names[c] for c in tile.components]) for body, tile in zip(changed, made, strict=True)
        }
        return [((body.name, place), prints[body.name], packed.get(body.name)) for body in bodies]

    with ThreadPoolExecutor(cpu_count()) as threads:
        rows = [row for made in threads.map(make, places(space, cell_m)) for row in made]
    return Made(
        space.solids.axes,
        cell_m,
        time.perf_counter() - before,
        {key: (made_of, data) for key, made_of, data in rows if data is not None},
        sum(data is None for _, _, data in rows),
        frozenset(key for key, _, _ in rows),
    )


def _stands(session: Session, project: Project, building: Building) -> list[Json]:
    """Where somebody standing comes to stand in each room, in project coordinates."""
    walk = load_map(session, project.id, building, BODIES["standing"])
    return [
        {
            "room": index,
            "at_m": walk.axes.to_project(walk.place(landing.floor)).round(4).tolist(),
            "bearing_deg": landing.bearing_deg(walk),
        }
        for index, landing in in_every_room(walk, building.federation).items()
    ]


def keep_map(session: Session, project: Project, building: Building, made: Made, made_for: list[int]) -> None:
    """Keep the tiles that were made in place of what there was, and where to stand in rooms; one transaction."""
    for (body, (x, y)), (made_of, data) in made.tiles.items():
        values = {"made_of": made_of, "sha256": blobs.keep(session, data, TILE_TYPE), "size": len(data)}
        row = insert(WalkTile).values(project_id=project.id, body=body, x=x, y=y, **values)
        session.execute(row.on_conflict_do_update(index_elements=["project_id", "body", "x", "y"], set_=values))
    for body, (x, y) in kept_prints(session, project.id).keys() - made.wanted:
        session.execute(
            delete(WalkTile).where(
                WalkTile.project_id == project.id, WalkTile.body == body, WalkTile.x == x, WalkTile.y == y
            )
        )
    summary: Json = {
        "made_for": made_for,
        "origin_m": list(made.axes.origin_m),
        "bearing_deg": made.axes.bearing_deg,
        "cell_m": made.cell_m,
        "seconds": made.seconds,
        "made": len(made.tiles),
        "kept": made.kept,
        "stands": _stands(session, project, building),
    }
    project.walking = {**(project.walking or {}), "map": summary}


def tiles_of(session: Session, project_id: str, body: str | None = None) -> list[WalkTile]:
    """The rows of a project's tiles, for one body or all."""
    wanted = select(WalkTile).where(WalkTile.project_id == project_id).order_by(WalkTile.body, WalkTile.y, WalkTile.x)
    return list(session.scalars(wanted if body is None else wanted.where(WalkTile.body == body)))


def load_map(session: Session, project_id: str, building: Building, body: Body) -> WalkMap:
    """A body's walk map from its tiles, with the federation's numbers for components."""
    number = {name: k for k, name in enumerate(component_names(building))}
    tiles: list[Tile] = []
    known: dict[Place, Ints] = {}
    for row in tiles_of(session, project_id, body.name):
        found = blobs.load(session, row.sha256)
        if found is not None:
            tile, names = unpack(found[0])
            tiles.append(tile)
            known[tile.place] = np.array([number.get((n[0], n[1]), -1) for n in names], dtype=np.int64)
    return join(tiles, body, building.space.solids.axes, building.cell_m, lambda tile: known[tile.place])


def models_of(session: Session, building: Building) -> dict[str, Model]:
    """The building's models by id."""
    return {m.id: m for m in session.scalars(select(Model).where(Model.id.in_(building.models)))}
