"""Framing and drawing."""

from __future__ import annotations

import sys
from dataclasses import asdict
from pathlib import Path
from typing import Annotated

import typer

from stairpath.cli.common import AsJson, Files, app, print_document, read_building, stop


def _aspect(text: str) -> float:
    """A frame's width over its height: ``1.6`` or ``16/10``."""
    try:
        width, _, height = text.partition("/")
        return float(width) / float(height or 1)
    except (ValueError, ZeroDivisionError):
        stop(f"{text} is not an aspect; give width over height, such as 16/10 or 1.6.")


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
        stop(f"{projection} is not a projection; give perspective or parallel.")
    if angle is not None and focal is not None:
        stop("The lens is given twice; give --angle or --focal.")
    width_over_height = _aspect(aspect)
    try:
        lens = angle if angle is not None else typed_angle(f"{focal} mm") if focal is not None else OUTSIDE_ANGLE_DEG
        building = read_building(files)
        pose = framing.frame(
            subject(building, fit), bearing, tilt, width_over_height,
            "parallel" if projection == "parallel" else "perspective", lens, framing.Borders.around(margin),
        )  # fmt: skip
    except (ValueError, LookupError) as error:
        stop(str(error.args[0]))
    document = {**asdict(pose), "focal_mm": focal_mm(pose.angle_deg)}
    if fit == "all":
        document["elsewhere"] = elsewhere(building)
    if as_json:
        print_document(document)
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

    federation = read_building(files)
    try:
        drawn = draw_key_plan(federation, level_named(federation, storey), CUT_HEIGHT_M if height is None else height)
        svg.write_text(draw_svg(drawn, federation.building_north_deg), encoding="utf-8")
    except LookupError as error:
        stop(str(error.args[0]))
    except OSError as error:
        stop(f"{svg} cannot be written ({error.strerror}); give another place.")
    if as_json:
        print_document(plan_document(drawn, (0.0, 0.0, 0.0)))
    else:
        sys.stdout.write(f"{svg}: {drawn.storey}, cut at {drawn.cut_m:+.2f} m, {len(drawn.rooms)} rooms\n")
