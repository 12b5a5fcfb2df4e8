"""Writing one model file: placements, shapes, types, properties and relations.

Everything is given in metres and building coordinates; a draft turns it into the file's own
schema, unit and axes. GlobalIds follow from a name, so the same demo is written every time.
"""

from __future__ import annotations

import math
import uuid
from collections import defaultdict
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any, NamedTuple

import ifcopenshell
import ifcopenshell.guid

from stairpath.demo import building

Point = Sequence[float]
Items = list[Any]


class Measure(NamedTuple):
    """A property's figure with its IFC measure; lengths in metres."""

    kind: str
    value: float


Value = str | float | int | bool | Measure

_NAMESPACE = uuid.UUID("6b1d7b0e-3c55-4d0a-9d53-51a0c0a5b4f1")
_WRITTEN = 1_793_000_000
_FEET_M = 0.3048

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


@dataclass(frozen=True)
class Site:
    """Where a file keeps its building: a turn about z and a shift, in metres."""

    rotation_deg: float = 0.0
    shift_m: tuple[float, float, float] = (0.0, 0.0, 0.0)
    map_conversion: bool = False
    grid: bool = True


@dataclass(frozen=True)
class Stuff:
    """A material with the colour and transparency its surfaces are given."""

    name: str
    rgb: tuple[float, float, float]
    transparency: float = 0.0


@dataclass
class _Kind:
    entity: Any
    members: list[Any] = field(default_factory=list)


SMALL_ROD_M = 0.05
_SIDES = 8


def _polygon(radius: float) -> list[tuple[float, float]]:
    step = 2 * math.pi / _SIDES
    return [(radius * math.cos((i + 0.5) * step), radius * math.sin((i + 0.5) * step)) for i in range(_SIDES)]


def metres(value: float) -> Measure:
    """A property that is a length."""
    return Measure("IfcPositiveLengthMeasure", value)


