"""Writing one model file: components with their types, properties and relations.

Everything is given in metres and building coordinates; a draft turns it into the file's own
schema, unit and axes. GlobalIds follow from a name, so the same demo is written every time.
"""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any, NamedTuple

from stairpath.demo import building
from stairpath.demo.forms import Items, Point, Stuff
from stairpath.demo.frame import Frame, Site


class Measure(NamedTuple):
    """A property's figure with its IFC measure; lengths in metres."""

    kind: str
    value: float


Value = str | float | int | bool | Measure

# IFC2X3 knows the finer classes of building services as types only.
_IFC2X3_OCCURRENCE: dict[str, tuple[str, str]] = {
    "IfcDuctSegment": ("IfcFlowSegment", "IfcDuctSegmentType"),
    "IfcDuctFitting": ("IfcFlowFitting", "IfcDuctFittingType"),
    "IfcAirTerminal": ("IfcFlowTerminal", "IfcAirTerminalType"),
    "IfcDamper": ("IfcFlowController", "IfcDamperType"),
    "IfcFan": ("IfcFlowMovingDevice", "IfcFanType"),
    "IfcUnitaryEquipment": ("IfcEnergyConversionDevice", "IfcUnitaryEquipmentType"),
    "IfcPipeSegment": ("IfcFlowSegment", "IfcPipeSegmentType"),
    "IfcPipeFitting": ("IfcFlowFitting", "IfcPipeFittingType"),
    "IfcValve": ("IfcFlowController", "IfcValveType"),
    "IfcPump": ("IfcFlowMovingDevice", "IfcPumpType"),
    "IfcFireSuppressionTerminal": ("IfcFlowTerminal", "IfcFireSuppressionTerminalType"),
}


@dataclass
class _Kind:
    entity: Any
    members: list[Any] = field(default_factory=list)


def metres(value: float) -> Measure:
    """A property that is a length."""
    return Measure("IfcPositiveLengthMeasure", value)


