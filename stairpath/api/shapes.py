"""What the browser and the server say to each other."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import BaseModel, Field

Coordinate = Annotated[float, Field(ge=-1e9, le=1e9)]
"""Metres; nothing that is built lies beyond a million kilometres."""
Vector = Annotated[list[Coordinate], Field(min_length=3, max_length=3)]
Author = Annotated[str, Field(min_length=1, max_length=80)]
Name = Annotated[str, Field(min_length=1, max_length=120)]
Status = Literal["waiting", "reading", "read", "failed", "cancelled"]
State = Literal["shown", "faded", "hidden"]


class ProjectCard(BaseModel):
    """A project on the start page."""

    id: str
    name: str
    created_at: datetime
    created_by: str
    picture: str | None
    models: int
    components: int
    reading: int
    """Models that wait or are being read."""


class NewProject(BaseModel):
    name: Name
    author: Author


class Problem(BaseModel):
    code: str
    text: str
    components: list[str]


class ModelCard(BaseModel):
    """A model as the Models desk shows it."""

    id: str
    name: str
    file_name: str
    file_size: int
    status: Status
    share: float
    message: str
    added_by: str
    added_at: datetime
    schema_name: str | None
    length_unit: str | None
    components: int
    triangles: int
    discipline: str | None
    discipline_set: bool
    alternative_what: str | None
    alternative_option: str | None
    stands: bool
    aligned_by: str | None
    aligned_reason: str | None
    rotation_deg: float | None
    shift_m: Vector | None
    problems: list[Problem]


class Discipline(BaseModel):
    code: str
    name: str
    colour: str


class Level(BaseModel):
    """A level; ``plan`` is the hash of its key plan."""

    name: str
    elevation_m: float
    plan: str | None = None


class Stand(BaseModel):
    """Where to stand in a room, on plan about the project's origin, and the bearing of the longest clear line."""

    at_m: list[float]
    bearing_deg: float


class RoomLabel(BaseModel):
    number: str
    name: str
    level: int
    stand: Stand | None = None


class ChunkPlace(BaseModel):
    """A chunk to fetch, and the matrix (rows) that places it about the project's origin."""

    sha256: str
    matrix: list[float]
    bounds_m: list[float]
    triangles: int
    size: int


class FederatedModel(BaseModel):
    """A model on the stage; ``first`` is the dense number of its first component.

    Columns run over its components: ``level`` (-1 for none), ``discipline`` (index),
    ``colour`` (index into the federation's colours).
    """

    id: str
    name: str
    first: int
    stands: bool
    alternative_what: str | None
    alternative_option: str | None
    global_ids: list[str]
    labels: list[str]
    level: list[int]
    discipline: list[int]
    colour: list[int]
    chunks: list[ChunkPlace]


class ComponentRef(BaseModel):
    """A component, known for ever by its model and its GlobalId."""

    model: str
    global_id: str


class Figure(BaseModel):
    value: float
    unit: str


PropertyValue = Figure | str | bool | int | float | None


class Component(BaseModel):
    """All that is known of a component."""

    model_id: str
    model: str
    file_name: str
    global_id: str
    ifc_class: str
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
    bounds_m: list[float] | None
    properties: dict[str, dict[str, PropertyValue]]
    quantities: dict[str, dict[str, Figure]]


class Pose(BaseModel):
    """A camera about the project's origin."""

    eye_m: Vector
    target_m: Vector
    up: Vector
    projection: Literal["perspective", "parallel"]
    angle_deg: Annotated[float, Field(ge=1, le=120)]
    height_m: Annotated[float, Field(gt=0, le=1e9)]


class FrameWish(BaseModel):
    """What to fit, seen from where; nothing named means everything that stands.

    ``room`` and ``level`` are places in the federation's lists; ``among`` is a base64 bit
    set over the dense numbers of components, the first of each byte's bits the lowest.
    """

    bearing_deg: float
    tilt_deg: Annotated[float, Field(ge=-90, le=90)]
    aspect: Annotated[float, Field(ge=0.1, le=10)]
    projection: Literal["perspective", "parallel"] = "perspective"
    angle_deg: Annotated[float, Field(ge=1, le=120)] = 30
    margin: Annotated[float, Field(ge=0, lt=0.5)] = 0.05
    components: list[ComponentRef] | None = None
    room: int | None = None
    level: int | None = None
    among: str | None = None


