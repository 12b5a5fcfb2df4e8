"""Every core capability without a server; JSON on stdout, progress on stderr.

What is heavy is imported by the command that needs it, so that a command starts quickly.
"""

from __future__ import annotations

import json
import sys
import tempfile
import time
from dataclasses import asdict
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, NoReturn

import typer

if TYPE_CHECKING:
    from stairpath.core.federation.federate import Federation
    from stairpath.core.reading.model import ModelReading
    from stairpath.core.walking.clearance import Space
    from stairpath.core.walking.walkmap import WalkMap

app = typer.Typer(add_completion=False, no_args_is_help=True, pretty_exceptions_enable=False)


@app.callback()
def main() -> None:
    """Stair Path without a server: reads building models and answers in JSON."""


def _say(text: str) -> None:
    sys.stderr.write(text + "\n")


def _stop(text: str) -> NoReturn:
    _say(text)
    raise typer.Exit(2)


def _print(document: object) -> None:
    sys.stdout.write(json.dumps(document, ensure_ascii=False) + "\n")


def _read(files: list[Path]) -> list[ModelReading]:
    from stairpath.core.problems import CannotReadError
    from stairpath.core.reading.apart import read_many
    from stairpath.core.reading.intake import take_in_path

    sources: list[tuple[str, Path]] = []
    with tempfile.TemporaryDirectory(prefix="stairpath-") as folder:
        for path in files:
            try:
                sources.extend(take_in_path(path, Path(folder)))
            except CannotReadError as error:
                _stop(str(error))
        results = read_many(sources, on_done=lambda name: _say(f"read {name}"))
    readings = []
    for result in results:
        if isinstance(result, CannotReadError):
            _stop(str(result))
        readings.append(result)
    return readings


def _federation(files: list[Path]) -> Federation:
    from stairpath.core.federation.federate import federate
    from stairpath.core.federation.outline import outline

    return federate([outline(reading) for reading in _read(files)])


Files = Annotated[list[Path], typer.Argument(help="IFC files (.ifc or .ifczip)")]
AsJson = Annotated[bool, typer.Option("--json", help="print one JSON document")]


@app.command()
def read(
    files: Files,
    components: Annotated[bool, typer.Option("--components", help="list every component too")] = False,
    as_json: AsJson = False,
) -> None:
    """Read model files and say what is in them and how they line up."""
    from stairpath.core.federation import report
    from stairpath.core.federation.federate import federate
    from stairpath.core.federation.outline import outline

    readings = _read(files)
    federation = federate([outline(reading) for reading in readings])
    document = report.document(federation, readings if components else None)
    if as_json:
        _print(document)
        return
    for model in document["models"]:
        alignment = model["alignment"]
        sys.stdout.write(
            f"{model['name']}: {model['schema']}, {model['length_unit']}, {model['components']} components, "
            f"{model['triangles']} triangles; aligned by {alignment['by']} ({alignment['reason']})\n"
        )
        for problem in model["problems"]:
            sys.stdout.write(f"  {problem['text']}\n")


def _aspect(text: str) -> float:
    """A frame's width over its height: ``1.6`` or ``16/10``."""
    try:
        width, _, height = text.partition("/")
        return float(width) / float(height or 1)
    except (ValueError, ZeroDivisionError):
        _stop(f"{text} is not an aspect; give width over height, such as 16/10 or 1.6.")