class Draft(Frame):
    """One model file in the making."""

    def __init__(self, name: str, title: str, firm: str, schema: str, unit: str, site: Site) -> None:
        super().__init__(name, title, firm, schema, unit, site)
        self._materials: dict[Stuff, list[Any]] = defaultdict(list)
        self._kinds: dict[str, _Kind] = {}
        self._systems: dict[str, _Kind] = {}
        self._contained: dict[str, list[Any]] = defaultdict(list)
        self._keys: dict[str, int] = defaultdict(int)
        self._ports: dict[Any, list[Any]] = {}
        self._spaces: dict[str, list[Any]] = defaultdict(list)
        self._property_sets: dict[tuple[str, tuple[tuple[str, Value], ...]], list[Any]] = {}

    def add(
        self,
        cls: str,
        storey: str,
        name: str,
        items: Items,
        *,
        tag: str = "",
        description: str = "",
        at: Point = (0, 0, 0),
        turn_deg: float = 0.0,
        kind: str = "",
        predefined: str | None = None,
        material: Stuff | None = None,
        properties: dict[str, dict[str, Value]] | None = None,
        quantities: dict[str, float] | None = None,
        system: str | None = None,
        key: str | None = None,
        **attributes: Any,
    ) -> Any:
        """One component on a storey, with what a good office fills in about it."""
        base = key or f"{cls}/{tag or name}/{storey}"
        self._keys[base] += 1
        unique = base if self._keys[base] == 1 else f"{base}#{self._keys[base]}"
        occurrence, type_cls = self._classes(cls)
        if predefined and self.schema != "IFC2X3" and not type_cls.endswith("Style"):
            attributes.setdefault("PredefinedType", predefined)
        entity = self._root(
            occurrence,
            unique,
            Name=name,
            Description=description or None,
            Tag=tag or None,
            ObjectPlacement=self._local(self.storeys[storey].ObjectPlacement, at, turn_deg),
            Representation=self._shape(items) if items else None,
            **attributes,
        )
        self._contained[storey].append(entity)
        if kind:
            self._kind(type_cls, kind, predefined).members.append(entity)
        if material is not None:
            self._materials[material].append(entity)
        for set_name, values in (properties or {}).items():
            self._property_sets.setdefault((set_name, tuple(values.items())), []).append(entity)
        if quantities:
            self._quantities(entity, unique, quantities)
        if system:
            self._system(system).members.append(entity)
        return entity

    def _classes(self, cls: str) -> tuple[str, str]:
        if self.schema == "IFC2X3":
            if cls in _IFC2X3_OCCURRENCE:
                return _IFC2X3_OCCURRENCE[cls]
            return cls, f"{cls}Type"
        return cls, "IfcDoorType" if cls == "IfcDoor" else f"{cls}Type"

    def _kind(self, type_cls: str, name: str, predefined: str | None) -> _Kind:
        found = self._kinds.get(f"{type_cls}/{name}")
        if found is None:
            extra: dict[str, Any] = {}
            if type_cls == "IfcDoorType":
                extra = {"OperationType": "SINGLE_SWING_LEFT", "PredefinedType": "DOOR"}
            elif type_cls == "IfcWindowType":
                extra = {"PartitioningType": "SINGLE_PANEL", "PredefinedType": "WINDOW"}
            elif type_cls == "IfcFurnitureType":
                extra = {"AssemblyPlace": "SITE"}
            elif type_cls not in ("IfcElementAssemblyType", "IfcDiscreteAccessoryType"):
                extra = {"PredefinedType": predefined or "NOTDEFINED"}
            entity = self._root(type_cls, f"type/{type_cls}/{name}", Name=name, **extra)
            found = self._kinds[f"{type_cls}/{name}"] = _Kind(entity)
        return found

    def _system(self, name: str) -> _Kind:
        if name not in self._systems:
            cls = "IfcSystem" if self.schema == "IFC2X3" else "IfcDistributionSystem"
            self._systems[name] = _Kind(self._root(cls, f"system/{name}", Name=name))
        return self._systems[name]

    def _quantities(self, entity: Any, key: str, values: dict[str, float]) -> None:
        made = []
        for name, value in values.items():
            if name.endswith("Area"):
                made.append(self.make("IfcQuantityArea", name, None, None, float(value)))
            elif name.endswith("Volume"):
                made.append(self.make("IfcQuantityVolume", name, None, None, float(value)))
            else:
                made.append(self.make("IfcQuantityLength", name, None, None, self._length(value)))
        base = self._root("IfcElementQuantity", f"quantities/{key}", Name="BaseQuantities", Quantities=made)
        self._root(
            "IfcRelDefinesByProperties",
            f"quantities-of/{key}",
            RelatedObjects=[entity],
            RelatingPropertyDefinition=base,
        )

    def join(self, one: Any, other: Any) -> None:
        """Connect two components, each by a port of its own."""
        key = f"{one.GlobalId}/{other.GlobalId}"
        ports = [
            self._root("IfcDistributionPort", f"port/{key}/{end}", ObjectPlacement=each.ObjectPlacement)
            for end, each in enumerate((one, other))
        ]
        for end, (port, element) in enumerate(zip(ports, (one, other), strict=True)):
            if self.schema == "IFC2X3":
                self._root(
                    "IfcRelConnectsPortToElement", f"has-port/{key}/{end}", RelatingPort=port, RelatedElement=element
                )
            else:
                self._ports.setdefault(element, []).append(port)
        self._root("IfcRelConnectsPorts", f"joins/{key}", RelatingPort=ports[0], RelatedPort=ports[1])

    def opening(self, wall: Any, key: str, items: Items, at: Point, turn_deg: float, filling: Any = None) -> None:
        """Cut an opening out of a wall or slab; ``at`` is in the storey's coordinates."""
        storey_place = wall.ObjectPlacement.PlacementRelTo
        hole = self._root(
            "IfcOpeningElement",
            f"opening/{key}",
            Name="Opening",
            ObjectPlacement=self._local(storey_place, at, turn_deg),
            Representation=self._shape(items),
        )
        self._root("IfcRelVoidsElement", f"voids/{key}", RelatingBuildingElement=wall, RelatedOpeningElement=hole)
        if filling is not None:
            self._root(
                "IfcRelFillsElement",
                f"fills/{key}",
                RelatingOpeningElement=hole,
                RelatedBuildingElement=filling,
            )

    def space(self, room: building.Room, height_m: float) -> None:
        """A room as a space of its storey."""
        outline = [(room.x0, room.y0), (room.x1, room.y0), (room.x1, room.y1), (room.x0, room.y1)]
        entity = self._root(
            "IfcSpace",
            f"space/{room.number}",
            Name=room.number,
            LongName=room.name,
            ObjectPlacement=self._local(self.storeys[room.storey].ObjectPlacement, (0, 0, 0)),
            Representation=self._shape([self.prism(outline, height_m)]),
            CompositionType="ELEMENT",
        )
        self._spaces[room.storey].append(entity)
        self._quantities(
            entity,
            f"space/{room.number}",
            {"NetFloorArea": room.area_m2, "Height": height_m, "NetVolume": room.area_m2 * height_m},
        )

    def _material(self, stuff: Stuff) -> Any:
        """A material with the surface of what is made of it and has no style of its own."""
        material = self.make("IfcMaterial", stuff.name)
        item = self.make("IfcStyledItem", None, [self._surface(stuff)], None)
        shown = self.make("IfcStyledRepresentation", self.body, "Style", "Material", [item])
        self.make("IfcMaterialDefinitionRepresentation", None, None, [shown], material)
        return material

    def _properties(self, values: tuple[tuple[str, Value], ...]) -> list[Any]:
        made = []
        for name, value in values:
            if isinstance(value, Measure):
                scale = self.scale if "Length" in value.kind else 1.0
                nominal = self.make(value.kind, value.value * scale)
            elif isinstance(value, bool):
                nominal = self.make("IfcBoolean", value)
            elif isinstance(value, int):
                nominal = self.make("IfcInteger", value)
            elif isinstance(value, float):
                nominal = self.make("IfcReal", value)
            else:
                nominal = self.make("IfcLabel", value)
            made.append(self.make("IfcPropertySingleValue", name, None, nominal, None))
        return made

    def write(self, folder: Path) -> Path:
        """Close all relations and write the file."""
        self.aggregate(self._house, list(self.storeys.values()), "building")
        for storey, entities in self._contained.items():
            self._root(
                "IfcRelContainedInSpatialStructure",
                f"contained/{storey}",
                RelatedElements=entities,
                RelatingStructure=self.storeys[storey],
            )
        for storey, spaces in self._spaces.items():
            self.aggregate(self.storeys[storey], spaces, f"spaces/{storey}")
        for element, ports in self._ports.items():
            self._root("IfcRelNests", f"ports/{element.GlobalId}", RelatingObject=element, RelatedObjects=ports)
        for name, kind in self._kinds.items():
            self._root("IfcRelDefinesByType", f"typed/{name}", RelatedObjects=kind.members, RelatingType=kind.entity)
        for stuff, entities in self._materials.items():
            self._root(
                "IfcRelAssociatesMaterial",
                f"material/{stuff.name}",
                RelatedObjects=entities,
                RelatingMaterial=self._material(stuff),
            )
        for index, ((set_name, values), entities) in enumerate(self._property_sets.items()):
            bundle = self._root(
                "IfcPropertySet", f"pset/{index}", Name=set_name, HasProperties=self._properties(values)
            )
            self._root(
                "IfcRelDefinesByProperties",
                f"pset-of/{index}",
                RelatedObjects=entities,
                RelatingPropertyDefinition=bundle,
            )
        for name, kind in self._systems.items():
            self._root("IfcRelAssignsToGroup", f"in/{name}", RelatedObjects=kind.members, RelatingGroup=kind.entity)
            self._root(
                "IfcRelServicesBuildings",
                f"serves/{name}",
                RelatingSystem=kind.entity,
                RelatedBuildings=[self._house],
            )
        path = folder / f"{self.name}.ifc"
        header = self.ifc.header
        header.file_name.name = path.name
        header.file_name.time_stamp = "2026-11-16T08:00:00"
        header.file_name.author = ("Drawing office",)
        header.file_name.organization = (self._firm,)
        self.ifc.write(str(path))
        return path
