"""Topics, and what is written of them."""

from __future__ import annotations

from datetime import UTC, datetime

from fastapi import APIRouter

from stairpath.api import shapes
from stairpath.api.documents import shape_of
from stairpath.api.lookups import Asker
from stairpath.api.refused import REFUSALS
from stairpath.core.review.reference import written
from stairpath.core.review.topic import Said, overdue
from stairpath.store.tables import Topic, TopicNote
from stairpath.work import topics

router = APIRouter(prefix="/api", tags=["topics"], responses=REFUSALS)


def _shape(row: Topic, new: bool = False) -> shapes.Topic:
    return shapes.Topic(
        id=row.id,
        guid=row.guid,
        reference=written(topics.reference_of(row)),
        number=row.number,
        variant=row.variant,
        disciplines=row.disciplines,
        said=shapes.TopicSaid.model_validate(row.said),
        views=row.views,
        author=row.author,
        created_at=row.created_at,
        changed_by=row.changed_by,
        changed_at=row.changed_at,
        overdue=overdue(row.said, datetime.now(UTC).date(), topics.STATUSES),
        new=new,
    )


def _note(row: TopicNote) -> shapes.TopicNote:
    return shapes.TopicNote(
        id=row.id,
        author=row.author,
        at=row.at,
        text=row.text,
        view=row.view,
        changed=[shape_of(shapes.TopicChange, each) for each in row.changed],
    )


@router.get("/topic-statuses")
def list_statuses() -> list[shapes.TopicStatus]:
    """The statuses that topics may have, and which may follow which."""
    return [shapes.TopicStatus.model_validate(status) for status in topics.STATUSES.all]


@router.get("/projects/{project_id}/topics")
def list_topics(who: Asker, project_id: str) -> list[shapes.Topic]:
    """The project's topics by number."""
    return [_shape(each.topic, each.new) for each in topics.listed(who, project_id)]


@router.post("/projects/{project_id}/topics", status_code=201)
def make_topic(who: Asker, project_id: str, wish: shapes.NewTopic) -> shapes.Topic:
    """Make a topic."""
    said = wish.model_dump(include=set(shapes.TopicSaid.model_fields))
    new = topics.NewTopic(Said(**{**said, "labels": tuple(wish.labels)}), wish.views, wish.disciplines, wish.variant_of)
    return _shape(topics.make(who, project_id, new))


@router.get("/topics/{topic_id}")
def get_topic(topic_id: str) -> shapes.TopicTold:
    """A topic with everything that was written and changed."""
    told = topics.one(topic_id)
    return shapes.TopicTold(topic=_shape(told.topic), notes=[_note(note) for note in told.notes])


@router.patch("/topics/{topic_id}")
def change_topic(who: Asker, topic_id: str, wish: shapes.TopicWish) -> shapes.Topic:
    """Change what is said of a topic, or its views."""
    given = wish.model_dump(exclude_unset=True)
    views = given.pop("views", None)
    # Only a date may be taken away; anything else is emptied.
    said = {name: value for name, value in given.items() if value is not None or name == "due"}
    if "labels" in said:
        said["labels"] = tuple(said["labels"])
    return _shape(topics.change(who, topic_id, said, views))


@router.post("/topics/{topic_id}/looked", status_code=204)
def look_at_topic(who: Asker, topic_id: str) -> None:
    """Note that one has seen a topic as it is."""
    topics.look_at(who, topic_id)


@router.post("/topics/{topic_id}/comments", status_code=201)
def write_comment(who: Asker, topic_id: str, wish: shapes.NewComment) -> shapes.TopicNote:
    """Write of a topic."""
    return _note(topics.write(who, topic_id, wish.text, wish.view))


@router.delete("/topics/{topic_id}", status_code=204)
def delete_topic(who: Asker, topic_id: str) -> None:
    """Delete a topic; it can be brought back."""
    topics.delete(who, topic_id)


@router.post("/topics/{topic_id}/restore")
def restore_topic(who: Asker, topic_id: str) -> shapes.Topic:
    """Bring back a deleted topic."""
    return _shape(topics.bring_back(who, topic_id))
