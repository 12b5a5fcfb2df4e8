"""Reading files of topics, and writing them in another version."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any

import typer

from stairpath.cli.common import AsJson, app, print_document, say, stop

if TYPE_CHECKING:
    from stairpath.core.exchange.topic import Component, Topic, TopicsProblem, Viewpoint

topics = typer.Typer(no_args_is_help=True, help="Read files of topics (BCF), and convert them.")
app.add_typer(topics, name="topics")

File = Annotated[Path, typer.Argument(help="a file of topics (.bcf or .bcfzip)")]


def _when(at: datetime | None) -> str | None:
    return at.isoformat() if at else None


def _ids(components: tuple[Component, ...]) -> list[str]:
    return [each.global_id or each.authoring_tool_id for each in components]


def _viewpoint(view: Viewpoint) -> dict[str, Any]:
    camera = view.camera
    return {
        "guid": view.guid,
        "eye_m": camera.eye_m if camera else None,
        "direction": camera.direction if camera else None,
        "up": camera.up if camera else None,
        "projection": camera.projection if camera else None,
        "angle_deg": camera.angle_deg if camera else None,
        "height_m": camera.height_m if camera else None,
        "aspect": camera.aspect if camera else None,
        "default_visible": view.default_visible,
        "exceptions": _ids(view.exceptions),
        "selected": _ids(view.selected),
        "colours": [{"colour": each.colour, "components": _ids(each.components)} for each in view.colours],
        "planes": [{"point_m": each.point_m, "direction": each.direction} for each in view.planes],
        "lines": view.lines,
        "bitmaps": [{"at_m": b.at_m, "normal": b.normal, "up": b.up, "height_m": b.height_m} for b in view.bitmaps],
        "spaces_visible": view.hints.spaces,
        "openings_visible": view.hints.openings,
        "snapshot": view.snapshot_name or None,
        "index": view.index,
    }


def _topic(topic: Topic) -> dict[str, Any]:
    return {
        "guid": topic.guid,
        "title": topic.title,
        "description": topic.description,
        "type": topic.kind,
        "status": topic.status,
        "priority": topic.priority,
        "assigned_to": topic.assigned_to,
        "due": _when(topic.due),
        "labels": topic.labels,
        "index": topic.index,
        "stage": topic.stage,
        "reference": topic.reference,
        "author": topic.created_by,
        "at": _when(topic.created_at),
        "modified_author": topic.modified_by,
        "modified_at": _when(topic.modified_at),
        "related": topic.related,
        "documents": [
            {"name": each.name, "description": each.description, "url": each.url} for each in topic.documents
        ],
        "comments": [
            {"guid": c.guid, "author": c.author, "at": _when(c.at), "text": c.text, "viewpoint": c.viewpoint}
            for c in topic.comments
        ],
        "viewpoints": [_viewpoint(view) for view in topic.viewpoints],
    }


def _problems(of: Iterable[TopicsProblem]) -> list[dict[str, str | None]]:
    return [{"code": each.code, "text": each.text, "topic": each.topic} for each in of]


@topics.command("read")
def read_topics(file: File, as_json: AsJson = False) -> None:
    """Say what a file of topics holds, and what of it cannot be read."""
    from stairpath.core.exchange.bcf import opened
    from stairpath.core.exchange.topic import CannotExchangeError

    try:
        with opened(file) as held:
            found = [_topic(topic) for topic in held.topics()]
    except CannotExchangeError as error:
        stop(str(error))
    problems = _problems(held.problems)
    if as_json:
        print_document({"version": held.version, "project": held.project_name, "topics": found, "problems": problems})
        return
    for each in found:
        who = f", {each['assigned_to']}" if each["assigned_to"] else ""
        typer.echo(f"{each['title']} ({each['status'] or 'no status'}{who}), {len(each['comments'])} comments")
    for problem in held.problems:
        say(problem.text)


@topics.command("convert")
def convert_topics(
    file: File,
    to: Annotated[Path, typer.Argument(metavar="OUT", help="the file to write")],
    version: Annotated[str, typer.Option(help="2.1 or 3.0")],
    as_json: AsJson = False,
) -> None:
    """Write a file of topics in another version, with all that the version can say."""
    from stairpath.core.exchange.bcf import VERSIONS, opened, writing
    from stairpath.core.exchange.topic import CannotExchangeError

    wanted = next((each for each in VERSIONS if each == version), None)
    if wanted is None:
        stop(f"There is no version {version} to write; choose {' or '.join(VERSIONS)}.")
    if to.resolve() == file.resolve():
        stop(f"{to.name} is the file that is read; write to another one.")
    part = to.with_name(f".{to.name}.part")
    try:
        with opened(file) as held, writing(part, wanted, held.project_name, held.project_id) as into:
            count = 0
            for topic in held.topics():
                into.put(topic)
                count += 1
        part.replace(to)
    except CannotExchangeError as error:
        stop(str(error))
    except OSError as error:
        stop(f"{to} cannot be written ({error.strerror}); choose another place.")
    finally:
        part.unlink(missing_ok=True)
    problems = _problems((*held.problems, *into.problems))
    for problem in (*held.problems, *into.problems):
        say(problem.text)
    if as_json:
        print_document({"version": wanted, "topics": count, "problems": problems})
