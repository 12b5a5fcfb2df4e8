"""Who walks: how much room a body takes, and what it can step over."""

from __future__ import annotations

from dataclasses import dataclass

ADULT_SPEED_M_S = 1.4


@dataclass(frozen=True)
class Body:
    """An upright cylinder that walks; what climbs stairs has a head narrower than its shoulders.

    ``step_up_m`` and ``step_down_m`` are the largest it takes in one step; ``slope`` is the
    steepest floor, as rise over run.
    """

    name: str
    radius_m: float
    height_m: float
    step_up_m: float
    step_down_m: float
    slope: float
    speed_m_s: float = ADULT_SPEED_M_S

    def __post_init__(self) -> None:
        if not 0.05 <= self.radius_m <= 1.5:
            raise ValueError(f"A radius of {self.radius_m:g} m is no body's; give 0.05 to 1.5 m.")
        if not 0.3 <= self.height_m <= 4.0:
            raise ValueError(f"A height of {self.height_m:g} m is no body's; give 0.3 to 4 m.")
        if min(self.step_up_m, self.step_down_m) < 0 or self.slope < 0 or self.speed_m_s <= 0:
            raise ValueError("Steps and slope of a body are zero or more, and its speed is above zero.")

    @property
    def climbs(self) -> bool:
        """Whether it takes the risers of a stair."""
        return self.step_up_m > 0.1

    @property
    def steepest(self) -> float:
        """The slope that just passes: a ramp of exactly ``slope`` does, whatever its file rounds."""
        return self.slope + SLOPE_TOLERANCE

    @property
    def ahead(self) -> float:
        """How much the floor ahead may rise per metre beyond a step; what rises more is bumped into."""
        return 1.0 if self.climbs else self.steepest

    @property
    def shoulder_m(self) -> float:
        """Up to which height it is as wide as ``radius_m``."""
        return self.height_m - HEAD_M if self.climbs else self.height_m


SLOPE_TOLERANCE = 1e-3
HEAD_M = 0.30
"""So much of a body on foot is head, which passes under what its shoulders would not on a stair."""
STEP_M = 0.25
"""The largest riser somebody on foot takes; stairs in buildings stay well below."""
THRESHOLD_M = 0.02
"""The largest edge that a small wheel rolls over."""

BODIES = {
    body.name: body
    for body in (
        Body("standing", 0.25, 1.80, STEP_M, STEP_M, 1.0),
        Body("stooping", 0.25, 1.30, STEP_M, STEP_M, 1.0, 0.9),
        Body("trolley", 0.40, 1.80, THRESHOLD_M, THRESHOLD_M, 1 / 8, 1.1),
        Body("wheelchair", 0.40, 1.35, THRESHOLD_M, THRESHOLD_M, 1 / 12, 1.0),
    )
}


class NoSuchBodyError(LookupError):
    """Nobody of that name walks here."""


def body_named(name: str) -> Body:
    """A body by its name; raises NoSuchBodyError, which says whom there is."""
    if name not in BODIES:
        raise NoSuchBodyError(f"{name} is not a body; give {', '.join(list(BODIES)[:-1])} or {list(BODIES)[-1]}.")
    return BODIES[name]
