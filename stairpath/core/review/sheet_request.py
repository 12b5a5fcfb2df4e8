"""What somebody wants drawn on a sheet."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from annotated_types import Ge, Le, MaxLen

from stairpath.core.cutting.cuts import BandCut, PlaneCut
from stairpath.core.cutting.sheet.draw import DEPTH_M
from stairpath.core.limits import BY_KIND
from stairpath.core.visibility.rules import Rules


@dataclass(frozen=True)
class SheetRequest:
    """A cut of what rules show, at a scale, so deep, on a sheet of that name or the smallest that holds it."""

    shape: Annotated[PlaneCut | BandCut, BY_KIND]
    rules: Rules = ()
    scale: Annotated[float, Ge(0.1), Le(100_000)] = 50.0
    depth_m: Annotated[float, Ge(0), Le(1000)] = DEPTH_M
    paper: Annotated[str, MaxLen(20)] | None = None
    kind: Literal["sheet"] = "sheet"
