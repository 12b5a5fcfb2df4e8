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

    def _text(self, figure: float) -> str:
        return f"{figure:,.1f} {self.unit}" if figure >= 1 else f"{figure:.3f} {self.unit}"

    @property
    def ours_text(self) -> str:
        return self._text(self.ours)

    @property
    def reference_text(self) -> str:
        return self._text(self.reference)


def middle(values: list[float]) -> float:
    """The median."""
    return float(median(values))
