"""Topics as the open format has them, in its own words, whatever its version.

Points and directions are in the file's own coordinates; angles are vertical, as the format has them.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import datetime
from typing import Literal

from stairpath.core.camera.pose import Projection
from stairpath.core.geometry.vectors import Vector


@dataclass(frozen=True)
class Component:
    """A component by its GlobalId, or by what another program calls it."""

    global_id: str
    originating_system: str = ""
    authoring_tool_id: str = ""


@dataclass(frozen=True)
class Camera:
    """Where the eye is and looks; the vertical angle of a perspective, or the height that a parallel view shows.

    ``aspect`` is width by height; the older version does not have it.
    """

    eye_m: Vector
    direction: Vector
    up: Vector
    projection: Projection
    angle_deg: float | None = None
    height_m: float | None = None
    aspect: float | None = None


@dataclass(frozen=True)
class Colouring:
    """Components in a colour, ``#rrggbb``, and how much it covers, 0 to 255, where that is said."""

    colour: str
    components: tuple[Component, ...]
    alpha: int | None = None


@dataclass(frozen=True)
class Plane:
    """A plane that cuts away what lies where its direction points."""

    point_m: Vector
    direction: Vector


@dataclass(frozen=True)
class Bitmap:
    """A picture that stands in the model, about its middle."""

    format: Literal["png", "jpg"]
    data: bytes
    at_m: Vector
    normal: Vector
    up: Vector
    height_m: float


@dataclass(frozen=True)
class Hints:
    """Whether spaces, their boundaries and openings are shown."""

    spaces: bool = False
    boundaries: bool = False
    openings: bool = False


@dataclass(frozen=True)
class Viewpoint:
    """What is seen: all but the exceptions where ``default_visible``, else the exceptions alone."""

    guid: str
    camera: Camera | None = None
    default_visible: bool = True
    exceptions: tuple[Component, ...] = ()
    selected: tuple[Component, ...] = ()
    colours: tuple[Colouring, ...] = ()
    planes: tuple[Plane, ...] = ()
    lines: tuple[tuple[Vector, Vector], ...] = ()
    bitmaps: tuple[Bitmap, ...] = ()
    hints: Hints = Hints()
    snapshot: bytes | None = None
    index: int | None = None
    snapshot_name: str = field(default="", compare=False)
    """What the picture is called in the file that it was read from."""


@dataclass(frozen=True)
class Comment:
    """Something that was written, with a viewpoint of the topic or without."""

    guid: str
    author: str
    at: datetime
    text: str
    viewpoint: str | None = None
    modified_by: str = ""
    modified_at: datetime | None = None


@dataclass(frozen=True)
class Document:
    """A file that belongs to a topic, or a link to one that is elsewhere."""

    guid: str
    name: str
    description: str = ""
    data: bytes | None = None
    url: str = ""


@dataclass(frozen=True)
class ModelFile:
    """A model that the topic is about."""

    name: str
    date: datetime | None = None
    reference: str = ""
    project: str = ""
    part: str = ""
    external: bool = True


@dataclass(frozen=True)
class Snippet:
    """A piece of a model that goes with a topic."""

    kind: str
    reference: str
    schema: str
    external: bool = False
    data: bytes | None = None


@dataclass(frozen=True)
class Topic:
    """A topic with all that belongs to it; ``reference`` is what the program that keeps it calls it."""

    guid: str
    title: str
    created_by: str
    created_at: datetime
    description: str = ""
    kind: str = ""
    status: str = ""
    priority: str = ""
    assigned_to: str = ""
    stage: str = ""
    due: datetime | None = None
    labels: tuple[str, ...] = ()
    index: int | None = None
    reference: str = ""
    modified_by: str = ""
    modified_at: datetime | None = None
    links: tuple[str, ...] = ()
    related: tuple[str, ...] = ()
    documents: tuple[Document, ...] = ()
    files: tuple[ModelFile, ...] = ()
    snippet: Snippet | None = None
    comments: tuple[Comment, ...] = ()
    viewpoints: tuple[Viewpoint, ...] = ()


@dataclass(frozen=True)
class TopicsProblem:
    """Something that could not be read: a stable code, a sentence, and the topic it is of."""

    code: str
    text: str
    topic: str | None = None


class CannotExchangeError(ValueError):
    """A file that cannot be read at all, or a topic that cannot be written; the message is one sentence."""
