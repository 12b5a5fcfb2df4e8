"""A file's units, map conversion, north, storeys and grid axes."""

from __future__ import annotations

import math
from typing import Any

import ifcopenshell.util.placement
import numpy as np

from stairpath.core.reading.model import GridAxis, MapConversion, Storey
from stairpath.core.reading.relations import UnitScales

_PREFIXES = {"MILLI": 1e-3, "CENTI": 1e-2, "DECI": 1e-1, "KILO": 1e3, "MICRO": 1e-6, None: 1.0}


def _unit_scale(unit: Any, power: int) -> float:
    if unit.is_a("IfcSIUnit"):
        return float(_PREFIXES.get(unit.Prefix, 1.0)) ** power
    if unit.is_a("IfcConversionBasedUnit"):
        factor = unit.ConversionFactor
        return float(factor.ValueComponent.wrappedValue) * _unit_scale(factor.UnitComponent, power)
    return 1.0


def units(ifc: Any) -> tuple[str, UnitScales]:
    """The length unit's name in lower case and the scales to metres."""
    name = "metre"
    scales = {"LENGTHUNIT": 1.0, "AREAUNIT": 1.0, "VOLUMEUNIT": 1.0}
    for assignment in ifc.by_type("IfcUnitAssignment")[:1]:
        for unit in assignment.Units:
            kind = getattr(unit, "UnitType", None)
            if kind in scales:
                power = ("LENGTHUNIT", "AREAUNIT", "VOLUMEUNIT").index(kind) + 1
                scales[kind] = _unit_scale(unit, power)
                if kind == "LENGTHUNIT":
                    prefix = (unit.Prefix or "") if unit.is_a("IfcSIUnit") else ""
                    name = f"{prefix}{unit.Name}".lower()
    return name, UnitScales(scales["LENGTHUNIT"], scales["AREAUNIT"], scales["VOLUMEUNIT"])


def placement_m(entity: Any, scale: float) -> np.ndarray[tuple[int, int], np.dtype[np.float64]]:
    """An object's placement as a 4 x 4 matrix in metres; identity where it has none."""
    placement = getattr(entity, "ObjectPlacement", None)
    matrix = np.eye(4) if placement is None else np.array(ifcopenshell.util.placement.get_local_placement(placement))
    matrix[:3, 3] *= scale
    return matrix


def storeys(ifc: Any, scale: float) -> tuple[Storey, ...]:
    """Storeys from the lowest up, at the height of their placement."""
    found = []
    for entity in ifc.by_type("IfcBuildingStorey"):
        if entity.ObjectPlacement is not None:
            elevation = float(placement_m(entity, scale)[2, 3])
        else:
            elevation = float(entity.Elevation or 0.0) * scale
        found.append(Storey(entity.GlobalId, str(entity.Name or entity.LongName or "unnamed"), elevation))
    return tuple(sorted(found, key=lambda storey: storey.elevation_m))


def _map_unit(crs: Any) -> float:
    unit = getattr(crs, "MapUnit", None)
    return _unit_scale(unit, 1) if unit is not None else 0.0


def map_conversion(ifc: Any, scale: float) -> MapConversion | None:
    """IfcMapConversion (IFC4 on), or ePSet_MapConversion on the site or project (IFC2X3).

    Eastings and northings are in the CRS's map unit, else in the file's length unit, as
    IfcMapConversion says.
    """
    if ifc.schema != "IFC2X3":
        for conversion in ifc.by_type("IfcMapConversion")[:1]:
            crs = conversion.TargetCRS
            unit = _map_unit(crs) or scale
            x, y = conversion.XAxisAbscissa, conversion.XAxisOrdinate
            turn = math.degrees(math.atan2(y, x)) if x is not None and y is not None else 0.0
            return MapConversion(
                str(crs.Name or "unnamed"),
                float(conversion.Eastings) * unit,
                float(conversion.Northings) * unit,
                float(conversion.OrthogonalHeight or 0.0) * unit,
                turn,
            )
        return None
    for rel in ifc.by_type("IfcRelDefinesByProperties"):
        definition = rel.RelatingPropertyDefinition
        if definition.is_a("IfcPropertySet") and str(definition.Name).lower() == "epset_mapconversion":
            values = {p.Name: p.NominalValue.wrappedValue for p in definition.HasProperties if p.NominalValue}
            if "Eastings" not in values or "Northings" not in values:
                continue
            turn = math.degrees(
                math.atan2(float(values.get("XAxisOrdinate", 0.0)), float(values.get("XAxisAbscissa", 1.0)))
            )
            return MapConversion(
                str(values.get("TargetCRS", "unnamed")),
                float(values["Eastings"]) * scale,
                float(values["Northings"]) * scale,
                float(values.get("OrthogonalHeight", 0.0)) * scale,
                turn,
            )
    return None


def true_north(ifc: Any) -> tuple[float, float] | None:
    """The direction of true north on plan in the file's own axes, if it says."""
    for context in ifc.by_type("IfcGeometricRepresentationContext", include_subtypes=False):
        if context.TrueNorth is not None:
            x, y = context.TrueNorth.DirectionRatios[:2]
            size = math.hypot(x, y)
            return (x / size, y / size) if size else None
    return None


def grid_axes(ifc: Any, scale: float) -> tuple[GridAxis, ...]:
    """Straight grid axes with a tag, on plan, in metres and the file's coordinates."""
    found = []
    for grid in ifc.by_type("IfcGrid"):
        matrix = placement_m(grid, scale)
        for axis in (*(grid.UAxes or ()), *(grid.VAxes or ()), *(grid.WAxes or ())):
            curve = axis.AxisCurve
            if not axis.AxisTag or not curve.is_a("IfcPolyline") or len(curve.Points) < 2:
                continue
            ends = []
            for point in (curve.Points[0], curve.Points[-1]):
                own = np.array([*point.Coordinates, 0.0, 0.0])[:3] * scale
                at = matrix @ np.array([own[0], own[1], own[2], 1.0])
                ends.append((float(at[0]), float(at[1])))
            if not axis.SameSense:
                ends.reverse()
            found.append(GridAxis(str(grid.Name or ""), str(axis.AxisTag), ends[0], ends[1]))
    return tuple(found)
