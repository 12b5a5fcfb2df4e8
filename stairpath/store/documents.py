"""What the JSON columns hold: a dataclass each, read and written by one adapter that also reads older forms.

Nothing outside this module knows how they are spelled in the database.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any, Generic, TypeVar

import structlog
from pydantic import TypeAdapter, ValidationError
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.engine import Dialect
from sqlalchemy.types import TypeDecorator
from typing_extensions import TypeForm

from stairpath.core.federation.alignment import Evidence
from stairpath.core.problems import Problem
from stairpath.core.reading.model import GridAxis, MapConversion, PropertyValue, Quantity, Storey
from stairpath.core.walking.bodies import Body
from stairpath.core.walking.grid import CELL_M
from stairpath.core.walking.solids import PASSABLE

log = structlog.get_logger()

T = TypeVar("T")
Json = dict[str, Any]
Point = tuple[float, float, float]


class Document(TypeDecorator[T], Generic[T]):
    """A JSON column that is a dataclass in Python; ``older`` brings an older form to today's.

    A document that cannot be read is None, and the log says so.
    """

    impl = JSONB
    cache_ok = True

    def __init__(self, kind: TypeForm[T], older: Callable[[Json], Json] | None = None) -> None:
        super().__init__(none_as_null=True)
        self.kind, self.older = kind, older
        self._adapter: TypeAdapter[T] | None = None

    def _ours(self) -> TypeAdapter[T]:
        if self._adapter is None:
            self._adapter = TypeAdapter(self.kind)
        return self._adapter

    def process_bind_param(self, value: T | None, dialect: Dialect) -> Any:
        """As JSON."""
        return None if value is None else self._ours().dump_python(value, mode="json")

    def process_result_value(self, value: Any | None, dialect: Dialect) -> T | None:
        """From JSON of today or earlier."""
        if value is None:
            return None
        try:
            return self._ours().validate_python(self.older(value) if self.older else value)
        except (ValidationError, LookupError, TypeError) as error:
            # One row must not take a whole list with it: the store leaves rows without their document out.
            log.error("a kept document cannot be read", kind=str(self.kind), reason=str(error))
            return None


@dataclass(frozen=True)
class RoomFloor:
    """A room as read: its floor as triangles on plan, and its heights, in the file's coordinates."""

    global_id: str
    number: str
    name: str
    storey: str | None
    floor: list[list[list[float]]]
    low_m: float
    high_m: float


@dataclass(frozen=True)
class Frame:
    """What was read of a model besides its components.

    ``columns`` is the hash of what the browser needs of each component, ``sorts`` of what federating needs, ``traits``
    of what rules ask of them.
    """

    schema: str
    length_unit: str
    storeys: tuple[Storey, ...]
    rooms: tuple[RoomFloor, ...]
    grid_axes: tuple[GridAxis, ...]
    map_conversion: MapConversion | None
    true_north: tuple[float, float] | None
    problems: tuple[Problem, ...]
    triangles: int
    components: int = 0
    columns: str | None = None
    sorts: str | None = None
    traits: str | None = None


@dataclass(frozen=True)
class AlternativeOf:
    """For what a model is an alternative, and which."""

    what: str
    option: str


@dataclass(frozen=True)
class Placed:
    """Where a model came to stand; ``columns`` and ``boxes`` are the hashes of what that gave each component: what the
    browser draws by, and the bounds, which the server alone needs.
    """

    by: Evidence
    reason: str
    rotation_deg: float
    shift_m: Point
    matrix: list[list[float]]
    discipline: str | None
    alternative: AlternativeOf | None
    problems: tuple[Problem, ...]
    colours: tuple[str, ...] = ()
    columns: str | None = None
    boxes: str | None = None
    elsewhere: bool = False
    """Whether it stands so far from the others that it is left out of fits, walk maps and pictures."""


@dataclass(frozen=True)
class KeptLevel:
    """A level, and the hash of its key plan."""

    name: str
    elevation_m: float
    plan: str | None = None


@dataclass(frozen=True)
class KeptRoom:
    """A room of the building; ``model`` counts those that were federated."""

    model: int
    global_id: str
    number: str
    name: str
    level: int
    corners_m: list[list[float]] = field(default_factory=list)


