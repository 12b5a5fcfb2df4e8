"""The walk map's tiles, and what is kept about the map."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import replace

from sqlalchemy import delete, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from stairpath.core.walking.tile import VERSION, Place
from stairpath.store import blobs
from stairpath.store.documents import MapNote, Walking
from stairpath.store.tables import Project, WalkTile

TILE_TYPE = "application/vnd.stairpath.walk-tile"


def walking_of(project: Project) -> Walking:
    """How one walks in a project."""
    return project.walking or Walking()


def wanted_map(project: Project) -> list[int]:
    """What the map is to be made for: the federation's version, the rule's, and that of how tiles are made."""
    return [project.version, walking_of(project).revision, VERSION]


def is_current(project: Project) -> bool:
    """Whether the walk map is that of the building as it stands."""
    made = walking_of(project).map
    return made is not None and made.made_for == wanted_map(project)


def kept_prints(session: Session, project_id: str) -> dict[tuple[str, Place], str]:
    """What the tiles that are kept were made of."""
    rows = session.scalars(select(WalkTile).where(WalkTile.project_id == project_id))
    return {(row.body, (row.x, row.y)): row.made_of for row in rows}


def tiles_of(session: Session, project_id: str, body: str) -> list[WalkTile]:
    """The rows of a project's tiles for one body."""
    wanted = select(WalkTile).where(WalkTile.project_id == project_id, WalkTile.body == body)
    return list(session.scalars(wanted.order_by(WalkTile.y, WalkTile.x)))


def keep_tiles(
    session: Session,
    project_id: str,
    tiles: Mapping[tuple[str, Place], tuple[str, bytes]],
    wanted: Iterable[tuple[str, Place]],
) -> None:
    """Keep tiles that were made, with what they are made of, and delete those that nobody wants any more."""
    for (body, (x, y)), (made_of, data) in tiles.items():
        values = {"made_of": made_of, "sha256": blobs.keep(session, project_id, data, TILE_TYPE), "size": len(data)}
        row = insert(WalkTile).values(project_id=project_id, body=body, x=x, y=y, **values)
        session.execute(row.on_conflict_do_update(index_elements=["project_id", "body", "x", "y"], set_=values))
    for body, (x, y) in kept_prints(session, project_id).keys() - set(wanted):
        session.execute(
            delete(WalkTile).where(
                WalkTile.project_id == project_id, WalkTile.body == body, WalkTile.x == x, WalkTile.y == y
            )
        )


def keep_note(project: Project, note: MapNote) -> None:
    """Keep what is known of the map that was made."""
    project.walking = replace(walking_of(project), map=note)
    project.making = None
