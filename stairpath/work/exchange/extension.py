"""What goes beside the open format in a file of topics, and comes back whole."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field

from pydantic import TypeAdapter, ValidationError

from stairpath.core.dates import NotADayError, kept_day
from stairpath.core.exchange.bcf.markup import guid_of
from stairpath.core.exchange.pictures import MEDIA, NotAPictureError, checked
from stairpath.core.exchange.topic import Bitmap, Document, Topic
from stairpath.core.exchange.views import hung
from stairpath.core.review.topic import TopicFields
from stairpath.core.review.view import HungPicture, View
from stairpath.store import blobs
from stairpath.work.base.unit_of_work import UnitOfWork

NAME = "stairpath-topic.json"
_ABOUT = "What Stair Path keeps of this topic beyond the format"


@dataclass(frozen=True)
class Extension:
    """What goes beside the format: the topic as it was said, its reference, and its views by their GUIDs."""

    said: TopicFields
    reference: str = ""
    disciplines: tuple[str, ...] = ()
    views: Mapping[str, View] = field(default_factory=dict)
    names: Mapping[str, str] = field(default_factory=dict)


_EXTENSION: TypeAdapter[Extension] = TypeAdapter(Extension)


def extension_of(topic: Topic) -> Extension | None:
    """What a topic of a file has beside the format, if it is there and whole."""
    held = next((each for each in topic.documents if each.name == NAME and each.data), None)
    # A letter that no text of the database can hold.
    if held is None or held.data is None or b"\\u0000" in held.data:
        return None
    try:
        found = _EXTENSION.validate_json(held.data)
        if found.said.due is not None:
            kept_day(found.said.due)
    except (ValidationError, NotADayError):
        return None
    return found


def document_of(guid: str, extension: Extension) -> Document:
    """The document that goes with a topic."""
    return Document(guid_of(f"{guid} carried"), NAME, _ABOUT, _EXTENSION.dump_json(extension))


def keep_bitmaps(
    act: UnitOfWork, project_id: str, bitmaps: Sequence[Bitmap], trouble: Callable[[str], None]
) -> tuple[HungPicture, ...]:
    """Keep the pictures in space of a viewpoint; one that cannot be shown is told and left out."""
    kept = []
    for each in bitmaps:
        try:
            form = checked(each.data, "picture in space")
        except NotAPictureError as error:
            trouble(str(error))
            continue
        kept.append(hung(each, blobs.keep(act.session, project_id, each.data, MEDIA[form])))
    return tuple(kept)