@dataclass(frozen=True)
class Building:
    """A project's building as it was federated last; ``models`` are the ids of its models in their order."""

    origin_m: Point = (0.0, 0.0, 0.0)
    bounds_m: list[list[float]] | None = None
    building_north_deg: float = 0.0
    true_north_deg: float | None = None
    levels: tuple[KeptLevel, ...] = ()
    rooms: tuple[KeptRoom, ...] = ()
    models: tuple[str, ...] = ()
    summary: int = 0
    """Counts what a federation keeps; one that was kept with less is made again."""


@dataclass(frozen=True)
class StandsAt:
    """Where somebody standing comes to stand in a room, in project coordinates."""

    room: int
    at_m: Point
    bearing_deg: float


@dataclass(frozen=True)
class MapNote:
    """What is known of the walk map that was made last."""

    made_for: list[int]
    origin_m: Point
    bearing_deg: float
    cell_m: float
    seconds: float
    made: int
    kept: int
    stands: tuple[StandsAt, ...] = ()


@dataclass(frozen=True)
class Walking:
    """What stands in the way, how fine the walk map is, who walks, and the map that was made last."""

    passable: tuple[str, ...] = tuple(sorted(PASSABLE))
    doors_locked: bool = False
    cell_m: float = CELL_M
    bodies: tuple[Body, ...] = ()
    revision: int = 0
    map: MapNote | None = None


@dataclass(frozen=True)
class Details:
    """What is known of a component besides what it is called."""

    description: str = ""
    type_name: str = ""
    predefined: str = ""
    operation: str = ""
    material: str = ""
    part_of: str = ""
    hosted_in: str = ""
    connected: tuple[str, ...] = ()
    properties: dict[str, dict[str, Quantity | PropertyValue]] = field(default_factory=dict)
    quantities: dict[str, dict[str, Quantity]] = field(default_factory=dict)


def older_building(kept: Json) -> Json:
    """Before a building named its models nothing told whose rooms they are; it is put together again at once."""
    return kept if kept.get("models") else {**kept, "rooms": []}


def older_placed(kept: Json) -> Json:
    """Before alternatives were parted into what and which they were kept so too; problems may have lacked."""
    return {"problems": [], **kept}


def older_walking(kept: Json) -> Json:
    """An empty map stood for none."""
    return {**kept, "map": kept.get("map") or None}


_EFFECTS = {"shown": "show", "faded": "fade", "hidden": "hide"}


def _these(refs: list[Json]) -> Json:
    of: dict[str, list[str]] = {}
    for ref in refs:
        of.setdefault(ref["model"], []).append(ref["global_id"])
    return {"kind": "these", "of": of}


def _cell_rule(cell: Json) -> Json:
    level = {"kind": "of", "what": "level", "value": cell["level"] or ""}
    discipline = {"kind": "of", "what": "discipline", "value": cell["discipline"]}
    return {"select": {"kind": "both", "of": [level, discipline]}, "effect": _EFFECTS[cell["state"]]}


def older_view(kept: Json) -> Json:
    """Before a view had rules it listed cells of the storey board and components, about the origin of its day."""
    if "version" in kept:
        return kept
    pose, origin = kept["pose"], kept["origin_m"]

    def there(point: list[float]) -> list[float]:
        return [c + o for c, o in zip(point, origin, strict=True)]

    rules = [_cell_rule(cell) for cell in kept.get("cells") or [] if cell["state"] != "shown"]
    for state, effect in _EFFECTS.items():
        if kept.get(state):
            rules.append({"select": _these(kept[state]), "effect": effect})
    return {
        "eye": {
            "eye_m": there(pose["eye_m"]),
            "target_m": there(pose["target_m"]),
            "up": pose["up"],
            "projection": pose["projection"],
            "angle_deg": pose["angle_deg"],
            "height_m": pose["height_m"],
        },
        "limits": {"through_m": pose.get("through_m") or 0.0, "depth_m": None},
        "rules": rules,
        "alternatives": kept.get("alternatives") or {},
        "picked": _these(kept.get("picked") or []),
        "version": 2,
    }


def older_home(kept: Json) -> Json:
    """A home holds a view."""
    return {**kept, "view": older_view(kept["view"])}