class Draft:
    """One model file in the making."""

    def __init__(self, name: str, title: str, firm: str, schema: str, unit: str, site: Site) -> None:
        self.name = name
        self.schema = schema
        self.scale = {"m": 1.0, "mm": 1000.0, "ft": 1.0 / _FEET_M}[unit]
        self.ifc = ifcopenshell.file(schema=schema)
        self._firm = firm
        self._styles: dict[str, Any] = {}
        self._materials: dict[str, list[Any]] = defaultdict(list)
        self._kinds: dict[str, _Kind] = {}
        self._systems: dict[str, _Kind] = {}
        self._maps: dict[str, Any] = {}
        self._contained: dict[str, list[Any]] = defaultdict(list)
        self._spaces: dict[str, list[Any]] = defaultdict(list)
        self._property_sets: dict[tuple[str, tuple[tuple[str, Value], ...]], list[Any]] = {}
        self._keys: dict[str, int] = defaultdict(int)
        self.storeys: dict[str, Any] = {}
        self._frame(title, unit, site)

    # -- the frame: project, units, site, building -------------------------------------------

    def guid(self, key: str) -> str:
        return str(ifcopenshell.guid.compress(uuid.uuid5(_NAMESPACE, f"{self.name}/{key}").hex))

    def make(self, cls: str, *args: Any, **kwargs: Any) -> Any:
        return self.ifc.create_entity(cls, *args, **kwargs)

    def _root(self, cls: str, key: str, **kwargs: Any) -> Any:
        return self.make(cls, GlobalId=self.guid(key), OwnerHistory=self._history, **kwargs)

    def _frame(self, title: str, unit: str, site: Site) -> None:
        make = self.make
        person = make("IfcPerson", FamilyName="Drawing office")
        firm = make("IfcOrganization", Name=self._firm)
        both = make("IfcPersonAndOrganization", person, firm)
        tool = make("IfcApplication", firm, "1", "Quillhaven model writer", "QHW")
        self._history = make("IfcOwnerHistory", both, tool, None, "ADDED", None, None, None, _WRITTEN)
        self._z = make("IfcDirection", (0.0, 0.0, 1.0))
        north_turn = math.radians(90.0 - building.MAP_ROTATION_DEG + site.rotation_deg)
        north = make("IfcDirection", (math.cos(north_turn), math.sin(north_turn)))
        self.model_context = make(
            "IfcGeometricRepresentationContext",
            None,
            "Model",
            3,
            1e-5,
            self._axes((0, 0, 0)),
            north,
        )
        self.body = make(
            "IfcGeometricRepresentationSubContext",
            ContextIdentifier="Body",
            ContextType="Model",
            ParentContext=self.model_context,
            TargetView="MODEL_VIEW",
        )
        self.footprint = make(
            "IfcGeometricRepresentationSubContext",
            ContextIdentifier="FootPrint",
            ContextType="Model",
            ParentContext=self.model_context,
            TargetView="MODEL_VIEW",
        )
        project = self._root(
            "IfcProject",
            "project",
            Name="Quillhaven Tide Laboratory",
            LongName=title,
            RepresentationContexts=[self.model_context],
            UnitsInContext=make("IfcUnitAssignment", self._units(unit)),
        )
        if site.map_conversion:
            self._map_conversion()
        site_place = self._local(None, site.shift_m, site.rotation_deg)
        ifc_site = self._root(
            "IfcSite",
            "site",
            Name="Quillhaven quay",
            ObjectPlacement=site_place,
            CompositionType="ELEMENT",
        )
        self._building_place = self._local(site_place, (0, 0, 0))
        house = self._root(
            "IfcBuilding",
            "building",
            Name="Tide Laboratory",
            ObjectPlacement=self._building_place,
            CompositionType="ELEMENT",
        )
        self._aggregate(project, [ifc_site], "project")
        self._aggregate(ifc_site, [house], "site")
        self._house = house
        if site.grid:
            self._grid(ifc_site)

    def _units(self, unit: str) -> list[Any]:
        make = self.make
        metre = make("IfcSIUnit", None, "LENGTHUNIT", "MILLI" if unit == "mm" else None, "METRE")
        length = metre
        if unit == "ft":
            size = make("IfcMeasureWithUnit", make("IfcLengthMeasure", _FEET_M), metre)
            dims = make("IfcDimensionalExponents", 1, 0, 0, 0, 0, 0, 0)
            length = make("IfcConversionBasedUnit", dims, "LENGTHUNIT", "FOOT", size)
        return [
            length,
            make("IfcSIUnit", None, "AREAUNIT", None, "SQUARE_METRE"),
            make("IfcSIUnit", None, "VOLUMEUNIT", None, "CUBIC_METRE"),
            make("IfcSIUnit", None, "PLANEANGLEUNIT", None, "RADIAN"),
        ]

    def _map_conversion(self) -> None:
        turn = math.radians(building.MAP_ROTATION_DEG)
        crs = self.make(
            "IfcProjectedCRS",
            Name="Quillhaven Coast Grid",
            Description="Made-up national grid of the demo",
            GeodeticDatum="QCG",
            MapUnit=self.make("IfcSIUnit", None, "LENGTHUNIT", None, "METRE"),
        )
        self.make(
            "IfcMapConversion",
            SourceCRS=self.model_context,
            TargetCRS=crs,
            Eastings=building.MAP_EASTING_M,
            Northings=building.MAP_NORTHING_M,
            OrthogonalHeight=0.0,
            XAxisAbscissa=math.cos(turn),
            XAxisOrdinate=math.sin(turn),
            Scale=1.0 / self.scale,
        )

    def _grid(self, ifc_site: Any) -> None:
        def axes(lines: dict[str, float], along_x: bool) -> list[Any]:
            made = []
            for tag, at in lines.items():
                ends = (
                    ((-3.0, at), (building.LENGTH_M + 3.0, at))
                    if along_x
                    else ((at, -3.0), (at, building.WIDTH_M + 3.0))
                )
                curve = self.make("IfcPolyline", [self.point(p) for p in ends])
                made.append(self.make("IfcGridAxis", tag, curve, True))
            return made

        u = axes(building.LETTERED_AXES_M, along_x=True)
        v = axes(building.NUMBERED_AXES_M, along_x=False)
        curves = self.make("IfcGeometricCurveSet", [axis.AxisCurve for axis in (*u, *v)])
        shape = self.make(
            "IfcProductDefinitionShape",
            None,
            None,
            [self.make("IfcShapeRepresentation", self.footprint, "FootPrint", "GeometricCurveSet", [curves])],
        )
        grid = self._root(
            "IfcGrid",
            "grid",
            Name="Building grid",
            ObjectPlacement=self._local(self._building_place, (0, 0, 0)),
            Representation=shape,
            UAxes=u,
            VAxes=v,
        )
        self._root(
            "IfcRelContainedInSpatialStructure",
            "grid-contained",
            RelatedElements=[grid],
            RelatingStructure=ifc_site,
        )

    def storey(self, name: str, elevation_m: float) -> None:
        """Add a storey; components are placed relative to it."""
        place = self._local(self._building_place, (0, 0, elevation_m))
        self.storeys[name] = self._root(
            "IfcBuildingStorey",
            f"storey/{name}",
            Name=name,
            ObjectPlacement=place,
            CompositionType="ELEMENT",
            Elevation=elevation_m * self.scale,
        )

    # -- geometry ------------------------------------------------------------------------------

    def point(self, at: Point) -> Any:
        return self.make("IfcCartesianPoint", tuple(float(c) * self.scale for c in at))

    def _length(self, metres: float) -> float:
        return float(metres) * self.scale

    def _axes(self, at: Point, turn_deg: float = 0.0, axis: Point | None = None, x: Point | None = None) -> Any:
        if axis is None and turn_deg:
            turn = math.radians(turn_deg)
            return self.make(
                "IfcAxis2Placement3D",
                self.point(at),
                self._z,
                self.make("IfcDirection", (math.cos(turn), math.sin(turn), 0.0)),
            )
        if axis is None:
            return self.make("IfcAxis2Placement3D", self.point(at))
        return self.make(
            "IfcAxis2Placement3D",
            self.point(at),
            self.make("IfcDirection", tuple(map(float, axis))),
            self.make("IfcDirection", tuple(map(float, x or (1, 0, 0)))),
        )

    def _local(self, parent: Any, at: Point, turn_deg: float = 0.0) -> Any:
        return self.make("IfcLocalPlacement", parent, self._axes(at, turn_deg))

    def _extrude(self, profile: Any, depth: float, at: Point, axis: Point | None, x: Point | None) -> Any:
        return self.make(
            "IfcExtrudedAreaSolid",
            profile,
            self._axes(at, axis=axis, x=x),
            self._z,
            self._length(depth),
        )

    def _flat(self) -> Any:
        return self.make("IfcAxis2Placement2D", self.make("IfcCartesianPoint", (0.0, 0.0)))

    def box(self, at: Point, size: Point) -> Any:
        """A box from its lowest corner."""
        profile = self.make(
            "IfcRectangleProfileDef", "AREA", None, self._flat(), self._length(size[0]), self._length(size[1])
        )
        base = (at[0] + size[0] / 2, at[1] + size[1] / 2, at[2])
        return self._extrude(profile, size[2], base, None, None)

    def _outline(self, points: Iterable[Point]) -> Any:
        made = [self.point(p) for p in points]
        return self.make("IfcPolyline", [*made, made[0]])

    def prism(
        self,
        outline: Iterable[Point],
        depth: float,
        at: Point = (0, 0, 0),
        holes: Sequence[Iterable[Point]] = (),
        axis: Point | None = None,
        x: Point | None = None,
    ) -> Any:
        """A flat outline, with holes if any, pushed ``depth`` along its normal."""
        curve = self._outline(outline)
        if holes:
            profile = self.make(
                "IfcArbitraryProfileDefWithVoids", "AREA", None, curve, [self._outline(h) for h in holes]
            )
        else:
            profile = self.make("IfcArbitraryClosedProfileDef", "AREA", None, curve)
        return self._extrude(profile, depth, at, axis, x)

    def rod(self, at: Point, axis: Point, length: float, radius: float, wall: float | None = None) -> Any:
        """A straight round bar or, with a wall thickness, a tube; thin ones are drawn eight-sided."""
        x = (0, 0, 1) if abs(axis[2]) < 0.9 else (1, 0, 0)
        if radius < SMALL_ROD_M:
            return self.prism(_polygon(radius), length, at, [_polygon(radius - wall)] if wall else (), axis, x)
        if wall is None:
            profile = self.make("IfcCircleProfileDef", "AREA", None, self._flat(), self._length(radius))
        else:
            profile = self.make(
                "IfcCircleHollowProfileDef", "AREA", None, self._flat(), self._length(radius), self._length(wall)
            )
        return self._extrude(profile, length, at, axis, x)

    def rect_tube(self, at: Point, axis: Point, x: Point, length: float, width: float, height: float) -> Any:
        """A straight rectangular duct; ``x`` is the direction of its width."""
        w, h, t = width / 2, height / 2, 0.02
        outer = [(-w, -h), (w, -h), (w, h), (-w, h)]
        inner = [(-w + t, -h + t), (w - t, -h + t), (w - t, h - t), (-w + t, h - t)]
        return self.prism(outer, length, at, [inner], axis, x)

    def i_section(self, at: Point, axis: Point, x: Point, length: float, depth: float, width: float) -> Any:
        """A rolled I-section; ``x`` is the direction of its flanges."""
        profile = self.make(
            "IfcIShapeProfileDef",
            "AREA",
            f"I {depth * 1000:.0f} x {width * 1000:.0f}",
            self._flat(),
            self._length(width),
            self._length(depth),
            self._length(0.010),
            self._length(0.016),
        )
        return self._extrude(profile, length, at, axis, x)

    def sweep(self, path: Sequence[Point], radius: float) -> Any:
        """A round pipe or rail that follows straight stretches of a path."""
        line = self.make("IfcPolyline", [self.point(p) for p in path])
        return self.make("IfcSweptDiskSolid", line, self._length(radius), None, 0.0, float(len(path) - 1))

    def bend(self, corner: Point, into: Point, out: Point, reach: float, section: Any) -> Any:
        """A quarter bend: ``section`` turned about the inner corner of two directions."""
        start = [corner[i] - into[i] * reach for i in range(3)]
        # Profile x points towards the centre of the turn, profile z along the way in.
        position = self._axes(start, axis=into, x=out)
        local_axis = self.make(
            "IfcAxis1Placement", self.point((reach, 0, 0)), self.make("IfcDirection", (0.0, -1.0, 0.0))
        )
        return self.make("IfcRevolvedAreaSolid", section, position, local_axis, math.pi / 2)

    def round_section(self, radius: float) -> Any:
        return self.make("IfcCircleProfileDef", "AREA", None, self._flat(), self._length(radius))

    def rect_section(self, towards: float, across: float) -> Any:
        return self.make(
            "IfcRectangleProfileDef", "AREA", None, self._flat(), self._length(towards), self._length(across)
        )

    # -- components ----------------------------------------------------------------------------

    def style(self, items: Items, stuff: Stuff) -> Items:
        """Give items the surface colour of a material."""
        if stuff.name not in self._styles:
            colour = self.make("IfcColourRgb", None, *stuff.rgb)
            rendering = self.make("IfcSurfaceStyleRendering", colour, stuff.transparency, ReflectanceMethod="FLAT")
            surface = self.make("IfcSurfaceStyle", stuff.name, "BOTH", [rendering])
            self._styles[stuff.name] = (
                self.make("IfcPresentationStyleAssignment", [surface]) if self.schema == "IFC2X3" else surface
            )
        for item in items:
            self.make("IfcStyledItem", item, [self._styles[stuff.name]], None)
        return items

    def shared(self, key: str, build: Callable[[], Items]) -> Items:
        """Items built once and placed by reference wherever they are used."""
        if key not in self._maps:
            shape = self.make("IfcShapeRepresentation", self.body, "Body", "SolidModel", build())
            self._maps[key] = self.make("IfcRepresentationMap", self._axes((0, 0, 0)), shape)
        target = self.make(
            "IfcCartesianTransformationOperator3D", None, None, self.make("IfcCartesianPoint", (0.0, 0.0, 0.0)), 1.0
        )
        return [self.make("IfcMappedItem", self._maps[key], target)]

    def _shape(self, items: Items) -> Any:
        kinds = {item.is_a() for item in items}
        if kinds == {"IfcMappedItem"}:
            kind = "MappedRepresentation"
        elif kinds & {"IfcSweptDiskSolid"}:
            kind = "AdvancedSweptSolid"
        else:
            kind = "SweptSolid"
        rep = self.make("IfcShapeRepresentation", self.body, "Body", kind, items)
        return self.make("IfcProductDefinitionShape", None, None, [rep])

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
            self._materials[material.name].append(entity)
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
            elif type_cls not in ("IfcElementAssemblyType",):
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

    def aggregate(self, whole: Any, parts: list[Any], key: str) -> None:
        """Say that components are parts of a larger one."""
        self._aggregate(whole, parts, key)

    def _aggregate(self, whole: Any, parts: list[Any], key: str) -> None:
        self._root("IfcRelAggregates", f"parts/{key}", RelatingObject=whole, RelatedObjects=parts)

    # -- closing -------------------------------------------------------------------------------

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
        self._aggregate(self._house, list(self.storeys.values()), "building")
        for storey, entities in self._contained.items():
            self._root(
                "IfcRelContainedInSpatialStructure",
                f"contained/{storey}",
                RelatedElements=entities,
                RelatingStructure=self.storeys[storey],
            )
        for storey, spaces in self._spaces.items():
            self._aggregate(self.storeys[storey], spaces, f"spaces/{storey}")
        for name, kind in self._kinds.items():
            self._root("IfcRelDefinesByType", f"typed/{name}", RelatedObjects=kind.members, RelatingType=kind.entity)
        for name, entities in self._materials.items():
            self._root(
                "IfcRelAssociatesMaterial",
                f"material/{name}",
                RelatedObjects=entities,
                RelatingMaterial=self.make("IfcMaterial", name),
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