@app.command()
def frame(
    files: Files,
    bearing: Annotated[float, typer.Option(help="direction looked along, degrees clockwise from +Y")] = 0.0,
    tilt: Annotated[float, typer.Option(help="degrees looking down; 90 is plan")] = 0.0,
    fit: Annotated[str, typer.Option(help="all, a GlobalId, room:NAME or storey:NAME")] = "all",
    projection: Annotated[str, typer.Option(help="perspective or parallel")] = "perspective",
    angle: Annotated[float | None, typer.Option(help="angle of view across the width, degrees")] = None,
    focal: Annotated[float | None, typer.Option(help="focal length on a 36 mm wide frame")] = None,
    aspect: Annotated[str, typer.Option(help="width over height, such as 16/10")] = "16/10",
    margin: Annotated[float, typer.Option(help="free share of width and height on each side")] = 0.05,
    as_json: AsJson = False,
) -> None:
    """Say where the camera stands to frame something, seen along a bearing and tilt."""
    from stairpath.core.camera import framing
    from stairpath.core.camera.lens import typed_angle
    from stairpath.core.camera.pose import OUTSIDE_ANGLE_DEG, focal_mm
    from stairpath.core.camera.subject import elsewhere, subject

    if projection not in ("perspective", "parallel"):
        _stop(f"{projection} is not a projection; give perspective or parallel.")
    if angle is not None and focal is not None:
        _stop("The lens is given twice; give --angle or --focal.")
    width_over_height = _aspect(aspect)
    try:
        lens = angle if angle is not None else typed_angle(f"{focal} mm") if focal is not None else OUTSIDE_ANGLE_DEG
        building = _federation(files)
        pose = framing.frame(
            subject(building, fit), bearing, tilt, width_over_height,
            "parallel" if projection == "parallel" else "perspective", lens, framing.Borders.around(margin),
        )  # fmt: skip
    except (ValueError, LookupError) as error:
        _stop(str(error.args[0]))
    document = {**asdict(pose), "focal_mm": focal_mm(pose.angle_deg)}
    if fit == "all":
        document["elsewhere"] = elsewhere(building)
    if as_json:
        _print(document)
        return
    for name, value in document.items():
        sys.stdout.write(f"{name}: {value}\n")


@app.command()
def plan(
    files: Files,
    storey: Annotated[str, typer.Option(help="the storey's name")],
    svg: Annotated[Path, typer.Option(help="the drawing to write")],
    height: Annotated[float | None, typer.Option(help="height of the cut above the storey, metres; else 1.2")] = None,
    as_json: AsJson = False,
) -> None:
    """Draw the key plan of a storey."""
    from stairpath.core.cutting.keyplan import CUT_HEIGHT_M, draw_key_plan
    from stairpath.core.cutting.keyplan import document as plan_document
    from stairpath.core.cutting.svg import svg as draw_svg
    from stairpath.core.federation.federate import level_named

    federation = _federation(files)
    try:
        drawn = draw_key_plan(federation, level_named(federation, storey), CUT_HEIGHT_M if height is None else height)
        svg.write_text(draw_svg(drawn, federation.building_north_deg), encoding="utf-8")
    except LookupError as error:
        _stop(str(error.args[0]))
    except OSError as error:
        _stop(f"{svg} cannot be written ({error.strerror}); give another place.")
    if as_json:
        _print(plan_document(drawn, (0.0, 0.0, 0.0)))
    else:
        sys.stdout.write(f"{svg}: {drawn.storey}, cut at {drawn.cut_m:+.2f} m, {len(drawn.rooms)} rooms\n")


def _walk_map(federation: Federation, body: str, cell_m: float | None = None) -> tuple[WalkMap, Space]:
    """The walk map of a building for a body by its name; ends the command where that cannot be."""
    from stairpath.core.walking.bodies import body_named
    from stairpath.core.walking.grid import CELL_M
    from stairpath.core.walking.solids import solids_of
    from stairpath.core.walking.walkmap import build

    if not federation.levels:
        _stop("There is nothing to walk on; give models with storeys and geometry.")
    try:
        _say(f"mapping the floors for {body}")
        return build(solids_of(federation), body_named(body), CELL_M if cell_m is None else cell_m)
    except (ValueError, LookupError) as error:
        _stop(str(error.args[0]))


@app.command()
def walkmap(
    files: Files,
    cell: Annotated[float | None, typer.Option(help="cell of the map, metres; else 0.1")] = None,
    body: Annotated[str, typer.Option(help="standing, stooping, trolley or wheelchair")] = "standing",
    as_json: AsJson = False,
) -> None:
    """Say how much floor is free to walk on each storey."""
    from stairpath.core.walking import report as walking_report

    federation = _federation(files)
    before = time.perf_counter()
    walk, _ = _walk_map(federation, body, cell)
    document = walking_report.walkmap_document(walk, federation, time.perf_counter() - before)
    if as_json:
        _print(document)
        return
    for storey in document["storeys"]:
        for floor in storey["floors"]:
            sys.stdout.write(f"{storey['name']}: {floor['free_area_m2']:.1f} m2 at {floor['level_m']:+.2f} m\n")


