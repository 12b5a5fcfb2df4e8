"""Print what the page shares with the core as TypeScript, so that no figure or word stands in two places."""

import json
import sys
from dataclasses import asdict

from stairpath.core import palette
from stairpath.core.camera import first_view
from stairpath.core.camera.inside import EYE_M
from stairpath.core.camera.pose import INSIDE_ANGLE_DEG, LARGEST_ANGLE_DEG, OUTSIDE_ANGLE_DEG, SMALLEST_ANGLE_DEG
from stairpath.core.cutting.cuts import LEAST_M, MOST_PLANES
from stairpath.core.cutting.keyplan import CUT_HEIGHT_M
from stairpath.core.cutting.sheet.formats import FORMATS
from stairpath.core.cutting.sheet.papers import PAPERS
from stairpath.core.dates import EARLIEST, LATEST
from stairpath.core.federation.disciplines import DISCIPLINES
from stairpath.core.federation.levels import TOP_STOREY_M
from stairpath.core.measuring.check import Check
from stairpath.core.measuring.exclusions import WORDS
from stairpath.core.people.roles import ROLE_MEANS
from stairpath.core.review.sheet_request import SheetRequest
from stairpath.core.review.topic import IMPORT, LONGEST_TEXT, LONGEST_TITLE
from stairpath.core.visibility.attributes import ATTRIBUTES

COLOURS = {
    "film": palette.FILM, "paper": palette.PAPER, "line": palette.LINE, "ink": palette.INK, "soft": palette.SOFT,
    "pick": palette.PICK, "pickInk": palette.PICK_INK, "here": palette.HERE, "plum": palette.PLUM, "wrong": palette.WRONG,
}  # fmt: skip
STYLE: dict[str, tuple[object, str]] = {
    "tone": (COLOURS, "The drawing office's colours, of the page and of what is marked on the stage."),
}
CONSTANTS: dict[str, tuple[object, str]] = {
    "FIRST_VIEW": (
        {"bearingDeg": first_view.OFF_NORTH_DEG, "tiltDeg": first_view.TILT_DEG, "angleDeg": OUTSIDE_ANGLE_DEG},
        "The bearing off building north, the tilt and the lens from which a building is first seen.",
    ),
    "LEAST_ANGLE_DEG": (SMALLEST_ANGLE_DEG, "The narrowest angle of view."),
    "MOST_ANGLE_DEG": (LARGEST_ANGLE_DEG, "The widest angle of view."),
    "INSIDE_ANGLE_DEG": (INSIDE_ANGLE_DEG, "The usual angle of view within a building."),
    "EYE_HEIGHT_M": (EYE_M, "How high the eye of a standing person is."),
    "TOP_STOREY_M": (TOP_STOREY_M, "How high the topmost storey is taken to be, since no storey above it says so."),
    "STOREY_CUT_M": (CUT_HEIGHT_M, "How high above a storey its plan is cut."),
    "LEAST_CUT_M": (LEAST_M, "How thick a band or a cut box is at least."),
    "MOST_PLANES": (MOST_PLANES, "So many planes cut a view at once."),
    "TOUCH_M": (Check.touch_m, "What overlaps by less only touches."),
    "SHEET_DEPTH_M": (SheetRequest.depth_m, "How far behind the cut a sheet shows what lies there."),
    "SHEET_FORMATS": (
        [{"form": key, "name": each.name} for key, each in FORMATS.items()],
        "The formats in which a sheet is saved.",
    ),
    "ATTRIBUTES": (
        [
            {"what": what, **{k: v for k, v in asdict(each).items() if k != "weight"}}
            for what, each in ATTRIBUTES.items()
        ],
        "What of a component can be asked besides its properties, and where it is offered.",
    ),
    "DISCIPLINES": ([[d.code, d.name] for d in DISCIPLINES], "The disciplines, with their codes."),
    "ROLES": (
        [{"role": role, "name": name, "says": says} for role, (name, says) in ROLE_MEANS.items()],
        "What one may in a project, from the least to the most.",
    ),
    "PAPERS": (list(PAPERS), "Sheets of paper by name, from the smallest of each family."),
    "LEFT_OUT": (dict(WORDS), "The rules by which pairs belong together and are left out of findings."),
    "LONGEST_TITLE": (LONGEST_TITLE, "Letters of a topic's title."),
    "LONGEST_TEXT": (LONGEST_TEXT, "Letters of a description or a comment."),
    "IMPORT": (IMPORT, "Where a change says in words what the import of a file did."),
    "EARLIEST_DAY": (EARLIEST.isoformat(), "Days before this are taken for mistakes."),
    "LATEST_DAY": (LATEST.isoformat(), "Days after this are taken for mistakes."),
}


def as_typescript(constants: dict[str, tuple[object, str]]) -> str:
    """Constants as a TypeScript module."""
    lines = ["// Created by `make schema` from the core. Do not edit."]
    for name, (value, about) in constants.items():
        written = json.dumps(value, ensure_ascii=False)
        # A figure is any number where it is used as a first value.
        typed = f"{name}: number = {written}" if isinstance(value, (int, float)) else f"{name} = {written} as const"
        lines += ["", f"/** {about} */", f"export const {typed};"]
    return "\n".join(lines) + "\n"


sys.stdout.write(as_typescript(STYLE if "style" in sys.argv else CONSTANTS))
