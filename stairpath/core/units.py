"""Units as people type them, and figures in those that the core keeps: metres, square metres, pascals ..."""

from __future__ import annotations

from functools import cache
from typing import Any

_SPELT = {"W/m²K": "W/m²/K", '"': "inch", "''": "inch", "'": "foot", "´": "foot", "l": "litre", "°": "degree"}
"""How units are written that the registry would take for something else."""


class NoUnitError(ValueError):
    """A unit that is none; the message says what to write."""


class OtherUnitError(ValueError):
    """A unit of something else; the message says what to write."""


@cache
def _registry() -> Any:
    import pint  # half a second, and most of what is asked has no unit

    return pint.UnitRegistry(autoconvert_offset_to_baseunit=True)


@cache
def _scale(unit: str, into: str) -> tuple[float, float]:
    """What a unit is times, and plus, in another one."""
    import pint

    checked_unit(unit)
    registry = _registry()
    try:
        one, none = (
            float(registry.Quantity(value, _SPELT.get(unit, unit)).to(_SPELT.get(into, into)).magnitude)
            for value in (1.0, 0.0)
        )
    except pint.DimensionalityError:
        raise OtherUnitError(f"{unit} measures something else than {into}; give a unit like {into}.") from None
    return one - none, none


def checked_unit(unit: str) -> str:
    """A unit that is one; raises NoUnitError."""
    try:
        _registry().Unit(_SPELT.get(unit, unit))
    except Exception:  # whatever a parser makes of a text that is no unit
        raise NoUnitError(f"{unit} is no unit; write one such as m, mm, ft, m², l/s or kPa.") from None
    return unit


def converted(value: float, unit: str, into: str) -> float:
    """A figure in one unit in another; raises NoUnitError or OtherUnitError.

    >>> converted(150, "mm", "m"), round(converted(20, "°C", "K"), 2)
    (0.15, 293.15)
    """
    if unit == into:
        return value
    times, plus = _scale(unit, into)
    return float(f"{value * times + plus:.15g}")
