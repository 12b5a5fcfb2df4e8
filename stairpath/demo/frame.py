"""What a model file stands in: project, units, site, grid and storeys."""

from __future__ import annotations

import math
import uuid
from dataclasses import dataclass
from typing import Any

import ifcopenshell.guid

from stairpath.demo import building
from stairpath.demo.forms import FEET_M, Forms

_NAMESPACE = uuid.UUID("6b1d7b0e-3c55-4d0a-9d53-51a0c0a5b4f1")
_WRITTEN = 1_793_000_000


@dataclass(frozen=True)
class Site:
    """Where a file keeps its building: a turn about z and a shift, in metres."""

    rotation_deg: float = 0.0
    shift_m: tuple[float, float, float] = (0.0, 0.0, 0.0)
    map_conversion: bool = False
    grid: bool = True


class Frame(Forms):
    """A file with its project, units, site, building and grid, and nothing in it yet."""

    def __init__(self, name: str, title: str, firm: str, schema: str, unit: str, site: Site) -> None:
        super().__init__(schema, unit)
        self.name = name
        self._firm = firm
        self.storeys: dict[str, Any] = {}
        self._frame(title, unit, site)

    def guid(self, key: str) -> str:
        return str(ifcopenshell.guid.compress(uuid.uuid5(_NAMESPACE, f"{self.name}/{key}").hex))

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
        self.aggregate(project, [ifc_site], "project")
        self.aggregate(ifc_site, [house], "site")
        self._house = house
        if site.grid:
            self._grid(ifc_site)

    def _units(self, unit: str) -> list[Any]:
        make = self.make
        metre = make("IfcSIUnit", None, "LENGTHUNIT", "MILLI" if unit == "mm" else None, "METRE")
        length = metre
        if unit == "ft":
            size = make("IfcMeasureWithUnit", make("IfcLengthMeasure", FEET_M), metre)
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

    def aggregate(self, whole: Any, parts: list[Any], key: str) -> None:
        """Say that components are parts of a larger one."""
        self._root("IfcRelAggregates", f"parts/{key}", RelatingObject=whole, RelatedObjects=parts)
