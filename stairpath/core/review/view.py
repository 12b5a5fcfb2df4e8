"""What somebody sees, as one document: eye, lens, limits, rules, cuts, measures, markups and alternatives.

The same document is kept in a viewpoint, a home, a place on the Trail and a link, and is what a change is undone to.
Coordinates are those of the project.
"""

from __future__ import annotations

import re
from dataclasses import dataclass, field, replace
from typing import Annotated, Final, Literal

from annotated_types import Gt, Le, MaxLen

from stairpath.core.cutting.cuts import Cut, too_many_planes
from stairpath.core.geometry.vectors import Vector
from stairpath.core.limits import Aspect, Author, Key, NearClip, Sentence, Share, Size
from stairpath.core.measuring.measures import Measure
from stairpath.core.review.eye import Eye
from stairpath.core.review.markups import Markup
from stairpath.core.visibility.rules import Rule, Rules, simplified
from stairpath.core.visibility.selectors import NONE, These

VERSION: Final = 2

Cuts = Annotated[tuple[Cut, ...], MaxLen(24)]
Measures = Annotated[tuple[Measure, ...], MaxLen(200)]
Markups = Annotated[tuple[Markup, ...], MaxLen(500)]
_LEAST_FRAME = 0.02


Style = Literal["edges", "plain", "lines", "clear"]
"""Shaded with edges, shaded alone, lines with what they hide taken away, or see-through."""


@dataclass(frozen=True)
class Limits:
    """How much is seen along the line of sight: nothing nearer than ``through_m``, nothing beyond ``depth_m``."""

    through_m: NearClip = 0.0
    depth_m: Annotated[float, Gt(0), Le(1e6)] | None = None


@dataclass(frozen=True)
class HungPicture:
    """A picture that stands in the model about its middle, as another program put it there; kept by its hash."""

    sha256: str
    at_m: Vector
    normal: Vector
    up: Vector
    height_m: Size

    def __post_init__(self) -> None:
        if not re.fullmatch("[0-9a-f]{64}", self.sha256):
            raise ValueError("A picture in the view has no valid name. Open the view again.")


@dataclass(frozen=True)
class PictureFrame:
    """What of a view its picture shows: a part of it from -1 to 1, beyond for more than was seen.

    ``aspect`` is how many times its height the view was wide.
    """

    aspect: Aspect
    left: Share = -1.0
    right: Share = 1.0
    bottom: Share = -1.0
    top: Share = 1.0

    def __post_init__(self) -> None:
        if self.right - self.left < _LEAST_FRAME or self.top - self.bottom < _LEAST_FRAME:
            raise ValueError("The picture's frame has no extent; draw it larger.")


@dataclass(frozen=True)
class View:
    """Everything that makes up what somebody sees; ``picked`` is what they had in hand.

    ``whole`` are components that no cut goes through.
    """

    eye: Eye
    limits: Limits = Limits()
    rules: Rules = ()
    cuts: Cuts = ()
    measures: Measures = ()
    whole: These = NONE
    alternatives: Annotated[dict[Key, Sentence], MaxLen(1000)] = field(default_factory=dict)
    picked: These = NONE
    style: Style = "edges"
    markups: Markups = ()
    frame: PictureFrame | None = None
    pictures: Annotated[tuple[HungPicture, ...], MaxLen(100)] = ()
    version: Literal[2] = VERSION

    def __post_init__(self) -> None:
        if wrong := too_many_planes([(cut.shape.kind, cut.off) for cut in self.cuts]):
            raise ValueError(wrong)


@dataclass(frozen=True)
class Home:
    """The view that everybody comes home to, and who set it."""

    view: View
    author: Author


def changed(view: View, rule: Rule) -> View:
    """A view with one more rule, without those that it leaves nothing of."""
    return replace(view, rules=simplified((*view.rules, rule)))


def brought_back(view: View, place: int) -> View:
    """A view without one of its rules."""
    return replace(view, rules=simplified((*view.rules[:place], *view.rules[place + 1 :])))
