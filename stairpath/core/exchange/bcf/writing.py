"""A file of topics, written one topic after the other."""

from __future__ import annotations

import io
import posixpath
import uuid
import zipfile
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from pathlib import Path

from stairpath.core.exchange.bcf import v2_1 as v2
from stairpath.core.exchange.bcf import v3_0 as v3
from stairpath.core.exchange.bcf.markup import UNSAID, guid_of, v2_markup, v3_markup
from stairpath.core.exchange.bcf.v3_0 import documents as v3_documents
from stairpath.core.exchange.bcf.v3_0 import extensions as v3_extensions
from stairpath.core.exchange.bcf.versions import Version, written
from stairpath.core.exchange.bcf.visinfo import LEAST_ANGLE_DEG, MOST_ANGLE_DEG, v2_info, v3_info
from stairpath.core.exchange.pictures import form_of
from stairpath.core.exchange.topic import Topic, TopicsProblem, Viewpoint
from stairpath.core.review.rules import TopicRules
from stairpath.core.texts import plain

_NO_PICTURE_ASPECT = 4 / 3
_WIDTH = slice(16, 24)


@dataclass
class _Words:
    """What may be said of a project's topics, gathered from those that are written."""

    kinds: set[str] = field(default_factory=set)
    statuses: set[str] = field(default_factory=set)
    priorities: set[str] = field(default_factory=set)
    labels: set[str] = field(default_factory=set)
    users: set[str] = field(default_factory=set)
    stages: set[str] = field(default_factory=set)

    @classmethod
    def offered(cls, rules: TopicRules) -> _Words:
        """What a project offers, whether a topic has it or not."""
        return cls(set(rules.kinds), {each.name for each in rules.statuses.all}, set(rules.priorities))

    def of(self, topic: Topic) -> None:
        for words, said in (
            (self.kinds, (topic.kind or UNSAID,)), (self.statuses, (topic.status or UNSAID,)),
            (self.priorities, (topic.priority,)), (self.labels, topic.labels), (self.stages, (topic.stage,)),
            (self.users, (topic.created_by, topic.assigned_to, *(c.author for c in topic.comments))),
        ):  # fmt: skip
            words.update(plain(word) for word in said if plain(word))


