"""The relations of an IFC file, gathered once so that no component has to be asked twice."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from stairpath.core.reading.model import PropertySets, PropertyValue, Quantity
from stairpath.core.reading.validate import finite
from stairpath.core.texts import plain

_QUANTITY_UNITS = {
    "IfcQuantityLength": ("LengthValue", "m", 1),
    "IfcQuantityArea": ("AreaValue", "m²", 2),
    "IfcQuantityVolume": ("VolumeValue", "m³", 3),
    "IfcQuantityWeight": ("WeightValue", "kg", 0),
    "IfcQuantityCount": ("CountValue", "", 0),
    "IfcQuantityTime": ("TimeValue", "s", 0),
}
# Measures with the unit they are shown in, and the power of the file's length unit in them.
# Those without a length are taken to be in SI units, as IFC files have them by default.
_MEASURES: dict[str, tuple[str, int]] = {
    "IfcLengthMeasure": ("m", 1),
    "IfcPositiveLengthMeasure": ("m", 1),
    "IfcNonNegativeLengthMeasure": ("m", 1),
    "IfcAreaMeasure": ("m²", 2),
    "IfcVolumeMeasure": ("m³", 3),
    "IfcMassMeasure": ("kg", 0),
    "IfcPowerMeasure": ("W", 0),
    "IfcPressureMeasure": ("Pa", 0),
    "IfcThermalTransmittanceMeasure": ("W/m²K", 0),
    "IfcVolumetricFlowRateMeasure": ("m³/s", 0),
    "IfcElectricVoltageMeasure": ("V", 0),
    "IfcElectricCurrentMeasure": ("A", 0),
    "IfcForceMeasure": ("N", 0),
    "IfcThermodynamicTemperatureMeasure": ("K", 0),
    "IfcTimeMeasure": ("s", 0),
}


@dataclass(frozen=True)
class UnitScales:
    """What one unit of the file is in metres, square metres and cubic metres."""

    length: float = 1.0
    area: float = 1.0
    volume: float = 1.0

    def of(self, power: int) -> float:
        return (1.0, self.length, self.area, self.volume)[power]


@dataclass
class Relations:
    """Relations by STEP id of the object they are about."""

    container: dict[int, Any] = field(default_factory=dict)
    whole: dict[int, Any] = field(default_factory=dict)
    parts: dict[int, list[int]] = field(default_factory=lambda: defaultdict(list))
    type_of: dict[int, Any] = field(default_factory=dict)
    material: dict[int, str] = field(default_factory=dict)
    systems: dict[int, list[str]] = field(default_factory=lambda: defaultdict(list))
    sets: dict[int, list[Any]] = field(default_factory=lambda: defaultdict(list))
    host: dict[int, Any] = field(default_factory=dict)
    connected: dict[int, list[Any]] = field(default_factory=lambda: defaultdict(list))
    broken: int = 0
    """Relations that could not be followed."""


def clean(value: Any) -> str:
    """A text without what cannot be kept: NUL, and halves of characters."""
    return plain(str(value).encode("utf-8", errors="replace").decode())


def _material_name(material: Any) -> str:
    if material is None:
        return ""
    kind = material.is_a()
    if kind == "IfcMaterial":
        return clean(material.Name or "")
    if kind == "IfcMaterialLayerSetUsage":
        return _material_name(material.ForLayerSet)
    if kind == "IfcMaterialLayerSet":
        return " + ".join(_material_name(layer.Material) for layer in material.MaterialLayers if layer.Material)
    if kind == "IfcMaterialProfileSetUsage":
        return _material_name(material.ForProfileSet)
    if kind == "IfcMaterialProfileSet":
        return " + ".join(_material_name(p.Material) for p in material.MaterialProfiles or () if p.Material)
    if kind == "IfcMaterialConstituentSet":
        return " + ".join(_material_name(c.Material) for c in material.MaterialConstituents or () if c.Material)
    if kind == "IfcMaterialList":
        return " + ".join(_material_name(m) for m in material.Materials)
    return clean(getattr(material, "Name", "") or "")


def _wholes_of(entity: Any, known: Relations) -> set[int]:
    """An entity and all that it is a part of, by what is known so far."""
    found: set[int] = set()
    at: Any = entity
    while at is not None and at.id() not in found:
        found.add(at.id())
        at = known.whole.get(at.id())
    return found


def gather(ifc: Any) -> Relations:
    """Walk every relation of the file once; one that cannot be followed is counted and left."""
    out = Relations()
    voids: dict[int, Any] = {}

    def contained(rel: Any) -> None:
        for item in rel.RelatedElements:
            out.container[item.id()] = rel.RelatingStructure

    def made_of(rel: Any) -> None:
        whole = rel.RelatingObject
        above = _wholes_of(whole, out)
        if any(item.id() in above for item in rel.RelatedObjects):
            # A part of itself: following it never ends, in the geometry kernel too.
            ifc.remove(rel)
            out.broken += 1
            return
        for item in rel.RelatedObjects:
            out.whole[item.id()] = whole
            out.parts[whole.id()].append(item.id())

    def typed(rel: Any) -> None:
        for item in rel.RelatedObjects:
            out.type_of[item.id()] = rel.RelatingType

    def of_material(rel: Any) -> None:
        name = _material_name(rel.RelatingMaterial)
        for item in rel.RelatedObjects:
            out.material[item.id()] = name

    def in_system(rel: Any) -> None:
        if rel.RelatingGroup is not None and rel.RelatingGroup.is_a("IfcSystem"):
            for item in rel.RelatedObjects:
                out.systems[item.id()].append(clean(rel.RelatingGroup.Name or rel.RelatingGroup.GlobalId))

    def with_set(rel: Any) -> None:
        for item in rel.RelatedObjects:
            out.sets[item.id()].append(rel.RelatingPropertyDefinition)

    def void(rel: Any) -> None:
        voids[rel.RelatedOpeningElement.id()] = rel.RelatingBuildingElement

    of_port: dict[int, Any] = {}

    def has_port(rel: Any) -> None:
        of_port[rel.RelatingPort.id()] = rel.RelatedElement

    def nests_ports(rel: Any) -> None:
        for item in rel.RelatedObjects:
            if item.is_a("IfcPort"):
                of_port[item.id()] = rel.RelatingObject

    def join(one: Any, other: Any) -> None:
        if one is not None and other is not None and one.id() != other.id():
            out.connected[one.id()].append(other)
            out.connected[other.id()].append(one)

    def joins_ports(rel: Any) -> None:
        join(of_port.get(rel.RelatingPort.id()), of_port.get(rel.RelatedPort.id()))

    def joins(rel: Any) -> None:
        join(rel.RelatingElement, rel.RelatedElement)

    def filled(rel: Any) -> None:
        host = voids.get(rel.RelatingOpeningElement.id())
        if host is not None:
            out.host[rel.RelatedBuildingElement.id()] = host

    steps: tuple[tuple[str, Callable[[Any], None]], ...] = (
        ("IfcRelContainedInSpatialStructure", contained),
        ("IfcRelAggregates", made_of),
        ("IfcRelNests", made_of),
        ("IfcRelDefinesByType", typed),
        ("IfcRelAssociatesMaterial", of_material),
        ("IfcRelAssignsToGroup", in_system),
        ("IfcRelDefinesByProperties", with_set),
        ("IfcRelVoidsElement", void),
        ("IfcRelFillsElement", filled),
        ("IfcRelConnectsPortToElement", has_port),
        ("IfcRelNests", nests_ports),
        ("IfcRelConnectsPorts", joins_ports),
        ("IfcRelConnectsElements", joins),
    )
    for kind, note in steps:
        for rel in ifc.by_type(kind):
            try:
                note(rel)
            except Exception:  # an end that is missing or of another kind than the schema says
                out.broken += 1
    return out


def _said(value: PropertyValue) -> str:
    return f"{value.value:g} {value.unit}" if isinstance(value, Quantity) else str(value)


class SetReader:
    """Turns property sets and quantity sets into plain values, each set once."""

    def __init__(self, scales: UnitScales) -> None:
        self._scales = scales
        self._properties: dict[int, dict[str, PropertyValue]] = {}

    def _value(self, value: Any) -> PropertyValue:
        if value is None:
            return None
        raw = value.wrappedValue
        measure = _MEASURES.get(value.is_a())
        if measure is not None and (number := finite(raw)) is not None:
            return Quantity(number * self._scales.of(measure[1]), measure[0])
        if isinstance(raw, bool) or finite(raw) is not None:
            kept: PropertyValue = raw
            return kept
        return clean(raw)

    def _property(self, prop: Any) -> PropertyValue:
        kind = prop.is_a()
        if kind == "IfcPropertySingleValue":
            return self._value(prop.NominalValue)
        if kind == "IfcPropertyEnumeratedValue":
            return ", ".join(clean(v.wrappedValue) for v in prop.EnumerationValues or ())
        if kind == "IfcPropertyListValue":
            return ", ".join(clean(v.wrappedValue) for v in prop.ListValues or ())
        if kind == "IfcPropertyBoundedValue":
            low, high = self._value(prop.LowerBoundValue), self._value(prop.UpperBoundValue)
            return f"{_said(low)} to {_said(high)}"
        return None

    def properties(self, definition: Any) -> dict[str, PropertyValue]:
        """Name to value of one IfcPropertySet; measures with their unit, lengths in metres."""
        found = self._properties.get(definition.id())
        if found is None:
            found = {clean(p.Name): self._property(p) for p in definition.HasProperties or ()}
            self._properties[definition.id()] = found
        return found

    def quantities(self, definition: Any) -> dict[str, Quantity]:
        """Name to quantity of one IfcElementQuantity."""
        found = {}
        for quantity in definition.Quantities or ():
            known = _QUANTITY_UNITS.get(quantity.is_a())
            if known is None:
                continue
            attribute, unit, power = known
            value = finite(getattr(quantity, attribute))
            if value is not None:
                found[clean(quantity.Name)] = Quantity(value * self._scales.of(power), unit)
        return found

    def sets(self, definitions: list[Any]) -> tuple[PropertySets, dict[str, dict[str, Quantity]]]:
        """All sets of a component, by set name."""
        properties: PropertySets = {}
        quantities: dict[str, dict[str, Quantity]] = {}
        for definition in definitions:
            if definition.is_a("IfcPropertySet"):
                properties[clean(definition.Name)] = self.properties(definition)
            elif definition.is_a("IfcElementQuantity"):
                quantities[clean(definition.Name)] = self.quantities(definition)
        return properties, quantities
