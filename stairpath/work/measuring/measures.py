"""What measures of a view come to in a project's building."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
import numpy.typing as npt

from stairpath.core.cache import Cache
from stairpath.core.component_ref import ComponentRef, NamedComponent
from stairpath.core.federation.rooms import room_area
from stairpath.core.geometry.origin import about, in_project
from stairpath.core.measuring.body import Body, NoBodyError, body_of
from stairpath.core.measuring.clear import NoFloorError, clear_at
from stairpath.core.measuring.features import Features, features
from stairpath.core.measuring.figures import Found, Gap, NotMeasuredError, Role, Room, Spot, figures_of, settled
from stairpath.core.measuring.measures import Measure, moved
from stairpath.core.visibility.rules import HIDDEN, Rule, resolve, simplified
from stairpath.core.walking.solids import Solids
from stairpath.store.federations import ChangedError
from stairpath.store.tables import Model
from stairpath.work.base.errors import UnfitError, WrongError
from stairpath.work.base.projects import in_use
from stairpath.work.base.unit_of_work import UnitOfWork, read_only
from stairpath.work.building.placed import count_of, placed_of
from stairpath.work.building.visibility import traits_of
from stairpath.work.walking.walkable_building import Standing, standing_of

Array = npt.NDArray[np.float64]

_SAME_M = 1e-6
_bodies: Cache[tuple[object, ...], Body] = Cache(128)


class MeasuredBuilding:
    """A project's building as measures are taken of it."""

    def __init__(self, act: UnitOfWork, project_id: str, rules: Sequence[Rule] = ()) -> None:
        self._act, self._id, self._rules = act, project_id, rules
        self.rows, self.asked = traits_of(act, project_id)
        self.origin = np.array(self.rows.building.origin_m)
        self.north_deg = self.rows.building.building_north_deg

    def number(self, ref: ComponentRef) -> int:
        """A component's number over all models."""
        found = self.asked.numbers_of(ref.model, [ref.global_id])
        if not found:
            raise NotMeasuredError("A measured component is gone. Measure again, or delete the measure.")
        return found[0]

    def body(self, ref: ComponentRef) -> Body:
        """A component's body about the origin; the last few kept in memory."""
        number = self.number(ref)
        model = next(m for m in self.rows.models if m.id == ref.model)
        key = (model.geometry, str(model.placed.matrix if model.placed else ""), self.rows.building.origin_m, number)
        return _bodies.get(key, lambda: self._body(model, number))

    def _body(self, model: Model, number: int) -> Body:
        try:
            part = placed_of(self._act, model, self.origin, np.ones(count_of(model), dtype=bool))
        except ChangedError:
            part = None
        if part is None:
            raise UnfitError(f"{model.name} is being read again; measures follow when it is there.")
        ordinal = number - int(self.asked.first[self.asked.keys.index(model.id)])
        return body_of(part, ordinal, np.zeros(3))

    @cached_property
    def _standing(self) -> Standing:
        return standing_of(self._act, in_use(self._act, self._id))

    @cached_property
    def _hidden(self) -> npt.NDArray[np.bool_]:
        """Which of the components that stand (n,) are hidden."""
        state = resolve(self.asked, simplified(self._rules)).state
        hidden = {(self.asked.model_of(k), self.asked.global_id(k)) for k in np.flatnonzero(state == HIDDEN).tolist()}
        return np.array([name in hidden for name in self._standing.names], dtype=bool)

    def _room_at(self, ref: ComponentRef) -> int | None:
        building = self.rows.building
        for k, room in enumerate(building.rooms):
            if room.global_id == ref.global_id and building.models[room.model] == ref.model:
                return k
        return None

    def named(self, ref: ComponentRef) -> NamedComponent:
        """A component or a room with what one calls it."""
        model = next(m for m in self.rows.models if m.id == ref.model)
        numbers = self.asked.numbers_of(ref.model, [ref.global_id])
        at = self._room_at(ref)
        room = None if at is None else self.rows.building.rooms[at]
        label = self.asked.labels[numbers[0]] if numbers else f"{room.number} {room.name}".strip() if room else ""
        discipline = model.placed.discipline if model.placed else None
        return NamedComponent(ref.model, model.name, discipline, ref.global_id, label)

    def room(self, ref: ComponentRef) -> Room:
        """The floor of a room, at its level's height, about the origin."""
        building = self.rows.building
        at = self._room_at(ref)
        if at is None:
            raise NotMeasuredError("The measured room is gone. Measure again, or delete the measure.")
        polygons = room_area(self._standing.federation, at)
        height = building.levels[building.rooms[at].level].elevation_m
        rings = [np.asarray(ring.coords) for p in polygons for ring in (p.exterior, *p.interiors)]
        outlines = [about(np.column_stack([ring[:, :2], np.full(len(ring), height)]), self.origin) for ring in rings]
        return Room(sum(p.area for p in polygons), outlines)

    def _spot(self, at: Array, solids: Solids, above: Role, beside: Role) -> tuple[Spot, Array]:
        """The room there is at a point of the floor among some solids, and the floor's own point."""
        axes = solids.axes
        try:
            found = clear_at(solids, axes.to_own(in_project(at, self.origin)))
        except NoFloorError as error:
            raise NotMeasuredError(str(error)) from error

        def ref(component: int) -> ComponentRef:
            return ComponentRef(*self._standing.names[component])

        def there(points: Array) -> Array:
            return about(axes.to_project(points), self.origin)

        height = width = None
        if found.height is not None:
            ends = there(np.stack([found.floor, found.height.at]))
            height = Gap(found.height.height_m, ends, ((above, ref(found.height.component)),))
        if found.width is not None:
            sides = tuple((beside, ref(c)) for c in dict.fromkeys(found.width.components))
            width = Gap(found.width.width_m, there(found.width.ends), sides)
        return Spot(ref(found.component), height, width), there(found.floor)

    def clear(self, at: Array) -> Spot:
        """The room there is at a point of the floor, without and with what is hidden."""
        solids = self._standing.space.solids
        away = self._hidden[solids.component]
        if not away.any():
            return self._spot(at, solids, "above", "beside")[0]
        seen, floor = self._spot(at, solids.only(np.flatnonzero(~away)), "above", "beside")
        whole, _ = self._spot(floor, solids, "above_hidden", "beside_hidden")
        return replace(
            seen, hidden_height=_less(whole.height, seen.height), hidden_width=_less(whole.width, seen.width)
        )


