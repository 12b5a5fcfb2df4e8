"""Buildings to walk in, the last ones kept in memory."""

from __future__ import annotations

import hashlib
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace
from threading import Lock
from typing import Any

import numpy as np
import numpy.typing as npt

from stairpath.core.cache import Cache
from stairpath.core.component_ref import NamedComponent
from stairpath.core.federation.federate import Federation
from stairpath.core.geometry.axes import Axes
from stairpath.core.visibility.traits import full_label_of
from stairpath.core.walking.bodies import BODIES, Body
from stairpath.core.walking.clearance import Space
from stairpath.core.walking.place import Room, room_of
from stairpath.core.walking.search import marks_of
from stairpath.core.walking.solids import Rule, solids_of
from stairpath.core.walking.tile import Place, Tile, unpack
from stairpath.core.walking.walkmap import WalkMap, join
from stairpath.store import blobs, components, federations, models, walks
from stairpath.store.database import Session
from stairpath.store.tables import Project
from stairpath.work.base.errors import MissingError, UnfitError
from stairpath.work.base.unit_of_work import UnitOfWork

Array = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]


def rule_of(project: Project) -> Rule:
    """What stands in the way in a project."""
    walking = walks.walking_of(project)
    return Rule(frozenset(walking.passable), walking.doors_locked)


def bodies_of(project: Project) -> dict[str, Body]:
    """Who walks in a project: the usual bodies, and its own."""
    return {**BODIES, **{body.name: body for body in walks.walking_of(project).bodies}}


def body_of(project: Project, name: str) -> Body:
    """Who walks, by name."""
    bodies = bodies_of(project)
    if name not in bodies:
        raise MissingError(f"Nobody called {name} walks here; take {', '.join(bodies)}.")
    return bodies[name]


def names_in(models: Sequence[str], federation: Federation) -> list[tuple[str, str]]:
    """Model and GlobalId of every component of a building whose models have these ids, counted over all models."""
    return [
        (model_id, global_id)
        for model_id, model in zip(models, federation.models, strict=True)
        for global_id in model.outline.global_ids
    ]


def names_of(project: Project, federation: Federation) -> list[tuple[str, str]]:
    """Model and GlobalId of every component, counted over all models."""
    return names_in(project.federation.models if project.federation else (), federation)


def name_numbers(names: Sequence[tuple[str, str]]) -> Ints:
    """A number for each component that stays whatever the order of models."""
    digests = (hashlib.blake2b(f"{a}/{b}".encode(), digest_size=8).digest() for a, b in names)
    return np.frombuffer(b"".join(digests), dtype=np.int64)


def load_map(
    session: Session, project: Project, names: Sequence[tuple[str, str]], axes: Axes, cell_m: float, body: Body
) -> WalkMap:
    """A body's walk map from its tiles, with the federation's numbers for components."""
    number = {name: k for k, name in enumerate(names)}
    tiles: list[Tile] = []
    known: dict[Place, Ints] = {}
    for row in walks.tiles_of(session, project.id, body.name):
        found = blobs.load(session, row.sha256)
        if found is not None:
            tile, called = unpack(found[0])
            tiles.append(tile)
            known[tile.place] = np.array([number.get((n[0], n[1]), -1) for n in called], dtype=np.int64)
    return join(tiles, body, axes, cell_m, lambda tile: known[tile.place])


@dataclass(frozen=True)
class Standing:
    """A building as it stands, whether it can be walked in or not: what is in the way, and what components are called."""

    version: int
    federation: Federation
    space: Space
    names: list[tuple[str, str]]


@dataclass
class WalkableBuilding:
    """A building with its walk maps as far unchanged asked for."""

    version: int
    federation: Federation
    space: Space
    names: list[tuple[str, str]]
    axes: Axes
    """The axes of the map, as it was made last."""
    cell_m: float
    maps: dict[Body, WalkMap] = field(default_factory=dict)
    marks: dict[Body, npt.NDArray[np.float32]] = field(default_factory=dict)
    lock: Lock = field(default_factory=Lock)
    marks_lock: Lock = field(default_factory=Lock)
    """Marks take seconds, in which others walk on the same maps."""

    def about(self, walk: WalkMap) -> Axes:
        """The map's axes about the project's origin, as the browser counts."""
        origin = np.array(walk.axes.origin_m) - self.federation.origin_m
        return replace(walk.axes, origin_m=tuple(origin.tolist()))

    def own(self, walk: WalkMap, point: Sequence[float]) -> Array:
        """A point of the browser along the map's axes."""
        return self.about(walk).to_own(np.array(point))

    def room(self, walk: WalkMap, index: int | None) -> Room:
        """A room by its place in the federation's rooms; refused if there is none."""
        if index is None or not 0 <= index < len(self.federation.rooms):
            raise MissingError("There is no such room; reload the page.")
        return room_of(self.federation, walk.axes, index)