Line = list[list[float]]
"""Points on plan, metres about the project's origin."""


class PlanSwing(BaseModel):
    """A door's leaf standing open, and the arc it turns through."""

    leaf: Line
    arc: Line


class PlanFlight(BaseModel):
    """The edges of a flight's treads, and the way up it."""

    edges: list[Line]
    way_up: Line


class PlanRoom(BaseModel):
    """A room by its place in the federation's list, its outlines and where its name goes."""

    index: int
    number: str
    name: str
    outlines: list[Line]
    label: list[float]


class PlanAxis(BaseModel):
    """A grid axis."""

    tag: str
    ends: Line


class KeyPlan(BaseModel):
    """The key plan of a level: cut walls and columns, thin lines, swings, flights, rooms and grid."""

    storey: str
    elevation_m: float
    cut_m: float
    solid: list[Line]
    thin: list[Line]
    swings: list[PlanSwing]
    flights: list[PlanFlight]
    rooms: list[PlanRoom]
    axes: list[PlanAxis]


class Direction(BaseModel):
    """A standard direction of view; the bearing is counted from that of the front."""

    name: str
    bearing_deg: float
    tilt_deg: float


class Look(BaseModel):
    """A direction of view: bearing looked along, clockwise from +Y, and tilt, above zero looking down."""

    bearing_deg: float
    tilt_deg: float


class FaceWish(BaseModel):
    """A face to look square onto, and the present bearing."""

    normal: Vector
    bearing_deg: float = 0.0


class AxisWish(BaseModel):
    """A grid line to look square onto, by two points of it on plan, and the present bearing."""

    ends_m: Annotated[
        list[Annotated[list[Coordinate], Field(min_length=2, max_length=2)]], Field(min_length=2, max_length=2)
    ]
    bearing_deg: float = 0.0


class LensWish(BaseModel):
    """A lens as it was typed, for a view: the eye stays, or the subject keeps its size."""

    pose: Pose
    aspect: Annotated[float, Field(ge=0.1, le=10)]
    text: Annotated[str, Field(max_length=40)]
    keep: Literal["eye", "subject"] = "eye"


class ProjectionWish(BaseModel):
    """Another projection for a view; what is at the pivot keeps its size and place."""

    pose: Pose
    aspect: Annotated[float, Field(ge=0.1, le=10)]
    to: Literal["perspective", "parallel"]
    pivot_m: Vector | None = None


class LevelWish(BaseModel):
    """A view to make level."""

    pose: Pose
    aspect: Annotated[float, Field(ge=0.1, le=10)]


class ScaleWish(BaseModel):
    """A true scale for a parallel view on a screen of so many pixels, each so many millimetres high."""

    pose: Pose
    aspect: Annotated[float, Field(ge=0.1, le=10)]
    scale: Annotated[float, Field(le=1e6)]
    height_px: Annotated[float, Field(gt=0, le=1e5)]
    pixel_mm: Annotated[float, Field(gt=0, le=100)]


class CellState(BaseModel):
    """A cell of the storey board that is not simply shown; level by name, None for No level."""

    level: str | None
    discipline: str
    state: State


class View(BaseModel):
    """Everything a viewpoint restores."""

    pose: Pose
    origin_m: Vector
    cells: list[CellState] = []
    shown: list[ComponentRef] = []
    """Components shown although their cell is not."""
    hidden: list[ComponentRef] = []
    faded: list[ComponentRef] = []
    picked: list[ComponentRef] = []
    alternatives: dict[str, str] = {}
    """For each proposal, the model's name that stands in the view."""


class Home(BaseModel):
    """The view that everybody comes home to, and who set it."""

    view: View
    author: Author


class Federation(BaseModel):
    """Everything the stage needs to draw a project; coordinates about ``origin_m``."""

    id: str
    name: str
    version: int
    origin_m: Vector
    bounds_m: list[Vector] | None
    building_north_deg: float
    true_north_deg: float | None
    disciplines: list[Discipline]
    levels: list[Level]
    rooms: list[RoomLabel]
    colours: list[str]
    models: list[FederatedModel]
    home: Home | None = None


class Viewpoint(BaseModel):
    id: str
    name: str
    author: str
    created_at: datetime
    picture: str
    view: View


class NewViewpoint(BaseModel):
    name: Name
    author: Author
    picture_png: str
    """The picture as base64 PNG."""
    view: View


