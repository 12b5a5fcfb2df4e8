"""The building: its levels, rooms, models and components."""

from __future__ import annotations

from pydantic import BaseModel

from stairpath.api.schemas.common import Vector
from stairpath.core.component_ref import ComponentRef
from stairpath.core.federation.disciplines import Discipline
from stairpath.core.reading.model import PropertyValue, Quantity
from stairpath.core.review.view import Home


class Level(BaseModel):
    """A level; ``plan`` is the hash of its key plan. A height belongs to the highest that ``begins_m`` at it or below."""

    name: str
    elevation_m: float
    begins_m: float
    plan: str | None = None


class RoomLabel(BaseModel):
    model: str
    global_id: str
    number: str
    name: str
    level: int


class ChunkPlace(BaseModel):
    """A chunk to fetch, and the matrix (rows) that places it about the project's origin."""

    sha256: str
    matrix: list[float]
    bounds_m: list[float]
    triangles: int
    size: int


class FederatedModel(BaseModel):
    """A model on the stage; ``first`` is the dense number of its first component, ``count`` how many it has.

    ``named`` and ``placed`` are the hashes of its columns: GlobalIds and labels; level (-1 for none), discipline
    (index) and colour (index into ``colours``).
    """

    id: str
    name: str
    first: int
    count: int
    stands: bool
    elsewhere: bool
    alternative_what: str | None
    alternative_option: str | None
    named: str
    placed: str
    colours: list[str]
    chunks: list[ChunkPlace]


class Component(BaseModel):
    """All that is known of a component."""

    model_id: str
    model: str
    file_name: str
    global_id: str
    ifc_class: str
    class_name: str
    """The class as it is read."""
    name: str
    tag: str
    description: str
    type_name: str
    predefined: str
    material: str
    systems: list[str]
    level: str | None
    discipline: str
    room: str | None
    part_of: ComponentRef | None
    hosted_in: ComponentRef | None
    hosts: list[ComponentRef]
    parts: list[ComponentRef]
    connected: list[ComponentRef]
    """What its file joins it to, through ports or directly."""
    place: str
    """Where it is, as one says it."""
    bounds_m: list[float] | None
    properties: dict[str, dict[str, PropertyValue]]
    quantities: dict[str, dict[str, Quantity]]


class Neighbour(BaseModel):
    """A component near another one, and how far away it is."""

    model: str
    global_id: str
    label: str
    discipline: str | None
    distance_m: float


class Neighbours(BaseModel):
    """The components within a distance, nearest first, and how many there are."""

    found: list[Neighbour]
    count: int


class Federation(BaseModel):
    """The head of what the stage draws; coordinates about ``origin_m``.

    ``trouble`` says why the building could not be put together the last time, and is empty where it could.
    """

    id: str
    name: str
    version: int
    trouble: str
    origin_m: Vector
    bounds_m: list[Vector] | None
    building_north_deg: float
    true_north_deg: float | None
    disciplines: list[Discipline]
    levels: list[Level]
    rooms: list[RoomLabel]
    models: list[FederatedModel]
    home: Home | None = None
