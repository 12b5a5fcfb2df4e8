"""What the demo's team keeps: topics on its planted problems with their views and markups, and two meetings.

Everybody and everything in it is made up. Places are in building coordinates, dates in days from the one on which the demo
is made.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from stairpath.core.camera.pose import Projection
from stairpath.core.cutting.cuts import Cut, PlaneCut
from stairpath.core.geometry.vectors import Vector
from stairpath.core.measuring.measures import Measure, PointsMeasure
from stairpath.core.review.eye import Eye
from stairpath.core.review.markups import Colour, Kind, Markup, Screen, Style, placed
from stairpath.core.review.view import View
from stairpath.core.visibility.rules import Effect, Rule
from stairpath.core.visibility.selectors import parse
from stairpath.demo import building as b

ASPECT = 1.6
COORDINATOR = "Mara Oake"
ARCHITECT, STRUCTURE, AIR, WATER = "Lio Marsh", "Ida Fenn", "Tam Kerr", "Joss Penrow"
ELECTRICAL, FIRE, FITOUT = "Wren Sallow", "Bea Thorne", "Corin Ash"
TEAM = (COORDINATOR, ARCHITECT, STRUCTURE, AIR, WATER, ELECTRICAL, FIRE, FITOUT)
_NO_CEILINGS: tuple[Effect, str] = ("hide", "class:IfcCovering")


@dataclass(frozen=True)
class Sight:
    """From where something is seen, in building coordinates; a height makes it parallel."""

    eye_m: Vector
    target_m: Vector
    angle_deg: float = 60.0
    height_m: float = 0.0


@dataclass(frozen=True)
class Mark:
    """A markup as it is drawn in the picture, through the target of its sight."""

    kind: Kind
    drawn: tuple[Screen, ...]
    text: str = ""
    colour: Colour = "pick"


@dataclass(frozen=True)
class Problem:
    """A topic of the demo; ``shown`` are rules by their effects, ``cut_y_m`` what is nearer than that is cut away."""

    title: str
    description: str
    level: str
    picks: str
    sight: Sight
    who: str
    status: str = "open"
    kind: str = "problem"
    priority: str = "normal"
    due_days: int | None = None
    labels: tuple[str, ...] = ()
    shown: tuple[tuple[Effect, str], ...] = (_NO_CEILINGS,)
    marks: tuple[Mark, ...] = ()
    measure: tuple[Vector, Vector] | None = None
    cut_y_m: float | None = None
    variant_of: int | None = None
    comments: tuple[tuple[str, str], ...] = ()
    question: tuple[str, str] | None = None


@dataclass(frozen=True)
class Said:
    """What a meeting noted of a topic, by its place in the list."""

    topic: int
    text: str
    decision: bool = False
    who: str = ""
    until_days: int | None = None


@dataclass(frozen=True)
class Meeting:
    """A meeting that was held so many days from now."""

    title: str
    days: int
    present: tuple[str, ...]
    said: tuple[Said, ...]


def _cloud(left: float, bottom: float, right: float, top: float) -> Mark:
    return Mark("cloud", ((left, bottom), (right, top)))


def _callout(at: Screen, to: Screen, text: str) -> Mark:
    return Mark("callout", (at, to), text, "ink")


PROBLEMS: Sequence[Problem] = (
    Problem(
        "Supply duct runs through beam 2/A-B",
        "AD-199 passes the beam 240 mm deep of its 300 mm. Either the duct goes under, or the beam gets an opening.",
        "Level 01",
        "tag:AD-199,tag:B-241",
        Sight((2.4, 0.9, 5.8), (6.0, 3.2, 7.4), 55.0),
        AIR,
        status="in hand",
        priority="high",
        due_days=4,
        labels=("laboratory", "before casting"),
        marks=(_cloud(-0.3, -0.32, 0.28, 0.3), _callout((0.0, 0.0), (0.56, -0.5), "240 mm into the beam")),
        measure=((6.0, 3.2, 7.36), (6.0, 3.2, 7.6)),
        comments=(
            (STRUCTURE, "No opening of that size within a metre of the column."),
            (AIR, "I can go under with 500 x 200 if the ceiling comes down by 60 mm."),
        ),
    ),
    Problem(
        "Ceiling of the Plankton laboratory under the lowered duct",
        "If AD-199 goes under the beam the ceiling is 60 mm lower between axes 1 and 2.",
        "Level 01",
        "tag:CE-1.01",
        Sight((1.2, 9.4, 5.6), (4.2, 2.4, 6.4), 65.0),
        ARCHITECT,
        status="asked",
        kind="question",
        due_days=9,
        labels=("laboratory",),
        shown=(),
        variant_of=0,
        question=(
            ARCHITECT,
            "May the ceiling of 1.01 come down by 60 mm between axes 1 and 2, or over the whole room?",
        ),
    ),
    Problem(
        "Socket behind the tall cabinet",
        "SO-199 sits 18 mm behind the back of cabinet CB-106 and cannot be reached.",
        "Level 01",
        "tag:SO-199",
        Sight((14.6, 18.3, 5.4), (12.15, 20.0, 4.5), 55.0),
        ELECTRICAL,
        due_days=-2,
        labels=("fit-out",),
        shown=(_NO_CEILINGS, ("fade", "tag:CB-106")),
        marks=(Mark("ellipse", ((-0.16, -0.44), (0.14, 0.02))), _callout((0.12, -0.2), (0.58, -0.6), "18 mm")),
        comments=((FITOUT, "The cabinet can move 400 mm north, the fume cupboard cannot."),),
    ),
    Problem(
        "Door of the Specimen store swings into column C6",
        "The leaf of D-037 meets the column after 30 mm of its opening.",
        "Level 02",
        'tag:D-037,tag:C-C6+level:"Level 02"',
        Sight((32.8, 12.6, 9.9), (30.4, 10.8, 8.8), 62.0),
        ARCHITECT,
        status="in hand",
        due_days=6,
        labels=("doors",),
        marks=(
            Mark("arrow", ((0.5, 0.5), (0.12, 0.08))),
            Mark("text", ((0.52, 0.56),), "hinges on the other side?", "here"),
        ),
    ),
    Problem(
        "Cable tray too near to the sprinkler branch",
        "CT-220 runs 12 mm beside SP-239 over the Instrument laboratory; 150 mm are wanted for the heads.",
        "Level 02",
        "tag:CT-220,tag:SP-239",
        Sight((16.2, 17.9, 9.6), (18.4, 20.1, 11.0), 58.0),
        FIRE,
        status="answered",
        priority="high",
        due_days=1,
        labels=("laboratory", "fire"),
        marks=(_cloud(-0.42, -0.3, 0.3, 0.34), Mark("text", ((-0.1, -0.46),), "12 mm, wanted 150 mm")),
        comments=((ELECTRICAL, "The tray goes to the north side of the branch."),),
    ),
    Problem(
        "Structure's Level 02 lies 40 mm low",
        "The structural model has Level 02 at 7.86 m; all others have 7.90 m. Everything that hangs from it is affected.",
        "Level 02",
        "tag:S-02",
        Sight((1.5, -12.0, 7.85), (1.5, 2.0, 7.85), height_m=1.6),
        STRUCTURE,
        status="asked",
        priority="high",
        due_days=-5,
        labels=("levels",),
        shown=(),
        marks=(
            Mark("line", ((-0.5, 0.06), (0.5, 0.06)), "", "here"),
            Mark("text", ((0.2, 0.3),), "40 mm between them"),
        ),
        cut_y_m=3.0,
        question=(STRUCTURE, "Which height of Level 02 is right: 7.86 m as modelled, or 7.90 m as on the sections?"),
    ),
    Problem(
        "Hanger of the extract main hangs low before the escape stair",
        "AH-131 is 65 mm lower than the others and leaves 2.86 m.",
        "Level 01",
        "tag:AH-131",
        Sight((39.6, 12.5, 5.6), (42.85, 12.65, 6.9), 50.0),
        AIR,
        priority="low",
        due_days=12,
        labels=("escape",),
        marks=(Mark("rectangle", ((-0.16, -0.24), (0.16, 0.28))),),
    ),
    Problem(
        "Sea-water branches of the Sediment laboratory without insulation",
        "All other branches have 19 mm of foam. Condensation would drip onto the benches.",
        "Level 01",
        "tag:SW-127,tag:SW-129,tag:SW-130,tag:SW-132",
        Sight((16.9, 9.8, 5.7), (12.4, 1.5, 6.3), 62.0),
        WATER,
        due_days=4,
        labels=("sea water",),
    ),
    Problem(
        "Sea-water branches of the Imaging room without insulation",
        "The same as in the Sediment laboratory.",
        "Level 01",
        "tag:SW-133,tag:SW-135,tag:SW-136,tag:SW-138",
        Sight((35.4, 9.8, 5.7), (32.8, 1.5, 6.2), 62.0),
        WATER,
        due_days=4,
        labels=("sea water",),
        variant_of=7,
    ),
    Problem(
        "Ice machine narrows the corridor of Level B1",
        "IM-1 leaves 0.72 m of the corridor; the way to the escape stair wants 1.20 m.",
        "Level B1",
        "tag:IM-1",
        Sight((24.6, 12.0, -2.7), (20.4, 11.9, -3.4), 60.0),
        FITOUT,
        status="in hand",
        priority="high",
        due_days=2,
        labels=("escape",),
        marks=(_callout((-0.3, -0.5), (-0.55, 0.45), "0.72 m left"),),
        comments=((FITOUT, "It fits into the Tank store, 1.4 m from the drain."),),
    ),
    Problem(
        "Hall stair: alternative A or B",
        "A has flights of 1.30 m, B of 1.20 m with a wider well. The railing differs too.",
        "Level 00",
        "tag:S1-00A.1,tag:S1-00A.2",
        Sight((20.4, 3.2, 1.6), (26.6, 7.6, 2.2), 65.0),
        ARCHITECT,
        kind="change",
        due_days=15,
        labels=("hall",),
        shown=(),
    ),
    Problem(
        "Way between the air handling units on the roof",
        "Filters of AHU-1 and AHU-2 are changed from the middle; 1.80 m are wanted over the whole length.",
        "Roof",
        "tag:AHU-1,tag:AHU-2",
        Sight((15.0, 10.8, 14.2), (8.8, 11.0, 12.9), 62.0),
        AIR,
        status="settled",
        kind="remark",
        labels=("roof",),
        shown=(),
        measure=((8.6, 8.0, 12.9), (8.6, 13.98, 12.9)),
    ),
)

MEETINGS: Sequence[Meeting] = (
    Meeting(
        "Coordination 1",
        -14,
        (COORDINATOR, ARCHITECT, STRUCTURE, AIR, ELECTRICAL),
        (
            Said(5, "The sections say 7.90 m. Structure checks with the precast firm.", who=STRUCTURE, until_days=-5),
            Said(0, "Two ways: under the beam, or an opening. Structure is against the opening."),
            Said(2, "Whichever moves more easily moves.", who=ELECTRICAL, until_days=-2),
            Said(11, "The way is 5.98 m wide. Nothing to do.", decision=True),
            Said(10, "The client wants to see both.", who=ARCHITECT, until_days=15),
        ),
    ),
    Meeting(
        "Coordination 2",
        -1,
        (COORDINATOR, ARCHITECT, STRUCTURE, AIR, WATER, ELECTRICAL, FIRE, FITOUT),
        (
            Said(5, "Still open; the precast firm answers this week.", who=STRUCTURE, until_days=2),
            Said(2, "Overdue. Fit-out moves the cabinet 400 mm north.", decision=True, who=FITOUT, until_days=6),
            Said(0, "The duct goes under the beam with 500 x 200.", decision=True, who=AIR, until_days=4),
            Said(1, "Depends on that: the ceiling comes down by 60 mm.", who=ARCHITECT, until_days=9),
            Said(4, "The tray goes to the north side.", decision=True, who=ELECTRICAL, until_days=1),
            Said(9, "The ice machine goes into the Tank store.", decision=True, who=FITOUT, until_days=2),
            Said(7, "Insulation is added in both rooms.", decision=True, who=WATER, until_days=4),
        ),
    ),
)


def to_project(point: Vector) -> Vector:
    """A place of the building in project coordinates."""
    turn = math.radians(b.MAP_ROTATION_DEG)
    x, y, z = point
    return (
        x * math.cos(turn) - y * math.sin(turn) + b.MAP_EASTING_M,
        x * math.sin(turn) + y * math.cos(turn) + b.MAP_NORTHING_M,
        z,
    )


def _eye(sight: Sight) -> Eye:
    projection: Projection = "parallel" if sight.height_m else "perspective"
    away = math.dist(sight.eye_m, sight.target_m)
    height_m = sight.height_m or 2 * away * math.tan(math.radians(sight.angle_deg) / 2) / ASPECT
    return Eye(
        to_project(sight.eye_m), to_project(sight.target_m), (0.0, 0.0, 1.0), projection, sight.angle_deg, height_m
    )


def view_of(problem: Problem, number: int) -> View:
    """What a topic's view shows, with nothing picked yet."""
    eye = _eye(problem.sight)
    through = to_project(problem.sight.target_m)
    marks: list[Markup] = [
        placed(
            f"demo-{number}-{k}",
            mark.kind,
            list(mark.drawn),
            through,
            eye,
            ASPECT,
            Style(mark.colour, 3.0, text_share=0.046),
            mark.text,
        )
        for k, mark in enumerate(problem.marks)
    ]
    cuts: tuple[Cut, ...] = ()
    if problem.cut_y_m is not None:
        turn = math.radians(b.MAP_ROTATION_DEG)
        south = (math.sin(turn), -math.cos(turn), 0.0)
        cuts = (Cut("demo", PlaneCut(to_project((0.0, problem.cut_y_m, 0.0)), south), "Section"),)
    measures: tuple[Measure, ...] = ()
    if problem.measure is not None:
        ends = (to_project(problem.measure[0]), to_project(problem.measure[1]))
        measures = (Measure("demo", PointsMeasure(ends)),)
    rules = tuple(Rule(parse(select), effect, by=COORDINATOR, why=problem.title) for effect, select in problem.shown)
    return View(eye, rules=rules, cuts=cuts, measures=measures, markups=tuple(marks))