class Writing:
    """A file that topics are put into; ``problems`` says what its version cannot say."""

    def __init__(self, zip_file: zipfile.ZipFile, version: Version, rules: TopicRules | None = None) -> None:
        self.problems: list[TopicsProblem] = []
        self._zip, self._version = zip_file, version
        self._words = _Words.offered(rules) if rules else _Words()
        self._documents: dict[str, v3.Document] = {}
        self._guids: set[str] = set()

    def put(self, topic: Topic) -> None:
        """Write a topic; one that is there already is left out and said."""
        guid = guid_of(topic.guid)
        if guid in self._guids:
            self.problems.append(
                TopicsProblem("twice", f"The topic {topic.title} is there twice; one was written.", topic.guid)
            )
            return
        self._guids.add(guid)
        self._words.of(topic)
        names = [self._viewpoint(topic, guid, k, view) for k, view in enumerate(topic.viewpoints)]
        if self._version == "3.0":
            self._attach(topic)
            markup: v2.Markup | v3.Markup = v3_markup(topic, names)
        else:
            markup = v2_markup(topic, names, self._attach_beside(topic, guid))
            if topic.reference:
                # The older version has no place for what the keeper of topics calls one.
                self.problems.append(
                    TopicsProblem(
                        "reference", f"Version 2.1 has no place for the reference {topic.reference}.", topic.guid
                    )
                )
        if topic.snippet and topic.snippet.data is not None:
            self._zip.writestr(f"{guid}/{posixpath.basename(topic.snippet.reference)}", topic.snippet.data)
        self._zip.writestr(f"{guid}/markup.bcf", written(markup))

    def _viewpoint(self, topic: Topic, folder: str, place: int, view: Viewpoint) -> tuple[str, str | None]:
        # The first of the older version has the name that its older readers look for.
        first = place == 0 and self._version == "2.1"
        guid = guid_of(view.guid)
        name = "viewpoint.bcfv" if first else f"{guid}.bcfv"
        bitmaps = {k: f"{guid}-{k + 1}.{each.format}" for k, each in enumerate(view.bitmaps)}
        for k, each in enumerate(view.bitmaps):
            self._stored(f"{folder}/{bitmaps[k]}", each.data)
        picture = None
        if view.snapshot is not None:
            kind = form_of(view.snapshot) or "jpg"
            picture = f"snapshot.{kind}" if first else f"{guid}.{kind}"
            self._stored(f"{folder}/{picture}", view.snapshot)
        if self._version == "3.0":
            self._zip.writestr(f"{folder}/{name}", written(v3_info(view, bitmaps, aspect_of(view.snapshot))))
        else:
            self._zip.writestr(f"{folder}/{name}", written(v2_info(view, bitmaps)))
            angle = view.camera.angle_deg if view.camera else None
            if angle is not None and not LEAST_ANGLE_DEG <= angle <= MOST_ANGLE_DEG:
                self.problems.append(
                    TopicsProblem(
                        "angle",
                        f"Version 2.1 has angles of view of 45 to 60 degrees; {angle:.1f} was brought to the nearest.",
                        topic.guid,
                    )
                )
        return name, picture

    def _stored(self, name: str, data: bytes) -> None:
        # Pictures are compressed already.
        self._zip.writestr(name, data, compress_type=zipfile.ZIP_STORED)

    def _attach_beside(self, topic: Topic, folder: str) -> dict[str, str]:
        names: dict[str, str] = {}
        for each in topic.documents:
            if each.data is None:
                continue
            base = posixpath.basename(each.name.replace("\\", "/")) or "document"
            taken = {"markup.bcf", *names.values()}
            name = base if base not in taken else f"{guid_of(each.guid)}-{base}"
            names[each.guid] = name
            self._zip.writestr(f"{folder}/{name}", each.data)
        return names

    def _attach(self, topic: Topic) -> None:
        for each in topic.documents:
            guid = guid_of(each.guid)
            if each.url or guid in self._documents:
                continue
            self._documents[guid] = v3.Document(
                guid=guid, filename=plain(each.name) or guid, description=plain(each.description) or None
            )
            if each.data is not None:
                self._zip.writestr(f"documents/{guid}", each.data)

    def finish(self, project_name: str, project_id: str) -> None:
        """Write what is about all topics."""
        project_id = project_id or str(uuid.uuid4())
        name = plain(project_name) or None
        if self._version == "2.1":
            self._zip.writestr("bcf.version", written(v2.Version(detailed_version="2.1", version_id="2.1")))
            project = v2.Project(name=name, project_id=project_id)
            self._zip.writestr("project.bcfp", written(v2.ProjectExtension(project=project, extension_schema="")))
            return
        self._zip.writestr("bcf.version", written(v3.Version(version_id="3.0")))
        info = v3.ProjectInfo(project=v3.Project(name=name, project_id=project_id))
        self._zip.writestr("project.bcfp", written(info))
        words = self._words
        extensions = v3.Extensions(
            topic_types=v3_extensions.ExtensionsTopicTypes(topic_type=sorted(words.kinds)),
            topic_statuses=v3_extensions.ExtensionsTopicStatuses(topic_status=sorted(words.statuses)),
            priorities=v3_extensions.ExtensionsPriorities(priority=sorted(words.priorities)),
            topic_labels=v3_extensions.ExtensionsTopicLabels(topic_label=sorted(words.labels)),
            users=v3_extensions.ExtensionsUsers(user=sorted(words.users)),
            snippet_types=v3_extensions.ExtensionsSnippetTypes(),
            stages=v3_extensions.ExtensionsStages(stage=sorted(words.stages)),
        )
        self._zip.writestr("extensions.xml", written(extensions))
        if self._documents:
            held = v3_documents.DocumentInfoDocuments(document=list(self._documents.values()))
            self._zip.writestr("documents.xml", written(v3.DocumentInfo(documents=held)))


def aspect_of(png: bytes | None) -> float:
    """How wide a picture is by its height; 4:3 where there is none."""
    if png is None or form_of(png) != "png" or len(png) < _WIDTH.stop:
        return _NO_PICTURE_ASPECT
    width, height = int.from_bytes(png[16:20], "big"), int.from_bytes(png[20:24], "big")
    return width / height if width and height else _NO_PICTURE_ASPECT


@contextmanager
def writing(
    to: Path | io.BytesIO,
    version: Version,
    project_name: str = "",
    project_id: str = "",
    rules: TopicRules | None = None,
) -> Iterator[Writing]:
    """Write a file of topics of a version; it offers what the rules of the project offer besides what its topics have."""
    with zipfile.ZipFile(to, "w", zipfile.ZIP_DEFLATED) as zip_file:
        into = Writing(zip_file, version, rules)
        yield into
        into.finish(project_name, project_id)
