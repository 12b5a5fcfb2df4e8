"""What somebody wants drawn on a sheet."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from stairpath.core.cutting.cuts import BandCut, PlaneCut
from stairpath.core.cutting.sheet.draw import DEPTH_M
from stairpath.core.visibility.rules import Rule


@dataclass(frozen=True)
class SheetRequest:
    """A cut of what rules show, at a scale, so deep, on a sheet of that name or the smallest that holds it."""

    shape: PlaneCut | BandCut
    rules: tuple[Rule, ...] = ()
    scale: float = 50.0
    depth_m: float = DEPTH_M
    paper: str | None = None
    kind: Literal["sheet"] = "sheet"
