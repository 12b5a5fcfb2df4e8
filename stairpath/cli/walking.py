"""Walk maps and routes."""

from __future__ import annotations

import sys
import time
from typing import TYPE_CHECKING, Annotated

import typer

from stairpath.cli.common import AsJson, Files, app, print_document, read_building, say, stop

if TYPE_CHECKING:
    from stairpath.core.federation.federate import Federation
    from stairpath.core.walking.clearance import Space
    from stairpath.core.walking.walkmap import WalkMap


def _walk_map(federation: Federation, body: str, cell_m: float | None = None) -> tuple[WalkMap, Space]:
    """The walk map of a building for a body by its name; ends the command where that cannot be."""
    from stairpath.core.walking.bodies import body_named
    from stairpath.core.walking.grid import CELL_M
    from stairpath.core.walking.solids import solids_of
    from stairpath.core.walking.walkmap import build

    if not federation.levels:
        stop("There is nothing to walk on; give models with storeys and geometry.")
    try:
        say(f"mapping the floors for {body}")
        return build(solids_of(federation), body_named(body), CELL_M if cell_m is None else cell_m)
    except (ValueError, LookupError) as error:
        stop(str(error.args[0]))


@app.command()
def walkmap(
    files: Files,
    cell: Annotated[float | None, typer.Option(help="cell of the map, metres; else 0.1")] = None,
    body: Annotated[str, typer.Option(help="standing, stooping, trolley or wheelchair")] = "standing",
    as_json: AsJson = False,
) -> None:
    """Say how much floor is free to walk on each storey."""
    from stairpath.core.walking import report as walking_report

    federation = read_building(files)
    before = time.perf_counter()
    walk, _ = _walk_map(federation, body, cell)
    document = walking_report.walkmap_document(walk, federation, time.perf_counter() - before)
    if as_json:
        print_document(document)
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

    federation = read_building(files)
    walk, space = _walk_map(federation, body)
    try:
        limits = Limits(WIDTH_LIMIT_M if width is None else width, HEIGHT_LIMIT_M if headroom is None else headroom)
        source, goal = place_named(federation, walk, start), place_named(federation, walk, end)
    except (ValueError, LookupError) as error:
        stop(str(error.args[0]))
    found = find_route(walk, space, source, goal, step_free, limits)
    ids = walking_report.global_ids(federation)
    document = walking_report.route_document(found, walk.axes, lambda component: ids[component])
    if as_json:
        print_document(document)
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