_KEPT_MB = 2048
_grounds: Cache[tuple[Any, ...], WalkableBuilding] = Cache(_KEPT_MB, owner_of=lambda key: key[0])
_standing: Cache[tuple[Any, ...], Standing] = Cache(_KEPT_MB, owner_of=lambda key: key[0])


def _put_together(act: UnitOfWork, project: Project) -> Standing:
    rule = rule_of(project)

    def make() -> Standing:
        federation = federations.load_building(act.session, project)
        return Standing(project.version, federation, Space(solids_of(federation, rule)), names_of(project, federation))

    return _standing.get((project.id, project.version, rule), make)


def standing_of(act: UnitOfWork, project: Project) -> Standing:
    """The building of a project as it stands; refused while it is being put together."""
    if project.federation is None:
        raise UnfitError("There is no model yet; add one and wait until it is read.")
    try:
        return _put_together(act, project)
    except federations.ChangedError:
        raise UnfitError("The building is being put together again. Try again in a moment.") from None


def walkable_building(act: UnitOfWork, project: Project) -> WalkableBuilding:
    """The building of a project with the walk map that was made last; refused before there was one."""
    if project.federation is None:
        raise UnfitError("There is no model to walk in yet; add one and wait until it is read.")
    note = walks.walking_of(project).map
    if note is None:
        raise UnfitError(project.trouble or "The walk map is being made; try again in a moment.")

    def make() -> WalkableBuilding:
        standing = _put_together(act, project)
        axes = Axes(note.origin_m, note.bearing_deg)
        if axes != standing.space.solids.axes:
            raise UnfitError("The walk map is being made again. Try again in a moment.")
        return WalkableBuilding(project.version, standing.federation, standing.space, standing.names, axes, note.cell_m)

    try:
        return _grounds.get((project.id, project.version, *note.made_for), make)
    except federations.ChangedError:
        before = _grounds.latest_of(project.id)
        if before is None:
            raise UnfitError("The building is being put together again. Try again in a moment.") from None
        return before


def map_of(act: UnitOfWork, project: Project, ground: WalkableBuilding, body: Body) -> WalkMap:
    """A body's walk map in a building."""
    with ground.lock:
        if body not in ground.maps:
            made = load_map(act.session, project, ground.names, ground.axes, ground.cell_m, body)
            if not len(made):
                raise UnfitError(f"The walk map for {body.name} is being made; try again in a moment.")
            ground.maps[body] = made
        return ground.maps[body]


def marks(ground: WalkableBuilding, body: Body) -> npt.NDArray[np.float32]:
    """What finds routes fast on a body's map."""
    with ground.marks_lock:
        if body not in ground.marks:
            ground.marks[body] = marks_of(ground.maps[body])
        return ground.marks[body]


def named(act: UnitOfWork, ground: WalkableBuilding, wanted: Iterable[int]) -> dict[int, NamedComponent]:
    """Components by the federation's numbers with what one calls them; unknown ones are left out."""
    return named_components(act, ground.names, wanted)


def named_components(
    act: UnitOfWork, names: Sequence[tuple[str, str]], wanted: Iterable[int]
) -> dict[int, NamedComponent]:
    """Components by their places among names with what one calls them; unknown ones are left out."""
    known = {c: names[c] for c in dict.fromkeys(wanted) if 0 <= c < len(names)}
    if not known:
        return {}
    called = components.called(act.session, known.values())
    rows = models.models_by_id(act.session, {model_id for model_id, _ in known.values()})
    out: dict[int, NamedComponent] = {}
    for component, (model_id, global_id) in known.items():
        model = rows.get(model_id)
        parts = called.get((model_id, global_id))
        out[component] = NamedComponent(
            model=model_id,
            model_name=model.name if model else "",
            discipline=model.placed.discipline if model and model.placed else None,
            global_id=global_id,
            label=full_label_of(parts[1], parts[0], parts[2]) if parts else global_id,
        )
    return out
