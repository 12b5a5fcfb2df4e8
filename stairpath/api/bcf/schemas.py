"""The standard's own shapes."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal, Self

from pydantic import BaseModel, Field, model_validator

_Text = Annotated[str, Field(max_length=40_000)]
_Word = Annotated[str, Field(max_length=400)]
_Guid = Annotated[str, Field(max_length=64)]


class ApiVersion(BaseModel):
    api_id: str
    version_id: str
    detailed_version: str
    api_base_url: str | None = None


class ApiVersions(BaseModel):
    versions: list[ApiVersion]


class SigningIn(BaseModel):
    """How one signs in: by the code flow with proof of possession (S256), or by a token that a person made on the page.

    Either is sent as ``Authorization: Bearer``. An owner of the server adds the program; there is no secret of its own.
    """

    oauth2_auth_url: str | None = None
    oauth2_token_url: str | None = None
    oauth2_dynamic_client_reg_url: str | None = None
    http_basic_supported: bool = False
    supported_oauth2_flows: list[str] = []


class ProgramToken(BaseModel):
    """What a program was given for a code or a refresh token (RFC 6749, 5.1)."""

    access_token: str
    token_type: str
    expires_in: int
    refresh_token: str
    scope: str


class User(BaseModel):
    id: str
    name: str


class TopicRequest(BaseModel):
    """A topic as it is sent; what cannot be kept of it is left out."""

    guid: _Guid | None = None
    title: _Word
    topic_type: _Word | None = None
    topic_status: _Word | None = None
    priority: _Word | None = None
    labels: Annotated[list[_Word], Field(max_length=200)] = []
    assigned_to: _Word | None = None
    stage: _Word | None = None
    description: _Text | None = None
    due_date: datetime | None = None
    reference_links: Annotated[list[Annotated[str, Field(max_length=2000)]], Field(max_length=200)] = []


class TopicAuthorization(BaseModel):
    """What who asks may do to a topic, and which status they may give it."""

    topic_actions: list[str]
    topic_status: list[str]


class CommentAuthorization(BaseModel):
    """What who asks may do to a comment."""

    comment_actions: list[str]


class ProjectAuthorization(BaseModel):
    """What who asks may do in a project."""

    project_actions: list[str]


class Topic(BaseModel):
    guid: str
    server_assigned_id: str
    topic_type: str
    topic_status: str
    reference_links: list[str]
    title: str
    priority: str | None
    index: int
    labels: list[str]
    creation_date: datetime
    creation_author: str
    modified_date: datetime
    modified_author: str
    assigned_to: str | None
    stage: str | None
    description: str | None
    due_date: datetime | None
    authorization: TopicAuthorization


class CommentRequest(BaseModel):
    comment: _Text
    viewpoint_guid: _Guid | None = None


class Comment(BaseModel):
    guid: str
    date: datetime
    author: str
    comment: str
    topic_guid: str
    viewpoint_guid: str | None
    authorization: CommentAuthorization


class Xyz(BaseModel):
    x: Annotated[float, Field(allow_inf_nan=False)]
    y: Annotated[float, Field(allow_inf_nan=False)]
    z: Annotated[float, Field(allow_inf_nan=False)]


class Perspective(BaseModel):
    camera_view_point: Xyz
    camera_direction: Xyz
    camera_up_vector: Xyz
    field_of_view: Annotated[float, Field(gt=0, lt=180)]
    aspect_ratio: Annotated[float, Field(gt=0, le=100)] = 4 / 3


class Orthogonal(BaseModel):
    camera_view_point: Xyz
    camera_direction: Xyz
    camera_up_vector: Xyz
    view_to_world_scale: Annotated[float, Field(gt=0, le=1e9)]
    aspect_ratio: Annotated[float, Field(gt=0, le=100)] = 4 / 3


class Line(BaseModel):
    start_point: Xyz
    end_point: Xyz


class ClippingPlane(BaseModel):
    location: Xyz
    direction: Xyz


class Part(BaseModel):
    ifc_guid: Annotated[str, Field(max_length=64)] | None = None
    originating_system: _Word | None = None
    authoring_tool_id: _Word | None = None


_Parts = Annotated[list[Part], Field(max_length=200_000)]


class Colouring(BaseModel):
    color: Annotated[str, Field(pattern="^#?([0-9a-fA-F]{6}|[0-9a-fA-F]{8})$")]
    components: _Parts = []


class Hints(BaseModel):
    spaces_visible: bool = False
    space_boundaries_visible: bool = False
    openings_visible: bool = False


class Visibility(BaseModel):
    default_visibility: bool = False
    exceptions: _Parts = []
    view_setup_hints: Hints = Hints()


class Components(BaseModel):
    selection: _Parts = []
    coloring: Annotated[list[Colouring], Field(max_length=500)] = []
    visibility: Visibility = Visibility(default_visibility=True)


class Snapshot(BaseModel):
    snapshot_type: Literal["png", "jpg"]


class SnapshotRequest(Snapshot):
    snapshot_data: Annotated[str, Field(max_length=16 << 20)]


class Placed(BaseModel):
    """Where a picture stands in space."""

    bitmap_type: Literal["png", "jpg"]
    location: Xyz
    normal: Xyz
    up: Xyz
    height: Annotated[float, Field(gt=0, le=1e6)]


class BitmapRequest(Placed):
    guid: _Guid | None = None
    bitmap_data: Annotated[str, Field(max_length=16 << 20)]


class Bitmap(Placed):
    guid: str


class ViewpointRequest(BaseModel):
    guid: _Guid | None = None
    index: int | None = None
    perspective_camera: Perspective | None = None
    orthogonal_camera: Orthogonal | None = None
    lines: Annotated[list[Line], Field(max_length=20_000)] = []
    clipping_planes: Annotated[list[ClippingPlane], Field(max_length=100)] = []
    components: Components = Components()
    bitmaps: Annotated[list[BitmapRequest], Field(max_length=100)] = []
    snapshot: SnapshotRequest | None = None

    @model_validator(mode="after")
    def _one_camera(self) -> Self:
        if self.perspective_camera is not None and self.orthogonal_camera is not None:
            raise ValueError("A viewpoint has one camera. Send perspective_camera or orthogonal_camera, not both.")
        return self


class Viewpoint(BaseModel):
    guid: str
    index: int | None = None
    perspective_camera: Perspective | None = None
    orthogonal_camera: Orthogonal | None = None
    lines: list[Line] = []
    clipping_planes: list[ClippingPlane] = []
    bitmaps: list[Bitmap] = []
    snapshot: Snapshot | None = None


class Selection(BaseModel):
    selection: list[Part]


class Colourings(BaseModel):
    coloring: list[Colouring]


class Visibilities(BaseModel):
    visibility: Visibility


class DocumentReferenceRequest(BaseModel):
    """A document of the project, or a link to one that is elsewhere."""

    guid: _Guid | None = None
    document_guid: _Guid | None = None
    url: Annotated[str, Field(max_length=2000)] | None = None
    description: _Text | None = None


class DocumentReference(BaseModel):
    guid: str
    document_guid: str | None = None
    url: str | None = None
    description: str | None = None


class Document(BaseModel):
    guid: str
    filename: str


class File(BaseModel):
    """A model that a topic is about."""

    filename: str
    date: datetime | None = None
    reference: str | None = None


class Action(BaseModel):
    """What was done, in the standard's words."""

    type: str
    value: str | None = None


class Event(BaseModel):
    topic_guid: str
    comment_guid: str | None = None
    date: datetime
    author: str
    actions: list[Action]


class RelatedTopic(BaseModel):
    related_topic_guid: _Guid


class Project(BaseModel):
    project_id: str
    name: str
    authorization: ProjectAuthorization


class Version(BaseModel):
    version_id: str
    detailed_version: str
    api_base_url: str


class Versions(BaseModel):
    versions: list[Version]


class Extensions(BaseModel):
    """What may be said of a project's topics."""

    topic_type: list[str]
    topic_status: list[str]
    topic_label: list[str]
    snippet_type: list[str]
    priority: list[str]
    users: list[str]
    stage: list[str]
    project_actions: list[str]
    topic_actions: list[str]
    comment_actions: list[str]


class Wrong(BaseModel):
    message: str
