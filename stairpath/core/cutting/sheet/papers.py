"""Sheets of paper, lying: ISO 5457 trimmed sizes of the A series, and those of ANSI/ASME Y14.1 and of architects."""

from __future__ import annotations

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
    """There is no such sheet, or none is large enough; the message says what to do."""


def paper_named(name: str) -> Paper:
    """A sheet by its name; raises NoPaperError."""
    for known, paper in PAPERS.items():
        if known.casefold() == name.strip().casefold():
            return paper
    raise NoPaperError(f"There is no sheet {name}; give one of {', '.join(PAPERS)}.")


def paper_for(width_mm: float, height_mm: float, scale: float) -> Paper:
    """The smallest ISO sheet that a drawing of a size fits on; raises NoPaperError."""
    for paper in ISO:
        inside = paper.inside_mm
        if width_mm <= inside[0] and height_mm <= inside[1]:
            return paper
    widest = ISO[-1].inside_mm
    needed = scale * max(width_mm / widest[0], height_mm / widest[1])
    raise NoPaperError(
        f"The drawing is {width_mm:.0f} by {height_mm:.0f} mm at 1:{scale:g} and fits on no sheet up to A0; "
        f"take a scale of 1:{needed:.0f} or smaller, or cut less."
    )