def _less(whole: Gap | None, seen: Gap | None) -> Gap | None:
    """A gap where it is less than another one, which may be open."""
    return whole if whole and (seen is None or whole.length_m < seen.length_m - _SAME_M) else None


@dataclass(frozen=True)
class Result:
    """What one measure came to, about the project's origin, and of what; or why it came to nothing."""

    measure: Measure
    found: Found | None
    of: list[tuple[Role, NamedComponent]]
    trouble: str = ""


@dataclass(frozen=True)
class Results:
    """What measures came to in one version of a building, whose origin is at ``origin_m`` (3,) of the project."""

    version: int
    origin_m: Array
    results: list[Result]


def measure(project_id: str, measures: Sequence[Measure], rules: Sequence[Rule] = ()) -> Results:
    """What measures come to in a project's building as it stands; room at a point without what the rules hide."""
    with read_only() as look:
        building = MeasuredBuilding(look, project_id, rules)
        x, y, z = (-building.origin).tolist()
        results = []
        for each in measures:
            try:
                found = figures_of(moved(each.what, (x, y, z)), building)
            except (NotMeasuredError, NoBodyError, UnfitError) as error:
                results.append(Result(each, None, [], str(error)))
            else:
                results.append(Result(each, found, [(role, building.named(ref)) for role, ref in found.of]))
        return Results(building.rows.project.version, building.origin, results)


def features_of(project_id: str, ref: ComponentRef) -> Features:
    """What of a component the cursor catches, about the project's origin."""
    with read_only() as look:
        building = MeasuredBuilding(look, project_id)
        try:
            return features(building.body(ref))
        except (NotMeasuredError, NoBodyError) as error:
            raise WrongError(str(error)) from error


def settle(project_id: str, ref: ComponentRef, point_m: Array) -> Array:
    """The exact point of a component's faces that was meant by one of the stage, in project coordinates."""
    with read_only() as look:
        building = MeasuredBuilding(look, project_id)
        try:
            exact = settled(building.body(ref), about(point_m, building.origin))
            return in_project(exact, building.origin)
        except (NotMeasuredError, NoBodyError) as error:
            raise WrongError(str(error)) from error
