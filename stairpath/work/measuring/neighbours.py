"""Where a component is, what is around it, and what hangs together with it."""

from __future__ import annotations

import json
from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from stairpath.core.cache import Cache
from stairpath.core.component_ref import ComponentRef, NamedComponent
from stairpath.core.federation.grid import Axis
from stairpath.core.geometry.origin import about
from stairpath.core.measuring.around import TOUCHES_M, Near, around, boxes_near, connected
from stairpath.core.measuring.body import Body, NoBodyError
from stairpath.core.measuring.distance import between
from stairpath.core.register.place import in_words, nearest_lines
from stairpath.core.visibility.traits import Traits
from stairpath.store import blobs, components, federations
from stairpath.store.documents import Building
from stairpath.store.federations import ChangedError
from stairpath.work.base.errors import MissingError, UnfitError
from stairpath.work.base.project_rows import rows_of
from stairpath.work.base.unit_of_work import UnitOfWork, read_only
from stairpath.work.building.components import Known
from stairpath.work.measuring.measures import MeasuredBuilding

MOST_NEAR = 200
MOST_JOINED = 5000
_RUNS = ("Flow", "Distribution", "Duct", "Pipe", "Cable", "Air", "Valve", "Damper", "Pump", "Fan", "Tank", "Sanitary")
"""What the classes of components that carry something along have in their names."""


@dataclass(frozen=True)
class Neighbour:
    """A component near another one, and how far away it is."""

    component: NamedComponent
    distance_m: float


@dataclass(frozen=True)
class Neighbours:
    """The components within a distance, nearest first, and how many there are."""

    found: list[Neighbour]
    count: int


@dataclass(frozen=True)
class Run:
    """Components that hang together, and whether any of it is known by touching alone."""

    components: list[ComponentRef]
    by_touch: bool


_axes: Cache[tuple[str, tuple[float, float, float]], list[Axis]] = Cache(8)


def axes_of(look: UnitOfWork, building: Building) -> list[Axis]:
    """The building's grid lines in project coordinates, as its key plans have them; the last few kept in memory."""
    plan = next((level.plan for level in building.levels if level.plan), None)
    return [] if plan is None else _axes.get((plan, building.origin_m), lambda: _axes_on(look, plan, building.origin_m))


def _axes_on(look: UnitOfWork, plan: str, origin_m: tuple[float, float, float]) -> list[Axis]:
    kept = blobs.load(look.session, plan)
    x, y, _ = origin_m
    return [
        Axis(axis["tag"], *(tuple[float, float]((end[0] + x, end[1] + y)) for end in axis["ends"]))
        for axis in (json.loads(kept[0])["axes"] if kept else ())
    ]


def place_in_words(known: Known) -> str:
    """Where a component is, as one says it."""
    with read_only() as look:
        building = rows_of(look, known.model.project_id).building
        level = next((each for each in building.levels if each.name == known.level), None)
        if known.bounds_m is None:
            return in_words(known.level, known.room, None, [])
        low, high = np.array(known.bounds_m[:3]), np.array(known.bounds_m[3:])
        lines = nearest_lines(axes_of(look, building), (low[:2] + high[:2]) / 2)
        over = None if level is None else float(low[2]) - level.elevation_m
        return in_words(known.level, known.room, over, lines)


class _There:
    """The components of a project as they stand, by number, about its origin."""

    def __init__(self, look: UnitOfWork, project_id: str) -> None:
        self._building = MeasuredBuilding(look, project_id)
        self.asked: Traits = self._building.asked
        models = {model.id: model for model in self._building.rows.models}
        try:
            bounds = [federations.places(look.session, models[key])["bounds_m"] for key in self.asked.keys]
        except ChangedError as error:
            raise UnfitError("A model is being read again; what is around follows when it is there.") from error
        self.bounds_m = about(np.concatenate(bounds), self._building.origin)
        self.bounds_m[~self.asked.stands] = np.nan

    def number(self, ref: ComponentRef) -> int:
        """The number of a component that stands."""
        found = self.asked.numbers_of(ref.model, [ref.global_id])
        if not found:
            raise MissingError("That component is not in the building any more. Select another one.")
        return found[0]

    def ref(self, number: int) -> ComponentRef:
        return ComponentRef(self.asked.model_of(number), self.asked.global_id(number))

    def named(self, number: int) -> NamedComponent:
        return self._building.named(self.ref(number))

    def body(self, number: int) -> Body | None:
        try:
            return self._building.body(self.ref(number))
        except NoBodyError:
            return None


def neighbours(project_id: str, ref: ComponentRef, within_m: float) -> Neighbours:
    """What of a project's building is within a distance of a component."""
    with read_only() as look:
        there = _There(look, project_id)
        found, count = around(there.bounds_m, there.body, there.number(ref), within_m, MOST_NEAR)
        return Neighbours([_neighbour(there, near) for near in found], count)


def _neighbour(there: _There, near: Near) -> Neighbour:
    return Neighbour(there.named(near.component), near.distance.distance_m)


def _carries(asked: Traits) -> npt.NDArray[np.bool_]:
    """Which components (n,) carry something along, by their class."""
    classes = asked.columns["class"]
    flags = np.array([any(part in value for part in _RUNS) for value in classes.values], dtype=bool)
    return np.asarray(flags[classes.value])


def run(project_id: str, ref: ComponentRef) -> Run:
    """All that hangs together with a component: as the files connect it, else by ends that touch within a system."""
    with read_only() as look:
        there = _There(look, project_id)
        asked = there.asked
        links: dict[int, list[int]] = {}
        for model, global_id, others in components.links_of(look.session, list(asked.keys)):
            for number in asked.numbers_of(model, [global_id]):
                links[number] = asked.numbers_of(model, others)
        carries, systems = _carries(asked), asked.columns["system"]
        of: list[set[int]] = [set() for _ in range(asked.count)]
        owners = range(asked.count) if systems.owner is None else systems.owner.tolist()
        for owner, value in zip(owners, systems.value.tolist(), strict=True):
            if systems.values[value]:
                of[owner].add(value)

        def touching(number: int) -> Iterable[int]:
            own = there.body(number)
            if own is None or not carries[number]:
                return
            for other in boxes_near(there.bounds_m, number, TOUCHES_M).tolist():
                if not carries[other] or (of[number] and of[other] and of[number].isdisjoint(of[other])):
                    continue
                body = there.body(other)
                if body is not None and between(own, body, TOUCHES_M) is not None:
                    yield other

        found, by_touch = connected(there.number(ref), links, touching, MOST_JOINED)
        return Run([there.ref(number) for number in found], by_touch)
