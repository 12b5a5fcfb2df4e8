"""Cuts, and drawings of them."""

from __future__ import annotations

import sys
from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import typer

from stairpath.cli.common import AsJson, Files, app, chosen, federated, numbers, print_document, read_files, say, stop

if TYPE_CHECKING:
    from stairpath.core.cutting.sheet.draw import Sheet
    from stairpath.core.federation.federate import Federation
    from stairpath.core.geometry.plane import Plane
    from stairpath.core.reading.model import ModelReading
    from stairpath.core.visibility.traits import Mask


def _plane(
    federation: Federation, given: str | None, storey: str | None, height: float | None, grid: str | None
) -> Plane:
    from stairpath.core.camera.square import along_axis
    from stairpath.core.federation.federate import level_named
    from stairpath.core.federation.grid import axis_named
    from stairpath.core.geometry.plane import level_plane, plane, upright_plane

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


def _drawn(
    federation: Federation, through: Plane, readings: Sequence[ModelReading], wanted: Mask, scale: float,
    depth: float, paper: str | None, name: str,
) -> Sheet:  # fmt: skip
    from stairpath.core.cutting.sheet.draw import draw
    from stairpath.core.cutting.sheet.papers import NoPaperError

    if not (0.1 <= scale <= 100_000):
        stop(f"1:{scale:g} is not a scale to draw at; give one such as 50.")
    if depth < 0:
        stop("How far behind the cut is drawn is zero or more metres; give --depth so.")
    say("drawing the sheet")
    try:
        return draw(
            federation, through, [c.material for r in readings for c in r.components], wanted, scale, depth, paper, name,
            ", ".join(model.outline.name for model in federation.models[:3]),
        )  # fmt: skip
    except NoPaperError as error:
        stop(str(error))


def _write(sheet: Sheet, svg: Path | None, dxf: Path | None, pdf: Path | None) -> None:
    """Write the drawing wherever it is wanted."""
    from stairpath.core.cutting.sheet.formats import FORMATS

    for name, path in (("svg", svg), ("dxf", dxf), ("pdf", pdf)):
        if path is not None:
            try:
                path.write_bytes(FORMATS[name].write(sheet))
            except OSError as error:
                stop(f"{path} cannot be written ({error.strerror}); give another place.")


@app.command()
def cut(
    files: Files,
    plane: Annotated[str | None, typer.Option(help="a point and the normal towards the viewer: X,Y,Z,NX,NY,NZ")] = None,
    storey: Annotated[str | None, typer.Option(help="the storey to cut, with --height")] = None,
    height: Annotated[float | None, typer.Option(help="height of the cut above the storey, metres")] = None,
    grid: Annotated[str | None, typer.Option(help="the tag of the grid axis to cut along")] = None,
    select: Annotated[str, typer.Option(help="what to cut: all, a GlobalId, discipline:AIR, ...")] = "all",
    svg: Annotated[Path | None, typer.Option(help="the drawing to write as SVG")] = None,
    dxf: Annotated[Path | None, typer.Option(help="the drawing to write as DXF")] = None,
    pdf: Annotated[Path | None, typer.Option(help="the drawing to write as PDF")] = None,
    scale: Annotated[float, typer.Option(help="the drawing's scale: 50 for 1:50")] = 50.0,
    depth: Annotated[float, typer.Option(help="how far behind the cut is drawn, metres")] = 3.0,
    sheet: Annotated[
        str | None, typer.Option(help="A4 to A0, ANSI A to E, ARCH A to E; else the smallest that fits")
    ] = None,
    as_json: AsJson = False,
) -> None:
    """Say what a plane goes through: region, area and perimeter of every component; and draw it to scale."""
    from stairpath.core.cutting import report
    from stairpath.core.cutting.cut import cut as cut_parts
    from stairpath.core.federation.placed import all_placed

    readings = read_files(files)
    federation = federated(readings)
    through = _plane(federation, plane, storey, height, grid)
    wanted = chosen(readings, federation, select)
    document = report.document(cut_parts(all_placed(federation, wanted), through), federation, readings)
    if svg or dxf or pdf:
        name = f"{storey} {height:+.2f} m" if storey and height is not None else f"Grid {grid}" if grid else "Cut"
        drawn = _drawn(federation, through, readings, wanted, scale, depth, sheet, name)
        _write(drawn, svg, dxf, pdf)
    if as_json:
        print_document(document)
        return
    for one in document["components"]:
        sys.stdout.write(
            f"{one['model']} {one['class']} {one['name']}: {one['area_m2']:.3f} m2, {one['perimeter_m']:.3f} m around\n"
        )
    for one in document["open"]:
        sys.stdout.write(f"{one['model']} {one['global_id']} is not closed, by {one['gap_m'] * 1000:.1f} mm\n")
