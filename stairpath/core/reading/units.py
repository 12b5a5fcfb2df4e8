"""A file's units."""

from __future__ import annotations

from typing import Any

from stairpath.core.reading.relations import UnitScales

_PREFIXES = {"MILLI": 1e-3, "CENTI": 1e-2, "DECI": 1e-1, "KILO": 1e3, "MICRO": 1e-6, None: 1.0}
_LARGEST, _SMALLEST = 1e4, 1e-7

UNIT_NAMES = {
    **dict.fromkeys(("m", "metre", "meter", "metres", "meters"), 1.0),
    **dict.fromkeys(("mm", "millimetre", "millimeter", "millimetres", "millimeters"), 1e-3),
    **dict.fromkeys(("cm", "centimetre", "centimeter"), 1e-2),
    **dict.fromkeys(("km", "kilometre", "kilometer"), 1e3),
    **dict.fromkeys(("ft", "foot", "feet", "international foot"), 0.3048),
    **dict.fromkeys(("usft", "us survey foot", "u.s. survey foot", "us foot", "survey foot"), 1200 / 3937),
}
"""Units of length in metres, by what people write."""


def unit_scale(unit: Any, power: int) -> float:
    """What one unit is in metres, square metres or cubic metres; ``power`` is 1, 2 or 3."""
    if unit.is_a("IfcSIUnit"):
        return float(_PREFIXES.get(unit.Prefix, 1.0)) ** power
    if unit.is_a("IfcConversionBasedUnit"):
        factor = unit.ConversionFactor
        return float(factor.ValueComponent.wrappedValue) * unit_scale(factor.UnitComponent, power)
    return 1.0


def units(ifc: Any) -> tuple[str, UnitScales]:
    """The length unit's name in lower case and the scales to metres; what cannot be read counts as metres."""
    name = "metre"
    scales = {"LENGTHUNIT": 1.0, "AREAUNIT": 1.0, "VOLUMEUNIT": 1.0}
    for assignment in ifc.by_type("IfcUnitAssignment")[:1]:
        for unit in assignment.Units or ():
            kind = getattr(unit, "UnitType", None)
            if kind not in scales:
                continue
            power = ("LENGTHUNIT", "AREAUNIT", "VOLUMEUNIT").index(kind) + 1
            try:
                scale = unit_scale(unit, power)
            except Exception:  # a conversion without its factor
                continue
            if not _SMALLEST**power <= scale <= _LARGEST**power:
                continue
            scales[kind] = scale
            if kind == "LENGTHUNIT":
                prefix = (unit.Prefix or "") if unit.is_a("IfcSIUnit") else ""
                name = f"{prefix}{unit.Name}".lower()
    return name, UnitScales(scales["LENGTHUNIT"], scales["AREAUNIT"], scales["VOLUMEUNIT"])
