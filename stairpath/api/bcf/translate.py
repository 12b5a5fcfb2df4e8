"""The standard's shapes, from what the core and the store have and back."""

from __future__ import annotations

import base64
import uuid
from collections.abc import Sequence
from datetime import UTC, datetime, time

from stairpath.api.bcf import schemas
from stairpath.api.bcf.authorization import comment_actions
from stairpath.core.exchange import topic as bcf_topic
from stairpath.core.exchange.bcf.markup import UNSAID, guid_of
from stairpath.core.exchange.pictures import NotAPictureError, checked, form_of
from stairpath.core.geometry.vectors import Vector
from stairpath.core.review.topic import TopicFields
from stairpath.work.base.errors import WrongError
from stairpath.work.base.unit_of_work import Who
from stairpath.work.exchange.bcf_api import Comment
from stairpath.work.topics.topics import Listed


def topic_shape(of: Listed, may: schemas.TopicAuthorization) -> schemas.Topic:
    """A topic as the standard has it, with what who asks may do to it."""
    row, said = of.topic, of.topic.said
    return schemas.Topic(
        guid=row.guid, server_assigned_id=of.reference, topic_type=said.kind or UNSAID,
        topic_status=said.status, reference_links=row.links, title=said.title, priority=said.priority or None,
        index=row.number, labels=list(said.labels), creation_date=row.created_at, creation_author=row.author,
        modified_date=row.changed_at, modified_author=row.changed_by, assigned_to=said.assigned_to or None,
        stage=said.stage or None, description=said.description or None,
        due_date=datetime.combine(said.due, time(), UTC) if said.due else None, authorization=may,
    )  # fmt: skip


def said_from(wish: schemas.TopicRequest) -> TopicFields:
    """What is said of a topic as it was sent."""
    return TopicFields(
        title=wish.title, description=wish.description or "",
        kind="" if wish.topic_type in (None, UNSAID) else wish.topic_type or "", status=wish.topic_status or "",
        priority=wish.priority or "", assigned_to=wish.assigned_to or "", stage=wish.stage or "",
        due=wish.due_date.date() if wish.due_date else None, labels=tuple(wish.labels),
    )  # fmt: skip


def comment_shape(of: Comment, who: Who) -> schemas.Comment:
    """A comment as the standard has it, with what who asks may do to it."""
    note = of.note
    return schemas.Comment(
        guid=note.guid,
        date=note.at,
        author=note.author,
        comment=note.text,
        topic_guid=of.topic,
        viewpoint_guid=of.viewpoint,
        authorization=schemas.CommentAuthorization(comment_actions=comment_actions(who.role, who.ties(note.author))),
    )


def _xyz(of: Vector) -> schemas.Xyz:
    return schemas.Xyz(x=of[0], y=of[1], z=of[2])


def _vector(of: schemas.Xyz) -> Vector:
    return (of.x, of.y, of.z)


def parts(of: Sequence[bcf_topic.Component]) -> list[schemas.Part]:
    """Components as the standard has them."""
    return [schemas.Part(ifc_guid=each.global_id) for each in of]


def _components(of: Sequence[schemas.Part]) -> tuple[bcf_topic.Component, ...]:
    return tuple(
        bcf_topic.Component(each.ifc_guid or "", each.originating_system or "", each.authoring_tool_id or "")
        for each in of
    )


def viewpoint_shape(view: bcf_topic.Viewpoint) -> schemas.Viewpoint:
    """A viewpoint as the standard has it, without its components, which have addresses of their own."""
    camera = view.camera
    made = schemas.Viewpoint(
        guid=view.guid,
        index=view.index,
        lines=[schemas.Line(start_point=_xyz(a), end_point=_xyz(b)) for a, b in view.lines],
        clipping_planes=[
            schemas.ClippingPlane(location=_xyz(p.point_m), direction=_xyz(p.direction)) for p in view.planes
        ],
        bitmaps=[
            schemas.Bitmap(
                guid=bitmap_guid(view.guid, k),
                bitmap_type=each.format,
                location=_xyz(each.at_m),
                normal=_xyz(each.normal),
                up=_xyz(each.up),
                height=each.height_m,
            )
            for k, each in enumerate(view.bitmaps)
        ],
        snapshot=schemas.Snapshot(snapshot_type=form_of(view.snapshot) or "png") if view.snapshot else None,
    )
    if camera is not None and camera.projection == "perspective":
        made.perspective_camera = schemas.Perspective(
            camera_view_point=_xyz(camera.eye_m), camera_direction=_xyz(camera.direction), camera_up_vector=_xyz(camera.up),
            field_of_view=camera.angle_deg or 60, aspect_ratio=camera.aspect or 4 / 3,
        )  # fmt: skip
    elif camera is not None:
        made.orthogonal_camera = schemas.Orthogonal(
            camera_view_point=_xyz(camera.eye_m), camera_direction=_xyz(camera.direction), camera_up_vector=_xyz(camera.up),
            view_to_world_scale=camera.height_m or 1, aspect_ratio=camera.aspect or 4 / 3,
        )  # fmt: skip
    return made


