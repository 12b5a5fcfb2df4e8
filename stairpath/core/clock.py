"""Whether the clock of the machine was set back, as two clocks tell that run beside each other."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass, field

NOTICED_S = 60.0
"""A clock that is kept right by others moves by less."""


@dataclass
class ClockWatch:
    """Compares the clock that tells the time with one that only goes on."""

    wall: Callable[[], float] = time.time
    steady: Callable[[], float] = time.monotonic
    back_s: float = 0.0
    """By how much it was set back the last time, in seconds; 0 where it was not, or is right again."""
    _ahead: float | None = field(default=None, init=False)

    def look(self) -> float:
        """Look at both; by how many seconds the clock was set back since the last look, 0 for not."""
        ahead = self.wall() - self.steady()
        before, self._ahead = self._ahead, ahead
        moved = 0.0 if before is None else before - ahead
        if moved > NOTICED_S:
            self.back_s += moved
            return moved
        if moved < -NOTICED_S:
            self.back_s = max(0.0, self.back_s + moved)
        return 0.0
