"""A file of topics, read one topic after the other, so that thousands with pictures need little memory."""

from __future__ import annotations

import warnings
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import replace
from pathlib import Path
from typing import IO, TypeVar

from stairpath.core.exchange.bcf import v2_1 as v2
from stairpath.core.exchange.bcf import v3_0 as v3
from stairpath.core.exchange.bcf.markup import topic_from, whole
from stairpath.core.exchange.bcf.versions import VERSIONS, Version, parsed
from stairpath.core.exchange.bcf.visinfo import viewpoint_from
from stairpath.core.exchange.package import NotReadableError, Package
from stairpath.core.exchange.topic import CannotExchangeError, Document, Topic, TopicsProblem, Viewpoint

T = TypeVar("T")
_MARKUP = "markup.bcf"


class Opened:
    """A file of topics; ``problems`` grows while its topics are read."""

    def __init__(self, package: Package, version: Version) -> None:
        self.version = version
        self.problems: list[TopicsProblem] = []
        self._package = package
        self._folders = sorted(n.rpartition("/")[0] for n in package.names() if n.casefold().endswith(f"/{_MARKUP}"))
        for name in package.outside:
            self.problems.append(
                TopicsProblem("outside", f"The part {name} would lie outside of the file and was left out.")
            )
        self.project_name, self.project_id = self._project()
        self._documents = self._kept_documents() if version == "3.0" else {}
        if not self._folders:
            self.problems.append(
                TopicsProblem("empty", "There is no topic in the file; ask whether it is the right one.")
            )

    @property
    def count(self) -> int:
        """How many topics there are, whether they can be read or not."""
        return len(self._folders)

    def topics(self) -> Iterator[Topic]:
        """The topics that can be read."""
        with warnings.catch_warnings():
            # A value that is none stays a text, and is told when it is looked at.
            warnings.simplefilter("ignore")
            for folder in self._folders:
                topic = self._topic(folder)
                if topic is not None:
                    yield topic

    def _told(self, topic: str | None, code: str = "unreadable") -> Callable[[NotReadableError], None]:
        return lambda error: self.problems.append(TopicsProblem(code, str(error), topic))

    def _try(self, topic: str | None, work: Callable[[], T]) -> T | None:
        try:
            return work()
        except NotReadableError as error:
            self._told(topic)(error)
            return None

    def _xml(self, topic: str | None, name: str, kind: type[T]) -> T | None:
        return self._try(topic, lambda: parsed(name, self._package.text(name), kind))

    def _data(self, topic: str, folder: str, reference: str) -> bytes | None:
        part = self._package.within(folder, reference)
        return None if part is None else self._try(topic, lambda: self._package.part(part))

    def _project(self) -> tuple[str, str]:
        name = self._package.within("", "project.bcfp")
        if name is None:
            return "", ""
        if self.version == "3.0":
            newer = self._xml(None, name, v3.ProjectInfo)
            project: v2.Project | v3.Project | None = newer.project if newer else None
        else:
            older = self._xml(None, name, v2.ProjectExtension)
            project = older.project if older else None
        return (project.name or "", project.project_id) if project else ("", "")

    def _kept_documents(self) -> dict[str, v3.Document]:
        name = self._package.within("", "documents.xml")
        info = self._xml(None, name, v3.DocumentInfo) if name else None
        return {each.guid.lower(): each for each in info.documents.document} if info and info.documents else {}

    def _topic(self, folder: str) -> Topic | None:
        of = folder.rpartition("/")[2]
        kind: type[v2.Markup] | type[v3.Markup] = v3.Markup if self.version == "3.0" else v2.Markup
        markup = self._xml(of, self._package.within(folder, _MARKUP) or "", kind)
        if markup is None:
            return None
        of = markup.topic.guid
        if not str(markup.topic.title or "").strip():
            self._told(of)(NotReadableError(f"The topic {of} has no title and was left out; give it one."))
            return None
        return topic_from(
            markup,
            self._viewpoints(of, folder, markup),
            self._attached(of, folder, markup),
            lambda reference: self._data(of, folder, reference),
            self._told(of),
        )

    def _attached(self, of: str, folder: str, markup: v2.Markup | v3.Markup) -> tuple[Document, ...]:
        found = []
        if isinstance(markup, v2.Markup):
            for older in markup.topic.document_reference:
                name = older.referenced_document or ""
                guid, about = older.guid or name, older.description or ""
                if older.is_external:
                    found.append(Document(guid, name, about, url=name))
                else:
                    data = self._data(of, folder, name)
                    if data is None:
                        self._told(of, "missing")(NotReadableError(f"The document {name} is not in the file."))
                    found.append(Document(guid, name.rpartition("/")[2], about, data))
        elif markup.topic.document_references:
            for each in markup.topic.document_references.document_reference:
                if each.url:
                    found.append(Document(each.guid, each.url, each.description or "", url=each.url))
                    continue
                guid = (each.document_guid or "").lower()
                kept = self._documents.get(guid)
                data = self._data(of, "documents", guid) if kept else None
                if kept is None or data is None:
                    self._told(of, "missing")(NotReadableError(f"The document {guid} is not in the file."))
                name = kept.filename if kept else guid
                found.append(Document(guid, name, each.description or (kept.description if kept else "") or "", data))
        return tuple(found)

    def _viewpoints(self, of: str, folder: str, markup: v2.Markup | v3.Markup) -> tuple[Viewpoint, ...]:
        named: list[tuple[str, str | None, str | None, int | None]] = []
        if isinstance(markup, v2.Markup):
            listed: list[v2.ViewPoint] | list[v3.ViewPoint] = markup.viewpoints
        else:
            listed = markup.topic.viewpoints.view_point if markup.topic.viewpoints else []
        for each in listed:
            named.append((each.guid, each.viewpoint, each.snapshot, each.index))
        if not named and self._package.within(folder, "viewpoint.bcfv"):
            # An older file has one view, which it does not name.
            named.append(("", "viewpoint.bcfv", "snapshot.png", None))
        found = (self._viewpoint(of, folder, *one) for one in named)
        return tuple(view for view in found if view is not None)

    def _viewpoint(
        self, of: str, folder: str, guid: str, name: str | None, picture: str | None, index: int | None
    ) -> Viewpoint | None:
        data = self._data(of, folder, picture) if picture else None
        if picture and data is None:
            self._told(of, "missing")(NotReadableError(f"The picture {picture} of a view is not in the file."))
        part = self._package.within(folder, name) if name else None
        if name and part is None:
            self._told(of, "missing")(NotReadableError(f"The view {name} is not in the file."))
        view = None
        if part is not None:
            kind: type[v2.VisualizationInfo] | type[v3.VisualizationInfo]
            kind = v3.VisualizationInfo if self.version == "3.0" else v2.VisualizationInfo
            info = self._xml(of, part, kind)
            if info is not None:
                view = viewpoint_from(info, lambda ref: self._data(of, folder, ref), self._told(of))
        if view is None and data is None:
            return None
        view = view or Viewpoint(guid)
        called = picture if picture and data is not None else ""
        return replace(view, guid=guid or view.guid, snapshot=data, snapshot_name=called, index=whole(index))


def _version(package: Package, name: str) -> Version:
    part = package.within("", "bcf.version")
    if part is None:
        raise CannotExchangeError(f"{name} is no file of topics in the open format (BCF); ask which program wrote it.")
    try:
        # Both versions say which they are in the same way.
        said = parsed(part, package.text(part), v2.Version).version_id or ""
    except NotReadableError as error:
        raise CannotExchangeError(str(error)) from error
    if said.startswith("2."):
        return "2.1"
    if said.startswith("3."):
        return "3.0"
    raise CannotExchangeError(f"{name} is of version {said or 'none'}; export it as one of {', '.join(VERSIONS)}.")


@contextmanager
def opened(source: Path | IO[bytes], name: str = "") -> Iterator[Opened]:
    """Open a file of topics, where it lies or as it was sent; ``name`` is what it is called for people.

    Raises CannotExchangeError with one sentence for a file that is none.
    """
    called = name or (source.name if isinstance(source, Path) else "The file")
    with Package(source, called) as package:
        yield Opened(package, _version(package, called))
