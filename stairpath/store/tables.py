"""The tables."""

from __future__ import annotations

import uuid
from datetime import UTC, date, datetime, time
from typing import Any, ClassVar

from sqlalchemy import (
    ARRAY,
    BigInteger,
    Boolean,
    Date,
    DateTime,
    Double,
    Float,
    ForeignKey,
    Identity,
    Index,
    Integer,
    LargeBinary,
    String,
    Text,
    Time,
    UniqueConstraint,
    func,
)  # fmt: skip
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column, relationship

from stairpath.core.exchange.import_request import TopicsIn
from stairpath.core.federation.alignment import Placement
from stairpath.core.measuring.check import Check
from stairpath.core.project_limits import ProjectLimits
from stairpath.core.review.history import ChangedField
from stairpath.core.review.question import Question
from stairpath.core.review.recheck import OfFinding
from stairpath.core.review.rules import TopicRules
from stairpath.core.review.sheet_request import SheetRequest
from stairpath.core.review.topic import TopicChange, TopicFields
from stairpath.core.review.view import Home, View
from stairpath.core.visibility.condition import Condition
from stairpath.core.walking.route_answer import RouteAnswer, RouteRequest
from stairpath.store.documents import (
    Building,
    Details,
    Document,
    Frame,
    Placed,
    Walking,
    older_building,
    older_home,
    older_placed,
    older_view,
    older_walking,
)  # fmt: skip


def new_id() -> str:
    return uuid.uuid4().hex


def now() -> datetime:
    return datetime.now(UTC)


class Base(DeclarativeBase):
    type_annotation_map: ClassVar[dict[Any, Any]] = {datetime: DateTime(timezone=True)}


class Blob(Base):
    """Bytes kept once by their hash: model files, chunks, geometry, pictures."""

    __tablename__ = "blob"
    sha256: Mapped[str] = mapped_column(String(64), primary_key=True)
    size: Mapped[int]
    media_type: Mapped[str]
    unused_since: Mapped[datetime | None]
    """Since when nothing refers to it, as far as that was noted."""