def visibility_shape(view: bcf_topic.Viewpoint) -> schemas.Visibility:
    """What a viewpoint shows."""
    hints = schemas.Hints(
        spaces_visible=view.hints.spaces,
        space_boundaries_visible=view.hints.boundaries,
        openings_visible=view.hints.openings,
    )
    return schemas.Visibility(
        default_visibility=view.default_visible, exceptions=parts(view.exceptions), view_setup_hints=hints
    )


def bitmap_guid(view: str, place: int) -> str:
    """What a picture of a viewpoint is called, which is always the same."""
    return guid_of(f"{view} bitmap {place}")


def _picture(sent: str, what: str) -> bytes:
    try:
        data = base64.b64decode(sent.partition(",")[2] or sent, validate=True)
        checked(data, what)
    except NotAPictureError as error:
        raise WrongError(str(error)) from error
    except ValueError:  # not base64, or letters outside of ASCII
        raise WrongError(f"The {what} is not base64. Send it again.") from None
    return data


def _bitmap(wish: schemas.BitmapRequest) -> bcf_topic.Bitmap:
    data = _picture(wish.bitmap_data, "bitmap")
    if not any(_vector(wish.normal)) or not any(_vector(wish.up)):
        raise WrongError("The normal or up vector of a bitmap has no length; send one that has.")
    at, normal, up = (_vector(each) for each in (wish.location, wish.normal, wish.up))
    return bcf_topic.Bitmap(form_of(data) or "png", data, at, normal, up, wish.height)


def viewpoint_from(wish: schemas.ViewpointRequest) -> bcf_topic.Viewpoint:
    """A viewpoint as it was sent."""
    camera = None
    if (lens := wish.perspective_camera) is not None:
        camera = bcf_topic.Camera(
            _vector(lens.camera_view_point), _vector(lens.camera_direction), _vector(lens.camera_up_vector), "perspective",
            angle_deg=lens.field_of_view, aspect=lens.aspect_ratio,
        )  # fmt: skip
    elif (flat := wish.orthogonal_camera) is not None:
        camera = bcf_topic.Camera(
            _vector(flat.camera_view_point), _vector(flat.camera_direction), _vector(flat.camera_up_vector), "parallel",
            height_m=flat.view_to_world_scale, aspect=flat.aspect_ratio,
        )  # fmt: skip
    if camera is not None and not (any(camera.direction) and any(camera.up)):
        raise WrongError("The camera's direction or up vector has no length; send one that has.")
    for plane in wish.clipping_planes:
        if not any(_vector(plane.direction)):
            raise WrongError("The direction of a clipping plane has no length; send one that has.")
    visibility = wish.components.visibility
    return bcf_topic.Viewpoint(
        guid=wish.guid or str(uuid.uuid4()),
        camera=camera,
        default_visible=visibility.default_visibility,
        exceptions=_components(visibility.exceptions),
        selected=_components(wish.components.selection),
        colours=tuple(
            bcf_topic.Colouring(f"#{each.color.removeprefix('#')[-6:].lower()}", _components(each.components))
            for each in wish.components.coloring
        ),
        planes=tuple(bcf_topic.Plane(_vector(p.location), _vector(p.direction)) for p in wish.clipping_planes),
        lines=tuple((_vector(each.start_point), _vector(each.end_point)) for each in wish.lines),
        bitmaps=tuple(map(_bitmap, wish.bitmaps)),
        snapshot=_picture(wish.snapshot.snapshot_data, "snapshot") if wish.snapshot else None,
        index=wish.index,
    )
