"""What somebody sees, as one document: eye, lens, limits, rules, cuts, measures, markups and alternatives.

The same document is kept in a viewpoint, a home, a place on the Trail and a link, and is what a change is undone to.
Coordinates are those of the project.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from typing import Literal

from stairpath.core.cutting.cuts import Cut
from stairpath.core.geometry.vectors import Vector
from stairpath.core.measuring.measures import Measure
from stairpath.core.review.eye import Eye
from stairpath.core.review.markups import Markup
from stairpath.core.visibility.rules import Rule, simplified
from stairpath.core.visibility.selectors import These

VERSION = 2

Style = Literal["edges", "plain", "lines", "clear"]
"""Shaded with edges, shaded alone, lines with what they hide taken away, or see-through."""


@dataclass(frozen=True)
class Limits:
    """How much is seen along the line of sight: nothing nearer than ``through_m``, nothing beyond ``depth_m``."""

    through_m: float = 0.0
    depth_m: float | None = None


@dataclass(frozen=True)
class HungPicture:
    """A picture that stands in the model about its middle, as another program put it there; kept by its hash."""

    sha256: str
    at_m: Vector
    normal: Vector
    up: Vector
    height_m: float


@dataclass(frozen=True)
class PictureFrame:
    """What of a view its picture shows: a part of it from -1 to 1, beyond for more than was seen.

    ``aspect`` is how many times its height the view was wide.
    """

    aspect: float
    left: float = -1.0
    right: float = 1.0
    bottom: float = -1.0
    top: float = 1.0


@dataclass(frozen=True)
class View:
    """Everything that makes up what somebody sees; ``picked`` is what they had in hand.

    ``whole`` are components that no cut goes through.
    """

    eye: Eye
    limits: Limits = Limits()
    rules: tuple[Rule, ...] = ()
    cuts: tuple[Cut, ...] = ()
    measures: tuple[Measure, ...] = ()
    whole: These = field(default_factory=lambda: These({}))
    alternatives: dict[str, str] = field(default_factory=dict)
    picked: These = field(default_factory=lambda: These({}))
    style: Style = "edges"
    markups: tuple[Markup, ...] = ()
    frame: PictureFrame | None = None
    pictures: tuple[HungPicture, ...] = ()
    version: int = VERSION


def changed(view: View, rule: Rule) -> View:
    """A view with one more rule, without those that it leaves nothing of."""
    return replace(view, rules=simplified((*view.rules, rule)))


def brought_back(view: View, place: int) -> View:
    """A view without one of its rules."""
    return replace(view, rules=simplified((*view.rules[:place], *view.rules[place + 1 :])))
