"""Measures: distances, room at a point, and what interferes."""

from __future__ import annotations

import sys
from typing import TYPE_CHECKING, Annotated

import typer

from stairpath.cli.common import (
    AsJson,
    Files,
    app,
    chosen,
    federated,
    numbers,
    print_document,
    read_building,
    read_files,
    say,
    stop,
)

if TYPE_CHECKING:
    import numpy as np
    import numpy.typing as npt

    from stairpath.core.federation.federate import Federation
    from stairpath.core.measuring.body import Body


def _end(federation: Federation, given: str) -> Body | npt.NDArray[np.float64]:
    """What a measure begins or ends at, about the project's origin: a component's body, or a point (3,)."""
    import numpy as np

    from stairpath.core.federation.placed import component_named
    from stairpath.core.measuring.body import NoBodyError, body_of

    if "," in given:
        return np.array(numbers(given, "X,Y,Z")) - federation.origin_m
    try:
        return body_of(*component_named(federation, given), np.array(federation.origin_m))
    except NoBodyError as error:
        stop(f"{given}: {error}")
    except LookupError as error:
        stop(str(error.args[0]))


@app.command()
def measure(
    files: Files,
    start: Annotated[str, typer.Option("--from", help="a GlobalId, or x,y,z in project coordinates")],
    end: Annotated[str, typer.Option("--to", help="a GlobalId, or x,y,z in project coordinates")],
    as_json: AsJson = False,
) -> None:
    """Say how far two things are apart at the nearest, and between which points."""
    from stairpath.core.measuring.measured import measured
    from stairpath.core.measuring.report import distance_document

    federation = read_building(files)
    found, shared = measured(_end(federation, start), _end(federation, end))
    document = distance_document(found.moved(federation.origin_m), shared, federation.building_north_deg)
    if as_json:
        print_document(document)
        return
    x, y, z = document["along_building_m"]
    sys.stdout.write(
        f"{document['distance_m']:.4f} m; along the building {x:+.4f}, {y:+.4f}, {z:+.4f} m"
        f"{'; they overlap' if shared else ''}\n"
    )


@app.command()
def clear(
    files: Files,
    at: Annotated[str, typer.Option(help="a point on or above the floor: X,Y,Z in project coordinates")],
    as_json: AsJson = False,
) -> None:
    """Say how much clear height and width there is at a point of the floor."""
    import numpy as np

    from stairpath.core.measuring.clear import NoFloorError, clear_at
    from stairpath.core.measuring.report import clear_document
    from stairpath.core.walking.report import global_ids
    from stairpath.core.walking.solids import solids_of

    point = np.array(numbers(at, "X,Y,Z"))
    federation = read_building(files)
    solids = solids_of(federation)
    try:
        found = clear_at(solids, solids.axes.to_own(point))
    except NoFloorError as error:
        stop(str(error))
    document = clear_document(found, solids.axes, global_ids(federation))
    if as_json:
        print_document(document)
        return
    for name in ("height", "width"):
        size = document[name]["m"]
        sys.stdout.write(f"clear {name}: {'open' if size is None else f'{size:.3f} m'}\n")


@app.command()
def interference(
    files: Files,
    a: Annotated[str, typer.Option("--a", help="one group: all, a GlobalId, discipline:AIR, ...")],
    b: Annotated[str, typer.Option("--b", help="the other group")],
    clearance: Annotated[float, typer.Option(help="what is nearer than this is too near, metres")] = 0.0,
    touch: Annotated[float, typer.Option(help="what overlaps or is apart by no more only touches, metres")] = 0.001,
    leave_out: Annotated[
        str, typer.Option(help="pairs that belong together: hosted, assembly, fitting, with commas between, or none")
    ] = "hosted,assembly,fitting",
    swings: Annotated[
        bool, typer.Option("--swings", help="doors need the room that their leaves swing through")
    ] = False,
    as_json: AsJson = False,
) -> None:
    """Say what of one group overlaps the other, or comes too near to it."""
    import numpy as np

    from stairpath.core.federation.placed import all_placed
    from stairpath.core.measuring.exclusions import NoSuchRuleError, codes_of, kin_of
    from stairpath.core.measuring.interference import interference as find
    from stairpath.core.measuring.report import interference_document
    from stairpath.core.measuring.sweeps import swept_by_doors
    from stairpath.core.measuring.things import Things
    from stairpath.core.walking.report import global_ids

    if clearance < 0 or touch < 0:
        stop("A clearance and what counts as touching are zero or more metres; give them so.")
    try:
        codes = codes_of(leave_out)
    except NoSuchRuleError as error:
        stop(str(error))
    readings = read_files(files)
    federation = federated(readings)
    about = np.array(federation.origin_m)
    things = Things(all_placed(federation), about, swept_by_doors(federation, about) if swings else None)
    found = find(
        things, kin_of(readings), chosen(readings, federation, a), chosen(readings, federation, b),
        clearance, touch, codes, on_progress=lambda share, text: say(text),
    )  # fmt: skip
    document = interference_document(found, federation.origin_m, global_ids(federation))
    if as_json:
        print_document(document)
        return
    left = sum(pair.left_out is not None for pair in found.pairs)
    sys.stdout.write(f"{found.checked} pairs looked at, {len(found.findings)} findings, {left} pairs left out\n")
    for finding in document["findings"]:
        pair = document["pairs"][finding["pairs"][0]]
        size = (
            f"{pair['depth_m'] * 1000:.0f} mm deep"
            if pair["kind"] == "overlap"
            else f"{pair['distance_m'] * 1000:.0f} mm apart"
        )
        x, y, z = finding["at_m"]
        sys.stdout.write(f"  {pair['kind']} {size} at {x:.2f}, {y:.2f}, {z:.2f}: {', '.join(finding['components'])}\n")
