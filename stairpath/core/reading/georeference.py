"""Where a file's coordinates lie on the map: its map conversion, as real files write it.

IfcMapConversion (IFC4 on, scaled too), IfcRigidOperation (IFC4X3), and the property sets ePSet_MapConversion and
ePSet_ProjectedCRS that stand for them in IFC2X3.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Any

from stairpath.core.problems import Problem
from stairpath.core.reading.model import MapConversion
from stairpath.core.reading.relations import clean
from stairpath.core.reading.units import UNIT_NAMES, unit_scale
from stairpath.core.reading.validate import ON_EARTH_M, finite

_SAME = 1e-3
"""Scales that differ by less, relative, mean the same unit; a grid's scale factor differs from 1 by less than 1 %."""
_GRID_FACTOR = 1e-2
_KNOWN_M = {"metres": 1.0, "feet": 0.3048, "US survey feet": 1200 / 3937, "millimetres": 1e-3}


def _said(scale_m: float) -> str:
    """A unit as people say it."""
    for name, known in _KNOWN_M.items():
        if abs(scale_m / known - 1.0) < 1e-7:
            return name
    return f"units of {scale_m:g} m"


def unit_of(map_unit_m: float | None, scale: float | None, own_m: float) -> tuple[float, str]:
    """In which unit (in metres) eastings and northings are, and why, where that has to be said.

    ``map_unit_m`` is the unit that the reference system names, ``scale`` the conversion's scale, ``own_m`` the
    file's length unit. IFC: own length times scale is length on the map; without a map unit it is the file's
    own, unless the scale is just what turns the file's unit into another known one.

    >>> unit_of(None, 0.001, 0.001)
    (1.0, 'its scale of 0.001 stands for the unit: taken in metres')
    """
    factor = 1.0 if scale is None or scale <= 0 else scale
    if map_unit_m is not None:
        ratio = factor * map_unit_m / own_m
        if abs(factor - 1.0) < _SAME * 1e-3 or abs(ratio - 1.0) < 1e-7:
            return map_unit_m, ""
        if abs(ratio - 1.0) < _GRID_FACTOR or abs(factor - 1.0) < _GRID_FACTOR:
            plain = ratio if abs(ratio - 1.0) < _GRID_FACTOR else factor
            return map_unit_m, f"its grid factor of {plain:.6f} is left out, lengths stay true"
        return map_unit_m, f"its scale of {factor:g} does not go with its map unit; taken in {_said(map_unit_m)}"
    if abs(factor - 1.0) < _GRID_FACTOR:
        note = f"it names no map unit: taken in the file's own, {_said(own_m)}"
        if abs(factor - 1.0) > 1e-9:
            note += f"; its grid factor of {factor:.6f} is left out, lengths stay true"
        return own_m, note if own_m != 1.0 or factor != 1.0 else ""
    for name, known in _KNOWN_M.items():
        if abs(factor * known / own_m - 1.0) < _SAME:
            return known, f"its scale of {factor:g} stands for the unit: taken in {name}"
    return own_m, f"its scale of {factor:g} fits no unit: taken in the file's own, {_said(own_m)}"


def _turn_deg(x: float | None, y: float | None) -> float:
    return math.degrees(math.atan2(y, x)) if x is not None and y is not None and (x or y) else 0.0


def _conversion(
    crs: str, values: tuple[float | None, float | None, float | None], unit: tuple[float, str], turn_deg: float
) -> tuple[MapConversion | None, list[Problem]]:
    east, north, height = values
    if east is None or north is None or max(abs(v) for v in (east, north, height or 0.0)) * unit[0] > ON_EARTH_M:
        text = "Its map conversion holds no usable eastings and northings; it was not used."
        return None, [Problem("map-unusable", text)]
    metres, note = unit
    return MapConversion(crs, east * metres, north * metres, (height or 0.0) * metres, turn_deg, note), []


def _wrapped(value: Any) -> float | None:
    return finite(getattr(value, "wrappedValue", value))


def _from_entities(ifc: Any, own_m: float) -> tuple[MapConversion | None, list[Problem]] | None:
    for conversion in ifc.by_type("IfcMapConversion")[:1]:
        crs = conversion.TargetCRS
        named = getattr(crs, "MapUnit", None)
        unit = unit_of(unit_scale(named, 1) if named is not None else None, finite(conversion.Scale), own_m)
        turn = _turn_deg(finite(conversion.XAxisAbscissa), finite(conversion.XAxisOrdinate))
        values = tuple(map(finite, (conversion.Eastings, conversion.Northings, conversion.OrthogonalHeight)))
        return _conversion(clean(crs.Name or "unnamed"), (values[0], values[1], values[2]), unit, turn)
    if not ifc.schema.startswith("IFC4X3"):
        return None
    for rigid in ifc.by_type("IfcRigidOperation")[:1]:
        crs, first = rigid.TargetCRS, rigid.FirstCoordinate
        if first is not None and first.is_a("IfcPlaneAngleMeasure"):
            text = "Its place on the map is given in degrees of latitude and longitude; it was not used."
            return None, [Problem("map-unusable", text)]
        named = getattr(crs, "MapUnit", None)
        unit = unit_of(unit_scale(named, 1) if named is not None else None, None, own_m)
        # IfcRigidOperation: first coordinate is the easting, second the northing, and nothing is turned.
        values = (_wrapped(first), _wrapped(rigid.SecondCoordinate), finite(rigid.Height))
        return _conversion(clean(crs.Name or "unnamed"), values, unit, 0.0)
    return None


def _sets_named(ifc: Any, name: str) -> Iterator[dict[str, Any]]:
    """Values by name of every property set of a name; a text or a number each."""
    for definition in ifc.by_type("IfcPropertySet"):
        if clean(definition.Name or "").lower() == name:
            yield {
                clean(p.Name): p.NominalValue.wrappedValue
                for p in definition.HasProperties or ()
                if p.is_a("IfcPropertySingleValue") and p.NominalValue
            }


def _from_sets(ifc: Any, own_m: float) -> tuple[MapConversion | None, list[Problem]] | None:
    system: dict[str, Any] = next(_sets_named(ifc, "epset_projectedcrs"), {})
    for values in _sets_named(ifc, "epset_mapconversion"):
        if "Eastings" not in values or "Northings" not in values:
            continue
        map_unit = UNIT_NAMES.get(str(system.get("MapUnit", values.get("MapUnit", ""))).strip().lower())
        unit = unit_of(map_unit, finite(values.get("Scale")), own_m)
        turn = _turn_deg(finite(values.get("XAxisAbscissa")), finite(values.get("XAxisOrdinate")))
        crs = clean(values.get("TargetCRS") or system.get("Name") or "unnamed")
        figures = [finite(values.get(key)) for key in ("Eastings", "Northings", "OrthogonalHeight")]
        return _conversion(crs, (figures[0], figures[1], figures[2]), unit, turn)
    return None


def map_conversion(ifc: Any, own_m: float) -> tuple[MapConversion | None, list[Problem]]:
    """The file's map conversion in metres, None without one; and what is wrong with it."""
    try:
        entities = None if ifc.schema == "IFC2X3" else _from_entities(ifc, own_m)
        return entities or _from_sets(ifc, own_m) or (None, [])
    except Exception:  # an attribute of another type than the schema says
        return None, [Problem("map-unusable", "Its map conversion could not be read; it was not used.")]