class BlobPiece(Base):
    """A megabyte or less of a blob."""

    __tablename__ = "blob_piece"
    sha256: Mapped[str] = mapped_column(ForeignKey("blob.sha256", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True)
    data: Mapped[bytes] = mapped_column(LargeBinary)


class ProjectBlob(Base):
    """That a project was given the bytes of a hash. Whoever is in it gets them; a hash alone is no key.

    It refers to no project's row: keeping bytes must not wait for who holds that row, nor they for it.
    """

    __tablename__ = "project_blob"
    project_id: Mapped[str] = mapped_column(String(32), primary_key=True)
    sha256: Mapped[str] = mapped_column(ForeignKey("blob.sha256", ondelete="CASCADE"), primary_key=True, index=True)


class Project(Base):
    """A building under coordination."""

    __tablename__ = "project"
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    name: Mapped[str] = mapped_column(Text)
    created_at: Mapped[datetime] = mapped_column(default=now)
    created_by: Mapped[str] = mapped_column(Text)
    removed_at: Mapped[datetime | None]
    """Since when it is in the bin."""
    begun: Mapped[bool] = mapped_column(Boolean, default=True)
    """False until the first file of a project that is made for files was taken in; nobody sees it until then."""
    version: Mapped[int] = mapped_column(Integer, default=0)
    """Counts what is drawn: every federation, and every alternative that was let stand."""
    wanted: Mapped[int] = mapped_column(Integer, default=0)
    """Counts what asks for a federation."""
    made: Mapped[int] = mapped_column(Integer, default=0)
    """The ``wanted`` that the last federation was made for."""
    federation: Mapped[Building | None] = mapped_column(Document(Building, older_building))
    """Origin, bounds, levels, rooms and norths, as federated last."""
    picture: Mapped[str | None] = mapped_column(ForeignKey("blob.sha256"))
    home: Mapped[Home | None] = mapped_column(Document(Home, older_home))
    """The view that everybody comes home to, and who set it."""
    walking: Mapped[Walking | None] = mapped_column(Document(Walking, older_walking))
    """Which classes stand in the way, bodies of the project's own, and what the walk map was made for."""
    limits: Mapped[ProjectLimits | None] = mapped_column(Document(ProjectLimits))
    """What it may hold; None for what the server lets each project hold."""
    topic_rules: Mapped[TopicRules | None] = mapped_column(Document(TopicRules))
    """How topics are called, their statuses, and what is offered; None until somebody set it."""
    making: Mapped[float | None] = mapped_column(Float)
    """How much of the walk map that is being made is there, from 0 to 1."""
    trouble: Mapped[str] = mapped_column(Text, default="")
    """Why the building could not be put together or mapped the last time, in one sentence."""
    models: Mapped[list[Model]] = relationship(back_populates="project", order_by="Model.position")


class Model(Base):
    """One model file of a project and what was read from it."""

    __tablename__ = "model"
    __table_args__ = (Index("model_of_project", "project_id", "position"),)
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    project_id: Mapped[str] = mapped_column(ForeignKey("project.id", ondelete="CASCADE"))
    position: Mapped[int]
    name: Mapped[str] = mapped_column(Text)
    file_name: Mapped[str] = mapped_column(Text)
    file_sha: Mapped[str] = mapped_column(ForeignKey("blob.sha256"))
    file_size: Mapped[int]
    added_by: Mapped[str] = mapped_column(Text)
    added_at: Mapped[datetime] = mapped_column(default=now)
    removed_at: Mapped[datetime | None]
    status: Mapped[str] = mapped_column(String(16), default="waiting")
    share: Mapped[float] = mapped_column(Float, default=0.0)
    message: Mapped[str] = mapped_column(Text, default="")
    cancel: Mapped[bool] = mapped_column(Boolean, default=False)
    discipline_rule: Mapped[str | None] = mapped_column(String(8))
    """The discipline that a user set, overruling the file's name and its classes."""
    chosen: Mapped[bool] = mapped_column(Boolean, default=False)
    """Whether a user chose this alternative."""
    stands: Mapped[bool] = mapped_column(Boolean, default=True)
    """Whether the model stands in the building; of the alternatives for one thing, one does."""
    placement: Mapped[Placement | None] = mapped_column(Document(Placement))
    """How a user wants it aligned, overruling the evidence."""
    frame: Mapped[Frame | None] = mapped_column(Document(Frame))
    """Schema, unit, storeys, rooms, grid, map conversion and north, as read."""
    placed: Mapped[Placed | None] = mapped_column(Document(Placed, older_placed))
    """Alignment, discipline, alternative, storeys' levels and problems, as federated."""
    geometry: Mapped[str | None] = mapped_column(ForeignKey("blob.sha256"))
    project: Mapped[Project] = relationship(back_populates="models")

    @property
    def is_read(self) -> bool:
        """Whether something was read of it; it stays while a newer file is read, or when that fails."""
        return self.geometry is not None and self.frame is not None and self.frame.sorts is not None


class Component(Base):
    """One component of a model as it was read; ``ordinal`` is its place in the file."""

    __tablename__ = "component"
    __table_args__ = (Index("component_by_global_id", "model_id", "global_id", unique=True),)
    model_id: Mapped[str] = mapped_column(ForeignKey("model.id", ondelete="CASCADE"), primary_key=True)
    ordinal: Mapped[int] = mapped_column(primary_key=True)
    global_id: Mapped[str] = mapped_column(Text)
    ifc_class: Mapped[str] = mapped_column(Text)
    name: Mapped[str] = mapped_column(Text)
    tag: Mapped[str] = mapped_column(Text)
    type_class: Mapped[str] = mapped_column(Text)
    storey: Mapped[str | None] = mapped_column(Text)
    systems: Mapped[list[str]] = mapped_column(ARRAY(Text))
    details: Mapped[Details] = mapped_column(Document(Details))
    """Description, type, material, relations, properties and quantities."""


class EarlierIssue(Base):
    """An issue of a model that a newer one took the place of, with what was read of it."""

    __tablename__ = "earlier_issue"
    __table_args__ = (Index("issue_of_model", "model_id", "added_at"),)
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    model_id: Mapped[str] = mapped_column(ForeignKey("model.id", ondelete="CASCADE"))
    file_name: Mapped[str] = mapped_column(Text)
    file_sha: Mapped[str] = mapped_column(ForeignKey("blob.sha256"))
    added_by: Mapped[str] = mapped_column(Text)
    added_at: Mapped[datetime]
    components: Mapped[int]
    geometry: Mapped[str] = mapped_column(ForeignKey("blob.sha256"))
    listing: Mapped[str] = mapped_column(ForeignKey("blob.sha256"))
    """Its components and storeys, packed."""
    matrix: Mapped[list[list[float]] | None] = mapped_column(JSONB)
    """Where it stood; None where it was replaced before it was put in its place."""


class Chunk(Base):
    """A drawn piece of a model."""

    __tablename__ = "chunk"
    model_id: Mapped[str] = mapped_column(ForeignKey("model.id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True)
    sha256: Mapped[str] = mapped_column(ForeignKey("blob.sha256"))
    centre_m: Mapped[list[float]] = mapped_column(ARRAY(Double))
    bounds_m: Mapped[list[float]] = mapped_column(ARRAY(Double))
    storey: Mapped[str | None] = mapped_column(Text)
    triangles: Mapped[int]
    size: Mapped[int]


class Folder(Base):
    """Viewpoints that belong together, in the order that somebody gave them; ``place`` is the folder's own.

    ``within`` is the folder that it stands in.
    """

    __tablename__ = "folder"
    __table_args__ = (Index("folder_of_project", "project_id", "place"),)
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    project_id: Mapped[str] = mapped_column(ForeignKey("project.id", ondelete="CASCADE"))
    name: Mapped[str] = mapped_column(Text)
    author: Mapped[str] = mapped_column(Text)
    created_at: Mapped[datetime] = mapped_column(default=now)
    removed_at: Mapped[datetime | None]
    place: Mapped[int] = mapped_column(Integer, default=0)
    within: Mapped[str | None] = mapped_column(ForeignKey("folder.id", ondelete="SET NULL"))


class Viewpoint(Base):
    """A kept view; one in a folder has its place there, others stand newest first."""

    __tablename__ = "viewpoint"
    __table_args__ = (
        Index("viewpoint_of_project", "project_id", "created_at"),
        Index("viewpoint_guid", "project_id", "guid"),
    )
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    project_id: Mapped[str] = mapped_column(ForeignKey("project.id", ondelete="CASCADE"))
    name: Mapped[str] = mapped_column(Text)
    author: Mapped[str] = mapped_column(Text)
    created_at: Mapped[datetime] = mapped_column(default=now)
    removed_at: Mapped[datetime | None]
    picture: Mapped[str] = mapped_column(ForeignKey("blob.sha256"))
    view: Mapped[View] = mapped_column(Document(View, older_view))
    guid: Mapped[str] = mapped_column(String(36), default=lambda: str(uuid.uuid4()))
    """What exchange files call it."""
    folder: Mapped[str | None] = mapped_column(ForeignKey("folder.id", ondelete="SET NULL"))
    place: Mapped[int] = mapped_column(Integer, default=0, server_default="0")
    large: Mapped[str | None] = mapped_column(ForeignKey("blob.sha256"))
    """Its picture at a size for print, where there is one."""
    undrawn: Mapped[bool] = mapped_column(Boolean, default=False, server_default="false")
    """Whether its picture is still to be drawn from the view."""
    changed_by: Mapped[str] = mapped_column(Text, default="", server_default="")
    changed_at: Mapped[datetime] = mapped_column(default=now, server_default=func.now())
    standing: Mapped[str | None] = mapped_column(Text)
    """Which of the building's standing views it is; ``digest`` tells whether it is still as it was made."""
    digest: Mapped[str | None] = mapped_column(String(64))


class ViewpointBefore(Base):
    """What a viewpoint was before another view was kept over it."""

    __tablename__ = "viewpoint_before"
    __table_args__ = (Index("before_of_viewpoint", "viewpoint_id", "at"),)
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    viewpoint_id: Mapped[str] = mapped_column(ForeignKey("viewpoint.id", ondelete="CASCADE"))
    at: Mapped[datetime] = mapped_column(default=now)
    changed_by: Mapped[str] = mapped_column(Text)
    picture: Mapped[str] = mapped_column(ForeignKey("blob.sha256"))
    large: Mapped[str | None] = mapped_column(ForeignKey("blob.sha256"))
    view: Mapped[View] = mapped_column(Document(View, older_view))


class ProjectVisit(Base):
    """When somebody was first and last in a project."""

    __tablename__ = "project_visit"
    project_id: Mapped[str] = mapped_column(ForeignKey("project.id", ondelete="CASCADE"), primary_key=True)
    who: Mapped[str] = mapped_column(Text, primary_key=True)
    first_at: Mapped[datetime] = mapped_column(default=now)
    last_at: Mapped[datetime] = mapped_column(default=now)


class ViewpointLook(Base):
    """When somebody last went through the viewpoints of a project."""

    __tablename__ = "viewpoint_look"
    project_id: Mapped[str] = mapped_column(ForeignKey("project.id", ondelete="CASCADE"), primary_key=True)
    who: Mapped[str] = mapped_column(Text, primary_key=True)
    at: Mapped[datetime] = mapped_column(default=now)


class ChangeMade(Base):
    """What somebody changed of a thing that people edit; ``number`` grows, and the last one is the thing's version."""

    __tablename__ = "change_made"
    __table_args__ = (
        Index("changes_of_thing", "thing_id", "number"),
        Index("changes_of_parts", "whole_id", "number"),
    )
    number: Mapped[int] = mapped_column(BigInteger, Identity(), primary_key=True)
    project_id: Mapped[str] = mapped_column(ForeignKey("project.id", ondelete="CASCADE"))
    kind: Mapped[str] = mapped_column(Text)
    thing_id: Mapped[str] = mapped_column(String(32))
    whole_id: Mapped[str | None] = mapped_column(String(32))
    """Of a part, such as a note of a meeting: what it is a part of."""
    at: Mapped[datetime] = mapped_column(default=now)
    author: Mapped[str] = mapped_column(Text)
    fields: Mapped[list[ChangedField]] = mapped_column(Document(list[ChangedField]))


class Link(Base):
    """A view that an address names, as it is too long to stand in it; ``id`` is made from what it holds."""

    __tablename__ = "link"
    project_id: Mapped[str] = mapped_column(ForeignKey("project.id", ondelete="CASCADE"), primary_key=True)
    id: Mapped[str] = mapped_column(String(16), primary_key=True)
    view: Mapped[View] = mapped_column(Document(View, older_view))
    made_at: Mapped[datetime] = mapped_column(default=now)


class WalkTile(Base):
    """A square of the walk map for one body; ``made_of`` is the fingerprint of what it was made of."""

    __tablename__ = "walk_tile"
    project_id: Mapped[str] = mapped_column(ForeignKey("project.id", ondelete="CASCADE"), primary_key=True)
    body: Mapped[str] = mapped_column(Text, primary_key=True)
    x: Mapped[int] = mapped_column(primary_key=True)
    y: Mapped[int] = mapped_column(primary_key=True)
    made_of: Mapped[str] = mapped_column(String(32))
    sha256: Mapped[str] = mapped_column(ForeignKey("blob.sha256"))
    size: Mapped[int]


class SavedRoute(Base):
    """A kept route: what was asked for, and the answer then."""

    __tablename__ = "saved_route"
    __table_args__ = (Index("route_of_project", "project_id", "created_at"),)
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    project_id: Mapped[str] = mapped_column(ForeignKey("project.id", ondelete="CASCADE"))
    name: Mapped[str] = mapped_column(Text)
    author: Mapped[str] = mapped_column(Text)
    created_at: Mapped[datetime] = mapped_column(default=now)
    removed_at: Mapped[datetime | None]
    wish: Mapped[RouteRequest] = mapped_column(Document(RouteRequest))
    answer: Mapped[RouteAnswer] = mapped_column(Document(RouteAnswer))


class ComponentSet(Base):
    """Components found by conditions, which are asked anew each time."""

    __tablename__ = "component_set"
    __table_args__ = (Index("set_of_project", "project_id", "created_at"),)
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    project_id: Mapped[str] = mapped_column(ForeignKey("project.id", ondelete="CASCADE"))
    name: Mapped[str] = mapped_column(Text)
    author: Mapped[str] = mapped_column(Text)
    created_at: Mapped[datetime] = mapped_column(default=now)
    removed_at: Mapped[datetime | None]
    conditions: Mapped[tuple[Condition, ...]] = mapped_column(Document(tuple[Condition, ...]))
    steps: Mapped[list[str]] = mapped_column(ARRAY(Text), default=list)
    """What it is grouped by where it is listed; nothing for as the list happens to be."""
    sums: Mapped[list[str]] = mapped_column(ARRAY(Text), default=list)
    columns: Mapped[list[str]] = mapped_column(ARRAY(Text), default=list)
    """What is said beside each component."""


class Topic(Base):
    """One problem. Its number is the project's own; with the variant it tells topics of a project apart.

    ``guid`` is what exchange files call it, ``said`` what may be changed of it, ``disciplines`` those it concerns.
    """

    __tablename__ = "topic"
    __table_args__ = (
        UniqueConstraint("project_id", "number", "variant", name="topic_reference"),
        UniqueConstraint("project_id", "guid", name="topic_guid"),
    )
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    project_id: Mapped[str] = mapped_column(ForeignKey("project.id", ondelete="CASCADE"))
    guid: Mapped[str] = mapped_column(String(36), default=lambda: str(uuid.uuid4()))
    number: Mapped[int] = mapped_column(Integer)
    variant: Mapped[str] = mapped_column(String(1), default="")
    disciplines: Mapped[list[str]] = mapped_column(ARRAY(Text), default=list)
    said: Mapped[TopicFields] = mapped_column(Document(TopicFields))
    author: Mapped[str] = mapped_column(Text)
    created_at: Mapped[datetime] = mapped_column(default=now)
    changed_by: Mapped[str] = mapped_column(Text)
    changed_at: Mapped[datetime] = mapped_column(default=now)
    # Whose hand is the latest to be seen here, and since when: a file of topics tells of changes made elsewhere before.
    news_by: Mapped[str] = mapped_column(Text)
    news_at: Mapped[datetime] = mapped_column(default=now)
    removed_at: Mapped[datetime | None]
    views: Mapped[list[str]] = mapped_column(ARRAY(String(32)), default=list)
    """Its viewpoints, in order; the first shows it in lists."""
    related: Mapped[list[str]] = mapped_column(ARRAY(Text), default=list, server_default="{}")
    """Topics that have to do with it, by their GUIDs; they may not be here yet."""
    links: Mapped[list[str]] = mapped_column(ARRAY(Text), default=list, server_default="{}")
    exchanged: Mapped[TopicFields | None] = mapped_column(Document(TopicFields))
    """What was said of it when a file brought it last."""
    level: Mapped[str] = mapped_column(Text, default="", server_default="")
    room: Mapped[str] = mapped_column(Text, default="", server_default="")
    at_m: Mapped[list[float] | None] = mapped_column(JSONB(none_as_null=True))
    """Where it is, as its components tell: level, room, and the point that marks it, in project coordinates."""
    finding: Mapped[OfFinding | None] = mapped_column(Document(OfFinding))
    """The finding that it was made of."""
    picked_pair: Mapped[list[str]] = mapped_column(ARRAY(Text), default=list, server_default="{}")
    """The two components that its view has picked, by their GlobalIds; none where it has picked another number of them."""
    question: Mapped[Question | None] = mapped_column(Document(Question))
    """What was asked of a designer last, and the answer."""


class TopicFile(Base):
    """A file that is attached to a topic, or a link to one that is elsewhere."""

    __tablename__ = "topic_file"
    __table_args__ = (Index("file_of_topic", "topic_id"),)
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    topic_id: Mapped[str] = mapped_column(ForeignKey("topic.id", ondelete="CASCADE"))
    guid: Mapped[str] = mapped_column(String(36), default=lambda: str(uuid.uuid4()))
    name: Mapped[str] = mapped_column(Text)
    description: Mapped[str] = mapped_column(Text, default="")
    url: Mapped[str] = mapped_column(Text, default="")
    sha256: Mapped[str | None] = mapped_column(ForeignKey("blob.sha256"))
    size: Mapped[int] = mapped_column(BigInteger, default=0)
    author: Mapped[str] = mapped_column(Text)
    at: Mapped[datetime] = mapped_column(default=now)
    removed_at: Mapped[datetime | None]


class TopicNote(Base):
    """Something that was written of a topic, with a view or without; or a change of it, which nobody can take back."""

    __tablename__ = "topic_note"
    __table_args__ = (Index("note_of_topic", "topic_id", "at"),)
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    topic_id: Mapped[str] = mapped_column(ForeignKey("topic.id", ondelete="CASCADE"))
    guid: Mapped[str] = mapped_column(String(36), default=lambda: str(uuid.uuid4()))
    author: Mapped[str] = mapped_column(Text)
    at: Mapped[datetime] = mapped_column(default=now)
    text: Mapped[str] = mapped_column(Text, default="")
    view: Mapped[str | None] = mapped_column(String(32))
    changed: Mapped[list[TopicChange]] = mapped_column(Document(list[TopicChange]), default=list)
    removed_at: Mapped[datetime | None]


class Meeting(Base):
    """A meeting as it is held: who was there, and the topics in the order in which they are dealt with."""

    __tablename__ = "meeting"
    __table_args__ = (Index("meeting_of_project", "project_id", "started_at"),)
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    project_id: Mapped[str] = mapped_column(ForeignKey("project.id", ondelete="CASCADE"))
    title: Mapped[str] = mapped_column(Text)
    held_on: Mapped[date] = mapped_column(Date)
    author: Mapped[str] = mapped_column(Text)
    started_at: Mapped[datetime] = mapped_column(default=now)
    ended_at: Mapped[datetime | None]
    removed_at: Mapped[datetime | None]
    present: Mapped[list[str]] = mapped_column(ARRAY(Text), default=list)
    absent: Mapped[list[str]] = mapped_column(ARRAY(Text), default=list)
    from_time: Mapped[time | None] = mapped_column(Time)
    to_time: Mapped[time | None] = mapped_column(Time)
    next_on: Mapped[date | None] = mapped_column(Date)
    next_time: Mapped[time | None] = mapped_column(Time)
    topics: Mapped[list[str]] = mapped_column(ARRAY(String(32)), default=list)
    whys: Mapped[list[str]] = mapped_column(ARRAY(Text), default=list)
    """Why each of its topics is on the agenda."""
    folder: Mapped[str | None] = mapped_column(ForeignKey("folder.id", ondelete="SET NULL"))
    """Where the views of the meeting are kept."""


class MeetingPoint(Base):
    """Something that was noted of a topic in a meeting: what was decided or said, who does it, and until when."""

    __tablename__ = "meeting_point"
    __table_args__ = (Index("point_of_meeting", "meeting_id", "at"),)
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"))
    topic_id: Mapped[str] = mapped_column(ForeignKey("topic.id", ondelete="CASCADE"))
    text: Mapped[str] = mapped_column(Text)
    decision: Mapped[bool] = mapped_column(Boolean, default=False)
    who: Mapped[str] = mapped_column(Text, default="")
    until: Mapped[date | None] = mapped_column(Date)
    view: Mapped[str | None] = mapped_column(String(32))
    author: Mapped[str] = mapped_column(Text)
    at: Mapped[datetime] = mapped_column(default=now)
    removed_at: Mapped[datetime | None]


class TopicLook(Base):
    """When somebody last looked at a topic."""

    __tablename__ = "topic_look"
    topic_id: Mapped[str] = mapped_column(ForeignKey("topic.id", ondelete="CASCADE"), primary_key=True)
    who: Mapped[str] = mapped_column(Text, primary_key=True)
    at: Mapped[datetime] = mapped_column(default=now)


class Task(Base):
    """Long work that somebody asked for: a check for interference, or a sheet; and what came of it.

    ``asked`` counts how often it was asked for and ``made`` is that of the last that ended well, for the project's
    version ``made_for``.
    """

    __tablename__ = "task"
    __table_args__ = (Index("task_of_project", "project_id", "created_at"),)
    id: Mapped[str] = mapped_column(String(32), primary_key=True, default=new_id)
    project_id: Mapped[str] = mapped_column(ForeignKey("project.id", ondelete="CASCADE"))
    name: Mapped[str] = mapped_column(Text)
    author: Mapped[str] = mapped_column(Text)
    created_at: Mapped[datetime] = mapped_column(default=now)
    removed_at: Mapped[datetime | None]
    asked_by: Mapped[str | None] = mapped_column(String(32))
    """The person who asked for it last, for whom it runs; None where nobody signs in."""
    wish: Mapped[Check | SheetRequest | TopicsIn] = mapped_column(Document(Check | SheetRequest | TopicsIn))
    status: Mapped[str] = mapped_column(String(16), default="waiting")
    """waiting, running, done, stopped or failed."""
    share: Mapped[float] = mapped_column(Float, default=0.0)
    message: Mapped[str] = mapped_column(Text, default="")
    """How far it is, or why it did not come to its end."""
    stop: Mapped[bool] = mapped_column(Boolean, default=False)
    asked: Mapped[int] = mapped_column(Integer, default=1)
    made: Mapped[int] = mapped_column(Integer, default=0)
    made_for: Mapped[int | None]
    made_at: Mapped[datetime | None]
    results: Mapped[dict[str, str]] = mapped_column(JSONB, default=dict)
    """The hashes of what came of it, by name."""
