"""Cuts, and drawings of them."""

from __future__ import annotations

import sys
from typing import TYPE_CHECKING, Annotated

import typer

from stairpath.cli.common import AsJson, Files, app, chosen, federated, numbers, print_document, read_files, stop

if TYPE_CHECKING:
    from stairpath.core.cutting.plane import Plane
    from stairpath.core.federation.federate import Federation


def _plane(
    federation: Federation, given: str | None, storey: str | None, height: float | None, grid: str | None
) -> Plane:
    from stairpath.core.camera.square import along_axis
    from stairpath.core.cutting.plane import level_plane, plane, upright_plane
    from stairpath.core.federation.federate import level_named
    from stairpath.core.federation.grid import axis_named

    if sum(way is not None for way in (given, storey, grid)) != 1:
        stop("Where to cut is given by one of --plane, --storey with --height, and --grid; give one of them.")
    if height is not None and storey is None:
        stop("A height counts from a storey; give --storey with it.")
    try:
        if given is not None:
            x, y, z, nx, ny, nz = numbers(given, "X,Y,Z,NX,NY,NZ")
            return plane((x, y, z), (nx, ny, nz))
        if storey is not None:
            if height is None:
                stop("A storey is cut at a height above it; give --height in metres.")
            return level_plane(federation.levels[level_named(federation, storey)].elevation_m + height)
        axis = axis_named(federation, grid or "")
        return upright_plane(axis.start, along_axis(axis.start, axis.end, federation.building_north_deg))
    except (ValueError, LookupError) as error:
        stop(str(error.args[0]))


@app.command()
def cut(
    files: Files,
    plane: Annotated[
        str | None, typer.Option(help="a point and the normal towards whoever looks: X,Y,Z,NX,NY,NZ")
    ] = None,
    storey: Annotated[str | None, typer.Option(help="the storey to cut, with --height")] = None,
    height: Annotated[float | None, typer.Option(help="height of the cut above the storey, metres")] = None,
    grid: Annotated[str | None, typer.Option(help="the tag of the grid axis to cut along")] = None,
    select: Annotated[str, typer.Option(help="what to cut: all, a GlobalId, discipline:AIR, ...")] = "all",
    as_json: AsJson = False,
) -> None:
    """Say what a plane goes through: region, area and perimeter of every component."""
    from stairpath.core.cutting import report
    from stairpath.core.cutting.cut import cut as cut_parts
    from stairpath.core.federation.placed import all_placed

    readings = read_files(files)
    federation = federated(readings)
    through = _plane(federation, plane, storey, height, grid)
    wanted = chosen(readings, federation, select)
    document = report.document(cut_parts(all_placed(federation, wanted), through), federation, readings)
    if as_json:
        print_document(document)
        return
    for one in document["components"]:
        sys.stdout.write(
            f"{one['model']} {one['class']} {one['name']}: {one['area_m2']:.3f} m2, {one['perimeter_m']:.3f} m around\n"
        )
    for one in document["open"]:
        sys.stdout.write(f"{one['model']} {one['global_id']} is not closed, by {one['gap_m'] * 1000:.1f} mm\n")
