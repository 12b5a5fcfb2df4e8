"""A topic with its comments, between the format's own classes of both versions and ours."""

from __future__ import annotations

import uuid
from collections.abc import Callable, Mapping, Sequence
from datetime import UTC, datetime
from typing import TypeVar

from xsdata.models.datatype import XmlDateTime

from stairpath.core.dates import NotADayError, kept_time
from stairpath.core.exchange.bcf import v2_1 as v2
from stairpath.core.exchange.bcf import v3_0 as v3
from stairpath.core.exchange.bcf.v2_1 import markup as v2_parts
from stairpath.core.exchange.bcf.v3_0 import markup as v3_parts
from stairpath.core.exchange.bcf.versions import GLOBAL_ID, GUID
from stairpath.core.exchange.package import NotReadableError
from stairpath.core.exchange.topic import Comment, Document, ModelFile, Snippet, Topic, Viewpoint
from stairpath.core.texts import plain

UNSAID = "unspecified"
"""What is written where 3.0 wants a type or a status and the topic has none."""

Tell = Callable[[NotReadableError], None]
F = TypeVar("F", v2_parts.HeaderFile, v3.File)
S = TypeVar("S", v2.BimSnippet, v3.BimSnippet)
W = TypeVar("W", v2.ViewPoint, v3.ViewPoint)


def guid_of(text: str) -> str:
    """A GUID as the format writes it; what is none gets one that is always the same."""
    low = text.strip().strip("{}").lower()
    if GUID.fullmatch(low):
        return low
    try:
        return str(uuid.UUID(hex=low))
    except ValueError:
        return str(uuid.uuid5(uuid.NAMESPACE_URL, text))


def _time(value: object, what: str, trouble: Tell) -> datetime | None:
    if value is None:
        return None
    try:
        if isinstance(value, XmlDateTime):
            return kept_time(value.to_datetime())
    except NotADayError:
        trouble(NotReadableError(f"The {what} {value} is outside the years 1900 to 2200, and it was left out."))
        return None
    except ValueError:
        pass
    trouble(NotReadableError(f"The {what} is {value}, which is no date; it was left out."))
    return None


def whole(value: object) -> int | None:
    """A whole number, or None where something else was read."""
    return value if isinstance(value, int) else None


def _files(files: Sequence[v2_parts.HeaderFile | v3.File], trouble: Tell) -> tuple[ModelFile, ...]:
    return tuple(
        ModelFile(
            each.filename or "", _time(each.date, "date of a model", trouble), each.reference or "",
            each.ifc_project or "", each.ifc_spatial_structure_element or "", each.is_external,
        )
        for each in files
    )  # fmt: skip


def _comments(comments: Sequence[v2.Comment | v3.Comment], trouble: Tell, otherwise: datetime) -> tuple[Comment, ...]:
    """Comments as they were read; one without a readable date has that of its last change, else another."""
    return tuple(
        Comment(
            each.guid, each.author, _time(each.date, "date of a comment", trouble) or changed or otherwise,
            each.comment or "", each.viewpoint.guid if each.viewpoint else None, each.modified_author or "", changed,
        )
        for each in comments
        for changed in [_time(each.modified_date, "date of a comment", trouble)]
    )  # fmt: skip


def _snippet(of: v2.BimSnippet | v3.BimSnippet | None, data: Callable[[str], bytes | None]) -> Snippet | None:
    if of is None:
        return None
    held = None if of.is_external else data(of.reference)
    return Snippet(of.snippet_type, of.reference, of.reference_schema, of.is_external, held)


