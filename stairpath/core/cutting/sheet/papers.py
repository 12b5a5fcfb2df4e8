"""Sheets of paper, lying: ISO 5457 trimmed sizes of the A series, and those of ANSI/ASME Y14.1 and of architects."""

from __future__ import annotations

import math
from dataclasses import dataclass

_INCH_MM = 25.4


@dataclass(frozen=True)
class Paper:
    """A sheet's width and height, and the free edges around its frame: the left one is for filing."""

    name: str
    width_mm: float
    height_mm: float
    filing_mm: float = 20.0
    edge_mm: float = 10.0

    @property
    def inside_mm(self) -> tuple[float, float]:
        """Width and height within the frame."""
        return self.width_mm - self.filing_mm - self.edge_mm, self.height_mm - 2 * self.edge_mm


ISO = [
    Paper("A4", 297, 210), Paper("A3", 420, 297), Paper("A2", 594, 420), Paper("A1", 841, 594), Paper("A0", 1189, 841),
]  # fmt: skip
AMERICAN = [
    Paper(f"{family} {name}", wide * _INCH_MM, high * _INCH_MM)
    for family, sizes in (
        ("ANSI", (("A", 11, 8.5), ("B", 17, 11), ("C", 22, 17), ("D", 34, 22), ("E", 44, 34))),
        ("ARCH", (("A", 12, 9), ("B", 18, 12), ("C", 24, 18), ("D", 36, 24), ("E", 48, 36))),
    )
    for name, wide, high in sizes
]
PAPERS = {paper.name: paper for paper in (*ISO, *AMERICAN)}


class NoPaperError(ValueError):
    """There is no such sheet, or it is not large enough; the message says what to do."""


def paper_named(name: str, width_mm: float, height_mm: float, scale: float) -> Paper:
    """A sheet by its name, for a drawing of a size; raises NoPaperError."""
    for known, paper in PAPERS.items():
        if known.casefold() != name.strip().casefold():
            continue
        wide, high = paper.inside_mm
        if width_mm <= wide and height_mm <= high:
            return paper
        needed = math.ceil(scale * max(width_mm / wide, height_mm / high))
        raise NoPaperError(
            f"The drawing is {width_mm:.0f} by {height_mm:.0f} mm at 1:{scale:g} and does not fit on {paper.name}; "
            f"draw it at about 1:{needed}, or leave the size of the sheet open."
        )
    raise NoPaperError(f"There is no sheet {name}; give one of {', '.join(PAPERS)}.")


def paper_for(width_mm: float, height_mm: float) -> Paper:
    """The smallest ISO sheet that a drawing of a size fits on; what is too large for all has a sheet of its own size.

    >>> paper_for(2400.0, 900.0).name
    '2430 by 920 mm'
    """
    for paper in ISO:
        inside = paper.inside_mm
        if width_mm <= inside[0] and height_mm <= inside[1]:
            return paper
    own = Paper("", math.ceil(width_mm), math.ceil(height_mm))
    wide, high = own.width_mm + own.filing_mm + own.edge_mm, own.height_mm + 2 * own.edge_mm
    return Paper(f"{wide:.0f} by {high:.0f} mm", wide, high)
