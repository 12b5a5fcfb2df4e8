"""Buildings to walk in, the last ones kept in memory."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from threading import Lock
from typing import Any

import numpy as np
import numpy.typing as npt
from fastapi import HTTPException
from sqlalchemy import select, tuple_
from sqlalchemy.orm import Session

from stairpath.api import shapes
from stairpath.core.walking.axes import Axes
from stairpath.core.walking.bodies import Body
from stairpath.core.walking.place import Room, room_of
from stairpath.core.walking.search import marks_of
from stairpath.core.walking.walkmap import WalkMap
from stairpath.store import walks
from stairpath.store.database import transaction
from stairpath.store.tables import Component, Project

Array = npt.NDArray[np.float64]

_KEPT_BUILDINGS = 2


@dataclass
class Ground:
    """A building with its walk maps as far as they were asked for."""

    building: walks.Building
    names: list[tuple[str, str]]
    maps: dict[Body, WalkMap] = field(default_factory=dict)
    marks: dict[Body, npt.NDArray[np.float32]] = field(default_factory=dict)
    lock: Lock = field(default_factory=Lock)
    marks_lock: Lock = field(default_factory=Lock)
    """Marks take seconds, in which others walk on the same maps."""

    def about(self, walk: WalkMap) -> Axes:
        """The map's axes about the project's origin, as the browser counts."""
        origin = np.array(walk.axes.origin_m) - self.building.federation.origin_m
        return replace(walk.axes, origin_m=tuple(origin.tolist()))

    def own(self, walk: WalkMap, point: list[float]) -> Array:
        """A point of the browser along the map's axes."""
        return self.about(walk).to_own(np.array(point))

    def room(self, walk: WalkMap, index: int | None) -> Room:
        """A room by its place in the federation's rooms; refused if there is none."""
        federation = self.building.federation
        if index is None or not 0 <= index < len(federation.rooms):
            raise HTTPException(404, "There is no such room; reload the page.")
        return room_of(federation, walk.axes, index)


_kept: OrderedDict[tuple[Any, ...], Ground] = OrderedDict()
_lock = Lock()


def body_of(project: Project, name: str) -> Body:
    """Who walks, by name."""
    bodies = walks.bodies_of(project)
    if name not in bodies:
        raise HTTPException(404, f"Nobody called {name} walks here; take {', '.join(bodies)}.")
    return bodies[name]


def ground_of(database: Session, project: Project) -> Ground:
    """The building of a project as it stands; refused while its walk map is being made."""
    if project.federation is None:
        raise HTTPException(409, "There is no model to walk in yet; add one and wait until it is read.")
    if not walks.is_current(project):
        raise HTTPException(409, "The walk map is being made; try again in a moment.")
    key = (project.id, *walks.wanted_map(project))
    with _lock:
        if key in _kept:
            _kept.move_to_end(key)
            return _kept[key]
        building = walks.load_building(database, project)
        ground = Ground(building, walks.component_names(building))
        _kept[key] = ground
        while len(_kept) > _KEPT_BUILDINGS:
            _kept.popitem(last=False)
        return ground


def map_of(database: Session, project: Project, ground: Ground, body: Body) -> WalkMap:
    """A body's walk map in a building."""
    with ground.lock:
        if body not in ground.maps:
            ground.maps[body] = walks.load_map(database, project.id, ground.building, body)
        return ground.maps[body]


def marks(ground: Ground, body: Body) -> npt.NDArray[np.float32]:
    """What finds routes fast on a body's map."""
    with ground.marks_lock:
        if body not in ground.marks:
            ground.marks[body] = marks_of(ground.maps[body])
        return ground.marks[body]


def make_ready(project_id: str, body_name: str) -> None:
    """Have everything in memory that a route needs, so that the first one does not wait for it."""
    with transaction() as database:
        project = database.get(Project, project_id)
        if project is not None and project.federation is not None and walks.is_current(project):
            body = body_of(project, body_name)
            ground = ground_of(database, project)
            map_of(database, project, ground, body)
            marks(ground, body)


def named(database: Session, ground: Ground, components: Iterable[int]) -> dict[int, shapes.NamedComponent]:
    """Components by the federation's numbers with what one calls them; unknown ones are left out."""
    known = {c: ground.names[c] for c in set(components) if 0 <= c < len(ground.names)}
    if not known:
        return {}
    rows = database.execute(
        select(Component.model_id, Component.global_id, Component.tag, Component.name, Component.ifc_class).where(
            tuple_(Component.model_id, Component.global_id).in_(known.values())
        )
    )
    labels = {(model_id, global_id): _label(*called) for model_id, global_id, *called in rows}
    models = walks.models_of(database, ground.building)
    out: dict[int, shapes.NamedComponent] = {}
    for component, (model_id, global_id) in known.items():
        model = models.get(model_id)
        out[component] = shapes.NamedComponent(
            model=model_id,
            model_name=model.name if model else "",
            discipline=(model.placed or {}).get("discipline") if model else None,
            global_id=global_id,
            label=labels.get((model_id, global_id), global_id),
        )
    return out


def _label(tag: str, name: str, ifc_class: str) -> str:
    return name if tag and tag in name else " ".join(part for part in (name, tag) if part) or ifc_class