def topic_from(
    markup: v2.Markup | v3.Markup,
    viewpoints: tuple[Viewpoint, ...],
    documents: tuple[Document, ...],
    data: Callable[[str], bytes | None],
    trouble: Tell,
) -> Topic:
    """A topic as it was read; ``data`` is what lies beside it by its name."""
    of = markup.topic
    if isinstance(of, v3.Topic):
        labels = of.labels.label if of.labels else []
        links = of.reference_links.reference_link if of.reference_links else []
        related = [each.guid for each in of.related_topics.related_topic] if of.related_topics else []
        reference = of.server_assigned_id or ""
    else:
        labels, links, related, reference = of.labels, of.reference_link, [e.guid for e in of.related_topic], ""
    files: Sequence[v2_parts.HeaderFile | v3.File] = ()
    if isinstance(markup, v2.Markup):
        written: Sequence[v2.Comment | v3.Comment] = markup.comment
        files = markup.header.file if markup.header else ()
    else:
        written = markup.topic.comments.comment if markup.topic.comments else []
        files = markup.header.files.file if markup.header and markup.header.files else ()
    modified = _time(of.modified_date, "date of the last change", trouble)
    # Where a file does not say when, it was not later than now.
    created = _time(of.creation_date, "date of creation", trouble) or modified or datetime.now(UTC)
    return Topic(
        guid=of.guid,
        title=of.title,
        created_by=of.creation_author,
        created_at=created,
        description=of.description or "",
        kind=_said(of.topic_type),
        status=_said(of.topic_status),
        priority=of.priority or "",
        assigned_to=of.assigned_to or "",
        stage=of.stage or "",
        due=_time(of.due_date, "due date", trouble),
        labels=tuple(label for label in labels if label),
        index=whole(of.index),
        reference=reference,
        modified_by=of.modified_author or "",
        modified_at=modified,
        links=tuple(links),
        related=tuple(related),
        documents=documents,
        files=_files(files, trouble),
        snippet=_snippet(of.bim_snippet, data),
        comments=_comments(written, trouble, created),
        viewpoints=viewpoints,
    )


def _said(text: str | None) -> str:
    return "" if text in (None, UNSAID) else str(text)


def _xml_time(at: datetime) -> XmlDateTime:
    return XmlDateTime.from_datetime(at)


def _text(text: str) -> str | None:
    return plain(text) or None


def _global_id(text: str) -> str | None:
    return text if GLOBAL_ID.fullmatch(text) else None


def _when(at: datetime | None) -> XmlDateTime | None:
    return _xml_time(at) if at else None


def _given_files(kind: type[F], of: Sequence[ModelFile]) -> list[F]:
    return [
        kind(
            filename=_text(each.name),
            date=_when(each.date),
            reference=_text(each.reference),
            ifc_project=_global_id(each.project),
            ifc_spatial_structure_element=_global_id(each.part),
            is_external=each.external,
        )
        for each in of
    ]


def _given_snippet(kind: type[S], of: Snippet | None) -> S | None:
    if of is None:
        return None
    return kind(reference=of.reference, reference_schema=of.schema, snippet_type=of.kind, is_external=of.external)


def _given_views(kind: type[W], topic: Topic, names: Sequence[tuple[str, str | None]]) -> list[W]:
    return [
        kind(guid=guid_of(view.guid), viewpoint=name, snapshot=picture, index=view.index)
        for view, (name, picture) in zip(topic.viewpoints, names, strict=True)
    ]


