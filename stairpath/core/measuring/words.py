"""Figures in words, for pictures and pages on which nobody chooses units."""

from __future__ import annotations

from stairpath.core.measuring.figures import MeasureFigure


def spoken(figure: MeasureFigure) -> str:
    """A figure in metres, square and cubic metres, degrees or per cent, to the digits that one reads.

    >>> spoken(MeasureFigure("distance", "length", 0.2404))
    '0.240 m'
    >>> spoken(MeasureFigure("fall", "share", -0.0125))
    '−1.25 %'
    """
    value = abs(figure.value)
    said = {
        "length": f"{value:.3f} m",
        "area": f"{value:.3f} m²",
        "volume": f"{value:.4f} m³",
        "angle": f"{value:.2f}°",
        "share": f"{value * 100:.2f} %",
    }[figure.quantity]
    return f"−{said}" if figure.value < 0 and float(said.split()[0].rstrip("°")) else said
