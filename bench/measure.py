"""One measured figure against its reference."""

from __future__ import annotations

from dataclasses import dataclass
from statistics import median


@dataclass(frozen=True)
class Measure:
    """Medians of ours and of the reference, with how they were made."""

    what: str
    ours: float
    reference: float
    unit: str
    wanted: float | None
    how: str

    @property
    def ratio(self) -> float:
        return self.ours / self.reference

    @property
    def ours_text(self) -> str:
        return f"{self.ours:,.1f} {self.unit}"

    @property
    def reference_text(self) -> str:
        return f"{self.reference:,.1f} {self.unit}"


def middle(values: list[float]) -> float:
    """The median."""
    return float(median(values))