def v2_markup(topic: Topic, names: Sequence[tuple[str, str | None]], documents: Mapping[str, str]) -> v2.Markup:
    """A topic as version 2.1 has it.

    ``names`` are those of the viewpoints' files and pictures, ``documents`` those of what is attached by its GUID.
    """
    return v2.Markup(
        header=v2.Header(file=_given_files(v2_parts.HeaderFile, topic.files)) if topic.files else None,
        topic=v2.Topic(
            guid=guid_of(topic.guid),
            title=plain(topic.title),
            creation_author=plain(topic.created_by),
            creation_date=_xml_time(topic.created_at),
            topic_type=_text(topic.kind),
            topic_status=_text(topic.status),
            priority=_text(topic.priority),
            index=topic.index,
            labels=[plain(label) for label in topic.labels],
            modified_author=_text(topic.modified_by),
            modified_date=_when(topic.modified_at),
            due_date=_when(topic.due),
            assigned_to=_text(topic.assigned_to),
            stage=_text(topic.stage),
            description=_text(topic.description),
            reference_link=[plain(link) for link in topic.links],
            bim_snippet=_given_snippet(v2.BimSnippet, topic.snippet),
            document_reference=[
                v2_parts.TopicDocumentReference(
                    guid=guid_of(each.guid),
                    referenced_document=each.url or documents.get(each.guid, each.name),
                    # The older version has one name for what is attached, and that may be taken.
                    description=_text(each.description or (each.name if each.data is not None else "")),
                    is_external=bool(each.url),
                )
                for each in topic.documents
            ],
            related_topic=[v2_parts.TopicRelatedTopic(guid=guid_of(each)) for each in topic.related],
        ),
        comment=[
            v2.Comment(
                guid=guid_of(each.guid),
                date=_xml_time(each.at),
                author=plain(each.author),
                comment=plain(each.text),
                viewpoint=v2_parts.CommentViewpoint(guid=guid_of(each.viewpoint)) if each.viewpoint else None,
                modified_author=_text(each.modified_by),
                modified_date=_when(each.modified_at),
            )
            for each in topic.comments
        ],
        viewpoints=_given_views(v2.ViewPoint, topic, names),
    )


def v3_markup(topic: Topic, names: Sequence[tuple[str, str | None]]) -> v3.Markup:
    """A topic as version 3.0 has it; ``names`` are those of the viewpoints' files and pictures."""
    return v3.Markup(
        header=v3.Header(files=v3_parts.HeaderFiles(file=_given_files(v3.File, topic.files))) if topic.files else None,
        topic=v3.Topic(
            guid=guid_of(topic.guid),
            title=plain(topic.title),
            creation_author=_text(topic.created_by) or UNSAID,
            creation_date=_xml_time(topic.created_at),
            topic_type=_text(topic.kind) or UNSAID,
            topic_status=_text(topic.status) or UNSAID,
            priority=_text(topic.priority),
            index=topic.index,
            labels=v3_parts.TopicLabels(label=[plain(label) for label in topic.labels]) if topic.labels else None,
            modified_author=_text(topic.modified_by),
            modified_date=_when(topic.modified_at),
            due_date=_when(topic.due),
            assigned_to=_text(topic.assigned_to),
            stage=_text(topic.stage),
            description=_text(topic.description),
            server_assigned_id=_text(topic.reference),
            reference_links=v3_parts.TopicReferenceLinks(reference_link=[plain(link) for link in topic.links])
            if topic.links
            else None,
            bim_snippet=_given_snippet(v3.BimSnippet, topic.snippet),
            document_references=v3_parts.TopicDocumentReferences(
                document_reference=[
                    v3.DocumentReference(
                        guid=guid_of(each.guid if each.url else each.guid + topic.guid),
                        document_guid=None if each.url else guid_of(each.guid),
                        url=each.url or None,
                        description=_text(each.description),
                    )
                    for each in topic.documents
                ]
            )
            if topic.documents
            else None,
            related_topics=v3_parts.TopicRelatedTopics(
                related_topic=[v3_parts.TopicRelatedTopicsRelatedTopic(guid=guid_of(each)) for each in topic.related]
            )
            if topic.related
            else None,
            comments=v3_parts.TopicComments(
                comment=[
                    v3.Comment(
                        guid=guid_of(each.guid),
                        date=_xml_time(each.at),
                        author=_text(each.author) or UNSAID,
                        comment=_text(each.text),
                        viewpoint=v3_parts.CommentViewpoint(guid=guid_of(each.viewpoint)) if each.viewpoint else None,
                        modified_author=_text(each.modified_by),
                        modified_date=_when(each.modified_at),
                    )
                    for each in topic.comments
                ]
            )
            if topic.comments
            else None,
            viewpoints=v3_parts.TopicViewpoints(view_point=_given_views(v3.ViewPoint, topic, names))
            if topic.viewpoints
            else None,
        ),
    )