class NewName(BaseModel):
    name: Name


class DisciplineWish(BaseModel):
    code: str | None


class WalkingBody(BaseModel):
    """Who walks: an upright cylinder; ``own`` are the project's own."""

    name: Name
    radius_m: float
    height_m: float
    step_up_m: float
    step_down_m: float
    slope: float
    speed_m_s: float = 1.4
    own: bool = False


class WalkRule(BaseModel):
    """What one walks through, and whether doors are locked; and bodies of the project's own."""

    passable: list[Annotated[str, Field(max_length=80)]] = Field(max_length=300)
    doors_locked: bool = False
    bodies: list[WalkingBody] = Field(default=[], max_length=8)


class WalkTilePlace(BaseModel):
    """A tile of the walk map to fetch by its hash."""

    x: int
    y: int
    sha256: str
    size: int


class Walking(BaseModel):
    """The walk map: its axes about the project's origin, who walks, and one body's tiles.

    ``current`` says whether it is that of the building as it stands; it is made anew when not.
    """

    current: bool
    cell_m: float
    tile_m: float
    origin_m: Vector
    bearing_deg: float
    bodies: list[WalkingBody]
    passable: list[str]
    doors_locked: bool
    classes: list[str]
    """The classes that the project's models have."""
    tiles: list[WalkTilePlace]


class NamedComponent(BaseModel):
    """A component with what one calls it and the discipline and name of its model."""

    model: str
    model_name: str
    discipline: str | None
    global_id: str
    label: str


class StopWish(BaseModel):
    """Where a body came to stand (the floor), and the direction in which it cannot go on."""

    body: Name
    at_m: Vector
    towards_m: Vector


class Stop(BaseModel):
    """Why it stopped; sizes in metres where there are any."""

    kind: Literal["height", "width", "solid", "step", "drop", "edge"]
    component: NamedComponent | None
    found_m: float | None
    needed_m: float | None


class LandingWish(BaseModel):
    """Where to come to stand: in a room, at a point of a floor, a storey up or down, or behind a picked point."""

    body: Name
    kind: Literal["room", "floor", "storey", "behind"]
    room: int | None = None
    at_m: Vector = [0, 0, 0]
    towards_m: Vector = [0, 1, 0]
    up: Annotated[int, Field(ge=-100, le=100)] = 0


class Landing(BaseModel):
    """A point of the floor, the bearing to look along from it if there is one, and the storey."""

    at_m: Vector
    bearing_deg: float | None
    level: int


class RoutePlace(BaseModel):
    """A room, by its place in the federation's rooms, or a point; and what one calls it."""

    room: int | None = None
    point_m: Vector | None = None
    label: Annotated[str, Field(max_length=120)] = ""


class RouteWish(BaseModel):
    """What route is asked for."""

    start: RoutePlace
    end: RoutePlace
    body: Name = "standing"
    step_free: bool = False
    width_limit_m: float = 0.90
    height_limit_m: float = 2.00


class RoutePinch(BaseModel):
    """A narrow or low place of a route; ``along_m`` on plan from its start."""

    what: Literal["width", "height"]
    size_m: float
    at_m: Vector
    along_m: float
    components: list[NamedComponent]


class RouteBlocked(BaseModel):
    """Where a route ends, what separates it from its goal, and what would have to be otherwise."""

    kind: Literal["width", "height", "step", "slope", "solid", "gap"]
    nearest_m: Vector
    components: list[NamedComponent]
    needs: str
    found_m: float | None
    needed_m: float | None


class RouteAnswer(BaseModel):
    """A route, or why there is none; heights of ``points_m`` follow flights along their slope."""

    found: bool
    version: int
    """The federation's version that it was found in."""
    length_m: float | None
    rise_m: float | None
    descent_m: float | None
    risers: int | None
    time_s: float | None
    points_m: list[Vector]
    narrowest: RoutePinch | None
    lowest: RoutePinch | None
    pinches: list[RoutePinch]
    blocked: RouteBlocked | None


class NewRoute(BaseModel):
    name: Name
    author: Author
    wish: RouteWish


class SavedRoute(BaseModel):
    """A kept route with its answer when it was kept."""

    id: str
    name: str
    author: str
    created_at: datetime
    wish: RouteWish
    answer: RouteAnswer


class Said(BaseModel):
    """An error in one sentence that says what is wrong and what to do."""

    detail: str