@app.command()
def route(
    files: Files,
    start: Annotated[str, typer.Option("--from", help="room:NAME, or x,y,z in project coordinates")],
    end: Annotated[str, typer.Option("--to", help="room:NAME, or x,y,z in project coordinates")],
    body: Annotated[str, typer.Option(help="standing, stooping, trolley or wheelchair")] = "standing",
    step_free: Annotated[bool, typer.Option("--step-free", help="take no stairs")] = False,
    width: Annotated[
        float | None, typer.Option(help="clear width below which a place is a pinch, metres; else 0.9")
    ] = None,
    headroom: Annotated[
        float | None, typer.Option(help="headroom below which a place is a pinch, metres; else 2.0")
    ] = None,
    as_json: AsJson = False,
) -> None:
    """Find the way from one place to another, or say what blocks it."""
    from stairpath.core.walking import report as walking_report
    from stairpath.core.walking.blocked import Blocked
    from stairpath.core.walking.pinches import HEIGHT_LIMIT_M, WIDTH_LIMIT_M
    from stairpath.core.walking.place import place_named
    from stairpath.core.walking.route import Limits
    from stairpath.core.walking.route import route as find_route

    federation = _federation(files)
    walk, space = _walk_map(federation, body)
    try:
        limits = Limits(WIDTH_LIMIT_M if width is None else width, HEIGHT_LIMIT_M if headroom is None else headroom)
        source, goal = place_named(federation, walk, start), place_named(federation, walk, end)
    except (ValueError, LookupError) as error:
        _stop(str(error.args[0]))
    found = find_route(walk, space, source, goal, step_free, limits)
    ids = walking_report.global_ids(federation)
    document = walking_report.route_document(found, walk.axes, lambda component: ids[component])
    if as_json:
        _print(document)
    elif isinstance(found, Blocked):
        x, y, z = document["blocked"]["nearest_m"]
        sys.stdout.write(f"No way: it ends at {x:.2f}, {y:.2f}, {z:.2f}. {found.needs}\n")
    else:
        sys.stdout.write(
            f"{found.length_m:.1f} m, up {found.rise_m:.2f} m, down {found.descent_m:.2f} m, "
            f"{found.risers} risers, {found.time_s:.0f} s\n"
        )
        for pinch in found.pinches:
            sys.stdout.write(f"  {pinch.what} {pinch.size_m:.2f} m after {pinch.along_m:.1f} m\n")


@app.command()
def resolve(
    files: Files,
    rules: Annotated[Path, typer.Option(help="a JSON list of rules, later ones over earlier ones")],
    as_json: AsJson = False,
) -> None:
    """Say what is shown, faded, hidden and tinted by a list of rules, and which rule decided."""
    from stairpath.core.federation.federate import federate
    from stairpath.core.federation.outline import outline
    from stairpath.core.visibility import report
    from stairpath.core.visibility.rules import resolve as resolve_rules
    from stairpath.core.visibility.traits import federation_traits, words_of

    try:
        wanted = report.rules_from(json.loads(rules.read_text(encoding="utf-8")))
    except OSError as error:
        _stop(f"{rules} cannot be read ({error.strerror}); give another file.")
    except (json.JSONDecodeError, UnicodeDecodeError):
        _stop(f"{rules} is not JSON; write a list of rules.")
    except report.NotRulesError as error:
        _stop(str(error))
    readings = _read(files)
    federation = federate([outline(reading) for reading in readings])
    traits = federation_traits(federation, [words_of(reading) for reading in readings])
    document = report.document(traits, wanted, resolve_rules(traits, wanted))
    for problem in document["problems"]:
        _say(problem["text"])
    if as_json:
        _print(document)
        return
    sys.stdout.write(", ".join(f"{count} {state}" for state, count in document["counts"].items()) + "\n")
